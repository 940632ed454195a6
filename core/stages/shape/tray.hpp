#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/stages/shape/choices.hpp"

namespace jig::shape {

/// The smooth closed line through the outline's points (periodic cubic spline by chord length), as points
/// about `spacing` m apart, anticlockwise. Throws InputError for fewer than three points.
Loop smooth_outline(const std::vector<std::array<double, 2>>& points, double spacing);

/// The tray's outer face, open at the mouth, outward normals. Wall, edge and recess are rings parallel to the
/// outline; the crown is filled with triangles. Throws InputError where they do not fit into the outline.
TriangleMesh tray_mesh(const Tray& tray, Progress& progress);

}  // namespace jig::shape
