// Flat sections through a mesh, and the slabs that a stack is built from.
#pragma once

#include <span>

#include "core/base/progress.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

/// A section in the frame's flat coordinates, solid on the left of every loop. Where the surface is open, its
/// cut lines that end are in `open_lines` instead.
struct Section {
    double height = 0;
    Loops loops;
    std::vector<Loop> open_lines;
};

/// Cuts at every height along frame.w (points exactly at a height count as above it, so no cut can hit a
/// corner or lie in a face). Cost: the faces each cut crosses, after one linear pass. All cores; Cancelled.
std::vector<Section> sections(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                              std::span<const double> heights, Progress& progress);

/// Where a slab's upright edge lies against the shape: outside it all through its thickness, inside it, or on
/// it at half its thickness.
enum class SlabFit { oversize, undersize, middle };

struct Slab {
    int number = 0;           ///< from the foot, starting at 1
    double from = 0, to = 0;  ///< m along the axis
    Loops outline;            ///< in the frame's flat coordinates
    double area = 0;          ///< m²
    bool operator==(const Slab&) const = default;
};

struct SlabStack {
    Frame frame;
    std::vector<Slab> slabs;
    double volume = 0;  ///< m³ of all slabs
    bool operator==(const SlabStack&) const = default;
};

/// Slabs of equal thickness from the foot up. An oversize outline covers all that the shape fills anywhere in
/// the slab (its lower section and what looks down inside it, or its upper section and what looks up,
/// whichever is less); an undersize one only what it fills all through, and slabs without any are left out.
/// Exact for closed bodies to Clipper's micrometre, but for a hair of 20 µm at most (a thousandth of the
/// thickness) beside each face of a slab, so that shoulders on it count with neither. Throws InputError for a
/// thickness that makes no slab or more than 2000.
SlabStack slabs(const TriangleMesh& mesh, const Topology& topology, const Point& axis, double thickness,
                Progress& progress, SlabFit fit = SlabFit::oversize);

}  // namespace jig
