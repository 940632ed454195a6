// What cures ask of the oven: its ends, its heater, its room and the energy that they take.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/job/trial.hpp"
#include "core/stages/heat/fastest.hpp"
#include "core/stages/heat/sensors.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/stages/cure_runs.hpp"

using namespace jig;
using fixtures::bought;
using fixtures::call;
using fixtures::cure_of;
using fixtures::shop;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

/// A shell that is post-cured at 80 °C and a part that cures at 60 °C, both by legs of their own.
Job oven_job() {
    auto job = small_job();
    job.back.kind = BackKind::none;  // whose joint would be one more place
    job.heat.post_cure = {{kelvin(80), 10.0 / 3600, 4 * 3600}};
    job.heat.part = {{kelvin(60), 15.0 / 3600, 6 * 3600}};
    job.brief.top_temperature = kelvin(62);
    return job;
}

/// 6 K under by the door, 3 K over at the back, read at 80 °C.
heat::Oven mapped() {
    heat::Oven out;
    out.mapped_at = kelvin(80);
    out.map = {{0.5, 0.5, 0.5, 0}, {0.1, 0.9, 0.1, -6}, {0.9, 0.1, 0.9, 3}, {0.9, 0.9, 0.1, -2}};
    return out;
}

const heat::CureHeat& use_of(const Findings& f, CureOf of) {
    REQUIRE(f.heat);
    const auto* use = f.heat->oven.find(of);
    REQUIRE(use != nullptr);
    return *use;
}

}  // namespace

TEST_CASE("a map's ends are shares of the warmth that it was read at") {
    const auto ends = heat::ends_of(mapped(), kelvin(20));
    CHECK(ends.cool == Approx(-6.0 / 60));
    CHECK(ends.warm == Approx(3.0 / 60));
    auto one_sided = mapped();
    one_sided.map = {{0, 0, 0, -4}, {1, 1, 1, -1}};
    CHECK(heat::ends_of(one_sided, kelvin(20)).warm == 0);
    CHECK(heat::warmest(one_sided) == nullptr);
    CHECK(heat::coolest(one_sided)->off == -4);
    CHECK(heat::ends_of({}, kelvin(20)).cool == 0);
    auto cold = mapped();
    cold.mapped_at = kelvin(25);
    CHECK_THROWS_AS(heat::ends_of(cold, kelvin(20)), InputError);
    CHECK(heat::said_of(mapped().map[1]) == "low, at the door, right");
    CHECK(heat::said_of(mapped().map[2]) == "high, at the back, left");
    CHECK(heat::said_of(mapped().map[0]) == "half high, half way in, middle");
    // In a job it is a stop with a mend, and nothing else falls.
    auto job = oven_job();
    job.heat.oven = cold;
    const auto f = worked_out(job);
    CHECK_FALSE(f.heat);
    CHECK(f.part);
    CHECK(f.back);
}

TEST_CASE("boxes go into an oven in rows, turned as takes most") {
    // 1.0 + 0.05 goes once into 1.25 + 0.05, twice into 2.1 + 0.05.
    CHECK(heat::boxes_in({1, 1, 0.4}, {2.1, 1.25, 0.5}) == 2);
    CHECK(heat::boxes_in({1, 1, 0.4}, {2.1, 1.25, 0.9}) == 4);
    CHECK(heat::boxes_in({0.4, 1, 1}, {2.1, 1.25, 0.9}) == 4);
    CHECK(heat::boxes_in({2, 1.2, 1}, {2, 1.2, 1}) == 1);
    CHECK(heat::boxes_in({1.2, 1, 2}, {2, 1.2, 1}) == 1);
    CHECK(heat::boxes_in({2.01, 1.2, 1}, {2, 1.2, 1}) == 0);
    CHECK(heat::boxes_in({0.95, 0.95, 0.95}, {2, 1.2, 1}) == 2);
    CHECK(heat::boxes_in({0, 1, 1}, {2, 1.2, 1}) == 0);
}

