// Heat through a wall against Carslaw and Jaeger's closed forms (1959): the semi-infinite solid (2.4), the
// slab with convection (3.11), walls in series; adiabatic rise H/c; and a cure against cure_after's own
// integration.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/base/error.hpp"
#include "core/science/heat/wall.hpp"
#include "tests/quiet.hpp"
#include "tests/science/heat/hardening.hpp"

using namespace jig;

namespace {

WallHistory run(const Wall& wall, WallRules rules) {
    return warm(wall, rules, quiet);
}

double balance(const WallHistory& h) {
    return std::abs(h.in + h.reaction - h.held - h.lost) / (h.in + h.reaction);
}

/// Mid-plane of a slab of half thickness L, started at 1 in air of 0: Σ Cn·exp(−ζn²·Fo), ζ·tan ζ = Bi.
double slab_middle(double Bi, double Fo) {
    double sum = 0;
    for (int n = 0; n < 60; ++n) {
        double low = n * M_PI + 1e-12, high = n * M_PI + M_PI / 2 - 1e-12;
        for (int i = 0; i < 100; ++i) {
            const double z = (low + high) / 2;
            (z * std::tan(z) < Bi ? low : high) = z;
        }
        sum += 4 * std::sin(low) / (2 * low + std::sin(2 * low)) * std::exp(-low * low * Fo);
    }
    return sum;
}

WallLayer plain(double thickness, double k = 0.2, double rho = 1200, double c = 1200) {
    return {"layer", thickness, k, rho, c, {}, 0, 0};
}

}  // namespace

TEST_CASE("a face held hot warms a deep wall by erfc, on three grids and three tolerances") {
    Wall wall{
        {plain(0.06), plain(0.2)}, {WallSide{{}, steady(373.15)}, WallSide{0.0, steady(293.15)}}, 293.15};
    const double a = 0.2 / (1200.0 * 1200.0);
    double before = 1e9;
    for (const int cells : {31, 91, 271}) {
        WallRules rules;
        rules.end = 3600;
        rules.at = {600, 1800, 3600};
        rules.cells = cells;
        rules.tolerance = 1e-4;
        const auto h = run(wall, rules);
        double worst = 0;
        for (std::size_t i = 0; i < 3; ++i)
            worst = std::max(worst, std::abs(h.places[1].T[i] - 293.15 -
                                             80 * std::erfc(0.03 / 2 / std::sqrt(a * h.times[i]))));
        CHECK(worst < before / 2);
        before = worst;
        CHECK(balance(h) < 1e-6);
        // Held faces are what they are held at; heat drawn in is 2k·ΔT·√(t/πa).
        CHECK(h.places[0].T[2] == Approx(373.15));
        CHECK(h.in == Approx(2 * 0.2 * 80 * std::sqrt(3600 / M_PI / a)).epsilon(cells > 100 ? 2e-3 : 0.03));
    }
    CHECK(before < 0.02);
    for (const double tolerance : {0.1, 0.01, 0.001}) {
        WallRules rules;
        rules.end = 3600;
        rules.at = {3600};
        rules.cells = 271;
        rules.tolerance = tolerance;
        CHECK(run(wall, rules).places[1].T[0] - 293.15 ==
              Approx(80 * std::erfc(0.03 / 2 / std::sqrt(a * 3600))).margin(5 * tolerance + 0.01));
    }
}

TEST_CASE("a slab in moving air follows the series, turned round too") {
    for (const double h : {5.0, 25.0, 400.0}) {
        const double L = 0.01, k = 0.25, a = k / (1300 * 1100.0);
        Wall wall{{plain(2 * L, k, 1300, 1100)}, {WallSide{h, steady(350)}, WallSide{h, steady(350)}}, 290};
        WallRules rules;
        rules.end = 3000;
        rules.at = {200, 1000, 3000};
        rules.tolerance = 1e-3;
        const auto out = run(wall, rules);
        for (std::size_t i = 0; i < 3; ++i) {
            INFO(h << " " << out.times[i]);
            CHECK(350 - out.places[1].T[i] ==
                  Approx(60 * slab_middle(h * L / k, a * out.times[i] / (L * L))).margin(0.05));
            CHECK(out.places[0].T[i] == Approx(out.places[2].T[i]).margin(1e-6));
        }
        // Half of it, insulated in the middle, does the same.
        Wall half{{plain(L, k, 1300, 1100)}, {WallSide{0.0, steady(290)}, WallSide{h, steady(350)}}, 290};
        CHECK(run(half, rules).places[0].T[1] == Approx(out.places[1].T[1]).margin(0.02));
        std::swap(half.sides[0], half.sides[1]);
        CHECK(run(half, rules).places[2].T[1] == Approx(out.places[1].T[1]).margin(0.02));
    }
}

