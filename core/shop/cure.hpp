// How what the shop stocks cures, as far as its few figures tell.
#pragma once

#include "core/science/flow/viscosity.hpp"
#include "core/science/heat/cure_fit.hpp"
#include "core/shop/entries.hpp"

namespace jig {

inline constexpr double kShopRoom = 293.15;  ///< K at which gel times of hand-mixed resins are told

CureFamily cure_family(Family family);

/// What is known of a resin's cure: its gel time, and its data sheet.
CureData cure_data(const Resin& resin);
/// By its data sheet where the library has one (`fit_cure`); else typical of its family, brought to its gel
/// time. Where no Tg after a cure is told, its own Tg and lead hold. Prepregs gel at their own heat. Throws
/// InputError that names the resin where its figures contradict one another.
Kinetics kinetics_of(const Resin& resin);
/// The fit of such a data sheet, with what it assumes and how sure it is. Throws as kinetics_of.
CureFit cure_fit(const Resin& resin);
/// The same of a surface coat: it is tacky, and so gelled, when the next pass may go on.
Kinetics kinetics_of(const SurfaceCoat& coat);
/// The resin as it flows at `T` K, by its family's usual viscosity.
CuringResin flowing(const Resin& resin, double T);

}  // namespace jig
