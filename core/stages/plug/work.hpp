#pragma once

#include "core/stages/plug/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::plug {

/// The plug as its plans say, and polish for the mould that is taken off it.
Work work(const Findings& plug, const brief::Wanted& brief, const Lists<Consumable>& shop);

}  // namespace jig::plug
