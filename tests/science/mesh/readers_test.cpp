// Odd but sound files of every format, and many that are not sound.
#include <catch2/catch.hpp>

#include <random>

#include "core/base/error.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

TriangleMesh mesh_of(const std::string& bytes) {
    return read_mesh(bytes, "test", {1e-3, 0.0005}, quiet);
}

std::string refused(const std::string& bytes) {
    try {
        mesh_of(bytes);
    } catch (const InputError& e) {
        return e.where() + ": " + e.problem() + "; " + e.mend();
    }
    return {};
}

double volume_in(const TriangleMesh& m) {
    return measure(m, topology_of(m)).volume;
}

const char* kCube = R"(v 0 0 0
v 10 0 0
v 0 10 0
v 10 10 0
v 0 0 10
v 10 0 10
v 0 10 10
v 10 10 10
f 1 3 4 2
f 5 6 8 7
f 1 2 6 5
f 3 7 8 4
f 1 5 7 3
f 2 4 8 6
)";

std::string swapped(std::string text, const std::string& from, const std::string& to) {
    for (auto at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
        text.replace(at, from.size(), to);
    return text;
}

/// A ply header of a cube's faces as text.
std::string ply_cube(const std::string& extra = {}) {
    std::string out =
        "ply\nformat ascii 1.0\n" + extra +
        "element vertex 8\nproperty float x\nproperty float y\nproperty float z\nelement face 6\n"
        "property list uchar int vertex_indices\nend_header\n";
    for (int i = 0; i < 8; ++i)
        out += std::to_string(10 * (i & 1)) + " " + std::to_string(10 * ((i >> 1) & 1)) + " " +
               std::to_string(10 * (i >> 2)) + "\n";
    return out + "4 0 2 3 1\n4 4 5 7 6\n4 0 1 5 4\n4 2 6 7 3\n4 0 4 6 2\n4 1 3 7 5\n";
}

/// Bytes changed, dropped, doubled and cut, as files come from bad disks and bad programs.
std::string mutant(const std::string& seed, std::mt19937& dice) {
    auto out = seed;
    const auto roll = [&](std::size_t n) { return n == 0 ? 0 : dice() % n; };
    static const std::array<const char*, 14> words{"-1",
                                                   "999999999999",
                                                   "nan",
                                                   "1e999",
                                                   "inf",
                                                   "\n",
                                                   " ",
                                                   "element vertex 4000000000\n",
                                                   "property list uchar int x\n",
                                                   "end_header\n",
                                                   "facet",
                                                   "v ",
                                                   "f 1 2\n",
                                                   "\0\0"};
    for (std::size_t n = 1 + roll(4); n > 0 && !out.empty(); --n) {
        const auto at = roll(out.size());
        switch (roll(6)) {
            case 0:
                out[at] = static_cast<char>(roll(256));
                break;
            case 1:
                out.erase(at, 1 + roll(40));
                break;
            case 2:
                out.insert(at, out.substr(roll(out.size()), roll(60)));
                break;
            case 3:
                out.resize(at);
                break;
            case 4:
                out.insert(at, words[roll(words.size())]);
                break;
            default:
                out[at] = static_cast<char>(out[at] ^ (1 << roll(8)));
        }
    }
    return out;
}

}  // namespace

