// A shell on places that push and do not pull.
#pragma once

#include <memory>
#include <optional>

#include "core/science/shell/system.hpp"

namespace jig::shell_fe {

/// Three of the places `on`, far apart, held along z and just enough sideways: nothing is strained by them.
/// The first of them stays where it is sideways, the one farthest from it on the line between them. None
/// where there are fewer, or none lies farther than `least` m off that line.
std::optional<std::vector<Support>> three_of(const std::vector<Point>& points,
                                             const std::vector<std::uint32_t>& on, double least);

/// How the shell takes one load.
struct Rested {
    Solution solution;        ///< `held` lists all places, with what each bears
    std::vector<char> bears;  ///< by place
    int lifted = 0;           ///< places that come off the ground
    bool stands = true;       ///< false: no three places are left to stand on, it tips or flies off
};

/// One factor of the shell on three places holds it free of strain; what each place does is a unit load on
/// it. Contact is then a small problem: each place pushes or hangs clear, the shell may tilt as a whole,
/// forces and moments balance (Signorini's conditions). Solved by exchanging at once all places that are on
/// the wrong side, and one at a time where that does not settle (Júdice and Pires 1994; Murty 1974).
class OnPlaces {
  public:
    /// `system` is held by `three` of the places. `up` is +1 where the ground lies under them and pushes
    /// along z, −1 where it lies over them. Cancelled.
    OnPlaces(std::shared_ptr<const System> system, std::vector<std::uint32_t> places,
             std::vector<Support> three, double up, Progress& progress);
    /// From what the load does on the three places. Without `may_lift` places hold both ways.
    [[nodiscard]] Rested settle(const Solution& loose, bool may_lift) const;
    [[nodiscard]] const System& system() const { return *system_; }
    [[nodiscard]] const std::shared_ptr<const System>& shared() const { return system_; }

  private:
    struct Reached;
    [[nodiscard]] std::optional<Reached> bear(const std::vector<char>& on, const Eigen::VectorXd& own,
                                              const Eigen::Vector3d& wanted) const;
    [[nodiscard]] std::optional<Reached> reach(const Solution& loose, bool may_lift, bool all_at_once) const;
    void hold_sideways(Solution& u) const;

    std::shared_ptr<const System> system_;
    std::vector<std::uint32_t> places_;
    std::vector<Support> three_;
    double up_;
    Eigen::MatrixXd unit_;  ///< freedoms under 1 N along z on each place, by column
    Eigen::MatrixXd flex_;  ///< m/N along z, of each place under each
    Eigen::MatrixXd arms_;  ///< of each place: 1, x, y
};

}  // namespace jig::shell_fe
