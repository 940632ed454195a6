#pragma once

#include "core/stages/release/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::release {

/// Coats on plug and mould for the first use, and the touch-up of each pull.
Work work(const Findings& release, const Lists<Consumable>& shop);

}  // namespace jig::release
