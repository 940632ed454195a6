#pragma once

#include "core/stages/edge/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::edge {

/// Flange boards and clay, where a shell is laid over a `plug`, tape and all that is set into the flange.
/// `stock` names what its boards are cut from.
Work work(const Choices& choices, const Findings& edge, double seam, bool plug, const std::string& stock,
          const Lists<Board, Fastener, Consumable, Rate>& shop);

}  // namespace jig::edge
