#include "core/stages/heat/calmed.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/times.hpp"

namespace jig::heat {
namespace {

constexpr double kZero = 273.15;          ///< K of 0 °C: heats are told in whole kelvin of Celsius
constexpr double kMostHold = 48 * kHour;  ///< s that a hold for gelling may take
constexpr double kSlowBatch = 1.1;        ///< of a hold that gels it: the next batch is slower
constexpr double kQuarter = 0.25 * kHour;

double hottest_leg(const std::vector<Leg>& legs) {
    double out = 0;
    for (const auto& leg : legs) out = std::max(out, leg.to);
    return out;
}

/// The warmest of whole kelvin over `low` and below `high` of which `at` has legs, looked for by halves: what
/// is cooler runs calmer.
std::optional<std::vector<Leg>> warmest(double low, double high, const auto& at) {
    auto from = static_cast<int>(std::floor(low - kZero)), to = static_cast<int>(std::ceil(high - kZero));
    std::optional<std::vector<Leg>> out;
    while (to - from > 1) {
        const int middle = (from + to) / 2;
        if (auto legs = at(middle + kZero)) {
            out = std::move(legs);
            from = middle;
        } else {
            to = middle;
        }
    }
    return out;
}

}  // namespace

std::optional<std::vector<Leg>> gelled_first(const CureRun& run, double within, const Good& good,
                                             Progress& progress) {
    if (run.legs.empty()) return std::nullopt;
    const double rate = run.legs.front().rate;
    return warmest(run.wall.start, run.legs.front().to, [&](double T) -> std::optional<std::vector<Leg>> {
        // So long that it gels, then cut to what that took.
        Leg hold{T, rate, kMostHold};
        const auto alone = through(run, {hold}, within, progress);
        double gelled = 0;
        alone.each([&](const std::string&, const Wall&, const WallHistory& h) {
            for (const auto& gel : h.gels) gelled = std::max(gelled, gel.all.value_or(1e300));
        });
        const double climb = (T - run.wall.start) / rate;
        if (gelled > climb + kMostHold) return std::nullopt;
        hold.hold = kQuarter * std::ceil(kSlowBatch * std::max(0.0, gelled - climb) / kQuarter);
        auto legs = run.legs;
        legs.insert(legs.begin(), hold);
        const auto whole = through(run, legs, within, progress);
        return whole.gelled() && good(whole) ? std::optional(std::move(legs)) : std::nullopt;
    });
}

std::optional<std::vector<Leg>> held_cooler(const CureRun& run, double within, const Good& good,
                                            Progress& progress) {
    return warmest(run.wall.start, hottest_leg(run.legs), [&](double T) -> std::optional<std::vector<Leg>> {
        for (const int times : {1, 2, 4, 8, 16}) {
            auto legs = run.legs;
            for (auto& leg : legs) {
                leg.to = std::min(leg.to, T);
                leg.hold = std::min(leg.hold * times, kLongestHold);
            }
            const auto whole = through(run, legs, within, progress);
            if (!good(whole)) return std::nullopt;
            if (whole.gelled()) return legs;
        }
        return std::nullopt;
    });
}

}  // namespace jig::heat
