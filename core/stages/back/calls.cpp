#include <cmath>

#include "core/stages/back/findings.hpp"

namespace jig::back {

Calls calls(const Choices& c, const Findings& f, const shell::Findings& shell) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::back, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const auto fix_pitch = [&]() -> std::optional<Fix> {
        if (f.pitch_for_limit <= 0) return {};
        // Whole centimetres, rounded down, so that the sheet reads like a drawing.
        const double pitch = std::max(0.02, std::floor(f.pitch_for_limit * 100) / 100);
        auto patch = patch_of("back", "pitch", pitch);
        if (!c.has_grid()) patch["back"]["kind"] = "egg_crate";
        return Fix{"Set the ribs at " + quantity(Kind::length, pitch), patch};
    };
    const auto where = c.has_grid() ? std::string("Rib pitch ") : std::string("Free span ");
    if (f.sag.person + f.sag.own > c.limit) {
        add(Severity::caution, "person",
            where + quantity(Kind::length, f.span) + ": the skin sags " +
                quantity(Kind::thickness, f.sag.person + f.sag.own) + " under a leaning person",
            "The limit is " + quantity(Kind::thickness, c.limit) +
                "; closer ribs or a thicker shell hold it. This is a hinged strip by hand; the load cases "
                "below "
                "are the whole tool.",
            fix_pitch());
    }
    if (c.bag == BagKind::envelope && f.sag.bag > c.limit) {
        add(f.sag.bag > 0.005 ? Severity::stop : Severity::caution, "envelope",
            where + quantity(Kind::length, f.span) + ": an envelope bag bends the skin " +
                quantity(Kind::thickness, f.sag.bag),
            "An envelope bag presses on the bare back between the ribs; a bag sealed on the flange does not.",
            Fix{"Seal the bag on the flange", patch_of("back", "bag", "surface")});
    }
    if (f.print >= 1) {
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
    if (c.has_grid() && !(c.across && c.along)) {
        add(c.across || c.along ? Severity::note : Severity::stop, "one_way",
            c.across || c.along ? "Ribs run one way only" : "Ribs run neither way",
            "They hold the shell across their own planes only; a grid holds it both ways.",
            Fix{"Run them both ways", Json{{"back", {{"across", true}, {"along", true}}}}});
    }
    return out;
}

}  // namespace jig::back
