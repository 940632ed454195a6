#pragma once

#include "core/stages/edge/findings.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::part {

/// How long each of its cures lasts, s.
struct CureTimes {
    double in_tool = 0;
    double joined = 0;  ///< 0 where it is joined to nothing
    double free = 0;    ///< by itself, after its pull; 0 where it has no such cure
};

/// One pull: all parts that come out of the mould at once, laid, closed as `closing` says, pulled, trimmed,
/// joined and finished. In a tool that is its jig it is joined before it is pulled.
Work work(const Choices& choices, const Findings& part, const edge::Findings& edge,
          const split::Findings& split, const brief::Of<brief::Wanted, brief::Crew, brief::Jig>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Consumable, Bonding, Rate>& shop,
          const CureTimes& cured, Work closing);

}  // namespace jig::part
