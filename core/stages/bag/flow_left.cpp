// What a filling asks of the pots, and what its pressures leave of the plies.
#include <algorithm>
#include <cmath>

#include "core/stages/bag/flow.hpp"
#include "core/stages/pots.hpp"

namespace jig::bag {
namespace {

/// Of what is mixed that stays on a pot's sides and at the hose's foot.
constexpr double kStays = 0.05;

}  // namespace

double watched(double fill) {
    return std::min(fill, 4.0 * 3600);
}

std::vector<FeedPot> pots_in_turn(const Filling& f, double hoses, double most, double waited,
                                  const FlowAsked& asked) {
    std::vector<FeedPot> out;
    if (f.intake.size() < 2 || !(f.taken > 0)) return out;
    // kg drawn by a time: the hoses fill first.
    const auto drawn = [&](double time) {
        const auto after = std::upper_bound(f.intake.begin(), f.intake.end(), time,
                                            [](double t, const auto& i) { return t < i.first; });
        if (after == f.intake.begin()) return hoses;
        if (after == f.intake.end()) return hoses + f.taken;
        const auto& [t0, m0] = *(after - 1);
        const auto& [t1, m1] = *after;
        return hoses + m0 + (m1 - m0) * (time - t0) / std::max(t1 - t0, 1e-12);
    };
    const auto when = [&](double mass) {
        const auto at = std::lower_bound(f.intake.begin(), f.intake.end(), mass - hoses,
                                         [](const auto& i, double m) { return i.second < m; });
        if (at == f.intake.begin()) return at->first;
        if (at == f.intake.end()) return f.intake.back().first;
        const auto& [t0, m0] = *(at - 1);
        const auto& [t1, m1] = *at;
        return t0 + (t1 - t0) * (mass - hoses - m0) / std::max(m1 - m0, 1e-12);
    };
    const double whole = hoses + f.taken, holds = most / (1 + kStays);
    const double lasts = kUsedOfLife * asked.pot_life - waited;
    double so_far = 0, time = 0;
    while (so_far < whole * (1 - 1e-9) && out.size() <= kMostPots) {
        double take = std::min(holds, whole - so_far);
        // As much as is drawn while it may still be used; a pot that is past it when it is opened is told of.
        if (lasts > 0) take = std::min(take, std::max(drawn(time + lasts) - so_far, 1e-3 * holds));
        FeedPot pot;
        pot.from = time;
        pot.mixed = time - waited;
        so_far += take;
        time = pot.till = so_far < whole * (1 - 1e-9) ? when(so_far) : f.intake.back().first;
        pot.mass = (1 + kStays) * take;
        pot.hardener = pot.mass * asked.mix_ratio / (100 + asked.mix_ratio);
        out.push_back(pot);
    }
    return out;
}

std::optional<Thickness> thickness_left(const FlowAsked& asked, const Flow& f,
                                        const std::vector<FaceFlow>& faces, const Viscosity& viscosity,
                                        const Point& gravity, Progress& progress) {
    const bool gives = std::any_of(faces.begin(), faces.end(), [](const auto& s) { return s.gives > 0; });
    if (!f.filling.fill || !gives) return {};
    const auto& mesh = *f.face;
    SettleRules rules;
    rules.room = asked.room;
    rules.vacuum = asked.vacuum;
    rules.density = asked.density;
    rules.gravity = gravity;
    // A day is longer than anybody draws.
    const double end = std::max(f.gel.value_or(*f.filling.fill + 86400), *f.filling.fill);
    rules.flow_time = std::max(0.0, viscosity.flow_time(end) - viscosity.flow_time(*f.filling.fill));
    std::vector<char> wet(mesh.points.size(), 0);
    for (std::size_t i = 0; i < wet.size(); ++i) wet[i] = f.filling.arrival[i] ? 1 : 0;
    std::vector<std::uint32_t> vents;
    if (asked.infusion.when_full == WhenFull::draw_on) {
        for (const auto& p : f.ports) {
            if (p.port.use == PortUse::vent) vents.insert(vents.end(), p.points.begin(), p.points.end());
        }
    }
    Thickness out;
    out.settled = settle(mesh, faces, f.filling.pressure, wet, vents, rules, progress);
    for (std::size_t i = 0; i < wet.size(); ++i) {
        out.full = std::max(out.full, out.settled.thick_begin[i]);
        if (out.settled.thick[i] < out.end) continue;
        out.end = out.settled.thick[i];
        out.at = mesh.points[i];
    }
    out.over = asked.density * out.settled.over;
    out.drawn = asked.density * out.settled.drawn;
    out.wait = end - *f.filling.fill;
    return out;
}

}  // namespace jig::bag
