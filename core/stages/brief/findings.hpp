#pragma once

#include "core/stages/brief/choices.hpp"
#include "core/stages/stage.hpp"

namespace jig::brief {

struct Findings {
    std::vector<Figure> figures;
    double plug_hours_m2 = 0;  ///< h/m² to finish plug and mould for this grade
    double part_hours_m2 = 0;  ///< h/m² to finish each part where the mould is left structural
    double break_even = 0;     ///< pulls from which finishing the plug costs less than finishing every part
    bool operator==(const Findings&) const = default;
};

/// All of the brief but its names.
using Figured = Of<Series, Wanted, Making, Limits, Router, Rooms, Crew, Pump>;

Findings evaluate(const Figured& choices, const Library& shop);
Calls calls(const Choices& choices, const Findings& findings);

}  // namespace jig::brief
