// The tool as finite elements: shell, flange and back in one structure.
#pragma once

#include "core/science/shell/model.hpp"
#include "core/stages/back/layout.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::back {

/// What of the tool a face of the model belongs to.
enum class ToolPart : char { face, flange, rib };

struct Tool {
    shell_fe::Model model;              ///< upright: length, width and pull are x, y, z
    std::vector<ToolPart> parts;        ///< by face
    std::vector<std::uint32_t> rim;     ///< points along the flange's outside, in order round it
    std::vector<std::uint32_t> stands;  ///< points that a foot can be set under
    std::vector<std::uint32_t> feet;    ///< those of them that have one
    std::vector<std::uint32_t> base;    ///< points that a bag stretched over the back would press on
    double level = 0;                   ///< m along the pull, of the floor plane
    double edge = 0;                    ///< m of the mesh
    std::vector<std::string> notes;     ///< what could not be built as chosen
};

/// All that a tool is built from. The mesh is kept by whoever asks for several tools of one shape.
struct ToolInputs {
    const edge::ToolFace& face;
    const edge::Choices& edge;
    const shell::Choices& shell;
    const shell::Findings& shell_found;
    const Choices& back;
    Library shop;
    const TriangleMesh& corners;                 ///< that `shell_found.corners.faces` speaks of
    const edge::Findings* edge_found = nullptr;  ///< where bolts and wedge slots sit; none to do without
    double room = 293.15;                        ///< K that the tool is warmed from
};

struct EvenFace {
    TriangleMesh mesh;
    std::vector<int> patch;
    double edge = 0;
    bool operator==(const EvenFace&) const = default;
};
/// A place of the part, or a direction, as the tool stands.
Point upright(const Frame& frame, const Point& p);
/// The tool's face in even triangles, upright. Throws InputError, Cancelled.
EvenFace even_face(const edge::ToolFace& face, double edge, Progress& progress);

/// Ribs are shells on their planes, joined to the shell by elastic ties of the bond; tubes are bars. Throws
/// InputError for materials that the library has not; Cancelled.
Tool build_tool(const ToolInputs& in, const EvenFace& face, Progress& progress);

/// The laminate of the shell with what a sandwich back adds. Throws InputError.
Laminate with_sandwich(const std::vector<Layer>& layers, const ToolInputs& in);

}  // namespace jig::back
