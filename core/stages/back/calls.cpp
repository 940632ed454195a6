#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/stages/back/findings.hpp"

namespace jig::back {

Calls calls(const Choices& c, const Findings& f, const shell::Findings& shell, const edge::Findings& edge,
            const brief::Choices& brief) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::back, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const auto fix_pitch = [&]() -> std::optional<Fix> {
        // Ribs close enough for the strip would be a back of plywood: an egg-crate holds a field on four
        // sides, and its own trial says what pitch it needs.
        if (c.kind == BackKind::none)
            return Fix{"Hold it with an egg-crate", patch_of("back", "kind", "egg_crate")};
        // Where ribs cross, and where there are none to move, the strip has no pitch to offer.
        if (f.pitch_for_limit <= 0 || !c.has_grid() || (c.across && c.along)) return {};
        // Whole centimetres, rounded down, so that the sheet reads like a drawing.
        const double pitch = std::max(0.02, std::floor(f.pitch_for_limit * 100) / 100);
        return Fix{"Set the ribs at " + quantity(Kind::length, pitch), patch_of("back", "pitch", pitch)};
    };
    const bool solid = is_solid(shell.stack);
    if (solid)
        add(Severity::note, "block",
            "The mould is a block: it lies on its own flat foot and is not tried as a shell",
            c.kind == BackKind::none ? "Its weight and the oven that it goes into are judged all the same."
                                     : "A back under it holds nothing that it does not hold itself.",
            c.kind == BackKind::none ? std::nullopt
                                     : std::optional(Fix{"Take no back", patch_of("back", "kind", "none")}));
    const auto where = c.has_grid() ? std::string("Rib pitch ") : std::string("Free span ");
    if (!solid && f.sag.person + f.sag.own > c.limit) {
        add(Severity::caution, "person",
            where + quantity(Kind::length, f.span) + ": the skin sags " +
                quantity(Kind::thickness, f.sag.person + f.sag.own) + " under a leaning person",
            "The limit is " + quantity(Kind::thickness, c.limit) +
                "; closer ribs or a thicker shell hold it. This is a hinged strip by hand; the load cases "
                "below "
                "are the whole tool.",
            fix_pitch());
    }
    if (!solid && c.bag == BagKind::envelope && f.sag.bag > c.limit) {
        add(f.sag.bag > 0.005 ? Severity::stop : Severity::caution, "envelope",
            where + quantity(Kind::length, f.span) + ": an envelope bag bends the skin " +
                quantity(Kind::thickness, f.sag.bag),
            "An envelope bag presses on the bare back between the ribs; a bag sealed on the flange does not.",
            Fix{"Seal the bag on the flange", patch_of("back", "bag", "surface")});
    }
    if (!solid && f.print >= 1) {
        const auto patch = c.joint.bond == Bond::hard
                               ? Json{{"back", {{"joint", {{"bond", "soft"}}}, {"shell_cured", true}}}}
                               : Json{{"back", {{"shell_cured", true}}}};
        std::optional<Fix> fix;
        if (c.joint.bond == Bond::hard || !c.shell_cured)
            fix = Fix{"Bond on a soft strip, once it has cured", patch};
        add(f.print > 1.5 ? Severity::caution : Severity::note, "rib_print",
            "Ribs on a shell of " + quantity(Kind::thickness, shell.stack.laminate.thickness) +
                " can print through",
            "Bond them after the shell has cured, on a soft strip or a fillet, not end-on.", fix);
    }
    const double mass = shell.mass + f.mass;
    if (mass > brief.lift) {
        const int hands = static_cast<int>(std::ceil(mass / brief.lift));
        add(hands > std::max(2, brief.people) ? Severity::caution : Severity::note, "lift",
            "Tool and back weigh " + quantity(Kind::mass, mass) +
                fmt::format(": {} people or a hoist to lift and turn it", hands),
            "Counted at " + quantity(Kind::mass, brief.lift) +
                " for one person; plan lifting points and feet before it is turned over.");
    }
    const auto boxed = tool_box(edge, shell, c);
    if (boxed && brief.top_temperature > kWarmRoom) {
        auto size = *boxed;
        std::array<double, 3> oven{brief.oven_x, brief.oven_y, brief.oven_z};
        const auto said = [](const std::array<double, 3>& s) {
            return quantity(Kind::length, s[0]) + " × " + quantity(Kind::length, s[1]) + " × " +
                   quantity(Kind::length, s[2]);
        };
        const auto words =
            "The tool with flange and back, " + said(size) + ", does not go into the oven of " + said(oven);
        std::sort(size.begin(), size.end());
        std::sort(oven.begin(), oven.end());
        if (!std::equal(size.begin(), size.end(), oven.begin(), [](double a, double b) { return a <= b; }))
            add(Severity::stop, "oven", words,
                "A tool that has to see " + quantity(Kind::temperature, brief.top_temperature) +
                    " must fit with air all round: a narrower flange, a lower back, or a tent with a "
                    "heater.");
    }
    if (c.has_grid() && !(c.across && c.along)) {
        add(c.across || c.along ? Severity::note : Severity::stop, "one_way",
            c.across || c.along ? "Ribs run one way only" : "Ribs run neither way",
            "They hold the shell across their own planes only; a grid holds it both ways.",
            Fix{"Run them both ways", Json{{"back", {{"across", true}, {"along", true}}}}});
    }
    return out;
}

}  // namespace jig::back
