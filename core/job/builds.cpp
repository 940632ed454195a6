#include "core/job/builds.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/part/as_stiff.hpp"
#include "core/stages/part/trial.hpp"

namespace jig {
namespace {

std::vector<Figure> sums_of(const Job& job, const Findings& f, const part::Trial* trial) {
    const auto& each = f.run->ledgers[static_cast<std::size_t>(Ledger::each)];
    const auto& l = f.part->stack.laminate;
    std::vector<Figure> out{
        {"cost", "cost of one part", Kind::money, each.total(),
         "materials " + quantity(Kind::money, each.materials) + " and " +
             quantity(Kind::hours, each.hours * 3600) + " of hands, without its share of the tool"},
        {"hours", "hands for one part", Kind::hours, each.hours * 3600, "all its steps, Run's own sum"},
        {"days", "days to the first part", Kind::count, static_cast<double>(f.run->plan.days),
         "all tasks booked, the tool's too"},
        {"mass", "mass of one part", Kind::mass, f.part->mass,
         quantity(Kind::areal_mass, f.part->stack.areal_mass()) + " of the common stack over " +
             quantity(Kind::area, f.part->area) + ", zones counted, trimmed"},
        {"thickness", "thickness", Kind::thickness, l.thickness, "of the common stack"},
        {"stiffness", "bending stiffness", Kind::stiffness, std::min(l.D_free(0, 0), l.D_free(1, 1)),
         "the smaller of D*11 and D*22 of the common stack, of a free strip"}};
    if (trial != nullptr) {
        const part::LoadResult *most = nullptr, *first = nullptr;
        double share = 0;
        for (const auto& r : trial->loads) {
            if (most == nullptr || r.moves > most->moves) most = &r;
            if (r.most().first > share) {
                share = r.most().first;
                first = &r;
            }
        }
        if (most != nullptr)
            out.push_back({"gives", "gives under its load", Kind::thickness, most->moves,
                           most->name + ": " + most->how + ", " + most->where +
                               "; shell finite elements on the quick mesh"});
        if (first != nullptr)
            out.push_back({"holds", "holds its load times", Kind::factor, 1 / share,
                           first->name + ", until " + part::said(first->most().second)});
    }
    const auto* go = f.heat->go(CureOf::part);
    if (go != nullptr && go->most)
        out.push_back(
            {"goes", "goes to lay it in", Kind::count,
             static_cast<double>(f.part->goes.size() - 1) + heat::go_limit(*go, f.part->resin).goes(go->laid),
             quantity(Kind::thickness, go->laid) +
                 (f.part->goes.size() > 1 ? " of plies in the thickest of those that are planned; "
                                          : " of plies; ") +
                 quantity(Kind::thickness, heat::go_limit(*go, f.part->resin).most) + " at most at once"});
    out.push_back({"heat", "its Tg", Kind::temperature, f.heat->part_Tg, "after the programme in Heat"});
    out.push_back({"size", "against the drawing", Kind::thickness, f.heat->part_error,
                   (plug::no_plug(job.plug) ? "with the mould cut at " : "with the plug cut at ") +
                       fmt::format("{:.3f} %", 100 * job.heat.plug_scale) + " of size"});
    return out;
}

}  // namespace

std::vector<BuildPlan> builds_side_by_side(JobBoard& board, const Job& job,
                                           const std::shared_ptr<const Shop>& shop, Progress& progress) {
    if (job.part.builds.size() > part::kMostBuilds)
        throw InputError("part", fmt::format("more than {} builds are kept", part::kMostBuilds),
                         "take those away that are settled");
    std::vector<BuildPlan> out;
    for (const auto& build : job.part.builds)
        out.push_back({build, part::is_made_as(job.part, build), {}, {}, {}});
    if (std::none_of(out.begin(), out.end(), [](const BuildPlan& p) { return p.now; }))
        out.insert(out.begin(), {part::build_of(job.part, "as it is now"), true, {}, {}, {}});
    for (std::size_t i = 0; i < out.size(); ++i) {
        auto& plan = out[i];
        progress.report(static_cast<double>(i) / static_cast<double>(out.size()), "working the builds out");
        auto tried = job;
        tried.part = part::made_as(job.part, plan.build);
        const auto sheet = board.lay(tried, shop, true);
        const auto f = board.work_out(sheet, Depth::quick, progress);
        if (f.part && f.run && f.heat) {
            // On one mesh for all of them, whichever the board knows better.
            std::shared_ptr<const part::Trial> trial;
            if (!tried.part.duty.loads.empty()) {
                try {
                    trial = board.try_part(sheet, false, progress);
                    if (!trial) plan.untried = f.edge ? f.edge->no_tool : std::string();
                } catch (const InputError& e) {
                    plan.untried = e.problem();
                }
                if (!trial && plan.untried.empty()) plan.untried = "what it carries cannot be tried";
            }
            plan.sums = sums_of(tried, f, trial.get());
            continue;
        }
        for (const auto& call : f.calls) {
            if (call.key == "input") plan.obstacle = call.headline + ". " + call.why;
        }
        if (plan.obstacle.empty()) plan.obstacle = "the job is not worked out to its end";
    }
    return out;
}

}  // namespace jig
