// Even triangles of a chosen size in place of whatever a drawing program left.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

struct Remeshed {
    TriangleMesh mesh;
    std::vector<int> patch;  ///< by face, as it was given
};

/// The same surface in about equilateral triangles with edges of about `edge` m: CGAL's isotropic remeshing
/// (Botsch & Kobbelt 2004). Rims, borders between patches and folds sharper than 35° stay where they are.
/// `patch` is by face. Throws InputError for a surface whose faces do not join into one; Cancelled between
/// its rounds.
Remeshed remeshed(const TriangleMesh& mesh, const std::vector<int>& patch, double edge, Progress& progress);

}  // namespace jig
