#pragma once

#include "core/stages/bag/findings.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/shell/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::shell {

/// Coats, plies, cores, doublers, debulks and the bag, piece by piece of a split mould. The shell's film lies
/// where the part's will: over face and flange, as `bag` measured it; an infused one has medium and hoses in
/// place of breather, `flow` as they lie on the piece that is followed. `cured` s are what its cure on the
/// plug takes.
Work work(const Choices& choices, const Findings& shell, const edge::Findings& edge,
          const bag::Choices& bag_choices, const bag::Findings& bag, const bag::Flow& flow,
          const split::Findings& split, const brief::Of<brief::Crew, brief::Making>& brief, double cured,
          const Lists<Reinforcement, SurfaceCoat, Core, Consumable, Rate>& shop);

}  // namespace jig::shell
