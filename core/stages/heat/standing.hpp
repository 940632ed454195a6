// What holds up that which stands free while it cures.
#pragma once

#include "core/science/heat/wall.hpp"

namespace jig::heat {

/// Whether a layer had gelled before the cure that it is in.
inline bool holds_shape(const WallLayer& layer) {
    return layer.resin && layer.cure >= layer.resin->gel;
}

}  // namespace jig::heat
