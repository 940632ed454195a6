#include "core/science/schedule/timetable.hpp"
#include "core/base/times.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jig {
namespace {

/// When the shift began that is on at `t`, or the last one before; a night shift goes on past midnight.
double shift_start(double t, const Shift& shift) {
    // Less than a tenth of a millisecond before a shift is its start: sums of days are rounded.
    return std::floor((t - shift.start) / kDay + 1e-9) * kDay + shift.start;
}

/// The first moment at or after `t` at which somebody is at work.
double at_work(double t, const Shift& shift) {
    const double first = shift_start(t, shift);
    return t - first >= shift.length - 1 ? first + kDay : t;
}

double shift_end(double t, const Shift& shift) {
    return shift_start(t, shift) + shift.length;
}

double next_morning(double t, const Shift& shift) {
    return shift_start(t, shift) + kDay;
}

/// Length of the run from `first` that must not be parted: the tasks chained by windows, with their waits.
double chain_length(const std::vector<Task>& tasks, std::size_t first) {
    double sum = tasks[first].work;
    for (auto i = first; i + 1 < tasks.size() && tasks[i].no_later > 0; ++i)
        sum += tasks[i].wait + tasks[i + 1].work;
    return sum;
}

}  // namespace

Timetable timetable(const std::vector<Task>& tasks, const Shift& shift) {
    Timetable out;
    double now = shift.start, due = 0;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        const auto& task = tasks[i];
        double start = at_work(now, shift);
        const bool follows_window = i > 0 && tasks[i - 1].no_later > 0;
        const double needs = follows_window ? task.work : chain_length(tasks, i);
        const bool together = !task.can_break || task.no_later > 0;
        if (together && start + needs > shift_end(start, shift) + 1 && needs <= shift.length + 1)
            start = next_morning(start, shift);
        if (follows_window && start > due + 1) out.missed.push_back(i - 1);
        double left = task.work;
        double at = start;
        do {
            at = at_work(at, shift);
            const double step = std::min(left, shift_end(at, shift) - at);
            out.bookings.push_back({i, at, at + step});
            at += step;
            left -= step;
        } while (left > 1);
        now = at + task.wait;
        due = now + task.no_later;
        out.finished = std::max(out.finished, now);
    }
    out.days = static_cast<int>(std::ceil(out.finished / kDay - 1e-9));
    return out;
}

std::string clock_words(double seconds) {
    // Rounded first: half a minute before midnight is the next day's first.
    const double whole = 60 * std::round(seconds / 60), day = std::floor(whole / kDay);
    const int minutes = static_cast<int>(std::lround((whole - day * kDay) / 60));
    return fmt::format("day {}, {:02}:{:02}", static_cast<int>(day) + 1, minutes / 60, minutes % 60);
}

}  // namespace jig
