// A line along which the part's cloth is cut before it is laid: a dart where it ends in the face, a seam
// where it goes all across.
#pragma once

#include "core/stages/part/zone.hpp"

namespace jig {

enum class CutIn { every, behind, angle, roll };
template <>
struct Words<CutIn> {
    static constexpr std::array all{
        Word{"every", "in every ply"}, Word{"behind", "in every ply but the one on the tool"},
        Word{"angle", "in plies laid at one angle"}, Word{"roll", "in plies whose roll runs one way"}};
};

namespace part {

struct Cut {
    std::vector<Spot> line;
    CutIn in = CutIn::every;
    double angle = 0;  ///< rad of the plies that have it, where those at one angle or of one roll's way do
    double step = 0;   ///< m that it lies aside in the next ply, and to the other side in the one after
    int piece = 0;     ///< of the mould, as `lies_on` has it
    static void fields(auto& c, auto&& v) {
        v("line", c.line);
        v("piece", c.piece, 0, kMostPieces);
        v("in", c.in);
        v("angle", c.angle, -2 * kPi, 2 * kPi);
        v("step", c.step, 0.0, 1.0);
    }
    bool operator==(const Cut&) const = default;
};

/// The angle that plies share which lie alike, turned by a quarter or not: rad in [0, π/2), to a hundredth of
/// a degree.
double alike(double angle);
/// The way that a roll runs for a ply, however it is turned round: rad in [0, π), to a hundredth of a degree.
double roll_way(double angle);

/// More is a ply in rags.
inline constexpr std::size_t kMostCuts = 16;

}  // namespace part
}  // namespace jig
