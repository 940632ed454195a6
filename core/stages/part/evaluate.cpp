#include <fmt/format.h>

#include <bit>
#include <cmath>
#include <map>
#include <set>

#include "core/science/laminate/plate.hpp"
#include "core/stages/part/cut_line.hpp"
#include "core/stages/part/goes.hpp"
#include "core/stages/pots.hpp"

namespace jig::part {

namespace {

std::string names_of(const Choices& c, std::uint32_t zones) {
    std::string out;
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        if ((zones >> z & 1u) != 0) out += (out.empty() ? "" : ", ") + c.zones[z].name;
    }
    return out;
}

/// kg of resin that is mixed by hand, in one part.
double mixed_in(const Findings& part) {
    double out = 0;
    for (const auto& r : part.regions) out += r.area * r.stack.mixed;
    return out;
}

ResinAccount account_for(const Choices& c, const split::Findings& split, const Keepers& keepers,
                         const Findings& part) {
    ResinAsked a;
    a.area = part.area;
    // Of a mould in pieces each is laid past its own side of every seam.
    a.rim = split.one_piece() ? perimeter(split.rim) : 2 * split.set.seam_length;
    for (const auto& r : part.regions) {
        a.cloth += r.area * r.stack.fibre;
        double cores = 0;
        for (const auto& l : r.stack.laid) cores += l.layer.kind == LayerKind::core ? l.resin : 0;
        a.cores += r.area * cores;
        a.plies += r.area * (r.stack.mixed - cores);
    }
    a.by = c.resin_by;
    a.ratio = c.ratio;
    a.waste = c.waste;
    a.pot_loss = c.pot_loss;
    a.keepers = keepers;
    return account_of(std::move(a));
}

/// Line by line, beside what the other school says.
void add_account(Findings& out) {
    const auto& account = out.resin_account;
    if (account.lines.empty()) return;
    for (const auto& l : account.lines)
        out.figures.push_back({"resin_" + l.key, l.name, Kind::mass, l.mass, l.why});
    const auto& a = account.asked;
    out.figures.push_back(
        {"resin_other",
         a.by == ResinBy::share ? "by the ratio to cloth it would be" : "by fibre share it would be",
         Kind::mass, account.other,
         a.by == ResinBy::share ? fmt::format("{:g} × {} of dry cloth, and the same beside it", a.ratio,
                                              quantity(Kind::mass, a.cloth))
                                : "the laminate by its process, and the same beside it"});
    if (a.cloth > 0)
        out.figures.push_back(
            {"over_cloth", "resin for each kilogram of dry cloth", Kind::factor, account.total / a.cloth,
             "all that is mixed ÷ " + quantity(Kind::mass, a.cloth) +
                 ": a small face takes more, since rim, lines and pots do not shrink with it"});
}

void add_joint(const Choices& c, const split::Findings& split, const Library& shop, Findings& out) {
    if (c.joint.kind == JointKind::none) return;
    // A core is closed or chamfered out before the joint: its skins alone meet there, those of the rim where
    // that is a zone of its own.
    std::uint32_t rims = 0;
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        if (c.zones[z].place == ZonePlace::rim && out.area_of(z) > 0) rims |= 1u << z;
    }
    const auto edge =
        rims == 0 ? out.stack : sum_stack(layers_under(c, rims), out.resin, c.how, shop, "part zones");
    double thickness = 0;
    for (const auto& l : edge.laid) thickness += l.layer.kind == LayerKind::core ? 0 : l.ply.thickness;
    double density = 0;
    if (c.joint.kind != JointKind::none)
        density = c.joint.density.value_or(need(shop.bonds, c.joint.adhesive, "part joint").density);
    out.joint =
        join(c.joint, thickness, split.one_piece() ? perimeter(split.rim) : split.set.seam_length, density);
    const auto& j = out.joint;
    const auto add = [&](const char* key, const char* name, Kind kind, double value, std::string reason) {
        out.figures.push_back({key, name, kind, value, std::move(reason)});
    };
    add("joint_length", "length of the joint", Kind::length, j.length,
        c.joint.length > 0  ? std::string("your choice above")
        : split.one_piece() ? std::string("the rim, along which its mate is joined")
                            : std::string("the seams, along which its halves are joined"));
    add("lap", c.joint.kind == JointKind::butt ? "strip to each side" : "lap", Kind::length, j.lap,
        fmt::format("{:g} × the thickness at its edge, {} without core; 10 to 20 times is usual", c.joint.lap,
                    quantity(Kind::thickness, thickness)));
    if (c.joint.kind == JointKind::joggle) {
        add("step", "step of the joggle", Kind::thickness, j.step,
            "the mate's thickness and a glue gap of " + quantity(Kind::thickness, c.joint.gap));
        add("tape_layers", "layers of tape that build it", Kind::count, j.tape_layers,
            "step ÷ " + quantity(Kind::thickness, c.joint.tape) + " a layer, rounded");
        add("joggle_tape", "tape for it", Kind::length, j.tape_length, "layers × length, a lap wide");
    }
    if (c.joint.kind == JointKind::returned) {
        double skins = 0;
        for (const auto& l : edge.laid) skins += l.layer.kind == LayerKind::core ? 0 : l.mass();
        add("returned_area", "returned flange", Kind::area, j.flange_area,
            "lap × length, turned in on this part");
        add("returned_mass", "mass of it", Kind::mass, j.flange_area * skins,
            quantity(Kind::areal_mass, skins) + " of skins without core; on top of the part's own mass");
        add("returned_step", "stands in from the face by", Kind::thickness, thickness + c.joint.gap,
            "the mate's skins and the glue gap, so that the faces come flush");
    }
    add("bead", "bead of adhesive", Kind::length, j.bead,
        fmt::format("diameter whose section fills lap × gap with {:.0f} % squeezed out",
                    100 * c.joint.squeeze_out));
    add("adhesive", "adhesive", Kind::mass, j.adhesive,
        fmt::format("lap × gap × length × {:.0f} kg/m³, squeeze-out counted", density));
}

