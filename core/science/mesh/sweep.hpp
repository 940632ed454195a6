// Mould pieces on their way out: what stands in the way of each.
#pragma once

#include <memory>

#include "core/science/mesh/pieces.hpp"

namespace jig {

/// A piece as a body: its faces, the same faces moved outwards, and walls between them along its edges.
/// Where another face is near, it is thinner: a third of the gap.
TriangleMesh thickened(const TriangleMesh& piece, const RayMesh& part, double thickness);

/// A surface as a body `thickness` m thick on its outer side.
TriangleMesh plated(const TriangleMesh& surface, double thickness);

struct Clash {
    double area = 0;    ///< m² across the way, of what meets
    double travel = 0;  ///< m of way to the first contact
};

/// Slides `moving` along a unit direction past `fixed`: rays from both, ahead and back. Contacts along the
/// way of faces that only rub do not count. `samples` rays are shared out by area. Throws Cancelled.
Clash slide_out(const TriangleMesh& moving, const TriangleMesh& fixed, const Point& direction, double samples,
                Progress& progress);

struct WayOut {
    std::size_t piece = 0;
    int turn = 0;         ///< 1 for the first that comes off; 0 where none of the rest can
    double clash = 0;     ///< m² that stand in its way when its turn comes, other pieces only
    double travel = 0;    ///< m to that contact
    int blocked_by = -1;  ///< a piece that must come off before it
    bool operator==(const WayOut&) const = default;
};

/// The order in which pieces come off: the first, with nothing in its way, then the next. Pieces that stay
/// have turn 0 and say what holds them. `thickness` m of the pieces' shells.
std::vector<WayOut> ways_out(const PieceSet& set, const RayMesh& part, double thickness, Progress& progress);

}  // namespace jig
