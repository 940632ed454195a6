// Means over small patches of a surface.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// The means of several fields at once, `by_face` with a row a face and a column a field: by face, the mean
/// over those faces about it, joined to it by points, whose middles lie within `reach` m and that are of its
/// kind (all are where `kind` is empty). Weighted by area. Patches cost far more than fields: ask for all at
/// once.
Eigen::ArrayXXd patch_means(const TriangleMesh& mesh, const Eigen::ArrayXXd& by_face, double reach,
                            const std::vector<char>& kind = {});

}  // namespace jig
