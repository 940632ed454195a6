// A job goes in, findings come out: kept on a slate from edit to edit, or worked out once.
#pragma once

#include <memory>

#include "core/job/job.hpp"
#include "core/stages/bag/findings.hpp"
#include "core/stages/heat/findings.hpp"
#include "core/stages/log/findings.hpp"
#include "core/stages/run/findings.hpp"

namespace jig::back {
struct Suggestion;
struct Trial;
}  // namespace jig::back
namespace jig::bag {
struct Flow;
struct Layouts;
struct RaceFit;
}  // namespace jig::bag
namespace jig::part {
struct CorePanels;
struct Kit;
struct SoughtCuts;
struct Trial;
}  // namespace jig::part
namespace jig::shell {
struct Found;
}  // namespace jig::shell

namespace jig {

/// Findings are shared, never changed. A stage that could not be worked out (bad input) is null, a stop among
/// the calls says why, and so is all that needs it.
struct Findings {
    std::shared_ptr<const brief::Findings> brief;
    std::shared_ptr<const shape::Findings> shape;
    std::shared_ptr<const split::Findings> split;
    std::shared_ptr<const plug::Findings> plug;
    std::shared_ptr<const edge::Findings> edge;
    std::shared_ptr<const shell::Findings> shell;
    std::shared_ptr<const back::Findings> back;
    std::shared_ptr<const release::Findings> release;
    std::shared_ptr<const part::Findings> part;
    std::shared_ptr<const bag::Findings> bag;
    std::shared_ptr<const heat::Findings> heat;
    std::shared_ptr<const run::Findings> run;
    std::shared_ptr<const log::Findings> log;
    std::shared_ptr<const back::Trial> trial;  ///< of the tool, the best there is; null until it is tried
    bool trial_is_old = false;                 ///< it is of the job before the last edit
    std::shared_ptr<const back::Suggestion> pitches;  ///< where a pitch has been sought for this tool
    /// Of the resin that is shown, an infused part's or shell's, the finest there is; else null.
    std::shared_ptr<const bag::Flow> flow;
    std::shared_ptr<const bag::Flow> other_flow;  ///< of the other where both are infused
    std::shared_ptr<const part::Trial>
        part_trial;  ///< under its loads, the finest there is; null without any
    std::shared_ptr<const part::CorePanels> core_panels;  ///< null until they are cut, or without a core
    std::shared_ptr<const bag::Layouts> layouts;          ///< where hoses have been sought for what is shown
    std::shared_ptr<const bag::RaceFit> race;             ///< where one has been sought for its marks
    std::shared_ptr<const std::vector<SheetSet>> plug_sheets;  ///< by stock; null until pieces are laid out
    std::shared_ptr<const SheetSet> rib_sheets;                ///< null until ribs are laid out
    bool finest = false;  ///< all that a deeper look would work out is known
    Calls calls;          ///< in the order of the stages; a failed stage appears as a stop

    Findings();
    Findings(const Findings&);
    Findings(Findings&&) noexcept;
    Findings& operator=(const Findings&);
    Findings& operator=(Findings&&) noexcept;
    ~Findings();

    [[nodiscard]] bool complete() const {
        return brief && shape && split && plug && edge && shell && back && release && part && bag && heat &&
               run && log;
    }
    /// Figures of one stage; empty where it failed.
    [[nodiscard]] const std::vector<Figure>& figures(Stage stage) const;
};

/// How far to go. What is shown to the end is `fine`; the others come sooner.
enum class Depth {
    stages,  ///< no tool on trial, sheets by area, unless they are remembered
    quick,   ///< pieces and panels laid onto sheets, the tool tried out on a coarse mesh
    fine     ///< and on a fine one, which says how far the two differ; resin too is followed on a fine mesh
};

struct Ran;

/// Jobs and their findings, remembered from edit to edit: what an edit does not reach is not worked out
/// again, and what was worked out before is found again. Safe to use from several threads.
class JobBoard {
  public:
    /// `deep` results are remembered of each finding.
    explicit JobBoard(std::size_t deep = 8);
    ~JobBoard();
    JobBoard(const JobBoard&) = delete;
    JobBoard& operator=(const JobBoard&) = delete;

    /// A job as it was laid down with its shop.
    struct Laid;
    using Sheet = std::shared_ptr<const Laid>;
    /// `passing` ones are the first to be forgotten: steps of a drag, variants that are only compared.
    Sheet lay(Job job, std::shared_ptr<const Shop> shop, bool passing = false);

    /// Throws Cancelled only: bad input becomes a call. `threads` 0 takes all cores; `ran` gets what had to
    /// be run, unnamed, with its own time.
    Findings work_out(const Sheet& sheet, Depth depth, Progress& progress, unsigned threads = 0,
                      std::vector<Ran>* ran = nullptr);
    /// The shape and nothing else: what there is to see while the rest is worked out; without one where it
    /// cannot be had. Throws Cancelled.
    Findings glance(const Sheet& sheet, Progress& progress);
    /// Throw InputError where they, or a stage before them, cannot be worked out; Cancelled.
    std::shared_ptr<const std::vector<plug::Plan>> routes(const Sheet& sheet, Progress& progress);
    std::shared_ptr<const std::vector<SheetSet>> plug_sheets(const Sheet& sheet, Progress& progress);
    std::shared_ptr<const SheetSet> rib_sheets(const Sheet& sheet, Progress& progress);
    std::shared_ptr<const shell::Found> seek_stack(const Sheet& sheet, Progress& progress);
    std::shared_ptr<const back::Suggestion> seek_pitch(const Sheet& sheet, Progress& progress);
    std::shared_ptr<const bag::Layouts> seek_layout(const Sheet& sheet, Progress& progress);
    std::shared_ptr<const bag::RaceFit> seek_race(const Sheet& sheet, Progress& progress);
    /// Where to cut the part's cloth so that less of it locks; none where there is no tool.
    std::shared_ptr<const part::SoughtCuts> seek_cuts(const Sheet& sheet, Progress& progress);
    /// Without panels where the part has no core or there is no tool.
    std::shared_ptr<const part::CorePanels> core_panels(const Sheet& sheet, Progress& progress);
    /// The part's plies cut flat and laid onto their rolls; empty where there is no tool.
    std::shared_ptr<const part::Kit> kit(const Sheet& sheet, Progress& progress);
    /// The part alone on trial; null where it has nothing to carry or there is no tool.
    std::shared_ptr<const part::Trial> try_part(const Sheet& sheet, bool fine, Progress& progress);
    /// The tool on trial on the quick mesh, whatever is known of the fine one; null where there is none.
    std::shared_ptr<const back::Trial> try_tool(const Sheet& sheet, Progress& progress);

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

/// One job worked out once. Throws Cancelled only.
Findings evaluate(const Job& job, const Shop& shop, Progress& progress, Depth depth = Depth::fine);

/// All findings as JSON by stage, SI: figures by key, and the calls. For the headless command and exports.
Json findings_to_json(const Findings& findings);
Json calls_to_json(const Calls& calls);

/// What can hurt someone at a stage of this job; the plug's by its route.
std::vector<std::string> cautions_for(const Job& job, Stage stage);

/// The quick line that the job card shows for a stage, in the maker's units.
std::string card_line(const Job& job, const Findings& findings, Stage stage, const Wording& wording);

}  // namespace jig
