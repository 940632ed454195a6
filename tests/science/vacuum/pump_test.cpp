#include <catch2/catch.hpp>

#include "core/science/vacuum/pump.hpp"

using namespace jig;

TEST_CASE("the room's pressure is the standard atmosphere's") {
    // ISO 2533, Pa.
    CHECK(room_pressure(0) == Approx(101325));
    CHECK(room_pressure(1500) == Approx(84556).epsilon(2e-4));
    CHECK(room_pressure(3000) == Approx(70108).epsilon(2e-4));
    CHECK(room_pressure(-300) > room_pressure(0));
}

TEST_CASE("a pump-down in closed form is what small steps of the balance come to") {
    for (const PumpDown& p :
         {PumpDown{0.02, 16.0 / 3600, 300, 0.5, 101325}, PumpDown{0.5, 40.0 / 3600, 50, 0, 84556},
          PumpDown{0.004, 2.0 / 3600, 1000, 2, 70108}}) {
        // Heun's rule, steps of a thousandth of the time constant.
        const double step = p.volume / p.speed / 1000;
        double t = 0, pressure = p.start;
        const auto slope = [&](double at) { return (p.leak - p.speed * (at - p.ultimate)) / p.volume; };
        const double goal = *p.end() + 0.02 * (p.start - *p.end());
        while (pressure > goal) {
            const double first = slope(pressure), second = slope(pressure + step * first);
            pressure += step * (first + second) / 2;
            t += step;
        }
        CHECK(*p.time_to(goal) == Approx(t).margin(2 * step));
        CHECK(p.at(t) == Approx(pressure).epsilon(1e-4));
        CHECK(p.at(0) == Approx(p.start));
        CHECK(p.at(1e9) == Approx(*p.end()));
    }
}

TEST_CASE("what a pump cannot reach is never reached, and what is already there takes no time") {
    const PumpDown p{0.02, 0.004, 300, 0.8, 101325};
    CHECK(*p.end() == Approx(500));
    CHECK_FALSE(p.time_to(500));
    CHECK_FALSE(p.time_to(100));
    CHECK(*p.time_to(101325) == 0);
    CHECK(*p.time_to(2e5) == 0);
    // Without a pump it fills by its leak alone.
    const PumpDown shut{0.02, 0, 300, 0.8, 1000};
    CHECK_FALSE(shut.end());
    CHECK(shut.at(60) == Approx(1000 + 0.8 * 60 / 0.02));
    CHECK_FALSE(shut.time_to(900));
}

TEST_CASE("a drop test gives the leak that fills the bag as it was seen") {
    const double Q = leak_of_drop(0.03, 2000, 2600, 600);
    CHECK(Q == Approx(0.03));
    CHECK(PumpDown{0.03, 0, 0, Q, 2000}.at(600) == Approx(2600));
}

TEST_CASE("a pump that switches by itself tells its leak by its pauses") {
    const PumpDown p{0.05, 0.005, 200, 1.5, 101325};
    const auto c = cycle_of(p, 3000, 6000);
    REQUIRE(c);
    // Off: the shut volume fills. On: pumped from high to low against the leak.
    CHECK(c->off == Approx(0.05 * 3000 / 1.5));
    CHECK(PumpDown{0.05, 0.005, 200, 1.5, 6000}.at(c->on) == Approx(3000));
    CHECK(leak_of_drop(0.05, 3000, 6000, c->off) == Approx(1.5));
    CHECK(c->duty() == Approx(c->on / (c->on + c->off)));
    CHECK_FALSE(cycle_of(p, 400, 6000));
    CHECK_FALSE(cycle_of({0.05, 0.005, 200, 0, 101325}, 3000, 6000));
}

TEST_CASE("liquids boil at the pressures that tables give") {
    // CRC Handbook: styrene 0.66 kPa and acetone 24.7 kPa at 20 °C, water 2.339 kPa at 20 °C and 7.38 at 40
    // °C, ethanol 5.95 kPa at 20 °C.
    CHECK(boils_at(Liquid::styrene, 293.15) == Approx(660).epsilon(0.05));
    CHECK(boils_at(Liquid::acetone, 293.15) == Approx(24700).epsilon(0.02));
    CHECK(boils_at(Liquid::water, 293.15) == Approx(2339).epsilon(0.01));
    CHECK(boils_at(Liquid::water, 313.15) == Approx(7380).epsilon(0.02));
    CHECK(boils_at(Liquid::ethanol, 293.15) == Approx(5950).epsilon(0.03));
}

TEST_CASE("a hose holds its bore's circle times its length") {
    CHECK(hose_volume(2, 0.01) == Approx(2 * 3.14159265 * 0.000025));
}
