#include <catch2/catch.hpp>

#include "core/science/mesh/pull.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

DraftMap try_pull(const TriangleMesh& mesh, const Point& pull, double drag = radians(1),
                  bool foot_open = false) {
    DraftRules rules;
    rules.drag_angle = drag;
    rules.foot_open = foot_open;
    return draft(mesh, RayMesh(mesh), pull, rules, quiet);
}

}  // namespace

TEST_CASE("a frustum slides along its axis with the draft of its half angle") {
    const double r = 0.3, h = 0.2, a = radians(5);
    const int n = 180;
    const auto f = shapes::frustum(r, h, a, n);
    const auto map = try_pull(f, Point::UnitZ());
    // The flat facets of n lean by atan(tan(a) cos(pi/n)).
    const double facet = std::atan(std::tan(a) * std::cos(kPi / n));
    CHECK(map.min_draft == Approx(-kPi / 2));
    const auto open = try_pull(f, Point::UnitZ(), radians(1), true);
    CHECK(open.min_draft == Approx(facet).epsilon(1e-6));
    CHECK(open.locks == Approx(0).margin(1e-12));
    CHECK(open.drags == Approx(0).margin(1e-12));
    CHECK(open.open == Approx(kPi * r * r).epsilon(1e-3));
    CHECK(open.projected == Approx(kPi * r * r).epsilon(1e-3));
    CHECK(open.depth == Approx(h));
    // With a drag angle above the half angle the wall drags: pi (r + R) s.
    const double top = r - h * std::tan(a), wall = kPi * (r + top) * std::hypot(h, r - top);
    CHECK(try_pull(f, Point::UnitZ(), radians(6), true).drags == Approx(wall).epsilon(1e-3));
    // Pulled the other way, the wall and the top lock.
    CHECK(try_pull(f, -Point::UnitZ()).locks == Approx(wall + kPi * top * top).epsilon(1e-3));
}

TEST_CASE("half of a sphere locks whichever way it is pulled, and its shadow is a disc") {
    const auto ball = shapes::sphere(0.5, 64);
    for (const Point& p : {Point(0, 0, 1), Point(1, 0, 0), Point(0.3, -0.7, 0.2)}) {
        const auto map = try_pull(ball, p.normalized(), 0);
        CHECK(map.locks == Approx(map.area / 2).epsilon(0.03));
        CHECK(map.projected == Approx(kPi * 0.25).epsilon(0.01));
    }
}

TEST_CASE("what lips stand over locks although it has draft") {
    const double lip = 0.2, length = 4;
    const auto channel = shapes::lipped_channel(lip, length);
    const auto map = try_pull(channel, Point::UnitZ());
    // Overhung with draft: of the floor, 2 lip length; of the slot's walls (straight, under the lips) all of
    // 2 x 0.7.
    const double floor = 2 * lip * length, walls = 2 * 0.7 * length;
    CHECK(map.shadowed == Approx(floor + walls).epsilon(0.02));
    // By angle: the foot and the lips' undersides.
    CHECK(map.locks - map.shadowed == Approx(3 * length + 2 * lip * length).epsilon(1e-6));
    CHECK(map.projected == Approx(3 * length).epsilon(0.01));
}

TEST_CASE("turning body and pull together changes nothing") {
    const auto r = shapes::odd_rotation();
    for (const auto& body : {shapes::lipped_channel(0.3, 2), shapes::frustum(0.3, 0.2, radians(3))}) {
        const auto a = try_pull(body, Point::UnitZ()),
                   b = try_pull(shapes::rotated(body, r), r * Point::UnitZ());
        CHECK(b.slides == Approx(a.slides).epsilon(5e-3).margin(1e-6));
        CHECK(b.drags == Approx(a.drags).epsilon(5e-3).margin(1e-6));
        CHECK(b.locks == Approx(a.locks).epsilon(5e-3));
        CHECK(b.shadowed == Approx(a.shadowed).epsilon(5e-3).margin(1e-6));
        CHECK(b.projected == Approx(a.projected).epsilon(5e-3));
    }
}

TEST_CASE("a lock of half a degree is found") {
    const auto f = shapes::frustum(0.3, 0.2, radians(-0.5), 120);
    CHECK(try_pull(f, Point::UnitZ(), radians(1), true).locks == Approx(2 * kPi * 0.3 * 0.2).epsilon(0.01));
}

TEST_CASE("the best pull of a body that has one is found, however it lies") {
    DraftRules rules;
    const auto cup = shapes::turned({{0.3, 0}, {0.25, 0.3}}, 64, false, true);
    const auto upright = best_pulls(cup, RayMesh(cup), rules, 3, quiet);
    CHECK(upright.front().direction.isApprox(Point::UnitZ(), 1e-9));
    CHECK(upright.front().locks == 0);
    const auto r = shapes::odd_rotation();
    const auto turned = shapes::rotated(cup, r);
    const auto found = best_pulls(turned, RayMesh(turned), rules, 3, quiet);
    CHECK(found.front().locks == Approx(0).margin(1e-9));
    CHECK(found.front().direction.dot(r * Point::UnitZ()) > std::cos(radians(9)));
    // A closed body on a flat foot is pulled off its foot.
    auto closed = rules;
    closed.foot_open = true;
    const auto solid = shapes::frustum(0.3, 0.2, radians(5));
    const auto off_foot = best_pulls(solid, RayMesh(solid), closed, 1, quiet).front();
    CHECK(off_foot.direction.isApprox(Point::UnitZ(), 1e-9));
    CHECK(off_foot.locks == Approx(0).margin(1e-9));
    CHECK(off_foot.foot == Approx(kPi * 0.09).epsilon(3e-3));
    CHECK(found.size() == 3);
    CHECK(found[1].locks >= found[0].locks);
}
