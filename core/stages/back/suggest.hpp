// Rib pitch and places of feet, found by solving the tool again and again.
#pragma once

#include "core/stages/back/trial.hpp"

namespace jig::back {

struct Tried {
    double value = 0;  ///< pitch in m, or inset as a share
    QuickSag sag;
    bool operator==(const Tried&) const = default;
};

struct Suggestion {
    std::vector<Tried> pitches;  ///< widest first
    std::vector<Tried> insets;   ///< at the pitch that was taken
    double pitch = 0;            ///< m, the widest that holds both limits; the closest tried where none does
    bool holds = false;
    double inset = 0;  ///< share that sags least under the tool's own weight
    bool operator==(const Suggestion&) const = default;
};

/// Solves the tool at about eight pitches and six insets of its feet. Throws InputError for a back without
/// ribs; Cancelled.
Suggestion suggest(ToolInputs in, Progress& progress);

}  // namespace jig::back