TEST_CASE(
    "sound OBJ files of other programs are read: lines, points, other line ends, marks, long comments") {
    CHECK(volume_in(mesh_of(kCube)) == Approx(1e-6));
    const std::string cube = kCube;
    CHECK(volume_in(mesh_of("\xEF\xBB\xBF" + cube)) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(cube, "\n", "\r\n"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(cube, "\n", "\r"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of("# " + std::string(100000, 'x') + "\n" + cube)) == Approx(1e-6));
    std::string header;
    for (int i = 0; i < 3000; ++i) header += "# line " + std::to_string(i) + "\n";
    CHECK(volume_in(mesh_of(header + cube)) == Approx(1e-6));
    CHECK(volume_in(mesh_of("mtllib a.mtl\no thing\ng part\ns off\nusemtl none\nl 1 2\np 1 2 3\n" + cube +
                            "l 1 2 3\np 4\n")) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(cube, "f 1 3 4 2", "f 1 3 \\\n 4 2"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(cube, "f 1 3 4 2", "f 1/1/1 3//2 4/3 2"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(cube, "f 2 4 8 6", "f -7 -5 -1 -3 # counted from the end"))) ==
          Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(cube, "v 0 0 0\n", "v  +0.0\t0e0 -0 1.0 0.5 0.5 0.5\n"))) ==
          Approx(1e-6));
    CHECK(refused(swapped(cube, "f 2 4 8 6", "f 2 4 8 60")).find("point that is not there") !=
          std::string::npos);
    CHECK(refused(swapped(cube, "v 10 0 0", "v 10 0")).find("line 2") != std::string::npos);
    CHECK(refused(swapped(cube, "f 1 2 6 5", "f 1 2")).find("line 11") != std::string::npos);
    CHECK(refused(swapped(cube, "f 1 2 6 5", "f 1 0 6 5")).find("line 11") != std::string::npos);
    CHECK(refused("v 1 2 3\n").find("no face") != std::string::npos);
}

TEST_CASE("sound PLY files of other programs are read, and unsound headers are said by their line") {
    CHECK(volume_in(mesh_of(ply_cube())) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(ply_cube(), "element vertex", "  element   vertex"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(ply_cube(), "ply\n", "ply \r\n"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(ply_cube("comment made by hand\nobj_info none\n\n"))) == Approx(1e-6));
    // Other elements before and after, other properties, other types and orders of bytes.
    auto more = swapped(ply_cube(), "property float z\n",
                        "property double z\nproperty uchar red\nproperty list int float w\n");
    for (int i = 0; i < 8; ++i) {
        const auto row = std::to_string(10 * (i & 1)) + " " + std::to_string(10 * ((i >> 1) & 1)) + " " +
                         std::to_string(10 * (i >> 2)) + "\n";
        const auto at = more.find(row, more.find("end_header"));
        more.insert(at + row.size() - 1, " 255 2 0.5 0.25");
    }
    CHECK(volume_in(mesh_of(more)) == Approx(1e-6));
    const auto box = shapes::box({0, 0, 0}, {0.01, 0.01, 0.01});
    auto big = write_ply(box);
    CHECK(volume_in(mesh_of(big)) == Approx(1e-6).epsilon(1e-5));
    const auto body = big.find("end_header\n") + 11;
    auto turned = swapped(big.substr(0, body), "little", "big");
    for (std::size_t i = 0; i < 8 * 3; ++i) {
        auto value = big.substr(body + 4 * i, 4);
        std::reverse(value.begin(), value.end());
        turned += value;
    }
    for (std::size_t f = 0; f < 12; ++f) {
        const auto at = body + 96 + 13 * f;
        turned += big[at];
        for (std::size_t k = 0; k < 3; ++k) {
            auto value = big.substr(at + 1 + 4 * k, 4);
            std::reverse(value.begin(), value.end());
            turned += value;
        }
    }
    CHECK(volume_in(mesh_of(turned)) == Approx(1e-6).epsilon(1e-5));
    CHECK(refused("ply\nformat ascii 1.0\nproperty float x\nelement vertex 3\nend_header\n").find("line 3") !=
          std::string::npos);
    CHECK(refused("ply\nelement vertex 3\nend_header\n").find("format") != std::string::npos);
    CHECK(refused("ply\nformat ascii 1.0\nelement vertex -3\nend_header\n").find("promises") !=
          std::string::npos);
    CHECK(refused("ply\nformat ascii 1.0\nelement vertex 1\nproperty half x\nend_header\n0\n").find("half") !=
          std::string::npos);
    CHECK(refused(ply_cube().substr(0, ply_cube().size() - 12)).find("cut short") != std::string::npos);
    CHECK(refused("ply\nformat ascii 1.0\nelement vertex 3\n").find("no end") != std::string::npos);
}

TEST_CASE(
    "sound text STL is read in capitals, with a mark, with tiny numbers and odd names; a cut one is not half "
    "a body") {
    const auto text = write_stl_text(shapes::box({0, 0, 0}, {0.01, 0.01, 0.01}), "box");
    CHECK(volume_in(mesh_of(text)) == Approx(1e-6));
    auto loud = text;
    for (auto& c : loud) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    CHECK(volume_in(mesh_of(loud)) == Approx(1e-6));
    CHECK(volume_in(mesh_of("\xEF\xBB\xBF" + text)) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(text, "solid box", "solid vertex 1 of endfacet"))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(text, "vertex 0 ", "vertex 1e-42 "))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(text, "vertex 0 ", "vertex -4.9e-324 "))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(text, "vertex 0 ", "vertex 1e-4000 "))) == Approx(1e-6));
    CHECK(volume_in(mesh_of(swapped(text, "\n", "\r"))) == Approx(1e-6));
    CHECK(refused(swapped(text, "vertex 10 ", "vertex 1e4000 ")).find("finite") != std::string::npos);
    const auto cut = text.substr(0, text.find("endfacet", text.size() / 2) + 9);
    CHECK(refused(cut).find("endsolid") != std::string::npos);
    CHECK_FALSE(refused(text.substr(0, text.size() / 2)).empty());
    CHECK(refused(cut.substr(0, cut.rfind("endloop"))).find("middle of a face") != std::string::npos);
    // Two bodies in one file are both read.
    const auto two = text + write_stl_text(shapes::box({1, 0, 0}, {0.01, 0.01, 0.01}), "other");
    CHECK(mesh_of(two).triangles.size() == 24);
}

