// Release off a roll: which way its strips run over a face, how many there are, how long.
#include "core/stages/release/strips.hpp"

#include <catch2/catch.hpp>

#include "core/science/mesh/cut.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using release::strips_over;

namespace {

/// The lower half of a tube along x, open at the top and at both ends.
TriangleMesh half_tube(double r, double length, int around) {
    TriangleMesh m;
    for (int i = 0; i <= around; ++i) {
        const double a = kPi * (1 + static_cast<double>(i) / around);
        for (const double x : {0.0, length}) m.points.emplace_back(x, r * std::cos(a), r * std::sin(a));
    }
    for (std::uint32_t i = 0; i < static_cast<std::uint32_t>(around); ++i)
        shapes::quad(m, 2 * i, 2 * i + 1, 2 * i + 3, 2 * i + 2);
    return m;
}

}  // namespace

TEST_CASE("on a plate strips run along its longer side, as many as lie beside each other") {
    TriangleMesh plate;
    plate.points = {{0, 0, 0}, {1.2, 0, 0}, {1.2, 0.5, 0}, {0, 0.5, 0}};
    shapes::quad(plate, 0, 1, 2, 3);
    const auto s = strips_over(plate, fixtures::kLevel, 0.06, quiet);
    CHECK(s.turn == 0);
    CHECK(s.puckers == Approx(0).margin(1e-9));
    CHECK(s.ways.size() == 9);  // 0.5 ÷ 0.06 is 8.3
    CHECK(s.metres == Approx(9 * 1.2));
    // Exactly so many widths are so many strips.
    CHECK(strips_over(plate, fixtures::kLevel, 0.1, quiet).ways.size() == 5);
    CHECK(strips_over(plate, fixtures::kLevel, 2, quiet).ways.size() == 1);
    CHECK(strips_over(plate, fixtures::kLevel, 0, quiet).ways.empty());
    CHECK(strips_over({}, fixtures::kLevel, 0.1, quiet).ways.empty());
}

TEST_CASE("in a trough strips bend along their length, round it, where their width lies flat") {
    const double r = 0.2, l = 1.5;
    const auto trough = half_tube(r, l, 120);
    const auto s = strips_over(trough, fixtures::kLevel, 0.1, quiet);
    CHECK(s.turn == Approx(kPi / 2));
    CHECK(s.puckers == Approx(0).margin(1e-6));
    CHECK(s.ways.size() == 15);
    CHECK(s.metres == Approx(15 * kPi * r).epsilon(1e-3));
    // Scaled tenfold with its strips it is the same.
    auto large = trough;
    for (auto& p : large.points) p *= 10;
    const auto scaled = strips_over(large, fixtures::kLevel, 1.0, quiet);
    CHECK(scaled.ways.size() == 15);
    CHECK(scaled.metres == Approx(10 * s.metres).epsilon(1e-6));
    // Turned about the pull its strips turn with it.
    auto turned = trough;
    const double a = 0.6;
    for (auto& p : turned.points)
        p = Point(std::cos(a) * p.x() - std::sin(a) * p.y(), std::sin(a) * p.x() + std::cos(a) * p.y(),
                  p.z());
    const auto round = strips_over(turned, fixtures::kLevel, 0.1, quiet);
    CHECK(round.turn == Approx(kPi / 2));
    CHECK(round.metres == Approx(s.metres).epsilon(1e-3));
}

TEST_CASE("no way lies flat on a bowl, and its strips say by how much they pucker") {
    const auto ball = shapes::sphere(0.3, 64);
    const auto bowl = parted(ball, Point(0, 0, 0), Point::UnitZ()).above;
    const auto s = strips_over(bowl, fixtures::kLevel, 0.05, quiet);
    CHECK(s.puckers > 1);
    CHECK(s.metres > 0.9 * 2 * kPi * 0.3 * 0.3 / 0.05 * 0.6);
    CHECK(s.ways.size() >= 19);  // half a girth of 0.94 m by 50 mm
}
