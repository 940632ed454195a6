#include "core/shop/cure.hpp"

namespace jig {

CureFamily cure_family(Family family) {
    if (family == Family::plaster) return CureFamily::mineral;
    return has_styrene(family) ? CureFamily::styrene : CureFamily::epoxy;
}

Kinetics kinetics_of(const Resin& r) {
    return kinetics_by_gel(cure_family(r.family), r.in_cloth ? r.gel_temperature : kShopRoom, r.gel_time,
                           r.Tg, r.Tg_lead);
}

Kinetics kinetics_of(const SurfaceCoat& c) {
    return kinetics_by_gel(cure_family(c.family), kShopRoom, c.between_passes, c.Tg, c.Tg_lead);
}

CuringResin flowing(const Resin& r, double T) {
    CuringResin out;
    out.kinetics = kinetics_of(r);
    out.T = T;
    out.T_known = kShopRoom;
    out.mu = r.viscosity;
    return out;
}

}  // namespace jig
