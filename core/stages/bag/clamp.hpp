// How the halves of a squeeze mould are drawn together.
#pragma once

#include "core/science/fasten/bolt.hpp"
#include "core/shop/lists.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/edge/findings.hpp"

namespace jig::bag {

/// Of thread and nut, typical: what one bolt differs from the next by is a quarter of it either way.
double friction_of(Thread thread);

/// Pa under a washer that a glass laminate bears for a long time across its plies, typical.
inline constexpr double kWasherBears = 40e6;
/// N of 1 m² of stress area to which a bolt of class 8.8 is drawn at most: seven tenths of its proof load.
inline constexpr double kBoltBears = 0.7 * 600e6;

struct Clamping {
    int bolts = 0;
    Bolt bolt;
    double face = 0;               ///< m² that the pressure acts on, seen along the pull
    double strip = 0;              ///< N that the strip in the joint takes of all bolts
    double needed = 0;             ///< N of each bolt for the pressure that is wanted
    double torque = 0;             ///< N·m that it is drawn with
    double pull = 0;               ///< N of each at that torque
    double pressed = 0;            ///< Pa on the face then; 0 where the strip takes it all
    std::vector<edge::Fit> order;  ///< bolts of the shown rim, as they are tightened
    bool operator==(const Clamping&) const = default;
};

/// Shares of the torque in rounds.
inline constexpr std::array kRounds{0.3, 0.7, 1.0};

Clamping clamp(const Clamp& choices, const edge::Choices& edge_choices, const edge::Findings& edge,
               double face, const Lists<Fastener>& shop);
std::vector<Figure> clamp_figures(const Clamp& choices, const edge::Choices& edge_choices,
                                  const Clamping& clamping);
Calls clamp_calls(const edge::Choices& edge_choices, const Clamping& clamping);

}  // namespace jig::bag
