// Where to cut cloth that locks.
#pragma once

#include "core/stages/part/draped.hpp"

namespace jig::part {

struct SoughtCuts {
    std::vector<Cut> cuts;         ///< those that were there, and behind them those that were found
    std::size_t found = 0;         ///< of them
    double before = 0, after = 0;  ///< m² locked, of the net that fares worst
    double length = 0;             ///< m of the cuts that were found, each once
    int tried = 0;                 ///< ways of cutting
    bool operator==(const SoughtCuts&) const = default;
};

/// More darts in one ply than this are a part that wants another cloth or another start.
inline constexpr std::size_t kMostFound = 8;

/// For the plies of each angle: looks at the largest patch that is locked, tries darts through it (away from
/// where the cloth starts, the shortest way to the rim, along the patch itself; from its near end and from
/// further in), keeps the one that leaves the least locked for its length, and goes on until next to nothing
/// is locked or nothing helps. What it finds is good, not the best there can be. Throws InputError as
/// `draped`; Cancelled.
SoughtCuts seek_cuts(const ClothAsked& asked, const edge::ToolFace& tool, const Lists<Reinforcement>& shop,
                     Progress& progress);

}  // namespace jig::part
