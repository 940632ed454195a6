#pragma once

#include "core/base/shared.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/pull.hpp"
#include "core/science/mesh/sweep.hpp"
#include "core/shop/shop.hpp"
#include "core/stages/shape/findings.hpp"
#include "core/stages/split/board.hpp"
#include "core/stages/split/layout.hpp"

namespace jig::split {

/// What a maker needs to know of one piece of the mould.
struct PieceFacts {
    std::string name;
    WayOut way;
    double mouth = 0;        ///< m, the largest circle that goes into any of the piece's openings
    std::vector<char> show;  ///< by face of the piece, what is show surface; empty for none
    double depth = 0;        ///< m from that opening to its deepest place
    bool operator==(const PieceFacts&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    Point pull = Point::UnitZ();
    Frame frame;  ///< across the pull
    DraftMap map;
    std::vector<PullCandidate> candidates;
    double moulded_area = 0;   ///< m² of one part, without the open foot
    double foot = 0;           ///< m along the pull, where the flange lies
    double section_width = 0;  ///< m, developed, mean of sections across the longest side
    double section_second =
        0;     ///< m³, ∫(h - mean)² ds along those sections: what the shape adds to the skin's stiffness
    Loop rim;  ///< outline of one part's rim seen along the pull, anticlockwise
    Loops rims;                     ///< of all parts where they lie in the mould
    Loops joined;                   ///< one outline round them and the flange between
    std::vector<PartPlace> places;  ///< of every part that the mould makes at once
    Shared<Stood> stood;            ///< all of them as one surface; none for a part alone
    Point2 size = Point2::Zero();   ///< m, length and width of the mould without its flange
    double drag_angle = 0;          ///< rad, as chosen or as the surface wants it
    std::vector<Line> zero_lines;   ///< where the draft is zero along the pull
    PieceSet set;                   ///< empty where the mould is one piece
    std::vector<PieceFacts> facts;  ///< of each piece
    std::vector<Board> boards;
    double widest = 0;        ///< m along the pull, of the widest line
    double mouth = 0;         ///< m, the largest circle that goes into the whole mould's opening
    std::vector<char> show;   ///< by face of the part; empty where nothing is shown
    double seam_on_show = 0;  ///< m of seam across show surface
    [[nodiscard]] int parts() const { return static_cast<int>(places.size()); }
    /// m² of all parts that the mould makes at once.
    [[nodiscard]] double mould_area() const { return parts() * moulded_area; }
    [[nodiscard]] bool one_piece() const { return set.pieces.empty(); }
    bool operator==(const Findings&) const = default;
};

/// Draft below which a face of this grade scuffs, typical.
double drag_angle_for(Grade grade);

/// The surface that the mould is taken from: the part, or all of them where several lie together.
const TriangleMesh& mould_mesh(const shape::Findings& shape, const Findings& split);
const Topology& mould_topology(const shape::Findings& shape, const Findings& split);

/// What a split takes from brief and shop.
struct Asked {
    double drag_angle = 0;        ///< rad, as chosen or as the surface wants it
    int pulls = 0;                ///< 0 where no figure is about them
    double dowel = 0, stock = 0;  ///< m, diameter and thickness of what is chosen
    bool operator==(const Asked&) const = default;
};
/// Throws InputError for names that the library does not have.
Asked asked(const Choices& choices, const brief::Of<brief::Wanted, brief::Series>& brief,
            const Library& shop);

/// Throws InputError for a pull or plane without length and for a plane that misses the part; Cancelled.
Findings evaluate(const Choices& choices, const shape::Findings& shape, const Asked& asked,
                  Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const shape::Findings& shape);

}  // namespace jig::split
