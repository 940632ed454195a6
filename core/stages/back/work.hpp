#pragma once

#include "core/stages/back/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::back {

/// The back of every piece, cut, built and bonded; what joins it is left for `cured` s.
Work work(const Choices& choices, const Findings& back, double pieces, const shell::Choices& shell_choices,
          const shell::Findings& shell, double cured,
          const Lists<Reinforcement, SurfaceCoat, Core, Board, Consumable, Fastener, Bonding, Rate>& shop);

}  // namespace jig::back
