#pragma once

#include "core/shop/stack_figures.hpp"
#include "core/stages/edge/findings.hpp"
#include "core/stages/plug/findings.hpp"
#include "core/stages/shell/choices.hpp"

namespace jig::shell {

struct Findings {
    std::vector<Figure> figures;
    StackSum stack;
    Resin resin;
    double area = 0;        ///< m², shell and flange
    double mass = 0;        ///< kg
    double resin_mass = 0;  ///< kg to mix, waste counted
    double bow = 0;         ///< m over the longest side on cooling from the post-cure, back left off
    std::vector<std::size_t> day_ends;  ///< layers after which to stop for the day
    int days = 1;
    double bridging_radius = 0;  ///< m, corners tighter than this are bridged by the cloth
    TightCorners corners;        ///< of the plug, under the shell
    double Tg = 0;               ///< K, the lower of resin and surface coat
};

Findings evaluate(const Choices& choices, const shape::Findings& shape, const split::Findings& split,
                  const edge::Findings& edge, const Shop& shop);
Calls calls(const Choices& choices, const Findings& findings, const plug::Choices& plug,
            const plug::Findings& plug_findings, const brief::Choices& brief, bool has_back);

}  // namespace jig::shell
