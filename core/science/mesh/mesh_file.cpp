#include "core/science/mesh/mesh_file.hpp"

#include <fmt/format.h>

#include <array>
#include <cctype>
#include <cstring>

#include "core/science/mesh/polygon_files.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/stl.hpp"

namespace jig {
namespace {

/// Text in which a line starts with OBJ's word for a point, however long the comments before it are.
bool looks_like_obj(std::string_view bytes) {
    if (bytes.substr(0, 4096).find('\0') != std::string_view::npos) return false;
    for (std::size_t at = 0; at < bytes.size();) {
        const auto word = bytes.find_first_not_of(" \t", at);
        if (word == std::string_view::npos) return false;
        if (bytes[word] == 'v' && word + 1 < bytes.size() &&
            (bytes[word + 1] == ' ' || bytes[word + 1] == '\t'))
            return true;
        const auto end = bytes.find_first_of("\r\n", word);
        if (end == std::string_view::npos) return false;
        at = end + 1;
    }
    return false;
}

}  // namespace

std::optional<MeshFormat> format_of(std::string_view bytes) {
    if (looks_like_stl(bytes)) return MeshFormat::stl;
    if (bytes.substr(0, 3) == "\xEF\xBB\xBF") bytes.remove_prefix(3);
    if (bytes.substr(0, 3) == "ply" && bytes.size() > 3 &&
        (std::isspace(static_cast<unsigned char>(bytes[3])) != 0))
        return MeshFormat::ply;
    const auto first = bytes.find_first_not_of(" \t\r\n");
    if (first != std::string_view::npos && bytes.substr(first, 12) == "ISO-10303-21") return MeshFormat::step;
    if (looks_like_obj(bytes)) return MeshFormat::obj;
    return std::nullopt;
}

TriangleMesh read_mesh(std::string_view bytes, const std::string& where, const ReadRules& rules,
                       Progress& progress, TrueRadii* radii) {
    progress.check();
    switch (format_of(bytes).value_or(MeshFormat::stl)) {
        case MeshFormat::obj:
            return read_obj(bytes, where, rules.unit, progress);
        case MeshFormat::ply:
            return read_ply(bytes, where, rules.unit, progress);
        case MeshFormat::step:
            return read_step(bytes, where, rules.chord, progress, radii);
        case MeshFormat::stl:
            break;
    }
    // A binary STL that was cut short looks like nothing; the reader tells what is wrong with it.
    return read_stl(bytes, where, rules.unit, progress);
}

std::string write_mesh(const TriangleMesh& mesh, const std::string& path) {
    const auto dot = path.rfind('.');
    auto ending = dot == std::string::npos ? std::string() : path.substr(dot + 1);
    for (auto& c : ending) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    if (ending == "stl") return write_stl_binary(mesh);
    if (ending == "obj") return write_obj(mesh);
    if (ending == "ply") return write_ply(mesh);
    throw InputError(path, "a mesh is not written as \"" + ending + "\"",
                     "end the name in .stl, .obj or .ply");
}

std::string write_obj(const TriangleMesh& mesh) {
    std::string out = "# Jig Shell, millimetres\n";
    for (const auto& p : mesh.points)
        out += fmt::format("v {:.9g} {:.9g} {:.9g}\n", p.x() * 1e3, p.y() * 1e3, p.z() * 1e3);
    for (const auto& t : mesh.triangles) out += fmt::format("f {} {} {}\n", t[0] + 1, t[1] + 1, t[2] + 1);
    return out;
}

std::string write_ply(const TriangleMesh& mesh) {
    std::string out = fmt::format(
        "ply\nformat binary_little_endian 1.0\ncomment Jig Shell, millimetres\nelement vertex {}\nproperty "
        "float x\n"
        "property float y\nproperty float z\nelement face {}\nproperty list uchar int "
        "vertex_indices\nend_header\n",
        mesh.points.size(), mesh.triangles.size());
    const auto put = [&](const auto& value) {
        std::array<char, sizeof value> raw{};
        std::memcpy(raw.data(), &value, sizeof value);
        out.append(raw.data(), raw.size());
    };
    for (const auto& p : mesh.points) {
        for (int i = 0; i < 3; ++i) put(static_cast<float>(p[i] * 1e3));
    }
    for (const auto& t : mesh.triangles) {
        out += '\3';
        for (const auto i : t) put(static_cast<std::int32_t>(i));
    }
    return out;
}

}  // namespace jig
