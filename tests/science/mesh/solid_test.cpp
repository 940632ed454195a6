// Closed bodies, bodies cut in two, and tiles that make the whole again.
#include "core/science/mesh/solid.hpp"

#include <catch2/catch.hpp>

#include "core/science/mesh/tiles.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

const Frame kUp = frame_across(Point::UnitZ());

double fuller(const CutSolid& halves) {
    return enclosed_volume(halves.above) + enclosed_volume(halves.below);
}

}  // namespace

TEST_CASE("an open surface is closed at its foot, walls and all") {
    // A cup without a bottom, 0.1 above the foot that it stands on.
    const auto cup = shapes::turned({{0.3, 0.1}, {0.2, 0.5}}, 96, false, true);
    const auto body = closed_body(cup, topology_of(cup), kUp, 0.0);
    CHECK(topology_of(body).closed());
    const double polygon = 96 * std::sin(2 * kPi / 96) / 2;  // area of the 96-sided circle over r²
    const double frustum = polygon * 0.4 / 3 * (0.09 + 0.06 + 0.04), wall = polygon * 0.09 * 0.1;
    CHECK(enclosed_volume(body) == Approx(frustum + wall).epsilon(1e-9));
    // At its own foot no wall is needed; a closed body stays as it is.
    CHECK(enclosed_volume(closed_body(cup, topology_of(cup), kUp, 0.1)) == Approx(frustum).epsilon(1e-9));
    const auto ball = shapes::sphere(0.3);
    CHECK(closed_body(ball, topology_of(ball), kUp, -1) == ball);
    // A vent in its top is closed flat.
    const auto vented = shapes::turned({{0.3, 0}, {0.1, 0.4}}, 96, false, false);
    const auto closed = closed_body(vented, topology_of(vented), kUp, 0);
    CHECK(topology_of(closed).closed());
    CHECK(enclosed_volume(closed) == Approx(polygon * 0.4 / 3 * (0.09 + 0.03 + 0.01)).epsilon(1e-9));
}

TEST_CASE("a body cut in two keeps its volume, with keys and without") {
    const auto ring = shapes::torus(0.3, 0.1, 48);
    const double whole = enclosed_volume(ring);
    const auto plain = cut_solid(ring, {0.013, 0, 0}, Point::UnitX(), {}, 0);
    CHECK(topology_of(plain.above).closed());
    CHECK(topology_of(plain.below).closed());
    CHECK(fuller(plain) == Approx(whole).epsilon(1e-9));
    // The plane beside the axis cuts the tube in two ovals.
    CHECK(plain.face == Approx(2 * kPi * 0.01).epsilon(0.02));
    CHECK(plain.seam == Approx(2 * 2 * kPi * 0.1).epsilon(0.02));
    const std::vector<Key> keys{{{0.013, 0.3, 0}, 0.02, 0.03}, {{0.013, -0.3, 0.01}, 0.015, 0.02}};
    const auto keyed = cut_solid(ring, {0.013, 0, 0}, Point::UnitX(), keys, 0);
    CHECK(fuller(keyed) == Approx(whole).epsilon(1e-9));
    CHECK(topology_of(keyed.below).closed());
    // What the pegs hold is what the lower half gained; 24 sides make the circle.
    const double round = 12 * std::sin(2 * kPi / 24);
    const double pegs = round * (0.02 * 0.02 * 0.03 + 0.015 * 0.015 * 0.02);
    CHECK(enclosed_volume(keyed.below) - enclosed_volume(plain.below) == Approx(pegs).epsilon(1e-6));
    // With play the holes are larger than the pegs.
    const auto loose = cut_solid(ring, {0.013, 0, 0}, Point::UnitX(), keys, 0.001);
    CHECK(fuller(loose) < whole);
    CHECK(enclosed_volume(loose.below) == Approx(enclosed_volume(keyed.below)));
    // A plane that misses leaves one side empty.
    CHECK(cut_solid(ring, {3, 0, 0}, Point::UnitX(), {}, 0).above.empty());
}

TEST_CASE("tiles fit the printer and add up to the solid, turned or not") {
    const auto turn = shapes::odd_rotation();
    for (const bool turned : {false, true}) {
        auto body = shapes::torus(0.3, 0.12, 40);
        auto frame = kUp;
        if (turned) {
            body = shapes::rotated(body, turn);
            frame = {turn * kUp.u, turn * kUp.v, turn * kUp.w};
        }
        TileRules rules;
        rules.room = {0.25, 0.3, 0.2};
        rules.play = 0;
        const auto set = tiles_of(body, frame, rules, quiet);
        CHECK(set.count == std::array<int, 3>{4, 3, 2});
        CHECK(set.keys > 10);
        double sum = 0;
        for (const auto& tile : set.tiles) {
            INFO(tile.name());
            sum += tile.volume;
            CHECK(tile.volume > 0);
            CHECK(topology_of(tile.mesh).closed());
            const std::array<Point, 3> axes{frame.u, frame.v, frame.w};
            for (std::size_t a = 0; a < 3; ++a) {
                double low = 1e30, high = -1e30;
                for (const auto& p : tile.mesh.points) {
                    low = std::min(low, axes[a].dot(p));
                    high = std::max(high, axes[a].dot(p));
                }
                CHECK(high - low <= rules.room[static_cast<Eigen::Index>(a)] + 1e-9);
            }
        }
        CHECK(sum == Approx(enclosed_volume(body)).epsilon(1e-9));
        // Without keys as well, and with fewer faces between.
        rules.key_radius = 0;
        const auto plain = tiles_of(body, frame, rules, quiet);
        CHECK(plain.keys == 0);
        double again = 0;
        for (const auto& tile : plain.tiles) again += tile.volume;
        CHECK(again == Approx(enclosed_volume(body)).epsilon(1e-9));
    }
    Tile tile;
    tile.cell = {27, 2, 1};
    CHECK(tile.name() == "AB3-1");
    CHECK_THROWS_WITH(tiles_of(shapes::sphere(0.3), kUp, {{0.001, 1, 1}, 0, 0, 1, 0}, quiet),
                      Catch::Contains("smaller than 10 mm"));
    CHECK_THROWS_WITH(tiles_of(shapes::sphere(9), kUp, {{0.1, 0.1, 0.1}, 0, 0, 1, 0}, quiet),
                      Catch::Contains("more than 4000"));
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(tiles_of(shapes::sphere(0.3), kUp, {{0.1, 0.1, 0.1}, 0, 0, 1, 0}, stopped), Cancelled);
}

TEST_CASE("a stack of slabs is a closed body of their volume") {
    const auto ring = shapes::torus(0.3, 0.1, 48);
    for (const auto fit : {SlabFit::oversize, SlabFit::undersize, SlabFit::middle}) {
        const auto stack = slabs(ring, topology_of(ring), Point(0.2, 0.1, 1).normalized(), 0.04, quiet, fit);
        const auto mesh = stack_mesh(stack);
        CHECK(enclosed_volume(mesh) == Approx(stack.volume).epsilon(1e-6));
        CHECK(topology_of(mesh).turned_edges == 0);
    }
}
