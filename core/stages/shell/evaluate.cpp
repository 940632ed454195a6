#include <fmt/format.h>

#include <cmath>

#include "core/science/heat/glass.hpp"
#include "core/science/heat/pot.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/pots.hpp"
#include "core/stages/shell/findings.hpp"
#include "core/stages/shell/lay_order.hpp"
#include "core/stages/shell/units.hpp"

namespace jig::shell {
namespace {

std::vector<Layer> with_zone(const std::vector<Layer>& layers, const Zone& zone) {
    auto out = layers;
    out.insert(out.end(), zone.layers.begin(), zone.layers.end());
    return out;
}

/// m² of face under the touches of a brush, each face counted once.
double painted_area(const TriangleMesh& mesh, const Zone& zone) {
    const auto touched = painted_faces(zone, mesh);
    double area = 0;
    for (std::size_t f = 0; f < touched.size(); ++f) area += touched[f] ? mesh.area_vector2(f).norm() / 2 : 0;
    return area;
}

/// A mould that is cut or printed itself: the block's own wall.
Findings of_solid(const Choices& c, const split::Findings& split, const edge::Findings& edge,
                  const Library& shop) {
    Findings out;
    if (const auto* resin = find(shop.resins, c.resin)) out.resin = *resin;
    out.stack = sum_stack(c.layers, out.resin, c.how, shop, "shell");
    const auto& layer = c.layers.front();
    const auto& solid = *layer.solid;
    const auto& l = out.stack.laminate;
    out.area = split.mould_area() + edge.area;
    out.mass = solid.mass;
    out.days = 0;
    out.Tg = solid.bears;
    out.Tg_reason = layer.material + " bears no more, from the shop library";
    out.figures = {{"thickness", "wall where it is thinnest", Kind::thickness, l.thickness,
                    "behind the deepest place of its face: your choice in Plug"},
                   {"mass", "mould and flange", Kind::mass, out.mass,
                    "all of its pieces, as in Plug: the whole block, not its thinnest wall alone"},
                   {"Ex", "stiffness in the plane, along", Kind::modulus, l.membrane.Ex, layer.material},
                   {"cte", "expansion along", Kind::expansion, l.cte[0], layer.material}};
    return out;
}

}  // namespace

double free_curve(const StackSum& stack, double cooling) {
    const Eigen::Vector3d curve = stack.laminate.curvature * cooling + stack.cure.curvature;
    return std::max(std::abs(curve[0]), std::abs(curve[1]));
}

Laminate flange_laminate(const Choices& c, const Library& shop) {
    auto layers = c.layers;
    for (const auto& zone : c.zones) {
        if (zone.kind == ZoneKind::flange) layers = with_zone(layers, zone);
    }
    return sum_stack(layers, need(shop.resins, c.resin, "shell resin"), c.how, shop, "shell").laminate;
}

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const edge::Findings& edge, const brief::Crew& brief, double under_ribs,
                  const Warmth& warmth, const GoLimit& go, const Library& shop) {
    if (is_solid(c.layers)) return of_solid(c, split, edge, shop);
    Findings out;
    out.go = go;
    out.resin = need(shop.resins, c.resin, "shell resin");
    out.stack = sum_stack(c.layers, out.resin, c.how, shop, "shell");
    const auto& l = out.stack.laminate;
    out.area = split.mould_area() + edge.area;
    out.bridging_radius = kBridgingThicknesses * l.thickness;
    out.corners = tight_corners(shape.mesh, shape.topology, shape.bends, out.bridging_radius, true);
    out.corners.length *= split.parts();
    out.corners.filler *= split.parts();
    if (c.zones.size() > kMostZones)
        throw InputError("shell", "more than sixteen doublers", "lay neighbouring ones as one");
    double zones_mass = 0, zones_resin = 0;
    for (const auto& zone : c.zones) {
        if (zone.layers.empty()) continue;
        ZoneSum sum;
        sum.name = std::string(said(zone.kind));
        sum.extra = sum_stack(zone.layers, out.resin, c.how, shop, "shell zone");
        sum.whole = sum_stack(with_zone(c.layers, zone), out.resin, c.how, shop, "shell zone");
        sum.area = zone.kind == ZoneKind::flange       ? edge.area
                   : zone.kind == ZoneKind::corners    ? out.corners.length * zone.width
                   : zone.kind == ZoneKind::under_ribs ? under_ribs * zone.width
                                                       : painted_area(shape.mesh, zone) * split.parts();
        sum.units = units_of(zone.layers, c, shop);
        zones_mass += sum.extra.areal_mass() * sum.area;
        zones_resin += sum.extra.mixed * sum.area;
        out.zones.push_back(std::move(sum));
    }
    out.mass = out.stack.areal_mass() * out.area + zones_mass;
    const double kept = c.how == LayUp::infused ? c.pot_loss : 0;
    out.resin_mass = (out.stack.mixed * out.area + zones_resin) * (1 + c.waste) + kept;
    const double hottest = std::max({c.cure_temperature, warmth.gel, warmth.room});
    const auto lower = [&](const std::string& name, double full, double lead) {
        const double Tg = glass_after(full, lead, hottest);
        if (!out.Tg_reason.empty() && Tg >= out.Tg) return;
        out.Tg = Tg;
        out.Tg_reason =
            Tg < full
                ? fmt::format("{}: held at {} at the hottest, and {:.0f} K on; {} fully cured", name,
                              quantity(Kind::temperature, hottest), lead, quantity(Kind::temperature, full))
                : name + " fully cured, the lowest of resin and surface coats";
    };
    lower(out.resin.name, out.resin.Tg, out.resin.Tg_lead);
    double today = 0;
    std::vector<std::size_t> wanted;  // the layer, if any, that the maker has harden first
    for (std::size_t i = 0; i < c.layers.size(); ++i) {
        const auto kind = c.layers[i].kind;
        if (i > 0 && ends_go(c.layers, i - 1)) wanted = {i - 1};
        const bool drinks =
            kind == LayerKind::core && need(shop.cores, c.layers[i].material, "shell").fills > 0;
        const bool laid_wet = kind == LayerKind::ply || kind == LayerKind::coupling || drinks;
        if (c.layers[i].kind == LayerKind::surface_coat) {
            const auto& coat = need(shop.surface_coats, c.layers[i].material, "shell");
            lower(coat.name, coat.Tg, coat.Tg_lead);
        }
        if (!laid_wet) continue;
        const double t = out.stack.laid[i].ply.thickness;
        if (today > 0 && (go.is_full(today, t) || !wanted.empty())) {
            out.day_ends.push_back(wanted.empty() ? i - 1 : wanted.front());
            today = 0;
        }
        wanted.clear();
        today += t;
    }
    std::size_t more_days = 0;
    for (auto& zone : out.zones) {
        double day = today;
        for (std::size_t i = 0; i < zone.extra.laid.size(); ++i) {
            const double t = zone.extra.laid[i].ply.thickness;
            if (go.is_full(day, t)) {
                zone.days.push_back(i);
                day = 0;
            }
            day += t;
        }
        more_days = std::max(more_days, zone.days.size());
    }
    out.days = 1 + static_cast<int>(out.day_ends.size() + more_days);
    const double longest = split.size.x();
    const double cooling = std::max(0.0, c.cure_temperature - warmth.room);
    const double curve = free_curve(out.stack, cooling), shrunk = free_curve(out.stack, 0);
    // The skin wants to curl with the moment D·κ; the shape's own depth (E·t·∫(h-h̄)²ds) resists it.
    const double skin = std::max(l.D_free(0, 0), l.D_free(1, 1)) * split.section_width;
    const double depth = std::min(l.membrane.Ex, l.membrane.Ey) * l.thickness * split.section_second;
    const double freedom = skin + depth > 0 ? skin / (skin + depth) : 1;
    out.bow = curve * freedom * longest * longest / 8;
    out.shrink_bow = shrunk * freedom * longest * longest / 8;
    out.units = units_of(c.layers, c, shop);
    out.working = working(out.resin, warmth.room, std::max(0.02, c.batch));
    order_laying(c, brief, shop, out);
    const auto mpa = [](double e) { return quantity(Kind::modulus, e); };
    out.figures = {
        {"thickness", "thickness", Kind::thickness, l.thickness,
         "sum of layers, each W/(ρ·Vf) for a cloth or as its data says"},
        {"units", "in units of " + c.unit, Kind::factor, out.units,
         in_units(c.layers, c, shop) + ": each ply as the library counts it, or by its thickness over that "
                                       "of one ply of the unit cloth; "
                                       "coats, tissue and cores stand apart"},
        {"areal_mass", "mass per area", Kind::areal_mass, out.stack.areal_mass(),
         fmt::format("fibre {} + resin {} + coats and core {}", quantity(Kind::areal_mass, out.stack.fibre),
                     quantity(Kind::areal_mass, out.stack.resin),
                     quantity(Kind::areal_mass, out.stack.other))},
        {"mass", "shell and flange", Kind::mass, out.mass,
         "mass per area × " + quantity(Kind::area, out.area) + " of shell and flange" +
             (zones_mass > 0 ? ", and " + quantity(Kind::mass, zones_mass) + " of doublers" : std::string())},
        {"resin", "resin to mix", Kind::mass, out.resin_mass,
         c.how == LayUp::prepreg && out.resin_mass <= 0
             ? std::string("none: a prepreg brings its resin in the cloth")
             : fmt::format("{} in the laminate × area, and {:.0f} % over{}",
                           quantity(Kind::areal_mass, out.stack.mixed), 100 * c.waste,
                           kept > 0 ? ", and " + quantity(Kind::mass, kept) + " in hoses, medium and pots"
                                    : std::string())},
        {"Ex", "stiffness in the plane, along", Kind::modulus, l.membrane.Ex,
         fmt::format("1/(a11·h) of the inverted ABD; across {}", mpa(l.membrane.Ey))},
        {"Eb", "stiffness in bending, along", Kind::modulus, l.bending.Ex,
         fmt::format("12/(d11·h³) of the inverted ABD; across {}", mpa(l.bending.Ey))},
        {"D", "bending stiffness D*11", Kind::stiffness, l.D_free(0, 0),
         "of a free strip: ∫ Q11·z² dz less what stretching takes back, D − B·A⁻¹·B"},
        {"cte", "expansion along", Kind::expansion, l.cte[0],
         fmt::format("free strain per kelvin from A, B, D and the ply's own; across {}",
                     quantity(Kind::expansion, l.cte[1]))},
        {"bow", "bow on cooling, without a back", Kind::thickness, out.bow,
         fmt::format("free curvature {:.2e} 1/m from {:.0f} K of cooling and the resin's shrinkage after gel "
                     "({:.2e} of it) × L²/8, L = {}, × {:.2g} that the depth of the shape leaves of it",
                     curve, cooling, shrunk, quantity(Kind::length, longest), freedom)},
        {"batches", "pots of resin", Kind::count, static_cast<double>(out.batches),
         fmt::format(
             "each at most {} and laid within {:.0f} % of its pot life of {}, from ply to ply{}",
             quantity(Kind::mass, c.batch), 100 * kUsedOfLife, quantity(Kind::duration, out.working.pot),
             c.how == LayUp::infused ? ": what is brushed on alone; Bag has those that are drawn in" : "")},
        {"corners", "corners that cloth bridges", Kind::length, out.corners.length,
         fmt::format(
             "hollows of the plug tighter than {:g} × thickness = {}: fill them, or lay a strand that long",
             kBridgingThicknesses, quantity(Kind::length, out.bridging_radius))},
        {"filler", "filler for them", Kind::volume, out.corners.filler,
         "r²·(tan(θ/2) − θ/2) a metre of a fold by θ, (1 − π/4)·(r² − R²) of a bend of radius R"},
        {"days", "days of laying up", Kind::count, static_cast<double>(out.days),
         "at most " + quantity(Kind::thickness, go.most) + " in one go: " + go.why +
             (more_days > 0
                  ? fmt::format("; {} of them for doublers that would be too much on the last", more_days)
                  : std::string())}};
    if (c.how != LayUp::prepreg && out.resin_mass > 0) {
        out.figures.push_back(full_pot(out.resin, std::min(c.batch, out.resin_mass), warmth.room));
    }
    for (std::size_t i = 0; i < out.zones.size(); ++i) {
        const auto& z = out.zones[i];
        out.figures.push_back(
            {fmt::format("zone_{}", i + 1), "doubler " + z.name, Kind::mass, z.extra.areal_mass() * z.area,
             quantity(Kind::areal_mass, z.extra.areal_mass()) + " over " + quantity(Kind::area, z.area) +
                 fmt::format("; counts {:.1f} units; ", z.units) +
                 quantity(Kind::thickness, z.whole.laminate.thickness) + " there"});
    }
    return out;
}

}  // namespace jig::shell
