// Which points are wet at the end of a step, and at what pressures.
#pragma once

#include <optional>
#include <vector>

#include "core/science/flow/pockets.hpp"

namespace jig {

/// The resin in a preform at a moment, and the step from there to the next: one linear complementarity
/// problem, in which a point is wet and full, or at the vents' pressure and not.
class Wetting {
  public:
    /// Mesh must outlive this.
    Wetting(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
            const std::vector<Vent>& vents, const FlowRules& rules);
    Wetting(const Wetting&) = delete;  // its pressures look at its network
    Wetting& operator=(const Wetting&) = delete;

    /// What a step may begin with afresh.
    struct Moment {
        std::vector<double> full, p;
        std::vector<FlowState> state;
    };
    [[nodiscard]] Moment now() const { return {full, p, state}; }

    /// From `moment` on over a step of flow time; false where wet and dry do not settle.
    bool step(const Moment& moment, double step);
    /// The pressures of the step that was last tried once more, lest crumbs are left that cost a step each.
    void finely(double step);
    /// Where that step fills all there is: the shorter one that just does, and the point that it wets last.
    struct Full {
        std::optional<double> step;
        std::optional<std::uint32_t> last;
    };
    Full just_full(const Moment& before, double step);
    /// Takes the step that was last tried.
    void take(const Moment& before, double step);

    [[nodiscard]] bool is_full(std::size_t i) const { return jig::is_full(state[i], full[i]); }
    [[nodiscard]] bool done() const;
    /// Of the preform's volume; crumbs lie over as well as short.
    [[nodiscard]] double share() const;
    /// m³·Pa per unit of flow time from i to its neighbour on edge e.
    [[nodiscard]] double flow(std::uint32_t i, std::uint32_t e) const {
        const auto j = net.to[e];
        return net.conducts[e] * (p[i] - p[j] + lift_.dot(mesh_.points[j] - mesh_.points[i]));
    }
    /// Whether resin crosses between two neighbours at all.
    [[nodiscard]] bool crosses(std::uint32_t i, std::uint32_t j) const {
        if (state[i] == FlowState::shut || state[j] == FlowState::shut) return false;
        const auto source = [&](std::uint32_t k) {
            return state[k] == FlowState::wet || state[k] == FlowState::feed;
        };
        return source(i) || source(j);
    }
    /// What the preform takes up at the pressures of this moment, m³ per unit of flow time: what the front
    /// gets, or what feeds give less what runs off by vents that are full, whichever is more. With falling
    /// resin the front alone may stand still for a step.
    [[nodiscard]] double uptake() const;
    /// m³ by which the front goes on in the step; what solves left over behind it is none of it.
    [[nodiscard]] double gained(const Moment& before) const;
    /// m³ that are not filled yet.
    [[nodiscard]] double room(const Moment& at) const;
    /// How full a point is at the step's end.
    [[nodiscard]] double after(std::size_t i) const;

    FlowNetwork net;
    std::vector<FlowState> state;
    std::vector<double> full;  ///< share of each point's volume
    std::vector<double> p;     ///< Pa
    std::vector<double> gain;  ///< m³ that each point that is not wet takes up in the step
    std::vector<double> own;   ///< share of each point's volume that lies round it, not amid its vent
    double whole = 0;          ///< m³ of pores
    /// Points amid a vent, and the one at its edge with which each is wet.
    std::vector<std::pair<std::uint32_t, std::uint32_t>> amid;

  private:
    void flood(const std::vector<Feed>& feeds);
    bool settle(double step);
    [[nodiscard]] double least(std::uint32_t i) const;
    [[nodiscard]] double lacks(std::uint32_t i, double step) const;
    void sweep_front(double step);
    bool relax(std::uint32_t i, double step);
    bool change(double step, bool may_dry);
    bool hold_back();
    [[nodiscard]] bool sound() const;
    void rest();
    void gains(double step);
    [[nodiscard]] std::uint32_t count() const { return static_cast<std::uint32_t>(state.size()); }

    const TriangleMesh& mesh_;
    std::vector<double> all_conducts_;  ///< while gravity shuts some of them for a step
    FlowPressure pressure_;
    std::vector<double> b_;
    std::vector<double> last_p_;  ///< pressures a step ago
    double last_step_ = 0;
    std::vector<std::uint32_t> band_;  ///< points along the front, and how far each lies from it
    std::vector<std::uint8_t> depth_;
    std::vector<std::uint32_t> resting_;  ///< wet points that stand still for a step
    bool cut_ = false;                    ///< whether ways are shut for this step
    Point lift_ = Point::Zero();
    double lowest_ = 0, scale_ = 1;
    double cell_head_ = 0;  ///< Pa, the most between two neighbours
};

}  // namespace jig