/// How the cloth lies, by the net that is worst and the piece that is largest.
void add_cloth(Findings& out) {
    const auto* worst = out.draped->worst();
    if (worst == nullptr) return;
    const auto add = [&](const char* key, std::string name, Kind kind, double value, std::string reason) {
        out.figures.push_back({key, std::move(name), kind, value, std::move(reason)});
    };
    const std::string lies = fmt::format("laid at {:.0f}°", degrees(worst->angle));
    add("shear", "cloth shears by at most", Kind::angle, worst->drape.most,
        lies + ", as a net of pinned threads of " + quantity(Kind::length, out.draped->cell) +
            " that starts where you say; " + worst->tightest + " locks at " +
            quantity(Kind::angle, worst->lock));
    add("locked", "of the face, cloth is locked on", Kind::area, worst->drape.locked,
        "sheared past that: it wrinkles there unless it is cut");
    const ClothNet* largest = worst;
    const auto size = [](const ClothNet& n) -> Point2 { return n.drape.flat_high - n.drape.flat_low; };
    for (const auto& net : out.draped->nets) {
        if (size(net).prod() > size(*largest).prod()) largest = &net;
    }
    if (!out.draped->cuts.empty()) {
        std::set<std::size_t> cuts;
        for (const auto& laid : out.draped->cuts) cuts.insert(laid.as.cut);
        double length = 0;
        for (const auto cut : cuts) length += cut_length(*out.draped, cut);
        add("cuts", "cut into a ply before it is laid", Kind::length, length,
            fmt::format("{} {}, followed over the face", cuts.size(), cuts.size() == 1 ? "cut" : "cuts"));
        add("lapped", "laps along a cut add at most", Kind::thickness, out.lapped,
            "plies of the common stack that lie over themselves at one place; cuts that are stepped by a lap "
            "or more do not add up");
    }
    const Point2 flat = size(*largest);
    add("flat_length", "largest ply flat, along its threads", Kind::length, flat.x(),
        fmt::format("box round its pattern, laid at {:.0f}°", degrees(largest->angle)));
    add("flat_width", "and across it", Kind::length, flat.y(), "wider than the roll it is joined");
}

