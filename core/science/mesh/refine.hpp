// Smaller faces where a mesh is too coarse for what is asked of it.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

struct Refined {
    TriangleMesh mesh;
    std::vector<std::uint32_t> parent;  ///< by face, the face of the old mesh that it lies in
};

/// Splits edges longer than `longest` m at their middles until none is left; neighbours stay joined, no point
/// moves and areas stay as they were. Throws InputError past ten million faces; Cancelled.
Refined refined(const TriangleMesh& mesh, double longest, Progress& progress);

}  // namespace jig
