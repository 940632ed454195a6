// Solid bodies out of surfaces: closed at the foot, cut in two, built up from slabs.
#pragma once

#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/slice.hpp"

namespace jig {

/// The body under a surface: its longest rim goes straight down to `foot` (m along frame.w) and is closed
/// flat there, other rims are closed by a fan about their middle. A closed surface comes back as it is.
TriangleMesh closed_body(const TriangleMesh& mesh, const Topology& topology, const Frame& frame, double foot);

/// m³ inside a closed surface, negative where its faces look inwards.
double enclosed_volume(const TriangleMesh& mesh);

/// A peg that stands on the face of a cut and the hole that it goes into.
struct Key {
    Point at;           ///< m, in the plane of the cut
    double radius = 0;  ///< m
    double depth = 0;   ///< m
};

struct CutSolid {
    TriangleMesh above, below;  ///< both closed, with keys as holes in `above` and pegs on `below`
    double face = 0;            ///< m² of the cut
    double seam = 0;            ///< m of it that shows on the surface
};

/// A closed body cut by the plane through `at` across `normal` (unit), each half closed in that plane; holes
/// are wider than their pegs by `play` m all round and as much deeper. Without play the halves' volumes add
/// up to the body's.
CutSolid cut_solid(const TriangleMesh& body, const Point& at, const Point& normal,
                   const std::vector<Key>& keys, double play);

/// Slabs as they lie on each other, one closed body with a step at every joint.
TriangleMesh stack_mesh(const SlabStack& stack);

}  // namespace jig
