// Means over small patches of a surface.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// The greatest mean over a patch, of several fields at once: `by_face` with a row a face and a column a
/// field. The patch about a face is those faces, joined to it by points, whose middles lie within `reach` m;
/// of faces for which `among` is 0 none counts (all do where it is empty). Weighted by area; 0 where no face
/// counts. Patches that cannot come up to the greatest are not asked: where a field has a few peaks it takes
/// little more than O(n) for n faces, O(n) for each face of a patch where it is even.
Eigen::ArrayXd greatest_patch_means(const TriangleMesh& mesh, const Eigen::ArrayXXd& by_face, double reach,
                                    const std::vector<char>& among = {});

}  // namespace jig
