// The way that each coat is laid, over the middle of the face.
#include "core/stages/release/strokes.hpp"

#include <catch2/catch.hpp>

#include "core/science/mesh/cut.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

std::vector<release::Step> coats(std::initializer_list<double> turns) {
    std::vector<release::Step> out;
    for (const double t : turns) {
        out.emplace_back();
        out.back().turn = t;
    }
    return out;
}

double length_along(const std::vector<Point>& way) {
    double out = 0;
    for (std::size_t i = 1; i < way.size(); ++i) out += (way[i] - way[i - 1]).norm();
    return out;
}

std::vector<release::Stroke> on(const std::vector<release::Step>& plan, const TriangleMesh& face,
                                const Frame& frame = fixtures::kLevel) {
    return release::strokes_of(plan, face, frame, quiet);
}

}  // namespace

TEST_CASE("coats along and across a box go down its walls, over its floor and up again") {
    const double l = 1.2, w = 0.5, d = 0.2;
    const auto strokes = on(coats({0, kPi / 2, 0, kPi / 2}), shapes::open_box(l, w, d));
    REQUIRE(strokes.size() == 2);
    CHECK(strokes[0].coats == std::vector<int>{1, 3});
    CHECK(strokes[1].coats == std::vector<int>{2, 4});
    CHECK(length_along(strokes[0].way) == Approx(l + 2 * d));
    CHECK(length_along(strokes[1].way) == Approx(w + 2 * d));
    // The first along, in its own sense.
    const Point first = strokes[0].way.back() - strokes[0].way.front();
    CHECK(std::abs(first.x()) == Approx(l));
    CHECK(std::abs(strokes[1].way.front().x() - l / 2) < 1e-9);
    // A slant of 45° crosses the floor of a square box from corner to corner.
    const auto slant = on(coats({kPi / 4}), shapes::open_box(1, 1, 0.1));
    REQUIRE(slant.size() == 1);
    CHECK(length_along(slant[0].way) >= std::sqrt(2.0) - 1e-6);
}

TEST_CASE("ways half a turn apart are one, and a turn of the tool turns them with it") {
    const auto box = shapes::open_box(1.2, 0.5, 0.2);
    CHECK(on(coats({0, kPi, 2 * kPi, kPi - 1e-4}), box).size() == 1);
    const auto plain = on(coats({0, kPi / 2}), box);
    // Turned about the pull and laid on its side.
    TriangleMesh turned = box;
    const Frame side{Point(0, std::cos(0.7), std::sin(0.7)), Point(0, -std::sin(0.7), std::cos(0.7)),
                     Point::UnitX()};
    for (auto& p : turned.points) p = side.u * p.x() + side.v * p.y() + side.w * p.z();
    const auto other = on(coats({0, kPi / 2}), turned, frame_across(Point::UnitX()));
    REQUIRE(other.size() == 2);
    for (std::size_t i = 0; i < 2; ++i)
        CHECK(length_along(other[i].way) == Approx(length_along(plain[i].way)).epsilon(1e-6));
}

TEST_CASE("over a bowl each way is half its girth, round a ball it closes, and no coat has no way") {
    const auto ball = shapes::sphere(0.4, 96);
    const auto bowl = parted(ball, Point(0, 0, 0), Point::UnitZ()).above;
    for (const auto& s : on(coats({0, kPi / 2, kPi / 4}), bowl))
        CHECK(length_along(s.way) == Approx(kPi * 0.4).epsilon(0.01));
    const auto round = on(coats({0}), ball);
    REQUIRE(round.size() == 1);
    CHECK((round[0].way.front() - round[0].way.back()).norm() < 1e-9);
    CHECK(on({}, bowl).empty());
    CHECK(on(coats({0}), TriangleMesh{}).empty());
}

TEST_CASE("every demo's coats have their ways, each coat once") {
    for (const char* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        INFO(name);
        const auto f = fixtures::worked_out(fixtures::demo(name));
        REQUIRE(f.release);
        REQUIRE(f.edge->tool);
        const auto strokes = on(f.release->plan, f.edge->tool->rimmed.mesh, f.edge->tool->frame);
        std::size_t coats = 0;
        for (const auto& s : strokes) coats += s.coats.size();
        CHECK(coats == f.release->plan.size());
    }
}
