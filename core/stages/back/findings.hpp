#pragma once

#include "core/stages/back/choices.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::back {

struct Sag {
    double own = 0, person = 0, bag = 0;  ///< m
    [[nodiscard]] double worst() const { return std::max(person + own, bag + own); }
};

struct Findings {
    std::vector<Figure> figures;
    double span = 0;  ///< m between supports
    Sag sag;
    double pitch_for_limit = 0;  ///< m at which the skin sags by the limit; 0 where none is close enough
    int ribs = 0;                ///< across the length and across the width together
    double rib_area = 0;         ///< m² of board
    double mass = 0;             ///< kg
};

/// Strip of shell between two ribs, simply supported (the safe side: a continuous skin sags less).
Sag sag_at(double span, const shell::Findings& shell, const Choices& choices);

Findings evaluate(const Choices& choices, const shape::Findings& shape, const split::Findings& split,
                  const edge::Findings& edge, const shell::Findings& shell, const Shop& shop);
Calls calls(const Choices& choices, const Findings& findings, const shell::Findings& shell);

}  // namespace jig::back
