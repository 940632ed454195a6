// Tubes and square sections that a back is welded from.
#pragma once

#include "core/stages/back/choices.hpp"

namespace jig::back {

/// Typical figures of mild steel and of a 6000 series aluminium.
struct MetalFacts {
    double E = 0, G = 0;  ///< Pa
    double density = 0;   ///< kg/m³
    double alpha = 0;     ///< 1/K
};
MetalFacts facts_of(Metal metal);

struct TubeSection {
    double area = 0;    ///< m²
    double second = 0;  ///< m⁴, the same both ways
    double twist = 0;  ///< m⁴: 2·I of a round tube; of a thin square one 4·Am²·t/perimeter = t·(s − t)³
};
/// Round for a grid of tubes, square for a frame.
TubeSection section_of(const Choices& choices);

/// What a metre of joint between a back and the shell carries, by the bond.
struct BondFacts {
    double across = 0;   ///< N/m per m, against opening and closing
    double sliding = 0;  ///< N/m per m, along the joint
};
/// `wide` m of rib or tube lies on the joint; tabs are laid by hand in `resin`. Throws InputError for what
/// the library has not.
BondFacts bond_of(const Joint& joint, double wide, const Resin& resin, const Library& shop);

}  // namespace jig::back
