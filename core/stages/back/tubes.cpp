#include "core/stages/back/tubes.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/shop/stack_figures.hpp"

namespace jig::back {
namespace {

/// The share of a tab's membrane stiffness that counts across its bend.
constexpr double kTabBend = 0.2;
/// A floating joint carries across its gap and hardly along it.
constexpr double kSlide = 0.01;

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

BondFacts bond_of(const Joint& j, double wide, const Resin& resin, const Library& shop) {
    const bool hard = j.bond == Bond::hard;
    const auto& under = need(shop.bonds, hard ? j.paste : j.strip, "back bond");
    const double gap = std::max(0.0005, j.gap);
    if (hard) return {under.E * wide / gap, under.G * wide / gap};
    const double pressed = under.E * wide / gap;
    if (j.bond == Bond::floating) return {pressed, kSlide * pressed};
    // Tabs carry along their own plane; the strip carries what presses.
    const std::vector<Layer> plies(static_cast<std::size_t>(j.plies), {LayerKind::ply, j.cloth, 0, 0});
    const auto tab = sum_stack(plies, resin, LayUp::hand, shop, "back tab").laminate;
    return {pressed + kTabBend * 2 * tab.membrane.Ex * tab.thickness / j.tab,
            2 * tab.membrane.Gxy * tab.thickness / j.tab};
}

}  // namespace jig::back
