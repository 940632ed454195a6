// What an oven's heater has to give, against what walls, air and masses take in closed form.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/science/heat/cured.hpp"
#include "core/science/heat/oven.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

constexpr double kRoom = 293.15, kHot = 373.15;
/// Of dry air: its density times its temperature, from 101325 Pa and 287.05 J/(kg·K), and what a kelvin
/// takes.
constexpr double kAirMass = 101325 / 287.05, kAirHeat = 1006;

/// 2 × 1.2 × 1 m.
OvenBox cabinet() {
    OvenBox out;
    out.area = 2 * (2 * 1.2 + 1.2 * 1 + 2 * 1);
    out.volume = 2.4;
    out.walls = 0.7;
    out.lining = 11000;
    out.changes = 3.0 / 3600;
    out.stands = 40 * 1200;
    return out;
}

Course ramp(double from, double to, double seconds) {
    return {{{0, from}, {seconds, to}}};
}

void check_balance(const OvenHeat& h) {
    const double all = h.walls + h.air + h.stands + h.taken;
    CHECK(h.heater - h.vented == Approx(all).margin(1e-9 * (h.heater + h.vented + 1)));
}

}  // namespace

TEST_CASE("held at one heat, an oven takes what its walls and its air lose") {
    const auto box = cabinet();
    const double hours = 6 * 3600;
    const auto h = oven_heat(box, {{{0, kHot}, {hours, kHot}}}, kRoom, {});
    const double walls = box.walls * box.area * (kHot - kRoom),
                 air = box.changes * box.volume * kAirMass / kHot * kAirHeat * (kHot - kRoom);
    CHECK(h.walls == Approx(walls * hours));
    CHECK(h.air == Approx(air * hours));
    CHECK(h.heater == Approx((walls + air) * hours));
    CHECK(h.most == Approx(walls + air));
    CHECK(oven_loss(box, kHot, kRoom) == Approx(walls + air));
    CHECK(h.stands == 0);
    CHECK(h.vented == 0);
    check_balance(h);
}

TEST_CASE("on a ramp it takes the masses' warming besides, as the closed form says") {
    const auto box = cabinet();
    const double seconds = 4 * 3600, by = kHot - kRoom;
    const auto h = oven_heat(box, ramp(kRoom, kHot, seconds), kRoom, {});
    // ∫(T − T0)/T dt over a straight way is t·[1 − T0/ΔT·ln(T1/T0)].
    const double share = seconds * (1 - kRoom / by * std::log(kHot / kRoom));
    CHECK(h.walls == Approx(box.walls * box.area * by / 2 * seconds));
    CHECK(h.air == Approx(box.changes * box.volume * kAirMass * kAirHeat * share).epsilon(1e-3));
    const double own = box.volume * kAirMass * kAirHeat * std::log(kHot / kRoom);
    CHECK(h.stands == Approx((box.lining * box.area + box.stands) * by + own));
    CHECK(h.warmed == Approx(h.stands));
    // Most at its end: losses are greatest there.
    CHECK(h.most_at == Approx(seconds));
    const double last =
        (box.lining * box.area + box.stands + box.volume * kAirMass * kAirHeat / kHot) * by / seconds;
    CHECK(h.most == Approx(oven_loss(box, kHot, kRoom) + last).epsilon(1e-3));
    check_balance(h);
}

TEST_CASE("what is taken up comes back: slowly it makes up for losses, quickly it is let go") {
    const auto box = cabinet();
    const auto up_and_down = [&](double down) {
        return oven_heat(box, {{{0, kRoom}, {3600, kHot}, {7200, kHot}, {7200 + down, kRoom}}}, kRoom, {});
    };
    const auto quick = up_and_down(600), slow = up_and_down(100 * 3600);
    for (const auto& h : {quick, slow}) {
        CHECK(h.stands == Approx(0).margin(1e-6 * h.warmed));
        check_balance(h);
    }
    // In ten minutes next to nothing is lost, so nearly all has to be let out.
    CHECK(quick.vented > 0.9 * quick.warmed);
    CHECK(quick.vented < quick.warmed);
    // So slowly that its heater never rests: it has nothing to let go of until the very end, where nothing is
    // lost any more. There the masses fall by ΔT/t, and lose U·A·(T − T0): below 2·C/(U·A·t) of the way.
    CHECK(slow.vented < 0.05 * slow.warmed);
    CHECK(slow.heater > quick.heater);
}

