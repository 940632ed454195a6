// How a ply's cloth lies flat before it is laid on the face.
#pragma once

#include <optional>

#include "core/science/mesh/outline.hpp"
#include "core/stages/part/draped.hpp"

namespace jig::part {

/// The face on a flat cloth, its roll along x. Outlived by the face.
class FlatCloth {
  public:
    /// The face's rims on it, holes the other way round than what holds them; empty where no cloth lies.
    Loops whole;
    /// Stretch that it needs to lie on the face, as Flattened has it; 0 of what shears.
    double most = 0, usual = 0;
    /// Both flanks of each cut, as open lines.
    std::vector<Loop> flanks;
    /// What would have to lie there twice, since a cut opens as it is laid: as large as what stays bare.
    Loops twice;
    /// Larger by `trim` m along the face's rims and by half of `lap` m along cuts.
    [[nodiscard]] Loops grown(double trim, double lap) const;
    /// Where a place of a triangle of the face comes to lie; none where no cloth does.
    [[nodiscard]] std::optional<Point2> at(std::uint32_t face, const Point& place) const;

    /// By its net, which lies along its threads; `angle` is the ply's, rad.
    static FlatCloth sheared(const ClothNet& net, const Draped& draped, const Frame& frame, double angle);
    /// Turned so that where each piece of it is laid down first, its roll lies as a ply at `angle` rad does
    /// there. None where a piece cannot be laid flat: it has several or no rims, or would come to lie on
    /// itself other than where it is cut.
    static std::optional<FlatCloth> stretched(const Draped& draped, const Frame& frame,
                                              const std::vector<CutAs>& cuts, double angle,
                                              Progress& progress);

  private:
    /// Rims, flanks and what lies twice, from where the triangles lie.
    void see_cuts(const ClothCuts& cuts);

    const TriangleMesh* face_ = nullptr;
    std::vector<Loop> rims_;  ///< as open lines; known where there are cuts
    /// Where each triangle's corners lie; none where no cloth does.
    std::vector<std::optional<std::array<Point2, 3>>> corners_;
};

/// Each ply's cloth as it lies flat: woven as its net shears, tape and mat with as little stretch as may be.
/// Outlived by what it is made of.
class FlatCloths {
  public:
    /// `turn` is that of the plies' zero, rad.
    FlatCloths(double turn, const Draped& draped, const Frame& frame)
        : turn_(turn), draped_(draped), frame_(frame) {}
    /// Null where the face cannot be laid flat for it; good until the next is asked for. Throws Cancelled.
    const FlatCloth* of(const Source& ply, double angle, const Reinforcement& cloth, Progress& progress);

  private:
    double turn_;
    const Draped& draped_;
    const Frame& frame_;
    std::optional<FlatCloth> last_;
    /// Laid out once for each way that a roll lies and that it is cut.
    std::map<std::pair<double, std::vector<CutAs>>, std::optional<FlatCloth>> stretched_;
};

/// m of a roll's width that its edges take.
inline constexpr double kSelvedge = 0.02;

/// m/m by which a mat that is wet may be drawn out, and a tape along or across its threads, where the library
/// does not say: typical.
inline constexpr double kMatGives = 0.08, kTapeGives = 0.02;
inline double may_stretch(const Reinforcement& cloth) {
    if (cloth.stretches > 0) return cloth.stretches;
    return cloth.weave == Weave::mat ? kMatGives : kTapeGives;
}

}  // namespace jig::part
