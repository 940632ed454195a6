// Plies cut as lengths from a roll.
#pragma once

namespace jig {

struct RollCut {
    int strips = 0;     ///< lengths side by side that one ply is made of
    double metres = 0;  ///< of roll for one ply
    bool operator==(const RollCut&) const = default;
};

/// A ply of `length` × `girth` (m) whose warp lies at `angle` (rad) to its length, cut in lengths from a roll
/// of `width`, neighbours laid over each other by `overlap`. Each length is as long as the ply is anywhere
/// under it, square at its ends. Asserts that the roll is wider than the overlap. A ply without size takes
/// nothing.
RollCut cut_off_roll(double length, double girth, double angle, double width, double overlap);

}  // namespace jig
