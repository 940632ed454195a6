// The part's face in even triangles, as resin is followed over it and loads are tried on it.
#pragma once

#include "core/base/progress.hpp"
#include "core/base/shared.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/part/zone.hpp"

namespace jig::part {

/// A surface in even triangles that keep their patches.
struct Evenly {
    TriangleMesh mesh;
    std::vector<int> patch;
};
/// A quick or a fine one; on the triangles that it came in, split, where it does not hang together. Throws
/// InputError past ten million triangles; Cancelled.
Evenly evenly(const TriangleMesh& face, const std::vector<int>& patch, bool fine, Progress& progress);

/// None where there is no tool.
Shared<TriangleMesh> even_face(const edge::ToolFace& tool, bool fine, Progress& progress);

/// The highest place of the face under a spot, and a face of the mesh that it lies on; beside the face, the
/// point nearest to it as both are seen along the pull. The middle is that of the face's box.
struct FacePlace {
    Point at = Point::Zero();
    std::size_t face = 0;
    bool beside = false;
};
FacePlace under(const TriangleMesh& mesh, const Frame& frame, const Spot& spot);

}  // namespace jig::part
