// Where on a face a place lies, in words.
#pragma once

#include <algorithm>
#include <string>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Seen along the pull, by thirds of the box from `low` to `high`: "ahead left", "middle".
inline std::string whereabouts(const Point& p, const Point& low, const Point& high) {
    const auto third = [&](int axis) {
        const double share = (p[axis] - low[axis]) / std::max(1e-9, high[axis] - low[axis]);
        return share > 0.67 ? 1 : share < 0.33 ? -1 : 0;
    };
    const std::string length = third(0) > 0 ? "ahead" : third(0) < 0 ? "behind" : "";
    const std::string width = third(1) > 0 ? "left" : third(1) < 0 ? "right" : "";
    if (length.empty() && width.empty()) return "middle";
    return length + (length.empty() || width.empty() ? "" : " ") + width;
}

}  // namespace jig
