// Flat outlines: thin layer over Clipper, in metres.
#pragma once

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

using Loop = std::vector<Point2>;  ///< closed; anticlockwise round material, clockwise round a hole
using Loops = std::vector<Loop>;

Loop rectangle(double x0, double y0, double x1, double y1);
/// The lowest and highest crossing of an upright line with an outline; false where it misses.
bool upright_span(const Loops& loops, double x, double& low, double& high);

double signed_area(const Loop& loop);  ///< m², positive anticlockwise
double net_area(const Loops& loops);   ///< m², holes taken off
double perimeter(const Loop& loop);    ///< m
Point2 low_corner(const Loops& loops);
Point2 high_corner(const Loops& loops);

/// Everything covered by any loop (nonzero rule), to a grid of one micrometre.
Loops united(const Loops& loops);
/// Each outer loop with the holes that lie in it, largest first; of outer loops that lie in each other's
/// holes, a hole belongs to the smallest round it.
std::vector<Loops> islands(const Loops& loops);
/// What is covered by `a` and not by `b`.
Loops taken_off(const Loops& a, const Loops& b);
/// The same area without spikes, and without edges that run back along others closer than `distance`, m:
/// rounding to the grid lets such edges cross.
Loops tidied(const Loops& loops, double distance);
/// What is covered by both.
Loops shared(const Loops& a, const Loops& b);
/// Whether a point lies inside an odd number of loops.
bool holds(const Loops& loops, const Point2& p);
/// Grown outwards (shrunk inwards when negative) by `distance` m with round or square corners, whose chords
/// stay within `arc` m of their arcs.
Loops offset(const Loops& loops, double distance, bool round = true, double arc = 2e-5);
/// Everything within `reach` m of open lines.
Loops stroked(const std::vector<Loop>& lines, double reach, double arc = 2e-5);
/// Fewer points, none of them moved further than `tolerance` m off the old outline.
Loop simplified(const Loop& loop, double tolerance);

}  // namespace jig
