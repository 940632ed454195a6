// What a film is laid over, seen in flat sections: its rim, and its girths across either way.
#pragma once

#include "core/science/mesh/slice.hpp"

namespace jig {

/// The rim that the film is stuck round: the longest, seen along the pull, anticlockwise.
struct FilmRim {
    std::vector<Point> line;
    Loop flat;
    double height = 0;  ///< m along the pull, mean
};
/// Throws InputError for a surface without a rim.
FilmRim film_rim(const TriangleMesh& mesh, const Topology& topology, const Frame& frame);

struct Girth {
    double length = 0;  ///< m, developed
    double depth = 0;   ///< m from the rim's height to the deepest place of the section
    Section cut;        ///< x along the pull, y along frame.w × `axis` turned with it: see `girth_frame`
};
/// The frame of sections across `axis`.
inline Frame girth_frame(const Frame& frame, const Point& axis) {
    return {frame.w, axis.cross(frame.w), axis};
}
/// Sections across `axis`, a way in the plane of the rim: through the deepest places and at 61 places
/// between. Cancelled.
std::vector<Girth> film_girths(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                               const Point& axis, double rim_height, Progress& progress);

}  // namespace jig
