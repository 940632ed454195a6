// A programme's legs, and the corners by which they are drawn.
#pragma once

#include "core/science/heat/programme.hpp"
#include "core/stages/heat/choices.hpp"

namespace jig::heat {

constexpr double kHoldStep = 300;  ///< s: the least by which a hold is drawn longer

/// A corner of the air's course that stands for a leg: where its climb ends, or its hold.
struct LegCorner {
    std::size_t leg = 0;
    std::size_t corner = 0;  ///< of the course
    bool held = false;       ///< the hold's end, else the climb's
    bool operator==(const LegCorner&) const = default;
};
/// In the order of time. A leg that neither climbs nor holds has none; the way back to the room is no leg.
std::vector<LegCorner> leg_corners(const std::vector<Leg>& legs, const Course& air);

/// The legs when that corner of theirs is drawn to `time` s and `T` K. A climb's end goes as steeply as it
/// then must, never steeper than `rate` K/s or earlier than what is before it; a hold's end holds for longer
/// or less. Heats in whole K of Celsius, holds in five minutes, within what a leg may have.
std::vector<Leg> drawn_to(std::vector<Leg> legs, const Course& air, const LegCorner& corner, double time,
                          double T, double rate);

}  // namespace jig::heat
