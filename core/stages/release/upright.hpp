// Upright sections over a face along a level way: what coats and strips follow.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/slice.hpp"

namespace jig::release {

/// m, how far a face goes along a direction.
struct Reach {
    double low = 1e300, high = -1e300;
    [[nodiscard]] double middle() const { return (low + high) / 2; }
};
Reach reach_of(const TriangleMesh& face, const Point& way);

/// The plane of sections along `way`, whose own axis is level and square to it.
Frame plane_along(const Frame& frame, const Point& way);

/// The lines of each section, at m along plane.w; those that close end where they begin. Cancelled.
std::vector<std::vector<Loop>> lines_along(const TriangleMesh& face, const Topology& topology,
                                           const Frame& plane, const std::vector<double>& at,
                                           Progress& progress);
double length_of_line(const Loop& line);  ///< m, not closed

}  // namespace jig::release
