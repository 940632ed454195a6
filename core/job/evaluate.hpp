// The order of the stages: a job goes in, findings come out.
#pragma once

#include <memory>

#include "core/job/job.hpp"
#include "core/stages/heat/findings.hpp"
#include "core/stages/log/findings.hpp"
#include "core/stages/run/findings.hpp"

namespace jig::back {
struct Trial;
}

namespace jig {

/// Findings are shared, never changed: a later run takes over what nothing it reads has changed. A stage that
/// could not be worked out (bad input) is null and named in `failed`, and so is all that needs it.
struct Findings {
    std::shared_ptr<const brief::Findings> brief;
    std::shared_ptr<const shape::Findings> shape;
    std::shared_ptr<const split::Findings> split;
    std::shared_ptr<const plug::Findings> plug;
    std::shared_ptr<const edge::Findings> edge;
    std::shared_ptr<const shell::Findings> shell;
    std::shared_ptr<const back::Findings> back;
    std::shared_ptr<const release::Findings> release;
    std::shared_ptr<const heat::Findings> heat;
    std::shared_ptr<const part::Findings> part;
    std::shared_ptr<const run::Findings> run;
    std::shared_ptr<const log::Findings> log;
    std::shared_ptr<const back::Trial> trial;  ///< of the tool, where it has been tried out (job/trial.hpp)
    Calls calls;  ///< in the order of the stages; a failed stage appears as a stop

    [[nodiscard]] bool complete() const {
        return brief && shape && split && plug && edge && shell && back && release && heat && part && run &&
               log;
    }
    /// Figures of one stage; empty where it failed.
    [[nodiscard]] const std::vector<Figure>& figures(Stage stage) const;
};

/// One earlier result that may be reused.
struct Evaluated {
    Job job;
    Findings findings;
};

/// Works out all stages; what `before` has and nothing has changed is taken over. The shop must be the same
/// object content as before, or `before` null. Throws Cancelled only: bad input becomes a call.
Findings evaluate(const Job& job, const Shop& shop, const Evaluated* before, Progress& progress);

/// All findings as JSON by stage, SI: figures by key, and the calls. For the headless command and exports.
Json findings_to_json(const Findings& findings);
Json calls_to_json(const Calls& calls);

/// What can hurt someone at a stage of this job; the plug's by its route.
std::vector<std::string> cautions_for(const Job& job, Stage stage);

/// The quick line that the job card shows for a stage, in the maker's units.
std::string card_line(const Job& job, const Findings& findings, Stage stage, const Wording& wording);

}  // namespace jig
