#pragma once

#include "core/science/mesh/slice.hpp"
#include "core/shop/shop.hpp"
#include "core/stages/plug/choices.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::plug {

struct Findings {
    std::vector<Figure> figures;
    SlabStack stack;
    Board board;
    int sheets = 0;
    double slab_area = 0;     ///< m² of slabs
    double cut_length = 0;    ///< m of cuts
    double mass = 0;          ///< kg
    double sanding_area = 0;  ///< m²
    double glue = 0;          ///< kg
    bool too_large = false;   ///< a slab goes onto no single sheet
};

Findings evaluate(const Choices& choices, const shape::Findings& shape, const split::Findings& split,
                  const Shop& shop, Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief);

}  // namespace jig::plug
