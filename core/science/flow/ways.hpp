// What two neighbouring points of a preform exchange.
#pragma once

#include <cstdint>
#include <vector>

#include "core/science/flow/preform.hpp"

namespace jig {

struct FlowWay {
    std::uint32_t from = 0, to = 0;  ///< points of the mesh, each pair in one order only
    double conducts = 0;             ///< m³ for each Pa between them, never below 0
};

/// Σ K·h over the shape functions of linear triangles, edge by edge. Where an edge would conduct less than
/// nothing, which it does when it is the long side of two wide triangles as the resin sees them (much
/// stretched by K), the two are parted the other way: the Delaunay flip in the metric of K, on the unfolded
/// surface (Bobenko and Springborn 2007). What is left, at rims and where two very unlike preforms meet,
/// conducts nothing. So no point draws resin from a drier one, whatever the mesh. `faces` one for each
/// triangle.
std::vector<FlowWay> ways_between(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces);

}  // namespace jig
