#include <fmt/format.h>

#include <cmath>

#include "core/stages/shell/findings.hpp"

namespace jig::shell {
namespace {

Fix with_layers(std::string label, const std::vector<Layer>& layers) {
    return {std::move(label), patch_of("shell", "layers", to_json_value(layers))};
}

double weight(const LaidLayer& l) {
    return l.layer.kind == LayerKind::ply ? l.fibre : 0;
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const plug::Choices& plug,
            const plug::Findings& plug_findings, const brief::Choices& brief, bool has_back) {
    Calls out;
    const auto add = [&](Stage stage, Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({stage, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const auto& l = f.stack.laminate;
    const auto& laid = f.stack.laid;
    if (f.bow > brief.tolerance) {
        std::optional<Fix> fix;
        if (!l.symmetric) {
            // Mirror what lies beyond the coats; the surface coat itself stays single, so some bow remains.
            std::vector<Layer> coats, plies;
            for (const auto& layer : c.layers)
                (layer.kind == LayerKind::ply || layer.kind == LayerKind::core ? plies : coats)
                    .push_back(layer);
            auto even = plies;
            for (std::size_t i = 0; i < even.size(); ++i) even[i] = plies[std::min(i, even.size() - 1 - i)];
            if (even != plies) {
                coats.insert(coats.end(), even.begin(), even.end());
                fix = with_layers("Mirror the plies about the middle", coats);
            }
        }
        add(Stage::shell, f.bow > 5 * brief.tolerance ? Severity::stop : Severity::caution, "bows",
            "Bows " + quantity(Kind::thickness, f.bow) + " on cooling; the tolerance is " +
                quantity(Kind::thickness, brief.tolerance),
            "The stack is not alike on both sides of its middle, so it curls when it cools; a back holds "
            "part of it.",
            fix);
    }
    const bool glass_only = l.bending.Ex < 3e10;
    const double least = glass_only ? 0.0045 : 0.003;
    if (!has_back && l.thickness < least) {
        auto thicker = c.layers;
        if (!thicker.empty()) thicker.push_back(thicker.back());
        add(Stage::shell, Severity::caution, "thin",
            "Shell " + quantity(Kind::thickness, l.thickness) + " without a back: too thin",
            "Under about " + quantity(Kind::thickness, least) +
                " a tool of this kind flexes in use and shows it.",
            with_layers("Repeat the last ply", thicker));
    }
    for (std::size_t i = 0; i < laid.size(); ++i) {
        if (weight(laid[i]) == 0) continue;
        if (weight(laid[i]) > 0.25) {
            auto softened = c.layers;
            softened.insert(softened.begin() + static_cast<std::ptrdiff_t>(i),
                            Layer{LayerKind::ply, "glass cloth 105 plain", 0, 0});
            add(Stage::shell, Severity::caution, "print_through",
                "Print-through: " + laid[i].name + " lies next to the surface coat",
                "A light cloth first, then heavier, keeps the weave from showing on the face.",
                with_layers("Lay a light cloth under it", softened));
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
            "More than " + quantity(Kind::thickness, f.resin.day_limit) +
                " of this resin at once overheats; stop, leave peel ply on, go on the next day.");
    }
    if (!l.balanced) {
        add(Stage::shell, Severity::note, "unbalanced",
            "The stack is not balanced: it shears as it is stretched",
            "Give every ply at an angle its partner at the opposite angle.");
    }
    if (has_styrene(f.resin.family) && plug_findings.board.dissolves_in_styrene) {
        const bool safe = plug.barrier == Barrier::epoxy;
        if (!safe) {
            add(Stage::plug, Severity::stop, "styrene",
                "Styrene in \"" + c.resin + "\" dissolves " + plug_findings.board.name,
                "A pinhole in a thin barrier is enough to eat a cave under the face: skin the foam with "
                "epoxy and test on an offcut.",
                Fix{"Skin it with epoxy", patch_of("plug", "barrier", "epoxy")});
        }
    }
    if (f.resin.family == Family::epoxy && plug_findings.board.dissolves_in_styrene &&
        plug.barrier == Barrier::none) {
        add(Stage::plug, Severity::note, "bare_foam", "Bare foam under the finish",
            "Primers and paints carry solvents too: test them on an offcut of the foam.");
    }
    return out;
}

}  // namespace jig::shell
