#include "core/science/flow/pockets.hpp"

#include <algorithm>

namespace jig {

std::vector<Pocket> shut_pockets(const TriangleMesh& mesh, const FlowNetwork& network,
                                 const std::vector<FlowState>& state, const std::vector<double>& full) {
    std::vector<Pocket> out;
    std::vector<char> seen(network.count(), 0);
    const auto takes = [&](std::uint32_t i) {
        return seen[i] == 0 && !is_full(state[i], full[i]) && state[i] != FlowState::shut;
    };
    for (std::uint32_t seed = 0; seed < network.count(); ++seed) {
        if (!takes(seed)) continue;
        Pocket pocket;
        pocket.points.assign(1, seed);
        seen[seed] = 1;
        bool vented = false;
        Point middle = Point::Zero();
        for (std::size_t k = 0; k < pocket.points.size(); ++k) {
            const auto i = pocket.points[k];
            vented = vented || state[i] == FlowState::vent;
            const double empty = 1 - std::clamp(full[i], 0.0, 1.0);
            pocket.room += empty * network.volume[i];
            pocket.area += empty * network.area[i];
            middle += empty * network.area[i] * mesh.points[i];
            for (auto e = network.start[i]; e < network.start[i + 1]; ++e) {
                const auto j = network.to[e];
                vented = vented || state[j] == FlowState::vent;
                if (!takes(j)) continue;
                seen[j] = 1;
                pocket.points.push_back(j);
            }
        }
        if (vented) continue;
        if (pocket.area > 0) middle /= pocket.area;
        // A place on the face, not one in the air between its sides.
        pocket.at = mesh.points[*std::min_element(
            pocket.points.begin(), pocket.points.end(), [&](std::uint32_t a, std::uint32_t b) {
                return (mesh.points[a] - middle).squaredNorm() < (mesh.points[b] - middle).squaredNorm();
            })];
        out.push_back(std::move(pocket));
    }
    return out;
}

}  // namespace jig
