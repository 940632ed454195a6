// What a stack of layers comes to, as both the shell and the part show it.
#pragma once

#include "core/shop/layup.hpp"

namespace jig {

struct StackSum {
    std::vector<LaidLayer> laid;
    Laminate laminate;
    CureStrain cure;                         ///< of its resin after gel
    double fibre = 0, resin = 0, other = 0;  ///< kg/m²
    double mixed = 0;  ///< kg/m² of that resin that is mixed by hand; a prepreg's is not
    double price = 0;  ///< per m²
    [[nodiscard]] double areal_mass() const { return fibre + resin + other; }
    bool operator==(const StackSum&) const = default;
};

/// Whether that is the wall of a mould that is cut or printed itself: nothing of it is laid up.
inline bool is_solid(const std::vector<Layer>& layers) {
    return !layers.empty() && layers.front().solid != nullptr;
}
inline bool is_solid(const StackSum& sum) {
    return !sum.laid.empty() && sum.laid.front().layer.solid != nullptr;
}

/// Throws InputError naming `where`.
StackSum sum_stack(const std::vector<Layer>& layers, const Resin& resin, LayUp how, const PlyLists& shop,
                   const std::string& where);

}  // namespace jig
