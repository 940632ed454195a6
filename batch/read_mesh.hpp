#pragma once

#include "batch/verbs.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/repair.hpp"

namespace jig::batch {

/// The mesh that a verb works on, mended, by its --unit and --chord, and the radii of its file's own faces
/// where it has any. Throws InputError; Cancelled.
Repaired load_mesh(const Arguments& a, Progress& progress, TrueRadii* radii = nullptr);

}  // namespace jig::batch
