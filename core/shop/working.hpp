// How long a resin can be worked in the shop's room.
#pragma once

#include "core/shop/entries.hpp"

namespace jig {

/// Of one resin, in a room of some heat and in pots of some size.
struct Working {
    double gel = 0;  ///< s of a thin layer until it gels
    double pot = 0;  ///< s that so much of it, mixed, lasts in its pot
    bool operator==(const Working&) const = default;
};
/// The library's gel time and pot life (a kilogram at kShopRoom), brought to this room and pot by the
/// kinetics; 1e7 s for what does not come there. What gels at a heat of its own has the library's, whatever
/// the room. Throws as kinetics_of (core/shop/cure.hpp).
Working working(const Resin& resin, double room, double pot_mass);

}  // namespace jig
