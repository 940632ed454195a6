// The face as control volumes round its points, and what flows between them.
#pragma once

#include <Eigen/SparseCholesky>

#include "core/science/flow/fill.hpp"

namespace jig {

/// Points, what each can hold, and what two neighbours exchange for a difference of pressure: Σ K·h over the
/// shape functions of linear triangles, which is what crosses the faces of the control volumes between them.
struct FlowNetwork {
    std::vector<double> volume;        ///< m³ of pores round each point
    std::vector<double> area;          ///< m² round each point
    std::vector<std::uint32_t> start;  ///< of each point's neighbours in the two lists behind it
    std::vector<std::uint32_t> to;
    std::vector<double> conducts;  ///< m³
    [[nodiscard]] std::size_t count() const { return volume.size(); }
};

FlowNetwork network_of(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces);

/// What a point is at a moment.
enum class FlowState : char { empty, wet, feed, vent, shut };

/// Pressures of the wet points between those that are held, by conjugate gradients with a symmetric sweep and
/// a coarse correction over patches of points.
class FlowPressure {
  public:
    explicit FlowPressure(const FlowNetwork& network);
    /// Solves Σ T·(p_i − p_j) = b_i on the wet points; all others keep their pressure, and nothing crosses to
    /// those that are shut. `p` is also the start. Until no point's flows miss theirs by more than `share` of
    /// its volume in a time of `step`.
    void solve(const std::vector<FlowState>& state, const std::vector<double>& b, double step, double share,
               std::vector<double>& p);
    /// The same more finely: goes on where `solve` ended, from the `p` that it left.
    void go_on(double step, double share, std::vector<double>& p);

  private:
    static constexpr std::uint32_t kNone = 0xffffffffu;
    /// The wet points as a system of their own, and what is left over of it at `p`.
    void gather(const std::vector<FlowState>& state, const std::vector<double>& b,
                const std::vector<double>& p);
    /// The coarse system, which serves several solves.
    void renew_patches();
    void coarsen();
    /// The sum of what `part` answers for all wet points, given as ranges of them.
    template <class Part>
    double in_parts(const Part& part) const;
    /// One sweep and the coarse correction, from r to z; r·z.
    double precondition();

    const FlowNetwork& net_;
    std::vector<std::uint32_t> patch_;  ///< of each point
    std::uint32_t patches_ = 0;
    std::vector<std::uint32_t> active_, place_;       ///< wet points, and where each stands among them
    std::vector<std::uint32_t> start_, middle_, to_;  ///< neighbours of each, those before it first
    std::vector<double> conducts_;
    std::vector<double> diagonal_, inverse_, leave_, r_, z_, d_, q_, x_;
    std::vector<std::uint32_t> number_, patch_of_;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower> coarse_;
    Eigen::VectorXd rough_, lift_;
    double coarse_for_ = 0;  ///< wet points when the coarse system was made
    int rounds_ = 0;         ///< of the last solve
    bool begun_ = false;     ///< whether it has a direction to go on from, and what that is worth
    double rz_ = 0;
    int coarse_rounds_ = 0;  ///< fewest of one with this coarse system
};

}  // namespace jig
