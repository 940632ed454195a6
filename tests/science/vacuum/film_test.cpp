#include <catch2/catch.hpp>

#include <numbers>

#include "core/base/error.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/science/vacuum/film.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::open_box;

namespace {

/// The upper half of a ball.
TriangleMesh bowl(double r, int rings = 96) {
    const auto ball = shapes::sphere(r, rings);
    return parted(ball, Point(0, 0, 0), Point::UnitZ()).above;
}

Film over(const TriangleMesh& mesh, const Point& pull, FilmRules rules) {
    const auto t = topology_of(mesh);
    return film_over(mesh, t, lengthwise(mesh, t, frame_across(pull)), rules, quiet);
}

double taken_up(const Film& f) {
    double sum = 0;
    for (const auto& p : f.pleats) sum += 2 * p.height;
    return sum;
}

}  // namespace

TEST_CASE("a box's film goes down and up its walls, and its corners take what is over") {
    const double l = 1.2, w = 0.5, d = 0.2;
    const auto f = over(open_box(l, w, d), Point::UnitZ(), {0, {}, false, 0, 0, 0.5});
    CHECK(f.along == Approx(l + 2 * d));
    CHECK(f.across == Approx(w + 2 * d));
    CHECK(f.depth == Approx(d));
    CHECK(f.land_length == Approx(2 * (l + w)));
    // Two depths at each of four corners.
    CHECK(f.slack == Approx(8 * d));
    REQUIRE(f.pleats.size() == 4);
    for (const auto& p : f.pleats) CHECK(p.height == Approx(d));
    CHECK(taken_up(f) == Approx(f.slack));
    CHECK(f.tape == Approx(f.land_length + f.slack));
    // One at each corner, wherever the rim starts.
    std::vector<double> corners;
    for (const auto& p : f.pleats) {
        double passed = 0;
        for (std::size_t i = 0; i < f.land.size(); ++i) {
            if (std::abs(passed - p.at) < 1e-9) corners.push_back(f.land[i].x() + 10 * f.land[i].y());
            passed += (f.land[(i + 1) % f.land.size()] - f.land[i]).norm();
        }
    }
    std::sort(corners.begin(), corners.end());
    REQUIRE(corners.size() == 4);
    CHECK(corners[0] == Approx(0).margin(1e-6));
    CHECK(corners[1] == Approx(l));
    CHECK(corners[2] == Approx(10 * w));
    CHECK(corners[3] == Approx(l + 10 * w));
}

TEST_CASE("shorter pleats are more of them, as many at each corner") {
    const auto f = over(open_box(1.2, 0.5, 0.2), Point::UnitZ(), {0.03, {}, false, 0.1, 0, 0.06});
    CHECK(f.pleats.size() % 4 == 0);
    CHECK(taken_up(f) == Approx(f.slack));
    for (const auto& p : f.pleats) CHECK(p.height <= 0.06 + 1e-9);
    CHECK(f.length == Approx((1.2 + 0.4 + 0.06) * 1.1));
    CHECK(f.width == Approx((0.5 + 0.4 + 0.06) * 1.1));
    // The land's middle goes round its corners on arcs.
    CHECK(f.land_length == Approx(2 * 1.7 + 2 * std::numbers::pi * 0.015).epsilon(1e-3));
    CHECK(f.slack == Approx(2 * (f.length + f.width) - f.land_length));
}

TEST_CASE("a spherical bowl's girth is half its great circle, both ways") {
    const double r = 0.4;
    const auto f = over(bowl(r), Point::UnitZ(), {0, {}, false, 0.05, 0, 0.05});
    CHECK(f.along == Approx(std::numbers::pi * r).epsilon(2e-3));
    CHECK(f.across == Approx(std::numbers::pi * r).epsilon(2e-3));
    CHECK(f.land_length == Approx(2 * std::numbers::pi * r).epsilon(2e-3));
    CHECK(f.slack == Approx(4 * 1.05 * std::numbers::pi * r - 2 * std::numbers::pi * r).epsilon(5e-3));
    CHECK(taken_up(f) == Approx(f.slack));
    // Round an even rim they stand evenly.
    for (std::size_t i = 1; i < f.pleats.size(); ++i)
        CHECK(f.pleats[i].at - f.pleats[i - 1].at ==
              Approx(f.land_length / static_cast<double>(f.pleats.size())).epsilon(0.35));
}

TEST_CASE("turned and scaled moulds give the same film, turned and scaled") {
    const auto box = open_box(1.2, 0.5, 0.2);
    const FilmRules rules{0.03, {}, false, 0.1, 0, 0.06};
    const auto plain = over(box, Point::UnitZ(), rules);
    const auto r = shapes::odd_rotation();
    const auto turned = over(shapes::rotated(box, r), r * Point::UnitZ(), rules);
    CHECK(turned.along == Approx(plain.along).epsilon(1e-3));
    CHECK(turned.across == Approx(plain.across).epsilon(1e-3));
    CHECK(turned.slack == Approx(plain.slack).epsilon(5e-3));
    CHECK(turned.pleats.size() == plain.pleats.size());
    // Pulled the other way it is the same hollow.
    CHECK(over(box, -Point::UnitZ(), rules).along == Approx(plain.along));
    auto large = box;
    for (auto& p : large.points) p *= 10;
    const auto grown = over(large, Point::UnitZ(), {0.3, {}, false, 0.1, 0, 0.6});
    CHECK(grown.along == Approx(10 * plain.along));
    // Round corners of the land are arcs to an absolute tolerance.
    CHECK(grown.slack == Approx(10 * plain.slack).epsilon(1e-4));
    CHECK(grown.pleats.size() == plain.pleats.size());
}

