#include <catch2/catch.hpp>

#include "core/science/mesh/folds.hpp"
#include "core/science/mesh/refine.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

namespace {

using namespace jig;

/// A sheet bent about the y axis: `bends` are (turn in rad, radius in m) between flats of `flat` m; turns
/// that are positive bend up, so that it is hollow seen from above.
TriangleMesh bent(const std::vector<std::pair<double, double>>& bends, double flat, double wide,
                  int facets = 10, double edge = 0.01) {
    std::vector<Point2> line{{0, 0}};
    double way = 0;
    const auto go = [&](double by) {
        line.push_back(line.back() + by * Point2(std::cos(way), std::sin(way)));
    };
    const auto straight = [&] {
        const int n = static_cast<int>(std::ceil(flat / edge));
        for (int i = 0; i < n; ++i) go(flat / n);
    };
    straight();
    for (const auto& [turn, radius] : bends) {
        if (radius == 0) way += turn;
        for (int i = 0; radius > 0 && i < facets; ++i) {
            way += turn / facets / 2;
            go(2 * radius * std::sin(std::abs(turn) / facets / 2));
            way += turn / facets / 2;
        }
        straight();
    }
    const auto along = static_cast<std::uint32_t>(std::ceil(wide / edge));
    const auto n = static_cast<std::uint32_t>(line.size()) - 1;
    return shapes::sheet(n, along, [&](double u, double v) {
        const auto& at = line[static_cast<std::size_t>(std::lround(u * n))];
        return Point(at.x(), v * wide, at.y());
    });
}

std::vector<Fold> folds_of(const TriangleMesh& mesh, double reach = 0.015) {
    FoldRules rules;
    rules.reach = reach;
    return folds(mesh, topology_of(mesh), rules, quiet);
}

}  // namespace

TEST_CASE("a bend is found with its turn, its radius and its length, whichever way it goes and lies") {
    const double turn = GENERATE(1.5708, 0.7, -1.5708, 2.3);
    const double radius = GENERATE(0.0, 0.01, 0.03, 0.08);
    const bool turned = GENERATE(false, true);
    auto mesh = bent({{turn, radius}}, 0.3, 0.5);
    if (turned) mesh = shapes::rotated(mesh, shapes::odd_rotation());
    const auto found = folds_of(mesh);
    INFO("turn " << turn << " radius " << radius);
    REQUIRE(found.size() == 1);
    CHECK(found[0].turn == Approx(std::abs(turn)).epsilon(0.02));
    CHECK(found[0].most == Approx(std::abs(turn)).epsilon(0.02));
    CHECK(found[0].radius == Approx(radius).epsilon(0.15).margin(1e-9));
    CHECK(found[0].length == Approx(0.5).epsilon(0.06));
    CHECK(found[0].hollow == (turn > 0));
    // Both ends lie at a rim, and either flank is the flat beside it.
    CHECK(found[0].free);
    if (radius == 0) CHECK(found[0].flank == Approx(0.3).epsilon(0.06));
    auto across = found[0].across;
    if (turned) across = shapes::odd_rotation().transpose() * across;
    CHECK(std::abs(across.y()) < 0.1);
}

TEST_CASE("folds that follow each other are told apart, and each keeps its own turn") {
    // A hat: up, over, down, and out again.
    const auto found = folds_of(bent({{1.2, 0.01}, {-1.2, 0.02}, {-1.2, 0}, {1.2, 0.02}}, 0.12, 0.4));
    REQUIRE(found.size() == 4);
    int hollow = 0;
    for (const auto& f : found) {
        CHECK(f.turn == Approx(1.2).epsilon(0.03));
        hollow += f.hollow ? 1 : 0;
    }
    CHECK(hollow == 2);
}

TEST_CASE("a half pipe turns by half a turn; a whole one closes on itself and has no fold") {
    const auto half = folds_of(bent({{kPi, 0.2}}, 0.05, 0.5, 60));
    REQUIRE(half.size() == 1);
    CHECK(half[0].turn == Approx(kPi).epsilon(0.02));
    CHECK(half[0].radius == Approx(0.2).epsilon(0.05));
    CHECK(
        folds_of(shapes::turned({{0.1, 0}, {0.1, 0.05}, {0.1, 0.1}, {0.1, 0.2}}, 90, false, false)).empty());
}

TEST_CASE("dishes, saddles and flat sheets have no folds") {
    CHECK(folds_of(shapes::plate(0.5, 0.4, 50, 40)).empty());
    CHECK(folds_of(shapes::sphere(0.2)).empty());
    CHECK(folds_of(shapes::sheet(60, 60, [](double u, double v) {
              const double x = u - 0.5, y = v - 0.5;
              return Point(x, y, x * x - y * y);
          })).empty());
    CHECK(folds_of({}).empty());
    TriangleMesh point;
    point.points = {Point::Zero(), Point::Zero(), Point::Zero()};
    point.triangles = {{0, 1, 2}};
    CHECK(folds_of(point).empty());
}

TEST_CASE("an open box has four folds round its floor and four up its corners, by the lengths of its edges") {
    auto mesh = refined(shapes::open_box(0.6, 0.4, 0.15), 0.01, quiet).mesh;
    const auto found = folds_of(mesh, 0.02);
    REQUIRE(found.size() == 8);
    double length = 0;
    for (const auto& f : found) {
        CHECK(f.turn == Approx(kPi / 2).epsilon(0.04));
        CHECK(f.radius == Approx(0.0).margin(1e-9));
        length += f.length;
        CHECK_FALSE(f.free);
        // From the floor's edges a wall reaches up; from the upright ones the walls go round to the far
        // corner.
        const bool upright = std::abs(f.along.z()) > 0.9;
        CHECK(f.flank == Approx(upright ? std::hypot(0.6, 0.4) : 0.15).epsilon(0.05));
    }
    const double edges = 2 * (0.6 + 0.4) + 4 * 0.15;
    CHECK(length == Approx(edges).epsilon(0.05));
}

TEST_CASE("a fillet round a tub is one ring, whatever its size") {
    const double size = GENERATE(0.2, 1.0, 5.0);
    std::vector<std::pair<double, double>> profile;
    for (int i = 0; i <= 20; ++i) profile.emplace_back(0.3 * size, (0.3 - 0.01 * i) * size);
    for (int i = 1; i <= 8; ++i) {
        const double a = kPi / 2 * i / 8;
        profile.emplace_back((0.26 + 0.04 * std::cos(a)) * size, (0.1 - 0.04 * std::sin(a)) * size);
    }
    for (int i = 1; i <= 25; ++i) profile.emplace_back((0.26 - 0.01 * i) * size, 0.06 * size);
    std::reverse(profile.begin(), profile.end());
    const auto mesh = shapes::turned(profile, 180, false, false);
    FoldRules rules;
    rules.reach = 0.015 * size;
    rules.widest = 0.2 * size;
    const auto found = folds(mesh, topology_of(mesh), rules, quiet);
    REQUIRE(found.size() == 1);
    CHECK(found[0].turn == Approx(kPi / 2).epsilon(0.03));
    CHECK(found[0].radius == Approx(0.04 * size).epsilon(0.15));
    // Along the middle of the fillet.
    CHECK(found[0].length == Approx(2 * kPi * (0.26 + 0.04 / std::sqrt(2)) * size).epsilon(0.05));
}
