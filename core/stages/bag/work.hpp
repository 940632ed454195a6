#pragma once

#include "core/stages/bag/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::bag {

/// Of one pull: closing and emptying the bag, and all that is thrown away after it. What lies in it cures for
/// `cured` s.
Work work(const Choices& choices, const Findings& bag, const part::Findings& part, const edge::Findings& edge,
          int parts, double cured, const Lists<Consumable, Rate>& shop);

}  // namespace jig::bag
