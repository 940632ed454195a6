// What a bolt pulls with when it is tightened.
#pragma once

#include <vector>

namespace jig {

/// A metric bolt with its coarse thread and a plain washer under its nut.
struct Bolt {
    double diameter = 0.008;                      ///< m
    [[nodiscard]] double pitch() const;           ///< m, by ISO 261's coarse row, the nearest size's
    [[nodiscard]] double pitch_diameter() const;  ///< m, d − 0.6495·p
    [[nodiscard]] double stress_area() const;     ///< m², π/4·(d − 0.9382·p)²
    [[nodiscard]] double head_diameter() const;   ///< m, mean of where the nut rubs: 1.1 to 1.6 diameters
    [[nodiscard]] double washer_area() const;     ///< m², 2 diameters wide less its hole of 1.1
};

/// N·m that pull with `force` N where thread and nut rub with `friction`: the thread as a wedge of its pitch,
/// its flanks at 60°, and the nut's face.
double torque_for(const Bolt& bolt, double force, double friction);
/// N of `torque` N·m.
double pull_of(const Bolt& bolt, double torque, double friction);

/// The order in which `count` bolts, numbered once round a rim, are tightened: each where the widest way is
/// left between those that are tight, the second opposite the first, from `first` on.
std::vector<int> crosswise(int count, int first = 0);

}  // namespace jig
