#include "core/science/schedule/calendar.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>
#include <optional>

#include "core/base/error.hpp"
#include "core/base/times.hpp"

namespace jig {
namespace {

/// Days without a shift after which none is looked for: a hundred years.
constexpr long kMostDays = 36600;

std::optional<int> number(std::string_view text) {
    int out = 0;
    const auto [end, fault] = std::from_chars(text.data(), text.data() + text.size(), out);
    return fault == std::errc() && end == text.data() + text.size() ? std::optional(out) : std::nullopt;
}

}  // namespace

WallTime read_wall_time(std::string_view text, const std::string& where) {
    const auto wrong = [&]() -> InputError {
        return {where, "\"" + std::string(text) + "\" is no time", "write it as 2027-03-01T08:00"};
    };
    const bool timed = text.size() == 16 || text.size() == 19;
    if ((!timed && text.size() != 10) || text[4] != '-' || text[7] != '-' ||
        (timed && text[10] != 'T' && text[10] != ' ') || (timed && text[13] != ':') ||
        (text.size() == 19 && text[16] != ':'))
        throw wrong();
    const auto y = number(text.substr(0, 4)), m = number(text.substr(5, 2)), d = number(text.substr(8, 2));
    const auto hour = timed ? number(text.substr(11, 2)) : 0, minute = timed ? number(text.substr(14, 2)) : 0,
               second = text.size() == 19 ? number(text.substr(17, 2)) : 0;
    if (!y || !m || !d || !hour || !minute || !second || *m < 1 || *d < 1 || *hour < 0 || *hour > 23 ||
        *minute < 0 || *minute > 59 || *second < 0 || *second > 59)
        throw wrong();
    const std::chrono::year_month_day date{std::chrono::year(*y),
                                           std::chrono::month(static_cast<unsigned>(*m)),
                                           std::chrono::day(static_cast<unsigned>(*d))};
    if (!date.ok() || *y < 1970) throw wrong();
    const auto days = std::chrono::sys_days(date).time_since_epoch().count();
    return static_cast<double>(days) * kDay + 3600.0 * *hour + 60.0 * *minute + *second;
}

std::string write_wall_time(WallTime at) {
    const auto whole = static_cast<long long>(std::llround(at));
    const auto days = static_cast<int>(whole / 86400);
    const auto rest = static_cast<int>(whole % 86400);
    const std::chrono::year_month_day date{std::chrono::sys_days(std::chrono::days(days))};
    auto out = fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}", static_cast<int>(date.year()),
                           static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()),
                           rest / 3600, rest / 60 % 60);
    if (rest % 60 != 0) out += fmt::format(":{:02}", rest % 60);
    return out;
}

Calendar::Calendar(const CalendarRules& rules, WallTime from)
    // A shift that began yesterday may still run.
    : rules_(rules), from_(from), day_(static_cast<long>(std::floor(from / kDay)) - 1) {
    std::sort(rules_.shifts.begin(), rules_.shifts.end());
    if (rules_.shifts.empty() || rules_.days.empty())
        throw InputError("calendar", "no shift ever begins", "give it days and shifts");
    lay(64);
    // Which stretches join over the week is known by now.
    for (const auto& s : open_) longest_ = std::max(longest_, s.to - s.from);
}

void Calendar::lay_day() const {
    const long day = day_++;
    const int weekday = static_cast<int>(((day + 3) % 7 + 7) % 7) + 1;  // 1970-01-01 was a Thursday
    if (!rules_.days.contains(weekday) || rules_.holidays.contains(day)) return;
    for (const auto& [from, to] : rules_.shifts) {
        const double midnight = static_cast<double>(day) * kDay;
        Stretch s{midnight + from, midnight + to + (to <= from ? kDay : 0)};
        s.from = std::max(s.from, from_);
        if (s.to <= s.from) continue;
        // What meets or overlaps is one stretch.
        if (!open_.empty() && s.from <= open_.back().to)
            open_.back().to = std::max(open_.back().to, s.to);
        else
            open_.push_back(s);
    }
}

void Calendar::lay(std::size_t count) const {
    // One more than asked for: the last may still grow.
    const long end = day_ + kMostDays;
    while (open_.size() < count + 1 && day_ < end) {
        const auto had = open_.size();
        lay_day();
        // A shop that never closes is one stretch without end.
        if (open_.size() == had && had > 0 && day_ > end - kMostDays + 800 &&
            open_.back().to > from_ + 700 * kDay) {
            open_.back().to = from_ + 1e11;
            return;
        }
    }
    if (open_.empty()) throw InputError("calendar", "no shift ever begins", "give it days and shifts");
    if (open_.size() < count + 1 && open_.back().to < from_ + 9e10)
        throw InputError("calendar", "it ends before the work does", "take holidays out, or add shifts");
}

std::size_t Calendar::at(WallTime t) const {
    while (open_.back().to <= t) lay(open_.size() + 64);
    return static_cast<std::size_t>(std::upper_bound(open_.begin(), open_.end(), t,
                                                     [](WallTime v, const Stretch& s) { return v < s.to; }) -
                                    open_.begin());
}

WallTime Calendar::open_from(WallTime t) const {
    return std::max(t, open_[at(t)].from);
}

WallTime Calendar::room_from(WallTime t, double length) const {
    for (auto k = at(t);; ++k) {
        if (k + 2 > open_.size() && open_.back().to < from_ + 9e10) lay(open_.size() + 64);
        const double start = std::max(t, open_[k].from);
        if (open_[k].to - start >= length - 1e-6) return start;
    }
}

WallTime Calendar::after_work(WallTime t, double work) const {
    if (work <= 0) return t;
    for (auto k = at(t);; ++k) {
        if (k + 2 > open_.size() && open_.back().to < from_ + 9e10) lay(open_.size() + 64);
        const double start = std::max(t, open_[k].from), room = open_[k].to - start;
        if (room >= work - 1e-6) return start + work;
        work -= room;
    }
}

WallTime Calendar::before_work(WallTime t, double work) const {
    auto k = std::min(at(t), open_.size() - 1);
    for (;; --k) {
        const double end = std::min(t, open_[k].to), room = end - open_[k].from;
        if (room > 0) {
            if (room >= work - 1e-9) return end - work;
            work -= room;
        }
        if (k == 0) return open_.front().from;
    }
}

double Calendar::open_between(WallTime a, WallTime b) const {
    double out = 0;
    if (b <= a) return out;
    const auto last = at(b);
    for (auto k = at(a); k <= last; ++k)
        out += std::max(0.0, std::min(b, open_[k].to) - std::max(a, open_[k].from));
    return out;
}

}  // namespace jig
