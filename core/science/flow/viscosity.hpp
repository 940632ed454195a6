// How runny a resin is, and for how long.
#pragma once

#include <optional>
#include <variant>
#include <vector>

#include "core/science/heat/kinetics.hpp"

namespace jig {

/// μ = mu0·e^(t/τ) with t since the resin was mixed; without τ it stays as it is.
struct ThickeningResin {
    double mu0 = 0.3;           ///< Pa·s
    std::optional<double> tau;  ///< s
    bool operator==(const ThickeningResin&) const = default;
};

/// Castro and Macosko (1980): μ = mu·e^(U/R·(1/T − 1/T_known))·(α_gel/(α_gel − α))^(1.5 + α), with α by the
/// resin's own cure at one temperature.
struct CuringResin {
    Kinetics kinetics;
    double T = 293.15;        ///< K of the resin as it flows
    double mu = 0.3;          ///< Pa·s just mixed, at T_known
    double T_known = 293.15;  ///< K
    double energy = 45e3;     ///< U, J/mol
    bool operator==(const CuringResin&) const = default;
};

/// Viscosity from mixing on, and flow time: what moves resin is ∫dt/μ, whatever μ did.
class Viscosity {
  public:
    Viscosity(std::variant<ThickeningResin, CuringResin> resin, double mixed);
    /// By its values at rising times from 0 on, Pa·s above 0, up to where it gels.
    Viscosity(std::vector<double> times, std::vector<double> mu, std::optional<double> gel);
    /// Pa·s at `time` s; infinite from gelation on.
    [[nodiscard]] double at(double time) const;
    /// ∫dt/μ from 0 to `time`, 1/Pa.
    [[nodiscard]] double flow_time(double time) const;
    /// The time at which that integral is `flow`; none where the resin stands first.
    [[nodiscard]] std::optional<double> when(double flow) const;
    /// s at which it gels; none where it never does.
    [[nodiscard]] std::optional<double> gels() const { return gel_; }

  private:
    std::variant<ThickeningResin, CuringResin> resin_;
    double mixed_ = 0;  ///< s, before the start (below 0) or after
    std::optional<double> gel_;
    // Of a curing resin, by time.
    std::vector<double> times_, mu_, flow_;
};

}  // namespace jig
