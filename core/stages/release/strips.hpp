// Release that comes off a roll, as it is laid over a face.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig::release {

/// Strips side by side, each along the middle of its own way.
struct Strips {
    double turn = 0;  ///< rad from the longer side of the face, seen along the pull, 0 to below π
    /// rad that the face turns across them on the mean, from one side to the other: what puckers a strip.
    double puckers = 0;
    std::vector<std::vector<Point>> ways;
    double metres = 0;
    bool operator==(const Strips&) const = default;
};

/// Along the way in which a face turns least across the strips, of twelve; `pitch` m from strip to strip over
/// the face where it is longest across. Empty for a face without one. Throws Cancelled.
Strips strips_over(const TriangleMesh& face, const Frame& frame, double pitch, Progress& progress);

}  // namespace jig::release
