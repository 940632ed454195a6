// OBJ and PLY by CGAL's readers, behind guards that a hostile file cannot get past.
#pragma once

#include <string>
#include <string_view>

#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Throw InputError naming `where`, and Cancelled.
TriangleMesh read_obj(std::string_view bytes, const std::string& where, double unit, Progress& progress);
TriangleMesh read_ply(std::string_view bytes, const std::string& where, double unit, Progress& progress);

/// Triangles of a polygon in space that may be hollow but does not cross itself: ears are cut off in the
/// plane of its mean normal (Newell). Corners as indices into `points`.
void cut_into_triangles(const std::vector<Point>& points, const std::vector<std::uint32_t>& polygon,
                        std::vector<Triangle>& out);

}  // namespace jig
