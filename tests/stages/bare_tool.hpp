// A face as a tool, and nothing round it.
#pragma once

#include "core/stages/edge/flange.hpp"

namespace fixtures {

inline jig::edge::ToolFace bare_tool(const jig::TriangleMesh& mesh, const jig::Frame& frame) {
    jig::edge::ToolFace tool;
    tool.frame = frame;
    tool.rimmed.mesh = mesh;
    tool.rimmed.patch.assign(mesh.triangles.size(), 0);
    return tool;
}

}  // namespace fixtures
