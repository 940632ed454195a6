// OBJ and PLY, read by us: what goes wrong in them is said by its line and never ends the program.
#pragma once

#include <string>
#include <string_view>

#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Points and faces of polygons; texture, normals, colours, lines and points are passed over. Lines end in
/// LF, CR LF or CR; a mark of byte order, blanks and comments of any length may stand where the formats let
/// them. Throw InputError naming `where` and the line where there is one, and Cancelled.
TriangleMesh read_obj(std::string_view bytes, const std::string& where, double unit, Progress& progress);
TriangleMesh read_ply(std::string_view bytes, const std::string& where, double unit, Progress& progress);

/// Triangles of a polygon in space that may be hollow but does not cross itself: ears are cut off in the
/// plane of its mean normal (Newell). Corners as indices into `points`.
void cut_into_triangles(const std::vector<Point>& points, const std::vector<std::uint32_t>& polygon,
                        std::vector<Triangle>& out);

}  // namespace jig
