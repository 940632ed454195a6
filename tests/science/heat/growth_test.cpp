#include <catch2/catch.hpp>

#include "core/base/units.hpp"
#include "core/science/heat/growth.hpp"

using namespace jig;

TEST_CASE("nothing grows where all temperatures are those of the room") {
    GrowthChain c;
    c.plug_alpha = 70e-6;
    c.shell_alpha = 20e-6;
    c.part_alpha = 3e-6;
    const auto s = grow(c);
    CHECK(s.tool_room == Approx(0).margin(1e-15));
    CHECK(s.part_room == Approx(0).margin(1e-15));
}

TEST_CASE("the chain by hand") {
    GrowthChain c;
    c.plug_alpha = 50e-6;
    c.shell_gel = c.plug_warmth = c.room + 20;
    c.shell_alpha = 25e-6;
    c.shell_cure_shrinkage = 0.002;
    c.part_gel = c.room + 60;
    c.part_alpha = 5e-6;
    const auto s = grow(c);
    CHECK(s.plug_hot == Approx(1e-3));
    const double tool = 1.001 * 0.998 / (1 + 25e-6 * 20);
    CHECK(s.tool_room == Approx(tool - 1));
    const double hot = tool * (1 + 25e-6 * 60);
    CHECK(s.tool_hot == Approx(hot - 1));
    CHECK(s.part_room == Approx(hot / (1 + 5e-6 * 60) - 1));
}

TEST_CASE("tool and part of one material give the size back") {
    GrowthChain c;
    c.shell_alpha = c.part_alpha = 12e-6;
    c.part_gel = c.room + 100;
    CHECK(grow(c).part_room == Approx(0).margin(1e-12));
}

TEST_CASE("corners close on cooling where a laminate grows more through than along") {
    // Radford & Rennick: 90°, al 3e-6, at 40e-6, dT -120 K, no cure shrinkage: about 0.4°.
    const double closed = spring_in(kPi / 2, 3e-6, 40e-6, 0, 0, -120);
    CHECK(degrees(closed) == Approx(90 * (37e-6 * 120) / (1 - 40e-6 * 120)).epsilon(1e-9));
    CHECK(spring_in(kPi / 2, 10e-6, 10e-6, 0, 0, -120) == 0);
    CHECK(spring_in(kPi / 2, 10e-6, 10e-6, -0.001, -0.003, 0) == Approx(kPi / 2 * 0.002 / 0.997));
}

TEST_CASE("a splash is one mould more: its own shrinkage and cooling stand between plug and shell") {
    GrowthChain c;
    c.plug_alpha = 70e-6;
    c.plug_warmth = c.room;  // a foam master in its room
    c.splash = SplashStep{12e-6, c.room + 15, 0.001};
    c.shell_gel = c.room + 10;
    c.shell_alpha = 20e-6;
    c.shell_cure_shrinkage = 0.0005;
    const double splash = 0.999 / (1 + 12e-6 * 15);
    const double tool = splash * (1 + 12e-6 * 10) * 0.9995 / (1 + 20e-6 * 10);
    const auto s = grow(c);
    CHECK(s.splash_room == Approx(splash - 1));
    CHECK(s.tool_room == Approx(tool - 1));
    c.splash.reset();
    CHECK(grow(c).splash_room == 0);
    CHECK(grow(c).tool_room > s.tool_room + 0.0009);
}

TEST_CASE("a wall between two warm faces follows the diffusion equation, early, late and between") {
    // Explicit differences of u_t = u_xx on a wall of 1 with both faces at 1, started at 0.
    constexpr int n = 100;
    std::vector<double> u(n + 1, 0);
    u.front() = u.back() = 1;
    const double dx = 1.0 / n, dt = 0.4 * dx * dx;
    double t = 0;
    for (const double until : {0.003, 0.01, 0.05, 0.2, 0.6}) {
        for (; t < until; t += dt) {
            auto next = u;
            for (std::size_t i = 1; i < n; ++i) next[i] += dt / (dx * dx) * (u[i - 1] - 2 * u[i] + u[i + 1]);
            u = next;
        }
        double mean = 0;
        for (std::size_t i = 0; i < n; ++i) mean += (u[i] + u[i + 1]) / 2 / n;
        CHECK(warmed_share(t) == Approx(mean).epsilon(0.01));
    }
    CHECK(warmed_share(0) == 0);
    CHECK(warmed_share(-1) == 0);
    CHECK(warmed_share(50) == Approx(1));
}