/// How much thicker the common stack is where most plies lie over themselves along one cut.
double lapped(const Choices& c, const Draped& draped, const StackSum& stack) {
    double out = 0;
    for (std::size_t k = 0; k < c.cuts.size(); ++k) {
        std::map<int, double> by_place;
        for (const auto& [of, cuts] : draped.cut_plies) {
            if (of.zone >= 0 || of.layer >= stack.laid.size()) continue;
            for (const auto& as : cuts) {
                // Closer than a lap they lie over one another.
                if (as.cut == k)
                    by_place[c.cuts[k].step < c.kit.lap ? 0 : as.aside] += stack.laid[of.layer].ply.thickness;
            }
        }
        for (const auto& [place, thick] : by_place) out = std::max(out, thick);
    }
    return out;
}

/// What lies where: the stack of every region, and every layer with what it covers.
void lay_regions(const Choices& c, const Library& shop, Findings& out) {
    const auto& marked = *out.marked;
    // The face as it was draped and the moulded area are one: they differ by how seams were mended.
    const double measured = out.measured(), scale = measured > 0 ? out.area / measured : 0;
    std::map<Source, Laying> layings;
    const auto lay = [&](std::uint32_t zones, double area) {
        const auto sources = sources_under(c, zones);
        RegionSum sum{zones, area, {}, {}};
        if (zones == 0) {
            sum.stack = out.stack;
        } else {
            if (sources.empty())
                throw InputError("part zones", names_of(c, zones) + " leave no layer there",
                                 "add a layer, or take the zone away");
            sum.stack = sum_stack(layers_under(c, zones), out.resin, c.how, shop, "part zones");
        }
        for (std::size_t i = 0; i < sources.size(); ++i) {
            auto& laying = layings[sources[i].second];
            if (laying.area == 0) laying.laid = sum.stack.laid.at(i);
            laying.zone = sources[i].second.zone;
            laying.area += area;
            laying.go = go_of(c, sources[i].second);
            sum.goes.push_back(laying.go);
        }
        out.regions.push_back(std::move(sum));
    };
    if (marked.regions.empty()) {
        lay(0, out.area);
    } else {
        std::map<std::uint32_t, double> areas;
        for (const auto& r : marked.regions) areas[r.zones] += r.area;
        for (const auto& piece : out.others->pieces) {
            for (const auto& r : piece.marked.regions) areas[r.zones] += r.area;
        }
        for (const auto& [zones, area] : areas) lay(zones, area * scale);
    }
    for (auto& [source, laying] : layings) out.laying_order.push_back(std::move(laying));
}

/// What each of its goes asks, where there are several.
void add_goes(Findings& out) {
    if (out.goes.size() < 2) return;
    std::string all;
    for (const auto& go : out.goes) all += (all.empty() ? "" : "; ") + go.what;
    out.figures.push_back({"goes", "goes that it is laid in", Kind::count,
                           static_cast<double>(out.goes.size()),
                           all + ": each hardens in the tool before the next is laid on it"});
    for (std::size_t i = 0; i < out.goes.size(); ++i) {
        const auto& go = out.goes[i];
        out.figures.push_back(
            {fmt::format("go_{}", i + 1), fmt::format("go {}, {}", i + 1, go.what), Kind::duration, go.laying,
             fmt::format("all hands, without closing it; {} wet at once{}", quantity(Kind::thickness, go.wet),
                         go.pots > 0 ? fmt::format(", {} of resin in {} {}", quantity(Kind::mass, go.resin),
                                                   go.pots, go.pots == 1 ? "pot" : "pots")
                                     : std::string())});
    }
}

