// What of a surface lies under a round thing that is set square on it.
#pragma once

#include <utility>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// The faces that a disc of a radius, m, covers in part at least, and the share of each that it covers, as
/// they are seen along the normal; none of those that look more than 60 degrees away from it or lie more than
/// a radius above or below. Exact for the circle itself: by the sectors and triangles that each edge cuts
/// out.
std::vector<std::pair<std::size_t, double>> disc_cover(const TriangleMesh& mesh, const Point& middle,
                                                       const Point& normal, double radius);

}  // namespace jig
