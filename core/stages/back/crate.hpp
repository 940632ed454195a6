// Ribs as they are cut: outlines with their half laps, their feet and the soft strip left off.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/back/layout.hpp"

namespace jig::back {

struct RibPlate {
    std::string name;
    Frame plane;         ///< u along the rib, v along the pull
    double at = 0;       ///< m along plane.w
    Loops outline;       ///< in the plane
    double contour = 0;  ///< m of its edge along the shell
    bool operator==(const RibPlate&) const = default;
};

struct Crate {
    std::vector<RibPlate> ribs;
    double level = 0;        ///< m along the pull, of the plane that the feet stand in
    double area = 0;         ///< m²
    double cut_length = 0;   ///< m
    double bond_length = 0;  ///< m along the shell
    int laps = 0;
    bool operator==(const Crate&) const = default;
};

/// Plates at the rib planes, from `clear` m outside the tool's face (shell and joint) up to one level,
/// half-lapped where they cross: those across the length are slotted from the feet, those along it from the
/// shell. Foam blocks follow the shell at one height and butt. Cancelled.
Crate crate_of(const Choices& choices, const edge::ToolFace& face, double clear, double board,
               Progress& progress);

/// Flat pieces to nest and cut, and the stock they are cut from.
std::vector<CutPiece> cut_pieces(const Crate& crate);
SheetRules sheet_rules(const Choices& choices, const Library& shop);

}  // namespace jig::back
