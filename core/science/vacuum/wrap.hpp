// A film all round a tool, face and back: how long it is both ways.
#pragma once

#include "core/science/vacuum/girths.hpp"

namespace jig {

/// What the tool has behind its face, against frame.w.
struct Behind {
    double wall = 0;     ///< m thick
    double back = 0;     ///< m that a back stands out from the wall
    bool boxed = false;  ///< it stands on a flat underside: a back of ribs, or a block
    bool operator==(const Behind&) const = default;
};

/// Developed lengths round the whole of a tool.
struct Round {
    double along = 0, across = 0;  ///< m, the longest sections along frame.u and across it
    std::vector<Point> line;       ///< round the longest across, closed
    bool operator==(const Round&) const = default;
};

/// `mesh` is the tool's face with its flange, open at its edge; frame.w is the pull. A section's film lies on
/// all of the face. Behind a wall alone it lies on its back, which is as long as the face; under a box it
/// runs down to the underside and straight across. What a wall's back gains or loses by its bends, by their
/// angle times `wall`, is left out. Throws InputError for a surface without a rim; Cancelled.
Round round_tool(const TriangleMesh& mesh, const Topology& topology, const Frame& frame, const Behind& behind,
                 Progress& progress);

/// m, radius of the arc in which a film spans `gap` m between two ribs, longer than the way by the share
/// `ease`; past half a turn it hangs by half the gap. Infinite without ease.
double radius_of_span(double gap, double ease);

}  // namespace jig
