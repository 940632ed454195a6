// Cure against closed forms: nth order α = 1 − [1 − (1 − n)kt]^(1/(1−n)), Arrhenius between temperatures,
// an adiabatic pot by H/c, vitrification by an integration of its own (docs/methods.md, Cure).
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/base/error.hpp"
#include "core/science/heat/cure_fit.hpp"
#include "tests/science/heat/hardening.hpp"

using namespace jig;

namespace {

Kinetics nth_order(double A, double E, double n) {
    Kinetics k;
    k.A1 = A;
    k.E1 = E;
    k.n = n;
    return k;
}

double nth_order_cure(double kt, double n) {
    if (n == 1) return 1 - std::exp(-kt);
    const double left = 1 - (1 - n) * kt;
    return left <= 0 ? 1 : 1 - std::pow(left, 1 / (1 - n));
}

}  // namespace

TEST_CASE("cure of the nth order at one temperature follows its closed form") {
    for (const double n : {0.5, 1.0, 1.5, 2.0, 3.0}) {
        const auto k = nth_order(1e6, 60000, n);
        for (const double T : {300.0, 350.0, 420.0}) {
            const double speed = 1e6 * std::exp(-60000 / (8.314462618 * T));
            for (const double kt : {0.01, 0.3, 1.0, 1.9}) {
                INFO(n << " " << T << " " << kt);
                CHECK(cure_after(k, T, kt / speed) == Approx(nth_order_cure(kt, n)).margin(2e-6));
            }
        }
    }
    // What is half cured goes on from there: the second half of the way in two goes.
    const auto k = nth_order(1e6, 60000, 2);
    const double half = cure_after(k, 350, 1000);
    CHECK(cure_after(k, 350, 1000, half) == Approx(cure_after(k, 350, 2000)).epsilon(1e-5));
    // Nothing that has no speed ever cures.
    CHECK(cure_after(Kinetics{}, 400, 1e6) == 0);
    CHECK_FALSE(gel_time(Kinetics{}, 400, 1e6));
}

TEST_CASE("a resin that only its own product sets going starts, and one of low order ends, in finite time") {
    // dα/dt = k·α^m leaves 0 as ((1 − m)kt)^(1/(1−m)), however little there is at first (m below 1).
    Kinetics k;
    k.A2 = 1e-3;
    k.n = 0;
    for (const double m : {0.1, 0.2, 0.5, 0.8}) {
        k.m = m;
        for (const double kt : {0.3, 0.7, 1.0}) {
            INFO(m << " " << kt);
            const double exact = std::min(1.0, std::pow((1 - m) * kt, 1 / (1 - m)));
            CHECK(cure_after(k, 350, kt / 1e-3) == Approx(exact).margin(4e-4));
        }
    }
    // From m = 1 on, nothing comes of nothing.
    k.m = 1;
    CHECK(cure_after(k, 350, 1e7) == 0);
    // dα/dt = k(1 − α)^n with n below 1 is over at 1/(1 − n)k.
    Kinetics end;
    end.A1 = 1e-3;
    for (const double n : {0.0, 0.3, 0.6}) {
        end.n = n;
        CHECK(cure_after(end, 350, 0.99e3 / (1 - n)) ==
              Approx(nth_order_cure(0.99 / (1 - n), n)).margin(1e-5));
        CHECK(cure_after(end, 350, 1.1e3 / (1 - n)) == Approx(1).margin(1e-5));
    }
}

TEST_CASE("gel time goes by Arrhenius, and never comes where glass comes first") {
    auto k = hardening();
    k.E1 = k.E2;
    k.glass.reset();
    const double a = *gel_time(k, 300), b = *gel_time(k, 340);
    const double third = a * std::exp(k.E2 / 8.314462618 * (1 / 320.0 - 1 / 300.0));
    CHECK(*gel_time(k, 320) == Approx(third).epsilon(1e-4));
    CHECK(std::log(a / b) == Approx(k.E2 / 8.314462618 * (1 / 300.0 - 1 / 340.0)).epsilon(1e-4));
    // Of the second order, gel is at kt = α/(1 − α).
    auto plain = nth_order(1e5, 50000, 2);
    plain.gel = 0.6;
    CHECK(*gel_time(plain, 330) ==
          Approx(1.5 / (1e5 * std::exp(-50000 / (8.314462618 * 330)))).epsilon(1e-4));
    // Tg at gelation above what the cure's heat allows.
    k.glass = GlassCurve{300, 500, 0.5, 10};
    const double at_gel = k.glass->at(k.gel);
    CHECK_FALSE(gel_time(k, at_gel - 11));
    CHECK(gel_time(k, at_gel + 5));
}

