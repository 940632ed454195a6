#pragma once

#include "core/shop/shop.hpp"
#include "core/stages/edge/choices.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::edge {

struct Findings {
    std::vector<Figure> figures;
    double width = 0, area = 0, rim_length = 0, tape_length = 0;
    double seam_area = 0;       ///< m² of `area` that runs along the seams between pieces
    double tape_land_area = 0;  ///< m² that must stay free of release
    int bolts = 0;
    Loops outer;       ///< outside of the flange in the pull's frame
    Loops tape_inner;  ///< where the tape land starts
};

Findings evaluate(const Choices& choices, const split::Findings& split, const brief::Choices& brief,
                  const Shop& shop);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief);

}  // namespace jig::edge
