// What the part's folds do as it cures and cools (docs/methods.md, Spring-in).
#pragma once

#include "core/base/shared.hpp"
#include "core/science/heat/growth.hpp"
#include "core/science/mesh/folds.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/heat/choices.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/part/regions.hpp"
#include "core/stages/stage.hpp"

namespace jig::heat {

/// The folds of the face that the part is laid on; of a split mould, of the piece that Edge has chosen.
struct FaceFolds {
    Shared<TriangleMesh> face;  ///< none where there is no tool
    Shared<std::vector<Fold>> folds;
    Frame frame;
    std::vector<std::string> where;  ///< by fold, in words
    bool operator==(const FaceFolds&) const = default;
};
/// Throws Cancelled.
FaceFolds face_folds(const edge::ToolFace& tool, Progress& progress);

/// How much of a fold's area lies where these zones of the part do, as bits.
struct FoldShare {
    std::uint32_t zones = 0;
    double share = 1;
    bool operator==(const FoldShare&) const = default;
};
/// By fold; its shares come to 1.
struct FoldZones {
    std::vector<std::vector<FoldShare>> of;
    bool operator==(const FoldZones&) const = default;
};
/// By the middles of the faces that folds are made of.
FoldZones fold_zones(const FaceFolds& on, const part::ZonesAsked& zones, const part::Draped& bare);

/// A fold of the part, and what is done against it.
struct FoldCloses {
    double alpha = 0;   ///< 1/K along the face across the fold, on the mean along it
    double zoned = 0;   ///< share of it that lies in zones
    double closes = 0;  ///< rad by which the part turns more than its tool; negative where it opens
    double build = 0;   ///< rad that the tool must turn by there, so that the part comes out as drawn
    double swings = 0;  ///< m of its shorter flank that do so
    double moves = 0;   ///< m by which that ends up inwards of what was drawn
    bool operator==(const FoldCloses&) const = default;
};
struct FoldsUse {
    FaceFolds on;
    std::vector<FoldCloses> all;  ///< by fold of the face
    /// Number of the one that moves furthest; none without a fold.
    [[nodiscard]] std::optional<std::size_t> worst() const;
    bool operator==(const FoldsUse&) const = default;
};

/// Each fold turns by its own expansion across it: the part's stack, turned as Part lays it. A fold that
/// zones lie on turns by the mean of what their stacks do alone, by their shares of it.
FoldsUse folds_use(const FaceFolds& on, const FoldZones& zones, const GrowthChain& chain,
                   const part::Choices& part, const part::Findings& laid);

void fold_figures(const Choices& choices, const FoldsUse& use, std::vector<Figure>& out);
void fold_calls(const Choices& choices, const FoldsUse& use, double tolerance, Calls& out);

}  // namespace jig::heat
