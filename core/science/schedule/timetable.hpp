// A shop calendar: work falls into shifts, cures go on overnight.
#pragma once

#include <string>
#include <vector>

namespace jig {

/// One piece of work, done after the one before it.
struct Task {
    std::string stage;  ///< where it is decided
    std::string name;
    double work = 0;  ///< s that hands are needed
    int people = 1;
    double wait = 0;        ///< s that must pass after it (dry, gel, cure); runs day and night
    bool can_break = true;  ///< may be left at the end of a shift and taken up again
    double no_later = 0;  ///< s after the end of the wait by which the next task must start; 0 for never mind
    bool operator==(const Task&) const = default;
};

/// A stretch of one task within one shift. Times in s from midnight of the first day.
struct Booking {
    std::size_t task = 0;
    double from = 0, to = 0;
    bool operator==(const Booking&) const = default;
};

struct Shift {
    double start = 8 * 3600.0;  ///< s after midnight
    double length = 8 * 3600.0;
    bool operator==(const Shift&) const = default;
};

struct Timetable {
    std::vector<Booking> bookings;
    double finished = 0;              ///< s from midnight of the first day, last wait included
    int days = 0;                     ///< calendar days touched
    std::vector<std::size_t> missed;  ///< tasks whose follower starts later than its window allows
    bool operator==(const Timetable&) const = default;
};

/// Books each task as early as shifts and waits allow; what cannot be left half done and does not fit into
/// what is left of the day starts on the next morning. A task that must not wait for its follower is held
/// back to the next morning when both do not fit into one shift. Work longer than a shift that may not break
/// is broken all the same.
Timetable timetable(const std::vector<Task>& tasks, const Shift& shift);

/// "day 2, 09:30"
std::string clock_words(double seconds);

}  // namespace jig
