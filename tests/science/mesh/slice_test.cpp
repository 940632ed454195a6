#include <catch2/catch.hpp>

#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/triangulate.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

Section cut(const TriangleMesh& mesh, const Point& axis, double height) {
    const std::array<double, 1> at{height};
    return sections(mesh, topology_of(mesh), frame_across(axis), at, quiet).front();
}

SlabStack stack(const TriangleMesh& mesh, double thickness, const Point& axis = Point::UnitZ()) {
    return slabs(mesh, topology_of(mesh), axis, thickness, quiet);
}

}  // namespace

TEST_CASE("a torus cut through its hole gives an outer and an inner outline") {
    const auto section = cut(shapes::torus(0.3, 0.1, 96), Point::UnitZ(), 0.02);
    REQUIRE(section.loops.size() == 2);
    const double out = 0.3 + std::sqrt(0.01 - 0.0004), in = 0.3 - std::sqrt(0.01 - 0.0004);
    const double a = signed_area(section.loops[0]), b = signed_area(section.loops[1]);
    CHECK(std::max(a, b) == Approx(kPi * out * out).epsilon(5e-3));
    CHECK(std::min(a, b) == Approx(-kPi * in * in).epsilon(5e-3));
    CHECK(section.open_lines.empty());
    // Across the ring: two circles of the tube.
    const auto tubes = cut(shapes::torus(0.3, 0.1, 96), Point::UnitX(), 0.0);
    REQUIRE(tubes.loops.size() == 2);
    for (const auto& loop : tubes.loops) CHECK(signed_area(loop) == Approx(kPi * 0.01).epsilon(5e-3));
}

TEST_CASE("an open surface is cut into lines that end at its rim") {
    const auto bowl = shapes::turned({{0.3, 0}, {0.2, 0.2}}, 64, false, true);
    const auto section = cut(bowl, Point::UnitX(), 0.01);
    CHECK(section.loops.empty());
    REQUIRE(section.open_lines.size() == 1);
    const auto& line = section.open_lines.front();
    CHECK(std::abs(line.front().y() - line.back().y()) < 1e-9);
}

TEST_CASE("cuts at corners and along faces are no trouble") {
    const auto box = shapes::box({0, 0, 0}, {1, 1, 1});
    CHECK(net_area(cut(box, Point::UnitZ(), 1.0).loops) == Approx(1).epsilon(1e-9));
    CHECK(cut(box, Point::UnitZ(), 0.0).loops.empty());  // everything counts as above
    const auto gem = shapes::turned({{1e-9, 0}, {0.5, 0.5}, {1e-9, 1}}, 12);
    CHECK(net_area(cut(gem, Point::UnitZ(), 0.5).loops) ==
          Approx(0.5 * 12 * 0.25 * std::sin(2 * kPi / 12)).epsilon(1e-6));
}

TEST_CASE("the stack holds the whole shape and closes in on its volume as slabs get thin") {
    const auto ball = shapes::sphere(0.5, 64);
    const double volume = 4.0 / 3 * kPi * 0.125;
    double last = 1e9;
    for (const double t : {0.2, 0.1, 0.05, 0.01}) {
        const auto s = stack(ball, t);
        CHECK(s.volume > volume);
        CHECK(s.volume < last);
        last = s.volume;
        // A ball loses the ring between outline and surface: about pi r t of volume over its height.
        CHECK(s.volume - volume < 1.1 * kPi * 0.5 * t * 1.0);
    }
    CHECK(last == Approx(volume).epsilon(0.04));
    // The slab that holds the equator is as wide as the ball although both its faces are smaller.
    const auto two = stack(ball, 0.3);
    CHECK(two.slabs[1].area == Approx(kPi * 0.25).epsilon(5e-3));
}

TEST_CASE("slabs keep holes, number from the foot and do not mind how the body lies") {
    const auto ring = stack(shapes::torus(0.3, 0.1, 96), 0.05);
    CHECK(ring.slabs.size() == 4);
    CHECK(ring.slabs.front().number == 1);
    CHECK(ring.slabs[1].outline.size() == 2);
    const auto r = shapes::odd_rotation();
    const auto turned = stack(shapes::rotated(shapes::torus(0.3, 0.1, 96), r), 0.05, r * Point::UnitZ());
    CHECK(turned.volume == Approx(ring.volume).epsilon(1e-4));
    CHECK_THROWS_AS(stack(shapes::sphere(0.5), 0), InputError);
    CHECK_THROWS_AS(stack(shapes::sphere(0.5), 1e-5), InputError);
}

