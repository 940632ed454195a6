// Which pulls free a part together.
#pragma once

#include <optional>

#include "core/base/progress.hpp"
#include "core/science/mesh/rays.hpp"

namespace jig {

inline constexpr double kFreed = 0.002;  ///< of the area may stay locked and still count as freed

/// The set of at most `count` unit pulls that frees most, drags least and draws least deep. Tried in pairs
/// and then one by one on places picked by area, from the axes, the part's main axes, its largest facings,
/// their cross products and an even spread; locked area is dearest, then drag, then a deep draw. Fewer come
/// back where one more would free or ease too little. Throws Cancelled.
std::vector<Point> pulls_together(const TriangleMesh& mesh, const RayMesh& rays, int count, double drag_angle,
                                  Progress& progress);

/// The pull that frees most of `piece` among those that lead away from a plane facing `straight` (unit), the
/// whole part of `rays` in the way; none where no direction does. Throws Cancelled.
std::optional<Point> pull_beside(const TriangleMesh& piece, const RayMesh& rays, const Point& straight,
                                 double drag_angle, Progress& progress);

}  // namespace jig
