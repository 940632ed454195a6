// Flat pieces laid onto stock, and their cut files.
#pragma once

#include <string>

#include "core/science/mesh/slice.hpp"
#include "core/science/nest/nest.hpp"

namespace jig {

/// One flat piece to cut, in its own place.
struct CutPiece {
    std::string name;            ///< engraved on it
    Loops outline;               ///< m, outer loop first, then its holes
    std::vector<Loop> engraved;  ///< open lines on its top face
    int inside = -1;    ///< number of the piece whose hole it is cut from, where it lies; -1 for a sheet
    std::string words;  ///< said beside it on its own page
    int slab = 0;       ///< number of the slab that it is of, where it is of one
    bool operator==(const CutPiece&) const = default;
};

/// The pieces of a stack by their numbers; the islands of one slab have letters after it, largest first.
std::vector<CutPiece> pieces_of(const SlabStack& stack);

/// The pieces of a flat rib or template that stands `at` m along its axis.
void add_pieces(const Loops& outline, const std::string& name, double at, std::vector<CutPiece>& out);

struct SheetPiece {
    std::string name;
    Loops loops;                   ///< m on the sheet, outer loop first, then its holes
    std::vector<Loop> engraved;    ///< m on the sheet
    Point2 mark = Point2::Zero();  ///< where the name goes
    bool operator==(const SheetPiece&) const = default;
};

struct CutSheet {
    std::vector<SheetPiece> pieces;
    bool operator==(const CutSheet&) const = default;
};

/// A rectangle left over and worth keeping.
struct Offcut {
    std::size_t sheet = 0;
    double length = 0, width = 0;  ///< m
    bool operator==(const Offcut&) const = default;
};

struct SheetSet {
    SheetRules rules;
    std::vector<CutSheet> sheets;
    double yield = 0;
    std::vector<std::string> too_large;  ///< pieces that go onto no sheet of this size
    std::vector<Offcut> offcuts;
    bool operator==(const SheetSet&) const = default;
};

/// Lays pieces onto sheets; those inside another one's hole go along with it. Offcuts of 0.1 m and more both
/// ways are listed. Throws InputError, Cancelled.
SheetSet lay_onto_sheets(const std::vector<CutPiece>& pieces, const SheetRules& rules, Progress& progress);

/// A place that a template finds again: a cross and a name beside it.
struct TemplateMark {
    std::string name;
    Point2 at = Point2::Zero();
    double arm = 0.006;  ///< m of each of its arms
};
/// A template on a sheet of its own size with 20 mm round it; `loops` are its outline and its bores.
SheetSet template_sheet(const std::string& name, Loops loops, const std::vector<TemplateMark>& marks);

/// Millimetres; layers "cut", "mark" and "sheet"; a name in each piece and a 100 mm check bar.
std::string sheet_svg(const SheetSet& set, std::size_t sheet);
/// Writes one DXF (R2000, mm). Throws InputError where the file cannot be written.
void write_sheet_dxf(const SheetSet& set, std::size_t sheet, const std::string& path);

}  // namespace jig
