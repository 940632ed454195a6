// How a resin cures: rate, vitrification, gelation and glass transition (docs/methods.md, Cure).
#pragma once

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/science/heat/glass.hpp"

namespace jig {

inline constexpr double kGasConstant = 8.314462618;  ///< J/(mol·K)

/// Tg by degree of cure (DiBenedetto; Pascault and Williams 1990), K.
struct GlassCurve {
    double fresh = 250;  ///< K before it cures
    double full = 350;   ///< K of the fully cured resin
    double lambda = 0.4;
    double lead = 10;  ///< K by which Tg may come to lie above the resin's own heat before it stands still
    [[nodiscard]] double at(double cure) const {
        return fresh + (full - fresh) * lambda * cure / (1 - (1 - lambda) * cure);
    }
    [[nodiscard]] double slope(double cure) const {
        const double d = 1 - (1 - lambda) * cure;
        return (full - fresh) * lambda / (d * d);
    }
    bool operator==(const GlassCurve&) const = default;
};

/// dα/dt = (k1 + k2·α^m)(1 − α)^n · g, k = A·exp(−E/RT) (Kamal and Sourour 1973). g falls from 1 to 0 over
/// the last kGlassBand kelvin before Tg(α) = T + lead: what has turned to glass does not react.
struct Kinetics {
    double A1 = 0, E1 = 0;  ///< 1/s, J/mol
    double A2 = 0, E2 = 0;
    double m = 1, n = 1;
    double gel = 0.6;                 ///< degree of cure at which it gels
    double heat = 0;                  ///< J per kg of resin, from fresh to full
    std::optional<GlassCurve> glass;  ///< none: it never vitrifies
    bool operator==(const Kinetics&) const = default;
};

inline constexpr double kGlassBand = 15;  ///< K

struct CureRate {
    double rate = 0;     ///< 1/s
    double by_cure = 0;  ///< its derivative by α
    double by_T = 0;     ///< its derivative by T, 1/(s·K)
};

/// Rate at `T` K and degree of cure `cure`; 0 from full cure on; with n below 1 it comes down to that
/// straight over the last millionth, and is as little below 0 that far past it.
CureRate cure_rate(const Kinetics& k, double T, double cure);

/// Degree of cure after `seconds` at one temperature, from `cure` on. Adaptive, to 1e-7.
double cure_after(const Kinetics& k, double T, double seconds, double cure = 0);

/// s at one temperature until it gels; none where it turns to glass first or takes more than `longest`.
std::optional<double> gel_time(const Kinetics& k, double T, double longest = 1e9);

/// A pot of mixed resin, warm alike all through: how hot it gets and when. It loses heat by `loss` W/K.
struct PotPeak {
    double T = 0;     ///< K
    double time = 0;  ///< s
};
PotPeak pot_peak(const Kinetics& k, double mass, double capacity, double start, double loss);
/// Its degree of cure after `seconds`, and the s until it has come to one; none where it takes more than
/// `longest`.
double pot_cure(const Kinetics& k, double mass, double capacity, double start, double loss, double seconds);
std::optional<double> pot_until(const Kinetics& k, double mass, double capacity, double start, double loss,
                                double cure, double longest = 1e7);

}  // namespace jig
