#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/stages/shape/choices.hpp"

namespace jig::shape {

/// The smooth closed line through the outline's points (periodic cubic spline by chord length), as points
/// about `spacing` m apart, anticlockwise. Throws InputError for fewer than three points.
Loop smooth_outline(const std::vector<std::array<double, 2>>& points, double spacing);

/// Points for a tray's outline through which its smooth line follows `loop`: as few as keep within
/// `tolerance` m, 200 at most; `stray` m is how far it still is. The outline's middle comes to the origin.
struct FittedOutline {
    std::vector<std::array<double, 2>> points;
    double stray = 0;
};
FittedOutline fitted_outline(const Loop& loop, double tolerance);

/// The tray's outer face, open at the mouth, outward normals. Wall, edge and recess are rings parallel to the
/// outline; the crown is filled with triangles. Throws InputError where they do not fit into the outline.
TriangleMesh tray_mesh(const Tray& tray, Progress& progress);

}  // namespace jig::shape
