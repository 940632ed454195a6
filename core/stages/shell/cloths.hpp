// The cloths that a stack is built from, and stacks built from counts of them.
#pragma once

#include "core/shop/layup.hpp"
#include "core/stages/shell/choices.hpp"

namespace jig::shell {

/// A stack taken apart: its coats and tissue stand at the tool face, its cloths are counted, its first core
/// lies in the middle.
struct Cloths {
    std::vector<Layer> face;         ///< coats, then tissue
    std::vector<std::string> names;  ///< each cloth once, lightest first
    std::vector<Layer> core;         ///< one or none
    bool turned = true;  ///< every other ply by 45°; not where there is mat, which is alike all ways
};

/// Of the choice's own stack, or of its school's start where it has no layer. Throws InputError for
/// materials that the library has not, and where no cloth is left.
Cloths cloths_of(const Choices& like, const Library& shop);

/// Half a stack from `counts` of each cloth, light to heavy, mirrored about the core or about one more ply
/// of cloth number `middle` (-1 for none).
std::vector<Layer> mirrored(const Cloths& cloths, const std::vector<int>& counts, int middle = -1);

}  // namespace jig::shell
