#include <fmt/format.h>

#include <cmath>

#include "core/stages/log/findings.hpp"

namespace jig::log {

Calls calls(const Findings& f, const brief::Choices& brief, const part::Findings& part,
            const release::Findings& release) {
    Calls out;
    if (f.bare_pull > 0)
        out.push_back({Stage::log,
                       Severity::caution,
                       "bare_pull",
                       fmt::format("Pull {} is logged before any release coat", f.bare_pull),
                       "A face that was never released does not give a part: note the coats that were on it, "
                       "with their "
                       "date.",
                       {}});
    if (f.pulls > 0 && f.since_release >= release.system.pulls_per_touch_up) {
        out.push_back({Stage::log,
                       Severity::caution,
                       "release_due",
                       fmt::format("{} pulls since release was put on: due after {}", f.since_release,
                                   release.system.pulls_per_touch_up),
                       "Touch up before the next lay-up, and note the coats in the entry.",
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