TEST_CASE("every cure is worked out at both ends, and what is said of it holds for the worse") {
    const auto even = worked_out(oven_job());
    auto job = oven_job();
    job.heat.oven = mapped();
    // 10 % of 60 K are 6 K: the cool end comes just near enough.
    job.heat.within = 6.2;
    auto even_job = oven_job();
    even_job.heat.within = 6.2;
    const auto flat = worked_out(even_job), f = worked_out(job);
    for (const auto of : {CureOf::post_cure, CureOf::part}) {
        const auto& run = cure_of(f, of);
        const auto& same = cure_of(flat, of);
        REQUIRE(run.places.size() == 2 + 2 * same.places.size());
        CHECK(run.places[0].name == "cool end of the oven");
        CHECK(run.places[1].name == "warm end of the oven");
        const double room = job.heat.room, top = run.highest_air;
        CHECK(run.warmest_air == Approx(top + (top - room) * 3 / 60));
        CHECK(same.warmest_air == Approx(top));
        // Each end is a wall alone in a programme of its own heats.
        const auto& cool = run.places[0].history;
        CHECK(cool.places.front().T.back() < run.cured.history.places.front().T.back() + 0.5);
        CHECK(run.places[1].history.peak > cool.peak);
        // The cool end is what a hold waits for, and is cured least.
        CHECK(run.seconds >= same.seconds);
        if (of == CureOf::post_cure) {
            CHECK(run.slowest == "cool end of the oven");
            CHECK(run.seconds > same.seconds + 5);
        }
        double least = 2;
        for (const auto& g : cool.gels) least = std::min(least, g.cure);
        CHECK(run.cure == Approx(least));
        CHECK(run.over_Tg >= same.over_Tg - 0.3);
    }
    // The one on the plug is in the room, whose ends are as warm as it is.
    const auto &on_plug = cure_of(f, CureOf::on_plug), &plain = cure_of(flat, CureOf::on_plug);
    CHECK(on_plug.seconds == Approx(plain.seconds));
    CHECK(on_plug.cure == Approx(plain.cure));
    CHECK(on_plug.hottest.find("end") == std::string::npos);
    CHECK(cure_of(even, CureOf::post_cure).places.empty());
    // Its sensors know where.
    const auto sensors = heat::sensors_of(cure_of(f, CureOf::part), job.heat);
    REQUIRE(sensors.size() >= 4);
    CHECK(sensors[0].where.rfind("cool end of the oven", 0) == 0);
    CHECK(sensors[0].end == -1);
    CHECK(sensors[1].end == 1);
    CHECK(sensors[2].where == "the air at the oven's cool end, low, at the door, right");
    CHECK(sensors[3].where == "the air at the oven's warm end, high, at the back, left");
    CHECK(sensors[3].alarm == Approx(cure_of(f, CureOf::part).warmest_air + job.heat.within));
    CHECK((sensors[2].in_air && sensors[3].in_air && !sensors[0].in_air));
}

TEST_CASE("a wider map is never over sooner, and never cures more") {
    double seconds = 0, cure = 2;
    for (const double wide : {0.0, 0.3, 0.7, 1.0, 1.3}) {
        auto job = oven_job();
        job.heat.oven = mapped();
        job.heat.within = 9;
        for (auto& spot : job.heat.oven.map) spot.off *= wide;
        const auto f = worked_out(job);
        const auto& run = cure_of(f, CureOf::post_cure);
        CHECK(run.seconds >= seconds - 1);
        CHECK(run.cure <= cure + 1e-3);
        seconds = run.seconds;
        cure = run.cure;
    }
}

TEST_CASE("a cool end outside the band is said with a band that takes it in") {
    auto job = oven_job();
    job.heat.oven = mapped();
    job.heat.within = 4;
    const auto f = worked_out(job);
    const auto* never = call(f, "never_near");
    REQUIRE(never);
    CHECK(never->why.find("low, at the door, right") != std::string::npos);
    REQUIRE(never->fix);
    // 10 % of 60 K is 6 K.
    CHECK(patched(job, never->fix->patch).heat.within == Approx(8));
    CHECK_FALSE(call(worked_out(patched(job, never->fix->patch)), "never_near"));
}

