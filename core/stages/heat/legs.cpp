#include "core/stages/heat/legs.hpp"

#include <algorithm>
#include <cmath>

namespace jig::heat {
namespace {

constexpr double kCelsius = 273.15;
constexpr double kColdest = 263, kHottest = 600;  ///< K, as a leg may have
constexpr double kSlowest = 1e-5;

}  // namespace

std::vector<LegCorner> leg_corners(const std::vector<Leg>& legs, const Course& air) {
    std::vector<LegCorner> out;
    std::size_t at = 0;
    for (std::size_t i = 0; i < legs.size(); ++i) {
        // As a course is made: what does not change the air leaves no corner.
        if (at >= air.corners.size()) break;
        if (legs[i].to != air.corners[at].T && ++at < air.corners.size()) out.push_back({i, at, false});
        if (legs[i].hold > 0 && ++at < air.corners.size()) out.push_back({i, at, true});
    }
    return out;
}

std::vector<Leg> drawn_to(std::vector<Leg> legs, const Course& air, const LegCorner& corner, double time,
                          double T, double rate) {
    if (corner.leg >= legs.size() || corner.corner >= air.corners.size() || corner.corner == 0) return legs;
    auto& leg = legs[corner.leg];
    leg.to = std::clamp(std::round(T - kCelsius) + kCelsius, kColdest, kHottest);
    if (corner.held) {
        const double longer = time - air.corners[corner.corner].time;
        leg.hold =
            std::clamp(std::round((leg.hold + longer) / kHoldStep) * kHoldStep, kHoldStep, kLongestHold);
        return legs;
    }
    const auto& before = air.corners[corner.corner - 1];
    const double climb = std::abs(leg.to - before.T), takes = time - before.time;
    if (climb > 0)
        leg.rate = std::clamp(takes > 0 ? climb / takes : rate, kSlowest, std::max(rate, kSlowest));
    return legs;
}

}  // namespace jig::heat
