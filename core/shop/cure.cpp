#include "core/shop/cure.hpp"

#include <deque>
#include <mutex>

#include "core/science/heat/pot.hpp"

namespace jig {
namespace {

/// A fit takes longer than all that asks for it: the last ones are kept, whoever asks.
CureFit fit_kept(const CureTold& told, const auto& fit) {
    static std::mutex door;
    static std::deque<std::pair<CureTold, CureFit>> kept;
    {
        const std::scoped_lock lock(door);
        for (const auto& [known, out] : kept) {
            if (known == told) return out;
        }
    }
    const auto out = fit();
    const std::scoped_lock lock(door);
    kept.emplace_front(told, out);
    if (kept.size() > 40) kept.pop_back();
    return out;
}

}  // namespace

CureTold::CureTold(const Resin& r)
    : whose("resin \"" + r.name + "\""),
      family(r.family),
      gel_at(r.in_cloth ? r.gel_temperature : kShopRoom),
      gel_time(r.gel_time),
      Tg(r.Tg),
      lead(r.Tg_lead),
      sheet(r.cures) {}

CureTold::CureTold(const SurfaceCoat& c)
    : whose("surface coat \"" + c.name + "\""),
      family(c.family),
      gel_time(c.between_passes),
      Tg(c.Tg),
      lead(c.Tg_lead),
      sheet(c.cures) {}

CureTold::CureTold(const Bonding& b)
    : whose("adhesive \"" + b.name + "\""),
      family(b.family),
      gel_time(b.gel_time),
      Tg(b.Tg),
      lead(b.Tg_lead),
      sheet(b.cures) {}

CureFamily cure_family(Family family) {
    if (family == Family::plaster) return CureFamily::mineral;
    return has_styrene(family) ? CureFamily::styrene : CureFamily::epoxy;
}

CureData cure_data(const CureTold& told) {
    CureData out;
    out.family = cure_family(told.family);
    out.gels.push_back({told.gel_at, told.gel_time});
    for (const auto& g : told.sheet.gels) out.gels.push_back({g.T, g.time});
    const auto& pot = told.sheet.pot;
    if (pot.mass > 0) out.pot = CureData::Pot{pot.mass, pot.start, pot.peak, pot.time};
    if (told.sheet.heat > 0) out.heat = told.sheet.heat;
    for (const auto& g : told.sheet.glass) out.glass.push_back({g.cure_T, g.cure_time, g.Tg});
    if (out.glass.empty() && out.family != CureFamily::mineral) {
        // Its own Tg is that of the fully cured resin: what a long cure well above it leaves.
        out.glass.push_back({told.Tg + 60, 1e6, told.Tg});
        out.lead = told.lead;
    }
    return out;
}

CureFit cure_fit(const CureTold& told) {
    return fit_kept(told, [&] {
        try {
            return fit_cure(cure_data(told));
        } catch (const InputError& e) {
            throw InputError(told.whose + ", " + e.where(), e.problem(), e.mend());
        }
    });
}

Kinetics kinetics_of(const CureTold& told) {
    if (!told.sheet.empty()) return cure_fit(told).kinetics;
    return kinetics_by_gel(cure_family(told.family), told.gel_at, told.gel_time, told.Tg, told.lead);
}

Working working(const Resin& resin, double room, double pot_mass) {
    if (resin.in_cloth || resin.family == Family::plaster) return {resin.gel_time, resin.pot_life};
    const auto k = kinetics_of(resin);
    constexpr double kForever = 1e7;
    const auto gels = [&](double T) { return gel_time(k, T).value_or(kForever); };
    return {std::min(kForever, resin.gel_time * gels(room) / gels(kShopRoom)),
            pot_life_of(k, {resin.pot_life, kPotOfLife, kShopRoom}, pot_mass, room)};
}

CuringResin flowing(const Resin& resin, double T) {
    CuringResin out;
    out.kinetics = kinetics_of(resin);
    out.T = T;
    out.T_known = kShopRoom;
    out.mu = resin.viscosity;
    return out;
}

}  // namespace jig
