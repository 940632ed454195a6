#include <fmt/format.h>

#include "core/stages/run/findings.hpp"

namespace jig::run {

Calls calls(const Findings& f, const brief::Choices& brief) {
    Calls out;
    for (const auto i : f.plan.missed) {
        out.push_back(
            {Stage::run,
             Severity::caution,
             "window",
             "After \"" + f.tasks[i].name + "\" the next layer comes too late",
             "Its tacky window of " + quantity(Kind::duration, f.tasks[i].no_later) +
                 " closes before the next task can start: put more hands on, or start it on a fresh morning.",
             {}});
    }
    for (const auto& t : f.tasks) {
        if (t.can_break || t.work <= brief.shift) continue;
        out.push_back(
            {Stage::run, Severity::caution, "long_task",
             "\"" + t.name + "\" takes " + quantity(Kind::hours, t.work) + " without a break",
             fmt::format("That is longer than the shift for {} people: put more hands on it.", brief.people),
             Fix{"One more pair of hands", patch_of("brief", "people", brief.people + 1)}});
        break;
    }
    const double each = f.ledgers[0].total(), once = f.ledgers[1].total();
    if (once > 2 * f.made * each) {
        out.push_back(
            {Stage::run,
             Severity::note,
             "dear_tool",
             fmt::format("The tool costs {:.0f} times its {} parts", once / (f.made * each), f.made),
             "For so few parts a plainer plug, or parts over a bare former, may do.",
             {}});
    }
    return out;
}

}  // namespace jig::run
