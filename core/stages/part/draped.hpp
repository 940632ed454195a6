// The part's cloth as it lies on the face.
#pragma once

#include <algorithm>
#include <map>

#include "core/base/shared.hpp"
#include "core/science/drape/net.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/part/choices.hpp"

namespace jig::part {

/// A cut as one ply has it.
struct CutAs {
    std::size_t cut = 0;
    int aside = 0;  ///< steps to the left of where it is drawn
    auto operator<=>(const CutAs&) const = default;
};

/// What draping reads of the part: its plies by cloth, angle and cuts, and where they start.
struct ClothAsked {
    struct Ply {
        Source of;
        std::string material;
        double angle = 0;
        std::vector<CutAs> cuts;
        bool operator==(const Ply&) const = default;
    };
    std::vector<Ply> plies;
    DrapeStart start;
    std::vector<Cut> cuts;
    bool operator==(const ClothAsked&) const = default;
};
ClothAsked cloth_asked(const Choices& choices);

/// One net, and the plies that lie so.
struct ClothNet {
    double angle = 0;  ///< rad from the ply's zero, in [0, π/2) for what is woven, in [0, π) for what is not
    std::vector<Source> plies;
    std::string tightest;  ///< the cloth of them that locks first
    double lock = 0;       ///< rad
    std::vector<CutAs> cuts;
    Drape drape;
    [[nodiscard]] bool carries(const Source& ply) const {
        return std::find(plies.begin(), plies.end(), ply) != plies.end();
    }
    bool operator==(const ClothNet&) const = default;
};

/// A cut on the face.
struct LaidCut {
    CutAs as;
    SeenLine seen;                     ///< along the pull
    std::vector<PointPair> edges;      ///< of the draped face; none where it lies beside it
    std::vector<Drape::Meeting> line;  ///< the same, to be drawn
    double length = 0;                 ///< m
    bool operator==(const LaidCut&) const = default;
};

struct Draped {
    Shared<TriangleMesh> face;  ///< as it was draped, cuts along its edges; none where there is none
    int piece = 0;              ///< number of the mould's piece that it is of; 0 of a mould in one
    Point seed = Point::Zero();
    double cell = 0;  ///< m
    double area = 0;  ///< m²
    std::vector<ClothNet> nets;
    std::vector<LaidCut> cuts;  ///< once for each way that plies have them
    std::map<Source, std::vector<CutAs>> cut_plies;
    /// Some of the cuts together.
    [[nodiscard]] ClothCuts together(const std::vector<CutAs>& cuts, const Frame& frame) const;
    /// The one that is worst: the most of it locked, then the most sheared; null without any.
    [[nodiscard]] const ClothNet* worst() const;
    bool operator==(const Draped&) const = default;
};

/// Shear at which a cloth wrinkles: its own, or the usual of its weave, rad.
double locks_at(const Reinforcement& cloth);

/// Mat is left out: it is torn, not sheared; so is what the library has not, which the part itself says.
/// Throws InputError for more than `kMostCuts`; Cancelled.
Draped draped(const ClothAsked& asked, const edge::ToolFace& tool, const Lists<Reinforcement>& shop,
              Progress& progress);

/// The moulded face of one piece of a mould in the triangles that cloth is laid on, without the cloth. Throws
/// Cancelled.
Draped bare_face(const ClothAsked& asked, const Piece& piece, int number, Progress& progress);

}  // namespace jig::part
