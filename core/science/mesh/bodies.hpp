// Which points of a mesh hang together.
#pragma once

#include <numeric>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// For each point the number of one that stands for all that hang together with it over faces.
inline std::vector<std::uint32_t> body_of_points(const TriangleMesh& mesh) {
    std::vector<std::uint32_t> root(mesh.points.size());
    std::iota(root.begin(), root.end(), 0u);
    const auto find = [&](std::uint32_t i) {
        while (root[i] != i) i = root[i] = root[root[i]];
        return i;
    };
    for (const auto& t : mesh.triangles) {
        root[find(t[1])] = find(t[0]);
        root[find(t[2])] = find(t[0]);
    }
    for (auto& r : root) r = find(r);
    return root;
}

}  // namespace jig