TEST_CASE("outlines grow, thin and join as they should") {
    const Loop square{{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    CHECK(net_area(offset({square}, 0.1)) == Approx(1 + 4 * 0.1 + kPi * 0.01).epsilon(1e-3));
    CHECK(net_area(offset({square}, -0.1)) == Approx(0.64).epsilon(1e-4));
    CHECK(net_area(taken_off({square}, {{{0.5, 0}, {2, 0}, {2, 2}, {0.5, 2}}})) == Approx(0.5).epsilon(1e-6));
    Loop circle;
    for (int i = 0; i < 400; ++i)
        circle.emplace_back(std::cos(2 * kPi * i / 400), std::sin(2 * kPi * i / 400));
    const auto thin = simplified(circle, 0.01);
    CHECK(thin.size() < 60);
    for (const auto& p : circle) {
        double nearest = 1e9;
        for (std::size_t i = 0; i < thin.size(); ++i) {
            const Point2 a = thin[i], ab = thin[(i + 1) % thin.size()] - a;
            nearest = std::min(
                nearest, (p - a - std::clamp((p - a).dot(ab) / ab.squaredNorm(), 0.0, 1.0) * ab).norm());
        }
        CHECK(nearest <= 0.01 + 1e-12);
    }
}

TEST_CASE("an outline is filled without gaps and one that crosses itself is refused") {
    const Loop square{{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    const auto mesh = filled(square, 0.13);
    double area = 0;
    for (const auto& t : mesh.triangles)
        area += signed_area({mesh.points[t[0]], mesh.points[t[1]], mesh.points[t[2]]});
    CHECK(area == Approx(1).epsilon(1e-9));
    CHECK_THROWS_AS(filled({{0, 0}, {1, 1}, {1, 0}, {0, 1}}, 0.1), InputError);
}

TEST_CASE(
    "oversize slabs hold every section of the shape through them, undersize ones lie inside every one") {
    const auto body = shapes::turned({{0.3, 0}, {0.36, 0.13}, {0.2, 0.31}, {0.26, 0.47}, {0.05, 0.6}}, 60);
    const auto topology = topology_of(body);
    const Point axis = Point(0.3, 0.1, 1).normalized();
    const auto over = slabs(body, topology, axis, 0.08, quiet),
               under = slabs(body, topology, axis, 0.08, quiet, SlabFit::undersize),
               middle = slabs(body, topology, axis, 0.08, quiet, SlabFit::middle);
    CHECK(under.volume < middle.volume);
    CHECK(middle.volume < over.volume);
    for (const auto& slab : over.slabs) {
        for (int i = 0; i <= 10; ++i) {
            const double h = slab.from + (slab.to - slab.from) * (i + 0.01) / 10.02;
            const std::array<double, 1> at{h};
            const auto loops = united(sections(body, topology, over.frame, at, quiet).front().loops);
            INFO(slab.number << " at " << h);
            // To a fifth of a millimetre, what a bulge between two looked-at heights may miss.
            CHECK(net_area(taken_off(loops, offset(slab.outline, 2e-4))) < 1e-9);
        }
    }
    for (const auto& slab : under.slabs) {
        for (int i = 1; i < 10; ++i) {
            const std::array<double, 1> at{slab.from + (slab.to - slab.from) * i / 10};
            const auto loops = united(sections(body, topology, under.frame, at, quiet).front().loops);
            CHECK(net_area(taken_off(offset(slab.outline, -2e-4), loops)) < 1e-9);
        }
    }
    // All three close in on the solid as slabs get thin.
    double solid = 0;
    for (std::size_t f = 0; f < body.triangles.size(); ++f)
        solid += body.corner(f, 0).dot(body.corner(f, 1).cross(body.corner(f, 2))) / 6;
    for (const auto fit : {SlabFit::oversize, SlabFit::undersize, SlabFit::middle})
        CHECK(slabs(body, topology, axis, 0.004, quiet, fit).volume == Approx(solid).epsilon(0.025));
}