TEST_CASE("DiBenedetto's curve runs from fresh to full, its slope with it") {
    const GlassCurve g{250, 400, 0.4, 10};
    CHECK(g.at(0) == Approx(250));
    CHECK(g.at(1) == Approx(400));
    // Half cured: 250 + 150 · 0.2 ÷ 0.7.
    CHECK(g.at(0.5) == Approx(250 + 150 * 0.2 / 0.7));
    for (double a = 0; a <= 1; a += 0.125) {
        CHECK(g.slope(a) == Approx((g.at(a + 1e-6) - g.at(a - 1e-6)) / 2e-6).epsilon(1e-6));
    }
}

TEST_CASE("slopes of the rate are those of its differences, everywhere it moves") {
    const auto k = hardening();
    for (const double T : {290.0, 320.0, 360.0}) {
        for (const double a : {0.02, 0.3, 0.6, 0.8}) {
            INFO(T << " " << a);
            const auto r = cure_rate(k, T, a);
            const double d = 1e-6;
            CHECK(r.by_cure == Approx((cure_rate(k, T, a + d).rate - cure_rate(k, T, a - d).rate) / (2 * d))
                                   .epsilon(1e-4)
                                   .margin(1e-12));
            CHECK(r.by_T == Approx((cure_rate(k, T + 1e-3, a).rate - cure_rate(k, T - 1e-3, a).rate) / 2e-3)
                                .epsilon(1e-4)
                                .margin(1e-14));
        }
    }
    CHECK(cure_rate(k, 400, 1).rate == 0);
    CHECK(cure_rate(k, 400, 1.1).rate == 0);
}

TEST_CASE("what turns to glass stands still near its own heat, as a plain integration has it") {
    const auto k = hardening();
    for (const double T : {298.0, 320.0, 345.0}) {
        INFO(T);
        const double week = cure_after(k, T, 7 * 86400.0);
        // Never past the lead, and near it after a week.
        CHECK(k.glass->at(week) <= T + k.glass->lead);
        CHECK(k.glass->at(week) > T - 3);
        // Euler's steps of a second, written out here.
        double a = 0;
        for (int i = 0; i < 86400; ++i) {
            const double k1 = k.A1 * std::exp(-k.E1 / (8.314462618 * T)),
                         k2 = k.A2 * std::exp(-k.E2 / (8.314462618 * T));
            const double Tg = 258 + 127 * 0.38 * a / (1 - 0.62 * a);
            const double x = std::clamp((T + 10 - Tg) / 15, 0.0, 1.0);
            a += (k1 + k2 * std::pow(a, 0.7)) * std::pow(1 - a, 1.6) * x * x * (3 - 2 * x);
        }
        CHECK(cure_after(k, T, 86400) == Approx(a).epsilon(1e-3));
    }
    // Hot enough, it cures to its end.
    CHECK(k.glass->at(cure_after(k, 400, 86400)) > 380);
}

TEST_CASE("a pot that loses nothing ends at its heat over its capacity") {
    auto k = hardening();
    k.glass.reset();
    const auto p = pot_peak(k, 1, 1800, 296, 0);
    CHECK(p.T == Approx(296 + 390e3 / 1800).epsilon(2e-3));
    // A large loss keeps it at the room's heat, and more mass is hotter and sooner.
    CHECK(pot_peak(k, 0.1, 1800, 296, 100).T == Approx(296).margin(0.2));
    const auto small = pot_peak(k, 0.1, 1800, 310, 0.1), large = pot_peak(k, 1, 1800, 310, 0.4);
    CHECK(large.T > small.T);
}

