#include "core/science/heat/exotherm.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/parallel.hpp"

namespace jig {
namespace {

/// A peak of tens of kelvin is found to one: many of them are asked for behind an edit.
constexpr int kCells = 31;
constexpr double kTolerance = 0.1;  ///< K

}  // namespace

double thickness_of(const LaidAtOnce& of) {
    double out = 0;
    for (const auto l : of.layers) out += of.wall.layers[l].thickness;
    return out;
}

ThicknessPeak peak_at(const LaidAtOnce& of, double thickness, Progress& progress) {
    progress.check();
    auto wall = of.wall;
    const double times = thickness / thickness_of(of);
    for (const auto l : of.layers) wall.layers[l].thickness *= times;
    const auto air = course_of(of.programme, wall.start);
    for (std::size_t i = 0; i < 2; ++i) {
        if (of.follow[i]) wall.sides[i].air = air;
    }
    WallRules rules;
    rules.end = std::max(air.end(), of.end);
    rules.at = {rules.end};
    rules.cells = kCells;
    rules.tolerance = kTolerance;
    const auto h = warm(wall, rules, progress);
    ThicknessPeak out;
    out.thickness = thickness;
    for (std::size_t l = 0; l < of.layers.front(); ++l) {
        if (!of.wall.layers[l].resin) out.under = std::max(out.under, h.hottest[l].T);
    }
    for (const auto l : of.layers) {
        if (h.hottest[l].T <= out.peak) continue;
        out.peak = h.hottest[l].T;
        out.peak_time = h.hottest[l].time;
    }
    out.gels = 0;
    for (const auto& gel : h.gels) {
        if (std::find(of.layers.begin(), of.layers.end(), gel.layer) == of.layers.end()) continue;
        out.gels = gel.all && out.gels ? std::optional(std::max(*gel.all, *out.gels)) : std::nullopt;
    }
    return out;
}

std::vector<ThicknessPeak> peaks_at(const LaidAtOnce& of, const std::vector<double>& thicknesses,
                                    Progress& progress) {
    std::vector<ThicknessPeak> out(thicknesses.size());
    parallel_shares(thicknesses.size(), 2, [&](std::size_t from, std::size_t to, unsigned) {
        for (auto i = from; i < to; ++i) out[i] = peak_at(of, thicknesses[i], progress);
    });
    return out;
}

std::optional<double> thickest(const LaidAtOnce& of, const std::vector<ThicknessPeak>& curve,
                               const HeatLimits& limits, Progress& progress) {
    const auto first =
        std::find_if(curve.begin(), curve.end(), [&](const auto& p) { return !limits.keep(p); });
    if (first == curve.begin()) return {};
    if (first == curve.end()) return curve.back().thickness;
    double keeps = std::prev(first)->thickness, fails = first->thickness;
    while (fails > 1.01 * keeps) {
        const double middle = std::sqrt(keeps * fails);
        (limits.keep(peak_at(of, middle, progress)) ? keeps : fails) = middle;
    }
    return keeps;
}

}  // namespace jig
