#pragma once

#include "core/stages/shell/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::shell {

/// Coats, plies, cores, doublers, debulks and the bag, piece by piece of a split mould. `longest` and
/// `section` are the shell's size without its flange, m.
Work work(const Choices& choices, const Findings& shell, const edge::Findings& edge,
          const split::Findings& split, const brief::Of<brief::Crew, brief::Making>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Consumable, Rate>& shop);

}  // namespace jig::shell
