// Sheets of shell laid into space, of one plain material.
#pragma once

#include <array>
#include <functional>

#include "core/science/laminate/stack.hpp"
#include "core/science/shell/system.hpp"

namespace fixtures {

using namespace jig;
using shell_fe::Model;

inline jig::Laminate plate(double E, double nu, double h, double alpha = 0, double density = 1000) {
    const std::vector<StackPly> one{{isotropic(E, nu, density, alpha), 0, h}};
    return laminate(one);
}

/// Points on a grid of n × m cells laid into space, appended to a mesh; returns the first new point.
inline std::uint32_t sheet(TriangleMesh& mesh, int n, int m,
                           const std::function<Point(double, double)>& place, bool round = false) {
    const auto first = static_cast<std::uint32_t>(mesh.points.size());
    const int across = round ? n : n + 1;
    for (int j = 0; j <= m; ++j) {
        for (int i = 0; i < across; ++i)
            mesh.points.push_back(place(static_cast<double>(i) / n, static_cast<double>(j) / m));
    }
    const auto at = [&](int i, int j) { return first + static_cast<std::uint32_t>(j * across + i % across); };
    for (int j = 0; j < m; ++j) {
        for (int i = 0; i < n; ++i) {
            mesh.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            mesh.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    return first;
}

/// A scrap of shell that touches nothing, so that a structure of bars has a mesh at all.
inline void add_scrap(Model& model) {
    const auto i = static_cast<std::uint32_t>(model.mesh.points.size());
    for (const auto& p : {Point(9, 9, 9), Point(10, 9, 9), Point(9, 10, 9)}) model.mesh.points.push_back(p);
    model.mesh.triangles.push_back({i, i + 1, i + 2});
    model.skins = {{plate(1e9, 0.3, 0.01), Point::UnitX()}};
}

inline constexpr std::array<bool, 6> kAll{true, true, true, true, true, true};

}  // namespace fixtures
