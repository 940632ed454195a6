#include "core/stages/edge/joint.hpp"

#include <algorithm>
#include <cmath>

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

Joint joint_of(const Choices& c, double plate, double width, double opening) {
    Joint out;
    out.load = c.seal.stiffness * c.seal.squeeze + opening;
    out.bending = plate * width;
    const auto gap = [&](double pitch) {
        return gap_between_bolts(out.load, c.seal.stiffness, out.bending, pitch);
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
