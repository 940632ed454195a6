#include "core/science/flow/settle.hpp"

#include <cmath>
#include <Eigen/IterativeLinearSolvers>
#include <Eigen/SparseCholesky>

#include "core/science/flow/network.hpp"

namespace jig {
namespace {

constexpr int kSteps = 12;
/// The last step over the first: what is steep at first is followed closely.
constexpr double kGrowth = 100;
/// Pa to which pressures are found.
constexpr double kNear = 5;
/// Of what a round begins with, what its equations may leave: next to what their slopes leave it is nothing.
constexpr double kLeaves = 1e-4;
/// A factor costs about as much as a dozen turns with it: where an earlier round's needs more turns than
/// this, one of its own pays for itself within a few rounds.
constexpr int kTurns = 5;
/// Of Alexander's (1977) two stages, of second order and L-stable.
const double kStage = 1 - std::sqrt(0.5);

using Slopes = Eigen::SparseMatrix<double>;

/// The factor of slopes of an earlier round, as a guide to those of this one: steps and slopes change little
/// by little, so that a few turns do what a factor of its own would.
class Guide {
  public:
    template <class Matrix>
    Guide& analyzePattern(const Matrix&) {
        return *this;
    }
    template <class Matrix>
    Guide& factorize(const Matrix&) {
        return *this;
    }
    template <class Matrix>
    Guide& compute(const Matrix&) {
        return *this;
    }
    [[nodiscard]] static Eigen::ComputationInfo info() { return Eigen::Success; }
    template <class Right>
    [[nodiscard]] Eigen::VectorXd solve(const Right& right) const {
        return factor_.solve(right);
    }
    void factor(const Slopes& slopes) {
        if (!known_) factor_.analyzePattern(slopes);
        known_ = true;
        factor_.factorize(slopes);
    }
    [[nodiscard]] bool known() const { return known_; }

  private:
    Eigen::SimplicialLDLT<Slopes> factor_;
    bool known_ = false;
};

class Settling {
  public:
    Settling(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, std::vector<double> start,
             const std::vector<char>& wet, const SettleRules& rules)
        : mesh_(mesh), rules_(rules), net_(network_of(mesh, faces)), p_(std::move(start)), wet_(wet) {
        const auto n = net_.count();
        cloth_.assign(n, 0);
        gives_.assign(n, 0);
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            const double third = mesh.area_vector2(f).norm() / 6;
            for (const auto i : mesh.triangles[f]) {
                cloth_[i] += third * faces[f].cloth;
                gives_[i] += third * faces[f].gives;
            }
        }
        for (std::size_t i = 0; i < n; ++i) gives_[i] = cloth_[i] > 0 ? gives_[i] / cloth_[i] : 0;
        lift_ = rules.density * rules.gravity;
        turns_.setTolerance(kLeaves);
    }

    /// m³ of resin at a point for which its cloth is thicker.
    [[nodiscard]] double over(std::size_t i) const { return cloth_[i] * (thick(i) - 1); }
    [[nodiscard]] double thick(std::size_t i) const {
        return wet_[i] ? thickened(gives_[i], p_[i], rules_) : 1;
    }
    [[nodiscard]] double over() const {
        double sum = 0;
        for (std::size_t i = 0; i < net_.count(); ++i) sum += over(i);
        return sum;
    }

    void go(const std::vector<std::uint32_t>& vents, Progress& progress) {
        const auto n = net_.count();
        number_.assign(n, kNone);
        std::vector<char> held(n, 0);
        for (const auto i : vents) held[i] = 1;
        for (std::size_t i = 0; i < n; ++i) {
            if (!wet_[i]) continue;
            if (held[i])
                p_[i] = rules_.vacuum;
            else if (net_.start[i] < net_.start[i + 1])
                number_[i] = static_cast<int>(free_.size()), free_.push_back(static_cast<std::uint32_t>(i));
        }
        if (free_.empty()) return;
        const double ratio = std::pow(kGrowth, 1.0 / (kSteps - 1));
        double step = rules_.flow_time * (ratio - 1) / (std::pow(ratio, kSteps) - 1);
        for (int k = 0; k < kSteps; ++k, step *= ratio) {
            progress.report(static_cast<double>(k) / kSteps, "letting the preform settle");
            const auto before = p_;
            take(step);
            double moved = 0;
            for (const auto i : free_) moved = std::max(moved, std::abs(p_[i] - before[i]));
            // Steps grow a hundredfold at most: what moves so little in one comes to little in all that
            // follow.
            if (moved < 0.02 * kNear) break;
        }
    }
    [[nodiscard]] std::vector<double> pressure() && { return std::move(p_); }

