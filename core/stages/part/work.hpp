#pragma once

#include "core/stages/edge/findings.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::part {

/// One pull: all parts that come out of the mould at once, laid, closed as `closing` says, pulled, trimmed
/// and finished. Unclosed it cures for `cured` s.
Work work(const Choices& choices, const Findings& part, const edge::Findings& edge,
          const split::Findings& split, const brief::Of<brief::Wanted, brief::Crew>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Consumable, Rate>& shop, double cured, Work closing);

}  // namespace jig::part
