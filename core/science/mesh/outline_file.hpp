// A closed outline from a drawing: DXF or SVG, told apart by their content.
#pragma once

#include <string>
#include <string_view>

#include "core/science/mesh/outline.hpp"

namespace jig {

/// The closed outline with the largest area, anticlockwise, m. Lines and arcs that meet end to end within a
/// hundred-thousandth of the drawing's size make one. Curves become chords that stray by about a thousandth
/// of their size. `unit` is the length of a drawing unit where the file names none. Throws InputError naming
/// `where` for files that are no drawing and for drawings without a closed outline.
Loop read_outline(std::string_view bytes, const std::string& where, double unit);

}  // namespace jig
