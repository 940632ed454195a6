// A resin's cure from what its data sheet gives (docs/methods.md, Cure).
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/science/heat/kinetics.hpp"

namespace jig {

/// By what it cures, which sets what is assumed where a sheet is silent.
enum class CureFamily { epoxy, styrene, mineral };

/// What is taken where nothing is known of a resin of this family: the shape of its rate, its usual heat of
/// reaction, and a glass curve. Typical figures; its speed means nothing before it is fitted.
Kinetics typical_kinetics(CureFamily family);

struct CureData {
    CureFamily family = CureFamily::epoxy;
    struct Gel {
        double T = 293.15, time = 3600;  ///< K, s
    };
    std::vector<Gel> gels;
    struct Pot {
        double mass = 0.1;                    ///< kg
        double start = 296.15;                ///< K, of the resin and the room
        double peak = 400, peak_time = 3600;  ///< K, s
    };
    std::optional<Pot> pot;
    std::optional<double> heat;  ///< J/kg
    struct Glass {
        double cure_T = 353.15, cure_time = 28800;  ///< K, s
        double Tg = 360;                            ///< K after it
    };
    std::vector<Glass> glass;
    std::optional<double> lead;  ///< K past the cure's heat at which Tg stands; none to read it off `glass`
};

struct CureFit {
    Kinetics kinetics;
    double misfit = 0;    ///< root of the mean square of ln(model ÷ sheet) of times and ratios of rises
    double E_spread = 0;  ///< J/mol, one standard error of E2
    std::vector<std::string> assumed;  ///< what no figure of the sheet decided
    /// One standard error of ln(gel time) at `T` K, by the fit's own covariance.
    [[nodiscard]] double gel_spread(double T) const;
    double mean_T = 293.15;  ///< K at which speed and its temperature slope are told apart best
    double ln_spread = 0;    ///< of ln(gel time) there
};

/// Least squares (Levenberg and Marquardt) of speed, activation energies, shape, heat and glass curve on all
/// that is given, each drawn towards the typical figure of its family as far as the data do not decide.
/// Throws InputError where no gel time is given, or where the figures contradict one another.
CureFit fit_cure(const CureData& data);

/// The typical kinetics of a family brought to one gel time and to a Tg, K, of the fully cured resin.
Kinetics kinetics_by_gel(CureFamily family, double T, double time, double Tg, double lead);

}  // namespace jig
