#pragma once

#include "core/stages/bag/findings.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/work.hpp"

namespace jig::bag {

/// Of one go of a pull, numbered from 0: closing and emptying the bag, and all that is thrown away after it.
/// What lies in it cures for `cured` s. Two hard faces close on the last go; those before it harden in the
/// open. Where its resin is followed, `flow` says how long it runs and how much line it takes.
Work work(const Choices& choices, const Findings& bag, const Flow& flow, const part::Findings& part,
          const edge::Findings& edge, int parts, std::size_t go, double cured,
          const Lists<Consumable, Rate>& shop);

/// What is seen of any bag before resin is mixed for it; `rise` Pa is what it may gain in ten minutes, 0 for
/// the shop's mark.
void look_at_bag(Step& step, BagWay way, double rise);
/// And of one that is filled, before the first hose is opened and until the last is shut.
void look_at_hoses(Step& bag, Step& filling);

}  // namespace jig::bag
