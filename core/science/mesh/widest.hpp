// The widest line of a part.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

/// The height along `axis` (unit) of the section with the largest area inside its outline, m: where the plane
/// of a split mostly belongs.
double widest_height(const TriangleMesh& mesh, const Topology& topology, const Point& axis,
                     Progress& progress);

}  // namespace jig
