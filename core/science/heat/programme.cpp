#include "core/science/heat/programme.hpp"

#include <algorithm>
#include <cmath>

namespace jig {

double Course::at(double time) const {
    if (corners.empty()) return 293.15;
    if (time <= corners.front().time) return corners.front().T;
    if (time >= corners.back().time) return corners.back().T;
    const auto next = std::upper_bound(corners.begin(), corners.end(), time,
                                       [](double t, const Corner& c) { return t < c.time; });
    const auto before = std::prev(next);
    return before->T + (next->T - before->T) * (time - before->time) / (next->time - before->time);
}

Course warmed_more(Course course, double share, double from) {
    for (auto& c : course.corners) c.T += share * (c.T - from);
    return course;
}

Course steady(double T) {
    return {{{0, T}}};
}

Course course_of(const std::vector<Segment>& programme, double start) {
    Course out = steady(start);
    for (const auto& s : programme) {
        const auto last = out.corners.back();
        if (s.hold) {
            if (s.seconds > 0) out.corners.push_back({last.time + s.seconds, last.T});
        } else if (s.to != last.T) {
            out.corners.push_back({last.time + std::abs(s.to - last.T) / s.rate, s.to});
        }
    }
    return out;
}

}  // namespace jig
