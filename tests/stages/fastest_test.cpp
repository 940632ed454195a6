// The soonest programme: against all of a small grid, its bounds kept in full, and what must not make it
// slower.
#include <catch2/catch.hpp>

#include "core/job/trial.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/heat/fastest.hpp"
#include "core/stages/heat/legs.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using heat::CureBounds;
using heat::Leg;

namespace {

constexpr double kRoom = 293.15;

/// One that takes some heat to cure: nothing runs away in the room.
Kinetics resin() {
    Kinetics k;
    k.A2 = 2.5e5;
    k.E2 = 58000;
    k.A1 = 0.02 * k.A2;
    k.E1 = k.E2;
    k.m = 0.9;
    k.n = 1.6;
    k.gel = 0.55;
    k.heat = 350e3;
    k.glass = GlassCurve{250, 375, 0.4, 12};
    return k;
}

/// A laminate so thick, in air on both sides, with a programme of an hour at 60 °C.
heat::CureRun wall(double thickness, CureOf of = CureOf::part) {
    heat::CureRun run;
    run.of = of;
    WallLayer laminate{"laminate", thickness, 0.35, 1800, 1000, resin(), 600, 0};
    const WallSide air{15, steady(kRoom)};
    run.wall = {{laminate}, {air, air}, kRoom};
    return heat::through(run, {{333.15, 30.0 / 3600, 3600}}, 5, quiet);
}

CureBounds bounds(double cure, double air) {
    CureBounds b;
    b.cure = cure;
    b.air = air;
    b.air_by = "the oven";
    b.climbs = 30.0 / 3600;
    return b;
}

double hottest(const heat::CureRun& run) {
    double out = 0;
    for (const auto& leg : run.legs) out = std::max(out, leg.to);
    return out;
}

void check_kept(const heat::CureRun& run, const CureBounds& b) {
    CHECK(run.cure >= b.cure - 1e-3);
    if (b.Tg) CHECK(run.Tg.value_or(1e9) >= *b.Tg - 0.1);
    CHECK(hottest(run) <= b.air + 1e-9);
    CHECK(run.overshoot <= b.overshoot + 0.2);
    for (const auto& leg : run.legs) CHECK(leg.rate <= b.climbs * (1 + 1e-9));
    for (const auto& gel : run.cured.history.gels) CHECK(gel.all);
}

}  // namespace

TEST_CASE("no programme of one leg on a small grid is sooner") {
    const auto run = wall(0.004);
    const auto b = bounds(0.85, 358.15);
    const auto found = heat::fastest(run, b, 7 * 86400, quiet);
    REQUIRE(found.run);
    check_kept(*found.run, b);
    double best = 1e18;
    for (const double to : {318.15, 333.15, 343.15, 353.15, 358.15}) {
        for (double hold = 600; hold <= 30 * 3600; hold *= 1.15) {
            const auto tried = heat::through(run, {{to, b.climbs, hold}}, b.within, quiet);
            if (tried.cure < b.cure || tried.overshoot > b.overshoot || !tried.cured.history.gels[0].all)
                continue;
            best = std::min(best, tried.seconds);
            break;  // longer at this heat is only longer
        }
    }
    REQUIRE(best < 1e17);
    CHECK(found.run->seconds <= 1.02 * best + 300);
    CHECK(found.tried > 3);
}

TEST_CASE("a thick wall is held cooler first, and its own heat stays within bounds") {
    const auto run = wall(0.030);
    auto b = bounds(0.9, 363.15);
    b.overshoot = 200;
    const auto hot = heat::fastest(run, b, 7 * 86400, quiet);
    REQUIRE(hot.run);
    CHECK(hot.run->overshoot > 15);
    b.overshoot = 10;
    const auto tame = heat::fastest(run, b, 7 * 86400, quiet);
    REQUIRE(tame.run);
    check_kept(*tame.run, b);
    CHECK(tame.run->seconds > hot.run->seconds);
}

