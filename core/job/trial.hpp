// The tool of a job on trial, among its other findings, and its cures tried for the soonest.
#pragma once

#include "core/job/evaluate.hpp"
#include "core/stages/back/trial.hpp"
#include "core/stages/heat/fastest.hpp"

namespace jig {

enum class Fineness { quick, fine };

/// The structure that a job's findings describe. Throws InputError where a stage before it has failed.
back::ToolInputs tool_inputs(const Job& job, const Findings& findings, const Shop& shop);

/// Tries the tool out apart from any board. `coarse` gives the fine one its error estimate. Throws InputError
/// where a stage before it has failed or the tool cannot be meshed; Cancelled.
std::shared_ptr<const back::Trial> try_tool(const Job& job, const Findings& findings, const Shop& shop,
                                            Fineness fineness, const back::Trial* coarse, Progress& progress);

/// Findings with a trial's figures among the back's and its calls among all. An old trial, of the job before
/// the last edit, still shows its figures, marked, but warns of nothing.
Findings with_trial(Findings findings, const Job& job, const std::shared_ptr<const back::Trial>& trial,
                    bool old = false);

/// The soonest programme of one of its cures that keeps what it has to (core/stages/heat/fastest.hpp), or why
/// there is none. Throws InputError where the job has no such cure; Cancelled.
heat::Fastest fastest_programme(const Job& job, const Findings& findings, const Shop& shop, CureOf of,
                                Progress& progress);

/// Triangles that the tool's face is meshed with.
std::size_t triangles_of(Fineness fineness);

}  // namespace jig
