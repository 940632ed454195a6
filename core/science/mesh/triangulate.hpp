// Triangles inside a flat outline, by CGAL's constrained Delaunay triangulation.
#pragma once

#include "core/science/mesh/outline.hpp"

namespace jig {

struct FlatMesh {
    std::vector<Point2> points;  ///< the outline's own points first, in order
    std::vector<Triangle> triangles;
};

/// Fills an anticlockwise outline with about equilateral triangles of edge `spacing` m, keeping the outline's
/// points and adding none to it. Throws InputError where the outline crosses itself.
FlatMesh filled(const Loop& outline, double spacing);

}  // namespace jig
