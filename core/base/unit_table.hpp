#pragma once

#include <vector>

#include "core/base/units.hpp"

namespace jig {

/// shown = si / scale - offset
struct Unit {
    const char* sign;
    double scale;
    double offset = 0;
};

/// The units of a kind: metric default, imperial default.
std::vector<Unit> units_of(Kind kind);
/// Those, and all others that may be typed.
std::vector<Unit> typed_units(Kind kind);

}  // namespace jig
