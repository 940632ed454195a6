// A pot of mixed resin that is left standing.
#pragma once

#include "core/science/heat/kinetics.hpp"

namespace jig {

inline constexpr double kPotCapacity = 1800;  ///< J/(kg·K) of liquid resin, typical

/// W/K that a pot of `mass` kg loses to still air, as a cylinder as tall as wide.
double pot_loss(double mass);

/// How hot it becomes of itself from `room` K on, and when; `mass` in kg.
PotPeak left_standing(const Kinetics& kinetics, double mass, double room);

/// A pot's life as it is known: how long, of how much, in what room.
struct PotLife {
    double seconds = 0, mass = 1, room = 293.15;  ///< s, kg, K
};
/// s that another pot of the same lives: until it has come as far as that one had by the end of its life, or
/// by gelation where that is sooner, in proportion. 1e7 where it comes there later or never.
double pot_life_of(const Kinetics& kinetics, const PotLife& known, double mass, double room);

}  // namespace jig
