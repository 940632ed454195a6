// What holds up that which stands free while it cures.
#pragma once

#include "core/stages/heat/cures.hpp"

namespace jig::heat {

/// Whether a layer had gelled before the cure that it is in.
inline bool holds_shape(const WallLayer& layer) {
    return layer.resin && layer.cure >= layer.resin->gel;
}

/// Whether that place of a cure is judged for sagging: a shell does not hang on what its back is glued with,
/// whose own limit is called.
inline bool may_sag(CureOf of, std::optional<std::size_t> place) {
    return of_part(of) || place != kAtJoint;
}

}  // namespace jig::heat
