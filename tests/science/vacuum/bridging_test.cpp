// Films that are too short, against arcs by hand; faces that no sheet lies flat on, against Gauss and Bonnet.
#include <catch2/catch.hpp>

#include "core/science/mesh/cut.hpp"
#include "core/science/vacuum/bridging.hpp"
#include "core/science/vacuum/darts.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::open_box;

namespace {

/// Between lands: down, over a floor of `width`, and up again.
Loop trough(double width, double depth) {
    return {{-width, 0}, {0, 0}, {0, -depth}, {width, -depth}, {width, 0}, {2 * width, 0}};
}

double length_of(const Loop& line) {
    double sum = 0;
    for (std::size_t i = 1; i < line.size(); ++i) sum += (line[i] - line[i - 1]).norm();
    return sum;
}

TriangleMesh ball_cap(double r, double from_height, int rings = 96) {
    return parted(shapes::sphere(r, rings), Point(0, 0, from_height), Point::UnitZ()).above;
}

/// Larger, turned and somewhere else.
TriangleMesh moved(const TriangleMesh& mesh, double scale) {
    auto out = shapes::rotated(mesh, shapes::odd_rotation());
    for (auto& p : out.points) p = scale * p + Point(3, -2, 5);
    return out;
}
const Point kTurnedPull = shapes::odd_rotation() * Point::UnitZ();

std::optional<Bridge> under(const TriangleMesh& mesh, const Point& pull, const Point2& sheet,
                            double land = 0) {
    const auto t = topology_of(mesh);
    const auto frame = lengthwise(mesh, t, frame_across(pull));
    FilmRules rules;
    rules.land = land;
    rules.sheet = sheet;
    return bridge_under(mesh, t, frame, rules, film_over(mesh, t, frame, rules, quiet), quiet);
}

double sum_of(const std::vector<Dart>& darts, bool closing) {
    double sum = 0;
    for (const auto& d : darts) {
        if ((d.angle > 0) == closing) sum += d.angle;
    }
    return sum;
}

std::vector<Dart> curved(const TriangleMesh& mesh, const Point& up = Point::UnitZ()) {
    return curved_places(mesh, topology_of(mesh), frame_across(up));
}

}  // namespace

TEST_CASE("a film that is long enough lies everywhere") {
    const auto face = trough(0.4, 0.1);
    const auto span = span_over(face, length_of(face));
    CHECK(span.reaches);
    CHECK(span.gap == 0);
    CHECK(span.radius == 0);
    CHECK(span.line == face);
}

TEST_CASE("a film that is short rounds both corners of a trough by the same arc") {
    const auto face = trough(0.4, 0.1);
    for (const double lacks : {0.004, 0.02, 0.04}) {
        const auto span = span_over(face, length_of(face) - lacks);
        // Each arc of a quarter saves (2 − π/2)·r, and stands off its corner by (√2 − 1)·r.
        const double r = lacks / (2 * (2 - kPi / 2));
        CHECK(span.reaches);
        CHECK(span.radius == Approx(r).epsilon(0.005));
        CHECK(span.gap == Approx((std::sqrt(2.0) - 1) * r).epsilon(0.005));
        CHECK(std::abs(span.at.y() + 0.1) < 1e-9);
        CHECK(length_of(span.line) == Approx(length_of(face) - lacks).epsilon(2e-4));
    }
}

TEST_CASE("a film over a round trough lies as an arc between its lips, or not at all off it") {
    const double radius = 0.2;
    Loop face;
    for (int i = 0; i <= 120; ++i) {
        const double a = kPi + kPi * i / 120;
        face.emplace_back(radius * std::cos(a), radius * std::sin(a));
    }
    for (const double r : {0.205, 0.25, 0.5}) {
        // An arc over the chord of 2R whose radius is r.
        const auto span = span_over(face, 2 * r * std::asin(radius / r));
        CHECK(span.radius == Approx(r).epsilon(0.005));
        CHECK(span.gap == Approx(radius - (r - std::sqrt(r * r - radius * radius))).epsilon(0.01));
    }
    const auto string = span_over(face, 2 * radius * 1.0005);
    CHECK(string.reaches);
    CHECK(string.gap == Approx(radius).epsilon(0.05));
    const auto none = span_over(face, 2 * radius * 0.999);
    CHECK_FALSE(none.reaches);
    CHECK(none.gap == Approx(radius).epsilon(1e-3));
}

