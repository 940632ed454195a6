#include "core/stages/pots.hpp"

#include <fmt/format.h>

#include "core/science/heat/pot.hpp"
#include "core/shop/cure.hpp"

namespace jig {

Figure full_pot(const Resin& resin, double mass, double room) {
    const auto left = left_standing(kinetics_of(resin), mass, room);
    return {"pot_peak", "a full pot left standing comes to", Kind::temperature, left.T,
            fmt::format(
                "{} as tall as wide, in still air of {}, after {}; {}. Mix less, use it at once, spread out "
                "what is over",
                quantity(Kind::mass, mass), quantity(Kind::temperature, room),
                quantity(Kind::duration, left.time),
                resin.cures.empty() ? "typical kinetics of the family brought to the resin's own gel time"
                                    : "by the resin's data sheet")};
}

}  // namespace jig
