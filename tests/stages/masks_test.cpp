// What release has to be kept off: the land that a bag is stuck to, and rims that are glued.
#include <catch2/catch.hpp>

#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::call;
using fixtures::worked_out;

namespace {

double bought(const Findings& f) {
    double sum = 0;
    for (const auto& m : f.run->materials) {
        if (m.what == "masking tape") sum += m.amount;
    }
    return sum;
}

double coated(const Findings& f) {
    return f.release->area + f.release->kept_clear;
}

}  // namespace

TEST_CASE("the land is masked where a bag is stuck to it, by the length that it has") {
    const auto f = worked_out(bagged());
    REQUIRE(f.release);
    CHECK(f.release->taped);
    CHECK(f.release->kept_clear == Approx(f.edge->tape_land_area));
    CHECK(f.release->masked == Approx(f.edge->tape_land_length));
    // What is said is what is bought, with the shop's own waste, once.
    const double waste = need(fixtures::shop().consumables, "masking tape", "t").waste;
    CHECK(bought(f) == Approx(f.release->masked * (1 + waste)));
    CHECK(f.release->area == Approx(f.split->mould_area() + f.edge->area - f.edge->tape_land_area));
}

TEST_CASE("where no bag is stuck to the flange nothing is masked, and release over it is no stop") {
    const double whole = coated(worked_out(bagged()));
    for (const auto& change : {std::function<void(Job&)>([](Job& j) { j.part.how = LayUp::hand; }),
                               std::function<void(Job&)>([](Job& j) { j.brief.process = Process::squeeze; }),
                               std::function<void(Job&)>([](Job& j) { j.bag.way = BagWay::envelope; }),
                               std::function<void(Job&)>([](Job& j) { j.bag.way = BagWay::tube; })}) {
        auto job = bagged();
        job.release.mask_land = false;
        change(job);
        const auto f = worked_out(job);
        REQUIRE(f.release);
        CHECK_FALSE(f.release->taped);
        CHECK(f.release->masked == 0);
        CHECK(bought(f) == 0);
        CHECK(f.release->area == Approx(whole));
        CHECK(call(f, "land") == nullptr);
    }
    // A bag that is used again closes on a clean flange.
    auto job = bagged();
    job.release.mask_land = false;
    job.bag.way = BagWay::reusable;
    CHECK(call(worked_out(job), "land") != nullptr);
}

TEST_CASE("rims that are glued are masked on both sides of their line") {
    const auto job = fixtures::demo("cello-case-whole");
    auto glued = job;
    glued.release.rims_released = false;
    const auto released = worked_out(job), kept = worked_out(glued);
    REQUIRE(kept.release->seam > 0);
    CHECK(kept.release->masked == Approx(released.release->masked + 2 * kept.release->seam));
}