TEST_CASE("the warm end is what cores, back and Brief's heat are held against") {
    auto job = oven_job();
    job.back.kind = BackKind::egg_crate;
    job.brief.top_temperature = kelvin(42);
    job.heat.part[0].to = kelvin(40);
    const auto bears = std::min(need(shop().boards, job.back.board, "test").top_temperature,
                                need(shop().bonds, job.back.joint.strip, "test").top_temperature);
    // A hair under what ribs and strip bear, and over it at an end that is 5 % warmer.
    job.heat.post_cure[0].to = bears - 1;
    job.heat.within = 12;
    const auto cool = worked_out(job);
    INFO((call(cool, "back_hot") ? worded(call(cool, "back_hot")->headline) : ""));
    CHECK_FALSE(call(cool, "back_hot"));
    job.heat.oven = mapped();
    CHECK(call(worked_out(job), "back_hot"));
    // A programme that is typed hotter than Brief says the tool will see is said, whatever the resin asks
    // for.
    auto typed = oven_job();
    CHECK_FALSE(call(worked_out(typed), "brief_heat"));
    typed.heat.part[0].to = kelvin(75);
    const auto hot = worked_out(typed);
    const auto* said = call(hot, "brief_heat");
    REQUIRE(said);
    REQUIRE(said->fix);
    CHECK(patched(typed, said->fix->patch).brief.top_temperature == Approx(kelvin(75)));
    CHECK_FALSE(call(worked_out(patched(typed, said->fix->patch)), "brief_heat"));
}

TEST_CASE("the energy of a post-cure is that of a sum by small steps") {
    auto job = oven_job();
    job.back.kind = BackKind::none;
    const auto f = worked_out(job);
    const auto& run = cure_of(f, CureOf::post_cure);
    const auto& use = use_of(f, CureOf::post_cure);
    const auto& built = need(shop().ovens, job.heat.oven.build, "test");
    const double x = job.brief.oven_x, y = job.brief.oven_y, z = job.brief.oven_z, room = job.heat.room;
    const double area = 2 * (x * y + y * z + z * x);
    // Second by second: walls, air by the ideal gas, lining, and the shell by what its own wall holds.
    const auto& h = run.cured.history;
    const auto held = [&](std::size_t t) {
        double sum = 0;
        for (std::size_t l = 0; l < run.wall.layers.size(); ++l) {
            const auto& layer = run.wall.layers[l];
            // First face, middle and last face: Simpson's rule.
            const double mean =
                (h.places[3 * l].T[t] + 4 * h.places[3 * l + 1].T[t] + h.places[3 * l + 2].T[t]) / 6;
            sum += layer.thickness * layer.density * layer.capacity * mean;
        }
        return sum;
    };
    double heater = 0;
    for (std::size_t t = 0; t + 1 < h.times.size(); ++t) {
        const double step = h.times[t + 1] - h.times[t], Ta = run.cured.air.at(h.times[t]),
                     Tb = run.cured.air.at(h.times[t + 1]), T = (Ta + Tb) / 2;
        const double flux = (held(t + 1) - held(t)) / step;
        const double gives = built.walls * area * (T - room) +
                             built.changes * x * y * z * 101325 / (287.05 * T) * 1006 * (T - room) +
                             built.lining * area * (Tb - Ta) / step + f.shell->area * flux;
        heater += step * std::max(0.0, gives);
    }
    // The resin's own heat is not in the sum, nor is the oven's own air.
    CHECK(use.heat.heater == Approx(heater).epsilon(0.03));
    CHECK(use.heat.heater - use.heat.vented ==
          Approx(use.heat.walls + use.heat.air + use.heat.stands + use.heat.taken));
}

