// Tasks in the least time: waits with a least and a most, hands and machines, shifts, work that may break off
// and work that may not.
#pragma once

#include <map>
#include <optional>

#include "core/base/progress.hpp"
#include "core/science/schedule/calendar.hpp"

namespace jig {

struct PlanLink {
    std::size_t task = 0;        ///< that has to be done before
    double least = 0;            ///< s from the end of its wait to this one's start
    std::optional<double> most;  ///< s from there within which this one starts
};

struct PlanTask {
    std::string name;
    double work = 0;  ///< s
    std::map<std::string, int> needs;
    bool breakable = true;  ///< may stop where the shop closes and go on where it opens
    double wait = 0;        ///< s after its end, day and night, before anything may follow
    std::vector<PlanLink> after;
    bool any_time = false;  ///< runs whether the shop is open or not
};

struct PlanRequest {
    WallTime start = 0;
    CalendarRules calendar;
    std::map<std::string, int> resources;
    std::vector<PlanTask> tasks;
    double seconds = 5;  ///< that the search may take
};

struct Planned {
    WallTime from = 0, to = 0;  ///< its work; its wait comes after
    /// s by which it can begin later, all else in this order, the finish kept; none where no time was left to
    /// look for it.
    std::optional<double> slack;
};

struct Plan {
    std::vector<Planned> tasks;
    WallTime finish = 0;  ///< of all work and waits
    WallTime bound = 0;   ///< no plan ends sooner
    bool proved = false;  ///< none ends sooner than this one
    int looked_at = 0;    ///< nodes of the search
};

/// Branch and bound over which of two tasks goes first wherever too many want one thing at a time; between
/// them every task begins as early as waits and shifts let it. Bounds: the longest way through the waits, and
/// the open time that each resource's load takes. Throws InputError for tasks that can never be done;
/// Cancelled. Cost: exponential at worst, cut off after `seconds` with the best plan so far and its bound.
/// Throws InputError, too, where no plan was found in that time.
Plan plan(const PlanRequest& request, Progress& progress);

}  // namespace jig
