// What each stage's findings are drawn as where no shape stands.
#pragma once

#include "app/charts/plot.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

/// Whether a stage is shown as a chart instead of in 3D.
bool has_chart(Stage stage);

/// Cost of one part against the number made, the planned number marked.
Plot cost_plot(const run::Findings& run, const Wording& wording);
/// How far plug, tool and part are from the drawing at each step; `tolerance` m either way is meant.
Plot growth_plot(const heat::Findings& heat, bool direct, double tolerance, const Wording& wording);
/// Temperatures of one cure's wall, the air, and the Tg that keeps ahead of them or does not.
Plot cure_plot(const heat::CureRun& run);
/// Degree of cure of what reacts in it.
Plot degree_plot(const heat::CureRun& run);
/// How hot a lay-up becomes by how thick it is laid at once, `of` which; the lay-up that there is marked.
Plot go_plot(const heat::OneGo& go, const QString& of, const Wording& wording);
/// Resin mixed for each kilogram of cloth by how large a part of this kind is; this one marked.
Plot resin_plot(const part::ResinAccount& account, const Wording& wording);
/// Mass of each weighed pull against what is `planned`, kg.
Plot mass_plot(const log::Choices& log, double planned);

/// The bag's pressure over time as the pump draws it down, with what is wanted.
Plot pump_plot(const bag::Findings& bag, double wanted);
/// The readings of a shut bag, the line through them, and how fast it may rise.
Plot drop_plot(const bag::Findings& bag, const bag::DropTest& test);

/// The charts of a stage, none while what they show is not known.
std::vector<Plot> plots_of(const Job& job, const Findings& findings, Stage stage, const Wording& wording);

}  // namespace jig::app
