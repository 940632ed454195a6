// Many outlines laid onto sheets by cells: quicker than exact shapes where there are hundreds of pieces.
#pragma once

#include "core/science/nest/nest.hpp"

namespace jig {

/// Places outlines, largest first, at the leftmost and then lowest place where the cells that they touch
/// (grown by half the kerf) are free, turned by quarters (by half where the sheet has a grain). Cells are a
/// 1000th of the sheet's length, so up to two of them are lost between neighbours. `placed[i]` tells where
/// outline i went; sheet -1 where it is larger than one. Cost: sheets × places × pieces at worst; pieces of
/// one shape go on from where the last one was put. Throws Cancelled.
std::vector<Placed> pack_by_cells(const std::vector<Loop>& outlines, const SheetRules& rules,
                                  Progress& progress);

}  // namespace jig
