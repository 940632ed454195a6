// Parting boards: the temporary fences that form the seams.
#pragma once

#include <string>

#include "core/base/progress.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/pieces.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/split/choices.hpp"

namespace jig::split {

/// What holds a board up: a leg or brace from the bench.
struct Support {
    Point at;           ///< m, under the board's outer edge
    double height = 0;  ///< m above the bench
    bool operator==(const Support&) const = default;
};

struct Board {
    std::string name;
    Loops outline;               ///< m, flat, ready to cut: outer loop first
    std::vector<Point2> dowels;  ///< m, on the flat outline
    double hole = 0;             ///< m, diameter of each dowel's hole
    double area = 0;             ///< m²
    double length = 0;           ///< m along the plug
    bool developed = false;      ///< a curved one laid flat
    double bend = 0;             ///< m, the smallest radius it is bent to; 0 for flat ones
    double misfit = 0;           ///< m that laying it flat may be out, because it is bent both ways
    TriangleMesh surface;        ///< m, its release face in place, seen from the first piece's side
    std::vector<Support> supports;
    bool operator==(const Board&) const = default;
};

/// Boards for every seam of a set. With dowels, a plane's are flat in it; a search's stand off along the
/// part's outward normal. Leaning faces lean by `lean` towards the first piece's pull and are laid flat as
/// strips. The bench is the part's lowest place. `hole` m is the diameter of a dowel. Throws Cancelled.
std::vector<Board> parting_boards(const TriangleMesh& mesh, const Topology& topology, const PieceSet& set,
                                  const Choices& choices, double hole, Progress& progress);

/// What is cut out of flat stock: the outline and the dowels' holes.
Loops drilled(const Board& board);

/// Unrolls the strip between two lines of equally many points; the flat outline runs along the first and back
/// along the second. Every edge of its triangles keeps its length.
Loop unrolled(const Line& near, const Line& far);

/// Each board on a sheet of its own size, ready for the cut files.
SheetSet boards_on_sheets(const std::vector<Board>& boards);

/// m³ of clay along a board: the gap itself through a board `board_thickness` thick, and the hollow fillet
/// (1 − π/4)·r².
double clay_volume(double length, const Choices& choices, double board_thickness);

}  // namespace jig::split
