#pragma once

#include "core/science/heat/growth.hpp"
#include "core/stages/heat/choices.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::heat {

struct Findings {
    std::vector<Figure> figures;
    GrowthChain chain;
    GrowthSizes sizes;
    double length = 0;      ///< m, the part's longest side
    double part_error = 0;  ///< m over that length
    double spring_in = 0;   ///< rad
    double Tg_margin = 0;   ///< K left under the tool's Tg at the top temperature
    double plug_scale = 1;  ///< to cut the plug by so that the part comes out right
};

Findings evaluate(const Choices& choices, const brief::Choices& brief, const shape::Findings& shape,
                  const plug::Findings& plug, const shell::Findings& shell, const part::Choices& part_choices,
                  const part::Findings& part);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief,
            const shell::Findings& shell, const plug::Findings& plug, const part::Choices& part);

}  // namespace jig::heat
