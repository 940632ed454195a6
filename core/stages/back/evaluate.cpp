#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/science/laminate/plate.hpp"
#include "core/stages/back/findings.hpp"
#include "core/stages/back/tubes.hpp"

namespace jig::back {
namespace {

/// Search range of the pitch.
constexpr double kSmallestPitch = 0.02, kLargestPitch = 3.0;
/// A rib on a shell of this thickness, cured, on a soft strip hardly shows, m. Typical.
constexpr double kPrintThickness = 0.004;

/// A level grid between the crossings of the rib planes, and a leg from each down to the shell.
void lay_tubes(const Choices& c, const edge::ToolFace& face, double clear, Findings& out,
               Progress& progress) {
    const auto planes = rib_planes(c, face);
    const auto crossings = crossings_of(c, face, progress);
    const double level = face.high.z() + clear + c.height;
    out.legs = static_cast<int>(crossings.size());
    const auto next = [](const std::vector<double>& at, double from, double to) {
        const auto i = std::lower_bound(at.begin(), at.end(), from - 1e-9);
        return i != at.end() && i + 1 != at.end() && std::abs(*(i + 1) - to) < 1e-9;
    };
    for (const auto& p : crossings) {
        out.tube_length += level - p.z();
        for (const auto& q : crossings) {
            if ((std::abs(p.y() - q.y()) < 1e-9 && next(planes[0].at, p.x(), q.x())) ||
                (std::abs(p.x() - q.x()) < 1e-9 && next(planes[1].at, p.y(), q.y())))
                out.tube_length += (p - q).head<2>().norm();
        }
    }
    out.ribs = static_cast<int>(planes[0].at.size() + planes[1].at.size());
    out.bond_length = out.legs * 2 * c.tubes.size;
}

}  // namespace

std::vector<Layer> inner_layers(const Sandwich& s) {
    std::vector<Layer> out{{LayerKind::core, s.core, 0, 0}};
    for (int i = 0; i < s.plies; ++i) out.push_back({LayerKind::ply, s.cloth, 0, 0});
    return out;
}

std::optional<std::array<double, 3>> tool_box(const edge::Findings& edge, const shell::Findings& shell,
                                              const Choices& c) {
    if (!edge.tool) return {};
    const Point span = edge.tool->high - edge.tool->low;
    const double back = c.kind == BackKind::none ? 0 : c.height;
    return std::array{span.x(), span.y(), span.z() + shell.stack.laminate.thickness + back};
}

Sag sag_at(double span, const Laminate& l, const Choices& c) {
    const double D = std::min(l.bending.Ex, l.bending.Ey) * std::pow(l.thickness, 3) / 12;
    const double S = l.shear_stiffness.minCoeff();
    Sag out;
    out.own = strip_sag_uniform(l.areal_mass * kGravity, span, D, S);
    out.person = long_plate_sag_point(c.person, span, D, S);
    // A surface bag presses on the face as hard as the air on the back: the skin is squeezed, not bent.
    out.bag = c.bag == BagKind::envelope ? strip_sag_uniform(c.vacuum, span, D, S) : 0;
    return out;
}

Findings evaluate(const Choices& c, const split::Findings& split, const edge::Findings& edge,
                  const shell::Findings& shell, const shell::Choices& shell_choices, const Library& shop,
                  Progress& progress) {
    Findings out;
    auto l = shell.stack.laminate;
    if (c.kind == BackKind::sandwich) {
        const auto inner = inner_layers(c.sandwich);
        out.sandwich = sum_stack(inner, shell.resin, shell_choices.how, shop, "back sandwich");
        auto all = shell_choices.layers;
        all.insert(all.end(), inner.begin(), inner.end());
        l = sum_stack(all, shell.resin, shell_choices.how, shop, "back sandwich").laminate;
        out.sandwich_area = split.mould_area();
        out.mass = out.sandwich_area * out.sandwich.areal_mass();
    }
    const double width = split.size.y() + 2 * edge.width;
    out.span = c.has_grid() ? c.pitch : std::max(0.02, width - 2 * edge.width);
    out.sag = sag_at(out.span, l, c);
    double low = kSmallestPitch, high = kLargestPitch;
    if (sag_at(low, l, c).worst() <= c.limit) {
        for (int i = 0; i < 60; ++i) {
            const double middle = (low + high) / 2;
            (sag_at(middle, l, c).worst() <= c.limit ? low : high) = middle;
        }
        out.pitch_for_limit = low;
    }
    const double clear = l.thickness + c.joint.gap;
    if (c.has_plates() && edge.tool) {
        const auto& board =
            need(shop.boards, c.kind == BackKind::egg_crate ? c.board : c.foam.board, "back board");
        const double thick = c.kind == BackKind::egg_crate ? board.thickness : c.foam.wide;
        out.crate = std::make_shared<const Crate>(crate_of(c, *edge.tool, clear, thick, progress));
        out.ribs = static_cast<int>(out.crate->ribs.size());
        out.rib_area = out.crate->area;
        out.bond_length = out.crate->bond_length;
        out.mass = out.rib_area * thick * board.density;
        if (c.kind == BackKind::foam_blocks) {
            const std::vector<Layer> wrap(static_cast<std::size_t>(c.foam.plies),
                                          {LayerKind::ply, c.foam.cloth, 0, 0});
            const auto cloth = sum_stack(wrap, shell.resin, LayUp::hand, shop, "back cloth");
            out.sandwich = cloth;
            out.sandwich_area = 2 * out.rib_area + out.bond_length * c.foam.wide;
            out.mass += out.sandwich_area * cloth.areal_mass();
        }
    } else if (c.has_bars() && edge.tool) {
        lay_tubes(c, *edge.tool, clear, out, progress);
        out.mass = out.tube_length * section_of(c).area * facts_of(c.tubes.metal).density;
    }
    if (c.has_grid()) {
        const double bond = c.joint.bond == Bond::hard ? 1.6 : c.joint.bond == Bond::soft ? 0.7 : 0.5;
        const double fresh = c.shell_cured ? 1 : 1.8;
        out.print = bond * fresh * kPrintThickness / std::max(1e-4, shell.stack.laminate.thickness);
        out.print_reason =
            fmt::format("{:g} for a bond {} × {:g} for a shell that is {} × 4 mm ÷ {} of shell", bond,
                        said(c.joint.bond), fresh, c.shell_cured ? "cured" : "still green",
                        quantity(Kind::thickness, shell.stack.laminate.thickness));
    }
    const double D = std::min(l.bending.Ex, l.bending.Ey) * std::pow(l.thickness, 3) / 12;
    const auto with = fmt::format("strip of {} on two ribs, D = {:.0f} N·m, shear {:.2g} N/m",
                                  quantity(Kind::length, out.span), D, l.shear_stiffness.minCoeff());
    // Beyond that a strip stretches as it bends, and stands more than the sums say.
    const auto far = [&](double sag) {
        return sag > out.span / 10
                   ? std::string("; more than a tenth of its span: beyond what the method is good for")
                   : std::string();
    };
    out.figures = {
        {"span", c.has_grid() ? "rib pitch" : "free span", Kind::length, out.span,
         c.has_grid() ? "your choice above" : "the tool's width, no ribs"},
        {"sag_own", "strip between ribs, own weight", Kind::thickness, out.sag.own,
         "cross-check by hand: 5qL⁴/384D + qL²/8S, " + with + far(out.sag.own)},
        {"sag_person", "strip under a leaning person", Kind::thickness, out.sag.person,
         fmt::format("cross-check by hand: 0.01695·PL²/D + P/4S with P = {}, ",
                     quantity(Kind::force, c.person)) +
             with + far(out.sag.person)},
        {"sag_bag", "strip under the bag", Kind::thickness, out.sag.bag,
         c.bag == BagKind::envelope
             ? "5qL⁴/384D + qL²/8S under " + quantity(Kind::pressure, c.vacuum) + ", " + with +
                   far(out.sag.bag)
             : std::string("a surface bag presses through the thickness; air pushes as hard on the back")},
        {"pitch_for_limit", "strip's pitch for " + quantity(Kind::thickness, c.limit), Kind::length,
         out.pitch_for_limit,
         "the widest pitch at which own weight with a leaning person, or with the bag, stays within the "
         "limit on the strip; solving the whole tool says it better"},
        {"ribs", c.has_bars() ? "lines of tube" : "ribs", Kind::count, static_cast<double>(out.ribs),
         out.crate ? fmt::format("both ways at most a pitch apart, {} half laps", out.crate->laps)
                   : fmt::format("both ways at most a pitch apart, {} legs", out.legs)},
        {"bond", "bonded to the shell", Kind::length, out.bond_length,
         std::string("the ribs' edges along the shell") +
             (c.joint.bond == Bond::soft
                  ? "; tabs of " + quantity(Kind::length, c.joint.tab) + " on both sides"
                  : std::string())},
        {"print", "print-through, 1 shows", Kind::factor, out.print,
         out.print_reason.empty() ? std::string("no ribs") : out.print_reason},
        {"mass", "mass of the back", Kind::mass, out.mass,
         c.has_bars() ? quantity(Kind::length, out.tube_length) + " of tube"
         : out.crate  ? "rib area " + quantity(Kind::area, out.rib_area) + " × board, and cloth"
                      : "core and inner skin over " + quantity(Kind::area, out.sandwich_area)}};
    if (c.kind == BackKind::frame && edge.tool) {
        // The feet furthest apart share the travel between them.
        const double apart = (1 - 2 * c.feet.inset) * (edge.tool->high - edge.tool->low).head<2>().norm();
        out.figures.push_back({"levels", "levels a floor that falls by, in a metre", Kind::thickness,
                               apart > 0 ? c.tubes.travel / apart : 0,
                               quantity(Kind::length, c.tubes.travel) + " of travel over " +
                                   quantity(Kind::length, apart) + " between the feet furthest apart"});
    }
    return out;
}

}  // namespace jig::back
