#include "core/science/mesh/step.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "core/base/child.hpp"

namespace jig {
namespace {

/// A file that goes when we are done with it.
struct Scratch {
    std::string path = (std::filesystem::temp_directory_path() / "jigshell-step-XXXXXX").string();
    Scratch() {
        const int file = ::mkstemp(path.data());
        if (file < 0)
            throw InputError(path, "no temporary file can be made", "check the room left on the disk");
        ::close(file);
    }
    Scratch(const Scratch&) = delete;
    Scratch& operator=(const Scratch&) = delete;
    ~Scratch() {
        std::error_code none;
        std::filesystem::remove(path, none);
    }
};

std::string reader() {
    auto program = program_beside("jigshell-step");
    if (program.empty())
        throw InputError("STEP",
                         "the program jigshell-step, which reads and writes it, is not beside this one",
                         "install both, or use STL");
    return program;
}

std::string written(const char* verb, const std::string& lines) {
    const Scratch file;
    Progress quiet;
    const auto end =
        run_child({reader(), verb, file.path}, lines, std::chrono::seconds(60), quiet, "writing STEP");
    std::ifstream in(file.path, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    auto text = out.str();
    if (end.code != 0 || text.empty())
        throw InputError("STEP", "this shape cannot be written exactly",
                         "keep its points apart, or export STL");
    // A file belongs to its job, not to the second in which it was written.
    const auto stamp = text.find("FILE_NAME(");
    const auto from = stamp == std::string::npos ? stamp : text.find(",'", stamp);
    const auto to = from == std::string::npos ? from : text.find('\'', from + 2);
    if (to != std::string::npos) text.replace(from + 2, to - from - 2, "");
    return text;
}

std::string lines_of(const std::vector<std::vector<Point>>& all) {
    std::string out;
    for (const auto& line : all) {
        for (const auto& p : line) out += fmt::format("{:.12g} {:.12g} {:.12g}\n", p.x(), p.y(), p.z());
        out += "\n";
    }
    return out;
}

}  // namespace

TriangleMesh read_step(std::string_view bytes, const std::string& where, double chord, Progress& progress,
                       TrueRadii* radii) {
    const Scratch file;
    {
        std::ofstream out(file.path, std::ios::binary);
        out.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
        if (!out.flush())
            throw InputError(file.path, "it cannot be written", "check the room left on the disk");
    }
    // Processor time, so that a busy machine does not cut a sound file short; the clock is only the last
    // resort.
    const auto seconds = static_cast<long>(8 + bytes.size() / 100000);
    const auto end =
        run_child({reader(), "facets", file.path, fmt::format("{:.9g}", chord), std::to_string(seconds)}, "",
                  std::chrono::seconds(10 * seconds), progress, "turning STEP faces into facets");
    if (end.late)
        throw InputError(where, "its faces take too long to build",
                         "make the chord larger, or export it as STL");
    if (end.code == 4)
        throw InputError(where, "the file holds no face", "export a solid or surfaces, not wires or points");
    if (end.code == 3)
        throw InputError(where, "the file is cut short or no sound STEP", "copy or export it again");
    std::array<std::uint64_t, 2> counts{};
    TriangleMesh mesh;
    if (end.code == 0 && end.out.size() >= sizeof counts) {
        std::memcpy(counts.data(), end.out.data(), sizeof counts);
        const auto points = counts[0] * sizeof(Point), triangles = counts[1] * sizeof(Triangle);
        std::array<double, 2> least{};
        if (end.out.size() == sizeof counts + points + triangles + sizeof least) {
            mesh.points.resize(counts[0]);
            mesh.triangles.resize(counts[1]);
            std::memcpy(static_cast<void*>(mesh.points.data()), end.out.data() + sizeof counts, points);
            std::memcpy(mesh.triangles.data(), end.out.data() + sizeof counts + points, triangles);
            std::memcpy(least.data(), end.out.data() + sizeof counts + points + triangles, sizeof least);
            if (radii != nullptr) {
                if (least[0] > 0) radii->hollow = least[0];
                if (least[1] > 0) radii->round = least[1];
            }
        }
    }
    for (const auto& p : mesh.points) {
        if (!p.allFinite()) mesh.triangles.clear();
    }
    if (mesh.empty())
        throw InputError(where, "its faces cannot be built", "export the shape again, or as STL");
    return mesh;
}

std::string write_step_turned(const std::vector<Point2>& profile) {
    std::string lines;
    for (const auto& p : profile) lines += fmt::format("{:.12g} {:.12g}\n", p.x(), p.y());
    return written("turned", lines);
}

std::string write_step_wires(const std::vector<std::vector<Point>>& all) {
    return written("wires", lines_of(all));
}

std::string write_step_faces(const std::vector<std::vector<std::vector<Point>>>& faces) {
    std::string lines;
    for (const auto& face : faces) lines += lines_of(face) + "--\n";
    return written("faces", lines);
}

}  // namespace jig
