// How far a bolted joint opens between its bolts.
#pragma once

#include "core/stages/edge/choices.hpp"

namespace jig::edge {

struct Joint {
    double load = 0;           ///< N/m that pushes the flanges apart at the bolts
    double bending = 0;        ///< N·m² of one flange
    double gap = 0;            ///< m, half way between bolts
    double pitch_for_gap = 0;  ///< m at which it opens as far as it may; 0 where it never does within 2 m
    double per_bolt = 0;       ///< N
    bool operator==(const Joint&) const = default;
};

/// Opening half way between two bolts of two flanges, each a beam of `bending` N·m², pushed apart by `load`
/// N/m that a strip of `stiffness` N/m² between them gives up as they part: a built-in beam on an elastic
/// bed, q/k·[1 − 2(cosh a·sin a + sinh a·cos a)/(sinh 2a + sin 2a)], a = L/2·(k/2EI)^¼ (Hetényi 1946, ch.
/// II). Without a strip qL⁴/192EI.
double gap_between_bolts(double load, double stiffness, double bending, double pitch);

/// The same past the point where the strip, squeezed by `squeeze` m at the bolts, has sprung back: it does
/// not pull. `opening` N/m stays on the flanges all along. Beam elements on a bed that lets go, to about 1 %.
double gap_past_lift_off(double opening, double stiffness, double squeeze, double bending, double pitch);

/// `plate` N·m is the flange's bending stiffness along it, `width` m the strip that bends, `opening` N/m what
/// the squeeze adds.
Joint joint_of(const Choices& choices, double plate, double width, double opening);

}  // namespace jig::edge