TEST_CASE("two layers and their air settle as resistances in series") {
    Wall wall{{plain(0.05, 0.034, 32, 1450), plain(0.006, 0.3, 1700, 1000)},
              {WallSide{8.0, steady(293.15)}, WallSide{20.0, steady(353.15)}},
              300};
    WallRules rules;
    rules.end = 86400;
    rules.at = {86400};
    const auto h = run(wall, rules);
    const double R = 1 / 8.0 + 0.05 / 0.034 + 0.006 / 0.3 + 1 / 20.0, q = 60 / R;
    CHECK(h.places[0].T[0] == Approx(293.15 + q / 8).margin(1e-3));
    CHECK(h.places[2].T[0] == Approx(293.15 + q * (1 / 8.0 + 0.05 / 0.034)).margin(1e-3));
    CHECK(h.places[3].T[0] == Approx(h.places[2].T[0]).margin(1e-9));
    CHECK(h.places[5].T[0] == Approx(353.15 - q / 20).margin(1e-3));
    CHECK(h.places[1].at == Approx(0.025));
    CHECK(h.places[4].at == Approx(0.053));
    CHECK(balance(h) < 1e-6);
}

TEST_CASE("a wall that loses nothing warms by its heat over its capacity") {
    auto resin = hardening();
    resin.glass.reset();
    Wall wall{{{"resin", 0.01, 0.2, 1200, 1500, resin, 600, 0.1}},
              {WallSide{0.0, steady(300)}, WallSide{0.0, steady(300)}},
              330};
    WallRules rules;
    rules.end = 1e6;
    rules.at = {0, 1e6};
    const auto h = run(wall, rules);
    CHECK(h.gels[0].cure > 0.999);
    // 90 % of 600 kg/m³ · 400 kJ/kg over 1200 · 1500.
    CHECK(h.places[1].T[1] - 330 == Approx(0.9 * 600 * 390e3 / (1200 * 1500)).epsilon(2e-3));
    CHECK(h.peak == Approx(h.places[1].T[1]).margin(1e-6));
    CHECK(h.in + h.lost == 0);
    CHECK(h.reaction == Approx(h.held).epsilon(1e-9));
    CHECK(h.lag == Approx(0).margin(1e-6));
}

TEST_CASE("a thin layer follows the air and cures as at that air's heat") {
    const auto resin = hardening();
    Wall wall{{{"film", 1e-5, 0.2, 1200, 1200, resin, 1200, 0}},
              {WallSide{500.0, steady(333.15)}, WallSide{500.0, steady(333.15)}},
              333.15};
    WallRules rules;
    rules.end = 14400;
    rules.at = {900, 3600, 14400};
    const auto h = run(wall, rules);
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(h.places[1].T[i] == Approx(333.15).margin(0.1));
        CHECK(h.places[1].cure[i] == Approx(cure_after(resin, 333.15, h.times[i])).margin(2e-3));
        CHECK(h.places[1].Tg[i] == Approx(resin.glass->at(h.places[1].cure[i])));
    }
    CHECK(*h.gels[0].all == Approx(*gel_time(resin, 333.15)).epsilon(0.01));
    // A programme: it follows that, too.
    wall.start = 293.15;
    wall.sides[0].air = wall.sides[1].air = course_of(
        {{false, 353.15, 0.01, 0, {}}, {true, 0, 0, 3600, {}}, {false, 293.15, 0.02, 0, {}}}, 293.15);
    rules.at = {3000, 6000, 9600, 14000};
    rules.end = 14000;
    const auto p = run(wall, rules);
    CHECK(p.places[1].T[0] == Approx(323.15).margin(0.3));
    CHECK(p.places[1].T[1] == Approx(353.15).margin(0.3));
    CHECK(p.places[1].T[3] == Approx(293.15).margin(0.3));
}