/// A stack on two supports against its plies alone.
struct AgainstSolid {
    double solid_D = 0;  ///< N·m, D*11 of the same plies without core, thickened all alike to the same mass
    double stiffer = 1;  ///< times that these give under the same load, to what the stack gives
};
AgainstSolid against_solid(const StackSum& stack, double span) {
    std::vector<StackPly> solid;
    double core = 0, mass = 0;
    for (const auto& l : stack.laid) {
        if (l.layer.kind == LayerKind::core) {
            core += l.ply.thickness;
        } else {
            solid.push_back(l.ply);
            mass += l.ply.thickness * l.ply.material.density;
        }
    }
    if (!(core > 0) || solid.empty()) return {stack.laminate.D_free(0, 0), 1};
    for (auto& p : solid) p.thickness *= stack.areal_mass() / mass;
    const auto gives = [&](const Laminate& l) {
        return strip_sag_uniform(1, span, l.D_free(0, 0), l.shear_stiffness[0]);
    };
    const auto plain = laminate(solid);
    return {plain.D_free(0, 0), gives(plain) / gives(stack.laminate)};
}

/// What each zone comes to, beside the common stack.
void add_zones(const Choices& c, Findings& out) {
    if (c.zones.empty()) return;
    const double common = out.stack.laminate.D_free(0, 0);
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        const auto& zone = c.zones[z];
        double area = 0, mass = 0;
        // Where it lies alone, or else over the fewest others.
        const RegionSum* plain = nullptr;
        for (const auto& r : out.regions) {
            if ((r.zones >> z & 1u) == 0) continue;
            area += r.area;
            mass += r.area * r.stack.areal_mass();
            if (plain == nullptr || std::popcount(r.zones) < std::popcount(plain->zones)) plain = &r;
        }
        if (plain == nullptr) continue;  // a call says so
        const auto& l = plain->stack.laminate;
        const auto key = fmt::format("zone_{}", z + 1);
        const double bends = l.D_free(0, 0) / common;
        out.figures.push_back(
            {key, "zone " + zone.name, Kind::mass, mass,
             fmt::format("{}, {}: {} thick, {}{}; bends {} as the common stack by D*11{}",
                         quantity(Kind::area, area), said(zone.way), quantity(Kind::thickness, l.thickness),
                         quantity(Kind::areal_mass, plain->stack.areal_mass()),
                         std::popcount(plain->zones) > 1 ? " with what else lies there" : "",
                         bends >= 1 ? fmt::format("{:.3g} times as little", bends)
                                    : fmt::format("{:.3g} times as much", 1 / bends),
                         has_core(layers_under(c, plain->zones))
                             ? fmt::format(", {:.3g} times as stiff as solid",
                                           against_solid(plain->stack, c.span).stiffer)
                             : std::string())});
    }
    double zoned = 0;
    for (const auto& r : out.regions) zoned += r.zones != 0 ? r.area : 0;
    out.figures.push_back({"zoned", "of the face, in zones", Kind::area, zoned,
                           "places where several lie over one another count once"});
    double area = 0, gives = 0, bears = 0;
    for (const auto& r : out.regions) {
        const double D = r.stack.laminate.D_free(0, 0);
        area += r.area;
        gives += r.area / D;
        bears += r.area * D;
    }
    if (area > 0)
        out.figures.push_back(
            {"D_zoned", "bending stiffness, zones counted", Kind::stiffness, area / gives,
             fmt::format("of strips that run from region to region, area ÷ Σ area/D*11; were all regions "
                         "side by side it would be {}. How they truly lie the trial under load knows",
                         quantity(Kind::stiffness, bears / area))});
}

/// What stands in the core's place at its inserts.
struct Inserted {
    double mass = 0;  ///< kg beyond that core
    int potted = 0, blocks = 0;
};

