#include <catch2/catch.hpp>

#include "core/stages/pots.hpp"

using namespace jig;

TEST_CASE("pots of resin that lasts are as many as the kilograms ask for, over all plies together") {
    // Five plies of 0.3 kg: two pots, not five.
    Pots pots(1e6, 1.0);
    int begun = 0;
    for (int ply = 0; ply < 5; ++ply) begun += pots.lay(0.3, 600);
    CHECK(begun == 2);
    CHECK(pots.count() == 2);
}

TEST_CASE("pots of quick resin are as many as their lives go into the time of laying") {
    // 0.2 kg in an hour, each pot good for 0.7 × 1000 s: 3600 ÷ 700, rounded up.
    Pots pots(1000, 1.0);
    CHECK(pots.lay(0.2, 3600) == 6);
    // In two plies it is the same: the pot goes on.
    Pots halves(1000, 1.0);
    CHECK(halves.lay(0.1, 1800) + halves.lay(0.1, 1800) == 6);
}

TEST_CASE("what waits too long is mixed anew") {
    Pots pots(1000, 1.0);
    CHECK(pots.lay(0.1, 60) == 1);
    CHECK(pots.lay(0.1, 60) == 0);
    pots.wait(700);
    CHECK(pots.lay(0.1, 60) == 1);
    CHECK(pots.lay(0, 60) == 0);
}

TEST_CASE("what is laid at once goes by kilograms alone, and what hardly lasts comes to an end") {
    Pots at_once(600, 0.5);
    CHECK(at_once.lay(2.0, 0) == 4);
    // A life of 30 s over a shift: thousands of crumbs, but an answer.
    Pots hasty(30, 1.0);
    CHECK(hasty.lay(1.0, 28800) <= 1001);
    CHECK(hasty.count() > 900);
    // Where no pot size is given it is that of a cup.
    Pots cups(1e6, 0);
    CHECK(cups.lay(0.1, 0) == 5);
}
