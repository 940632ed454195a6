// What marked fronts say of a flow, and what is sought by following it many times.
#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/stages/bag/flow.hpp"

namespace jig::bag {

std::optional<FrontFit> fit_fronts(const Infusion& c, const Flow& flow, const Viscosity& viscosity,
                                   double density) {
    if (c.seen.empty()) return {};
    const FlowGround ground(*flow.face, flow.frame);
    // What moves resin is K·∫(p − p_v)·dt/μ, and a hose takes R·V off ∫Δp·dt/μ for V that it let through,
    // whatever K is: at each mark what is left of the two gives K by its ratio.
    const double feeds = static_cast<double>(flow.filling.feeds.size());
    const auto hosed = [&](double time) {
        const auto& in = flow.filling.intake;
        const auto at =
            std::lower_bound(in.begin(), in.end(), time, [](const auto& i, double t) { return i.first < t; });
        if (at == in.begin() || !(flow.drive > 0)) return 0.0;
        const auto& [t0, m0] = *(at - 1);
        const double mass =
            at == in.end() || at->first <= t0 ? m0 : m0 + (at->second - m0) * (time - t0) / (at->first - t0);
        // What lies along the hoses is wet at once.
        return hose_resists(c.hose, c.bore) * (mass - in.front().second) / density / feeds / flow.drive;
    };
    std::vector<double> logs;
    for (const auto& mark : c.seen) {
        const auto& at = flow.filling.arrival[ground.nearest({mark.along, mark.across})];
        if (!at || *at <= 0 || mark.after <= 0) continue;
        const double lost = hosed(*at), planned = viscosity.flow_time(*at) - lost,
                     seen = viscosity.flow_time(mark.after) - lost;
        // What came sooner than hoses let it tells nothing of the preform.
        if (planned > 0 && seen > 0) logs.push_back(std::log(planned / seen));
    }
    if (logs.empty()) return {};
    double mean = 0, squares = 0;
    const auto n = static_cast<double>(logs.size());
    for (const double l : logs) mean += l / n;
    for (const double l : logs) squares += (l - mean) * (l - mean);
    FrontFit out{
        c.lets * std::exp(mean), {}, static_cast<int>(logs.size()), std::exp(std::sqrt(squares / n))};
    if (logs.size() > 1) {
        // Student's t for 19 in 20: the first from its table, then to half a percent (Cornish and Fisher
        // 1938, two terms).
        static constexpr std::array kFew{12.71, 4.303, 3.182, 2.776, 2.571};
        const auto free = logs.size() - 1;
        const auto nu = static_cast<double>(free);
        const double t = free <= kFew.size() ? kFew[free - 1] : 1.96 + 2.372 / nu + 2.823 / (nu * nu);
        out.spread = std::exp(t * std::sqrt(squares / (n - 1) / n));
    }
    return out;
}

namespace {

constexpr const char *kNotInfused = "neither the part nor the shell is infused",
                     *kInfuse = "choose so in Part or in Shell";

/// What is tried many times over is not followed beyond its being full.
void leave_unsettled(FlowAsked& asked) {
    for (auto& sheet : asked.preform) sheet.flow.gives = 0;
}

}  // namespace

RaceFit seek_race(FlowAsked asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
                  Progress& progress) {
    if (!asked.infused) throw InputError("bag", kNotInfused, kInfuse);
    if (!face.mesh) throw InputError("bag", "there is no face that resin could run over", "see Edge");
    leave_unsettled(asked);
    constexpr int kRuns = 17;
    int runs = 0;
    const auto at = [&](double race) {
        progress.report(static_cast<double>(runs++) / kRuns, "trying races along the rim");
        asked.infusion.race = race;
        const auto f = flow(asked, face, frame, draped, false, progress);
        if (!f.fault.empty()) throw InputError("bag", f.fault, f.mend);
        if (!f.fit || f.fit->marks < 3)
            throw InputError("bag", "a race shows in three marks at least that resin comes to",
                             "mark the front beside the rim and away from it");
        return *f.fit;
    };
    RaceFit out;
    out.off_before = at(asked.infusion.race).off;
    std::map<double, FrontFit> tried;  // by the race's logarithm
    const auto off = [&](double log_race) {
        auto found = tried.find(log_race);
        if (found == tried.end()) found = tried.emplace(log_race, at(std::exp(log_race))).first;
        return std::log(found->second.off);
    };
    const double step = std::log(1000.0) / 8;
    double best = 0;
    for (int k = 1; k <= 8; ++k) {
        // What is no better than to a thousandth is no sign of a race.
        if (off(k * step) < off(best) - 1e-3) best = k * step;
    }
    double low = std::max(0.0, best - step), high = std::min(8 * step, best + step);
    constexpr double kGolden = 0.6180339887498949;
    for (int i = 0; i < 6 && best > 0; ++i) {
        const double left = high - kGolden * (high - low), right = low + kGolden * (high - low);
        (off(left) <= off(right) ? high : low) = off(left) <= off(right) ? right : left;
    }
    for (const auto& [log_race, fit] : tried) {
        if (std::log(fit.off) < off(best) - 1e-3) best = log_race;
    }
    out.race = std::exp(best);
    out.fit = tried.at(best);
    return out;
}

Layouts seek_layout(FlowAsked asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
                    Progress& progress) {
    if (!asked.infused) throw InputError("bag", kNotInfused, kInfuse);
    if (!face.mesh) throw InputError("bag", "there is no face that resin could run over", "see Edge");
    leave_unsettled(asked);
    Layouts out;
    std::vector<std::pair<InfusionPlan, int>> plans{{InfusionPlan::ring, 1}, {InfusionPlan::end, 1}};
    for (int n = 1; n <= 4; ++n) plans.emplace_back(InfusionPlan::spine, n);
    for (const int n : {2, 4}) plans.emplace_back(InfusionPlan::fishbone, n);
    asked.infusion.seen.clear();
    for (std::size_t k = 0; k < plans.size(); ++k) {
        progress.report(static_cast<double>(k) / static_cast<double>(plans.size()), "trying hoses");
        asked.infusion.plan = plans[k].first;
        asked.infusion.lines = plans[k].second;
        Layout one{plans[k].first, plans[k].second, {}, 0, 0, 0, 0};
        const auto f = flow(asked, face, frame, draped, false, progress);
        if (f.runs) {
            one.fill = f.filling.fill;
            one.filled = f.filling.filled;
            for (const auto& d : f.filling.dry) one.dry += d.area;
            one.resin = f.filling.taken;
            one.line = f.line();
            out.tried.push_back(one);  // a face without a rim has no ring
        }
    }
    std::stable_sort(out.tried.begin(), out.tried.end(), [](const Layout& a, const Layout& b) {
        if (a.fill.has_value() != b.fill.has_value()) return a.fill.has_value();
        return a.fill ? *a.fill < *b.fill : a.filled > b.filled;
    });
    return out;
}

}  // namespace jig::bag
