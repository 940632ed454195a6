// What an oven's heater has to give for a programme: its walls, its air, and all that is warmed in it.
#pragma once

#include <vector>

#include "core/science/heat/programme.hpp"

namespace jig {

struct OvenBox {
    double area = 0, volume = 0;  ///< m² of its walls inside, m³
    double walls = 0;             ///< W/(m²·K) from its air to the room
    double lining = 0;            ///< J/(m²·K) that its walls take up as they follow the air
    double changes = 0;           ///< 1/s of its air against the room's
    double stands = 0;            ///< J/K of all else in it that follows the air
};

/// Heat that goes from the air into something whose own wall has been worked out: straight between its times,
/// which rise, and none before or after them.
struct HeatTaken {
    double area = 0;            ///< m²
    std::vector<double> times;  ///< s
    std::vector<double> flux;   ///< W/m², below 0 where it gives heat back
};

/// J over the whole programme: `heater` − `vented` = `walls` + `air` + `stands` + `taken`.
struct OvenHeat {
    double heater = 0;  ///< given by the heater
    double vented = 0;  ///< let go of, where it would cool more slowly by itself
    double walls = 0;   ///< lost through its walls
    double air = 0;     ///< lost with its air
    double stands = 0;  ///< kept by lining, air and what stands in it: 0 where it ends as warm as it began
    double taken = 0;   ///< kept by what was worked out
    double warmed = 0;  ///< of the two before, what they had taken up when they held most
    double most = 0, most_at = 0;  ///< W that the heater gives at most, and the s at which
    bool operator==(const OvenHeat&) const = default;
};

/// W that it takes to keep such an oven at `T` K in a room of `room` K.
double oven_loss(const OvenBox& box, double T, double room);

/// The air is one temperature all through and follows `air`; lining and load follow it at once, which asks
/// for more at the corners of a programme than they truly take. Air goes in at the room's heat and out at the
/// oven's, as an ideal gas at one pressure.
OvenHeat oven_heat(const OvenBox& box, const Course& air, double room, const std::vector<HeatTaken>& taken);

}  // namespace jig
