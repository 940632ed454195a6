// Exotherm against thickness: closed forms of a lumped layer and of an insulated one, and what they are
// turned round for.
#include <catch2/catch.hpp>

#include <random>

#include "core/science/heat/exotherm.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

constexpr double kShop = 293.15;
constexpr double kSlow = 2e-4;  ///< 1/s
constexpr double kHeat = 300e3, kResin = 600, kPlyDensity = 1700, kPlyCapacity = 1000, kStill = 12;

/// First order, as fast at any heat: what it does can be written down.
Kinetics first_order() {
    Kinetics k;
    k.A2 = kSlow;
    k.m = 0;
    k.n = 1;
    k.heat = kHeat;
    k.gel = 0.5;
    return k;
}

/// Warmth hurries it on.
Kinetics hurried() {
    auto k = first_order();
    k.E2 = 50000;
    k.A2 = kSlow * std::exp(k.E2 / (kGasConstant * kShop));
    return k;
}

WallLayer laminate(double thickness, Kinetics k, double conductivity = 0.3) {
    return {"laminate", thickness, conductivity, kPlyDensity, kPlyCapacity, std::move(k), kResin, 0};
}

/// One layer alone, air on its second side, no heat through its first.
LaidAtOnce alone(Kinetics k, double conductivity, double transfer = kStill) {
    LaidAtOnce out;
    out.wall = {{laminate(0.004, std::move(k), conductivity)},
                {WallSide{0, steady(kShop)}, WallSide{transfer, steady(kShop)}},
                kShop};
    out.layers = {0};
    out.end = 40000;
    return out;
}

/// K that a lumped layer so thick rises by at most: C·dT/dt = S·k·exp(−k·t) − h·T, with S J/m² in all and C
/// J/(m²·K), and the s at which.
std::pair<double, double> lumped(double thickness) {
    const double C = kPlyDensity * kPlyCapacity * thickness, S = kResin * kHeat * thickness, b = kStill / C;
    const double at = std::log(b / kSlow) / (b - kSlow);
    return {S * kSlow / (C * (b - kSlow)) * (std::exp(-kSlow * at) - std::exp(-b * at)), at};
}

}  // namespace

TEST_CASE("a layer that conducts well peaks as the lumped one does") {
    const auto of = alone(first_order(), 1e4);
    for (const double t : {0.0007, 0.002, 0.005, 0.012, 0.03}) {
        const auto p = peak_at(of, t, quiet);
        const auto [rise, at] = lumped(t);
        CHECK(p.thickness == t);
        CHECK(p.peak - kShop == Approx(rise).epsilon(0.01).margin(0.05));
        // Its steps are long where it is flat.
        CHECK(p.peak_time == Approx(at).epsilon(0.2));
        // First order at one rate gels after ln 2 / k whatever its heat.
        REQUIRE(p.gels);
        CHECK(*p.gels == Approx(std::log(2.0) / kSlow).epsilon(0.015));
    }
}

TEST_CASE("without a way out, any thickness rises by heat over capacity") {
    const auto of = alone(hurried(), 0.3, 0);
    for (const double t : {0.001, 0.02})
        CHECK(peak_at(of, t, quiet).peak - kShop ==
              Approx(kResin * kHeat / (kPlyDensity * kPlyCapacity)).epsilon(0.005));
}

TEST_CASE("the thickest that keeps a limit is what the closed form says") {
    const auto of = alone(first_order(), 1e4);
    std::vector<double> at;
    for (double t = 0.0005; t < 0.06; t *= 1.7) at.push_back(t);
    const auto curve = peaks_at(of, at, quiet);
    for (const double rise : {4.0, 10.0, 25.0}) {
        double low = 1e-5, high = 0.1;
        for (int i = 0; i < 60; ++i) {
            const double middle = (low + high) / 2;
            (lumped(middle).first < rise ? low : high) = middle;
        }
        HeatLimits limits;
        limits.laid = kShop + rise;
        const auto most = thickest(of, curve, limits, quiet);
        REQUIRE(most);
        CHECK(*most == Approx(low).epsilon(0.025));
        CHECK(*most <= low * 1.012);
        CHECK(peak_at(of, *most, quiet).peak <= limits.laid);
    }
    HeatLimits none, all;
    none.laid = kShop - 1;
    CHECK_FALSE(thickest(of, curve, none, quiet));
    CHECK(thickest(of, curve, all, quiet) == curve.back().thickness);
}

