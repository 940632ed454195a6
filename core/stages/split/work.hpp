#pragma once

#include "core/stages/split/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::split {

/// Parting boards, their dowels, and closing the pieces for each pull.
Work work(const Choices& choices, const Findings& split, const Lists<jig::Board, Fastener, Rate>& shop);

}  // namespace jig::split
