// Where the resin goes that is mixed for a part: line by line, by two schools, for small parts and large.
#include <catch2/catch.hpp>

#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::worked_out;
using part::Keepers;
using part::ResinAsked;

namespace {

double line(const part::ResinAccount& a, const std::string& key) {
    for (const auto& l : a.lines) {
        if (l.key == key) return l.mass;
    }
    return 0;
}

double sum(const part::ResinAccount& a) {
    double out = 0;
    for (const auto& l : a.lines) out += l.mass;
    return out;
}

/// A face of 2 m² with 5 m of rim: 1.2 kg of cloth, 1.0 kg of resin in its plies and 0.3 kg in its core.
ResinAsked face() {
    return {
        2,
        5,
        1.2,
        1.0,
        0.3,
        ResinBy::share,
        0.9,
        0.2,
        0.15,
        Keepers{{{"peel_ply", "in peel ply", 0.07, 0, 0, ""}, {"lines", "in lines", 0, 0.02, 0.1, ""}}, 0.015}};
}

}  // namespace

TEST_CASE("an account of resin is added up by hand, by either school") {
    const auto a = part::account_of(face());
    CHECK(line(a, "laminate") == Approx(1.3));
    // 5 m × 15 mm of edge at 0.65 kg/m², and what a tenth more of cloth drinks beside it.
    CHECK(line(a, "edge") == Approx(5 * 0.015 * 0.65));
    CHECK(line(a, "offcuts") == Approx(0.13 - 5 * 0.015 * 0.65));
    CHECK(line(a, "peel_ply") == Approx(0.14));
    CHECK(line(a, "lines") == Approx(5 * 0.02 + 0.1));
    CHECK(line(a, "pots") == Approx(0.15));
    CHECK(a.total == Approx(sum(a)));
    CHECK(a.total == Approx(1.43 + 0.14 + 0.2 + 0.15));
    // By ratio the plies take 0.9 × 1.2 kg; the core drinks as before.
    CHECK(a.other == Approx((0.9 * 1.2 + 0.3) * 1.1 + 0.14 + 0.2 + 0.15));
    auto asked = face();
    asked.by = ResinBy::ratio;
    const auto b = part::account_of(asked);
    CHECK(b.total == Approx(a.other));
    CHECK(b.other == Approx(a.total));
    CHECK(a.over_cloth(2) == Approx(a.total / 1.2));
}

TEST_CASE("a small part takes more resin for its cloth than a large one of the same kind") {
    const auto a = part::account_of(face());
    // A quarter of the face has half the rim: by hand.
    const double quarter =
        1.3 / 4 + std::max(2.5 * 0.015 * 0.65, 1.3 / 4 * 0.1) + 0.14 / 4 + (0.05 + 0.1) + 0.15;
    CHECK(a.over_cloth(0.5) == Approx(quarter / 0.3));
    double before = 1e300;
    for (const double area : {0.01, 0.05, 0.2, 1.0, 5.0, 40.0, 1e4}) {
        const double over = a.over_cloth(area);
        CHECK(over < before);
        before = over;
    }
    // In the end what goes by the face alone is left.
    CHECK(a.over_cloth(1e8) == Approx((1.43 + 0.14) / 1.2).epsilon(1e-3));
    CHECK(a.over_cloth(0.01) > 10);
    CHECK(a.over_cloth(0) == 0);
    CHECK(part::ResinAccount{}.over_cloth(1) == 0);
}

TEST_CASE("a medium that ends before the rim keeps no less than nothing") {
    const part::Keeper medium{"medium", "", 0.7, -0.7 * 0.04, 0, ""};
    CHECK(medium.mass(2, 5) == Approx(0.7 * (2 - 0.2)));
    CHECK(medium.mass(0.001, 0.2) == 0);
}

TEST_CASE("Part lists what the bag's own layers keep, and their sum is what is mixed") {
    auto job = bagged();
    const auto f = worked_out(job);
    const auto& a = f.part->resin_account;
    CHECK(a.total == f.part->resin_mix);
    CHECK(sum(a) == Approx(a.total));
    CHECK(line(a, "peel_ply") == Approx(0.07 * f.part->area));
    CHECK(line(a, "breather") == Approx(0.12 * f.part->area));
    CHECK(line(a, "film") == Approx(0.01 * f.part->area));
    CHECK(a.asked.rim == Approx(f.edge->rim_length).epsilon(1e-3));
    CHECK(value_of(f.part->figures, "resin_peel_ply") == Approx(line(a, "peel_ply")));
    CHECK(value_of(f.part->figures, "over_cloth") == Approx(a.total / a.asked.cloth));
    // Film without holes lets nothing bleed, no peel ply keeps none.
    job.bag.film = ReleaseFilm::solid;
    job.bag.peel_ply = false;
    const auto dry = worked_out(job);
    CHECK(line(dry.part->resin_account, "breather") == 0);
    CHECK(line(dry.part->resin_account, "peel_ply") == 0);
    CHECK(dry.part->resin_mix == Approx(f.part->resin_mix - 0.20 * f.part->area));
    // By hand there is no bag to keep any, squeezed neither.
    job = bagged();
    job.part.how = LayUp::hand;
    const auto by_hand = worked_out(job);
    for (const auto& l : by_hand.part->resin_account.lines) CHECK(l.key != "peel_ply");
}

TEST_CASE("an infusion's medium, lines and hoses are counted where they lie") {
    auto job = bagged();
    job.part.how = LayUp::infused;
    job.part.resin = "epoxy, infusion";
    job.bag.infusion.plan = InfusionPlan::ring;
    const auto f = worked_out(job);
    const auto& a = f.part->resin_account;
    const auto& medium = need(fixtures::shop().consumables, "flow medium", "test");
    const double density = f.part->resin.matrix.density;
    CHECK(line(a, "medium") == Approx(medium.pressed * medium.share * density * f.part->area));
    CHECK(line(a, "lines") == Approx(0.07 * a.asked.rim));
    CHECK(line(a, "hoses") == Approx(1.5 * kPi / 4 * 1e-4 * density));
    CHECK(line(a, "breather") == 0);
    job.bag.infusion.medium = false;
    CHECK(line(worked_out(job).part->resin_account, "medium") == 0);
}

TEST_CASE("a prepreg mixes nothing, and a ratio leaves the laminate as it is") {
    auto job = bagged();
    const auto share = worked_out(job);
    job.part.resin_by = ResinBy::ratio;
    job.part.ratio = 1.5;
    const auto ratio = worked_out(job);
    CHECK(ratio.part->mass == share.part->mass);
    CHECK(ratio.part->resin_mix == Approx(ratio.part->resin_account.total));
    CHECK(ratio.part->resin_account.other == Approx(share.part->resin_mix));
    const auto& a = ratio.part->resin_account.asked;
    CHECK(line(ratio.part->resin_account, "laminate") == Approx(1.5 * a.cloth + a.cores));
    job.part.how = LayUp::prepreg;
    job.part.resin = "prepreg resin, low cure";
    const auto none = worked_out(job);
    REQUIRE(none.part->resin.in_cloth);
    CHECK(none.part->resin_mix == 0);
    CHECK(none.part->resin_account.lines.empty());
}
