// Where ribs and feet stand under a tool.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/lined.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/stages/back/choices.hpp"
#include "core/stages/edge/flange.hpp"

namespace jig::back {

/// Whether the tool's longer side runs along u.
bool length_is_u(const edge::ToolFace& face);

/// Planes of ribs: first those with normal u, then those with normal v. Which of them cross the length
/// follows from the tool's longer side. Throws InputError for more ribs than a tool has.
std::array<PlaneSet, 2> rib_planes(const Choices& choices, const edge::ToolFace& face);

/// m along which ribs lie on the shell; 0 without ribs.
double rib_length(const Choices& choices, const edge::ToolFace& face);

/// Where planes of both sets cross over the tool: u, v and the height of its outside there, m.
std::vector<Point> crossings_of(const Choices& choices, const edge::ToolFace& face, Progress& progress);

/// Which of the places that could bear a foot do: for each foot of the grid (drawn in from the places' own
/// ends) the nearest one that bears none yet.
std::vector<std::size_t> feet_on(const Choices& choices, const std::vector<Point2>& places);

}  // namespace jig::back
