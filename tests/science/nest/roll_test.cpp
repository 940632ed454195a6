#include <catch2/catch.hpp>

#include "core/base/units.hpp"
#include "core/science/nest/roll.hpp"

using namespace jig;

TEST_CASE("plies are cut as lengths from a roll, laid out by hand for three parts") {
    // A case shell of 1.3 m × 0.9 m from a roll of 1.27 m: one length.
    auto cut = cut_off_roll(1.3, 0.9, 0, 1.27, 0.03);
    CHECK(cut.strips == 1);
    CHECK(cut.metres == Approx(1.3));
    // A dome of 2 m × 2 m: two lengths side by side reach 2·1.27 − 0.03 = 2.51 m; 4 m of roll for a ply, so
    // two plies never come from 3.5 m.
    cut = cut_off_roll(2, 2, 0, 1.27, 0.03);
    CHECK(cut.strips == 2);
    CHECK(cut.metres == Approx(4));
    // A petal of 3 m × 1.28 m: a centimetre too wide for one.
    CHECK(cut_off_roll(3, 1.28, 0, 1.27, 0.03).metres == Approx(6));
    CHECK(cut_off_roll(3, 1.27, 0, 1.27, 0.03).metres == Approx(3));
    // Across: the 1.28 m lie along the roll, 3 m are 1.27 + 1.24 + 0.49.
    cut = cut_off_roll(3, 1.28, kPi / 2, 1.27, 0.03);
    CHECK(cut.strips == 3);
    CHECK(cut.metres == Approx(3 * 1.28));
}

TEST_CASE("on the bias a ply takes its diagonal") {
    // A square of 1 m turned by 45° is √2 across; a roll that wide takes one length of √2.
    auto cut = cut_off_roll(1, 1, kPi / 4, std::sqrt(2.0), 0.03);
    CHECK(cut.strips == 1);
    CHECK(cut.metres == Approx(std::sqrt(2.0)));
    // Two of half that width, no overlap: either reaches the full diagonal at the middle.
    cut = cut_off_roll(1, 1, kPi / 4, std::sqrt(0.5), 0);
    CHECK(cut.strips == 2);
    CHECK(cut.metres == Approx(2 * std::sqrt(2.0)));
    // Turned by any sign and by half a turn it is the same.
    for (const double angle : {0.3, 0.8, 1.4}) {
        const double one = cut_off_roll(2.2, 0.7, angle, 0.5, 0.03).metres;
        CHECK(cut_off_roll(2.2, 0.7, -angle, 0.5, 0.03).metres == Approx(one));
        CHECK(cut_off_roll(2.2, 0.7, angle + kPi, 0.5, 0.03).metres == Approx(one));
        // Never less than its area, and scaled with it.
        CHECK(one * 0.5 >= 2.2 * 0.7);
        CHECK(cut_off_roll(22, 7, angle, 5, 0.3).metres == Approx(10 * one));
    }
    CHECK(cut_off_roll(0, 1, 0, 1, 0).strips == 0);
    CHECK(cut_off_roll(1, 0, 0, 1, 0).metres == 0);
}
