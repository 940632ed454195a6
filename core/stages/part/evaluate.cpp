#include <fmt/format.h>

#include <cmath>

#include "core/stages/part/findings.hpp"

namespace jig::part {

Findings evaluate(const Choices& c, const split::Findings& split, const Shop& shop) {
    Findings out;
    out.resin = need(shop.resins, c.resin, "part resin");
    out.stack = sum_stack(c.layers, out.resin, c.how, shop, "part");
    out.area = split.moulded_area;
    out.mass = out.stack.areal_mass() * out.area;
    out.resin_mix = out.stack.resin * out.area * (1 + c.waste / 2) + c.pot_loss;
    // The same plies without core, thickened all alike until they weigh as much.
    std::vector<StackPly> solid;
    double core = 0, solid_mass = 0;
    for (const auto& l : out.stack.laid) {
        if (l.layer.kind == LayerKind::core) {
            core += l.ply.thickness;
        } else {
            solid.push_back(l.ply);
            solid_mass += l.ply.thickness * l.ply.material.density;
        }
    }
    const auto& l = out.stack.laminate;
    out.core_share = core / l.thickness;
    double solid_D = l.D(0, 0);
    if (core > 0 && !solid.empty()) {
        const double scale = out.stack.areal_mass() / solid_mass;
        for (auto& p : solid) p.thickness *= scale;
        solid_D = laminate(solid).D(0, 0);
        out.stiffer = l.D(0, 0) / solid_D;
    }
    out.figures = {
        {"thickness", "thickness", Kind::thickness, l.thickness,
         fmt::format("sum of layers, {:.0f} % of it core", 100 * out.core_share)},
        {"areal_mass", "mass per area", Kind::areal_mass, out.stack.areal_mass(),
         fmt::format("fibre {} + resin {} + coats and core {}", quantity(Kind::areal_mass, out.stack.fibre),
                     quantity(Kind::areal_mass, out.stack.resin),
                     quantity(Kind::areal_mass, out.stack.other))},
        {"mass", "mass of the part", Kind::mass, out.mass,
         "mass per area × " + quantity(Kind::area, out.area)},
        {"D", "bending stiffness D11", Kind::stiffness, l.D(0, 0), "∫ Q11·z² dz through the stack"},
        {"stiffer", "times as stiff as solid", Kind::factor, out.stiffer,
         fmt::format("against the same plies without core, thickened to the same mass: D11 = {}",
                     quantity(Kind::stiffness, solid_D))},
        {"resin", "resin to mix for each part", Kind::mass, out.resin_mix,
         fmt::format("{} × area, half the cloth's waste, and {} left in pots and lines",
                     quantity(Kind::areal_mass, out.stack.resin), quantity(Kind::mass, c.pot_loss))},
        {"hardener", "of that, hardener", Kind::mass,
         out.resin_mix * out.resin.mix_ratio / (100 + out.resin.mix_ratio),
         fmt::format("{:g} parts to 100 by mass", out.resin.mix_ratio)}};
    return out;
}

}  // namespace jig::part
