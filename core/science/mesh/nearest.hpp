// The nearest place on a face or an edge.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

Point nearest_on_edge(const Point& p, const Point& a, const Point& b);
/// Of the triangle abc, its edges and corners included; one without area is its edges.
Point nearest_on_triangle(const Point& p, const Point& a, const Point& b, const Point& c);

}  // namespace jig
