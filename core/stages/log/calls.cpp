#include <fmt/format.h>

#include <cmath>

#include "core/stages/log/findings.hpp"

namespace jig::log {

Calls calls(const Findings& f, const brief::Choices& brief, const part::Findings& part,
            const release::Findings& release) {
    Calls out;
    if (!f.forced.empty()) {
        const auto& first = f.forced.front();
        out.push_back(
            {Stage::log,
             Severity::caution,
             "against_gate",
             fmt::format(
                 "Pull {} was laid up on {} against its gate{}", first.pull,
                 first.face == "mould" ? std::string("the mould") : first.face,
                 f.forced.size() > 1 ? fmt::format(", and {} more", f.forced.size() - 1) : std::string()),
             first.why + " Note the coats that were on it, with their time, or why it was done all the same.",
             {}});
    }
    if (!f.strangers.empty()) {
        std::string there;
        for (const auto& face : f.faces) there += (there.empty() ? "" : ", ") + face.name;
        out.push_back(
            {Stage::log,
             Severity::caution,
             "unknown_face",
             fmt::format("The log names a face that is not there: {}{}", f.strangers.front(),
                         f.strangers.size() > 1 ? fmt::format(", and {} more", f.strangers.size() - 1)
                                                : std::string()),
             "What was noted of it counts for no gate. The faces are: " + there +
                 "; an empty name is all of the mould's.",
             {}});
    }
    if (f.worn) {
        out.push_back(
            {Stage::log,
             Severity::caution,
             "release_due",
             fmt::format("{} {} since release was put on: a touch-up comes before the next", f.since_release,
                         f.since_release == 1 ? "pull" : "pulls"),
             release.system.season > 0 && f.pulls <= release.system.season
                 ? fmt::format(
                       "A new face seasons over its first {} pulls: one coat after each, then one after {}.",
                       release.system.season, release.system.pulls_per_touch_up)
                 : std::string("Touch up before the next lay-up, and note the coats in the log."),
             {}});
    }
    if (f.weighed >= 3 && std::abs(f.mean_mass / part.mass - 1) > 0.05) {
        out.push_back(
            {Stage::log,
             Severity::note,
             "mass_off",
             fmt::format("Parts weigh {} on the mean, {:+.0f} % against the plan",
                         quantity(Kind::mass, f.mean_mass), 100 * (f.mean_mass / part.mass - 1)),
             "Measure the resin ratio and ply thickness of the next one and type them into the shop library.",
             {}});
    }
    if (f.pulls > brief.pulls) {
        out.push_back({Stage::log, Severity::note, "past_plan",
                       fmt::format("{} pulls of {} planned", f.pulls, brief.pulls),
                       "The tool has outlived its brief.",
                       Fix{fmt::format("Plan {} pulls", f.pulls), patch_of("brief", "pulls", f.pulls)}});
    }
    return out;
}

}  // namespace jig::log
