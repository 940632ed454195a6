// Lines cut into a face as finely as a net over it asks.
#pragma once

#include "core/science/drape/slits.hpp"

namespace jig {

/// `scored`, what lies within a fiftieth of a `cell` (m) of a line being on it: closer than a net of such
/// cells can tell.
Scored scored_for_net(const TriangleMesh& mesh, const Frame& frame, const std::vector<SeenLine>& lines,
                      double cell);

}  // namespace jig
