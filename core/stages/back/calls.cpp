#include <cmath>

#include "core/stages/back/findings.hpp"

namespace jig::back {

Calls calls(const Choices& c, const Findings& f, const shell::Findings& shell) {
    Calls out;
    const auto fix_pitch = [&]() -> std::optional<Fix> {
        if (f.pitch_for_limit <= 0) return {};
        // Whole centimetres, rounded down, so that the sheet reads like a drawing.
        const double pitch = std::max(0.02, std::floor(f.pitch_for_limit * 100) / 100);
        auto patch = patch_of("back", "pitch", pitch);
        if (c.kind == BackKind::none) patch["back"]["kind"] = "egg_crate";
        return Fix{"Set the ribs at " + quantity(Kind::length, pitch), patch};
    };
    const auto where = c.kind == BackKind::none ? std::string("Free span ") : std::string("Rib pitch ");
    if (f.sag.person + f.sag.own > c.limit) {
        out.push_back({Stage::back, Severity::caution, "person",
                       where + quantity(Kind::length, f.span) + ": the skin sags " +
                           quantity(Kind::thickness, f.sag.person + f.sag.own) + " under a leaning person",
                       "The limit is " + quantity(Kind::thickness, c.limit) +
                           "; closer ribs or a thicker shell hold it.",
                       fix_pitch()});
    }
    if (c.bag == BagKind::envelope && f.sag.bag > c.limit) {
        out.push_back({Stage::back, f.sag.bag > 0.005 ? Severity::stop : Severity::caution, "envelope",
                       where + quantity(Kind::length, f.span) + ": an envelope bag bends the skin " +
                           quantity(Kind::thickness, f.sag.bag),
                       "An envelope bag presses on the bare back between the ribs; a bag sealed on the "
                       "flange does not.",
                       Fix{"Seal the bag on the flange", patch_of("back", "bag", "surface")}});
    }
    if (c.kind == BackKind::egg_crate && shell.stack.laminate.thickness < 0.006) {
        out.push_back({Stage::back,
                       Severity::note,
                       "rib_print",
                       "Ribs on a shell of " + quantity(Kind::thickness, shell.stack.laminate.thickness) +
                           " can print through",
                       "Bond them after the shell has cured, on a soft strip or a fillet, not end-on.",
                       {}});
    }
    return out;
}

}  // namespace jig::back
