// A value over a surface in bands of one ramp.
#pragma once

#include <vector>

#include "app/theme/ink.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::app {

/// Paper through petrol to ink.
QColor ramp(const Ink& ink, double share);

/// A corner of a face with its value.
struct Spot {
    Point at, normal;
    double value;
};

/// The place between two corners whose value is `level`.
Spot between(const Spot& a, const Spot& b, double level);

/// What of a polygon lies above a level, or below it.
std::vector<Spot> kept(const std::vector<Spot>& polygon, double level, bool above);

}  // namespace jig::app
