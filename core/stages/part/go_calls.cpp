// What the goes of a part, or the lack of them, bring about.
#include <fmt/format.h>

#include "core/stages/part/goes.hpp"

namespace jig::part {
namespace {

/// Layers of the common stack in the place of those that are there.
Fix laid_as(std::string label, const std::vector<Layer>& layers) {
    return {std::move(label), patch_of("part", "layers", to_json_value(layers))};
}

std::optional<Fix> in_goes(const Choices& c, const std::optional<std::vector<Layer>>& layers) {
    if (!layers || *layers == c.layers) return {};
    auto next = c;
    next.layers = *layers;
    return laid_as(fmt::format("Lay it in {} goes", goes_of(next)), *layers);
}

}  // namespace

Calls go_calls(const Choices& c, const Findings& f, const brief::Choices& brief, int parts, double bagging,
               const GoLimit& go, const Library& shop) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::part, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const auto in = [&](const Go& g) { return f.goes.size() > 1 ? " in one go, " + g.what : std::string(); };
    const bool bagged = c.how == LayUp::bagged, wetted = bagged || c.how == LayUp::hand;
    const double closing = bagged ? bagging * 3600 / std::max(1, brief.people) : 0;
    const auto& slowest = *std::max_element(f.goes.begin(), f.goes.end(),
                                            [](const Go& a, const Go& b) { return a.laying < b.laying; });
    if (wetted && slowest.laying + closing > f.working.gel) {
        const double most = f.working.gel - closing;
        add(Severity::caution, "working_time",
            "Laying" + std::string(bagged ? " and bagging" : "") + " it takes " +
                quantity(Kind::duration, slowest.laying + closing) + in(slowest) + "; the resin gels in " +
                quantity(Kind::duration, f.working.gel),
            "What was laid first has gelled before the last: more hands, a slower resin, or goes that harden "
            "one "
            "by one with peel ply between.",
            in_goes(c, parted(c, f, 1, most, parts, brief, shop)));
    }
    const auto& wettest = *std::max_element(f.goes.begin(), f.goes.end(),
                                            [](const Go& a, const Go& b) { return a.wet < b.wet; });
    if (wettest.wet > go.most + 1e-9)
        add(Severity::caution, "exotherm",
            quantity(Kind::thickness, wettest.wet) + " wet at once" + in(wettest) + ": " +
                quantity(Kind::thickness, go.most) + " is the most",
            fmt::format(
                "More than that: {}. Lay it in {} goes, peel ply between, or take a slower resin; Heat "
                "draws it.",
                go.why, go.goes(wettest.wet)),
            in_goes(c, parted(c, f, go.most, 1e9, parts, brief, shop)));
    const bool marked = [&] {
        for (std::size_t i = 0; i < c.layers.size(); ++i) {
            if (ends_go(c.layers, i)) return true;
        }
        return false;
    }();
    if (marked && c.how == LayUp::infused)
        add(Severity::caution, "filled_at_once", "An infusion fills all of it at once, not in goes",
            "Its front, its resin and its cure are those of the whole stack: what is marked to harden before "
            "the "
            "next is not followed.",
            laid_as("Lay all of it at once", at_once(c.layers)));
    for (std::size_t i = 0; i < c.layers.size() && f.goes.size() > 1; ++i) {
        if (c.layers[i].kind != LayerKind::core || go_of(c, {-1, i}) == 0) continue;
        std::size_t first = i;
        while (first > 0 && go_of(c, {-1, first - 1}) == go_of(c, {-1, i})) --first;
        const auto in_go = [&](LayerKind kind) {
            return std::any_of(c.layers.begin() + static_cast<std::ptrdiff_t>(first),
                               c.layers.begin() + static_cast<std::ptrdiff_t>(i),
                               [&](const Layer& l) { return l.kind == kind; });
        };
        const auto& name = c.layers[i].material;
        const auto& sheet = need(shop.cores, name, "part");
        // A mat that fills is wet itself.
        if (in_go(LayerKind::ply) || sheet.fills > 0) continue;
        if (!in_go(LayerKind::coupling)) {
            auto bedded = c.layers;
            bedded.insert(bedded.begin() + static_cast<std::ptrdiff_t>(i),
                          Layer{LayerKind::coupling, {}, 0, 0});
            add(Severity::caution, "unbedded", "Nothing beds " + name + " on a skin that has hardened",
                "A hard skin gives no resin and follows no sheet: a coupling coat, or a wet mat, fills what "
                "lies "
                "between.",
                laid_as("Bed it in a coupling coat", bedded));
        }
        if (c.how != LayUp::hand && c.layers[i].cut.hole <= 0 && c.layers[i].cut.slits == Slits::none &&
            !sheet.open_cells) {
            auto bored = c.layers;
            bored[i].cut.hole = 0.002;
            add(Severity::caution, "shut_under", "Air stays under " + name + ", bagged on a hard skin",
                "It has no way out through a sheet without holes: bores of 2 mm let it go, and show that "
                "paste has "
                "come through.",
                laid_as("Bore holes of 2 mm", bored));
        }
    }
    const auto core = std::find_if(c.layers.begin(), c.layers.end(),
                                   [](const Layer& l) { return l.kind == LayerKind::core; });
    if (core != c.layers.end() && c.how != LayUp::infused &&
        need(shop.cores, core->material, "part").open_cells) {
        const auto place = static_cast<std::size_t>(core - c.layers.begin());
        const bool skin =
            std::any_of(c.layers.begin(), core, [](const Layer& l) { return l.kind == LayerKind::ply; });
        if (skin && go_of(c, {-1, place}) == 0)
            add(Severity::note, "prints", "The cells of " + core->material + " print through its outer skin",
                "Pressed onto a skin that is still wet they show on the face as it shrinks: harden that skin "
                "first, key it, and bed the core on it.",
                laid_as("Harden the outer skin first", skin_first(c.layers)));
    }
    return out;
}

}  // namespace jig::part
