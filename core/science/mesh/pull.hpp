// The search for the direction in which a mould leaves best.
#pragma once

#include "core/science/mesh/draft.hpp"

namespace jig {

struct PullCandidate {
    Point direction = Point::UnitZ();
    double locks = 0, drags = 0;  ///< m²; an open foot is not among them
    double foot = 0;              ///< m² of flat foot left open, where the rules say so
    double depth = 0;             ///< m
    bool operator==(const PullCandidate&) const = default;
};

/// Best pulls first: the six axes and an even spread of directions judged by angle, the best of them by rays,
/// the leaders refined by ever smaller steps. An axis wins ties. Directions closer than 15° to a better one
/// are left out. With `rules.foot_open` a flat foot across the pull does not count against it: that is where
/// the mould's mouth lies. Throws Cancelled.
std::vector<PullCandidate> best_pulls(const TriangleMesh& mesh, const RayMesh& rays, const DraftRules& rules,
                                      std::size_t top, Progress& progress);

}  // namespace jig
