// What a disc covers of a surface: its own area where it lies inside, whatever the mesh and however it
// stands.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/disc_cover.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

TriangleMesh plate(int n, int m, double a, double b) {
    return shapes::sheet(n, m, [=](double u, double v) { return Point(a * (u - 0.5), b * (v - 0.5), 0); });
}

double covered(const TriangleMesh& mesh, const Point& middle, const Point& normal, double radius) {
    double out = 0;
    for (const auto& [f, share] : disc_cover(mesh, middle, normal, radius)) {
        CHECK(share > 0);
        CHECK(share <= 1);
        out += share * mesh.area_vector2(f).norm() / 2;
    }
    return out;
}

}  // namespace

TEST_CASE("a disc on a plate covers its own area, on triangles larger and smaller than it is") {
    for (int n : {1, 7, 60}) {
        INFO(n);
        const auto mesh = plate(n, n + 1, 1.2, 0.8);
        CHECK(covered(mesh, {0.11, -0.07, 0}, Point::UnitZ(), 0.05) == Approx(kPi * 0.0025).epsilon(1e-9));
        CHECK(covered(mesh, {0, 0, 0}, Point::UnitZ(), 0.3) == Approx(kPi * 0.09).epsilon(1e-9));
        // Its middle on the rim: half of it; on a corner: a quarter.
        CHECK(covered(mesh, {0.6, 0.1, 0}, Point::UnitZ(), 0.05) == Approx(kPi * 0.00125).epsilon(1e-9));
        CHECK(covered(mesh, {0.6, 0.4, 0}, Point::UnitZ(), 0.05) == Approx(kPi * 0.0025 / 4).epsilon(1e-9));
        // Larger than the plate: all of it.
        CHECK(covered(mesh, {0, 0, 0}, Point::UnitZ(), 5) == Approx(0.96));
        CHECK(disc_cover(mesh, {2, 0, 0}, Point::UnitZ(), 0.5).empty());
    }
    // A segment beyond a chord at 3 of a radius of 5: r² acos(3/5) - 3·4, in hundredths.
    CHECK(covered(plate(9, 5, 1, 1), {0.47, 0, 0}, Point::UnitZ(), 0.05) ==
          Approx(kPi * 0.0025 - 0.0025 * std::acos(0.6) + 0.03 * 0.04).epsilon(1e-9));
}

TEST_CASE("a disc that is turned in space covers as much, and nothing of what looks away or lies elsewhere") {
    auto mesh = plate(13, 11, 1, 1);
    const Eigen::AngleAxisd turn(1.1, Point(0.3, -0.8, 0.5).normalized());
    const auto flat = covered(mesh, {0.2, 0.44, 0}, Point::UnitZ(), 0.1);
    for (auto& p : mesh.points) p = turn * p + Point(3, -2, 7);
    const Point at = turn * Point(0.2, 0.44, 0) + Point(3, -2, 7), normal = turn * Point::UnitZ();
    CHECK(covered(mesh, at, normal, 0.1) == Approx(flat).epsilon(1e-9));
    // A length of the normal is none of its.
    CHECK(covered(mesh, at, 40 * normal, 0.1) == Approx(flat).epsilon(1e-9));
    // The back of the plate, and one a radius away: as the far skin of a thin body.
    CHECK(disc_cover(mesh, at, -normal, 0.1).empty());
    CHECK(disc_cover(mesh, at + 0.11 * normal, normal, 0.1).empty());
}

TEST_CASE("on a cap a small disc covers what its plane sees of it") {
    // A ball of 0.5 m about the origin, seen from above: a disc of radius r sees πr², whose true area is
    // larger.
    const auto ball = shapes::sheet(80, 60, [](double u, double v) {
        const double a = -2 * kPi * u, b = (kPi / 2) * (v - 0.98);
        return Point(0.5 * std::cos(a) * std::cos(-b), 0.5 * std::sin(a) * std::cos(-b), 0.5 * std::sin(-b));
    });
    double seen = 0;
    for (const auto& [f, share] :
         disc_cover(ball, {0.2, 0, std::sqrt(0.21)}, Point(0.4, 0, 2 * std::sqrt(0.21)), 0.04))
        seen +=
            share * std::abs(ball.area_vector2(f).dot(Point(0.4, 0, 2 * std::sqrt(0.21)).normalized())) / 2;
    CHECK(seen == Approx(kPi * 0.0016).epsilon(0.01));
}