TEST_CASE("ten thousand mutants of every format end in a mesh or in words") {
    const auto box = shapes::box({0, 0, 0}, {0.01, 0.02, 0.03});
    const std::vector<std::pair<const char*, std::string>> seeds{{"text stl", write_stl_text(box, "box")},
                                                                 {"stl", write_stl_binary(box)},
                                                                 {"obj", kCube},
                                                                 {"obj of ours", write_obj(box)},
                                                                 {"text ply", ply_cube("comment x\n")},
                                                                 {"ply", write_ply(box)}};
    for (const auto& [name, seed] : seeds) {
        std::mt19937 dice(20261126);
        int read_so_far = 0;
        for (int i = 0; i < 10000; ++i) {
            const auto bytes = mutant(seed, dice);
            if (format_of(bytes) == MeshFormat::step) continue;  // read in a process of its own
            try {
                const auto mesh = mesh_of(bytes);
                REQUIRE_FALSE(mesh.empty());
                for (const auto& t : mesh.triangles) {
                    for (const auto k : t) REQUIRE(k < mesh.points.size());
                }
                ++read_so_far;
            } catch (const InputError& e) {
                REQUIRE_FALSE(e.problem().empty());
                REQUIRE_FALSE(e.mend().empty());
            }
        }
        INFO(name);
        CHECK(read_so_far > 100);  // not all are refused: some harm is harmless
    }
}

TEST_CASE("ten thousand mutants of drawings end in an outline or in words") {
    const std::string dxf = read_file(std::string(JIG_SOURCE_DATA) + "/../tests/seeds/outline/square.dxf"),
                      svg = read_file(std::string(JIG_SOURCE_DATA) + "/../tests/seeds/outline/square.svg");
    CHECK(net_area({read_outline(dxf, "test", 1e-3)}) == Approx(1e-4));
    CHECK(net_area({read_outline(svg, "test", 1e-3)}) == Approx(64e-6));
    for (const auto& seed : {dxf, svg}) {
        std::mt19937 dice(20261126);
        int read_so_far = 0;
        for (int i = 0; i < 10000; ++i) {
            try {
                const auto loop = read_outline(mutant(seed, dice), "test", 1e-3);
                REQUIRE(loop.size() >= 3);
                for (const auto& p : loop) REQUIRE(p.allFinite());
                ++read_so_far;
            } catch (const InputError& e) {
                REQUIRE_FALSE(e.mend().empty());
            }
        }
        CHECK(read_so_far > 100);
    }
}
