#pragma once

#include "core/stages/heat/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::heat {

/// The oven of every cure that is warmer than the room, `room` K, by what its programme takes; and the
/// post-cure as a step of its own.
Work work(double room, const Cures& cures, const OvenUse& oven, const Lists<Rate>& shop);

}  // namespace jig::heat
