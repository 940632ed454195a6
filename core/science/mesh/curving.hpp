// How a face bends from place to place.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

/// Principal curvatures at a point, 1/m, positive where the face is hollow seen from outside.
struct Curving {
    double most = 0, least = 0;   ///< |most| ≥ |least|
    Point along = Point::Zero();  ///< unit, in the face: the way of `most`
    bool operator==(const Curving&) const = default;
};

/// At every point of the mesh, by the quadric that lies best through what the surface reaches within `reach`
/// m of it (least squares in the frame of its normal); what the triangles alone make up, facets and noise
/// finer than that, is evened out, and corners tighter than it come out about as tight as it. Fewer than six
/// points within reach are taken with their neighbours. Throws Cancelled.
std::vector<Curving> curvings(const TriangleMesh& mesh, const Topology& topology, double reach,
                              Progress& progress);

}  // namespace jig
