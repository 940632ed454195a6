// Bolts against wedge and friction by hand, and their order against what a fitter does.
#include <catch2/catch.hpp>

#include <cmath>
#include <set>

#include "core/science/fasten/bolt.hpp"

using namespace jig;

namespace {
constexpr double kTurn = 6.283185307179586;
}

TEST_CASE("a coarse thread has its table's pitch and stress area") {
    // ISO 261 and ISO 898-1: pitch, and nominal stress area in mm².
    for (const auto& [d, p, area] : {std::tuple{6.0, 1.0, 20.1},
                                     {8.0, 1.25, 36.6},
                                     {10.0, 1.5, 58.0},
                                     {12.0, 1.75, 84.3},
                                     {16.0, 2.0, 157.0}}) {
        const Bolt bolt{d / 1000};
        CHECK(bolt.pitch() == Approx(p / 1000));
        CHECK(bolt.stress_area() == Approx(area * 1e-6).epsilon(0.005));
    }
    // A size between lies between.
    const Bolt odd{0.009};
    CHECK(odd.pitch() > 0.00125);
    CHECK(odd.pitch() < 0.0015);
}

TEST_CASE("a bolt without friction lifts by its pitch with each turn") {
    // Work in is work out: T·2π = F·p.
    const Bolt bolt{0.01};
    CHECK(torque_for(bolt, 5000, 0) * kTurn == Approx(5000 * 0.0015));
}

TEST_CASE("friction takes nine tenths of a turn's work, and torque and pull undo each other") {
    const Bolt bolt{0.008};
    // Taken apart by hand, small angles: F·(0.159·p + 0.577·µ·d2 + µ·Dk/2).
    const double mu = 0.12, d2 = 0.008 - 0.6495 * 0.00125;
    const double hand = 0.00125 / kTurn + mu * d2 / 2 / std::cos(kTurn / 12) + mu * 1.35 * 0.008 / 2;
    CHECK(torque_for(bolt, 1, mu) == Approx(hand).epsilon(0.01));
    CHECK(0.00125 / kTurn / torque_for(bolt, 1, mu) == Approx(0.15).margin(0.03));
    for (const double friction : {0.05, 0.12, 0.2, 0.4}) {
        CHECK(pull_of(bolt, torque_for(bolt, 1234, friction), friction) == Approx(1234));
        CHECK(pull_of(bolt, 10, friction) > pull_of(bolt, 10, friction + 0.01));
    }
    // All of it scales with the bolt.
    CHECK(torque_for({0.016}, 1, mu) / torque_for({0.008}, 1, mu) == Approx(2).epsilon(0.05));
}

TEST_CASE("bolts are tightened crosswise, each once") {
    CHECK(crosswise(0).empty());
    CHECK(crosswise(1) == std::vector<int>{0});
    CHECK(crosswise(2) == std::vector<int>{0, 1});
    CHECK(crosswise(4) == std::vector<int>{0, 2, 1, 3});
    const auto eight = crosswise(8, 3);
    CHECK(eight[0] == 3);
    CHECK(eight[1] == 7);
    for (const int n : {3, 5, 7, 12, 31}) {
        for (const int first : {0, 2, -1, n + 1}) {
            const auto order = crosswise(n, first);
            CHECK(std::set<int>(order.begin(), order.end()).size() == static_cast<std::size_t>(n));
            CHECK(order.front() == ((first % n) + n) % n);
            // The second is opposite, as near as the number allows.
            const int away = std::abs(order[1] - order[0]);
            CHECK(std::min(away, n - away) == n / 2);
            // After half of them, no two neighbours are loose beside each other.
            std::set<int> tight(order.begin(), order.begin() + (n + 1) / 2 + 1);
            if (n > 4 && (n & (n - 1)) == 0) {
                for (int i = 0; i < n; ++i) CHECK((tight.count(i) + tight.count((i + 1) % n)) > 0);
            }
        }
    }
}