TEST_CASE("a fit gives back what made the data, and gel times at heats that it never saw") {
    const auto truth = hardening();
    CureData d;
    for (const double T : {293.15, 308.15, 333.15}) d.gels.push_back({T, *gel_time(truth, T)});
    for (const auto& [T, t] : {std::pair{353.15, 28800.0}, {333.15, 57600.0}, {403.15, 14400.0}})
        d.glass.push_back({T, t, truth.glass->at(cure_after(truth, T, t))});
    d.heat = 390e3;
    const auto fit = fit_cure(d);
    CHECK(fit.misfit < 0.02);
    CHECK(fit.kinetics.heat == Approx(390e3).epsilon(1e-3));
    CHECK(fit.kinetics.E2 == Approx(56000).margin(2 * fit.E_spread));
    CHECK(fit.kinetics.glass->full == Approx(385).margin(4));
    for (const double T : {300.0, 320.0, 350.0}) {
        INFO(T);
        const double off = std::log(*gel_time(fit.kinetics, T) / *gel_time(truth, T));
        CHECK(std::abs(off) < std::max(0.01, 2 * fit.gel_spread(T)));
    }
    // A hotter and a slower resin, each of its own family.
    for (const auto family : {CureFamily::epoxy, CureFamily::styrene}) {
        auto other = typical_kinetics(family);
        other.E1 = other.E2 = 63000;
        other.A2 = 4e6;
        other.A1 = 4e5 * (family == CureFamily::epoxy ? 1 : 0.2);
        CureData two;
        two.family = family;
        for (const double T : {298.15, 318.15}) two.gels.push_back({T, *gel_time(other, T)});
        const auto found = fit_cure(two);
        CHECK(found.kinetics.E2 == Approx(63000).epsilon(0.01));
        CHECK(*gel_time(found.kinetics, 308.15) == Approx(*gel_time(other, 308.15)).epsilon(0.005));
        CHECK(found.misfit < 1e-3);
        CHECK_FALSE(found.assumed.empty());
    }
}

TEST_CASE("a sheet is fitted though its resin would turn to glass first by what is usual") {
    std::mt19937 draw(2);
    const auto between = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(draw);
    };
    for (int round = 0; round < 60; ++round) {
        INFO(round);
        CureData sheet;
        sheet.family = round % 2 == 0 ? CureFamily::epoxy : CureFamily::styrene;
        const double E = between(45e3, 75e3), at_20 = std::exp(between(6.4, 10.6));
        for (auto gels = 1 + draw() % 4; gels-- > 0;) {
            const double T = between(283, 390);
            sheet.gels.push_back({T, at_20 * std::exp(E / kGasConstant * (1 / T - 1 / 293.15))});
        }
        for (auto known = draw() % 3; known-- > 0;) {
            const double T = between(310, 400);
            sheet.glass.push_back({T, between(3600, 80000), T + between(-5, 25)});
        }
        const auto fit = fit_cure(sheet);
        for (const auto& g : sheet.gels) {
            const auto t = gel_time(fit.kinetics, g.T, 1e9);
            REQUIRE(t);
            CHECK(*t == Approx(g.time).epsilon(0.1));
        }
    }
}

TEST_CASE("a fit says what it had to assume, and refuses what contradicts itself") {
    CureData d;
    CHECK_THROWS_AS(fit_cure(d), InputError);
    d.gels = {{298.15, 3600}};
    const auto lone = fit_cure(d);
    CHECK(*gel_time(lone.kinetics, 298.15) == Approx(3600).epsilon(1e-3));
    CHECK(std::any_of(lone.assumed.begin(), lone.assumed.end(),
                      [](const std::string& s) { return s.find("activation energy") != std::string::npos; }));
    // Far from where it was measured it knows less.
    CHECK(lone.gel_spread(350) > 5 * lone.gel_spread(298.15));
    d.gels.push_back({318.15, 7200});
    CHECK_THROWS_AS(fit_cure(d), InputError);
    d.gels = {{298.15, 3600}, {318.15, 1100}};
    d.pot = CureData::Pot{0.1, 296, 290, 600};
    CHECK_THROWS_AS(fit_cure(d), InputError);
    // Scattered figures fit less well and are believed less.
    d.pot.reset();
    CureData scattered = d;
    scattered.gels = {{298.15, 3600}, {308.15, 2600}, {318.15, 1100}, {328.15, 700}};
    d.gels = {{298.15, 3600}, {308.15, 1950}, {318.15, 1100}, {328.15, 640}};
    CHECK(fit_cure(scattered).misfit > 3 * fit_cure(d).misfit);
    CHECK(fit_cure(scattered).gel_spread(303) > fit_cure(d).gel_spread(303));
}

TEST_CASE("a resin known by one gel time alone gels then") {
    for (const auto family : {CureFamily::epoxy, CureFamily::styrene, CureFamily::mineral}) {
        for (const double time : {600.0, 7200.0, 28800.0}) {
            const auto k = kinetics_by_gel(family, 293.15, time, 370, 20);
            CHECK(*gel_time(k, 293.15) == Approx(time).epsilon(0.01));
            CHECK(*gel_time(k, 303.15) < time);
        }
    }
}
