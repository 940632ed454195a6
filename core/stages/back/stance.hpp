// The tool on feet that push and do not pull.
#pragma once

#include <memory>

#include "core/science/shell/contact.hpp"
#include "core/stages/back/bench.hpp"

namespace jig::back {

/// How the tool takes one load.
struct Stance {
    shell_fe::Solution solution;
    int lifted = 0;     ///< feet that come off the ground
    bool tips = false;  ///< no three feet are left to stand on: the solution is that of held feet
};

/// The tool on its feet, under its weight and what comes on top.
class OnFeet {
  public:
    /// Throws InputError where the tool would fall over; Cancelled.
    OnFeet(const Bench& bench, const std::vector<std::uint32_t>& feet, Progress& progress);
    /// The same tool on other feet, by the factor that there is. Throws as above.
    OnFeet(const OnFeet& same, const std::vector<std::uint32_t>& feet, Progress& progress);

    /// Own weight with feet that may lift; `sign` as in Bench::weight.
    [[nodiscard]] Stance standing(double sign) const;
    /// Each load on top of the weight, less what the weight alone does: a foot may lift.
    [[nodiscard]] std::vector<Stance> pushed(const std::vector<shell_fe::Loads>& loads) const;
    /// Feet that hold both ways, as where the tool is bolted or sticks.
    [[nodiscard]] std::vector<shell_fe::Solution> held(const std::vector<shell_fe::Loads>& loads) const;
    /// Free of its feet: loads that balance themselves, and heat.
    [[nodiscard]] shell_fe::Solution free(const shell_fe::Loads& load) const { return system().solve(load); }
    [[nodiscard]] const shell_fe::System& system() const { return ground_.system(); }

  private:
    OnFeet(std::shared_ptr<const shell_fe::System> system, const std::vector<std::uint32_t>& feet,
           std::vector<shell_fe::Support> three, Progress& progress);

    shell_fe::OnPlaces ground_;
    shell_fe::Solution weight_;  ///< on the three places
};

}  // namespace jig::back
