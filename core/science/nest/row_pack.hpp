// Outlines laid onto sheets in rows of their boxes, as a shop lays them by eye.
#pragma once

#include "core/science/nest/nest.hpp"

namespace jig {

/// Boxes lie along the sheet where it has no grain, the highest first, each in the first row that has room
/// for it (first fit by falling height: Coffman et al. 1980, SIAM J. Comput. 9, at most 1.7 times the least
/// height and a row). `placed[i]` tells where outline i went; sheet -1 where it goes onto none.
std::vector<Placed> pack_by_rows(const std::vector<Loop>& outlines, const SheetRules& rules);

}  // namespace jig
