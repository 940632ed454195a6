#pragma once

#include "core/stages/split/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::split {

/// Parting boards and their dowels, where there is a `plug` to fit them to, and closing the pieces for each
/// pull.
Work work(const Choices& choices, const Findings& split, bool plug,
          const Lists<jig::Board, Fastener, Rate>& shop);

}  // namespace jig::split
