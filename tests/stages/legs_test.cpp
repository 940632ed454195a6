#include <catch2/catch.hpp>

#include "core/stages/heat/legs.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using heat::Leg;

namespace {

constexpr double kAtRoom = 293.15;

/// Up at 20 K/h, held for two hours that begin 30 min late, up again, not held, and back.
const std::vector<Leg> kTwo{{313.15, 20.0 / 3600, 7200}, {333.15, 10.0 / 3600, 0}};
const Course kAir{{{0, kAtRoom},
                   {3600, 313.15},
                   {3600 + 1800 + 7200, 313.15},
                   {12600 + 7200, 333.15},
                   {19800 + 14400, kAtRoom}}};

}  // namespace

TEST_CASE("each climb and each hold of a programme has its corner, and what does neither has none") {
    const auto corners = heat::leg_corners(kTwo, kAir);
    REQUIRE(corners.size() == 3);
    CHECK(corners[0] == heat::LegCorner{0, 1, false});
    CHECK(corners[1] == heat::LegCorner{0, 2, true});
    CHECK(corners[2] == heat::LegCorner{1, 3, false});
    CHECK(heat::leg_corners({}, kAir).empty());
    CHECK(heat::leg_corners(kTwo, {}).empty());
    // A hold in the room it starts in does not climb.
    const auto cold = heat::leg_corners({{kAtRoom, 1e-3, 3600}}, {{{0, kAtRoom}, {3600, kAtRoom}}});
    REQUIRE(cold.size() == 1);
    CHECK(cold[0] == heat::LegCorner{0, 1, true});
}

TEST_CASE("a climb's end that is drawn changes how hot and how fast, a hold's end how hot and how long") {
    const auto corners = heat::leg_corners(kTwo, kAir);
    const double most = 40.0 / 3600;
    // To 323.15 K after 2 h: 30 K in 2 h.
    auto legs = heat::drawn_to(kTwo, kAir, corners[0], 7200, 323.4, most);
    CHECK(legs[0].to == Approx(323.15));
    CHECK(legs[0].rate == Approx(30.0 / 7200));
    CHECK(legs[0].hold == 7200);
    CHECK(legs[1] == kTwo[1]);
    // An hour later: three hours held, the wait before them is its own.
    legs = heat::drawn_to(kTwo, kAir, corners[1], 12600 + 3600, 313.15, most);
    CHECK(legs[0].hold == Approx(3 * 3600));
    CHECK(legs[0].to == Approx(313.15));
    // Up with it.
    CHECK(heat::drawn_to(kTwo, kAir, corners[1], 12600, 318, most)[0].to == Approx(318.15));
    // The second climb goes from where the first stands.
    CHECK(heat::drawn_to(kTwo, kAir, corners[2], 12600 + 3600, 333.15, most)[1].rate == Approx(20.0 / 3600));
}

TEST_CASE("nothing that is drawn leaves what a leg may be") {
    const auto corners = heat::leg_corners(kTwo, kAir);
    const double most = 40.0 / 3600;
    // Earlier than what is before it, or steeper than the oven climbs: as steep as it may.
    CHECK(heat::drawn_to(kTwo, kAir, corners[0], -500, 343.15, most)[0].rate == Approx(most));
    CHECK(heat::drawn_to(kTwo, kAir, corners[0], 60, 343.15, most)[0].rate == Approx(most));
    CHECK(heat::drawn_to(kTwo, kAir, corners[0], 1e9, 294.15, most)[0].rate >= 1e-5);
    CHECK(heat::drawn_to(kTwo, kAir, corners[0], 3600, 5000, most)[0].to == 600);
    CHECK(heat::drawn_to(kTwo, kAir, corners[0], 3600, -5, most)[0].to == 263);
    CHECK(heat::drawn_to(kTwo, kAir, corners[1], 0, 313.15, most)[0].hold >= 300);
    // Drawn down to where it stood it keeps its rate.
    CHECK(heat::drawn_to(kTwo, kAir, corners[0], 3600, kAtRoom, most)[0].rate == kTwo[0].rate);
    CHECK(heat::drawn_to(kTwo, kAir, heat::LegCorner{7, 1, false}, 0, 300, most) == kTwo);
}

TEST_CASE("the corners of every cure lie on its course where its legs say, and hands can take them") {
    auto job = fixtures::small_job();
    job.part.gel_temperature = 318.15;
    job.heat.part = {{318.15, 10.0 / 3600, 4 * 3600.0}, {333.15, 10.0 / 3600, 8 * 3600.0}};
    const auto f = fixtures::worked_out(job);
    for (const auto& run : f.heat->cures->runs) {
        const auto corners = heat::leg_corners(run.legs, run.cured.air);
        REQUIRE(!corners.empty());
        for (const auto& c : corners) {
            CHECK(run.cured.air.corners[c.corner].T == Approx(run.legs[c.leg].to));
            if (!c.held) continue;
            // At least as long as it is held.
            CHECK(run.cured.air.corners[c.corner].time - run.cured.air.corners[c.corner - 1].time >=
                  run.legs[c.leg].hold - 1e-6);
        }
        // After the last there is the way back to the room alone, where it was left.
        CHECK(corners.back().corner + 2 >= run.cured.air.corners.size());
    }
}
