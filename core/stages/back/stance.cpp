#include "core/stages/back/stance.hpp"

#include <algorithm>

namespace jig::back {

using shell_fe::Loads;
using shell_fe::Solution;

namespace {

/// The ground is above the tool as it is drawn: it pushes against the pull.
constexpr double kUp = -1;

void add(Solution& to, const Solution& what, double times) {
    to.freedoms += times * what.freedoms;
    to.reactions += times * what.reactions;
}

Stance stance_of(shell_fe::Rested rested) {
    return {std::move(rested.solution), rested.lifted, !rested.stands};
}

}  // namespace

OnFeet::OnFeet(std::shared_ptr<const shell_fe::System> system, const std::vector<std::uint32_t>& feet,
               std::vector<shell_fe::Support> three, Progress& progress)
    : ground_(std::move(system), feet, std::move(three), kUp, progress),
      weight_(ground_.system().solve(Bench::weight(1))) {}

OnFeet::OnFeet(const Bench& bench, const std::vector<std::uint32_t>& feet, Progress& progress)
    : OnFeet(std::make_shared<const shell_fe::System>(bench.tool().model, three_of(bench.points(), feet),
                                                      progress),
             feet, three_of(bench.points(), feet), progress) {}

OnFeet::OnFeet(const OnFeet& same, const std::vector<std::uint32_t>& feet, Progress& progress)
    : OnFeet(same.ground_.shared(), feet, three_of(same.system().model().mesh.points, feet), progress) {}

Stance OnFeet::standing(double sign) const {
    auto loose = weight_;
    loose.freedoms *= sign;
    loose.reactions *= sign;
    for (auto& [point, force] : loose.held) force *= sign;
    return stance_of(ground_.settle(loose, sign > 0));
}

std::vector<Stance> OnFeet::pushed(const std::vector<Loads>& loads) const {
    const auto rest = standing(1);
    std::vector<Stance> out;
    for (auto& load : system().solve(loads)) {
        add(load, weight_, 1);
        for (const auto& more : weight_.held) {
            const auto at = std::find_if(load.held.begin(), load.held.end(),
                                         [&](const auto& h) { return h.first == more.first; });
            if (at == load.held.end())
                load.held.push_back(more);
            else
                at->second += more.second;
        }
        auto stance = stance_of(ground_.settle(load, true));
        // Held feet under both loads less held feet under one is the load alone.
        const auto& less = stance.tips ? ground_.settle(weight_, false).solution : rest.solution;
        add(stance.solution, less, -1);
        stance.solution.measure();
        out.push_back(std::move(stance));
    }
    return out;
}

std::vector<Solution> OnFeet::held(const std::vector<Loads>& loads) const {
    std::vector<Solution> out;
    for (const auto& load : system().solve(loads)) out.push_back(ground_.settle(load, false).solution);
    return out;
}

}  // namespace jig::back
