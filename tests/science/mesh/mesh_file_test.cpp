// The same body through every format, and what is not a mesh is refused with words.
#include <catch2/catch.hpp>
#include <chrono>
#include <random>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/polygon_files.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

TriangleMesh read(const std::string& bytes, const std::string& where = "test") {
    return read_mesh(bytes, where, {}, quiet);
}

std::vector<std::pair<std::string, std::string>> torus_in_all_formats() {
    const auto mesh = shapes::torus(0.3, 0.1, 40);
    return {{"binary STL", write_stl_binary(mesh)},
            {"text STL", write_stl_text(mesh, "torus")},
            {"OBJ", write_obj(mesh)},
            {"PLY", write_ply(mesh)},
            {"STEP", write_step_turned({{0.3, 0.0}, {0.25, 0.2}, {0.1, 0.3}, {0.0, 0.3}})}};
}

}  // namespace

TEST_CASE("a body is the same through every format") {
    const auto mesh = shapes::torus(0.3, 0.1, 40);
    const auto wanted = measure(mesh, topology_of(mesh));
    for (const auto& [name, bytes] : torus_in_all_formats()) {
        if (name == "STEP") continue;
        INFO(name);
        const auto back = read(bytes);
        const auto clean = repaired(back, quiet);
        const auto m = measure(clean.mesh, clean.topology);
        CHECK(m.closed);
        CHECK(clean.mesh.triangles.size() == mesh.triangles.size());
        CHECK(m.volume == Approx(wanted.volume).epsilon(1e-5));
        CHECK(m.area == Approx(wanted.area).epsilon(1e-5));
    }
}

TEST_CASE("formats are told apart by content, not by name") {
    const auto all = torus_in_all_formats();
    CHECK(format_of(all[0].second) == MeshFormat::stl);
    CHECK(format_of(all[1].second) == MeshFormat::stl);
    CHECK(format_of(all[2].second) == MeshFormat::obj);
    CHECK(format_of(all[3].second) == MeshFormat::ply);
    CHECK(format_of(all[4].second) == MeshFormat::step);
    CHECK_FALSE(format_of("a letter to the shop").has_value());
    CHECK_FALSE(format_of("").has_value());
}

TEST_CASE("a turned STEP surface has the cone's area to within the chord, and carries its own unit") {
    // One straight span: a cone's side, π(r0 + r1)·slant.
    const auto step = write_step_turned({{0.3, 0.0}, {0.2, 0.4}});
    const double exact = kPi * 0.5 * std::hypot(0.1, 0.4);
    double last = 1;
    for (const double chord : {0.005, 0.0005, 0.00005}) {
        const auto mesh = repaired(read_mesh(step, "cone", {1.0, chord}, quiet), quiet);
        const double error = std::abs(measure(mesh.mesh, mesh.topology).area / exact - 1);
        CHECK(error < 2 * chord / 0.2 + 1e-4);
        CHECK(error <= last + 1e-12);
        last = error;
        CHECK(bounds_of(mesh.mesh).size().z() == Approx(0.4));
    }
    // No second of the clock gets into a file.
    CHECK(step == write_step_turned({{0.3, 0.0}, {0.2, 0.4}}));
}

TEST_CASE("of a STEP file the true radii of its faces are known, coarse facets or fine") {
    // A ring with a bore of 12 mm, and a waist: its walls are cones, hollow along nothing but the bore.
    const std::vector<Point2> ring{{0.012, 0}, {0.05, 0}, {0.05, 0.06}, {0.012, 0.06}, {0.012, 0}};
    const auto step = write_step_turned(ring);
    for (const double chord : {5e-3, 1e-3, 1e-4}) {
        TrueRadii radii;
        const auto read = read_mesh(step, "ring", {1.0, chord}, quiet, &radii);
        const auto mended = repaired(read, quiet);
        REQUIRE(radii.hollow);
        REQUIRE(radii.round);
        if (turning_volume(read) * turning_volume(mended.mesh) < 0) std::swap(radii.hollow, radii.round);
        CHECK(*radii.hollow == Approx(0.012));
        CHECK(*radii.round == Approx(0.05));
        Measures m;
        find_inside_radius(mended.mesh, bends(mended.mesh, mended.topology), m);
        REQUIRE(m.smallest_inside_radius);
        CHECK(take_true_radius(radii, false, 2, m));
        CHECK(*m.smallest_inside_radius == Approx(0.024));
        CHECK(take_true_radius(radii, true, 1, m));
        CHECK(*m.smallest_inside_radius == Approx(0.05));
    }
    // A file of facets says nothing of the kind, and a sharp corner is tighter than any radius.
    TrueRadii none;
    static_cast<void>(read_mesh(write_stl_binary(shapes::sphere(0.2)), "ball", {}, quiet, &none));
    CHECK_FALSE(none.hollow);
    Measures sharp;
    sharp.smallest_inside_radius = 0;
    CHECK_FALSE(take_true_radius({0.01, 0.01}, false, 1, sharp));
    CHECK(*sharp.smallest_inside_radius == 0);
}

