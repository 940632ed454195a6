// What a ball-end cutter leaves between two passes, and how long it takes.
#pragma once

namespace jig {

/// Height of the ridge between passes `step` m apart with a ball of `radius` m, on a flat: R − √(R² − s²/4),
/// about s²/(8R).
double scallop_height(double step, double radius);
/// The step that leaves ridges of that height.
double step_for_scallop(double height, double radius);

/// Speeds of one cutter. Times are of cutting alone.
struct Feeds {
    double feed = 0.06;         ///< m/s
    double rough_deep = 0.01;   ///< m a pass
    double rough_wide = 0.006;  ///< m between passes
    double travel = 1.2;        ///< times longer than the cuts, for moves between them
};
double roughing_seconds(double volume, const Feeds& feeds);
double finishing_seconds(double area, double step, const Feeds& feeds);

}  // namespace jig
