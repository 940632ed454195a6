// Sizes that follow temperature and cure from the plug to the part (docs/methods.md, Growth chain).
#pragma once

namespace jig {

struct GrowthChain {
    double room = 293.15;             ///< K
    double plug_alpha = 0;            ///< 1/K
    double shell_gel = 293.15;        ///< K, plug and shell when the shell gels
    double shell_alpha = 0;           ///< 1/K
    double shell_cure_shrinkage = 0;  ///< linear, after gel
    double part_gel = 293.15;         ///< K, shell and part when the part gels
    double part_alpha = 0;
    double part_cure_shrinkage = 0;
};

struct GrowthSizes {
    double plug_hot = 0;  ///< each a relative change of length against the plug at room temperature
    double tool_room = 0;
    double tool_hot = 0;  ///< at the temperature where the part gels: the size that the part takes
    double part_room = 0;
};

/// The shell takes the plug's size where it gels and shrinks from there; the part takes the shell's.
GrowthSizes grow(const GrowthChain& chain);

/// Change of an enclosed angle, rad: theta ((al-at) dT / (1 + at dT) + (fl-ft)/(1+ft)) with in-plane and
/// through-thickness expansion (al, at) and cure shrinkage (fl, ft); dT is negative on cooling (Radford
/// 1993). Shrinkages are strains, so negative. Positive: the corner closes.
double spring_in(double theta, double alpha_in_plane, double alpha_through, double shrink_in_plane,
                 double shrink_through, double temperature_change);

}  // namespace jig
