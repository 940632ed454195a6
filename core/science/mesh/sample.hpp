// Points spread evenly over a face, for rays.
#pragma once

#include <cmath>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Point `i` of `count` over a face: its middle where there is one, else an even sequence (R2, Roberts 2018)
/// folded into the triangle, begun elsewhere in every face so that like faces do not err alike.
inline Point spread_point(const TriangleMesh& mesh, std::size_t face, std::size_t i, std::size_t count) {
    if (count == 1) return mesh.centre(face);
    const auto n = static_cast<double>(i + 1), start = static_cast<double>(face % 65536);
    double u = 0.5 + 0.7548776662466927 * n + 0.6180339887498949 * start;
    double v = 0.5 + 0.5698402909980532 * n + 0.4142135623730951 * start;
    u -= std::floor(u);
    v -= std::floor(v);
    if (u + v > 1) {
        u = 1 - u;
        v = 1 - v;
    }
    const Point a = mesh.corner(face, 0);
    return a + u * (mesh.corner(face, 1) - a) + v * (mesh.corner(face, 2) - a);
}

}  // namespace jig
