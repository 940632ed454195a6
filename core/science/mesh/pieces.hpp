// A mould in several pieces: which pulls free every face, and where the seams run.
#pragma once

#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/draft.hpp"
#include "core/science/mesh/paint.hpp"

namespace jig {

struct Piece {
    Point direction = Point::UnitZ();
    TriangleMesh mesh;  ///< the faces that it forms
    DraftMap map;       ///< of `mesh` along `direction`, the whole part in the way
    bool operator==(const Piece&) const = default;
};

struct PieceSet {
    std::vector<Piece> pieces;
    std::vector<Line> seams;
    double seam_length = 0;  ///< m; steps of the mesh are smoothed out of it where the surface is gentle
    [[nodiscard]] double locks() const {
        double sum = 0;
        for (const auto& p : pieces) sum += p.map.locks;
        return sum;
    }
    bool operator==(const PieceSet&) const = default;
};

struct PieceRules {
    int count = 2;                 ///< 1 to 6
    double drag_angle = 0.0175;    ///< rad
    std::vector<char> show;        ///< by face, true on show surface: seams keep away; empty for none
    std::vector<Painted> painted;  ///< over it; given faces go to the piece whose pull is nearest
};

/// Whether each face is free along a unit direction: it does not turn away (beyond 0.01°) and no ray from its
/// middle along the direction meets the part.
std::vector<char> free_along(const TriangleMesh& mesh, const RayMesh& rays, const Point& direction,
                             Progress& progress);

/// Proposes pulls (pull_search.hpp) and seams. Every face that only one pull frees belongs to it, and so does
/// what the maker gave to a piece by hand; the rest is shared out so that the seams are short (minimum cut,
/// Boykov, Veksler & Zabih 2001). Throws Cancelled.
PieceSet find_pieces(const TriangleMesh& part, const RayMesh& rays, const PieceRules& rules,
                     Progress& progress);

/// Two pieces parted by a plane, each with the pull that frees most of it, starting with the plane's normal.
/// Throws InputError where the plane misses the part; Cancelled.
PieceSet pieces_by_plane(const TriangleMesh& mesh, const RayMesh& rays, const Point& at, const Point& normal,
                         double drag_angle, Progress& progress);

}  // namespace jig
