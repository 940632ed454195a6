// One job's shell in every school, each worked out to the end and set beside the others.
#pragma once

#include "core/job/trial.hpp"

namespace jig {

struct SchoolPlan {
    School school = School::glass_epoxy;
    shell::Choices shell;
    std::vector<Figure> sums;  ///< the same keys for every school
    std::string untried;   ///< why the tool was not solved, whose sums are missing then; empty where it was
    std::string obstacle;  ///< why it cannot be worked out; empty where it can
};

/// Works the whole job out with every school's starting stack (the job's own stack for the school that it
/// has), and tries each tool out on the quick mesh. Throws InputError where the job has no tool; Cancelled.
std::vector<SchoolPlan> schools_side_by_side(const Job& job, const Findings& findings, const Shop& shop,
                                             Progress& progress);

/// A shell started from a school, with what the maker has set beside the stack kept.
shell::Choices restarted(const shell::Choices& from, School school);

}  // namespace jig
