#pragma once

#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/pull.hpp"
#include "core/stages/shape/findings.hpp"
#include "core/stages/split/choices.hpp"

namespace jig::split {

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
};

/// Throws InputError for a pull without length; Cancelled.
Findings evaluate(const Choices& choices, const shape::Findings& shape, Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const shape::Findings& shape);

}  // namespace jig::split