TEST_CASE("halving steps and grids converges, energy is kept, hotter is never later") {
    Wall wall{{plain(0.04, 0.034, 32, 1450),
               {"laminate", 0.008, 0.3, 1750, 1100, hardening(), 600, 0},
               plain(0.0002, 0.2, 900, 1800)},
              {WallSide{8.0, steady(293.15)}, WallSide{12.0, {}}},
              293.15};
    const auto with = [&](double to, int cells, double tolerance) {
        wall.sides[1].air = course_of({{false, to, 0.01, 0, {}}, {true, 0, 0, 30000, {}}}, 293.15);
        WallRules rules;
        rules.end = 36000;
        rules.at = {9000, 18000, 36000};
        rules.cells = cells;
        rules.tolerance = tolerance;
        return run(wall, rules);
    };
    const auto finest = with(333.15, 401, 2e-5);
    double before = 1e9;
    for (const double tolerance : {0.4, 0.02, 0.001}) {
        const auto h = with(333.15, 401, tolerance);
        const double off = std::abs(h.places[4].T[0] - finest.places[4].T[0]) +
                           100 * std::abs(h.places[4].cure[0] - finest.places[4].cure[0]);
        CHECK(off < before);
        before = off;
        CHECK(balance(h) < 1e-6);
    }
    CHECK(before < 0.06);
    before = 1e9;
    for (const int cells : {21, 61, 181}) {
        const double off = std::abs(with(333.15, cells, 1e-3).peak - with(333.15, 401, 1e-3).peak);
        CHECK(off < before);
        before = off;
    }
    double gelled = 1e9;
    for (const double to : {313.15, 323.15, 333.15, 353.15}) {
        const auto h = with(to, 91, 0.01);
        REQUIRE(h.gels[0].all);
        CHECK(*h.gels[0].all < gelled);
        CHECK(*h.gels[0].first <= *h.gels[0].all);
        gelled = *h.gels[0].all;
    }
    // Twice the laminate peaks no lower.
    const double thin = with(333.15, 91, 0.01).peak;
    wall.layers[1].thickness *= 2;
    CHECK(with(333.15, 91, 0.01).peak > thin);
}

TEST_CASE(
    "thin or thick, foil or foam, jumps of the air, resin of any order: it is followed and nothing is lost") {
    std::mt19937 draw(3);
    const auto between = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(draw);
    };
    const auto by_size = [&](double low, double high) {
        return std::exp(between(std::log(low), std::log(high)));
    };
    for (int round = 0; round < 60; ++round) {
        INFO(round);
        Wall wall;
        wall.start = between(278, 310);
        wall.layers.resize(1 + draw() % 5);
        for (auto& l : wall.layers) {
            l = plain(by_size(1e-4, 0.1), by_size(0.02, 200), by_size(20, 8000), by_size(500, 2500));
            if (draw() % 2 == 0) continue;
            auto& k = l.resin.emplace();
            k.A1 = round % 3 == 0 ? 0 : by_size(1e2, 1e7);
            k.A2 = by_size(1e2, 1e7);
            k.E1 = between(4e4, 9e4);
            k.E2 = between(4e4, 9e4);
            k.m = between(0.1, 2);
            k.n = between(0.4, 3);
            // As much as warms the layer by up to 250 K.
            l.resin_density = between(0.2, 1) * l.density;
            k.heat = between(20, 250) * l.density * l.capacity / l.resin_density;
            if (draw() % 3 != 0)
                k.glass = GlassCurve{between(220, 280), between(320, 480), between(0.1, 1), between(0, 20)};
        }
        double low = wall.start;
        for (auto& side : wall.sides) {
            if (draw() % 4 != 0) side.transfer = by_size(2, 100);
            double time = 0;
            for (auto corners = draw() % 5; corners-- > 0;) {
                // Now and then two at one moment: a door that opens.
                if (draw() % 3 != 0) time += by_size(1, 3e4);
                const double T = between(285, 440);
                low = std::min(low, T);
                side.air.corners.push_back({time, T});
            }
            if (side.air.corners.empty()) side.air = steady(wall.start);
        }
        WallRules rules;
        rules.end = by_size(600, 2e5);
        const auto h = run(wall, rules);
        CHECK(std::abs(h.in + h.reaction - h.held - h.lost) < 1e-6 * std::max(1e3, h.in + h.reaction));
        CHECK(h.steps < 20000);
        for (const auto& place : h.places) {
            for (const double T : place.T) CHECK(T > low - 0.05);
            CHECK(std::is_sorted(place.cure.begin(), place.cure.end()));
            for (const double a : place.cure) CHECK((a >= 0 && a <= 1));
        }
    }
}