  private:
    static constexpr int kNone = -1;

    void take(double step) {
        std::vector<double> base(free_.size());
        for (std::size_t k = 0; k < free_.size(); ++k) base[k] = over(free_[k]);
        reach(base, kStage * step);
        for (std::size_t k = 0; k < free_.size(); ++k)
            base[k] += (1 - kStage) / kStage * (over(free_[k]) - base[k]);
        reach(base, kStage * step);
    }

    /// Pressures at which what lies over is `base` and what flows at them for `step`.
    void reach(const std::vector<double>& base, double step) {
        const auto m = static_cast<Eigen::Index>(free_.size());
        for (int round = 0; round < 40; ++round) {
            std::vector<Eigen::Triplet<double>> entries;
            Eigen::VectorXd left(m);
            double worst = 0;
            for (std::size_t k = 0; k < free_.size(); ++k) {
                const auto i = free_[k];
                const auto row = static_cast<int>(k);
                const double now = thick(i);
                double stiff = gives_[i] * cloth_[i] * now / load(i), held = 0;
                double out = cloth_[i] * (now - 1) - base[k];
                for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                    const auto j = net_.to[e];
                    if (!wet_[j]) continue;
                    const double T = step * net_.conducts[e];
                    out += T * (p_[i] - p_[j] + lift_.dot(mesh_.points[j] - mesh_.points[i]));
                    stiff += T;
                    held += T;
                    if (number_[j] != kNone && number_[j] < row) entries.emplace_back(row, number_[j], -T);
                }
                // What neither gives nor is drawn on has a pressure that nothing tells: it keeps its own.
                entries.emplace_back(row, row, stiff + 1e-9 * held);
                left[row] = -out;
            }
            Slopes slopes(m, m);
            slopes.setFromTriplets(entries.begin(), entries.end());
            const Eigen::VectorXd change = solved(slopes, left);
            for (std::size_t k = 0; k < free_.size(); ++k) {
                const auto i = free_[k];
                // Never past what the room itself could press.
                const double to = std::min(p_[i] + change[static_cast<Eigen::Index>(k)], rules_.room);
                worst = std::max(worst, std::abs(to - p_[i]));
                p_[i] = to;
            }
            // A round leaves next to nothing of its change.
            if (worst < kNear) break;
        }
    }

    Eigen::VectorXd solved(const Slopes& slopes, const Eigen::VectorXd& right) {
        auto& guide = turns_.preconditioner();
        if (!guide.known() || turns_.iterations() > kTurns) guide.factor(slopes);
        turns_.compute(slopes);
        return turns_.solve(right);
    }

    [[nodiscard]] double load(std::size_t i) const { return std::max(rules_.room - p_[i], rules_.least); }

    const TriangleMesh& mesh_;
    const SettleRules& rules_;
    FlowNetwork net_;
    std::vector<double> p_;
    const std::vector<char>& wet_;
    std::vector<double> cloth_;  ///< m³ of cloth round each point under full load
    std::vector<double> gives_;
    Point lift_;
    std::vector<int> number_;
    std::vector<std::uint32_t> free_;
    Eigen::ConjugateGradient<Slopes, Eigen::Lower, Guide> turns_;
};

}  // namespace

double thickened(double gives, double pressure, const SettleRules& rules) {
    const double full = std::max(rules.room - rules.vacuum, rules.least);
    return std::pow(std::max(rules.room - pressure, rules.least) / full, -gives);
}

SettledPlies settle(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, std::vector<double> start,
                    const std::vector<char>& wet, const std::vector<std::uint32_t>& vents,
                    const SettleRules& rules, Progress& progress) {
    Settling run(mesh, faces, std::move(start), wet, rules);
    SettledPlies out;
    out.over = run.over();
    const auto thick = [&] {
        std::vector<double> all(mesh.points.size());
        for (std::size_t i = 0; i < all.size(); ++i) all[i] = run.thick(i);
        return all;
    };
    out.thick_begin = thick();
    if (rules.flow_time > 0) run.go(vents, progress);
    out.thick = thick();
    out.drawn = out.over - run.over();
    out.pressure = std::move(run).pressure();
    return out;
}

}  // namespace jig
