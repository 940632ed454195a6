// A surface parted along a line: by a plane, or where a field over its points changes sign.
#pragma once

#include <span>

#include "core/science/mesh/topology.hpp"

namespace jig {

using Line = std::vector<Point>;  ///< a polyline in space; closed where its ends are the same point

struct Parted {
    TriangleMesh above, below;  ///< where the field is positive, and the rest; each with points of its own
    std::vector<Line> seams;    ///< the line between them
    double seam_length = 0;     ///< m
};

/// As shares of the largest value: to the last digits of doubles, and past the noise of single-precision
/// files.
inline constexpr double kExactSnap = 1e-9, kFileSnap = 1e-6;

/// Parts every triangle that the zero line of `field` (one value a point, linear in each triangle) crosses.
/// Values within `snap` of the largest lie on the line: triangles are parted at their corners there, and an
/// edge in the line is seam where it lies between the two sides.
Parted parted(const TriangleMesh& mesh, std::span<const double> field, double snap = kExactSnap);

/// By the plane through `at` across `normal` (any length); above is where the normal points.
Parted parted(const TriangleMesh& mesh, const Point& at, const Point& normal, double snap = kExactSnap);

/// The faces of `mesh` that `keep` names, with only the points that they use.
TriangleMesh some_faces(const TriangleMesh& mesh, const std::vector<std::uint32_t>& keep);

/// Short segments joined end to end into the fewest lines; ends within `reach` m meet.
std::vector<Line> chained(const std::vector<std::pair<Point, Point>>& segments, double reach);

double length_of(const Line& line);

/// Where the draft is zero along a unit pull: smooth lines through gently curved faces (from the points'
/// normals) and along sharp edges where it changes sign. The mould parts there or not at all.
std::vector<Line> zero_draft_lines(const TriangleMesh& mesh, const Topology& topology, const Point& pull);

}  // namespace jig