TEST_CASE("several layers thicken alike, and what lies under them is told apart") {
    // Two skins with a core between, on a board.
    LaidAtOnce of;
    const WallLayer board{"board", 0.05, 0.13, 740, 1700, {}, 0, 0},
        core{"core", 0.01, 0.033, 75, 1400, {}, 0, 0};
    of.wall = {{board, laminate(0.001, hurried()), core, laminate(0.002, hurried())},
               {WallSide{8, steady(kShop)}, WallSide{kStill, steady(kShop)}},
               kShop};
    of.layers = {1, 3};
    of.end = 40000;
    CHECK(thickness_of(of) == Approx(0.003));
    const auto p = peak_at(of, 0.012, quiet);
    auto thick = of.wall;
    thick.layers[1].thickness = 0.004;
    thick.layers[3].thickness = 0.008;
    WallRules rules;
    rules.end = of.end;
    rules.cells = 161;
    const auto h = warm(thick, rules, quiet);
    REQUIRE(h.hottest.size() == 4);
    CHECK(p.peak == Approx(h.peak).margin(1));
    CHECK(p.under == Approx(h.hottest[0].T).margin(1));
    CHECK(p.under < p.peak - 1);
    // The hottest of each layer is no less than what its three places saw, and the wall's peak is among them.
    double most = 0;
    for (std::size_t l = 0; l < 4; ++l) {
        for (const auto& place : h.places) {
            if (place.layer == l)
                CHECK(h.hottest[l].T >= *std::max_element(place.T.begin(), place.T.end()) - 0.01);
        }
        most = std::max(most, h.hottest[l].T);
    }
    CHECK(most == Approx(h.peak).margin(1e-9));
    // What bears little rules where it is what lies under.
    HeatLimits limits;
    limits.under = kShop + 10;
    const auto curve = peaks_at(of, {0.001, 0.003, 0.009, 0.027}, quiet);
    const auto most_kept = thickest(of, curve, limits, quiet);
    REQUIRE(most_kept);
    CHECK(peak_at(of, *most_kept, quiet).under <= limits.under);
    CHECK(peak_at(of, *most_kept * 1.03, quiet).under > limits.under);
}

TEST_CASE("thicker never peaks lower, and all at once is one by one") {
    std::mt19937 random(7);
    const auto between = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    for (int i = 0; i < 12; ++i) {
        auto k = hurried();
        k.A2 *= between(0.2, 5);
        k.n = between(1, 2);
        if (i % 2 == 0) k.glass = GlassCurve{250, between(330, 400), 0.4, 10};
        LaidAtOnce of;
        const WallLayer under{"under", between(0.01, 0.3), between(0.03, 0.4), between(30, 1500), 1400, {}, 0,
                              0};
        of.wall = {{under, laminate(0.003, k, between(0.2, 0.8))},
                   {WallSide{8, steady(kShop)}, WallSide{between(5, 40), steady(kShop)}},
                   kShop};
        of.layers = {1};
        // An oven on the open side.
        of.programme = {{false, between(300, 340), 0.01, 0, {}}, {true, 0, 0, 30000, {}}};
        of.follow = {false, true};
        const auto curve = peaks_at(of, {0.001, 0.003, 0.006, 0.012, 0.025}, quiet);
        for (std::size_t j = 0; j < curve.size(); ++j) {
            CHECK(curve[j] == peak_at(of, curve[j].thickness, quiet));
            if (j > 0) CHECK(curve[j].peak >= curve[j - 1].peak - 0.3);
        }
    }
}

TEST_CASE("a curve that nobody waits for any more stops") {
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(peaks_at(alone(hurried(), 0.3), {0.001, 0.002}, stopped), Cancelled);
}
