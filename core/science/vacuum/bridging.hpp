// Where a film that is too short spans a hollow in place of lying in it.
#pragma once

#include "core/science/vacuum/film.hpp"
#include "core/science/vacuum/girths.hpp"

namespace jig {

/// A film over one section of a face. Vacuum pulls it tight by p × radius, alike all along as far as nothing
/// holds it, so that wherever it lies free it bends by one and the same radius: it lies as a disc of that
/// radius would roll.
struct Span {
    bool reaches = true;  ///< whether it is as long as a string drawn tight from rim to rim
    double radius = 0;    ///< m; 0 where it lies everywhere
    double gap = 0;       ///< m between film and face, the largest
    Point2 at{0, 0};      ///< of the face, there
    Loop line;            ///< the film from rim to rim
};

/// `face` runs from one end of the film to the other, its air on the left; the film goes on level from there
/// on. `length` is what there is of it between the two, m. Its own stretch is left out.
Span span_over(const Loop& face, double length);

/// The widest gap under a film over a hollow face.
struct Bridge {
    bool reaches = true;
    bool along = false;   ///< whether the section runs along the sheet's length, else across
    double short_by = 0;  ///< m that the film lacks there
    double radius = 0;    ///< m
    double gap = 0;       ///< m
    Point at{0, 0, 0};    ///< of the face
    std::vector<Point> line;
    bool operator==(const Bridge&) const = default;
};

/// Judges `film` in its sections along and across that want most; none where it lies everywhere. What the
/// film could borrow from beside the section, and its stretch, are left out. Throws as `film_over`.
std::optional<Bridge> bridge_under(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                                   const FilmRules& rules, const Film& film, Progress& progress);

}  // namespace jig
