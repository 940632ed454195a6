// How what the shop stocks cures, as far as its few figures tell.
#pragma once

#include "core/science/flow/viscosity.hpp"
#include "core/science/heat/cure_fit.hpp"
#include "core/shop/entries.hpp"
#include "core/shop/working.hpp"

namespace jig {

CureFamily cure_family(Family family);

/// What a shop's entry tells of its cure: a resin's, a surface coat's, an adhesive's.
// NOLINTBEGIN(google-explicit-constructor): each of them may be given wherever a cure is read.
struct CureTold {
    std::string whose;  ///< "resin \"...\""
    Family family = Family::epoxy;
    double gel_at = kShopRoom;  ///< K
    double gel_time = 0;        ///< s of a thin layer there
    double Tg = 0;              ///< K of the fully cured
    double lead = 0;            ///< K by which a long cure brings its Tg above the cure's own heat
    CureSheet sheet;
    /// What is mixed by hand gels at room temperature, prepregs at their own heat.
    CureTold(const Resin& resin);
    /// It is tacky, and so gelled, when the next pass may go on.
    CureTold(const SurfaceCoat& coat);
    /// Of one that sets.
    CureTold(const Bonding& bond);
    bool operator==(const CureTold&) const = default;
};
// NOLINTEND(google-explicit-constructor)

/// What is known of a cure: its gel time, and its data sheet.
CureData cure_data(const CureTold& told);
/// By its data sheet where the library has one (`fit_cure`); else typical of its family, brought to its gel
/// time. Where no Tg after a cure is told, its own Tg and lead hold. Throws InputError that names the entry
/// where its figures contradict one another.
Kinetics kinetics_of(const CureTold& told);
/// The fit of such a data sheet, with what it assumes and how sure it is. Throws as kinetics_of.
CureFit cure_fit(const CureTold& told);
/// The resin as it flows at `T` K, by its family's usual viscosity.
CuringResin flowing(const Resin& resin, double T);

}  // namespace jig
