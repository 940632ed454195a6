#pragma once

#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/pull.hpp"
#include "core/science/mesh/sweep.hpp"
#include "core/stages/shape/findings.hpp"
#include "core/stages/split/board.hpp"

namespace jig::split {

/// What a maker needs to know of one piece of the mould.
struct PieceFacts {
    std::string name;
    WayOut way;
    double mouth = 0;  ///< m, the largest circle that goes into the piece's opening
    double depth = 0;  ///< m from that opening to its deepest place
};

struct Findings {
    std::vector<Figure> figures;
    Point pull = Point::UnitZ();
    Frame frame;  ///< across the pull
    DraftMap map;
    std::vector<PullCandidate> candidates;
    double moulded_area = 0;   ///< m², without the open foot
    double foot = 0;           ///< m along the pull, where the flange lies
    double section_width = 0;  ///< m, developed, mean of sections across the longest side
    double section_second =
        0;     ///< m³, ∫(h - mean)² ds along those sections: what the shape adds to the skin's stiffness
    Loop rim;  ///< outline of the rim seen along the pull, anticlockwise
    double drag_angle = 0;          ///< rad, as chosen or as the surface wants it
    std::vector<Line> zero_lines;   ///< where the draft is zero along the pull
    PieceSet set;                   ///< empty where the mould is one piece
    std::vector<PieceFacts> facts;  ///< of each piece
    std::vector<Board> boards;
    double widest = 0;  ///< m along the pull, of the widest line
    double mouth = 0;   ///< m, the largest circle that goes into the whole mould's opening
    [[nodiscard]] bool one_piece() const { return set.pieces.empty(); }
};

/// Draft below which a face of this grade scuffs, typical.
double drag_angle_for(Grade grade);

/// Throws InputError for a pull or plane without length and for a plane that misses the part; Cancelled.
Findings evaluate(const Choices& choices, const shape::Findings& shape, const brief::Choices& brief,
                  Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const shape::Findings& shape);

}  // namespace jig::split
