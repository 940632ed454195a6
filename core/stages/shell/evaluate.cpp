#include <fmt/format.h>

#include <cmath>

#include "core/stages/shell/findings.hpp"

namespace jig::shell {

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const edge::Findings& edge, const Shop& shop) {
    Findings out;
    out.resin = need(shop.resins, c.resin, "shell resin");
    out.stack = sum_stack(c.layers, out.resin, c.how, shop, "shell");
    const auto& l = out.stack.laminate;
    out.area = split.mould_area() + edge.area;
    out.mass = out.stack.areal_mass() * out.area;
    out.resin_mass = out.stack.resin * out.area * (1 + c.waste);
    out.Tg = out.resin.Tg;
    double today = 0;
    for (std::size_t i = 0; i < c.layers.size(); ++i) {
        const bool laid_wet = c.layers[i].kind == LayerKind::ply || c.layers[i].kind == LayerKind::coupling;
        if (c.layers[i].kind == LayerKind::surface_coat)
            out.Tg = std::min(out.Tg, need(shop.surface_coats, c.layers[i].material, "shell").Tg);
        if (!laid_wet) continue;
        const double t = out.stack.laid[i].ply.thickness;
        if (today > 0 && today + t > out.resin.day_limit) {
            out.day_ends.push_back(i - 1);
            today = 0;
        }
        today += t;
    }
    out.days = 1 + static_cast<int>(out.day_ends.size());
    const double longest = split.size.x();
    const double cooling = c.cure_temperature - kelvin(20);
    const double curve = std::max(std::abs(l.curvature[0]), std::abs(l.curvature[1])) * cooling;
    // The skin wants to curl with the moment D·κ; the shape's own depth (E·t·∫(h-h̄)²ds) resists it.
    const double skin = std::max(l.D(0, 0), l.D(1, 1)) * split.section_width;
    const double depth = std::min(l.membrane.Ex, l.membrane.Ey) * l.thickness * split.section_second;
    const double freedom = skin + depth > 0 ? skin / (skin + depth) : 1;
    out.bow = curve * freedom * longest * longest / 8;
    out.bridging_radius = kBridgingThicknesses * l.thickness;
    out.corners = tight_corners(shape.mesh, shape.topology, shape.bends, out.bridging_radius, true);
    out.corners.length *= split.parts();
    out.corners.filler *= split.parts();
    const auto mpa = [](double e) { return quantity(Kind::modulus, e); };
    out.figures = {
        {"thickness", "thickness", Kind::thickness, l.thickness,
         "sum of layers, each W/(ρ·Vf) for a cloth or as its data says"},
        {"areal_mass", "mass per area", Kind::areal_mass, out.stack.areal_mass(),
         fmt::format("fibre {} + resin {} + coats and core {}", quantity(Kind::areal_mass, out.stack.fibre),
                     quantity(Kind::areal_mass, out.stack.resin),
                     quantity(Kind::areal_mass, out.stack.other))},
        {"mass", "shell and flange", Kind::mass, out.mass,
         "mass per area × " + quantity(Kind::area, out.area) + " of shell and flange"},
        {"resin", "resin to mix", Kind::mass, out.resin_mass,
         fmt::format("{} in the laminate × area, and {:.0f} % over",
                     quantity(Kind::areal_mass, out.stack.resin), 100 * c.waste)},
        {"Ex", "stiffness in the plane, along", Kind::modulus, l.membrane.Ex,
         fmt::format("1/(a11·h) of the inverted ABD; across {}", mpa(l.membrane.Ey))},
        {"Eb", "stiffness in bending, along", Kind::modulus, l.bending.Ex,
         fmt::format("12/(d11·h³) of the inverted ABD; across {}", mpa(l.bending.Ey))},
        {"D", "bending stiffness D11", Kind::stiffness, l.D(0, 0), "∫ Q11·z² dz through the stack"},
        {"cte", "expansion along", Kind::expansion, l.cte[0],
         fmt::format("free strain per kelvin from A, B, D and the ply's own; across {}",
                     quantity(Kind::expansion, l.cte[1]))},
        {"bow", "bow on cooling, without a back", Kind::thickness, out.bow,
         fmt::format("free curvature {:.2e} 1/(m·K) × {:.0f} K × L²/8, L = {}, × {:.2g} that the depth of "
                     "the shape leaves of it",
                     std::max(std::abs(l.curvature[0]), std::abs(l.curvature[1])), cooling,
                     quantity(Kind::length, longest), freedom)},
        {"corners", "corners that cloth bridges", Kind::length, out.corners.length,
         fmt::format(
             "hollows of the plug tighter than {:g} × thickness = {}: fill them, or lay a strand that long",
             kBridgingThicknesses, quantity(Kind::length, out.bridging_radius))},
        {"filler", "filler for them", Kind::volume, out.corners.filler,
         "r²·(tan(θ/2) − θ/2) a metre of a fold by θ, (1 − π/4)·(r² − R²) of a bend of radius R"},
        {"days", "days of laying up", Kind::count, static_cast<double>(out.days),
         "at most " + quantity(Kind::thickness, out.resin.day_limit) + " of this resin in one go"}};
    return out;
}

}  // namespace jig::shell
