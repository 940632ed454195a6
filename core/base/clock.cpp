#include "core/base/clock.hpp"

#include <fmt/format.h>

#include <array>
#include <chrono>
#include <cmath>
#include <ctime>

#include "core/base/times.hpp"

namespace jig {
namespace {

std::tm parts_of(double at) {
    const auto seconds = static_cast<std::time_t>(std::floor(at));
    std::tm parts{};
    localtime_r(&seconds, &parts);
    return parts;
}

/// s since 1970 of a time in this zone.
double local(int year, unsigned month, unsigned day, int minutes) {
    const auto as = [&](int summer) {
        std::tm parts{};
        parts.tm_year = year - 1900;
        parts.tm_mon = static_cast<int>(month) - 1;
        parts.tm_mday = static_cast<int>(day);
        parts.tm_hour = minutes / 60;
        parts.tm_min = minutes % 60;
        parts.tm_isdst = summer;
        return static_cast<double>(std::mktime(&parts));
    };
    // Where the clock goes back an hour comes twice: both readings give the wanted time, and the later is
    // taken.
    double best = as(-1);
    for (const int summer : {0, 1}) {
        const double tried = as(summer);
        const auto got = parts_of(tried);
        if (got.tm_mday == static_cast<int>(day) && got.tm_hour * 60 + got.tm_min == minutes)
            best = std::max(best, tried);
    }
    return best;
}

struct Digits {
    std::string_view text;
    std::size_t at = 0;
    [[nodiscard]] bool done() const { return at == text.size(); }
    /// So many digits as a number; -1 where they are none.
    int number(std::size_t count) {
        if (text.size() - at < count) return -1;
        int out = 0;
        for (std::size_t i = 0; i < count; ++i, ++at) {
            if (text[at] < '0' || text[at] > '9') return -1;
            out = 10 * out + (text[at] - '0');
        }
        return out;
    }
    bool sign(std::string_view any) {
        if (done() || any.find(text[at]) == std::string_view::npos) return false;
        ++at;
        return true;
    }
};

}  // namespace

std::optional<Moment> read_moment(std::string_view text) {
    Digits in{text};
    const int year = in.number(4);
    if (year < 1970 || !in.sign("-")) return {};
    const int month = in.number(2);
    if (!in.sign("-")) return {};
    const int day = in.number(2);
    if (month < 1 || day < 1) return {};
    const std::chrono::year_month_day date{std::chrono::year(year),
                                           std::chrono::month(static_cast<unsigned>(month)),
                                           std::chrono::day(static_cast<unsigned>(day))};
    if (!date.ok()) return {};
    const auto m = static_cast<unsigned>(month), d = static_cast<unsigned>(day);
    if (in.done()) {
        const auto next = std::chrono::year_month_day(std::chrono::sys_days(date) + std::chrono::days(1));
        return Moment{local(static_cast<int>(next.year()), static_cast<unsigned>(next.month()),
                            static_cast<unsigned>(next.day()), 0),
                      false};
    }
    if (!in.sign("T ")) return {};
    const int hour = in.number(2);
    if (!in.sign(":")) return {};
    const int minute = in.number(2);
    if (hour < 0 || hour > 23 || minute < 0 || minute > 59) return {};
    if (in.done()) return Moment{local(year, m, d, 60 * hour + minute), true};
    double offset = 0;
    if (!in.sign("Z")) {
        const bool west = in.sign("-");
        if (!west && !in.sign("+")) return {};
        const int hours = in.number(2);
        if (!in.sign(":")) return {};
        const int minutes = in.number(2);
        if (hours < 0 || hours > 14 || minutes < 0 || minutes > 59) return {};
        offset = (west ? -1 : 1) * (3600.0 * hours + 60.0 * minutes);
    }
    if (!in.done()) return {};
    const double midnight =
        kDay * static_cast<double>(std::chrono::sys_days(date).time_since_epoch().count());
    return Moment{midnight + 3600.0 * hour + 60.0 * minute - offset, true};
}

std::string write_moment(double at) {
    const auto t = parts_of(at);
    const long minutes = t.tm_gmtoff / 60;
    return fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}{}{:02}:{:02}", t.tm_year + 1900, t.tm_mon + 1,
                       t.tm_mday, t.tm_hour, t.tm_min, minutes < 0 ? '-' : '+', std::abs(minutes) / 60,
                       std::abs(minutes) % 60);
}

std::string moment_words(double at, double now) {
    static constexpr std::array months{"January", "February", "March",     "April",   "May",      "June",
                                       "July",    "August",   "September", "October", "November", "December"};
    const auto t = parts_of(at);
    const auto year =
        t.tm_year == parts_of(now).tm_year ? std::string() : fmt::format(" {}", t.tm_year + 1900);
    return fmt::format("{} {}{} {:02}:{:02}", t.tm_mday, months[static_cast<std::size_t>(t.tm_mon)], year,
                       t.tm_hour, t.tm_min);
}

}  // namespace jig