TEST_CASE("energy and hours are bought as they are used, and shared by what shares the load") {
    auto job = oven_job();
    job.brief.oven_x = 2.4;
    job.brief.oven_z = 0.6;
    const auto one = worked_out(job);
    CHECK(bought(one, Ledger::once, "energy") == Approx(use_of(one, CureOf::post_cure).heat.heater));
    CHECK(bought(one, Ledger::each, "energy") == Approx(use_of(one, CureOf::part).heat.heater));
    const double goes_in = one.heat->oven.goes_in;
    REQUIRE(goes_in >= 2);
    REQUIRE(goes_in < 100);
    job.heat.oven.tools = 2;
    const auto two = worked_out(job);
    CHECK_FALSE(call(two, "oven_full"));
    CHECK(bought(two, Ledger::each, "oven, hours") == Approx(bought(one, Ledger::each, "oven, hours") / 2));
    const auto &alone = use_of(one, CureOf::part).heat, &shared = use_of(two, CureOf::part).heat;
    // The walls lose as much; the load takes twice as much.
    CHECK(shared.walls == Approx(alone.walls));
    CHECK(shared.heater > alone.heater);
    CHECK(shared.heater < 2 * alone.heater);
    CHECK(bought(two, Ledger::each, "energy") == Approx(shared.heater / 2));
    // More than go in are said, with as many as do.
    job.heat.oven.tools = static_cast<int>(goes_in) + 1;
    const auto full = worked_out(job);
    REQUIRE(call(full, "oven_full"));
    const auto mended = patched(job, call(full, "oven_full")->fix->patch);
    CHECK(mended.heat.oven.tools == static_cast<int>(goes_in));
    CHECK_FALSE(call(worked_out(mended), "oven_full"));
    // What else stands in it takes its share of heat.
    job.heat.oven.tools = 1;
    job.heat.oven.others = 200;
    CHECK(use_of(worked_out(job), CureOf::part).heat.most > alone.most + 200 * 1200 * 14.0 / 3600);
    // An oven that loses less takes less; one that the library lacks is a stop.
    job.heat.oven.others = 0;
    job.heat.oven.build = "bare steel box";
    CHECK(use_of(worked_out(job), CureOf::part).heat.heater > 2 * alone.heater);
    job.heat.oven.build = "kiln";
    const auto lacks = worked_out(job);
    REQUIRE(call(lacks, "input"));
    CHECK(call(lacks, "input")->stage == Stage::heat);
    CHECK(lacks.heat->oven.cures.empty());
    CHECK_FALSE(lacks.run);
    // In the room nothing is heated.
    auto cold = oven_job();
    cold.heat.part = {{cold.heat.room, 10.0 / 3600, 24 * 3600}};
    cold.heat.post_cure = cold.heat.part;
    const auto unheated = worked_out(cold);
    CHECK(unheated.heat->oven.cures.empty());
    CHECK(bought(unheated, Ledger::each, "energy") == 0);
}

TEST_CASE("a heater that falls behind is said, with what it keeps up with") {
    auto job = oven_job();
    job.heat.post_cure[0].rate = 60.0 / 3600;
    const double most = use_of(worked_out(job), CureOf::post_cure).heat.most;
    CHECK_FALSE(call(worked_out(job), "oven_weak"));
    for (const double share : {0.9, 0.6, 0.4}) {
        job.heat.oven.power = share * most;
        const auto f = worked_out(job);
        const auto* weak = call(f, "oven_weak");
        INFO(share);
        REQUIRE(weak);
        REQUIRE(weak->fix);
        const auto mended = patched(job, weak->fix->patch);
        CHECK(mended.heat.post_cure[0].rate < job.heat.post_cure[0].rate);
        const auto after = worked_out(mended);
        CHECK_FALSE(call(after, "oven_weak"));
        CHECK(use_of(after, CureOf::post_cure).heat.most <= job.heat.oven.power * 1.005);
    }
    job.heat.oven.power = 1.05 * most;
    CHECK_FALSE(call(worked_out(job), "oven_weak"));
    // One that cannot even hold it is a stop; what it holds is where its losses are what it gives.
    job.heat.oven.power = 300;
    const auto f = worked_out(job);
    const auto* never = call(f, "oven_cold");
    REQUIRE(never);
    CHECK(never->severity == Severity::stop);
    REQUIRE(f.heat->oven.holds);
    const auto& built = f.heat->oven.build;
    const double T = *f.heat->oven.holds, x = job.brief.oven_x, y = job.brief.oven_y, z = job.brief.oven_z;
    CHECK((built.walls * 2 * (x * y + y * z + z * x) +
           built.changes * x * y * z * 101325 / (287.05 * T) * 1006) *
              (T - job.heat.room) ==
          Approx(300).epsilon(1e-6));
    CHECK(T < kelvin(80));
}

