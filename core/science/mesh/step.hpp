// STEP in and out, by the program jigshell-step (step_reader/), which a broken file may break alone.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/progress.hpp"
#include "core/science/mesh/measure.hpp"

namespace jig {

/// Facets that stray from the true faces by `chord` m at most and turn by 20° at most. STEP carries its own
/// unit. Throws InputError naming `where` for broken files, for files that hold no face and for such that
/// take longer than 8 s and their size at 100 kB/s; Cancelled at any time.
TriangleMesh read_step(std::string_view bytes, const std::string& where, double chord, Progress& progress,
                       TrueRadii* radii = nullptr);

/// The exact turned surface of a profile (radius, height; m) about z as STEP, one face a span.
std::string write_step_turned(const std::vector<Point2>& profile);

/// Lines in space (m) as STEP wires, closed where a line's ends are one point.
std::string write_step_wires(const std::vector<std::vector<Point>>& lines);

/// Flat faces in space (m) as STEP: of each the outer line first, then its holes, run the other way round;
/// every line closed.
std::string write_step_faces(const std::vector<std::vector<std::vector<Point>>>& faces);

}  // namespace jig
