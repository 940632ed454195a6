// Means over small patches of a surface.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// By face, the mean of `by_face` over those faces about it, joined to it by points, whose middles lie within
/// `reach` m and that are of its kind (all are where `kind` is empty). Weighted by area.
std::vector<double> patch_means(const TriangleMesh& mesh, const std::vector<double>& by_face, double reach,
                                const std::vector<char>& kind = {});

}  // namespace jig
