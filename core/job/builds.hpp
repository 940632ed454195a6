// One job's part in every build that is kept, each worked out to the end and set beside the others.
#pragma once

#include "core/job/evaluate.hpp"

namespace jig {

struct BuildPlan {
    part::Build build;
    bool now = false;          ///< the part is made so now
    std::vector<Figure> sums;  ///< the same keys for every build, but for those that need a load
    std::string untried;       ///< why what it carries was not tried; empty where it was, or nothing is asked
    std::string obstacle;      ///< why it cannot be worked out; empty where it can
};

/// The part as it is now (under the name that it is kept by, if it is) and every build that is kept, in their
/// order; what it carries is tried on the quick mesh. Throws Cancelled.
std::vector<BuildPlan> builds_side_by_side(JobBoard& board, const Job& job,
                                           const std::shared_ptr<const Shop>& shop, Progress& progress);

}  // namespace jig
