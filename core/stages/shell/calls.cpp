#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/stages/shell/findings.hpp"

namespace jig::shell {
namespace {

Fix with_layers(std::string label, const std::vector<Layer>& layers) {
    return {std::move(label), patch_of("shell", "layers", to_json_value(layers))};
}

double weight(const LaidLayer& l) {
    return l.layer.kind == LayerKind::ply ? l.fibre : 0;
}

bool woven_in(const Layer& l) {
    return l.kind == LayerKind::ply || l.kind == LayerKind::core;
}

/// The same layers alike on both sides of the middle: those that stand twice are shared out, one that stands
/// alone goes to the middle (a core first) or is laid twice. Coats stay in front. Nothing is taken away.
std::vector<Layer> evened(const std::vector<Layer>& layers) {
    std::vector<Layer> out, half;
    std::vector<std::pair<Layer, int>> kinds;
    for (const auto& l : layers) {
        if (!woven_in(l)) {
            out.push_back(l);
            continue;
        }
        const auto known =
            std::find_if(kinds.begin(), kinds.end(), [&](const auto& k) { return k.first == l; });
        if (known == kinds.end())
            kinds.emplace_back(l, 1);
        else
            ++known->second;
    }
    std::optional<Layer> middle;
    for (const bool core : {true, false}) {
        for (const auto& [layer, count] : kinds) {
            if ((layer.kind == LayerKind::core) == core && count % 2 == 1 && !middle) middle = layer;
        }
    }
    // Light plies first and cores last, as they came.
    for (const bool core : {false, true}) {
        for (const auto& [layer, count] : kinds) {
            if ((layer.kind == LayerKind::core) != core) continue;
            const int share = middle && layer == *middle ? count / 2 : (count + 1) / 2;
            half.insert(half.end(), static_cast<std::size_t>(share), layer);
        }
    }
    out.insert(out.end(), half.begin(), half.end());
    if (middle) out.push_back(*middle);
    out.insert(out.end(), half.rbegin(), half.rend());
    return out;
}

/// What a bare shell has to bear: a hand that presses in the middle of a field that nothing holds from
/// behind.
constexpr double kHand = 100, kField = 0.3, kSinks = 0.0005;  // N, m, m: our own judgement

/// m that it sinks there: a square plate held fast along its sides (Timoshenko & Woinowsky-Krieger 1959,
/// table 37: 0.0056·P·a²/D), by the softer of its two ways.
double sinks(const Laminate& l) {
    return 0.0056 * kHand * kField * kField / std::min(l.D_free(0, 0), l.D_free(1, 1));
}

/// The heaviest ply as often again, in the middle, as keeps a hand from sinking in.
std::pair<std::vector<Layer>, std::string> thickened(const std::vector<Layer>& layers,
                                                     const std::vector<LaidLayer>& laid, const Resin& resin,
                                                     LayUp how, const Library& shop) {
    const LaidLayer* heavy = nullptr;
    std::size_t first = layers.size(), last = 0;
    for (std::size_t i = 0; i < laid.size(); ++i) {
        if (!woven_in(layers[i])) continue;
        first = std::min(first, i);
        last = i;
        if (layers[i].kind == LayerKind::ply && (heavy == nullptr || laid[i].fibre > heavy->fibre))
            heavy = &laid[i];
    }
    if (heavy == nullptr) return {};
    auto out = layers;
    for (int more = 1; more <= 60; ++more) {
        out.insert(out.begin() + static_cast<std::ptrdiff_t>(first + (last + 1 - first) / 2), heavy->layer);
        if (sinks(sum_stack(out, resin, how, shop, "shell").laminate) <= kSinks)
            return {out, fmt::format("Lay {} more of {} in the middle", more, heavy->name)};
    }
    return {};
}

/// The lightest cloth of the same fibre, for a face that does not show what lies behind it.
const Reinforcement* light_cloth(const std::string& like, const Library& shop) {
    const auto* heavy = find(shop.reinforcements, like);
    const Reinforcement* best = nullptr;
    for (const auto& r : shop.reinforcements) {
        if (heavy == nullptr || r.fibre != heavy->fibre || r.weave != Weave::cloth || r.areal_mass > 0.17)
            continue;
        // Not a gauze: as near to 100 g/m² as the shop has.
        if (best == nullptr || std::abs(r.areal_mass - 0.105) < std::abs(best->areal_mass - 0.105)) best = &r;
    }
    return best;
}

/// Every ply at an angle followed by its partner at the opposite one, where it has none yet.
std::vector<Layer> balanced(const std::vector<Layer>& layers) {
    constexpr double kSame = 0.01;  // rad
    const auto leans = [](double angle) { return std::abs(std::sin(2 * angle)) > kSame; };
    std::vector<Layer> out;
    std::vector<char> paired(layers.size(), 0);
    for (std::size_t i = 0; i < layers.size(); ++i) {
        out.push_back(layers[i]);
        if (layers[i].kind != LayerKind::ply || !leans(layers[i].angle) || paired[i] != 0) continue;
        const auto partner = [&](std::size_t k) {
            return paired[k] == 0 && layers[k].kind == LayerKind::ply &&
                   layers[k].material == layers[i].material &&
                   std::abs(std::sin(layers[k].angle + layers[i].angle)) < kSame;
        };
        std::size_t k = i + 1;
        while (k < layers.size() && !partner(k)) ++k;
        if (k < layers.size()) {
            paired[k] = 1;
            continue;
        }
        out.push_back(layers[i]);
        out.back().angle = -layers[i].angle;
    }
    return out;
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const plug::Choices& plug,
            const plug::Findings& plug_findings, const brief::Choices& brief, bool has_back,
            const Warmth& warmth, const Library& shop) {
    Calls out;
    const auto add = [&](Stage stage, Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({stage, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    if (is_solid(f.stack)) {
        add(Stage::shell, Severity::note, "no_laminate",
            "No laminate is laid: the mould is made of " + c.layers.front().material + " itself, " +
                quantity(Kind::thickness, f.stack.laminate.thickness) + " at its thinnest",
            "So it has no parting board to lay against, no shell cure, no post-cure and no taking off a "
            "plug. The "
            "stack that stands here is kept for a route with a plug.");
        return out;
    }
    const auto& l = f.stack.laminate;
    const auto& laid = f.stack.laid;
    if (f.bow > brief.tolerance) {
        std::optional<Fix> fix;
        // Offered where it does what it says: the coat stays single, so some bow remains.
        const auto even = evened(c.layers);
        const double cooling = std::max(0.0, c.cure_temperature - warmth.room);
        if (even != c.layers && free_curve(sum_stack(even, f.resin, c.how, shop, "shell"), cooling) <
                                    0.9 * free_curve(f.stack, cooling))
            fix = with_layers("Lay the plies alike about the middle", even);
        add(Stage::shell, f.bow > 5 * brief.tolerance ? Severity::stop : Severity::caution, "bows",
            "Bows " + quantity(Kind::thickness, f.bow) + " on cooling; the tolerance is " +
                quantity(Kind::thickness, brief.tolerance),
            "The stack is not alike on both sides of its middle, so it curls when it cools; a back holds "
            "part of it.",
            fix);
    }
    if (!has_back && sinks(l) > kSinks) {
        const auto [thicker, label] = thickened(c.layers, laid, f.resin, c.how, shop);
        add(Stage::shell, Severity::caution, "thin",
            "Shell " + quantity(Kind::thickness, l.thickness) + " without a back: a hand sinks in by " +
                quantity(Kind::thickness, sinks(l)),
            quantity(Kind::force, kHand) + " in the middle of a field of " + quantity(Kind::length, kField) +
                " held along its sides; more than " + quantity(Kind::thickness, kSinks) +
                " is felt and shows in the parts.",
            thicker.empty() ? std::nullopt : std::optional(with_layers(label, thicker)));
    }
    for (std::size_t i = 0; i < laid.size(); ++i) {
        if (weight(laid[i]) == 0) continue;
        if (weight(laid[i]) > 0.25) {
            std::optional<Fix> fix;
            if (const auto* light = light_cloth(laid[i].layer.material, shop)) {
                auto softened = c.layers;
                softened.insert(softened.begin() + static_cast<std::ptrdiff_t>(i),
                                Layer{LayerKind::ply, light->name, 0, 0});
                fix = with_layers("Lay " + light->name + " under it", softened);
            }
            add(Stage::shell, Severity::caution, "print_through",
                "Print-through: " + laid[i].name + " lies next to the surface coat",
                "A light cloth first, then heavier, keeps the weave from showing on the face.", fix);
        }
        break;
    }
    for (std::size_t i = 1; i < laid.size(); ++i) {
        const double before = weight(laid[i - 1]), now = weight(laid[i]);
        if (before > 0 && i < laid.size() / 2 + 1 && now > 2.6 * before && now > 0.25 &&
            laid[i - 1].layer.material != "glass tissue 30") {
            add(Stage::shell, Severity::note, "steep_step",
                fmt::format("Layer {} steps up {:.1f} times in weight", i + 1, now / before),
                "Gentle steps bridge and print less.");
            break;
        }
    }
    if (f.corners.length > 0.02) {
        add(Stage::shell, Severity::caution, "bridges",
            quantity(Kind::length, f.corners.length) + " of corners are tighter than " +
                quantity(Kind::length, f.bridging_radius),
            "Cloth bridges there and traps resin: first " + quantity(Kind::volume, f.corners.filler) +
                " of thickened resin, or a rolled strand. Shape shows them dotted.");
    }
    if (f.days > 1) {
        add(Stage::shell, Severity::note, "too_much",
            fmt::format("Lay up over {} days: too much for one", f.days),
            "More than " + quantity(Kind::thickness, f.go.most) + " at once: " + f.go.why +
                ". Stop, leave peel ply on, go on the next day; Heat draws it.");
    }
    if (!l.balanced) {
        // Offered where partners alone do it and do not curl the shell more.
        const auto paired = balanced(c.layers);
        const auto then = sum_stack(paired, f.resin, c.how, shop, "shell");
        const double cooling = std::max(0.0, c.cure_temperature - warmth.room);
        add(Stage::shell, Severity::note, "unbalanced",
            "The stack is not balanced: it shears as it is stretched",
            "Give every ply at an angle its partner at the opposite angle.",
            then.laminate.balanced && free_curve(then, cooling) <= free_curve(f.stack, cooling)
                ? std::optional(with_layers("Lay each its partner beside it", paired))
                : std::nullopt);
    }
    // Whatever brings styrene to the plug: the laminate's resin, and the surface coat before it.
    std::string brings = has_styrene(f.resin.family) ? c.resin : std::string();
    bool plies_before = false, coat_behind = false, styrene_coat = false, wants_styrene = false;
    for (const auto& layer : c.layers) {
        if (layer.kind == LayerKind::surface_coat) {
            const auto& coat = need(shop.surface_coats, layer.material, "shell");
            if (has_styrene(coat.family)) {
                styrene_coat = true;
                brings = coat.name;
            }
            coat_behind |= plies_before;
        } else if (layer.kind == LayerKind::ply) {
            plies_before = true;
            wants_styrene |= need(shop.reinforcements, layer.material, "shell").binder_wants_styrene;
        } else {
            plies_before |= layer.kind == LayerKind::core;
        }
    }
    std::string eaten;
    for (const auto& plan : plug_findings.plans) {
        if (plan.substrate.dissolves_in_styrene) eaten = plan.substrate.name;
    }
    if (!brings.empty() && !eaten.empty() && plug.barrier != Barrier::epoxy) {
        add(Stage::plug, Severity::stop, "styrene", "Styrene in \"" + brings + "\" dissolves " + eaten,
            "A pinhole in a thin barrier is enough to eat a cave under the face: skin the foam with "
            "epoxy and test on an offcut.",
            Fix{"Skin it with epoxy", patch_of("plug", "barrier", "epoxy")});
    }
    if (coat_behind) {
        auto sorted = c.layers;
        std::stable_partition(sorted.begin(), sorted.end(),
                              [](const Layer& s) { return s.kind == LayerKind::surface_coat; });
        add(Stage::shell, Severity::stop, "coat_behind", "A surface coat lies behind plies",
            "It is the face: it goes onto the released plug first, or the face is bare cloth.",
            with_layers("Lay the surface coat first", sorted));
    }
    if (styrene_coat && f.resin.family == Family::epoxy)
        add(Stage::shell, Severity::caution, "coat_pair", "Epoxy behind a coat that cures with styrene",
            "Epoxy grips a polyester or vinyl ester coat poorly, and its amine spoils the coat's cure where "
            "that is "
            "still fresh: an epoxy surface coat, or a tie layer that both data sheets allow.");
    if (wants_styrene && f.resin.family == Family::epoxy)
        add(Stage::shell, Severity::caution, "mat_binder",
            "Chopped mat in epoxy: its binder does not dissolve",
            "The usual binder softens in styrene only; in epoxy the mat stays stiff, bridges and holds air. "
            "Take a "
            "stitched or powder-bound mat that its data sheet allows for epoxy, or cloth.");
    for (std::size_t i = 0; i < laid.size(); ++i) {
        const auto& one = laid[i];
        if (one.layer.kind != LayerKind::ply) continue;
        if (one.ply.thickness > f.go.most)
            add(Stage::shell, Severity::caution, "thick_ply",
                fmt::format("Layer {} is {} in one go", i + 1, quantity(Kind::thickness, one.ply.thickness)),
                "More than " + quantity(Kind::thickness, f.go.most) + " at once: " + f.go.why +
                    ". Lay it as several plies over several days.");
        if (one.layer.thickness > 0 && (one.fibre_volume > 0.66 || one.fibre_volume < 0.08))
            add(Stage::shell, Severity::caution, "typed_ply",
                fmt::format("Layer {} typed as {}: {:.0f} % fibre", i + 1,
                            quantity(Kind::thickness, one.layer.thickness), 100 * one.fibre_volume),
                "No lay-up of that cloth comes out so; measure a stack of several plies and divide.");
    }
    const double working = f.working.gel;
    if (c.how != LayUp::prepreg && f.slowest_ply > working)
        add(Stage::shell, Severity::caution, "working_time",
            "One ply takes " + quantity(Kind::duration, f.slowest_ply) + " to lay; the resin gels in " +
                quantity(Kind::duration, working),
            "More hands, a slower hardener, or the ply in pieces with a fresh pot for each.");
    if ((c.how == LayUp::prepreg) != f.resin.in_cloth) {
        const auto other =
            std::find_if(shop.resins.begin(), shop.resins.end(), [](const Resin& r) { return r.in_cloth; });
        std::optional<Fix> fix;
        if (f.resin.in_cloth)
            fix = Fix{"Lay it as prepreg", patch_of("shell", "how", "prepreg")};
        else if (other != shop.resins.end())
            fix = Fix{"Take " + other->name, patch_of("shell", "resin", other->name)};
        add(Stage::shell, Severity::stop, "prepreg_resin",
            f.resin.in_cloth ? f.resin.name + " comes in the cloth and is laid as prepreg"
                             : "Laid as prepreg in " + f.resin.name + ", which is mixed by hand",
            "Either the cloth brings the resin, or it is wetted here: fibre share, mixing and cure follow.",
            fix);
    }
    if (c.how == LayUp::infused) {
        for (const auto& layer : c.layers) {
            if (layer.kind != LayerKind::core || !need(shop.cores, layer.material, "shell").open_cells)
                continue;
            add(Stage::shell, Severity::stop, "flooded", layer.material + " in an infusion",
                "Its open cells fill with resin: closed foam or balsa is infused, honeycomb is not.",
                Fix{"Lay it by hand under a bag", patch_of("shell", "how", "bagged")});
        }
    }
    const auto& facts = facts_of(c.school);
    if (brief.pulls > facts.pulls)
        add(Stage::shell, Severity::caution, "life",
            fmt::format("{} pulls asked of a tool that lasts about {}", brief.pulls, facts.pulls),
            "Typical of " + std::string(said(c.school)) + ", looked after: plan " +
                fmt::format("{:.0f} tools", std::ceil(static_cast<double>(brief.pulls) / facts.pulls)) +
                ", or another way of building it.");
    if (brief.top_temperature > facts.heat)
        add(Stage::heat, Severity::caution, "school_heat",
            "The tool sees " + quantity(Kind::temperature, brief.top_temperature) + "; tools of " +
                std::string(said(c.school)) + " are taken to " + quantity(Kind::temperature, facts.heat),
            "Whatever its resin bears: typical of the school. Set the schools side by side.");
    if (f.resin.family == Family::epoxy && plug_findings.board.dissolves_in_styrene &&
        plug.barrier == Barrier::none) {
        add(Stage::plug, Severity::note, "bare_foam", "Bare foam under the finish",
            "Primers and paints carry solvents too: test them on an offcut of the foam.");
    }
    return out;
}

}  // namespace jig::shell
