// The part's cloth as it lies on the face.
#pragma once

#include <algorithm>

#include "core/base/shared.hpp"
#include "core/science/drape/net.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/part/choices.hpp"

namespace jig::part {

/// What draping reads of the part: its plies by cloth and angle, and where they start.
struct ClothAsked {
    struct Ply {
        Source of;
        std::string material;
        double angle = 0;
        bool operator==(const Ply&) const = default;
    };
    std::vector<Ply> plies;
    DrapeStart start;
    bool operator==(const ClothAsked&) const = default;
};
ClothAsked cloth_asked(const Choices& choices);

/// One net, and the plies that lie so.
struct ClothNet {
    double angle = 0;  ///< rad from the ply's zero, in [0, π/2) for what is woven, in [0, π) for what is not
    std::vector<Source> plies;
    std::string tightest;  ///< the cloth of them that locks first
    double lock = 0;       ///< rad
    Drape drape;
    [[nodiscard]] bool carries(const Source& ply) const {
        return std::find(plies.begin(), plies.end(), ply) != plies.end();
    }
    bool operator==(const ClothNet&) const = default;
};

struct Draped {
    Shared<TriangleMesh> face;  ///< as it was draped; none where there is none
    Point seed = Point::Zero();
    double cell = 0;  ///< m
    double area = 0;  ///< m²
    std::vector<ClothNet> nets;
    /// The one that is worst: the most of it locked, then the most sheared; null without any.
    [[nodiscard]] const ClothNet* worst() const;
    bool operator==(const Draped&) const = default;
};

/// Shear at which a cloth wrinkles: its own, or the usual of its weave, rad.
double locks_at(const Reinforcement& cloth);

/// Mat is left out: it is torn, not sheared; so is what the library has not, which the part itself says.
/// Throws Cancelled.
Draped draped(const ClothAsked& asked, const edge::ToolFace& tool, const Lists<Reinforcement>& shop,
              Progress& progress);

}  // namespace jig::part
