// A trial as figures with reasons, and what it warns of.
#include <fmt/format.h>

#include "core/stages/back/trial.hpp"

namespace jig::back {
namespace {

/// Cases in which the part takes its shape: what bends the face then bends the part.
bool while_curing(LoadCase kind, const Choices& c) {
    switch (kind) {
        case LoadCase::standing:
        case LoadCase::squeeze:
        case LoadCase::heat:
            return true;
        case LoadCase::surface_bag:
            return c.bag == BagKind::surface;
        case LoadCase::envelope_bag:
            return c.bag == BagKind::envelope;
        default:
            return false;
    }
}

std::string key_of(LoadCase kind) {
    return "case_" + std::string(file_word(kind));
}

}  // namespace

std::vector<Figure> trial_figures(const Trial& t, const Choices& c) {
    std::vector<Figure> out;
    const auto mesh = fmt::format("{} freedoms, edges of ", t.freedoms) + quantity(Kind::length, t.edge) +
                      (t.fine ? ", the fine mesh" : ", a coarse mesh: a finer answer is on its way");
    for (const auto& r : t.cases) {
        const auto differs =
            t.fine ? "; may be out by " + quantity(Kind::thickness, r.differs) : std::string();
        auto reason = r.how + "; worst " + r.where + "; face out of shape by " +
                      quantity(Kind::thickness, r.error) +
                      fmt::format("; skins at {:.0f} % of what they bear", 100 * r.skin);
        if (r.foam > 0)
            reason += fmt::format(", {} at {:.0f} %", c.kind == BackKind::foam_blocks ? "foam" : "ribs",
                                  100 * r.foam);
        if (r.buckles > 0)
            reason += fmt::format("; buckles at {:.1f} times this", r.buckles);
        else if (r.none_below > 0)
            reason += fmt::format("; no buckling up to {:.0f} times this", r.none_below);
        if (r.moves > t.least_side / 10)
            reason += "; more than a tenth of its width: beyond what small displacements are good for";
        reason.append("; shell finite elements, ").append(mesh).append(differs);
        out.push_back({key_of(r.kind), std::string(said(r.kind)), Kind::thickness, r.moves, reason});
    }
    double error = 0;
    const CaseResult* worst = nullptr;
    for (const auto& r : t.cases) {
        if (while_curing(r.kind, c) && r.error >= error) {
            error = r.error;
            worst = &r;
        }
    }
    if (worst != nullptr)
        out.push_back({"shape_error", "face out of shape while the part cures", Kind::thickness, error,
                       "the worst of own weight, bag, bolts and heat: " + std::string(said(worst->kind)) +
                           ", " + worst->where + "; its own shift and turn are taken off"});
    out.push_back(
        {"tips", "tips over under a push on the rim of", Kind::force, t.tips.force,
         "weight × its distance inside the feet's outline ÷ the rim's distance outside it, the least all "
         "round: " +
             t.tips_where + "; in the load cases a foot lifts where it would have to pull"});
    out.push_back({"tool_mass", "tool, shell and back", Kind::mass, t.mass,
                   "all that the structure is made of; without plug, bolts and bag"});
    return out;
}

Calls trial_calls(const Trial& t, const Choices& c, const brief::Choices& brief) {
    Calls out;
    const auto add = [&](Severity s, std::string key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::back, s, std::move(key), std::move(headline), std::move(why), std::move(fix)});
    };
    for (const auto& r : t.cases) {
        const auto name = std::string(said(r.kind));
        if (while_curing(r.kind, c) && r.error > brief.tolerance) {
            std::optional<Fix> fix;
            if (r.kind == LoadCase::heat && c.has_grid() && c.joint.bond != Bond::floating)
                fix = Fix{"Let the back float", Json{{"back", {{"joint", {{"bond", "floating"}}}}}}};
            else if (r.kind == LoadCase::envelope_bag)
                fix = Fix{"Seal the bag on the flange", patch_of("back", "bag", "surface")};
            add(r.error > 3 * brief.tolerance ? Severity::stop : Severity::caution, "shape-" + key_of(r.kind),
                "The face is " + quantity(Kind::thickness, r.error) + " out of shape " +
                    (r.kind == LoadCase::heat ? "when " : "under ") + name,
                "The tolerance is " + quantity(Kind::thickness, brief.tolerance) + "; worst " + r.where + ".",
                fix);
        }
        if (r.kind == LoadCase::leaning && r.moves > c.rim_limit)
            add(Severity::caution, "leaning",
                "Leaning on the rim bends it " + quantity(Kind::thickness, r.moves) + ", " + r.where,
                "The limit is " + quantity(Kind::thickness, c.rim_limit) +
                    "; ask for a pitch and feet that hold it, or lay more on the flange.");
        if (r.skin > 1)
            add(r.skin > 2 ? Severity::stop : Severity::caution, "strain-" + key_of(r.kind),
                fmt::format("A skin is strained to {:.0f} % of what it bears: ", 100 * r.skin) + name,
                "The shell's resin begins to crack beyond the strain that the library gives for it; see your "
                "data "
                "sheets. Worst " +
                    r.where + ".");
        if (r.foam > 1)
            add(Severity::stop, "foam-" + key_of(r.kind),
                fmt::format("{}: {:.0f} % of its strength, ",
                            c.kind == BackKind::foam_blocks ? "The foam of the back is crushed"
                                                            : "The ribs' board breaks",
                            100 * r.foam) +
                    name,
                c.kind == BackKind::foam_blocks ? "Take a denser foam or more cloth round it."
                                                : "Take thicker board, taller ribs or a closer pitch.");
        if (r.buckles > 0 && r.buckles < 3)
            add(r.buckles < 1.5 ? Severity::stop : Severity::caution, "buckles",
                fmt::format("Buckles at {:.1f} times the vacuum of an envelope bag", r.buckles),
                "Real shells buckle below the figure for a perfect one: want three times or more, or seal "
                "the bag "
                "on the flange.",
                Fix{"Seal the bag on the flange", patch_of("back", "bag", "surface")});
    }
    std::optional<Fix> fix;
    if (t.tips_wider > 1.05 * t.tips.force)
        fix = Fix{"Stand it on its ends", Json{{"back", {{"feet", {{"inset", 0.0}}}}}}};
    if (t.tips.force <= 0) {
        add(Severity::stop, "tips", "The tool falls over: its weight lies outside its feet",
            "Set the feet further apart, or hold it down.", fix);
    } else if (t.tips.force < c.lean) {
        add(Severity::caution, "tips",
            "A push of " + quantity(Kind::force, t.tips.force) + " on the rim tips the tool over, " +
                t.tips_where,
            "A person leans with " + quantity(Kind::force, c.lean) +
                ". Clamp it down, set its feet further out, or "
                "load its foot with " +
                quantity(Kind::mass, t.tips.ballast) + " before anyone leans on it.",
            fix);
    }
    for (const auto& note : t.notes)
        add(Severity::note, "note", "Built with a difference: " + note, "The rest is as chosen.");
    return out;
}

}  // namespace jig::back
