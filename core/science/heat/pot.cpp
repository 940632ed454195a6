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

double pot_life_of(const Kinetics& k, const PotLife& known, double mass, double room) {
    constexpr double kForever = 1e7;
    const auto until = [&](double cure, double m, double T) {
        return pot_until(k, m, kPotCapacity, T, pot_loss(m), cure, kForever).value_or(kForever);
    };
    const double spent = std::min(
        k.gel, pot_cure(k, known.mass, kPotCapacity, known.room, pot_loss(known.mass), known.seconds));
    if (!(spent > 0)) return known.seconds;
    return std::min(kForever,
                    known.seconds * until(spent, mass, room) / until(spent, known.mass, known.room));
}

PotPeak left_standing(const Kinetics& kinetics, double mass, double room) {
    return pot_peak(kinetics, mass, kPotCapacity, room, pot_loss(mass));
}

}  // namespace jig
