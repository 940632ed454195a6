#include <fmt/format.h>

#include <cmath>

#include "core/stages/part/goes.hpp"

namespace jig::part {
namespace {

Fix without_zone(const Choices& c, std::size_t zone) {
    auto zones = c.zones;
    zones.erase(zones.begin() + static_cast<std::ptrdiff_t>(zone));
    return {"Take it away", patch_of("part", "zones", to_json_value(zones))};
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief, int parts, double bagging,
            const GoLimit& go, const Library& shop) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::part, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    if (c.target_mass > 0 && f.mass > 1.02 * c.target_mass) {
        add(Severity::caution, "heavy",
            "Part " + quantity(Kind::mass, f.mass) + " against a target of " +
                quantity(Kind::mass, c.target_mass),
            "Lighter cloth, more core or a drier lay-up brings it down.");
    }
    const LayUp fits = brief.process == Process::infusion  ? LayUp::infused
                       : brief.process == Process::prepreg ? LayUp::prepreg
                       : brief.process == Process::wet     ? LayUp::hand
                                                           : LayUp::bagged;
    if (c.how != fits) {
        add(Severity::caution, "process",
            std::string("The part is laid ") + std::string(said(c.how)) + ", the brief says " +
                std::string(said(brief.process)),
            "Resin content and thickness follow the process.",
            Fix{"Lay it " + std::string(said(fits)), patch_of("part", "how", std::string(file_word(fits)))});
    }
    const auto layers = all_layers(c);
    for (const auto& layer : layers) {
        if (layer.kind != LayerKind::core) continue;
        const auto& core = need(shop.cores, layer.material, "part");
        if (c.how != LayUp::hand && core.crush < 2 * 101325) {
            add(Severity::stop, "crush",
                layer.material + " crushes at " + quantity(Kind::strength, core.crush),
                "One atmosphere of bag pressure leaves no margin.");
        }
    }
    if ((c.how == LayUp::prepreg) != f.resin.in_cloth) {
        std::optional<Fix> fix;
        const Resin* low = nullptr;
        for (const auto& r : shop.resins) {
            if (r.in_cloth && (low == nullptr || r.gel_temperature > low->gel_temperature)) low = &r;
        }
        if (f.resin.in_cloth)
            fix = Fix{"Lay it as prepreg", patch_of("part", "how", "prepreg")};
        else if (low != nullptr)
            fix = Fix{"Take " + low->name, patch_of("part", "resin", low->name)};
        add(Severity::stop, "prepreg_resin",
            f.resin.in_cloth ? f.resin.name + " comes in the cloth and is laid as prepreg"
                             : "Laid as prepreg in " + f.resin.name + ", which is mixed by hand",
            "Either the cloth brings the resin, or it is wetted here: fibre share, mixing and cure follow.",
            fix);
    }
    for (const auto& layer : layers) {
        if (layer.kind == LayerKind::core && c.how == LayUp::infused &&
            need(shop.cores, layer.material, "part").open_cells)
            add(Severity::stop, "flooded", layer.material + " in an infusion",
                "Its open cells fill with resin: closed foam or balsa is infused, honeycomb is not.",
                Fix{"Lay it by hand under a bag", patch_of("part", "how", "bagged")});
    }
    for (auto& call : go_calls(c, f, brief, parts, bagging, go, shop)) out.push_back(std::move(call));
    if (const auto* worst = f.draped->worst(); worst != nullptr) {
        if (worst->drape.locked > 0.01 * f.draped->area) {
            add(Severity::caution, "cloth_locks",
                worst->tightest + " locks over " + quantity(Kind::area, worst->drape.locked) +
                    " of the face" + fmt::format(" at {:.0f}°", degrees(worst->angle)),
                "Its threads close by " + quantity(Kind::angle, worst->drape.most) +
                    " there and it locks at " + quantity(Kind::angle, worst->lock) +
                    ": it wrinkles unless it is cut and lapped there (cuts are sought below the stack), laid "
                    "at another angle, started elsewhere, or is a looser weave.");
            const auto& nodes = worst->drape.nodes;
            const auto most = std::max_element(nodes.begin(), nodes.end(), [](const auto& a, const auto& b) {
                return (a.outside ? -1 : a.shear) < (b.outside ? -1 : b.shear);
            });
            if (most != nodes.end()) out.back().at = most->at;
        }
        if (worst->drape.seam > 0)
            add(Severity::note, "cloth_meets",
                "The cloth comes round and meets itself along " + quantity(Kind::length, worst->drape.seam),
                "Its pattern ends there edge to edge: leave a lap on one side, and turn the seam of each ply "
                "away from the last one's, or the skin has a line without threads across it.");
        if (!worst->drape.holes.empty())
            add(Severity::note, "unreached",
                fmt::format("Cloth in one piece does not reach {} of the face",
                            worst->drape.holes.size() == 1
                                ? std::string("a place")
                                : fmt::format("{} places", worst->drape.holes.size())),
                "A piece of its own starts there, or the cloth starts elsewhere.");
    }
    // A mould in one has but one face, whatever is asked.
    const auto pieces = static_cast<int>(f.others->pieces.size()) + 1;
    const auto missing = [&](int piece) { return pieces > 1 && piece > pieces; };
    for (std::size_t k = 0; k < c.cuts.size(); ++k) {
        const auto& laid = f.draped->cuts;
        const int piece = c.cuts[k].piece;
        if (f.draped->face == nullptr || (!missing(piece) && !lies_on(piece, f.draped->piece)) ||
            std::any_of(laid.begin(), laid.end(),
                        [&](const LaidCut& cut) { return cut.as.cut == k && !cut.edges.empty(); }))
            continue;
        auto cuts = c.cuts;
        cuts.erase(cuts.begin() + static_cast<std::ptrdiff_t>(k));
        add(Severity::caution, "cut_nowhere", fmt::format("Cut {} cuts nothing", k + 1),
            c.cuts[k].line.size() < 2 ? "Its line wants two corners at least: type them, or take it away."
            : missing(piece) ? fmt::format("It is for piece {}, and the mould has {}.", piece, pieces)
                             : "Its line lies beside the face, or no ply has it: move it, or take it away.",
            Fix{"Take it away", patch_of("part", "cuts", to_json_value(cuts))});
    }
    const double gap = c.joint.kind == JointKind::none ? 0 : c.joint.gap;
    if (f.lapped > (gap > 0 ? gap : 0.3 * f.stack.laminate.thickness) && c.kit.lap > 0) {
        std::optional<Fix> fix;
        auto cuts = c.cuts;
        for (auto& cut : cuts) cut.step = std::max(cut.step, c.kit.lap);
        if (cuts != c.cuts)
            fix = Fix{"Step them by " + quantity(Kind::length, c.kit.lap) + " from ply to ply",
                      patch_of("part", "cuts", to_json_value(cuts))};
        add(gap > 0 ? Severity::caution : Severity::note, "laps",
            "Laps along a cut make the part " + quantity(Kind::thickness, f.lapped) + " thicker",
            gap > 0 ? "The glue gap to its mate is " + quantity(Kind::thickness, gap) +
                          ": stepped from ply to ply, laps do not lie over one another."
                    : "Every ply lies over itself at one place: stepped from ply to ply, laps do not add up.",
            fix);
    }
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        if (f.measured() <= 0 || f.area_of(z) > 0) continue;
        const auto& zone = c.zones[z];
        if (zone.place != ZonePlace::painted && missing(zone.piece)) {
            auto zones = c.zones;
            zones[z].piece = 0;
            add(Severity::caution, "zone_nowhere", "Zone " + zone.name + " lies nowhere on the face",
                fmt::format("It is for piece {}, and the mould has {}.", zone.piece, pieces),
                Fix{"Lay it on each piece", patch_of("part", "zones", to_json_value(zones))});
            continue;
        }
        add(Severity::caution, "zone_nowhere", "Zone " + zone.name + " lies nowhere on the face",
            zone.place == ZonePlace::painted ? "Paint it on the stand, or take it away."
            : zone.place == ZonePlace::rim   ? "This face has no rim."
            : zone.place == ZonePlace::inserts
                ? "The part has no inserts on its face."
                : "Its line lies beside the face: corners count from the middle of "
                  "the face, seen along the pull.",
            without_zone(c, z));
    }
    for (auto& call : insert_calls(c, f.inserts)) out.push_back(std::move(call));
    std::vector<const Regions*> marked{f.marked.get()};
    for (const auto& piece : f.others->pieces) marked.push_back(&piece.marked);
    for (auto& call : core_calls(c, *f.cores, marked, shop)) out.push_back(std::move(call));
    const auto& l = f.stack.laminate;
    if (!l.symmetric && f.core_share > 0) {
        add(Severity::note, "asymmetric", "The part's stack differs on its two sides",
            "It will curl a little when it cools; mirrored skins stay flat.");
    }
    if (f.pots > 1 && parts * f.resin_mix > 2 && f.working.pot < 1800)
        add(Severity::caution, "batches",
            fmt::format("Mix {} in {} pots: pot life is {}", quantity(Kind::mass, parts * f.resin_mix),
                        f.pots, quantity(Kind::duration, f.working.pot)),
            "A large pot of fast resin heats itself, smokes and can burn.");
    if (f.corners.length > 0.02) {
        add(Severity::note, "bridges",
            quantity(Kind::length, f.corners.length) + " of the mould's corners are tighter than " +
                quantity(Kind::length, f.bridging_radius),
            "Lay a strand or a fillet there first, or the part comes out resin-rich and brittle at its "
            "edge.");
    }
    if (c.joint.kind != JointKind::none) {
        const auto joint = [](const char* field, double value) {
            Json patch = Json::object();
            patch["part"]["joint"][field] = value;
            return patch;
        };
        if (c.joint.lap < kShortLap)
            add(Severity::caution, "short_lap",
                "Lap " + quantity(Kind::length, f.joint.lap) +
                    fmt::format(": only {:g} times the thickness", c.joint.lap),
                "A joint under about 10 thicknesses peels before the laminate breaks.",
                Fix{"Lap 20 times the thickness", joint("lap", kAmpleLap)});
        if (c.joint.gap < kTightGap || c.joint.gap > kWideGap)
            add(Severity::caution, "glue_gap", "Glue gap " + quantity(Kind::thickness, c.joint.gap),
                c.joint.gap < kTightGap
                    ? "Tighter than about 0.2 mm the adhesive is squeezed out and the joint starves."
                    : "Wider than about 1 mm the adhesive creeps and heats itself.",
                Fix{"Make it 0.5 mm", joint("gap", 0.0005)});
    }
    if (c.gel_temperature > f.resin.Tg) {
        add(Severity::caution, "gel_hot",
            "The part gels at " + quantity(Kind::temperature, c.gel_temperature) +
                ", over the resin's Tg of " + quantity(Kind::temperature, f.resin.Tg),
            "Step the cure, or choose a resin that is meant for that heat.");
    }
    return out;
}

}  // namespace jig::part
