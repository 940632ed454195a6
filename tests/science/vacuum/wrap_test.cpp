// A film all round a tool: by hand, for plates, boxes and a trough; turned, scaled, and between ribs.
#include <catch2/catch.hpp>

#include <numbers>

#include "core/base/error.hpp"
#include "core/science/vacuum/film.hpp"
#include "core/science/vacuum/wrap.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::open_box;

namespace {

Round round_of(const TriangleMesh& mesh, const Behind& behind, const Point& pull = Point::UnitZ()) {
    const auto t = topology_of(mesh);
    return round_tool(mesh, t, lengthwise(mesh, t, frame_across(pull)), behind, quiet);
}

TriangleMesh plate(double l, double w) {
    TriangleMesh m;
    m.points = {{0, 0, 0}, {l, 0, 0}, {l, w, 0}, {0, w, 0}};
    shapes::quad(m, 0, 1, 2, 3);
    return m;
}

/// The lower half of a tube along x: a trough of radius r, open at the top and at both ends.
TriangleMesh trough(double r, double length, int around) {
    TriangleMesh m;
    for (int i = 0; i <= around; ++i) {
        const double a = std::numbers::pi * (1 + static_cast<double>(i) / around);
        for (const double x : {0.0, length}) m.points.emplace_back(x, r * std::cos(a), r * std::sin(a));
    }
    for (std::uint32_t i = 0; i < static_cast<std::uint32_t>(around); ++i)
        shapes::quad(m, 2 * i, 2 * i + 1, 2 * i + 3, 2 * i + 2);
    return m;
}

}  // namespace

TEST_CASE("round a flat plate goes twice its size and twice its thickness") {
    const auto r = round_of(plate(1.2, 0.5), {0.01, 0, false});
    CHECK(r.along == Approx(2 * 1.2 + 2 * 0.01));
    CHECK(r.across == Approx(2 * 0.5 + 2 * 0.01));
    CHECK(length_of(r.line) == Approx(r.across));
    CHECK((r.line.front() - r.line.back()).norm() < 1e-12);
    // On legs it is a box.
    const auto on_legs = round_of(plate(1.2, 0.5), {0.01, 0.3, true});
    CHECK(on_legs.across == Approx(2 * 0.5 + 2 * 0.31));
    CHECK(length_of(on_legs.line) == Approx(on_legs.across));
}

TEST_CASE("behind a box's wall the film is as long as on its face, under a block it runs straight across") {
    const double l = 1.2, w = 0.5, d = 0.2;
    // Walls upright: face w + 2d, back the same and its two edges.
    const auto thin = round_of(open_box(l, w, d), {0.01, 0, false});
    CHECK(thin.across == Approx(2 * (w + 2 * d) + 2 * 0.01));
    // Milled from a block with 50 mm under its floor: face w + 2d, down both sides d + 0.05, across w.
    const auto block = round_of(open_box(l, w, d), {0.05, 0, true});
    CHECK(block.across == Approx((w + 2 * d) + 2 * (d + 0.05) + w));
    CHECK(block.along == Approx((l + 2 * d) + 2 * (d + 0.05) + l));
}

TEST_CASE("a trough's film is a half circle both ways, however it is turned and scaled") {
    const double r = 0.3;
    const auto mesh = trough(r, 1.0, 400);
    const auto flat = round_of(mesh, {0.008, 0, false});
    CHECK(flat.across == Approx(2 * std::numbers::pi * r + 2 * 0.008).epsilon(1e-4));
    // A film's ends lie at the trough's: along it is a plate's.
    CHECK(flat.along == Approx(2 * 1.0 + 2 * 0.008));
    // Deeper than wide, its box is what counts.
    const auto boxed = round_of(mesh, {0.008, 0.1, true});
    CHECK(boxed.across == Approx(std::numbers::pi * r + 2 * r + 2 * (r + 0.008 + 0.1)).epsilon(1e-4));

    const auto by = Eigen::AngleAxisd(0.7, Point(1, 2, 0.5).normalized()).toRotationMatrix();
    auto turned = mesh;
    for (auto& p : turned.points) p = by * p + Point(3, -2, 5);
    const auto t = round_of(turned, {0.008, 0.1, true}, by * Point::UnitZ());
    CHECK(t.along == Approx(boxed.along));
    CHECK(t.across == Approx(boxed.across));
    auto larger = mesh;
    for (auto& p : larger.points) p *= 7;
    CHECK(round_of(larger, {0.056, 0.7, true}).across == Approx(7 * boxed.across));
}

TEST_CASE("more behind a tool never needs less film") {
    const auto mesh = open_box(0.9, 0.6, 0.15);
    double before = 0;
    for (const double wall : {0.0, 0.005, 0.02, 0.1}) {
        for (const double back : {0.0, 0.05, 0.3}) {
            const auto r = round_of(mesh, {wall, back, true});
            CHECK(r.across >= round_of(mesh, {wall, 0, false}).across);
            CHECK(r.across >= before - 1e-12);
            before = back < 0.3 ? r.across : 0;
        }
    }
}

TEST_CASE("a surface without a rim goes into no film that is measured by one") {
    CHECK_THROWS_AS(round_of(shapes::box(Point::Zero(), Point(1, 1, 1)), {}), InputError);
}

TEST_CASE("between ribs a film hangs as an arc that is longer than the way by its ease") {
    // Half an angle of 1 rad: the arc is 1/sin 1 times its chord, the radius chord ÷ (2 sin 1).
    CHECK(radius_of_span(0.3, 1 / std::sin(1.0) - 1) == Approx(0.3 / (2 * std::sin(1.0))));
    // A half circle and all beyond hang by half the gap.
    CHECK(radius_of_span(0.3, std::numbers::pi / 2 - 1) == Approx(0.15));
    CHECK(radius_of_span(0.3, 3) == Approx(0.15));
    // Small ease: arc − chord = chord³ ÷ (24 r²).
    CHECK(radius_of_span(0.3, 1e-4) == Approx(0.3 / std::sqrt(24e-4)).epsilon(1e-3));
    CHECK(std::isinf(radius_of_span(0.3, 0)));
    CHECK(radius_of_span(0.3, 0.05) > radius_of_span(0.3, 0.1));
}
