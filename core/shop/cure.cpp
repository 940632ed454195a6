#include "core/shop/cure.hpp"

#include <deque>
#include <mutex>

namespace jig {
namespace {

/// What a fit goes by.
struct FitKey {
    Family family = Family::epoxy;
    CureSheet cures;
    bool in_cloth = false;
    double gel_temperature = 0, gel_time = 0, Tg = 0, lead = 0;
    bool operator==(const FitKey&) const = default;
};

/// A fit takes longer than all that asks for it: the last ones are kept, whoever asks.
CureFit fit_kept(const FitKey& key, const auto& fit) {
    static std::mutex door;
    static std::deque<std::pair<FitKey, CureFit>> kept;
    {
        const std::scoped_lock lock(door);
        for (const auto& [known, out] : kept) {
            if (known == key) return out;
        }
    }
    const auto out = fit();
    const std::scoped_lock lock(door);
    kept.emplace_front(key, out);
    if (kept.size() > 40) kept.pop_back();
    return out;
}

double gel_told_at(const Resin& r) {
    return r.in_cloth ? r.gel_temperature : kShopRoom;
}

}  // namespace

CureFamily cure_family(Family family) {
    if (family == Family::plaster) return CureFamily::mineral;
    return has_styrene(family) ? CureFamily::styrene : CureFamily::epoxy;
}

CureData cure_data(const Resin& r) {
    CureData out;
    out.family = cure_family(r.family);
    out.gels.push_back({gel_told_at(r), r.gel_time});
    for (const auto& g : r.cures.gels) out.gels.push_back({g.T, g.time});
    const auto& pot = r.cures.pot;
    if (pot.mass > 0) out.pot = CureData::Pot{pot.mass, pot.start, pot.peak, pot.time};
    if (r.cures.heat > 0) out.heat = r.cures.heat;
    for (const auto& g : r.cures.glass) out.glass.push_back({g.cure_T, g.cure_time, g.Tg});
    if (out.glass.empty() && out.family != CureFamily::mineral) {
        // Its own Tg is that of the fully cured resin: what a long cure well above it leaves.
        out.glass.push_back({r.Tg + 60, 1e6, r.Tg});
        out.lead = r.Tg_lead;
    }
    return out;
}

CureFit cure_fit(const Resin& r) {
    const FitKey key{r.family, r.cures, r.in_cloth, r.gel_temperature, r.gel_time, r.Tg, r.Tg_lead};
    return fit_kept(key, [&] {
        try {
            return fit_cure(cure_data(r));
        } catch (const InputError& e) {
            throw InputError("resin \"" + r.name + "\", " + e.where(), e.problem(), e.mend());
        }
    });
}

Kinetics kinetics_of(const Resin& r) {
    if (!r.cures.empty()) return cure_fit(r).kinetics;
    return kinetics_by_gel(cure_family(r.family), gel_told_at(r), r.gel_time, r.Tg, r.Tg_lead);
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