TEST_CASE("a face that is put on something hot at once warms as by erfc, foil on it or not") {
    // A foil of 20 µm holds next to nothing: what lies under it follows erfc(x/2√(at)) of the slab alone.
    for (const bool foil : {false, true}) {
        INFO(foil);
        Wall wall;
        wall.layers = {plain(0.06, 0.3, 1100, 1500)};
        if (foil) wall.layers.insert(wall.layers.begin(), plain(2e-5, 200, 2700, 900));
        wall.start = 290;
        wall.sides[0] = {{}, {{{0, 290}, {500, 290}, {500, 360}}}};
        wall.sides[1] = {{}, steady(290)};
        WallRules rules;
        rules.end = 800;
        rules.at = {500, 560, 800};
        const auto h = run(wall, rules);
        const auto& middle = h.places[foil ? 4 : 1];
        const double x = middle.at - (foil ? 2e-5 : 0), a = 0.3 / (1100 * 1500);
        CHECK(middle.T[0] == Approx(290).margin(1e-3));
        for (const auto& [i, since] : {std::pair<std::size_t, double>{1, 60}, {2, 300}})
            CHECK(middle.T[i] == Approx(290 + 70 * std::erfc(x / (2 * std::sqrt(a * since)))).margin(0.03));
    }
}

TEST_CASE("a face that is held from the start, or until its course begins, starts where it is held") {
    // Foil on foam: held at 360 from 0 on, whether its one corner lies at 0, before or far behind it.
    for (const double corner : {0.0, -5.0, 900.0}) {
        INFO(corner);
        Wall wall;
        wall.layers = {plain(2e-5, 200, 2700, 900), plain(0.04, 0.03, 40, 1400)};
        wall.start = 290;
        wall.sides[0] = {{}, {{{corner, 360}}}};
        wall.sides[1] = {0.0, steady(290)};
        WallRules rules;
        rules.end = 30;
        rules.at = {30};
        const auto h = run(wall, rules);
        const double a = 0.03 / (40 * 1400);
        CHECK(h.places[4].T[0] == Approx(290 + 70 * std::erfc(0.02 / (2 * std::sqrt(a * 30)))).margin(0.05));
    }
}

TEST_CASE("what runs away or is stopped says so") {
    auto resin = hardening();
    resin.A2 = 1e29;
    resin.E2 = 0;
    resin.m = 3;
    resin.heat = 1e8;
    Wall wall{{{"bomb", 0.05, 0.2, 1000, 1000, resin, 1000, 0.5}},
              {WallSide{5.0, steady(300)}, WallSide{5.0, steady(300)}},
              300};
    WallRules rules;
    rules.end = 1000;
    CHECK_THROWS_AS(run(wall, rules), InputError);
    Progress stopped;
    stopped.stop();
    wall.layers[0].resin = hardening();
    rules.longest = 1;
    CHECK_THROWS_AS(warm(wall, rules, stopped), Cancelled);
}

TEST_CASE("a programme's course goes through its corners and stays at both ends") {
    const auto c = course_of({{false, 333.15, 0.01, 0, {}},
                              {true, 0, 0, 600, {}},
                              {false, 313.15, 0.02, 0, {}},
                              {false, 313.15, 0.02, 0, {}},
                              {true, 0, 0, 0, {}}},
                             293.15);
    REQUIRE(c.corners.size() == 4);
    CHECK(c.end() == Approx(4000 + 600 + 1000));
    CHECK(c.at(-5) == 293.15);
    CHECK(c.at(2000) == Approx(313.15));
    CHECK(c.at(4300) == Approx(333.15));
    CHECK(c.at(5100) == Approx(323.15));
    CHECK(c.at(1e9) == Approx(313.15));
}
