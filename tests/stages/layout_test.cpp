// Several parts in one mould: how they lie, and what the later stages make of it.
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace jig::split {
using fixtures::call;
using fixtures::worked_out;

namespace {

/// The smallest distance between two outlines, by all their points and edges.
double gap(const Loop& a, const Loop& b) {
    double least = 1e30;
    const auto one_way = [&](const Loop& from, const Loop& to) {
        for (const auto& p : from) {
            for (std::size_t i = 0; i < to.size(); ++i) {
                const Point2 q = to[i], edge = to[(i + 1) % to.size()] - q;
                const double t = std::clamp((p - q).dot(edge) / edge.squaredNorm(), 0.0, 1.0);
                least = std::min(least, (p - q - t * edge).norm());
            }
        }
    };
    one_way(a, b);
    one_way(b, a);
    return least;
}

std::vector<Loop> laid(const Loop& outline, const Choices& c) {
    std::vector<Loop> out;
    for (const auto& place : lay_parts({outline}, c)) out.push_back(placed(outline, place));
    return out;
}

void check_gaps(const std::vector<Loop>& rims, double between) {
    double least = 1e30;
    for (std::size_t i = 0; i < rims.size(); ++i) {
        CHECK(signed_area(rims[i]) > 0);
        for (std::size_t k = 0; k < i; ++k) least = std::min(least, gap(rims[i], rims[k]));
    }
    CHECK(least >= between - 1e-6);
    CHECK(least < between + 0.004);
}

}  // namespace

TEST_CASE("parts lie the flange's width apart, in rows as square as their number allows") {
    Choices c;
    c.together = Together::several;
    c.between = 0.05;
    const Loop square{{0, 0}, {0.2, 0}, {0.2, 0.2}, {0, 0.2}};
    for (const int count : {2, 3, 4, 6}) {
        INFO(count);
        c.parts = count;
        const auto rims = laid(square, c);
        REQUIRE(static_cast<int>(rims.size()) == count);
        check_gaps(rims, c.between);
    }
    c.parts = 4;
    const auto four = laid(square, c);
    const Point2 size = high_corner(four) - low_corner(four);
    CHECK(size.x() == Approx(0.45).margin(0.003));
    CHECK(size.y() == Approx(0.45).margin(0.003));
}

TEST_CASE("every second triangle is turned where that needs less mould") {
    Choices c;
    c.together = Together::several;
    c.between = 0.03;
    c.parts = 4;
    const Loop triangle{{0, 0}, {0.3, 0}, {0.15, 0.3}};
    const auto rims = laid(triangle, c);
    check_gaps(rims, c.between);
    const auto turned = lay_parts({triangle}, c);
    CHECK(std::count_if(turned.begin(), turned.end(), [](const PartPlace& p) { return p.turn > 1; }) == 2);
    CHECK(net_area(joined_outline(rims, c.between)) < 0.85 * 4 * (0.3 + c.between) * 0.3);
}

TEST_CASE("a mirror image is one: no turn brings it onto its twin") {
    Choices c;
    c.together = Together::mirrored;
    c.between = 0.04;
    const Loop wedge{{0, 0}, {0.4, 0}, {0.4, 0.05}, {0, 0.2}};
    const auto places = lay_parts({wedge}, c);
    REQUIRE(places.size() == 2);
    CHECK_FALSE(places[0].mirrored);
    CHECK(places[1].mirrored);
    const auto rims = laid(wedge, c);
    check_gaps(rims, c.between);
    // Both run anticlockwise and keep their area, edge lengths run backwards in the mirror.
    CHECK(signed_area(rims[1]) == Approx(signed_area(rims[0])));
    CHECK((rims[1][0] - rims[1][1]).norm() == Approx(0.4 - 0 > 0 ? (wedge[3] - wedge[2]).norm() : 0));
    const auto one = joined_outline(rims, c.between);
    REQUIRE(one.size() == 1);
    CHECK(signed_area(one.front()) > 2 * signed_area(wedge));
}

TEST_CASE("two parts in one mould double its faces and share its bag") {
    auto job = fixtures::small_job();
    const auto one = worked_out(job);
    job.split.together = Together::mirrored;
    job.split.between = 0.05;
    const auto two = worked_out(job);
    REQUIRE(two.complete());
    REQUIRE(two.split->parts() == 2);
    CHECK(two.split->moulded_area == Approx(one.split->moulded_area));
    CHECK(two.split->mould_area() == Approx(2 * one.split->moulded_area));
    const auto& stood = two.split->stood->mesh;
    CHECK(measure(stood, two.split->stood->topology).area == Approx(2 * one.shape->measures.area));
    CHECK(stood.triangles.size() == 2 * one.shape->mesh.triangles.size());
    // One tape round both is shorter than two tapes; each part keeps its own trim line.
    CHECK(two.edge->tape_land_length < 2 * one.edge->tape_land_length);
    CHECK(two.edge->rim_length == Approx(2 * one.edge->rim_length).epsilon(1e-6));
    CHECK(two.edge->area < 2 * one.edge->area + 0.05 * one.split->size.x());
    CHECK(two.plug->plans.front().slabs.stack.volume ==
          Approx(2 * one.plug->plans.front().slabs.stack.volume).epsilon(1e-3));
    CHECK(two.plug->plans.front().slabs.stack.slabs.size() ==
          one.plug->plans.front().slabs.stack.slabs.size());
    CHECK(two.part->mass == Approx(one.part->mass));
    CHECK(two.shell->area > 1.8 * one.shell->area);
    // Each of twice as many parts costs less bagging, and the tool is shared.
    CHECK(two.run->made == 2 * one.run->made);
    CHECK(two.run->cost_per_part(two.run->made) < one.run->cost_per_part(one.run->made));
    CHECK(value_of(two.figures(Stage::split), "bags_saved") == job.brief.pulls);
    const auto hours = [](const jig::Findings& f, const std::string& what) {
        double sum = 0;
        for (const auto& h : f.run->hours) sum += h.ledger == Ledger::each && h.what == what ? h.hours : 0;
        return sum;
    };
    CHECK(hours(two, "setting up bag") == Approx(hours(one, "setting up bag") / 2));
    CHECK(hours(two, "demould part") == Approx(hours(one, "demould part")));
    CHECK(hours(two, "trimming") == Approx(hours(one, "trimming")).epsilon(1e-6));
}

TEST_CASE("pieces and several parts do not go together, and the part lies alone then") {
    auto job = fixtures::small_job();
    job.split.together = Together::several;
    job.split.way = SplitWay::plane;
    job.split.plane_at = {0, 0, 0.06};
    job.split.plane_normal = {1, 0, 0};
    const auto f = worked_out(job);
    REQUIRE(f.split);
    CHECK(f.split->parts() == 1);
    CHECK(call(f, "alone") != nullptr);
}

}  // namespace jig::split
