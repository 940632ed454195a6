// A piece of a face laid flat with as little stretch as there can be: what bends but does not shear.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

struct Flattened {
    std::vector<Point2> flat;     ///< m, for each point of the mesh; the face's outside looks up
    std::vector<double> stretch;  ///< by face, the larger of both principal stretches' |σ − 1|
    double most = 0;              ///< of all faces
    double usual = 0;             ///< root mean square over the area
    bool folded = false;          ///< a face came out turned over: it cannot be laid flat in one piece
};

/// As rigid as possible (Liu, Zhang, Xu, Gotsman and Gortler 2008), begun with the least squares conformal
/// map (Lévy, Petitjean, Ray and Maillot 2002), which is exact for what is developable. Holes are left as
/// they come. The mesh is one piece with a rim. Throws InputError where it is not, or has no area; Cancelled.
Flattened flatten(const TriangleMesh& mesh, Progress& progress);

/// How a direction, seen on one of its triangles, goes where that is laid flat; nought where it has no area.
Point2 laid_flat(const TriangleMesh& mesh, const Flattened& flat, std::size_t face, const Point& way);

}  // namespace jig
