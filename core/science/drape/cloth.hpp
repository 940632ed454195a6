// The face laid out on the flat cloth.
#pragma once

#include "core/science/drape/net.hpp"
#include "core/science/drape/walk.hpp"

namespace jig {

inline constexpr std::uint32_t kNoNode = 0xffffffffu;  ///< nor face, of a net

inline OnMesh place_of(const DrapeNode& node) {
    return {node.at, node.face, node.outside};
}

/// The net of one piece of cloth, whose slits have been opened; `sides` are of this mesh.
Drape drape_piece(const TriangleMesh& mesh, const Topology& topology, const DrapeRules& rules,
                  const Sides& sides, Progress& progress);

/// Puts every point of the face that the net's cells reach onto the flat cloth, and sums up what lies there:
/// areas, shear, box of the pattern, and the patches that no cloth reaches.
void lay_on_cloth(Drape& drape, const TriangleMesh& mesh, const Topology& topology, const MeshWalk& walk,
                  const DrapeRules& rules, const Sides& sides);

}  // namespace jig
