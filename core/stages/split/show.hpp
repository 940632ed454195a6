// Show surface, and how a split says what it found.
#pragma once

#include "core/stages/split/findings.hpp"

namespace jig::split {

/// What the maker has painted, in the order of painting.
std::vector<Painted> painted(const Choices& choices);

/// By face: what is seen from above when the part is used (less steep than `show_above` against the pull),
/// and what is painted so by hand; empty for none.
std::vector<char> show_faces(const TriangleMesh& mesh, const Point& pull, const Choices& choices);

/// m of the seams that cross show surface: each step counts where the face nearest its middle is shown.
double length_on_show(const TriangleMesh& mesh, const std::vector<char>& show,
                      const std::vector<Line>& seams);

/// The figures of findings that are complete but for them.
void add_figures(const Choices& choices, const Asked& asked, Findings& out);

}  // namespace jig::split
