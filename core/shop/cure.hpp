// How what the shop stocks cures, as far as its few figures tell.
#pragma once

#include "core/science/flow/viscosity.hpp"
#include "core/science/heat/cure_fit.hpp"
#include "core/shop/entries.hpp"

namespace jig {

inline constexpr double kShopRoom = 293.15;  ///< K at which gel times of hand-mixed resins are told

CureFamily cure_family(Family family);

/// Typical of its family, brought to its gel time and its Tg. Prepregs gel at their own heat.
Kinetics kinetics_of(const Resin& resin);
/// The same of a surface coat: it is tacky, and so gelled, when the next pass may go on.
Kinetics kinetics_of(const SurfaceCoat& coat);
/// The resin as it flows at `T` K, by its family's usual viscosity.
CuringResin flowing(const Resin& resin, double T);

}  // namespace jig