TEST_CASE("a wall in it takes what it holds, and gives it back") {
    const WallSide air{15, steady(kRoom)};
    Wall plate{{{"plate", 0.02, 0.3, 1800, 1200, {}, 0, 0}}, {air, air}, kRoom};
    Segment hold;
    hold.hold = true;
    hold.seconds = 12 * 3600;
    const std::vector<Segment> up{{false, kHot, 0.01, 0, {}}, hold};
    const auto run = run_programme(plate, up, {true, true}, {}, 0, quiet);
    HeatTaken taken{3, run.history.times, {}};
    for (std::size_t t = 0; t < run.history.times.size(); ++t) {
        const double at = run.air.at(run.history.times[t]);
        taken.flux.push_back(15 *
                             (2 * at - run.history.places.front().T[t] - run.history.places.back().T[t]));
    }
    OvenBox nothing;
    const auto h = oven_heat(nothing, run.air, kRoom, {taken});
    // All through as warm as the air by then: 3 m² of 20 mm at 1800 kg/m³ and 1200 J/(kg·K).
    CHECK(h.taken == Approx(3 * 0.02 * 1800 * 1200 * (kHot - kRoom)).epsilon(5e-3));
    CHECK(h.heater == Approx(h.taken).epsilon(1e-6));
    CHECK(h.taken == Approx(3 * (run.history.in - run.history.lost)).epsilon(5e-3));
    // Two of them take twice as much, whether as one of twice the face or as two.
    taken.area = 6;
    const auto twice = oven_heat(nothing, run.air, kRoom, {taken});
    taken.area = 3;
    const auto both = oven_heat(nothing, run.air, kRoom, {taken, taken});
    CHECK(twice.heater == Approx(2 * h.heater));
    CHECK(both.heater == Approx(twice.heater));
}

TEST_CASE("programmes of any shape balance; thicker walls and fewer changes never take more") {
    std::mt19937 random(7);
    const auto pick = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    for (int i = 0; i < 60; ++i) {
        Course air;
        double time = 0;
        const int corners = 1 + i % 7;
        for (int c = 0; c < corners; ++c) {
            air.corners.push_back({time, pick(275, 460)});
            time += pick(10, 40000);
        }
        auto box = cabinet();
        box.walls = pick(0.1, 8);
        box.changes = pick(0, 10) / 3600;
        HeatTaken taken{pick(0, 10), {}, {}};
        for (double t = pick(0, 3000); t < time; t += pick(50, 5000)) {
            taken.times.push_back(t);
            taken.flux.push_back(pick(-300, 500));
        }
        const auto h = oven_heat(box, air, kRoom, {taken});
        check_balance(h);
        CHECK(h.heater >= 0);
        CHECK(h.vented >= 0);
        // Where it is never cooler than the room.
        if (std::any_of(air.corners.begin(), air.corners.end(), [](const auto& c) { return c.T < kRoom; }))
            continue;
        auto better = box;
        better.walls *= 0.7;
        better.changes *= 0.5;
        CHECK(oven_heat(better, air, kRoom, {taken}).heater <= h.heater * (1 + 1e-9));
        CHECK(oven_heat(better, air, kRoom, {taken}).most <= h.most * (1 + 1e-9));
    }
}

TEST_CASE("no programme and no time take nothing") {
    for (const auto& air : {Course{}, steady(kHot)}) {
        const auto h = oven_heat(cabinet(), air, kRoom, {});
        CHECK(h.heater == 0);
        CHECK(h.vented == 0);
        CHECK(h.most == 0);
    }
    CHECK(oven_loss(cabinet(), kRoom, kRoom) == Approx(0).margin(1e-12));
}
