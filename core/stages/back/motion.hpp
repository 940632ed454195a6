// What a face does as a whole, to be told from what bends it.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::back {

/// The rigid motion (and, for warming, the even growth) that fits displacements best over points with
/// weights.
struct Motion {
    Point middle = Point::Zero(), shift = Point::Zero(), turn = Point::Zero();
    double growth = 0;
    [[nodiscard]] Point of(const Point& place) const {
        const Point r = place - middle;
        return shift + turn.cross(r) + growth * r;
    }
};
Motion motion_of(const std::vector<Point>& places, const std::vector<Point>& moves,
                 const std::vector<double>& weights, bool growth);

}  // namespace jig::back
