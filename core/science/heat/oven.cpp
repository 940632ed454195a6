#include "core/science/heat/oven.hpp"

#include <algorithm>
#include <cmath>

namespace jig {
namespace {

constexpr double kGas = 101325 / 287.05;  ///< K·kg/m³ of dry air: its density times its temperature
constexpr double kAir = 1006;             ///< J/(kg·K)
constexpr double kFinest = 2;             ///< K that the air changes by in one step at most

double flux_at(const HeatTaken& t, double time) {
    const auto after = std::upper_bound(t.times.begin(), t.times.end(), time);
    if (after == t.times.begin()) return 0;
    const auto i = static_cast<std::size_t>(after - t.times.begin());
    if (i == t.times.size()) return time > t.times.back() ? 0 : t.flux.back();
    const double share = (time - t.times[i - 1]) / (t.times[i] - t.times[i - 1]);
    return t.flux[i - 1] + share * (t.flux[i] - t.flux[i - 1]);
}

double through_air(const OvenBox& box, double T, double room) {
    return box.changes * box.volume * kGas / T * kAir * (T - room);
}

/// The part above 0 of what goes straight from a to b, over one second.
double above(double a, double b) {
    if (a >= 0 && b >= 0) return (a + b) / 2;
    if (a <= 0 && b <= 0) return 0;
    const double high = std::max(a, b);
    return high * high / (2 * std::abs(a - b));
}

/// Moments between which all is straight, and the air changes little.
std::vector<double> moments(const Course& air, const std::vector<HeatTaken>& taken) {
    std::vector<double> out{0};
    for (const auto& c : air.corners) out.push_back(c.time);
    for (const auto& t : taken) {
        for (const double time : t.times) {
            if (time < air.end()) out.push_back(time);
        }
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    std::vector<double> fine;
    for (std::size_t i = 0; i + 1 < out.size(); ++i) {
        const double by = std::abs(air.at(out[i + 1]) - air.at(out[i]));
        const auto parts = std::max(1, static_cast<int>(std::ceil(by / kFinest)));
        for (int p = 0; p < parts; ++p) fine.push_back(out[i] + (out[i + 1] - out[i]) * p / parts);
    }
    fine.push_back(out.back());
    return fine;
}

}  // namespace

double oven_loss(const OvenBox& box, double T, double room) {
    return box.walls * box.area * (T - room) + through_air(box, T, room);
}

OvenHeat oven_heat(const OvenBox& box, const Course& air, double room, const std::vector<HeatTaken>& taken) {
    OvenHeat out;
    const auto times = moments(air, taken);
    const auto into = [&](double time) {
        double sum = 0;
        for (const auto& t : taken) sum += t.area * flux_at(t, time);
        return sum;
    };
    for (std::size_t i = 0; i + 1 < times.size(); ++i) {
        const double a = times[i], b = times[i + 1], step = b - a;
        const double Ta = air.at(a), Tb = air.at(b);
        const double walls[]{box.walls * box.area * (Ta - room), box.walls * box.area * (Tb - room)};
        const double lost[]{through_air(box, Ta, room), through_air(box, Tb, room)};
        const double in[]{into(a), into(b)};
        // Its own air by the logarithm, so that up and down add up to nothing.
        const double kept =
            (box.lining * box.area + box.stands) * (Tb - Ta) + box.volume * kGas * kAir * std::log(Tb / Ta);
        const double gives[]{walls[0] + lost[0] + in[0] + kept / step,
                             walls[1] + lost[1] + in[1] + kept / step};
        out.walls += step * (walls[0] + walls[1]) / 2;
        out.air += step * (lost[0] + lost[1]) / 2;
        out.taken += step * (in[0] + in[1]) / 2;
        out.stands += kept;
        out.warmed = std::max(out.warmed, out.stands + out.taken);
        out.heater += step * above(gives[0], gives[1]);
        out.vented += step * above(-gives[0], -gives[1]);
        for (int end = 0; end < 2; ++end) {
            if (gives[end] <= out.most) continue;
            out.most = gives[end];
            out.most_at = end == 0 ? a : b;
        }
    }
    return out;
}

}  // namespace jig
