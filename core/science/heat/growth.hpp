// Sizes that follow temperature and cure from the plug to the part (docs/methods.md, Growth chain).
#pragma once

#include <optional>

namespace jig {

/// A mould between the plug and the shell: plaster and glass taken off a soft master.
struct SplashStep {
    double alpha = 0;      ///< 1/K
    double gel = 293.15;   ///< K
    double shrinkage = 0;  ///< linear, after gel
    bool operator==(const SplashStep&) const = default;
};

struct GrowthChain {
    double room = 293.15;         ///< K
    double plug_alpha = 0;        ///< 1/K
    double plug_warmth = 293.15;  ///< K, the plug's mean when what is laid on it gels
    std::optional<SplashStep> splash{};
    double shell_gel = 293.15;        ///< K of the shell when it gels, and of a splash under it
    double shell_alpha = 0;           ///< 1/K
    double shell_cure_shrinkage = 0;  ///< linear, after gel
    double part_gel = 293.15;         ///< K, shell and part when the part gels
    double part_alpha = 0;
    double part_cure_shrinkage = 0;
    bool operator==(const GrowthChain&) const = default;
};

struct GrowthSizes {
    double plug_hot = 0;     ///< each a relative change of length against the plug at room temperature
    double splash_room = 0;  ///< 0 without one
    double tool_room = 0;
    double tool_hot = 0;  ///< at the temperature where the part gels: the size that the part takes
    double part_room = 0;
    bool operator==(const GrowthSizes&) const = default;
};

/// Share of the way to the heat on both its faces that a wall has warmed by on the mean, by its Fourier
/// number a·t/L² (a = k/(ρc), L the whole thickness): plane wall with held faces (Carslaw & Jaeger
/// 1959, 3.3).
double warmed_share(double fourier);

/// The shell takes the plug's size where it gels (or the splash's, which took the plug's) and shrinks from
/// there; the part takes the shell's.
GrowthSizes grow(const GrowthChain& chain);

/// Change of an enclosed angle, rad: theta ((al-at) dT / (1 + at dT) + (fl-ft)/(1+ft)) with in-plane and
/// through-thickness expansion (al, at) and cure shrinkage (fl, ft); dT is negative on cooling (Radford
/// 1993). Shrinkages are strains, so negative. Positive: the corner closes.
double spring_in(double theta, double alpha_in_plane, double alpha_through, double shrink_in_plane,
                 double shrink_through, double temperature_change);

}  // namespace jig