TEST_CASE("polygons of OBJ become triangles, hollow ones too, and negative numbers count back") {
    const auto l_shape =
        read("v 0 0 0\nv 20 0 0\nv 20 10 0\nv 10 10 0\nv 10 20 0\nv 0 20 0\nf -6 -5 -4 -3 -2 -1\n");
    CHECK(l_shape.triangles.size() == 4);
    CHECK(measure(l_shape, topology_of(l_shape)).area == Approx(300e-6));
    for (std::size_t f = 0; f < 4; ++f) CHECK(l_shape.area_vector2(f).z() > 0);
    const auto slashes =
        read("# a quad\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nvn 0 0 1\nf 1//1 2//1 3//1 4//1\n");
    CHECK(slashes.triangles.size() == 2);
}

TEST_CASE("what cannot be read is said, with where and how to mend it") {
    const auto all = torus_in_all_formats();
    const auto refuses = [](const std::string& bytes, const char* words) {
        INFO(bytes.substr(0, 60));
        CHECK_THROWS_WITH(read(bytes, "case.mesh"), Catch::Contains("case.mesh") && Catch::Contains(words));
    };
    refuses("", "too short");
    refuses("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n", "not there");
    refuses("v 0 0 0\nv 1 0 0\nv 0 1 0\n", "no face");
    refuses("ply\nformat ascii 1.0\nelement vertex 4000000000\nproperty float x\nend_header\n", "promises");
    refuses(all[3].second.substr(0, all[3].second.size() / 2), "cut short");
    refuses(all[4].second.substr(0, 300), "");
    refuses("ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n", "STEP");
}

TEST_CASE("fuzzed files of every format end in a mesh or in words, soon") {
    std::mt19937 random(20261124);
    for (const auto& [name, good] : torus_in_all_formats()) {
        // Open CASCADE needs most of a second for some broken files; the others are quick.
        const int tries = name == "STEP" ? 12 : 60;
        for (int i = 0; i < tries; ++i) {
            auto bytes = good.substr(0, std::min<std::size_t>(good.size(), 20000 + random() % 20000));
            for (int k = 0; k < 1 + i % 12; ++k) {
                const auto at = random() % bytes.size();
                switch (random() % 3) {
                    case 0:
                        bytes[at] = static_cast<char>(random());
                        break;
                    case 1:
                        bytes.erase(at, random() % 40);
                        break;
                    default:
                        bytes.insert(at, bytes.substr(random() % bytes.size(), random() % 40));
                }
                if (bytes.empty()) bytes = "x";
            }
            INFO(name << " " << i);
            const auto start = std::chrono::steady_clock::now();
            try {
                const auto mesh = read(bytes);
                for (const auto& t : mesh.triangles) {
                    for (const auto c : t) REQUIRE(c < mesh.points.size());
                }
                static_cast<void>(repaired(mesh, quiet));
            } catch (const InputError& e) {
                CHECK_FALSE(e.mend().empty());
            }
            CHECK(std::chrono::steady_clock::now() - start < std::chrono::seconds(10));
        }
    }
}

TEST_CASE("a read that is stopped ends as stopped") {
    for (const auto& [name, bytes] : torus_in_all_formats()) {
        INFO(name);
        Progress stopped;
        stopped.stop();
        CHECK_THROWS_AS(read_mesh(bytes, "x", {}, stopped), Cancelled);
    }
}
