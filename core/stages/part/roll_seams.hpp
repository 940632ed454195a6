// Seams where a ply is wider than its roll.
#pragma once

#include "core/stages/part/draped.hpp"

namespace jig::part {

struct RollSeams {
    std::vector<Cut> cuts;  ///< those that were there, and behind them those that were found
    std::size_t found = 0;  ///< of them
    std::size_t wide = 0;   ///< plies that are wider than their roll
    std::size_t left = 0;   ///< of those, the ones that no seam along the roll makes fit
    double length = 0;      ///< m of the seams that were found, each once
    bool operator==(const RollSeams&) const = default;
};

/// For plies of the common stack whose roll runs alike: the fewest lines along the roll, evenly spaced over
/// the cloth as it lies flat, that leave no piece with its lap and trim wider than the narrowest of their
/// rolls; what they become is draped and measured anew, and one seam more is tried where that comes out
/// wider. Where several plies have them they are stepped by twice the lap, so that laps do not lie over each
/// other. Stretches of a line that come round to themselves cannot be drawn and are left out. `now` is what
/// the choices are draped to. Throws InputError as `draped`; Cancelled.
RollSeams seams_by_roll(const Choices& choices, const Draped& now, const edge::ToolFace& tool,
                        const Lists<Reinforcement>& shop, Progress& progress);

}  // namespace jig::part
