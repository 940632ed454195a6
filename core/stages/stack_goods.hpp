// What a stack takes off the shop's rolls, sheets and cans.
#pragma once

#include "core/shop/stack_figures.hpp"
#include "core/stages/work.hpp"

namespace jig {

/// How a laminate lies developed, m; nothing where it is in many small places, whose cloth goes by area.
struct Extent {
    double length = 0, girth = 0;
};
/// Of a skin of `area` m² that is `longest` m long and `section` m round its middle sections.
Extent extent_of(double area, double longest, double section);

/// What each ply is laid over its neighbour by where a roll is narrower than the ply, m, typical.
inline constexpr double kStripOverlap = 0.03;

using StackLists = Lists<Reinforcement, SurfaceCoat, Core>;

/// Cloth in lengths off its roll, coats, cores and mixed resin for `count` places of `area` m² each. `waste`
/// is the share bought over where nothing is cut by lengths; Of resin as much over is
/// mixed, or `mix` kg for it all, with what stays in pots. A prepreg's comes in its cloth.
void buy_stack(Work& work, Ledger ledger, Stage stage, const StackSum& sum, const Resin& resin, double area,
               const Extent& extent, double count, double waste, const StackLists& shop,
               std::optional<double> mix = {});

}  // namespace jig
