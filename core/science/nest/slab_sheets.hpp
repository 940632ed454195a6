// A slab stack laid onto stock, and its cut files.
#pragma once

#include "core/science/mesh/slice.hpp"
#include "core/science/nest/nest.hpp"

namespace jig {

struct SheetPiece {
    int slab = 0;                  ///< its number in the stack
    Loops loops;                   ///< m on the sheet, outer loop first, then its holes
    Point2 mark = Point2::Zero();  ///< where the number goes
};

struct CutSheet {
    std::vector<SheetPiece> pieces;
};

struct SheetSet {
    SheetRules rules;
    std::vector<CutSheet> sheets;
    double yield = 0;
    std::vector<int> too_large;  ///< slabs that go onto no sheet of this size
};

SheetSet lay_onto_sheets(const SlabStack& stack, const SheetRules& rules, Progress& progress);

/// Millimetres; layers "cut", "mark" and "sheet"; a number in each slab and a 100 mm check bar.
std::string sheet_svg(const SheetSet& set, std::size_t sheet);
/// Writes one DXF (R2000, mm). Throws InputError where the file cannot be written.
void write_sheet_dxf(const SheetSet& set, std::size_t sheet, const std::string& path);

}  // namespace jig
