#include "core/job/trial.hpp"

#include <algorithm>

namespace jig {
namespace {

constexpr std::size_t kQuick = 1400, kFine = 9000;

}  // namespace

const back::EvenFace& TrialMeshes::face(const std::shared_ptr<const edge::ToolFace>& tool, double edge,
                                        Progress& progress) {
    if (of != tool) {
        of = tool;
        faces.clear();
    }
    for (const auto& f : faces) {
        if (std::abs(f.edge - edge) < 1e-9) return f;
    }
    if (faces.size() > 4) faces.erase(faces.begin());
    faces.push_back(back::even_face(*tool, edge, progress));
    return faces.back();
}

back::ToolInputs tool_inputs(const Job& job, const Findings& f, const Shop& shop) {
    if (!f.edge || !f.shell || !f.shape)
        throw InputError("back", "the tool is not worked out so far", "mend the stops on the job card first");
    if (!f.edge->tool) throw InputError("edge", f.edge->no_tool, "see Edge");
    return {*f.edge->tool, job.edge,      job.shell,    *f.shell,     job.back,
            shop,          f.shape->mesh, f.edge.get(), job.heat.room};
}

std::shared_ptr<const back::Trial> try_tool(const Job& job, const Findings& f, const Shop& shop,
                                            Fineness fineness, const back::Trial* coarse, TrialMeshes& meshes,
                                            Progress& progress) {
    const auto in = tool_inputs(job, f, shop);
    const double edge = back::edge_for(in, fineness == Fineness::quick ? kQuick : kFine);
    progress.report(0.01, "meshing the tool's face");
    const auto& face = meshes.face(f.edge->tool, edge, progress);
    return std::make_shared<const back::Trial>(back::try_out(in, face, job.brief, coarse, progress));
}

Findings with_trial(Findings f, const Job& job, const std::shared_ptr<const back::Trial>& trial,
                    bool outdated) {
    if (!f.back || !trial) return f;
    auto back = *f.back;
    auto figures = back::trial_figures(*trial, job.back);
    if (outdated) {
        for (auto& figure : figures)
            figure.reason = "being worked out anew; before the last change: " + figure.reason;
    }
    // The whole tool first, the strip by hand after it as a cross-check.
    figures.insert(figures.end(), back.figures.begin(), back.figures.end());
    back.figures = std::move(figures);
    f.back = std::make_shared<const back::Findings>(std::move(back));
    f.trial = trial;
    if (outdated) return f;
    // The strip's own warning is overtaken by the tool's.
    std::erase_if(f.calls, [](const Call& c) { return c.stage == Stage::back && c.key == "person"; });
    auto more = back::trial_calls(*trial, job.back, job.brief);
    f.calls.insert(f.calls.end(), more.begin(), more.end());
    std::stable_sort(f.calls.begin(), f.calls.end(),
                     [](const Call& a, const Call& b) { return a.stage < b.stage; });
    return f;
}

bool same_trial(const Job& a, const Findings& fa, const Job& b, const Findings& fb) {
    return fa.edge != nullptr && fa.edge == fb.edge && fa.shell == fb.shell && fa.shape == fb.shape &&
           a.back == b.back && a.edge == b.edge && a.shell == b.shell && a.brief.process == b.brief.process &&
           a.brief.top_temperature == b.brief.top_temperature && a.brief.tolerance == b.brief.tolerance &&
           a.heat.room == b.heat.room;
}

}  // namespace jig
