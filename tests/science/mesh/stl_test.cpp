#include <catch2/catch.hpp>
#include <cstring>
#include <random>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

std::string message(const std::string& bytes) {
    try {
        read_stl(bytes, "file", 1e-3, quiet);
    } catch (const InputError& e) {
        return e.what();
    }
    return {};
}

}  // namespace

TEST_CASE("STL of both kinds gives the same body in the unit asked for") {
    const auto cube = shapes::box({0, 0, 0}, {0.2, 0.3, 0.4});
    for (const auto& bytes : {write_stl_binary(cube), write_stl_text(cube, "cube")}) {
        CHECK(looks_like_stl(bytes));
        const auto mesh = read_stl(bytes, "cube", 1e-3, quiet);
        CHECK(mesh.points.size() == 8);
        CHECK(mesh.triangles.size() == 12);
        const auto m = measure(mesh, topology_of(mesh));
        CHECK(m.volume == Approx(0.024).epsilon(1e-6));
        CHECK(m.closed);
        CHECK(bounds_of(read_stl(bytes, "cube", 0.0254, quiet)).high.x() == Approx(0.2 * 25.4).epsilon(1e-6));
    }
}

TEST_CASE("bad STL files are met by a message that names the place") {
    const auto good = write_stl_binary(shapes::box({0, 0, 0}, {1, 1, 1}));
    CHECK_THAT(message(good.substr(0, good.size() - 70)), Catch::Contains("says 12 triangles and holds 10"));
    CHECK_THAT(message(good.substr(0, 40)), Catch::Contains("too short"));
    CHECK_THAT(message(""), Catch::Contains("too short"));
    CHECK_THAT(message(good.substr(0, 80) + std::string(4, '\0')), Catch::Contains("no triangle"));
    auto nan = good;
    const float bad = std::nanf("");
    std::memcpy(nan.data() + 84 + 50 * 3 + 12, &bad, 4);
    CHECK_THAT(message(nan), Catch::Contains("triangle 4"));
    CHECK_THAT(message("solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 zero\n"),
               Catch::Contains("line 4"));
    CHECK_THAT(message("solid a\nfacet\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\n"),
               Catch::Contains("middle of a face"));
    CHECK_THAT(message("solid a\nfacet\nvertex 0 0 0\nvertex 1 0 0\nendfacet\n"),
               Catch::Contains("fewer than three"));
    CHECK_THAT(message("solid a\nendsolid a\n"), Catch::Contains("no triangle"));
    CHECK_THROWS_AS(read_file("/nowhere/at/all.stl"), InputError);
    CHECK_THROWS_AS(read_file("/tmp"), InputError);
    CHECK_THROWS_AS(length_unit("furlong"), InputError);
}

TEST_CASE("random damage to an STL never does more than raise a message") {
    std::mt19937 dice(7);
    const auto binary = write_stl_binary(shapes::sphere(0.1, 8));
    const auto text = write_stl_text(shapes::sphere(0.1, 6), "ball");
    int refused = 0;
    for (int i = 0; i < 400; ++i) {
        auto bytes = i % 2 ? binary : text;
        for (int k = 0; k < 1 + i % 20; ++k) bytes[dice() % bytes.size()] = static_cast<char>(dice());
        if (i % 5 == 0) bytes.resize(dice() % bytes.size());
        try {
            const auto mesh = repaired(read_stl(bytes, "fuzz", 1e-3, quiet), quiet);
            CHECK(std::isfinite(measure(mesh.mesh, mesh.topology).area));
        } catch (const InputError&) {
            ++refused;
        }
    }
    CHECK(refused > 0);
    CHECK(refused < 400);
}

TEST_CASE("reading stops when it is asked to") {
    Progress progress;
    progress.stop();
    CHECK_THROWS_AS(read_stl(write_stl_binary(shapes::sphere(0.1)), "ball", 1, progress), Cancelled);
}
