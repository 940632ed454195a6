// The tool on feet that push and do not pull.
#pragma once

#include <memory>

#include "core/stages/back/bench.hpp"

namespace jig::back {

/// How the tool takes one load.
struct Stance {
    shell_fe::Solution solution;
    int lifted = 0;     ///< feet that come off the ground
    bool tips = false;  ///< no three feet are left to stand on: the solution is that of held feet
};

/// One factor of the tool on three places holds it free of strain; what each foot does is a unit load on it.
/// Contact is then a small problem: each foot pushes or hangs clear, the tool may tilt as a whole, forces and
/// moments balance. Solved by an active set.
class OnFeet {
  public:
    /// Throws InputError where the tool would fall over; Cancelled.
    OnFeet(const Bench& bench, const std::vector<std::uint32_t>& feet, Progress& progress);
    /// The same tool on other feet, by the factor that there is. Throws as above.
    OnFeet(const OnFeet& same, const std::vector<std::uint32_t>& feet);

    /// Own weight with feet that may lift; `sign` as in Bench::weight.
    [[nodiscard]] Stance standing(double sign) const;
    /// Each load on top of the weight, less what the weight alone does: a foot may lift.
    [[nodiscard]] std::vector<Stance> pushed(const std::vector<shell_fe::Loads>& loads) const;
    /// Feet that hold both ways, as where the tool is bolted or sticks.
    [[nodiscard]] std::vector<shell_fe::Solution> held(const std::vector<shell_fe::Loads>& loads) const;
    /// Free of its feet: loads that balance themselves, and heat.
    [[nodiscard]] shell_fe::Solution free(const shell_fe::Loads& load) const { return system_->solve(load); }
    [[nodiscard]] const shell_fe::System& system() const { return *system_; }

  private:
    struct Reached;
    [[nodiscard]] Reached reach(const shell_fe::Solution& loose, bool may_lift) const;
    [[nodiscard]] Stance settled(const shell_fe::Solution& loose, bool may_lift) const;
    void push_each_foot();
    void hold_sideways(shell_fe::Solution& u) const;

    const std::vector<Point>& points_;
    std::vector<std::uint32_t> feet_;
    std::vector<shell_fe::Support> three_;  ///< of the feet
    std::shared_ptr<const shell_fe::System> system_;
    std::vector<shell_fe::Solution> unit_;  ///< 1 N along the pull on each foot
    shell_fe::Solution weight_;             ///< on the three places
};

}  // namespace jig::back
