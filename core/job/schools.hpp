// One job's shell in every school, each worked out to the end and set beside the others.
#pragma once

#include "core/job/evaluate.hpp"

namespace jig {

struct SchoolPlan {
    School school = School::glass_epoxy;
    shell::Choices shell;
    std::vector<Figure> sums;  ///< the same keys for every school
    std::string untried;   ///< why the tool was not solved, whose sums are missing then; empty where it was
    std::string obstacle;  ///< why it cannot be worked out; empty where it can
};

/// Works the whole job out with every school's starting stack (the job's own stack for the school that it
/// has), and tries each tool out on the quick mesh; what a school does not reach comes from the board. Throws
/// Cancelled.
std::vector<SchoolPlan> schools_side_by_side(JobBoard& board, const Job& job,
                                             const std::shared_ptr<const Shop>& shop, Progress& progress);

/// A shell started from a school, with what the maker has set beside the stack kept.
shell::Choices restarted(const shell::Choices& from, School school);

}  // namespace jig
