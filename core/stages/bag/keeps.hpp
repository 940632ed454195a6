// What the bag keeps of the resin: its layers, its lines.
#pragma once

#include "core/stages/bag/choices.hpp"
#include "core/stages/brief/choices.hpp"
#include "core/stages/edge/choices.hpp"
#include "core/stages/part/resin_account.hpp"

namespace jig::bag {

/// Of the layers as they are chosen, by what the library says that each keeps; of feed lines by their plan,
/// their length about as the rim asks for it (Bag follows them over the face).
part::Keepers keepers(const Choices& choices, const part::Choices& part, const edge::Choices& edge,
                      const brief::Making& brief, const Lists<Resin, Consumable>& shop);

}  // namespace jig::bag
