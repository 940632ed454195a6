#include "app/charts/shop_plots.hpp"

#include <cmath>

#include "core/base/error.hpp"

namespace jig::app {
namespace {

constexpr double kLong = 8 * 3600;  ///< s, a usual cure

/// From where to where temperatures are drawn, K.
std::pair<double, double> range_of(const CureData& data) {
    double low = 283.15, high = 333.15;
    for (const auto& g : data.gels) {
        low = std::min(low, g.T - 5);
        high = std::max(high, g.T + 10);
    }
    return {low, high};
}

}  // namespace

CurePlots cure_plots(const CureTold& told) {
    CurePlots out;
    const bool fitted = !told.sheet.empty();
    CureFit fit;
    try {
        if (fitted)
            fit = cure_fit(told);
        else
            fit.kinetics = kinetics_of(told);
    } catch (const InputError& e) {
        out.said = QString("Its cure cannot be fitted: %1. To mend it: %2.")
                       .arg(QString::fromStdString(e.problem()), QString::fromStdString(e.mend()));
        return out;
    }
    const auto& k = fit.kinetics;
    if (!fitted) {
        out.said =
            "It cures as is typical of its family, brought to its gel time and Tg. Give its data sheet: "
            "choose a row of its cure above and \"One more\".";
    } else {
        QStringList assumed;
        for (const auto& a : fit.assumed) assumed << QString::fromStdString(a);
        out.said = QString(
                       "Fitted to its data sheet, on the mean to %1 %; activation energy %2 ± %3 kJ/mol. "
                       "Assumed: %4.")
                       .arg(100 * fit.misfit, 0, 'f', 1)
                       .arg(k.E2 / 1000, 0, 'f', 1)
                       .arg(fit.E_spread / 1000, 0, 'f', 1)
                       .arg(assumed.join("; "));
    }
    const auto data = cure_data(told);
    const auto [low, high] = range_of(data);
    Plot gel;
    gel.title = "Gel time of a thin layer";
    gel.x = {"held at", Kind::temperature, low, high, {}};
    PlotLine line{"gels after", {}, Tone::petrol, false, false};
    PlotLine slow{"at most", {}, Tone::faint, true, false}, quick{"at least", {}, Tone::faint, true, false};
    constexpr int kSteps = 60;
    for (int i = 0; i <= kSteps; ++i) {
        const double T = low + (high - low) * i / kSteps;
        const auto t = gel_time(k, T);
        if (!t) continue;
        line.points.emplace_back(T, *t);
        if (!fitted) continue;
        const double share = std::exp(2 * fit.gel_spread(T));
        slow.points.emplace_back(T, *t * share);
        quick.points.emplace_back(T, *t / share);
    }
    PlotLine given{"given", {}, Tone::clay, false, true};
    for (const auto& g : data.gels) given.points.emplace_back(g.T, g.time);
    std::sort(given.points.begin(), given.points.end(),
              [](const QPointF& a, const QPointF& b) { return a.x() < b.x(); });
    double most = 0;
    for (const auto& p : line.points) most = std::max(most, p.y());
    for (const auto& p : given.points) most = std::max(most, 1.1 * p.y());
    gel.y = {"time", Kind::duration, 0, std::max(60.0, 1.05 * most), {}};
    gel.nothing = "It turns to glass before it gels, as far as is drawn.";
    if (!line.points.empty()) {
        gel.lines = {line};
        if (fitted) gel.lines.insert(gel.lines.end(), {slow, quick});
        gel.lines.push_back(given);
    }
    out.gel = std::move(gel);
    if (!k.glass) return out;
    Plot glass;
    glass.title = "Tg after a cure of eight hours";
    double hot = std::max(high, told.Tg + 20), coolest = 1e9, warmest = 0;
    for (const auto& g : told.sheet.glass) hot = std::max(hot, g.cure_T + 10);
    PlotLine after{"Tg", {}, Tone::petrol, false, false};
    for (int i = 0; i <= kSteps; ++i) {
        const double T = 288.15 + (hot - 288.15) * i / kSteps;
        const double Tg = k.glass->at(cure_after(k, T, kLong));
        after.points.emplace_back(T, Tg);
        coolest = std::min(coolest, Tg);
        warmest = std::max(warmest, Tg);
    }
    glass.lines = {after};
    PlotLine known{"given, after its own time", {}, Tone::clay, false, true};
    for (const auto& g : told.sheet.glass) {
        known.points.emplace_back(g.cure_T, g.Tg);
        warmest = std::max(warmest, g.Tg);
        coolest = std::min(coolest, g.Tg);
    }
    std::sort(known.points.begin(), known.points.end(),
              [](const QPointF& a, const QPointF& b) { return a.x() < b.x(); });
    if (!known.points.empty()) glass.lines.push_back(known);
    glass.x = {"cured at", Kind::temperature, 288.15, hot, {}};
    glass.y = {"Tg", Kind::temperature, coolest - 5, warmest + 10, {}};
    out.glass = std::move(glass);
    return out;
}

}  // namespace jig::app
