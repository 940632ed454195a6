#include <fmt/format.h>

#include "core/stages/split/findings.hpp"

namespace jig::split {

Calls calls(const Choices& c, const Findings& f, const shape::Findings&) {
    Calls out;
    const auto& m = f.map;
    if (m.locks > 1e-4 * f.moulded_area) {
        std::optional<Fix> fix;
        if (c.mode == PullMode::given) fix = Fix{"Take the best pull", patch_of("split", "mode", "best")};
        out.push_back(
            {Stage::split, Severity::stop, "locks",
             quantity(Kind::area, m.locks) + " locks; worst draft " + quantity(Kind::angle, m.min_draft),
             "These faces turn away from the pull or lie under something: this mould does not come off in "
             "one piece.",
             fix});
    } else if (m.drags > 0.01 * f.moulded_area) {
        out.push_back({Stage::split,
                       Severity::caution,
                       "drags",
                       quantity(Kind::area, m.drags) + " drags with less than " +
                           quantity(Kind::angle, c.drag_angle) + " of draft",
                       "Walls this straight scuff and stick: add draft, polish along the pull, and plan air "
                       "ports and wedges.",
                       {}});
    } else {
        out.push_back({Stage::split,
                       Severity::note,
                       "frees",
                       "Every face slides; worst draft " + quantity(Kind::angle, m.min_draft),
                       "One piece comes off along this pull.",
                       {}});
    }
    return out;
}

}  // namespace jig::split
