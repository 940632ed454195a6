// The plug's flat pieces laid onto their stocks: what is counted, bought and written as cut files is one
// layout.
#pragma once

#include "core/stages/plug/findings.hpp"

namespace jig::plug {

/// What is cut from one stock.
struct Stock {
    Board board;
    SheetRules rules;
    std::vector<CutPiece> pieces;  ///< of all plugs that are cut from it
    bool operator==(const Stock&) const = default;
};

struct Cutting {
    std::vector<Stock> stocks;  ///< none where nothing is cut flat
    bool operator==(const Cutting&) const = default;
};
/// Pieces carry their plug's name where there are several; `scale` is that of the plug to the drawing.
Cutting cutting(const std::vector<Plan>& plans, const Choices& choices, double scale, const Library& shop);

/// One layout for each stock. Throws InputError where a margin leaves no room; Cancelled.
std::vector<SheetSet> lay(const Cutting& cutting, Progress& progress);

/// The plans with the sheets that were laid in place of sums by area. What several plugs are cut from
/// together stands with the first of them.
void take_sheets(std::vector<Plan>& plans, const Choices& choices, const Cutting& cutting,
                 const std::vector<SheetSet>& laid, const Library& shop);

/// The same of the stage's findings, with their figures and cost.
Findings with_sheets(Findings findings, const Choices& choices, const Cutting& cutting,
                     const std::vector<SheetSet>& laid, const Library& shop);

}  // namespace jig::plug
