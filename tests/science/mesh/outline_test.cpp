#include "core/science/mesh/outline.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <random>

using namespace jig;

namespace {

/// Triangles over squares of `side`, `n` × `n` of them but for those that `bare` names; turned by `angle`.
Loops tiles(int n, double side, double angle, const auto& bare) {
    const Eigen::Rotation2Dd turn(angle);
    const auto at = [&](int i, int j) -> Point2 { return turn * Point2(i * side, j * side); };
    Loops out;
    for (int i = 0; i < n; ++i) {
        for (int j = 0; j < n; ++j) {
            if (bare(i, j)) continue;
            out.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            out.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    return out;
}

/// What loops cover, one after the other by what each adds to those before it.
double covered_one_by_one(const Loops& loops) {
    Loops so_far;
    double out = 0;
    for (const auto& loop : loops) {
        const auto more = taken_off({loop}, so_far);
        out += net_area(more);
        so_far.insert(so_far.end(), more.begin(), more.end());
    }
    return out;
}

}  // namespace

TEST_CASE("triangles that share edges unite into their rims, turned or not, round what is left out") {
    const auto hole = [](int i, int j) { return i >= 3 && i < 5 && j >= 2 && j < 7; };
    for (const double angle : {0.0, 0.3, 1.9}) {
        const auto out = united(tiles(10, 0.01, angle, hole));
        REQUIRE(out.size() == 2);
        CHECK(net_area(out) == Approx(0.01 - 10 * 1e-4).epsilon(1e-4));
        CHECK(perimeter(out[0]) + perimeter(out[1]) == Approx(0.4 + 0.14).epsilon(1e-4));
        CHECK(islands(out).size() == 1);
    }
    // Holes that meet in a corner, and squares that do.
    const auto chequered = [](int i, int j) { return (i + j) % 2 == 1; };
    CHECK(net_area(united(tiles(6, 0.01, 0.2, chequered))) == Approx(18e-4).epsilon(1e-4));
    // A corner in the midst of a neighbour's edge.
    CHECK(net_area(united({{{0, 0}, {2, 0}, {2, 1}, {0, 1}}, {{0, 1}, {0.7, 1}, {0.7, 2}, {0, 2}}})) ==
          Approx(2.7));
}

TEST_CASE("what lies over each other is covered once, whichever way its loops run") {
    const Loop square = rectangle(0, 0, 1, 1), next = rectangle(1, 0, 2, 1);
    const Loop back(square.rbegin(), square.rend());
    CHECK(net_area(united({square, square})) == Approx(1));
    CHECK(net_area(united({back, next})) == Approx(2));
    CHECK(united({square, back}).empty());
    CHECK(united({}).empty());
    CHECK(united({{{0, 0}, {1, 0}}, {{2, 2}}}).empty());
    // A fan that goes round two and a half times.
    Loops fan;
    constexpr int kTurn = 40;
    for (int k = 0; k < kTurn * 5 / 2; ++k) {
        const auto at = [&](int i) {
            const double a = 2 * M_PI * i / kTurn;
            return Point2(std::cos(a), std::sin(a));
        };
        fan.push_back({{0, 0}, at(k), at(k + 1)});
    }
    CHECK(net_area(united(fan)) == Approx(kTurn / 2.0 * std::sin(2 * M_PI / kTurn)).epsilon(1e-5));
}

TEST_CASE("loose triangles cover together what each adds to those before it") {
    for (unsigned seed = 1; seed <= 20; ++seed) {
        std::mt19937 dice(seed);
        std::uniform_real_distribution<double> place(0, 0.3), far(-0.1, 0.1);
        Loops loops;
        for (int k = 0; k < 25; ++k) {
            const Point2 a(place(dice), place(dice));
            Loop loop{a, a + Point2(far(dice), far(dice)), a + Point2(far(dice), far(dice))};
            if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
            // Some share a whole edge with the one before.
            if (k % 3 == 1) {
                loop[0] = loops.back()[1];
                loop[1] = loops.back()[0];
                if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
            }
            loops.push_back(std::move(loop));
        }
        CAPTURE(seed);
        CHECK(net_area(united(loops)) == Approx(covered_one_by_one(loops)).epsilon(1e-4));
    }
}
