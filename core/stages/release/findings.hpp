#pragma once

#include "core/stages/release/choices.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::release {

/// One coat of the plan with its clock, s from the first coat.
struct Step {
    std::string product;
    int coat = 1, of = 1;
    double at = 0, wait = 0;
    bool operator==(const Step&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    ReleaseSystem system;
    std::vector<Step> plan;
    double area = 0;       ///< m² to coat, tape land left out
    double clock = 0;      ///< s from first coat to first pull
    double work = 0;       ///< s of hands for the first use
    double work_each = 0;  ///< s of hands for each pull
    double cost_first = 0, cost_each = 0;
    double litres = 0;  ///< for the first use
    bool operator==(const Findings&) const = default;
};

Findings evaluate(const Choices& choices, const split::Findings& split, const edge::Findings& edge,
                  const Library& shop);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief,
            const shape::Findings& shape, const shell::Choices& shell);

}  // namespace jig::release
