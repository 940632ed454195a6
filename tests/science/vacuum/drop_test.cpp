// Readings of a shut bag against lines known in closed form. The standard error of a slope is σ/√Σ(t − t̄)²
// (any book on regression; Draper and Smith 1998, 1.4).
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/science/vacuum/drop.hpp"
#include "core/science/vacuum/pump.hpp"

using namespace jig;

namespace {

std::vector<DropReading> along(double from, double rise, double step, int n) {
    std::vector<DropReading> out;
    for (int i = 0; i < n; ++i) out.push_back({step * i, from + rise * step * i});
    return out;
}

}  // namespace

TEST_CASE("readings on a line give it back without spread, in any order and unit of time") {
    auto readings = along(2000, 1.5, 60, 6);
    auto fit = fit_drop(readings);
    REQUIRE(fit);
    CHECK(fit->rise == Approx(1.5));
    CHECK(fit->from == Approx(2000));
    CHECK(*fit->spread == Approx(0).margin(1e-9));
    CHECK_FALSE(fit->flattens);
    CHECK(fit->seconds == 300);
    std::reverse(readings.begin(), readings.end());
    CHECK(fit_drop(readings)->rise == Approx(1.5));
    for (auto& r : readings) r.seconds = 1e6 + r.seconds / 60;
    CHECK(fit_drop(readings)->rise == Approx(90));
    CHECK(fit_drop(readings)->from == Approx(2000).epsilon(1e-6));
    // A shut bag that stands still, and one that falls.
    CHECK(fit_drop(along(900, 0, 30, 5))->rise == Approx(0).margin(1e-12));
    CHECK(fit_drop(along(900, -0.2, 30, 5))->rise == Approx(-0.2));
}

TEST_CASE("two readings are a line without a spread; fewer, or all at once, are none") {
    const auto two = fit_drop({{0, 1000}, {600, 1300}});
    REQUIRE(two);
    CHECK(two->rise == Approx(0.5));
    CHECK_FALSE(two->spread);
    CHECK_FALSE(fit_drop({}));
    CHECK_FALSE(fit_drop({{0, 1000}}));
    CHECK_FALSE(fit_drop({{60, 1000}, {60, 1300}, {60, 1200}}));
}

TEST_CASE("the spread is the slope's standard error") {
    // By hand: t = 0, 1, 2, 3; p = 0, 1, 1, 2. Slope 3/5, residuals -0.1, 0.3, -0.3, 0.1: Σr² = 0.2, σ² =
    // 0.1, Σ(t − t̄)² = 5, so √(0.1/5).
    const auto fit = fit_drop({{0, 0}, {1, 1}, {2, 1}, {3, 2}});
    REQUIRE(fit);
    CHECK(fit->rise == Approx(0.6));
    CHECK(fit->scatter == Approx(std::sqrt(0.1)));
    CHECK(*fit->spread == Approx(std::sqrt(0.02)));
    // Over many noisy tests the rise is out by as much as it says.
    std::mt19937 random(5);
    std::normal_distribution<double> noise(0, 40);
    double squares = 0, said = 0;
    constexpr int kTests = 2000;
    int bent = 0;
    for (int k = 0; k < kTests; ++k) {
        auto readings = along(3000, 0.8, 60, 11);
        for (auto& r : readings) r.pressure += noise(random);
        const auto one = fit_drop(readings);
        squares += std::pow(one->rise - 0.8, 2);
        said += *one->spread * *one->spread;
        bent += one->flattens.has_value();
    }
    CHECK(std::sqrt(squares / kTests) == Approx(std::sqrt(said / kTests)).epsilon(0.06));
    // A straight rise is called bent hardly ever: eight degrees of freedom, 2.6 standard errors, about 3 in
    // 100.
    CHECK(bent < kTests * 0.06);
    CHECK(bent > 0);
}

TEST_CASE("a rise that levels out is told from a leak, one that quickens too") {
    std::vector<DropReading> gas, opens;
    for (int i = 0; i <= 10; ++i) {
        const double t = 60.0 * i;
        gas.push_back({t, 1000 + 800 * (1 - std::exp(-t / 200))});
        opens.push_back({t, 1000 + 0.2 * t + 0.002 * t * t});
    }
    REQUIRE(fit_drop(gas)->flattens);
    CHECK(*fit_drop(gas)->flattens > 0.7);
    REQUIRE(fit_drop(opens)->flattens);
    // Slopes of 0.2 and 2.6 Pa/s at its ends.
    CHECK(*fit_drop(opens)->flattens == Approx((0.2 - 2.6) / 2.6));
    // With scatter as large as the bend nothing is said.
    std::mt19937 random(9);
    std::normal_distribution<double> noise(0, 400);
    auto rough = gas;
    for (auto& r : rough) r.pressure += noise(random);
    CHECK_FALSE(fit_drop(rough)->flattens);
}

TEST_CASE("the leak that a pump meets comes back out of the readings of its shut bag") {
    PumpDown shut;
    shut.volume = 0.031;
    shut.leak = 0.05;
    shut.start = 1500;
    std::vector<DropReading> readings;
    for (int i = 0; i < 8; ++i) readings.push_back({45.0 * i, shut.at(45.0 * i)});
    const auto fit = fit_drop(readings);
    REQUIRE(fit);
    CHECK(fit->rise * shut.volume == Approx(0.05));
    CHECK(fit->from == Approx(1500));
}
