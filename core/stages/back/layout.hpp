// Where ribs and feet stand under a tool.
#pragma once

#include "core/science/mesh/lined.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/stages/back/choices.hpp"
#include "core/stages/edge/flange.hpp"

namespace jig::back {

/// Planes of ribs: first those across the length (normal u), then those along it (normal v).
std::array<PlaneSet, 2> rib_planes(const Choices& choices, const edge::ToolFace& face);

/// m along which ribs lie on the shell; 0 without ribs.
double rib_length(const Choices& choices, const edge::ToolFace& face);

/// Feet as shares of the extents along u and v.
std::vector<Point2> feet_at(const Choices& choices);

}  // namespace jig::back
