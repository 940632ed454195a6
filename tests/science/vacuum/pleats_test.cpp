// Pleats where the maker has put them take up what lies nearest to them.
#include <catch2/catch.hpp>

#include <numbers>

#include "core/science/mesh/cut.hpp"
#include "core/science/vacuum/film.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::open_box;

namespace {

Film over(const TriangleMesh& mesh, std::vector<double> at, double pleat = 0.5, double ease = 0,
          const Point& pull = Point::UnitZ()) {
    const auto t = topology_of(mesh);
    return film_over(mesh, t, lengthwise(mesh, t, frame_across(pull)),
                     {0, {}, false, ease, 0, pleat, {}, std::move(at)}, quiet);
}

double taken_up(const std::vector<Pleat>& pleats) {
    double sum = 0;
    for (const auto& p : pleats) sum += 2 * p.height;
    return sum;
}

}  // namespace

TEST_CASE("a box's pleats at two corners take up two corners each, at all four what the rule gives") {
    const double l = 1.2, w = 0.5, d = 0.2;
    const auto box = open_box(l, w, d);
    const auto ruled = over(box, {});
    REQUIRE(ruled.pleats.size() == 4);
    CHECK(ruled.ruled.empty());
    std::vector<double> shares;
    for (const auto& p : ruled.pleats) shares.push_back(p.at / ruled.land_length);
    const auto same = over(box, shares);
    REQUIRE(same.pleats.size() == 4);
    for (const auto& p : same.pleats) CHECK(p.height == Approx(d));
    CHECK(same.ruled == ruled.pleats);
    CHECK(same.tape == Approx(ruled.tape));
    // Opposite corners: each takes its own and the nearer one's, by the short side.
    const auto two = over(box, {shares[0], shares[2]});
    REQUIRE(two.pleats.size() == 2);
    for (const auto& p : two.pleats) CHECK(p.height == Approx(2 * d));
    const auto one = over(box, {0.3});
    REQUIRE(one.pleats.size() == 1);
    CHECK(one.pleats[0].height == Approx(4 * d));
    CHECK(one.pleats[0].at == Approx(0.3 * one.land_length));
}

TEST_CASE("whatever their number, place, order and the tool's turn, pleats take up all that is over") {
    const auto ball = shapes::sphere(0.4, 48);
    const auto bowl = parted(ball, Point(0, 0, 0), Point::UnitZ()).above;
    for (const std::vector<double>& at :
         {std::vector<double>{0}, {1}, {0.999, 0.001}, {0.9, 0.1, 0.5}, {0.2, 0.2, 0.2}}) {
        const auto f = over(bowl, at, 0.05, 0.1);
        REQUIRE(f.pleats.size() == at.size());
        CHECK(taken_up(f.pleats) == Approx(f.slack));
        CHECK(taken_up(f.ruled) == Approx(f.slack));
        for (std::size_t i = 1; i < f.pleats.size(); ++i) CHECK(f.pleats[i - 1].at <= f.pleats[i].at);
        for (const auto& p : f.pleats) CHECK((p.at >= 0 && p.at <= f.land_length + 1e-12));
    }
    // All round a bowl alike: so many pleats in even steps are of one height.
    const auto even = over(bowl, {0.1, 0.35, 0.6, 0.85}, 0.05, 0.1);
    for (const auto& p : even.pleats) CHECK(p.height == Approx(even.slack / 8).epsilon(0.06));
}

TEST_CASE("a flat plate's film has nothing over for a pleat to take up") {
    TriangleMesh plate;
    plate.points = {{0, 0, 0}, {1, 0, 0}, {1, 0.5, 0}, {0, 0.5, 0}};
    shapes::quad(plate, 0, 1, 2, 3);
    const auto f = over(plate, {0.25, 0.75}, 0.06, 0.1);
    REQUIRE(f.pleats.size() == 2);
    CHECK(f.pleats[0].height == 0);
    CHECK(f.pleats[1].at == Approx(0.75 * 3));
}
