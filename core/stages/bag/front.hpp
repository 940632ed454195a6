// The front of the resin as lines on the face, and the sheet that is taken to the bench.
#pragma once

#include "core/science/mesh/cut.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/bag/flow.hpp"

namespace jig::bag {

/// Where the front stands `time` s after the first feed.
std::vector<Line> front_at(const Flow& flow, double time);
/// Up to `most` times round in minutes or hours at which a front is worth drawing, s.
std::vector<double> front_times(const Flow& flow, std::size_t most);

/// The face seen along the pull at full size: its rims, its hoses, and the front at those times, each named.
SheetSet front_sheet(const Flow& flow, const Wording& wording);

/// The hoses for the bench as lines of a table: name, place, when it opens, grams, and a column to fill in.
std::string opening_table(const Flow& flow, const Wording& wording);

/// The pots in their turn: grams of both parts, when each is mixed, drawn from and empty, and a column to
/// fill in.
std::string pot_table(const Flow& flow, const Wording& wording);

}  // namespace jig::bag
