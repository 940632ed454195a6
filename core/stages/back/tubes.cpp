#include "core/stages/back/tubes.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"

namespace jig::back {
namespace {

/// Typical: thickened resin in a fillet, a closed-cell strip, one tab ply (docs/methods.md, The tool on
/// trial).
constexpr double kFilletE = 3e9, kStripE = 5e6, kTabE = 14e9, kTabG = 4e9, kTabPly = 0.0004;
/// The share of a tab's membrane stiffness that counts across its bend.
constexpr double kTabBend = 0.2;
/// A floating joint carries across its gap and hardly along it.
constexpr double kSlide = 0.01;
/// A fillet's shear modulus is its E by 2(1 + ν), ν = 0.35.
constexpr double kFilletShear = 2.7;

}  // namespace

MetalFacts facts_of(Metal metal) {
    return metal == Metal::steel ? MetalFacts{205e9, 79e9, 7850, 12e-6}
                                 : MetalFacts{69e9, 26e9, 2700, 23.6e-6};
}

TubeSection section_of(const Choices& c) {
    const double s = c.tubes.size, t = std::min(c.tubes.wall, s / 2), in = s - 2 * t;
    if (c.kind == BackKind::frame)
        return {s * s - in * in, (std::pow(s, 4) - std::pow(in, 4)) / 12, t * std::pow(s - t, 3)};
    const double second = kPi / 64 * (std::pow(s, 4) - std::pow(in, 4));
    return {kPi / 4 * (s * s - in * in), second, 2 * second};
}

BondFacts bond_of(const Joint& j, double wide) {
    const double gap = std::max(0.0005, j.gap), tab = j.plies * kTabPly;
    if (j.bond == Bond::hard) return {kFilletE * wide / gap, kFilletE / kFilletShear * wide / gap};
    // Tabs carry along their own plane; the strip carries what presses.
    const double across = kStripE * wide / gap + kTabBend * 2 * kTabE * tab / j.tab;
    return {across, j.bond == Bond::soft ? 2 * kTabG * tab / j.tab : kSlide * across};
}

}  // namespace jig::back
