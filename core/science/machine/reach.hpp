// What of a surface a ball-end cutter on a spindle along the pull can touch.
#pragma once

#include <vector>

#include "core/base/progress.hpp"
#include "core/science/mesh/rays.hpp"

namespace jig {

struct Cutter {
    double radius = 0.006;         ///< m of the ball
    double stick_out = 0.08;       ///< m from the tip to the holder
    double holder_radius = 0.025;  ///< m
};

enum class Reach { reached, too_tight, too_deep, undercut };

struct ReachMap {
    std::vector<Reach> faces;
    double too_tight = 0, too_deep = 0, undercut = 0;  ///< m²
    double deepest = 0;                                ///< m of stick-out that all of it would need
    bool operator==(const ReachMap&) const = default;
};

/// Tries the cutter on a height field seen along frame.w, as fine as a third of the ball or a 700th of the
/// longest side, whichever is coarser: where the ball rests on the surface, where the holder forces it up,
/// and what both leave standing (grey-scale closing by the ball). Faces that something stands over are
/// undercut. Walls down to the surface's own foot are reached: the block is taken to stand free. Throws
/// Cancelled.
ReachMap reach_of_cutter(const TriangleMesh& mesh, const RayMesh& rays, const Frame& frame,
                         const Cutter& cutter, Progress& progress);

}  // namespace jig
