// A mesh from whatever file a maker has: STL, OBJ, PLY or STEP, told apart by their content.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

struct TrueRadii;

enum class MeshFormat { stl, obj, ply, step };

/// What the bytes are, by their content; nothing where they are none of these.
std::optional<MeshFormat> format_of(std::string_view bytes);

struct ReadRules {
    double unit = 1e-3;     ///< m of one file unit; STEP files carry their own
    double chord = 0.0005;  ///< m a flat facet may stray from a curved STEP face
};

/// Reads the bytes; polygons become triangles. Throws InputError naming `where` for files that are none of
/// these, cut short, or name points that are not there; Cancelled. `radii` is left as it was where the file
/// has facets only.
TriangleMesh read_mesh(std::string_view bytes, const std::string& where, const ReadRules& rules,
                       Progress& progress, TrueRadii* radii = nullptr);

/// STL (binary), OBJ or PLY (binary) by the ending of `path`; throws InputError for others.
std::string write_mesh(const TriangleMesh& mesh, const std::string& path);
/// Text OBJ and binary PLY, millimetres.
std::string write_obj(const TriangleMesh& mesh);
std::string write_ply(const TriangleMesh& mesh);

}  // namespace jig
