// An oven's programme put on a wall: how long its holds come to be, and what the wall does.
#pragma once

#include "core/science/heat/wall.hpp"

namespace jig {

/// A programme as it went: the air's course with its holds as long as they came to be, and what the wall did.
struct Cured {
    Course air;
    WallHistory history;
    bool waited = true;  ///< whether every hold's slowest place came near enough
    bool operator==(const Cured&) const = default;
};

/// A wall that cures with others in one oven, and those of its layers that a hold waits for.
struct InOven {
    Wall wall;
    std::vector<std::size_t> layers;
    double off = 0;  ///< share by which its own air is warmed more than the programme says, or less
};
struct CuredTogether {
    Course air;
    std::vector<WallHistory> histories;  ///< one for each wall
    bool waited = true;                  ///< whether every hold's slowest place came near enough
    std::optional<std::size_t> slowest;  ///< the wall that the longest wait was for
};
/// Several walls under one programme: a hold waits until the coolest of all their `layers` is near. Starts at
/// the first wall's start; else as run_programme(). On all cores.
CuredTogether run_programme(std::vector<InOven> walls, const std::vector<Segment>& programme,
                            const std::array<bool, 2>& follow, double patience, Progress& progress);

/// Puts `programme` on the sides that `follow` it, from the wall's start. A hold `within` K waits until the
/// coolest of `layers` is so near the air, `patience` s at most. Throws as warm().
Cured run_programme(Wall wall, const std::vector<Segment>& programme, const std::array<bool, 2>& follow,
                    const std::vector<std::size_t>& layers, double patience, Progress& progress);

}  // namespace jig
