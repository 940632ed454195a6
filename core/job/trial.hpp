// The tool of a job on trial: heavier than its other findings, so it is asked for apart.
#pragma once

#include "core/job/evaluate.hpp"
#include "core/stages/back/suggest.hpp"

namespace jig {

/// Even meshes of one tool face, kept while the shape and its flange stay as they are.
struct TrialMeshes {
    std::shared_ptr<const edge::ToolFace> of;
    std::vector<back::EvenFace> faces;
    const back::EvenFace& face(const std::shared_ptr<const edge::ToolFace>& tool, double edge,
                               Progress& progress);
};

enum class Fineness { quick, fine };

/// The structure that a job's findings describe. Throws InputError where a stage before it has failed.
back::ToolInputs tool_inputs(const Job& job, const Findings& findings, const Shop& shop);

/// Tries the tool out on a mesh of that fineness; `coarse` gives the fine one its error estimate. Throws
/// InputError where a stage before it has failed or the tool cannot be meshed; Cancelled.
std::shared_ptr<const back::Trial> try_tool(const Job& job, const Findings& findings, const Shop& shop,
                                            Fineness fineness, const back::Trial* coarse, TrialMeshes& meshes,
                                            Progress& progress);

/// Findings with a trial's figures among the back's and its calls among all. An outdated trial still shows
/// its figures while a new one is on its way, but warns of nothing.
Findings with_trial(Findings findings, const Job& job, const std::shared_ptr<const back::Trial>& trial,
                    bool outdated = false);

/// Whether two jobs, worked out to these findings, would be tried out alike.
bool same_trial(const Job& a, const Findings& fa, const Job& b, const Findings& fb);

}  // namespace jig
