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

namespace {

/// Resistance that a filling met by how much it had taken in, as if by one way: ∫dt/μ goes with ∫ R·dV.
class Way {
  public:
    Way(const std::vector<std::pair<double, double>>& intake, const Viscosity& first) {
        for (std::size_t i = 1; i < intake.size(); ++i) {
            const double taken = intake[i].second - intake[i - 1].second;
            const double moved = first.flow_time(intake[i].first) - first.flow_time(intake[i - 1].first);
            if (!(taken > 0) || !(moved >= 0)) continue;
            by_.emplace_back((intake[i].second + intake[i - 1].second) / 2 - intake.front().second,
                             moved / taken);
        }
    }
    [[nodiscard]] double at(double taken) const {
        if (by_.empty() || !(taken > 0)) return 0;
        const auto next = std::lower_bound(by_.begin(), by_.end(), taken,
                                           [](const auto& b, double m) { return b.first < m; });
        if (next == by_.end()) return by_.back().second;
        // Nothing resists where nothing is wet yet.
        const auto [m0, r0] = next == by_.begin() ? std::pair(0.0, 0.0) : *(next - 1);
        return r0 + (next->second - r0) * (taken - m0) / std::max(next->first - m0, 1e-300);
    }

  private:
    std::vector<std::pair<double, double>> by_;
};

}  // namespace

std::optional<Viscosity> of_pots(const Filling& f, const Viscosity& first, double hoses, double most,
                                 double waited, const FlowAsked& asked) {
    if (f.intake.size() < 3 || !(f.taken > 0)) return {};
    const Way way(f.intake, first);
    const double begun = f.intake.front().second;
    const double holds = most / (1 + kStays), lasts = kUsedOfLife * asked.pot_life - waited;
    struct Drawn {
        double opened, from;  // s after the first feed, and kg that had gone into the preform
    };
    std::vector<Drawn> pots{{0, -hoses}};
    // Of what lies in the preform, μ of each pot by the share of the way that it takes up.
    const auto mean = [&](double taken, double time) {
        double sum = 0, weights = 0;
        for (std::size_t k = 0; k < pots.size(); ++k) {
            const double far = std::max(0.0, taken - std::max(0.0, pots[k].from));
            const double near = k + 1 < pots.size() ? std::max(0.0, taken - pots[k + 1].from) : 0;
            const double weight = std::max(0.0, way.at(far) - way.at(near));
            weights += weight;
            if (weight > 0) sum += weight * first.at(time - pots[k].opened);
        }
        return weights > 0 ? sum / weights : first.at(time - pots.back().opened);
    };
    double time = 0;
    std::vector<double> times{0}, mu{first.at(0)};
    for (std::size_t i = 1; i < f.intake.size() && pots.size() <= kMostPots; ++i) {
        const double moved = first.flow_time(f.intake[i].first) - first.flow_time(f.intake[i - 1].first);
        const double taken = f.intake[i].second - begun;
        if (!(moved > 0)) continue;
        // By the middle of the step, which its own length moves.
        const double half = (taken + f.intake[i - 1].second - begun) / 2;
        double step = moved * mu.back();
        for (int k = 0; k < 3; ++k) step = moved * mean(half, time + step / 2);
        time += step;
        const double now = mean(taken, time);
        if (!std::isfinite(now) || !std::isfinite(time)) break;
        times.push_back(time);
        mu.push_back(now);
        const auto& last = pots.back();
        if (taken - last.from >= holds || (lasts > 0 && time - last.opened >= lasts))
            pots.push_back({time, taken});
    }
    if (pots.size() < 2) return {};
    // From then on it lies there and ages.
    const double taken = f.intake.back().second - begun;
    const double end = first.gels().value_or(std::max(2 * time, 86400.0));
    constexpr int kLater = 400;
    const double from = time;
    for (int i = 1; i < kLater && end > from; ++i) {
        const double t = from + (end - from) * i / kLater, now = mean(taken, t);
        if (!std::isfinite(now)) break;
        times.push_back(t);
        mu.push_back(now);
    }
    return Viscosity(std::move(times), std::move(mu), first.gels());
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
