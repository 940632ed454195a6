#include "core/science/machine/scallop.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace jig;

namespace {

/// The highest place that balls along parallel passes leave on a flat, by looking at many points between two.
double simulated(double step, double radius) {
    double highest = 0;
    for (int i = 0; i <= 2000; ++i) {
        const double x = step * i / 2000;
        double lowest = 1e9;
        for (int pass = -3; pass <= 4; ++pass) {
            const double d = std::abs(x - pass * step);
            // The ball's middle runs one radius above the flat.
            if (d <= radius) lowest = std::min(lowest, radius - std::sqrt(radius * radius - d * d));
        }
        highest = std::max(highest, lowest);
    }
    return highest;
}

}  // namespace

TEST_CASE("ridges of a ball-end cutter are as high as a simulated surface says, and about s²/8R") {
    for (const double radius : {0.003, 0.008, 0.02}) {
        for (const double share : {0.05, 0.2, 0.6, 1.5}) {
            const double step = share * radius;
            INFO(radius << " " << step);
            CHECK(scallop_height(step, radius) == Approx(simulated(step, radius)).epsilon(1e-4));
            if (share < 0.3)
                CHECK(scallop_height(step, radius) == Approx(step * step / (8 * radius)).epsilon(0.01));
            CHECK(step_for_scallop(scallop_height(step, radius), radius) == Approx(step));
        }
    }
    CHECK(scallop_height(0.1, 0.008) == Approx(0.008));
}

TEST_CASE("cutting times follow from volume, area and feed") {
    Feeds f;
    f.feed = 0.05;
    f.rough_deep = 0.01;
    f.rough_wide = 0.01;
    f.travel = 1;
    // A litre in passes of 1 cm² at 5 cm/s: ten metres.
    CHECK(roughing_seconds(1e-3, f) == Approx(200));
    // A square metre every millimetre: a kilometre.
    CHECK(finishing_seconds(1, 0.001, f) == Approx(20000));
    f.travel = 1.5;
    CHECK(finishing_seconds(1, 0.001, f) == Approx(30000));
}
