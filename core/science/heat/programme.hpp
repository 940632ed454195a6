// An oven's programme, and the course of the air that comes of it.
#pragma once

#include <optional>
#include <vector>

namespace jig {

/// To a temperature at a rate, or to stay for a time.
struct Segment {
    bool hold = false;
    double to = 293.15;            ///< K, of a ramp
    double rate = 0.01;            ///< K/s, above 0 whichever way it goes
    double seconds = 0;            ///< of a hold
    std::optional<double> within;  ///< K: the hold's clock waits until the slowest place is as near as that
    bool operator==(const Segment&) const = default;
};

/// Temperature by time: straight between its corners, level before and after them.
struct Course {
    struct Corner {
        double time = 0, T = 293.15;  ///< s, K
        bool operator==(const Corner&) const = default;
    };
    std::vector<Corner> corners;
    [[nodiscard]] double at(double time) const;
    [[nodiscard]] double end() const { return corners.empty() ? 0 : corners.back().time; }
    bool operator==(const Course&) const = default;
};

/// The same course where all its warming over `from` K is greater by that share.
Course warmed_more(Course course, double share, double from);
/// `T` for ever.
Course steady(double T);
/// The course of a programme whose holds wait for nobody, from `start` K on.
Course course_of(const std::vector<Segment>& programme, double start);

}  // namespace jig
