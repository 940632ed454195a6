#include "core/science/heat/pot.hpp"

#include <cmath>
#include <numbers>

namespace jig {
namespace {

constexpr double kPotTransfer = 8;    ///< W/(m²·K) of a pot in still air, typical
constexpr double kPotDensity = 1150;  ///< kg/m³ of mixed resin, typical

}  // namespace

double pot_loss(double mass) {
    const double d = std::cbrt(4 * mass / kPotDensity / std::numbers::pi);
    return kPotTransfer * 1.5 * std::numbers::pi * d * d;
}

PotPeak left_standing(const Kinetics& kinetics, double mass, double room) {
    return pot_peak(kinetics, mass, kPotCapacity, room, pot_loss(mass));
}

}  // namespace jig
