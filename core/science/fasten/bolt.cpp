#include "core/science/fasten/bolt.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <utility>

namespace jig {

double Bolt::pitch() const {
    constexpr std::array<std::pair<double, double>, 15> kCoarse{{{0.003, 0.0005},
                                                                 {0.004, 0.0007},
                                                                 {0.005, 0.0008},
                                                                 {0.006, 0.001},
                                                                 {0.008, 0.00125},
                                                                 {0.010, 0.0015},
                                                                 {0.012, 0.00175},
                                                                 {0.014, 0.002},
                                                                 {0.016, 0.002},
                                                                 {0.018, 0.0025},
                                                                 {0.020, 0.0025},
                                                                 {0.022, 0.0025},
                                                                 {0.024, 0.003},
                                                                 {0.030, 0.0035},
                                                                 {0.036, 0.004}}};
    auto best = kCoarse.front();
    for (const auto& row : kCoarse) {
        if (std::abs(row.first - diameter) < std::abs(best.first - diameter)) best = row;
    }
    return best.second * diameter / best.first;
}

double Bolt::pitch_diameter() const {
    return diameter - 0.6495 * pitch();
}

double Bolt::stress_area() const {
    const double d = diameter - 0.9382 * pitch();
    return std::numbers::pi / 4 * d * d;
}

double Bolt::head_diameter() const {
    return (1.1 + 1.6) / 2 * diameter;
}

double Bolt::washer_area() const {
    return std::numbers::pi / 4 * (4 - 1.21) * diameter * diameter;
}

double torque_for(const Bolt& bolt, double force, double friction) {
    const double d2 = bolt.pitch_diameter(), climb = std::atan(bolt.pitch() / (std::numbers::pi * d2)),
                 rubs = std::atan(friction / std::cos(std::numbers::pi / 6));
    return force * (d2 / 2 * std::tan(climb + rubs) + friction * bolt.head_diameter() / 2);
}

double pull_of(const Bolt& bolt, double torque, double friction) {
    return torque / torque_for(bolt, 1, friction);
}

std::vector<int> crosswise(int count, int first) {
    std::vector<int> out;
    if (count < 1) return out;
    std::vector<char> tight(static_cast<std::size_t>(count), 0);
    const auto tighten = [&](int i) {
        tight[static_cast<std::size_t>(i)] = 1;
        out.push_back(i);
    };
    tighten(((first % count) + count) % count);
    while (static_cast<int>(out.size()) < count) {
        int best = -1, widest = -1;
        // From the last one on, so that of ways alike the one opposite it comes first.
        for (int k = 1; k < count; ++k) {
            const int i = (out.back() + count / 2 + k - 1) % count;
            if (tight[static_cast<std::size_t>(i)] != 0) continue;
            int left = 0, right = 0;
            while (tight[static_cast<std::size_t>((i + right) % count)] == 0) ++right;
            while (tight[static_cast<std::size_t>((i - left + count) % count)] == 0) ++left;
            if (std::min(left, right) <= widest) continue;
            widest = std::min(left, right);
            best = i;
        }
        tighten(best);
    }
    return out;
}

}  // namespace jig
