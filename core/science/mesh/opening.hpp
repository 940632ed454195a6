// The opening of a mould seen along its pull, and its skin in sections across.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/draft.hpp"
#include "core/science/mesh/outline.hpp"

namespace jig {

/// The largest closed edge of the moulded faces, seen along the pull; where there is none (a ball), the
/// widest of 64 sections across the pull.
/// Anticlockwise, in the frame's flat coordinates; `foot` is where the body begins along frame.w, m.
/// Cancelled.
Loop rim_seen(const TriangleMesh& mesh, const Topology& topology, const DraftMap& map, const Frame& frame,
              double foot, Progress& progress);

/// Diameter of the largest circle that goes into an outline, to about half a per cent.
double widest_circle(const Loop& outline);

struct SkinSections {
    double width = 0;   ///< m, developed
    double second = 0;  ///< m³, ∫(h − mean)² ds: what the shape adds to the skin's stiffness
};
/// Developed width and second moment (per unit thickness) of the skin in sections across its longest side:
/// means of five over its middle. Cancelled.
SkinSections skin_sections(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                           Progress& progress);

}  // namespace jig
