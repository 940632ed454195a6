// What the cures ask of the oven: its ends, its heater, its room, and the energy that they take.
#pragma once

#include "core/science/heat/oven.hpp"
#include "core/stages/back/findings.hpp"
#include "core/stages/heat/cures.hpp"

namespace jig::heat {

struct CureHeat {
    CureOf of = CureOf::post_cure;
    OvenHeat heat;                 ///< of a whole load
    double cool = 0;               ///< K of the air at the oven's cool end, when it is set highest
    std::optional<double> climbs;  ///< K/s that its heater surely keeps up with; none where it does as it is
    bool operator==(const CureHeat&) const = default;
};

struct OvenUse {
    OvenBuild build;
    double power = 0;             ///< W, 0 for not known
    std::optional<double> holds;  ///< K that its heater can hold at most; none where it is not known
    std::optional<std::array<double, 3>> tool;  ///< m, its length, width and height; none where there is none
    int goes_in = 0;              ///< such tools at once, with air between; 0 where one does not
    int tools = 1;                ///< that share a load
    std::vector<CureHeat> cures;  ///< those that take an oven
    [[nodiscard]] const CureHeat* find(CureOf of) const;
    bool operator==(const OvenUse&) const = default;
};

/// What the oven's figures read of the library.
using OvenLibrary = Lists<OvenBuild>;

/// The shell on its plug and the shell free-standing by its face, flange with it; the part by its own area
/// through the tool, what the tool has beyond that as one mass. The back is in every cure but the one on the
/// plug. Throws InputError where the library has no such oven.
OvenUse oven_use(const Choices& choices, const brief::Rooms& brief, const Cures& cures,
                 const edge::Findings& edge, const shell::Findings& shell, const back::Choices& back_choices,
                 const back::Findings& back, const part::Findings& part, const OvenLibrary& shop);

/// How many boxes of that size go into the oven in rows with air between them, turned whichever way takes
/// most.
int boxes_in(const std::array<double, 3>& box, const std::array<double, 3>& oven);

/// "low, at the door, left": where a spot of the map lies, in words.
std::string said_of(const OvenSpot& spot);
/// The coolest and the warmest of a map; null where it has none on that side of what was set.
const OvenSpot* coolest(const Oven& oven);
const OvenSpot* warmest(const Oven& oven);

void oven_figures(const Choices& choices, const OvenUse& use, std::vector<Figure>& out);
/// `judged` where Back judges its room already.
void oven_calls(const Cures& cures, const OvenUse& use, bool judged, Calls& out);

}  // namespace jig::heat
