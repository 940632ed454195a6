// Splinters of a lined-up mesh taken away: edges turned and short ones closed, lines and outline kept.
#pragma once

#include "core/science/mesh/lined.hpp"

namespace jig {

/// The least angle of a face, rad.
double least_angle(const TriangleMesh& mesh, std::size_t face);

/// Betters faces whose least angle is under `wanted` (rad), where that can be done: an edge between two of
/// them is turned, or a short one closed onto one of its ends. Edges of the outline (rims, borders of
/// patches, folds sharper than 35°) and along the planes stay, points leave neither, and no face turns by
/// more than 15°. What lies between an outline and a plane that meet under less keeps its angle. About linear
/// in the number of such faces.
void relieve(Lined& lined, double wanted);

}  // namespace jig
