// Which faces touch, and where a surface ends.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

inline constexpr std::uint32_t kNoFace = 0xffffffffu;

/// An edge by its points, the lower number first.
using PointPair = std::pair<std::uint32_t, std::uint32_t>;
inline PointPair edge_of(std::uint32_t a, std::uint32_t b) {
    return std::minmax(a, b);
}

/// For each face and each of its edges k (corner k to corner k+1) the face on the other side, kNoFace at a
/// rim and where three or more faces meet. Linear in the number of faces.
struct Topology {
    std::vector<std::array<std::uint32_t, 3>> across;
    std::size_t rim_edges = 0;      ///< edges with one face
    std::size_t crowded_edges = 0;  ///< edges with three faces or more
    std::size_t turned_edges = 0;   ///< edges whose two faces disagree about outside
    [[nodiscard]] bool closed() const { return rim_edges == 0 && crowded_edges == 0; }
    bool operator==(const Topology&) const = default;
};

Topology topology_of(const TriangleMesh& mesh);

/// The rims of a surface as closed loops of point numbers, each running with its faces on the left,
/// longest first.
std::vector<std::vector<std::uint32_t>> rim_loops(const TriangleMesh& mesh, const Topology& topology);

/// Length of a closed loop, m.
double loop_length(const TriangleMesh& mesh, const std::vector<std::uint32_t>& loop);

/// Angle in radians by which the surface folds at edge `k` of `face`: positive where it folds inwards
/// (an inside corner), negative at an outside corner, zero at a rim.
double fold_at(const TriangleMesh& mesh, const Topology& topology, std::size_t face, int k);

}  // namespace jig
