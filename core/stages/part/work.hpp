#pragma once

#include "core/stages/edge/findings.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::part {

/// How a go is closed, and what comes of it.
struct Closing {
    Work work;
    double cured = 0;    ///< s that it then cures for
    bool keyed = false;  ///< peel ply leaves it rough for the next
};
/// How long each of its later cures lasts, s.
struct CureTimes {
    double joined = 0;  ///< 0 where it is joined to nothing
    double free = 0;    ///< by itself, after its pull; 0 where it has no such cure
};

/// One pull: all parts that come out of the mould at once, laid go by go, each closed as `closings` says,
/// pulled, trimmed, joined and finished. In a tool that is its jig it is joined before it is pulled.
/// `closings` are as many as its goes.
Work work(const Choices& choices, const Findings& part, const edge::Findings& edge,
          const split::Findings& split, const brief::Of<brief::Wanted, brief::Crew, brief::Jig>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Board, Consumable, Bonding, Rate>& shop,
          const CureTimes& cured, std::vector<Closing> closings);

}  // namespace jig::part
