// Walls in one oven: a hold waits for the slowest of them, each then does what it does alone in that air.
#include <catch2/catch.hpp>

#include "core/science/heat/cured.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

constexpr double kWorkshop = 293.15, kDensity = 1500, kCapacity = 1200, kTransfer = 15;

/// A plate so thick, warm alike all through, air on both sides.
Wall plate(double thickness) {
    const WallSide air{kTransfer, steady(kWorkshop)};
    return {{{"plate", thickness, 5000, kDensity, kCapacity, {}, 0, 0}}, {air, air}, kWorkshop};
}

constexpr double kRate = 0.02, kTo = 353.15, kWithin = 3, kHold = 3600;

std::vector<Segment> up_and_hold() {
    Segment hold;
    hold.hold = true;
    hold.seconds = kHold;
    hold.within = kWithin;
    return {{false, kTo, kRate, 0, {}}, hold};
}

/// s past the ramp's end until the plate is near: it lags by R/b·(1 − exp(−b·t)) then, b = 2h/(ρ·c·d), and
/// comes after the air as exp(−b·t).
double wait_of(double thickness) {
    const double b = 2 * kTransfer / (kDensity * kCapacity * thickness), ramp = (kTo - kWorkshop) / kRate;
    const double lag = kRate / b * (1 - std::exp(-b * ramp));
    return lag <= kWithin ? 0 : std::log(lag / kWithin) / b;
}

constexpr double kPatience = 48 * 3600.0;

CuredTogether together(const std::vector<Wall>& walls, double patience = kPatience) {
    std::vector<InOven> in;
    for (const auto& w : walls) in.push_back({w, {0}});
    return run_programme(in, up_and_hold(), {true, true}, patience, quiet);
}

constexpr std::array kBoth{true, true};

}  // namespace

TEST_CASE("a hold waits for the slowest wall as long as its lag says") {
    const double ramp = (kTo - kWorkshop) / kRate;
    for (const double d : {0.004, 0.012, 0.04}) {
        const auto alone = run_programme(plate(d), up_and_hold(), kBoth, {0}, kPatience, quiet);
        CHECK(alone.waited);
        CHECK(alone.air.end() - ramp - kHold == Approx(wait_of(d)).epsilon(0.015));
    }
    const auto both = together({plate(0.004), plate(0.04), plate(0.012)});
    CHECK(both.air.end() - ramp - kHold == Approx(wait_of(0.04)).epsilon(0.015));
    REQUIRE(both.slowest);
    CHECK(*both.slowest == 1);
    CHECK(both.waited);
    // A wall that nobody watches is not waited for.
    const auto unwatched =
        run_programme({{plate(0.004), {0}}, {plate(0.04), {}}}, up_and_hold(), kBoth, kPatience, quiet);
    CHECK(unwatched.air.end() - ramp - kHold == Approx(wait_of(0.004)).epsilon(0.015));
}

TEST_CASE("each wall does in company what it does alone in that air, in whatever order they stand") {
    const std::vector<Wall> walls{plate(0.004), plate(0.04)};
    const auto both = together(walls), turned = together({walls[1], walls[0]});
    CHECK(both.air == turned.air);
    REQUIRE(both.histories.size() == 2);
    CHECK(both.histories[0] == turned.histories[1]);
    CHECK(both.histories[1] == turned.histories[0]);
    for (std::size_t i = 0; i < 2; ++i) {
        auto wall = walls[i];
        wall.sides[0].air = wall.sides[1].air = both.air;
        WallRules rules;
        rules.end = both.air.end();
        const auto h = warm(wall, rules, quiet);
        CHECK(both.histories[i].peak == Approx(h.peak).margin(0.1));
        CHECK(both.histories[i].places[1].T.back() == Approx(h.places[1].T.back()).margin(0.1));
    }
    const auto twice = together({walls[1], walls[1]});
    const auto once = run_programme(walls[1], up_and_hold(), kBoth, {0}, kPatience, quiet);
    CHECK(twice.air == once.air);
    CHECK(twice.histories[1] == once.history);
}

TEST_CASE("what never comes near is given up after the patience, and said") {
    auto cold = plate(0.01);
    cold.sides[0] = {std::nullopt, steady(kWorkshop)};
    const auto of =
        run_programme({{plate(0.004), {0}}, {cold, {0}}}, up_and_hold(), {false, true}, 7200, quiet);
    CHECK_FALSE(of.waited);
    REQUIRE(of.slowest);
    // Both have a side in the room's air: the held one is the colder.
    CHECK(of.air.end() == Approx((kTo - kWorkshop) / kRate + 7200 + kHold));
    // Without patience nobody waits.
    const auto none = together({plate(0.04)}, 0);
    CHECK(none.air.end() == Approx((kTo - kWorkshop) / kRate + kHold));
    CHECK_FALSE(none.slowest);
}

TEST_CASE("a wall in an oven's end does what it does alone in air that is off by that share") {
    const double off = -0.07;
    std::vector<InOven> in{{plate(0.012), {0}, 0}, {plate(0.012), {0}, off}};
    const auto both = run_programme(in, up_and_hold(), kBoth, kPatience, quiet);
    // Its hold counts by the programme's air: 7 % of 60 K are past its band, so it never comes near.
    CHECK_FALSE(both.waited);
    auto alone = plate(0.012);
    auto air = both.air;
    for (auto& corner : air.corners) corner.T = kWorkshop + (1 + off) * (corner.T - kWorkshop);
    for (auto& side : alone.sides) side.air = air;
    WallRules rules;
    rules.end = both.air.end();
    const auto h = warm(alone, rules, quiet);
    CHECK(both.histories[1].peak == Approx(h.peak).margin(0.1));
    CHECK(both.histories[1].peak == Approx(kWorkshop + (1 + off) * (kTo - kWorkshop)).margin(0.1));
    CHECK(both.histories[0].peak == Approx(kTo).margin(0.1));
    // Within its band it does come, and the hold waits for it.
    in[1].off = -0.03;
    const auto near = run_programme(in, up_and_hold(), kBoth, kPatience, quiet);
    CHECK(near.waited);
    REQUIRE(near.slowest);
    CHECK(*near.slowest == 1);
}