TEST_CASE("a flat tool needs no pleat") {
    TriangleMesh plate;
    plate.points = {{0, 0, 0}, {1, 0, 0}, {1, 0.6, 0}, {0, 0.6, 0}};
    plate.triangles = {{0, 1, 2}, {0, 2, 3}};
    const auto f = over(plate, Point::UnitZ(), {0, {}, false, 0, 0, 0.05});
    CHECK(f.along == Approx(1));
    CHECK(f.across == Approx(0.6));
    CHECK(f.slack == Approx(0).margin(1e-9));
    CHECK(f.pleats.empty());
    CHECK(over(plate, Point::UnitZ(), {0.03, {}, false, 0.1, 0, 0.05}).pleats.empty());
}

TEST_CASE("the deepest place decides the girths, and the longest way is told beside them") {
    // A plate with pyramids: the deepest alone in its row, two less deep ones in another.
    struct Pit {
        double x, y, h;
    };
    const double b = 0.1, step = 0.05;
    const std::vector<Pit> pits{{0.2, 0.2, 0.3}, {0.4, 0.6, 0.25}, {0.8, 0.6, 0.25}};
    TriangleMesh m;
    const int nx = 20, ny = 16;
    for (int j = 0; j <= ny; ++j) {
        for (int i = 0; i <= nx; ++i) {
            const double x = i * step, y = j * step;
            double z = 0;
            for (const auto& p : pits)
                z = std::max(z, p.h * (1 - std::max(std::abs(x - p.x), std::abs(y - p.y)) / b));
            m.points.emplace_back(x, y, z);
        }
    }
    const auto at = [&](int i, int j) { return static_cast<std::uint32_t>(j * (nx + 1) + i); };
    for (int j = 0; j < ny; ++j) {
        for (int i = 0; i < nx; ++i) {
            m.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            m.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    const auto more = [&](double h) { return 2 * (std::hypot(b, h) - b); };
    const auto f = over(m, Point::UnitZ(), {0, {}, false, 0, 0, 0.05});
    CHECK(f.depth == Approx(0.3));
    CHECK(f.along == Approx(1 + more(0.3)).epsilon(1e-4));
    CHECK(f.across == Approx(0.8 + more(0.3)).epsilon(1e-4));
    CHECK(f.longest_along == Approx(1 + 2 * more(0.25)).epsilon(5e-3));
}

TEST_CASE("a sheet wider than the roll is joined, and a closed body has nowhere to stick a film") {
    CHECK(over(open_box(2, 1.0, 0.3), Point::UnitZ(), {0, {}, false, 0, 1.0, 0.1}).joins == 1);
    CHECK(over(open_box(2, 1.0, 0.3), Point::UnitZ(), {0, {}, false, 0, 1.6, 0.1}).joins == 0);
    CHECK(over(open_box(2, 1.0, 0.3), Point::UnitZ(), {0, {}, false, 0, 0.5, 0.1}).joins == 3);
    CHECK_THROWS_AS(over(shapes::sphere(0.4), Point::UnitZ(), {}), InputError);
    Progress stopped;
    stopped.stop();
    const auto box = open_box(1, 1, 1);
    const auto t = topology_of(box);
    CHECK_THROWS_AS(film_over(box, t, frame_across(Point::UnitZ()), {}, stopped), Cancelled);
}

TEST_CASE("a sheet by the longest girths has the slack, pleats and tape of that sheet") {
    const auto box = open_box(1.2, 0.5, 0.2);
    const auto deep = over(box, Point::UnitZ(), {0.03, 0.02, false, 0.1, 0, 0.06}),
               longest = over(box, Point::UnitZ(), {0.03, 0.02, true, 0.1, 0, 0.06});
    for (const auto& f : {deep, longest}) {
        CHECK(f.slack == Approx(2 * (f.length + f.width) - f.land_length));
        CHECK(taken_up(f) == Approx(f.slack));
        CHECK(f.tape == Approx(f.land_length + f.slack));
        // The middle line goes round 20 mm past the rim.
        CHECK(f.land_length == Approx(2 * 1.7 + 2 * std::numbers::pi * 0.02).epsilon(1e-3));
    }
    CHECK(longest.length == Approx(longest.longest_along * 1.1));
    CHECK(deep.length == Approx(deep.along * 1.1));
}

TEST_CASE("a land inside the mesh's rim takes off what lies past it, and one wider than it is refused") {
    TriangleMesh plate;
    plate.points = {{0, 0, 0}, {1, 0, 0}, {1, 0.6, 0}, {0, 0.6, 0}};
    plate.triangles = {{0, 1, 2}, {0, 2, 3}};
    const auto f = over(plate, Point::UnitZ(), {-0.05, -0.07, true, 0, 0, 0.05});
    CHECK(f.length == Approx(0.9));
    CHECK(f.width == Approx(0.5));
    CHECK(f.land_length == Approx(2 * (0.86 + 0.46)));
    CHECK_THROWS_AS(over(plate, Point::UnitZ(), {-0.3, -0.4, true, 0, 0, 0.05}), InputError);
}
