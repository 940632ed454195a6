#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/science/laminate/plate.hpp"
#include "core/stages/back/findings.hpp"

namespace jig::back {
namespace {

/// Search range of the pitch.
constexpr double kSmallestPitch = 0.02, kLargestPitch = 3.0;

}  // namespace

Sag sag_at(double span, const shell::Findings& shell, const Choices& c) {
    const auto& l = shell.stack.laminate;
    const double D = std::min(l.bending.Ex, l.bending.Ey) * std::pow(l.thickness, 3) / 12;
    const double S = l.shear_stiffness.minCoeff();
    Sag out;
    out.own = strip_sag_uniform(l.areal_mass * kGravity, span, D, S);
    out.person = long_plate_sag_point(c.person, span, D, S);
    // A surface bag presses on the face as hard as the air on the back: the skin is squeezed, not bent.
    out.bag = c.bag == BagKind::envelope ? strip_sag_uniform(c.vacuum, span, D, S) : 0;
    return out;
}

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const edge::Findings& edge, const shell::Findings& shell, const Shop& shop) {
    Findings out;
    const double length = split.size.x() + 2 * edge.width;
    const double width = split.size.y() + 2 * edge.width;
    out.span = c.kind == BackKind::none ? std::max(0.02, width - 2 * edge.width) : c.pitch;
    out.sag = sag_at(out.span, shell, c);
    double low = kSmallestPitch, high = kLargestPitch;
    if (sag_at(low, shell, c).worst() <= c.limit) {
        for (int i = 0; i < 60; ++i) {
            const double middle = (low + high) / 2;
            (sag_at(middle, shell, c).worst() <= c.limit ? low : high) = middle;
        }
        out.pitch_for_limit = low;
    }
    if (c.kind != BackKind::none) {
        const auto& board = need(shop.boards, c.board, "back board");
        const int across = static_cast<int>(std::ceil(length / c.pitch)) + 1,
                  along = static_cast<int>(std::ceil(width / c.pitch)) + 1;
        out.ribs = across + along;
        // A rib reaches from the feet to the shell: half the tool's height on average, and the free height.
        const double tall = c.height + shape.measures.size.z() / 2;
        out.rib_area = c.kind == BackKind::egg_crate ? (across * width + along * length) * tall
                                                     : (across * width + along * length) * 2 * c.height;
        out.mass = c.kind == BackKind::egg_crate ? out.rib_area * board.thickness * board.density
                                                 : out.rib_area * shell.stack.areal_mass() * 0.25;
    }
    const auto& l = shell.stack.laminate;
    const double D = std::min(l.bending.Ex, l.bending.Ey) * std::pow(l.thickness, 3) / 12;
    const auto with = fmt::format("strip of {} on two ribs, D = {:.0f} N·m, shear {:.2g} N/m",
                                  quantity(Kind::length, out.span), D, l.shear_stiffness.minCoeff());
    out.figures = {
        {"span", c.kind == BackKind::none ? "free span" : "rib pitch", Kind::length, out.span,
         c.kind == BackKind::none ? "the tool's width, no ribs" : "your choice above"},
        {"sag_own", "sag under own weight", Kind::thickness, out.sag.own, "5qL⁴/384D + qL²/8S, " + with},
        {"sag_person", "sag under a leaning person", Kind::thickness, out.sag.person,
         fmt::format("0.01695·PL²/D + P/4S with P = {:.0f} N, ", c.person) + with},
        {"sag_bag", "sag under the bag", Kind::thickness, out.sag.bag,
         c.bag == BagKind::envelope
             ? "5qL⁴/384D + qL²/8S under " + quantity(Kind::pressure, c.vacuum) + ", " + with
             : std::string("a surface bag presses through the thickness; air pushes as hard on the back")},
        {"pitch_for_limit", "pitch for " + quantity(Kind::thickness, c.limit), Kind::length,
         out.pitch_for_limit,
         "the widest pitch at which own weight with a leaning person, or with the bag, stays within the "
         "limit"},
        {"ribs", "ribs", Kind::count, static_cast<double>(out.ribs),
         "both ways at the pitch, one at each end"},
        {"mass", "mass of the back", Kind::mass, out.mass,
         "rib area " + quantity(Kind::area, out.rib_area) + " × board or wrapped cloth"}};
    return out;
}

}  // namespace jig::back
