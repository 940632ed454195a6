// Outlines filled with triangles: all of the area and no more, every point kept, whatever the form.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/error.hpp"
#include "core/science/mesh/triangulate.hpp"

using namespace jig;

namespace {

double area_of(const FlatMesh& mesh) {
    double out = 0;
    for (const auto& t : mesh.triangles) {
        const double a = signed_area({mesh.points[t[0]], mesh.points[t[1]], mesh.points[t[2]]});
        CHECK(a > 0);
        out += a;
    }
    return out;
}

Loop ring(double radius, int points, const Point2& middle = Point2::Zero()) {
    Loop out;
    for (int i = 0; i < points; ++i) {
        const double turn = 2 * kPi * i / points;
        out.emplace_back(middle + radius * Point2(std::cos(turn), std::sin(turn)));
    }
    return out;
}

}  // namespace

TEST_CASE("an outline is filled with all of its area, its own points first and each once") {
    // Round, long and thin either way, bent, and turned.
    const Eigen::Rotation2Dd turn(0.7);
    Loop aslant;
    for (const auto& p : rectangle(0, 0, 40, 0.05)) aslant.push_back(turn * p);
    for (const auto& outline : {ring(0.4, 96), rectangle(0, 0, 60, 0.03), rectangle(-1, 5, -0.97, 45), aslant,
                                Loop{{0, 0}, {2, 0}, {2, 0.1}, {0.1, 0.1}, {0.1, 2}, {0, 2}}}) {
        const double size = std::sqrt(std::abs(signed_area(outline))), spacing = size / 25;
        const auto mesh = filled(outline, spacing);
        CHECK(area_of(mesh) == Approx(std::abs(signed_area(outline))).epsilon(1e-9));
        REQUIRE(mesh.points.size() >= outline.size());
        for (std::size_t i = 0; i < outline.size(); ++i) CHECK(mesh.points[i] == outline[i]);
        // Euler's: 2 (points - 1) less those on the rim.
        CHECK(mesh.triangles.size() == 2 * (mesh.points.size() - 1) - outline.size());
        for (const auto& t : mesh.triangles) {
            for (const auto i : t) CHECK(i < mesh.points.size());
        }
    }
}

TEST_CASE("every second line outwards in bounds a hole, whichever way it runs") {
    auto hole = ring(0.2, 60);
    const double area = net_area({ring(0.5, 120)}) - net_area({hole});
    CHECK(area_of(filled(Loops{ring(0.5, 120), hole}, 0.03)) == Approx(area).epsilon(1e-9));
    std::reverse(hole.begin(), hole.end());
    CHECK(area_of(filled(Loops{ring(0.5, 120), hole}, 0.03)) == Approx(area).epsilon(1e-9));
    // An island in the hole is solid again, and one beside it as well.
    const auto island = ring(0.1, 40), beside = ring(0.3, 60, {2, 0});
    CHECK(area_of(filled(Loops{ring(0.5, 120), hole, island, beside}, 0.03)) ==
          Approx(area + net_area({island}) + net_area({beside})).epsilon(1e-9));
}

TEST_CASE("lines that cross are refused, large ones too, and so is what nothing could hold") {
    CHECK_THROWS_WITH(filled(Loop{{0, 0}, {1, 1}, {1, 0}, {0, 1}}, 0.05), Catch::Contains("crosses itself"));
    CHECK_THROWS_WITH(filled(Loops{ring(0.5, 60), ring(0.5, 60, {0.5, 0})}, 0.05),
                      Catch::Contains("crosses"));
    CHECK_THROWS_WITH(filled(Loop{{0, 0}, {0.9, 100}, {0.9, 0}, {0, 0.5}}, 0.012),
                      Catch::Contains("crosses"));
    CHECK_THROWS_WITH(filled(rectangle(0, 0, 100, 100), 0.012), Catch::Contains("too many"));
    CHECK_THROWS_WITH(filled(rectangle(0, 0, 1, 1), 0.0), Catch::Contains("too many"));
}
