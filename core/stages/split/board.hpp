// Parting boards: the temporary fences that form the seams.
#pragma once

#include <string>

#include "core/base/progress.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/science/nest/slab_sheets.hpp"
#include "core/stages/split/choices.hpp"

namespace jig::split {

struct Board {
    std::string name;
    Loops outline;           ///< m, flat, ready to cut: outer loop first
    double area = 0;         ///< m²
    double length = 0;       ///< m along the plug
    bool developed = false;  ///< a curved one laid flat
    double bend = 0;         ///< m, the smallest radius it is bent to; 0 for flat ones
};

/// Flat boards in the plane of a split: the part's outline there grown by the stand-off, out to the board's
/// width.
std::vector<Board> plane_boards(const TriangleMesh& mesh, const Topology& topology, const Point& at,
                                const Point& normal, const Choices& choices, Progress& progress);

/// One strip along each seam of found pieces, `board_width` wide away from the part, laid flat by unrolling
/// its triangles one after the other (exact where the strip is developable).
std::vector<Board> seam_boards(const std::vector<Line>& seams, const std::vector<std::vector<Point>>& outward,
                               const Choices& choices);

/// Unrolls the strip between two lines of equally many points; the flat outline runs along the first and back
/// along the second. Every edge of its triangles keeps its length.
Loop unrolled(const Line& near, const Line& far);

/// Each board on a sheet of its own size, ready for the cut files.
SheetSet boards_on_sheets(const std::vector<Board>& boards);

/// m³ of clay along a board: the gap itself through a board `board_thickness` thick, and the hollow fillet
/// (1 − π/4)·r².
double clay_volume(double length, const Choices& choices, double board_thickness);

}  // namespace jig::split
