// What a hard point in a sandwich bears: its pull out of the core and its push along the skins.
#pragma once

#include <cmath>

#include "core/base/units.hpp"

namespace jig {

/// N square to the face that a potting or block `across` m wide, from skin to skin of a core `core` m thick,
/// bears until the core shears round it: π·across·core·τ. What the skins carry past it is left out, as in the
/// first estimate of ESA PSS-03-1202 (1987), section 6: the answer errs to the safe side.
inline double pull_out(double across, double core, double shear_strength) {
    return kPi * across * core * shear_strength;
}

/// N along a skin `skin` m thick that a pin `across` m wide bears: d·t·σ, the nominal bearing stress.
inline double bearing_load(double across, double skin, double bearing_strength) {
    return across * skin * bearing_strength;
}

/// Times both loads together that it holds: (pull/P)² + (along/Q)² = 1 (ESA PSS-03-1202, section 6). Infinite
/// without load; 0 where what is loaded bears nothing.
inline double hard_point_holds(double pull, double pull_borne, double along, double along_borne) {
    const auto share = [](double load, double borne) {
        return load <= 0 ? 0.0 : borne > 0 ? load / borne : HUGE_VAL;
    };
    const double used = std::hypot(share(pull, pull_borne), share(along, along_borne));
    return used > 0 ? 1 / used : HUGE_VAL;
}

}  // namespace jig
