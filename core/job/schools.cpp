#include "core/job/schools.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/back/trial.hpp"

namespace jig {

shell::Choices restarted(const shell::Choices& from, School school) {
    auto out = shell::start_from(school);
    out.waste = from.waste;
    out.batch = from.batch;
    out.stagger = from.stagger;
    out.debulk = from.debulk;
    out.seek = from.seek;
    // Doublers of another fibre and resin would not be what was meant.
    if (from.school == school) out.zones = from.zones;
    return out;
}

std::vector<SchoolPlan> schools_side_by_side(JobBoard& board, const Job& job,
                                             const std::shared_ptr<const Shop>& shop, Progress& progress) {
    if (plug::no_plug(job.plug))
        throw InputError("shell", "nothing is laid up: the mould itself is made",
                         "choose a plug in Plug first");
    std::vector<SchoolPlan> out;
    for (std::size_t i = 0; i < Words<School>::all.size(); ++i) {
        const auto school = static_cast<School>(i);
        progress.report(static_cast<double>(i) / static_cast<double>(Words<School>::all.size()),
                        "working the schools out");
        SchoolPlan plan;
        plan.school = school;
        auto tried = job;
        if (job.shell.school != school) tried.shell = restarted(job.shell, school);
        plan.shell = tried.shell;
        const auto sheet = board.lay(tried, shop, true);
        const auto f = board.work_out(sheet, Depth::quick, progress);
        if (!f.shell || !f.run || !f.heat || !f.part) {
            for (const auto& call : f.calls) {
                if (call.key == "input") plan.obstacle = call.headline + ". " + call.why;
            }
            if (plan.obstacle.empty()) plan.obstacle = "the job is not worked out to its end";
            out.push_back(std::move(plan));
            continue;
        }
        const auto& once = f.run->ledgers[static_cast<std::size_t>(Ledger::once)];
        const auto& l = f.shell->stack.laminate;
        plan.sums = {
            {"cost", "plug and mould", Kind::money, once.total(),
             "materials " + quantity(Kind::money, once.materials) + " and " +
                 quantity(Kind::hours, once.hours * 3600) + " of hands, the plug with it"},
            {"days", "days to the first part", Kind::count, static_cast<double>(f.run->plan.days),
             fmt::format("all tasks booked; {} of them laying the shell up", f.shell->days)},
            {"mass", "shell and flange", Kind::mass, f.shell->mass,
             quantity(Kind::areal_mass, f.shell->stack.areal_mass()) + " over " +
                 quantity(Kind::area, f.shell->area)},
            {"thickness", "thickness", Kind::thickness, l.thickness, "sum of layers"},
            {"stiffness", "bending stiffness", Kind::stiffness, std::min(l.D_free(0, 0), l.D_free(1, 1)),
             "the smaller of D*11 and D*22, of a free strip"},
            {"heat", "top temperature", Kind::temperature,
             std::min(f.shell->Tg - 15, shell::facts_of(school).heat),
             "15 K under the lowest Tg of resin and coats, " + quantity(Kind::temperature, f.shell->Tg) +
                 ", and no more than the school is trusted with, " +
                 quantity(Kind::temperature, shell::facts_of(school).heat)}};
        const double warming = job.brief.top_temperature - job.heat.room;
        const double mismatch = (l.cte[0] - f.part->stack.laminate.cte[0]) * warming * f.split->size.x();
        plan.sums.push_back(
            {"mismatch", "grows past the part", Kind::thickness, mismatch,
             fmt::format("({} − {} of the part) × {:.0f} K × ", quantity(Kind::expansion, l.cte[0]),
                         quantity(Kind::expansion, f.part->stack.laminate.cte[0]), warming) +
                 quantity(Kind::length, f.split->size.x())});
        plan.sums.push_back(
            {"pulls", "pulls it lasts", Kind::count, static_cast<double>(shell::facts_of(school).pulls),
             "typical of the school, looked after: " + std::string(shell::facts_of(school).reason)});
        // On one mesh for all of them, whichever the board knows better.
        std::shared_ptr<const back::Trial> trial;
        try {
            trial = board.try_tool(sheet, progress);
            if (!trial) plan.untried = f.edge ? f.edge->no_tool : std::string();
        } catch (const InputError& e) {
            plan.untried = e.problem();
        }
        if (trial) {
            if (const auto* r = trial->find(LoadCase::leaning))
                plan.sums.push_back({"leaning", "gives at the rim", Kind::thickness, r->moves,
                                     r->how + ", " + r->where + "; shell finite elements on the quick mesh"});
            if (const auto* r = trial->find(LoadCase::heat))
                plan.sums.push_back({"warped", "out of shape hot", Kind::thickness, r->error,
                                     r->how + "; shell finite elements on the quick mesh"});
        } else if (plan.untried.empty()) {
            plan.untried = "the tool cannot be tried";
        }
        out.push_back(std::move(plan));
    }
    return out;
}

}  // namespace jig