TEST_CASE("a film over a hump bridges at its foot and nowhere else") {
    // Lands, a block, lands: inside corners at its foot, outside corners above.
    const Loop face{{-0.5, 0}, {0, 0}, {0, 0.15}, {0.3, 0.15}, {0.3, 0}, {0.8, 0}};
    const double lacks = 0.03, r = lacks / (2 * (2 - kPi / 2));
    const auto span = span_over(face, length_of(face) - lacks);
    CHECK(span.radius == Approx(r).epsilon(0.005));
    CHECK(span.gap == Approx((std::sqrt(2.0) - 1) * r).epsilon(0.005));
    CHECK(span.at.y() == Approx(0).margin(1e-6));
}

TEST_CASE("a shorter film never stands nearer") {
    const auto face = trough(0.3, 0.2);
    double before = 0;
    for (int i = 1; i <= 12; ++i) {
        const auto span = span_over(face, length_of(face) - 0.03 * i);
        CHECK(span.gap >= before - 1e-5);
        before = span.gap;
    }
}

TEST_CASE("a sheet over a box bridges where it lacks, whichever way the box lies") {
    const double l = 1.2, w = 0.5, d = 0.2, lacks = 0.05, r = lacks / (2 * (2 - kPi / 2));
    const double gap = (std::sqrt(2.0) - 1) * r;
    const auto box = open_box(l, w, d);
    const auto enough = under(box, Point::UnitZ(), {l + 2 * d, w + 2 * d});
    CHECK_FALSE(enough);
    const auto across = under(box, Point::UnitZ(), {w + 2 * d - lacks, l + 2 * d});
    REQUIRE(across);
    CHECK_FALSE(across->along);
    CHECK(across->short_by == Approx(lacks));
    CHECK(across->radius == Approx(r).epsilon(0.01));
    CHECK(across->gap == Approx(gap).epsilon(0.01));
    // The floor of the hollow, which opens downwards, lies at its top.
    CHECK(across->at.z() == Approx(d).margin(1e-6));
    const auto along = under(box, Point::UnitZ(), {l + 2 * d - lacks, w + 2 * d});
    REQUIRE(along);
    CHECK(along->along);
    CHECK(along->gap == Approx(gap).epsilon(0.01));
    const auto other = under(moved(box, 2.0), kTurnedPull, 2 * Point2(w + 2 * d - lacks, l + 2 * d));
    REQUIRE(other);
    CHECK(other->gap == Approx(2 * gap).epsilon(0.01));
    const auto over = under(box, -Point::UnitZ(), {w + 2 * d - lacks, l + 2 * d});
    REQUIRE(over);
    CHECK(over->gap == Approx(gap).epsilon(0.01));
    // What the lands take is missing over the face.
    const auto lands = under(box, Point::UnitZ(), {w + 2 * d + 0.06 - lacks, l + 2 * d + 0.06}, 0.03);
    REQUIRE(lands);
    CHECK(lands->short_by == Approx(lacks));
    const auto never = under(box, Point::UnitZ(), {l + 2 * d, 0.4 * w});
    REQUIRE(never);
    CHECK_FALSE(never->reaches);
}

TEST_CASE("a sheet over a bowl gapes in its middle") {
    const double radius = 0.3, r = 0.35;
    const double length = 2 * r * std::asin(radius / r);
    const auto b = under(ball_cap(radius, 0), Point::UnitZ(), {length, kPi * radius * 1.05});
    REQUIRE(b);
    CHECK(b->radius == Approx(r).epsilon(0.03));
    CHECK(b->gap == Approx(radius - (r - std::sqrt(r * r - radius * radius))).epsilon(0.03));
    CHECK(std::hypot(b->at.x(), b->at.y()) < 0.1 * radius);
}