/// Sets them: what they bear, and what paste and blocks take and weigh.
Inserted set_inserts(const Choices& c, const InsertPlaces& places, const Library& shop, Findings& out) {
    const StackAt stack_at = [&](std::uint32_t zones) -> const StackSum& { return out.stack_under(zones); };
    out.inserts = {insert_fits(c, places, *out.marked, stack_at, shop)};
    for (const auto& piece : out.others->pieces)
        out.inserts.push_back(insert_fits(c, piece.inserts, piece.marked, stack_at, shop));
    Inserted sum;
    for (std::size_t i = 0; i < c.inserts.size(); ++i) {
        int set = 0;
        for (const auto& on : out.inserts) {
            if (i >= on.size() || on[i].place.beside) continue;
            const auto of = fill_of(c.inserts[i], on[i], shop);
            out.potting += of.paste;
            if (of.block > 0) out.blocks[c.inserts[i].block] += of.block;
            sum.mass += of.mass;
            sum.potted += of.paste > 0;
            sum.blocks += of.block > 0;
            ++set;
        }
        // One that lies nowhere so far is bought all the same.
        out.inserts_set += std::max(1, set);
    }
    out.mass += sum.mass;
    return sum;
}

void add_inserts(const Choices& c, const Inserted& sum, Findings& out) {
    for (auto& figure : insert_figures(c, out.inserts)) out.figures.push_back(std::move(figure));
    if (sum.potted > 0)
        out.figures.push_back({"potting", "paste round inserts", Kind::volume, out.potting,
                               fmt::format("{} potted through the core", sum.potted)});
    if (sum.potted + sum.blocks > 0)
        out.figures.push_back(
            {"inserts_mass", "heavier for its inserts", Kind::mass, sum.mass,
             fmt::format("in the mass above: paste of {} and blocks of {} instead of their core; the "
                         "inserts' own mass is not known here",
                         sum.potted, sum.blocks)});
}

}  // namespace

const StackSum& Findings::stack_under(std::uint32_t zones) const {
    const auto at =
        std::find_if(regions.begin(), regions.end(), [&](const RegionSum& r) { return r.zones == zones; });
    return at != regions.end() ? at->stack : stack;
}

double Findings::area_of(std::size_t zone) const {
    double out = 0;
    for (const auto& r : regions) out += (r.zones >> zone & 1u) != 0 ? r.area : 0;
    return out;
}

