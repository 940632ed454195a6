// Quantities as makers type and paste them.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/units.hpp"

namespace jig {

/// What a text says: a value, or a question where it may mean two things, or neither.
struct Typed {
    std::optional<double> value;  ///< SI
    std::string question;         ///< "is it 1.2 or 1200?"; empty where there is none
};

/// Reads "12,5", "1 200", "1,200.5", "1.200,5", "1 1/2 in", "1-1/2\"", "¾\"", "½ in", "5' 6\"", "2e6", "30
/// lbs", "4 thou", "300 g/m^2", and whatever `show` writes. Without a unit it is in the one that is shown.
/// "1,200" alone is a question. Does not depend on the locale.
Typed read_typed(Kind kind, std::string_view text, const Wording& wording = {});

}  // namespace jig
