// A pot of mixed resin that is left standing.
#pragma once

#include "core/science/heat/kinetics.hpp"

namespace jig {

inline constexpr double kPotCapacity = 1800;  ///< J/(kg·K) of liquid resin, typical

/// W/K that a pot of `mass` kg loses to still air, as a cylinder as tall as wide.
double pot_loss(double mass);

/// How hot it becomes of itself from `room` K on, and when; `mass` in kg.
PotPeak left_standing(const Kinetics& kinetics, double mass, double room);

}  // namespace jig
