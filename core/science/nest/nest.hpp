// Outlines laid onto sheets: a thin layer over libnest2d.
#pragma once

#include <cmath>
#include <optional>

#include "core/base/progress.hpp"
#include "core/science/mesh/outline.hpp"

namespace jig {

struct SheetRules {
    double length = 2.5, width = 1.25;  ///< m
    double kerf = 0.002;                ///< m of the cut
    double margin = 0.010;              ///< m kept free along the sheet's edge
    bool grain = false;                 ///< the sheet has a direction: outlines are turned by half only
    bool operator==(const SheetRules&) const = default;
};

/// Where an outline went: turned by `turn` about the origin, then moved; sheet -1 where it goes onto none.
struct Placed {
    int sheet = -1;
    double turn = 0;
    Point2 move = Point2::Zero();
    [[nodiscard]] Point2 at(const Point2& p) const {
        return {p.x() * std::cos(turn) - p.y() * std::sin(turn) + move.x(),
                p.x() * std::sin(turn) + p.y() * std::cos(turn) + move.y()};
    }
};

struct Nesting {
    std::vector<Placed> placed;  ///< one for each outline
    int sheets = 0;
    double yield = 0;  ///< area of what was placed over the area of the sheets used
};

/// The turn, rad, by which an outline goes onto a sheet: 0, a quarter, or whatever lets it lie aslant where
/// the sheet has no grain. Nothing where it goes onto none.
std::optional<double> turn_onto_sheet(const Loop& outline, const SheetRules& rules);
inline bool fits_a_sheet(const Loop& outline, const SheetRules& rules) {
    return turn_onto_sheet(outline, rules).has_value();
}

inline constexpr double kSheetSlack =
    2e-6;  ///< m by which rounding may let an outline seem larger than a sheet

/// Each item is its outer loop (holes are nested over as solid). Outlines are thinned for the search and
/// grown by what thinning may cost, so no two overlap. Where that takes more sheets than their areas do, rows
/// of their boxes and cells are tried as well: it never takes more than rows. Throws InputError for a sheet
/// without room, Cancelled.
Nesting nest(const std::vector<Loop>& outlines, const SheetRules& rules, Progress& progress);

}  // namespace jig
