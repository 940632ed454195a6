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
    c.shell_gel = c.room + 20;
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