double Findings::measured() const {
    if (!(marked->area > 0)) return 0;
    double out = marked->area;
    for (const auto& piece : others->pieces) out += piece.marked.area;
    return out;
}

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const brief::Crew& brief, const Draped& draped, const Regions& marked, const CoreFit& cores,
                  const InsertPlaces& inserts, const OtherFaces& other_faces, const OtherMarks& others,
                  const OtherCores& other_cores, const Keepers& keepers, double room, const Library& shop) {
    Findings out;
    auto fit = cores;
    double faces = draped.area;
    for (const auto& other : other_cores.fits) fit = and_on(std::move(fit), other);
    for (const auto& piece : other_faces.faces) faces += piece.bare.area;
    out.cores = std::make_shared<const CoreFit>(std::move(fit));
    out.others = std::make_shared<const OtherMarks>(others);
    out.draped = std::make_shared<const Draped>(draped);
    out.resin = need(shop.resins, c.resin, "part resin");
    out.working = working(out.resin, room, kPotOfLife);
    out.stack = sum_stack(c.layers, out.resin, c.how, shop, "part");
    out.area = split.moulded_area;
    out.marked = std::make_shared<const Regions>(marked);
    lay_regions(c, shop, out);
    for (const auto& r : out.regions) out.mass += r.stack.areal_mass() * r.area;
    const auto inserted = set_inserts(c, inserts, shop, out);
    out.resin_account = account_for(c, split, keepers, out);
    out.resin_mix = out.resin_account.total;
    // What is over in cloth and pots is mixed with what is laid.
    const double mixed = mixed_in(out), over = mixed > 0 ? out.resin_mix / mixed : 1;
    out.goes = goes(c, out.laying_order, out.regions, split.parts(), over, out.working.pot, brief, shop);
    for (const auto& go : out.goes) out.pots += go.pots;
    const auto& l = out.stack.laminate;
    double core = 0;
    for (const auto& laid : out.stack.laid)
        core += laid.layer.kind == LayerKind::core ? laid.ply.thickness : 0;
    out.core_share = core / l.thickness;
    const auto solid = against_solid(out.stack, c.span);
    out.stiffer = solid.stiffer;
    out.figures = {
        {"thickness", "thickness", Kind::thickness, l.thickness,
         fmt::format("sum of layers, {:.0f} % of it core", 100 * out.core_share)},
        {"areal_mass", "mass per area", Kind::areal_mass, out.stack.areal_mass(),
         fmt::format("fibre {} + resin {} + coats and core {}", quantity(Kind::areal_mass, out.stack.fibre),
                     quantity(Kind::areal_mass, out.stack.resin),
                     quantity(Kind::areal_mass, out.stack.other))},
        {"mass", "mass of the part", Kind::mass, out.mass,
         (c.zones.empty() ? "mass per area × " + quantity(Kind::area, out.area)
                          : "each region's mass per area × its area, of " + quantity(Kind::area, out.area)) +
             (inserted.potted + inserted.blocks > 0
                  ? fmt::format(", and {} at its inserts", quantity(Kind::mass, inserted.mass))
                  : std::string())},
        {"D", "bending stiffness D*11", Kind::stiffness, l.D_free(0, 0),
         "of a free strip: ∫ Q11·z² dz less what stretching takes back, D − B·A⁻¹·B"},
        {"stiffer", "times as stiff as solid", Kind::factor, out.stiffer,
         fmt::format(
             "strip of {} on two supports under an even load, 5qL⁴/384D* + qL²/8S, against the same plies "
             "without core, thickened to the same mass: D*11 = {}; shear takes {:.0f} % of what it gives",
             quantity(Kind::length, c.span), quantity(Kind::stiffness, solid.solid_D),
             100 * (1 - strip_sag_uniform(1, c.span, l.D_free(0, 0), 1e30) /
                            strip_sag_uniform(1, c.span, l.D_free(0, 0), l.shear_stiffness[0])))},
        {"resin", "resin to mix for each part", Kind::mass, out.resin_mix,
         out.resin_mix > 0
             ? fmt::format("{}, and {} beside the laminate, listed below", said(c.resin_by),
                           quantity(Kind::mass, out.resin_mix - out.resin_account.lines[0].mass))
             : std::string("none: a prepreg brings its resin in the cloth")},
        {"pots", "pots of it for one pull", Kind::count, static_cast<double>(out.pots),
         c.how == LayUp::hand || c.how == LayUp::bagged
             ? fmt::format("each at most {} and laid within {:.0f} % of its pot life of {}, from ply to ply",
                           quantity(Kind::mass, kPotOfLife), 100 * kUsedOfLife,
                           quantity(Kind::duration, out.working.pot))
             : std::string("none: nothing is wetted by hand")},
        {"hardener", "of that, hardener", Kind::mass,
         out.resin_mix * out.resin.mix_ratio / (100 + out.resin.mix_ratio),
         fmt::format("{:g} parts to 100 by mass", out.resin.mix_ratio)}};
    if (out.pots > 0)
        out.figures.push_back(full_pot(out.resin, std::min(kPotOfLife, split.parts() * out.resin_mix), room));
    add_goes(out);
    add_account(out);
    out.bridging_radius = kBridgingThicknesses * l.thickness;
    out.corners = tight_corners(shape.mesh, shape.topology, shape.bends, out.bridging_radius, false);
    out.figures.push_back(
        {"corners", "corners of the mould that cloth bridges", Kind::length, out.corners.length,
         fmt::format("tighter than {:g} × thickness = {}, {} of filler or a strand that long",
                     kBridgingThicknesses, quantity(Kind::length, out.bridging_radius),
                     quantity(Kind::volume, out.corners.filler))});
    add_joint(c, split, shop, out);
    out.lapped = lapped(c, draped, out.stack);
    add_cloth(out);
    for (auto& figure : core_figures(c, *out.cores, faces > 0 ? out.area / faces : 0, out.resin, shop))
        out.figures.push_back(std::move(figure));
    add_zones(c, out);
    add_inserts(c, inserted, out);
    return out;
}

}  // namespace jig::part
