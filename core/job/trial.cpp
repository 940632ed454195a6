#include "core/job/trial.hpp"

#include <algorithm>

namespace jig {

std::size_t triangles_of(Fineness fineness) {
    return fineness == Fineness::quick ? 1400 : 9000;
}

back::ToolInputs tool_inputs(const Job& job, const Findings& f, const Shop& shop) {
    if (!f.edge || !f.shell || !f.shape)
        throw InputError("back", "the tool is not worked out so far", "mend the stops on the job card first");
    if (!f.edge->tool) throw InputError("edge", f.edge->no_tool, "see Edge");
    return {*f.edge->tool, job.edge,      job.shell,    *f.shell,     job.back,
            shop,          f.shape->mesh, f.edge.get(), job.heat.room};
}

std::shared_ptr<const back::Trial> try_tool(const Job& job, const Findings& f, const Shop& shop,
                                            Fineness fineness, const back::Trial* coarse,
                                            Progress& progress) {
    const auto in = tool_inputs(job, f, shop);
    const auto face =
        back::even_face(in.face, back::edge_for(in.face, job.back, triangles_of(fineness)), progress);
    return std::make_shared<const back::Trial>(back::try_out(in, face, job.brief, coarse, progress));
}

heat::Fastest fastest_programme(const Job& job, const Findings& f, const Shop& shop, CureOf of,
                                Progress& progress) {
    const auto* run = f.heat ? f.heat->cures->find(of) : nullptr;
    if (run == nullptr || !f.plug || !f.shell)
        throw InputError("heat", "this cure is not worked out", "mend the stops on the job card first");
    // A back that is not worked out has its own stop.
    auto back = job.back;
    if (!f.back) back.kind = BackKind::none;
    const heat::Warmed with{job.brief, *f.plug, job.shell, *f.shell, back, job.part, shop};
    // A week is past all patience; what is there already is to be beaten, where it does no harm.
    constexpr double kWeek = 7 * 86400;
    return heat::fastest(*run, heat::bounds_of(*run, job.heat, *f.heat, with), kWeek, progress);
}

Findings with_trial(Findings f, const Job& job, const std::shared_ptr<const back::Trial>& trial, bool old) {
    if (!f.back || !trial) return f;
    auto back = *f.back;
    auto figures = back::trial_figures(*trial, job.back);
    if (old) {
        for (auto& figure : figures)
            figure.reason = "being worked out anew; before the last change: " + figure.reason;
    }
    // The whole tool first, the strip by hand after it as a cross-check.
    figures.insert(figures.end(), back.figures.begin(), back.figures.end());
    back.figures = std::move(figures);
    f.back = std::make_shared<const back::Findings>(std::move(back));
    f.trial = trial;
    f.trial_is_old = old;
    if (old) return f;
    // The strip's own warning is overtaken by the tool's.
    std::erase_if(f.calls, [](const Call& c) { return c.stage == Stage::back && c.key == "person"; });
    auto more = back::trial_calls(*trial, job.back, job.brief);
    f.calls.insert(f.calls.end(), more.begin(), more.end());
    std::stable_sort(f.calls.begin(), f.calls.end(),
                     [](const Call& a, const Call& b) { return a.stage < b.stage; });
    return f;
}

}  // namespace jig