TEST_CASE("what keeps a face from being flat is its Gauss curvature, all of it") {
    // A box's corners each lack a quarter turn: two walls and a floor meet by 270°.
    const auto box = curved(open_box(1.2, 0.5, 0.2));
    REQUIRE(box.size() == 4);
    for (const auto& d : box) {
        CHECK(d.angle == Approx(kPi / 2));
        CHECK(d.at.z() == Approx(0.2));
    }
    // A cap of a ball: area ÷ R².
    for (const double height : {0.0, 0.2, 0.26}) {
        const auto ball = curved(ball_cap(0.3, height, 200));
        CHECK(sum_of(ball, true) == Approx(2 * kPi * (1 - height / 0.3)).epsilon(0.03));
        CHECK(sum_of(ball, false) == Approx(0).margin(0.03));
    }
    const auto again = curved(moved(open_box(1.2, 0.5, 0.2), 3), kTurnedPull);
    REQUIRE(again.size() == 4);
    for (const auto& d : again) CHECK(d.angle == Approx(kPi / 2));
    // What bends one way only is flat to a sheet: a half pipe.
    const auto pipe = parted(shapes::frustum(0.2, 1.0, 0, 64), Point(0, 0, 0), Point::UnitX()).above;
    std::vector<std::uint32_t> side;
    for (std::size_t f = 0; f < pipe.triangles.size(); ++f) {
        if (std::abs(pipe.area_vector2(f).normalized().z()) < 0.5)
            side.push_back(static_cast<std::uint32_t>(f));
    }
    CHECK(curved(some_faces(pipe, side), Point::UnitX()).empty());
}

TEST_CASE("a saddle wants slits that open") {
    // z = (x² − y²)/2 on a square of ±a: K = −1 ÷ (1 + x² + y²)².
    TriangleMesh mesh;
    constexpr int n = 60;
    const double a = 0.5;
    for (int i = 0; i <= n; ++i) {
        for (int j = 0; j <= n; ++j) {
            const double x = a * (2.0 * i / n - 1), y = a * (2.0 * j / n - 1);
            mesh.points.emplace_back(x, y, (x * x - y * y) / 2);
        }
    }
    const auto at = [](int i, int j) { return static_cast<std::uint32_t>(i * (n + 1) + j); };
    for (int i = 0; i < n; ++i) {
        for (int j = 0; j < n; ++j) {
            mesh.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            mesh.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    // ∫K dA with dA = √(1 + x² + y²), by the midpoint rule.
    double whole = 0;
    constexpr int m = 400;
    for (int i = 0; i < m; ++i) {
        for (int j = 0; j < m; ++j) {
            const double x = a * (2 * (i + 0.5) / m - 1), y = a * (2 * (j + 0.5) / m - 1);
            whole -= std::pow(1 + x * x + y * y, -1.5) * (2 * a / m) * (2 * a / m);
        }
    }
    const auto darts = curved(mesh);
    CHECK(sum_of(darts, true) == 0);
    // The rim's own points count with no place: half a cell all round.
    CHECK(sum_of(darts, false) == Approx(whole).epsilon(0.07));
}

TEST_CASE("a sheet lies without a dart as long as what it takes is no less than what is curved") {
    const auto corners = curved(open_box(1.2, 0.5, 0.2));
    CHECK(darts_of(corners, 4.001 * kPi / 2).empty());
    // What is left after three corners could be taken, but the fourth is like them.
    CHECK(darts_of(corners, kPi / 2).size() == 4);
    CHECK(darts_of(corners, 0).size() == 4);
    CHECK(darts_of({}, 0).empty());
    const std::vector<Dart> places{{Point::Zero(), 1.5}, {Point::Zero(), -0.8}, {Point::Zero(), 0.4}};
    // Closing and opening each for itself.
    CHECK(darts_of(places, 1.0).size() == 1);
    CHECK(darts_of(places, 0.5).size() == 2);
    CHECK(darts_of(places, 0.3).size() == 3);
    // 2 % of stretch takes a cap whose rim is 28° from its top: θ²/6 of its rim's length is missing.
    const double theta = std::sqrt(6 * 0.02);
    CHECK(taken_by_stretch(0.02) == Approx(kPi * theta * theta));
    // A net's quarter over a ball of radius 1 by Chebyshev's equation: its corner shears by ∫∫ sin ω.
    CHECK(taken_by_shear(0.6) == Approx(2.4));
}
