#pragma once

#include "core/stages/edge/findings.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::part {

/// One pull: all parts that come out of the mould at once, laid, bagged, pulled, trimmed and finished.
Work work(const Choices& choices, const Findings& part, const edge::Findings& edge,
          const split::Findings& split, const brief::Of<brief::Wanted, brief::Crew, brief::Making>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Consumable, Rate>& shop);

}  // namespace jig::part
