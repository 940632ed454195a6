// Where a cure's thermocouples belong: what the hold waits for, and what must not run hot.
#pragma once

#include "core/stages/heat/cures.hpp"

namespace jig::heat {

struct Sensor {
    std::string where;              ///< place and layer, in words
    std::string for_what;           ///< what it is read for
    std::optional<double> alarm;    ///< K at which it has to be heard
    std::optional<std::size_t> of;  ///< of what lies elsewhere, as CurePlace says
    int end = 0;                    ///< −1 at the oven's cool end, 1 at its warm end, 0 wherever it lies
    bool in_air = false;
    bool operator==(const Sensor&) const = default;
};

/// The place that comes near the air last (its hold starts there, by the same band), the one that runs
/// hottest (its alarm at what a lay-up may run past the air) and, where the air is warmer than the room, the
/// oven's cool end and its warm one, whose alarm is the band over the programme. One that is both stands
/// once.
std::vector<Sensor> sensors_of(const CureRun& run, const Choices& choices);

/// What one wall of a cure does, in figures.
struct PlaceSum {
    std::string name;
    double peak = 0;             ///< K
    std::optional<double> near;  ///< s until all that reacts is near the hottest air for the first time
    std::optional<double> gels;  ///< s until all of it has gelled; 0 where it had before
    double cure = 0;             ///< the least at the end
    std::optional<double> Tg;    ///< K, the least at the end
    bool operator==(const PlaceSum&) const = default;
};
/// The common wall first. `within` K of the air is near.
std::vector<PlaceSum> places_of(const CureRun& run, double within);

}  // namespace jig::heat
