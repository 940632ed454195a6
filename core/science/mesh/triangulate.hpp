// Triangles inside a flat outline, by CGAL's constrained Delaunay triangulation.
#pragma once

#include "core/science/mesh/outline.hpp"

namespace jig {

struct FlatMesh {
    std::vector<Point2> points;  ///< the outlines' own points first, in order
    std::vector<Triangle> triangles;
};

/// More triangles than this are a slip of a unit.
inline constexpr double kMostFilled = 3e6;

/// Fills outlines (holes clockwise or not: every second line outwards-in bounds a hole) with about
/// equilateral triangles of edge `spacing` m, keeping the outlines' points and adding none to them. Throws
/// InputError where a line crosses itself or another, or more than `kMostFilled` triangles would be made.
FlatMesh filled(const Loops& outlines, double spacing);
inline FlatMesh filled(const Loop& outline, double spacing) {
    return filled(Loops{outline}, spacing);
}

}  // namespace jig
