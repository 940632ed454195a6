#include "core/science/machine/reach.hpp"

#include <catch2/catch.hpp>

#include "core/science/mesh/refine.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

/// A wide dish 0.5 across with a floor and straight walls: a pocket of that depth and width in a block.
TriangleMesh pocket(double width, double depth) {
    // Outer ring, rim, wall down, floor: a turned profile seen from above.
    return shapes::turned({{0.25, 0}, {0.25, 0.15}, {width / 2 + 1e-4, 0.15}, {width / 2, 0.15 - depth}}, 120,
                          true, true);
}

double share(const TriangleMesh& mesh, const ReachMap& map, Reach what, double below) {
    double sum = 0, all = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        // Of the pocket alone, not of the block's outside.
        if (mesh.centre(f).z() > below || mesh.centre(f).z() < 1e-6 || mesh.centre(f).head<2>().norm() > 0.2)
            continue;
        const double area = mesh.area_vector2(f).norm() / 2;
        all += area;
        if (map.faces[f] == what) sum += area;
    }
    return all > 0 ? sum / all : 0;
}

ReachMap tried(const TriangleMesh& mesh, const Cutter& cutter) {
    return reach_of_cutter(mesh, RayMesh(mesh), frame_across(Point::UnitZ()), cutter, quiet);
}

}  // namespace

TEST_CASE("a smooth dome is reached all over, its foot and steep rim too") {
    const auto dome =
        shapes::turned({{0.3, 0}, {0.29, 0.1}, {0.22, 0.2}, {0.1, 0.26}, {1e-6, 0.28}}, 96, true, false);
    const auto map = tried(dome, {0.006, 0.4, 0.025});
    CHECK(map.too_tight == 0);
    CHECK(map.too_deep == 0);
    CHECK(map.undercut == 0);
    // At its foot the holder hangs over the wall as far in as it is wide: the height there is what it takes.
    CHECK(map.deepest == Approx(0.1).margin(0.03));
    const auto low = tried(dome, {0.006, 0.05, 0.025});
    CHECK(low.too_deep > 0.05);
    CHECK(tried(dome, {0.006, 0.05, 0.006}).too_deep < low.too_deep);
}

TEST_CASE("a pocket narrower than the ball is too tight, one as wide as it is not") {
    const auto narrow = refined(pocket(0.016, 0.05), 0.004, quiet).mesh,
               wide = refined(pocket(0.2, 0.05), 0.01, quiet).mesh;
    const Cutter ball{0.012, 0.2, 0.012};
    CHECK(share(narrow, tried(narrow, ball), Reach::too_tight, 0.149) > 0.9);
    const auto map = tried(wide, ball);
    // Of the wide one only the ball's radius up the wall and along the floor stays.
    const double seen = kPi * 0.01 + 2 * kPi * 0.1 * 0.05, corner = 2 * kPi * 0.1 * 2 * 0.012;
    CHECK(map.too_tight < 1.2 * corner);
    CHECK(map.too_tight > 0.3 * corner);
    CHECK(map.too_tight < 0.4 * seen);
}

TEST_CASE("a pocket deeper than the cutter sticks out meets the holder, and an overhang is undercut") {
    const auto deep = refined(pocket(0.1, 0.12), 0.006, quiet).mesh;
    // The holder is as wide as the pocket: it cannot follow.
    const auto held = tried(deep, {0.006, 0.05, 0.06});
    CHECK(share(deep, held, Reach::too_deep, 0.09) > 0.85);
    CHECK(held.deepest >= 0.11);
    // A thin holder goes in with it.
    CHECK(tried(deep, {0.006, 0.05, 0.006}).too_deep < 0.1 * held.too_deep);
    const auto lips = shapes::lipped_channel(0.2, 4);
    const auto map = tried(lips, {0.05, 5, 0.05});
    // The undersides of the lips and what lies under them.
    CHECK(map.undercut >= 2 * 0.2 * 4 * 0.99);
}