TEST_CASE("a hotter oven, a quicker one and less to reach are never slower") {
    const auto run = wall(0.005);
    const auto seconds = [&](const CureBounds& b) {
        const auto found = heat::fastest(run, b, 14 * 86400, quiet);
        REQUIRE(found.run);
        return found.run->seconds;
    };
    // Holds are rounded up to five minutes.
    const auto base = bounds(0.85, 343.15);
    const double as_is = seconds(base);
    CHECK(seconds(bounds(0.85, 353.15)) <= as_is + 300);
    CHECK(seconds(bounds(0.75, 343.15)) <= as_is + 300);
    auto quick = base;
    quick.climbs *= 2;
    CHECK(seconds(quick) <= as_is + 300);
}

TEST_CASE("what no programme can do is said, and not done by half") {
    const auto run = wall(0.004);
    auto b = bounds(0.9, 333.15);
    b.Tg = 600;
    const auto never = heat::fastest(run, b, 2 * 86400, quiet);
    CHECK_FALSE(never.run);
    CHECK_THAT(worded(never.stands), Catch::Contains("60") && Catch::Contains("the oven"));
    // Too much heat for any time: a bound below the room.
    auto cold = bounds(0.9, 333.15);
    cold.overshoot = -30;
    const auto hot = heat::fastest(run, cold, 86400, quiet);
    CHECK_FALSE(hot.run);
    CHECK_FALSE(hot.stands.empty());
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(heat::fastest(run, bounds(0.8, 343.15), 86400, stopped), Cancelled);
}

TEST_CASE("standing free it stays under its Tg all the way") {
    auto run = wall(0.006, CureOf::post_cure);
    // As it comes off its plug.
    run.wall.layers[0].cure = 0.8;
    run = heat::through(run, run.legs, 5, quiet);
    auto b = bounds(0.9, 363.15);
    b.under_glass = heat::kStandingMargin;
    const auto found = heat::fastest(run, b, 7 * 86400, quiet);
    REQUIRE(found.run);
    check_kept(*found.run, b);
    CHECK(found.run->over_Tg <= -heat::kStandingMargin + 0.2);
    b.under_glass.reset();
    const auto free = heat::fastest(run, b, 7 * 86400, quiet);
    REQUIRE(free.run);
    CHECK(free.run->seconds <= found.run->seconds + 300);
}

TEST_CASE("each cure of the demos gets a programme that raises no call of its own") {
    for (const auto* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        const auto job = fixtures::demo(name);
        const auto f = fixtures::worked_out(job);
        REQUIRE(f.heat);
        for (const auto& run : f.heat->cures->runs) {
            INFO(name << ": " << said(run.of));
            const auto found = fastest_programme(job, f, fixtures::shop(), run.of, quiet);
            if (!found.run) {
                CHECK_FALSE(found.stands.empty());
                continue;
            }
            auto next = job;
            heat::legs_in(next.heat, run.of) = found.run->legs;
            const auto g = fixtures::worked_out(next);
            const auto* now = g.heat->cures->find(run.of);
            REQUIRE(now != nullptr);
            // What the job works out of these legs is what was promised.
            CHECK(now->seconds == Approx(found.run->seconds));
            CHECK(now->cure == Approx(found.run->cure).margin(1e-6));
            for (const char* key : {"not_gelled", "runs_hot", "plug_cooked", "sags", "never_near", "core_hot",
                                    "back_hot", "part_core_hot"}) {
                INFO(key);
                CHECK((fixtures::call(g, key) == nullptr || fixtures::call(f, key) != nullptr));
            }
        }
    }
}

TEST_CASE("a back that cannot be worked out stands in no cure's way") {
    auto job = fixtures::demo("cello-case");
    job.back.board = "a board that no shop has";
    const auto f = fixtures::worked_out(job);
    REQUIRE_FALSE(f.back);
    REQUIRE(f.heat);
    CHECK(fastest_programme(job, f, fixtures::shop(), CureOf::part, quiet).run);
    // A cure that the job has not is said, and does not crash.
    CHECK_THROWS_AS(fastest_programme(job, Findings(), fixtures::shop(), CureOf::part, quiet), InputError);
}
