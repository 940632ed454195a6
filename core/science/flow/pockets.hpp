// Air that resin has shut off from every vent.
#pragma once

#include <cstdint>
#include <vector>

#include "core/science/flow/network.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Whether a point takes no more resin, its share of volume filled being `full`.
[[nodiscard]] inline bool is_full(FlowState state, double full) {
    return state == FlowState::wet || state == FlowState::feed ||
           (state != FlowState::shut && full >= 1 - 1e-9);
}

struct Pocket {
    std::vector<std::uint32_t> points;
    double room = 0;           ///< m³ that are not filled
    double area = 0;           ///< m² of face that stay without resin
    Point at = Point::Zero();  ///< the point of the face nearest to their middle
};

/// Groups of points that hang together, are not full, and touch no vent; those that are shut already are
/// none. `full` is each point's share of its volume, 0 to 1.
std::vector<Pocket> shut_pockets(const TriangleMesh& mesh, const FlowNetwork& network,
                                 const std::vector<FlowState>& state, const std::vector<double>& full);

}  // namespace jig
