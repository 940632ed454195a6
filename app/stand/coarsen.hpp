// A coarser picture of the same surfaces, for while the stand is being turned.
#pragma once

#include <vector>

#include "app/stand/scene.hpp"

namespace jig::app {

/// Above this many triangles the stand drops detail while it is turned: llvmpipe, the slowest that draws,
/// keeps its 20 frames a second below it.
inline constexpr std::size_t kFluid = 40'000;
inline constexpr int kTurningCells = 48;

/// Corners that fall into the same cell of a grid become one: `cells` of them along the longest side. What
/// collapses to a line or is there twice already is left out. Colours, patterns and normals stay the
/// corners' own. Vertex clustering after Rossignac & Borrel 1993.
[[nodiscard]] std::vector<Corner> coarsened(const std::vector<Corner>& corners, int cells);

}  // namespace jig::app
