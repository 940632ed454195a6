// When a shop is open: shifts by weekday, holidays, nights that run across midnight.
#pragma once

#include <array>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace jig {

/// Wall-clock time, s since 1970-01-01T00:00 of the shop's own clock. A change of the clock is not counted.
using WallTime = double;

/// "2027-03-01" or "2027-03-01T08:00"; throws InputError naming `where`.
WallTime read_wall_time(std::string_view text, const std::string& where);
/// "2027-03-01T08:00", with seconds where there are any.
std::string write_wall_time(WallTime at);

struct CalendarRules {
    std::set<int> days{1, 2, 3, 4, 5};  ///< Monday is 1, Sunday 7
    /// s after midnight, [from, to); one that ends before it begins runs on into the next morning.
    std::vector<std::array<double, 2>> shifts{{8 * 3600.0, 16 * 3600.0}};
    std::set<long> holidays;  ///< days since 1970-01-01 on which no shift begins
};

class Calendar {
  public:
    /// From `from` on, as far as it is asked for. Throws InputError where no shift ever begins.
    Calendar(const CalendarRules& rules, WallTime from);

    /// The first moment at or after `t` at which it is open.
    [[nodiscard]] WallTime open_from(WallTime t) const;
    /// The same with `length` s of one stretch left; the longest stretch has to hold them.
    [[nodiscard]] WallTime room_from(WallTime t, double length) const;
    /// When `work` s from `t` on are done, closed times left out.
    [[nodiscard]] WallTime after_work(WallTime t, double work) const;
    /// The latest moment from which `work` s are done by `t`, not before it began.
    [[nodiscard]] WallTime before_work(WallTime t, double work) const;
    /// Open seconds of [a, b).
    [[nodiscard]] double open_between(WallTime a, WallTime b) const;
    [[nodiscard]] double longest() const { return longest_; }

  private:
    struct Stretch {
        WallTime from, to;
    };
    /// Index of the first stretch that ends after `t`, laid out that far.
    [[nodiscard]] std::size_t at(WallTime t) const;
    void lay(std::size_t count) const;
    void lay_day() const;

    CalendarRules rules_;
    WallTime from_;
    mutable long day_;
    mutable std::vector<Stretch> open_;
    double longest_ = 0;
};

}  // namespace jig
