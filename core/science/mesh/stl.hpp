// STL in and out, text and binary.
#pragma once

#include <iosfwd>
#include <string>
#include <string_view>

#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// What follows the mark that some programs put before UTF-8.
inline std::string_view without_mark(std::string_view bytes) {
    return bytes.substr(0, 3) == "\xEF\xBB\xBF" ? bytes.substr(3) : bytes;
}

/// Whether the bytes look like an STL file of either kind.
bool looks_like_stl(std::string_view bytes);

/// Reads STL bytes; equal corners become one point. `unit` is the length of one file unit in metres.
/// Throws InputError naming `where` for truncated files, numbers that are not finite, broken text and files
/// without a triangle.
TriangleMesh read_stl(std::string_view bytes, const std::string& where, double unit, Progress& progress);

/// The bytes of a file. Throws InputError where it cannot be read or is larger than `limit` bytes.
std::string read_file(const std::string& path, std::size_t limit = std::size_t{1} << 31);

/// Binary STL in millimetres, the unit most cutters and printers assume.
std::string write_stl_binary(const TriangleMesh& mesh);
std::string write_stl_text(const TriangleMesh& mesh, const std::string& name);

/// Metres per unit for "mm", "cm", "m" or "in"; throws InputError otherwise.
double length_unit(const std::string& name);

}  // namespace jig
