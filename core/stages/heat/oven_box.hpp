// Brief's oven, built as the library says.
#pragma once

#include "core/science/heat/oven.hpp"
#include "core/shop/entries.hpp"
#include "core/stages/brief/choices.hpp"

namespace jig::heat {

/// Empty but for its lining.
inline OvenBox box_of(const brief::Rooms& size, const OvenBuild& build) {
    const double x = size.oven_x, y = size.oven_y, z = size.oven_z;
    OvenBox out;
    out.area = 2 * (x * y + y * z + z * x);
    out.volume = x * y * z;
    out.walls = build.walls;
    out.lining = build.lining;
    out.changes = build.changes;
    return out;
}

}  // namespace jig::heat
