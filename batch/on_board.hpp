// A job file that a verb works on, laid on a board.
#pragma once

#include <functional>

#include "batch/verbs.hpp"
#include "core/base/slate.hpp"
#include "core/job/evaluate.hpp"

namespace jig::batch {

struct OnBoard {
    Job job;
    std::shared_ptr<const Shop> shop;
    JobBoard board;
    JobBoard::Sheet sheet;
    Findings findings;

    /// Reads job and library as the arguments name them and works them out that far; `change` comes before.
    /// Throws InputError where they cannot be read; Cancelled.
    OnBoard(const Arguments& a, Depth depth, Progress& progress,
            const std::function<void(Job&, const Shop&)>& change = {});

    /// Throws InputError where one of the stages up to `last` could not be worked out, naming why.
    void need(Stage last) const;
    /// Goes further; s of work that this took.
    double work_out(Depth depth, Progress& progress);
};

/// Has the job show the piece of its mould that --piece names; the one that it showed before. Throws
/// InputError where that is no number of a piece.
int show_piece(const Arguments& a, Job& job);

/// Sums of one of several ways, by key: `value`, `shown`, `name`, `reason`.
Json sums_to_json(const std::vector<Figure>& sums);

}  // namespace jig::batch
