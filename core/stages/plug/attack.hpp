// What a resin does to what a plug is made of.
#pragma once

#include <array>

#include "core/shop/entries.hpp"

namespace jig::plug {

enum class Substance { polystyrene, polyurethane, wood, primer, clay, tape, printed, plaster };
enum class Attack { stands, test, dissolves };

struct AttackWord {
    Substance substance;
    const char* name;
    const char* care;  ///< one sentence
};
/// All substances in the order of the table.
const std::array<AttackWord, 8>& substances();

/// General practice; the data sheet and a test patch decide.
Attack attack(Substance substance, Family resin);
/// "stands", "test first" or "dissolves".
const char* said(Attack attack);

}  // namespace jig::plug
