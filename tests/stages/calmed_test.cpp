// What runs too hot is offered a programme that keeps it cool enough, and none where there is none.
#include <catch2/catch.hpp>

#include <map>

#include "core/job/job.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/heat/calmed.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/stages/cure_runs.hpp"

using namespace jig;
using fixtures::call;
using fixtures::cure_of;
using fixtures::worked_out;

namespace {

/// A part of so many plies of 600 g cloth, put into a hot oven at once.
Job hot_part(int plies) {
    auto job = fixtures::small_job();
    auto ply = job.part.layers.front();
    for (const auto& l : job.part.layers) {
        if (l.kind == LayerKind::ply) ply = l;
    }
    ply.material = "glass cloth 600 twill";
    job.part.layers.assign(static_cast<std::size_t>(plies), ply);
    job.heat.part = {{kelvin(60), 0.02, 8 * 3600}};
    return job;
}

/// The cure by legs whose first hold is `by` K warmer.
heat::CureRun warmer(const heat::CureRun& run, double by, double within) {
    auto legs = run.legs;
    legs.front().to += by;
    return heat::through(run, legs, within, quiet);
}

}  // namespace

TEST_CASE("where a first hold calms it, that is offered, as warm as may be") {
    std::map<int, double> first;
    for (const int plies : {20, 26, 32}) {
        INFO(plies);
        const auto job = hot_part(plies);
        const auto f = worked_out(job);
        const auto* said = call(f, "runs_hot");
        REQUIRE(said != nullptr);
        CHECK(cure_of(f, CureOf::part).overshoot > job.heat.runs_past);
        REQUIRE(said->fix);
        const auto mended = patched(job, said->fix->patch);
        const auto& legs = mended.heat.part;
        // Its own legs follow as they were.
        REQUIRE(legs.size() == 2);
        CHECK(legs[1] == job.heat.part[0]);
        CHECK(legs[0].to < legs[1].to);
        CHECK(legs[0].to > job.heat.room);
        CHECK(std::abs(std::remainder(legs[0].to - 273.15, 1)) < 1e-9);
        const auto g = worked_out(mended);
        CHECK(call(g, "runs_hot") == nullptr);
        CHECK(call(g, "not_gelled") == nullptr);
        const auto& run = cure_of(g, CureOf::part);
        CHECK(run.overshoot <= job.heat.runs_past);
        // It has gelled before it goes on.
        for (const auto& gel : run.cured.history.gels) {
            REQUIRE(gel.all);
            CHECK(*gel.all <= (legs[0].to - job.heat.room) / legs[0].rate + legs[0].hold);
        }
        // Two kelvin more and it does not do: gelled so soon it is too hot.
        auto two = warmer(run, 2, job.heat.within);
        CHECK(two.overshoot > job.heat.runs_past);
        first[plies] = legs[0].to;
    }
    // Thicker is held cooler.
    CHECK(first[20] > first[26]);
    CHECK(first[26] > first[32]);
}

TEST_CASE("what runs hot in the room already is offered no programme") {
    auto job = hot_part(60);
    job.heat.room = kelvin(30);
    job.heat.part = {{kelvin(32), 0.02, 24 * 3600}};
    const auto f = worked_out(job);
    const auto* said = call(f, "runs_hot");
    REQUIRE(said != nullptr);
    CHECK_FALSE(said->fix);
    CHECK(said->why.find("no cooler hold") != std::string::npos);
}

TEST_CASE("legs that are none, or no warmer than the room, leave nothing to hold cooler") {
    const auto job = hot_part(8);
    const auto run = cure_of(worked_out(job), CureOf::part);
    const auto any = [](const heat::CureRun&) { return true; };
    // Where all is good the warmest is one kelvin below the leg.
    const auto first = heat::gelled_first(run, job.heat.within, any, quiet);
    REQUIRE(first);
    CHECK(first->front().to == Approx(kelvin(59)));
    const auto cooler = heat::held_cooler(run, job.heat.within, any, quiet);
    REQUIRE(cooler);
    CHECK(cooler->front().to == Approx(kelvin(59)));
    for (const auto& legs : {std::vector<heat::Leg>{},
                             {{job.heat.room, 0.01, 3600}},
                             {{job.heat.room - 8, 0.01, 3600}},
                             {{job.heat.room + 0.5, 0.01, 3600}}}) {
        auto other = run;
        other.legs = legs;
        CHECK_FALSE(heat::gelled_first(other, job.heat.within, any, quiet));
        CHECK_FALSE(heat::held_cooler(other, job.heat.within, any, quiet));
    }
    // And where nothing is, none.
    const auto never = [](const heat::CureRun&) { return false; };
    CHECK_FALSE(heat::gelled_first(run, job.heat.within, never, quiet));
    CHECK_FALSE(heat::held_cooler(run, job.heat.within, never, quiet));
}

TEST_CASE("a plug that its shell's cure softens is offered the hottest cure that it bears") {
    auto job = fixtures::small_job();
    job.heat.on_plug = {{kelvin(95), 0.01, 2 * 3600}, {kelvin(30), 0.01, 3600}};
    const auto f = worked_out(job);
    const auto* said = call(f, "plug_cooked");
    REQUIRE(said != nullptr);
    REQUIRE(said->fix);
    const auto mended = patched(job, said->fix->patch);
    const auto g = worked_out(mended);
    CHECK(call(g, "plug_cooked") == nullptr);
    CHECK(call(g, "not_gelled") == nullptr);
    const auto& legs = mended.heat.on_plug;
    REQUIRE(legs.size() == 2);
    // What was cool enough stays as it was.
    CHECK(legs[1].to == job.heat.on_plug[1].to);
    const double bears = g.plug->board.top_temperature;
    CHECK(legs[0].to <= bears);
    auto two = warmer(cure_of(g, CureOf::on_plug), 2, job.heat.within);
    double hot = 0;
    two.each([&](const std::string&, const Wall&, const WallHistory& h) {
        hot = std::max(hot, h.hottest.front().T);
    });
    CHECK((hot > bears || two.overshoot > job.heat.runs_past));
}
