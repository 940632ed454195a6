// Where a flat sheet that is laid on a face has too much of itself, or too little.
#pragma once

#include <vector>

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

struct Dart {
    Point at{0, 0, 0};
    /// rad that a cut to this place closes by where it is above 0 (what is too much is taken out or folded
    /// away), and opens by where it is below (a piece is laid under the gap).
    double angle = 0;
    bool operator==(const Dart&) const = default;
};

/// Gathers what keeps a face from being flat, its Gauss curvature, in places of a quarter of its size, the
/// largest first; less than a degree counts with the nearest of its kind. The curvature at a point of a mesh
/// is what the angles round it lack of a full turn; seen along frame.w, what lies in one twelfth of the
/// face's diagonal is summed first, so that what the triangles alone make up cancels. The sum over a face is
/// exact, whatever its triangles (Gauss–Bonnet).
std::vector<Dart> curved_places(const TriangleMesh& mesh, const Topology& topology, const Frame& frame);

/// rad of curvature that cloth takes by shearing up to `shear` rad: each quarter of a net, cut out along two
/// straight threads, holds as much as its corner shears (Hazzidakis).
inline double taken_by_shear(double shear) {
    return 4 * shear;
}
/// The same of a sheet that stretches by a share `stretch` at the edge of a cap that is flat in its middle:
/// Ω = 6π·stretch, whatever the cap's size.
double taken_by_stretch(double stretch);

/// The places of `curved` that want a dart in a sheet that takes `takes` rad without: the largest, until what
/// is left, closing and opening each for itself, is no more; alike places are treated alike.
std::vector<Dart> darts_of(const std::vector<Dart>& curved, double takes);

}  // namespace jig
