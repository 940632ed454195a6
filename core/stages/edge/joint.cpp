#include "core/stages/edge/joint.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <vector>

namespace jig::edge {

double gap_between_bolts(double load, double stiffness, double bending, double pitch) {
    if (!(bending > 0)) return load > 0 ? pitch : 0;
    const double a = pitch / 2 * std::pow(std::max(0.0, stiffness) / (2 * bending), 0.25);
    // Where the bed hardly counts its formula is the difference of two nearly equal numbers.
    if (a < 0.05) return load * std::pow(pitch, 4) / (192 * bending);
    if (a > 300) return load / stiffness;
    const double share =
        2 * (std::cosh(a) * std::sin(a) + std::sinh(a) * std::cos(a)) / (std::sinh(2 * a) + std::sin(2 * a));
    return load / stiffness * (1 - share);
}

double gap_past_lift_off(double opening, double stiffness, double squeeze, double bending, double pitch) {
    const double linear = gap_between_bolts(stiffness * squeeze + opening, stiffness, bending, pitch);
    if (linear <= squeeze || !(bending > 0) || !(stiffness > 0)) return linear;
    // From a bolt (built in) to the middle between two (level), twice as soft as one flange: both give.
    constexpr int kParts = 24, kRows = 2 * kParts;
    const double EI = bending / 2, l = pitch / 2 / kParts;
    Eigen::MatrixXd beam = Eigen::MatrixXd::Zero(kRows + 2, kRows + 2);
    Eigen::Matrix4d one;
    one << 12, 6 * l, -12, 6 * l, 6 * l, 4 * l * l, -6 * l, 2 * l * l, -12, -6 * l, 12, -6 * l, 6 * l,
        2 * l * l, -6 * l, 4 * l * l;
    for (int e = 0; e < kParts; ++e) beam.block<4, 4>(2 * e, 2 * e) += EI / (l * l * l) * one;
    // Without the bolt's place and slope, and without the slope in the middle.
    const Eigen::MatrixXd K = beam.block(2, 2, kRows - 1, kRows - 1);
    std::vector<char> pushes(kParts, 1);
    double middle = linear;
    for (int round = 0; round < 40; ++round) {
        Eigen::MatrixXd with = K;
        Eigen::VectorXd load = Eigen::VectorXd::Zero(kRows - 1);
        for (int n = 0; n < kParts; ++n) {
            const double share = n + 1 == kParts ? l / 2 : l;
            load[2 * n] = share * (opening + (pushes[static_cast<std::size_t>(n)] ? stiffness * squeeze : 0));
            if (pushes[static_cast<std::size_t>(n)]) with(2 * n, 2 * n) += share * stiffness;
        }
        const Eigen::VectorXd w = with.ldlt().solve(load);
        middle = w[2 * (kParts - 1)];
        bool settled = true;
        for (int n = 0; n < kParts; ++n) {
            const char on = w[2 * n] < squeeze;
            settled &= on == pushes[static_cast<std::size_t>(n)];
            pushes[static_cast<std::size_t>(n)] = on;
        }
        if (settled) break;
    }
    return middle;
}

Joint joint_of(const Choices& c, double plate, double width, double opening) {
    Joint out;
    out.load = c.seal.stiffness * c.seal.squeeze + opening;
    out.bending = plate * width;
    const auto gap = [&](double pitch) {
        return gap_past_lift_off(opening, c.seal.stiffness, c.seal.squeeze, out.bending, pitch);
    };
    out.gap = gap(c.bolt_pitch);
    out.per_bolt = out.load * c.bolt_pitch;
    double low = 0.005, high = 2;
    if (gap(high) > c.seal.gap && gap(low) < c.seal.gap) {
        for (int i = 0; i < 60; ++i) {
            const double middle = (low + high) / 2;
            (gap(middle) <= c.seal.gap ? low : high) = middle;
        }
        out.pitch_for_gap = low;
    }
    return out;
}

}  // namespace jig::edge
