// A build counted in the shop's own thickness units: each cloth is worth so many of the unit cloth.
#pragma once

#include "core/stages/shell/choices.hpp"

namespace jig::shell {

/// Whether a layer is a ply that counts: neither coat nor core nor tissue. Throws InputError for materials
/// that the library has not.
bool is_cloth(const Layer& layer, const Library& shop);

/// What a ply of `material` counts: the shop's own figure in its library, or its thickness over that of one
/// ply of the unit cloth, both laid the choice's way. Throws InputError for materials that the library has
/// not.
double units_of(const std::string& material, const Choices& choices, const Library& shop);

/// What layers count together: plies of cloth; coats, tissue and cores stand apart.
double units_of(const std::vector<Layer>& layers, const Choices& choices, const Library& shop);

/// Layers as a shop writes them down, ply by ply from the plug out: "1 + 1.9 + 4 × 5.7 + core + 5.7".
std::string in_units(const std::vector<Layer>& layers, const Choices& choices, const Library& shop);

/// Layers from what a maker types. A list as `in_units` writes it names each ply by what it is worth; plies
/// that stay at either end keep their angle and measured thickness, new ones lie at 0 and 45° in turn. One
/// number alone is what all plies are to count: a mirrored stack of the stack's cloths, light to heavy, that
/// comes nearest with the fewest plies and without leaving a step out; for a doubler just the fewest plies.
/// Coats and tissue stay. `doubler` is null for the common stack. Throws InputError where the text is
/// neither, no cloth of the fibre is worth a number within a sixth, or over 500 units or 200 plies are asked
/// for.
std::vector<Layer> from_units(const std::string& typed, const Choices& choices, const Zone* doubler,
                              const Library& shop);

}  // namespace jig::shell
