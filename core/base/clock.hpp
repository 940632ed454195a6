// Moments as a maker writes them and as seconds, with this machine's own time zone between.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace jig {

/// A moment that was noted: s since 1970 (UTC). Of a day without a time it is the day's end, and `timed` is
/// false.
struct Moment {
    double at = 0;
    bool timed = false;
    bool operator==(const Moment&) const = default;
};

/// Reads "2026-05-31", "2026-05-31 14:30", "2026-05-31T14:30" and the last with an offset from UTC behind it
/// ("+02:00", "Z"). Without one it is this zone's time; an hour that the clock repeats is taken as the later,
/// one that it leaps over as the moment of the leap. Nothing where the text is no such moment.
std::optional<Moment> read_moment(std::string_view text);

/// "2026-05-31T14:30+02:00": this zone's time with its offset, to the minute, which no change of clock blurs.
std::string write_moment(double at);

/// "31 May 14:30", with the year where it is not `now`'s.
std::string moment_words(double at, double now);

}  // namespace jig