TEST_CASE("the soonest programme suits both ends and the heater") {
    auto job = oven_job();
    job.heat.oven = mapped();
    job.heat.within = 8;
    const auto f = worked_out(job);
    const auto found = fastest_programme(job, f, shop(), CureOf::part, quiet);
    REQUIRE(found.run);
    // Brief's heat holds at the warm end too.
    CHECK(found.run->warmest_air <= job.brief.top_temperature + 0.1);
    CHECK(found.run->cure >= cure_of(f, CureOf::part).cure - 0.01);
    REQUIRE(found.run->places.size() == cure_of(f, CureOf::part).places.size());
    auto even = oven_job();
    even.heat.within = 8;
    auto flat = worked_out(even);
    const auto sooner = fastest_programme(even, flat, shop(), CureOf::part, quiet);
    REQUIRE(sooner.run);
    // Not slower than with ends, for as much cure.
    if (cure_of(flat, CureOf::part).cure <= cure_of(f, CureOf::part).cure + 1e-3)
        CHECK(sooner.run->seconds <= found.run->seconds + 301);
    // Begun gently, with a heater that has a little more than that asks for: what is found asks for no more
    // than it gives.
    even.heat.part[0].rate = 5.0 / 3600;
    even.heat.climbs = 60.0 / 3600;
    for (const double more : {1.1, 1.6}) {
        even.heat.oven.power = 0;
        even.heat.oven.power = more * use_of(worked_out(even), CureOf::part).heat.most;
        flat = worked_out(even);
        REQUIRE_FALSE(use_of(flat, CureOf::part).climbs);
        const auto slow = fastest_programme(even, flat, shop(), CureOf::part, quiet);
        INFO(more);
        REQUIRE(slow.run);
        auto taken = even;
        taken.heat.part = slow.run->legs;
        const auto after = worked_out(taken);
        CHECK(use_of(after, CureOf::part).heat.most <= even.heat.oven.power * 1.005);
        CHECK_FALSE(use_of(after, CureOf::part).climbs);
    }
}

TEST_CASE("a tool too large for the oven that its cure needs is said, and a tent goes round it") {
    auto job = oven_job();
    // As warm as a warm room: Back has nothing to say of the oven, the post-cure has.
    job.brief.top_temperature = kelvin(40);
    job.heat.part = {{kelvin(24), 15.0 / 3600, 24 * 3600}};
    CHECK_FALSE(call(worked_out(job), "oven_small"));
    job.brief.oven_x = job.brief.oven_y = job.brief.oven_z = 0.2;
    job.heat.oven.power = 100;
    const auto f = worked_out(job);
    const auto* small = call(f, "oven_small");
    REQUIRE(small);
    REQUIRE(small->fix);
    const auto tent = patched(job, small->fix->patch);
    CHECK(tent.heat.oven.build == "tent of quilts with a heater");
    CHECK(tent.heat.oven.power == 0);
    const auto mended = worked_out(tent);
    CHECK_FALSE(call(mended, "oven_small"));
    CHECK(mended.heat->oven.goes_in >= 1);
    CHECK_FALSE(call(mended, "input"));
}
