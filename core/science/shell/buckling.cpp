// Linear buckling: brackets by Sturm's count, the shape by inverse iteration.
#include <algorithm>
#include <cmath>
#include <Eigen/Eigenvalues>
#include <optional>

#include "core/base/parallel.hpp"
#include "core/science/shell/bar.hpp"
#include "core/science/shell/inside.hpp"

namespace jig::shell_fe {
namespace {

/// The largest positive μ of M·y = μ·(K + σ·K_σ)·y, M = −K_σ, by subspace iteration on a factor of K + σ·K_σ;
/// λ = σ + 1/μ. Nothing where none of the iterated shapes has one.
struct Shape {
    double mu = 0;
    Eigen::VectorXd vector;
};
std::optional<Shape> iterated(const Stiffness& stress, Factor& factor, int rows, Progress& progress) {
    constexpr int kShapes = 12, kRounds = 60;
    const int shapes = std::min(kShapes, rows);
    const auto times = [&](const Eigen::MatrixXd& X) {
        Eigen::MatrixXd Y(rows, shapes);
        parallel_shares(
            static_cast<std::size_t>(shapes), 1, [&](std::size_t begin, std::size_t end, unsigned) {
                for (auto j = static_cast<Eigen::Index>(begin); j < static_cast<Eigen::Index>(end); ++j)
                    Y.col(j) = stress.times(X.col(j));
            });
        return Y;
    };
    Eigen::MatrixXd X(rows, shapes);
    for (int j = 0; j < shapes; ++j) {
        for (int i = 0; i < rows; ++i) X(i, j) = std::sin(0.7 * (i + 1) * (j + 1) + j);
    }
    Shape best;
    double last = 0;
    for (int round = 0; round < kRounds; ++round) {
        progress.report(static_cast<double>(round) / kRounds, "looking for buckling");
        const Eigen::MatrixXd Y = times(X);
        X = factor.solve(Y);
        // (K + σ·K_σ)·X is Y.
        const Eigen::MatrixXd k = X.transpose() * Y, m = X.transpose() * times(X);
        const Eigen::MatrixXd ks = (k + k.transpose()) / 2, ms = (m + m.transpose()) / 2;
        Eigen::LLT<Eigen::MatrixXd> whole(ks);
        if (whole.info() != Eigen::Success) break;
        const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::MatrixXd> reduced(ms, ks);
        if (reduced.info() != Eigen::Success) break;
        X = X * reduced.eigenvectors();
        for (int j = 0; j < shapes; ++j) X.col(j) /= std::max(1e-300, X.col(j).cwiseAbs().maxCoeff());
        best.mu = reduced.eigenvalues()[shapes - 1];
        best.vector = X.col(shapes - 1);
        if (std::abs(best.mu - last) < 1e-7 * std::abs(best.mu)) break;
        last = best.mu;
    }
    if (!(best.mu > 0)) return std::nullopt;
    return best;
}

}  // namespace

System::Buckling System::buckling(const Solution& solution, double warming, Progress& progress,
                                  double most) const {
    const auto& in = *inside_;
    // Forces in the middle planes, with what warming would have done freely taken off.
    auto stress = *in.matrix;
    std::fill(stress.value.begin(), stress.value.end(), 0.0);
    for (std::size_t f = 0; f < in.mesh().triangles.size(); ++f) {
        const auto& s = in.sections[in.model.skin_of(f)];
        const auto e = strain(f, solution);
        const Eigen::Vector3d N = s.A * e.middle + s.B * e.curvature - warming * s.N_T;
        // What is added to K·φ on the left stands on the right with the other sign.
        const Matrix18 K = -in.element(f).stress_stiffness(N);
        stress.add(in.mesh().triangles[f], K.data());
    }
    for (const auto& bar : in.model.bars) {
        const Point &p = in.point(bar.a), &q = in.point(bar.b);
        const Point along = (q - p).normalized();
        const double stretched = (solution.displacement(bar.b) - solution.displacement(bar.a)).dot(along);
        const double force = bar.stretch * (stretched / (q - p).norm() - bar.alpha * warming);
        const Matrix12 K = -bar_stress_stiffness(bar, p, q, force);
        stress.add(std::array{bar.a, bar.b}, K.data());
    }
    const int rows = in.matrix->rows;
    // `stress` holds −K_σ.
    auto shifted = *in.matrix;
    Factor trial;
    if (!trial.compute(shifted)) return {};
    const auto below = [&](double factor) {
        progress.check();
        for (std::size_t i = 0; i < shifted.value.size(); ++i)
            shifted.value[i] = in.matrix->value[i] - factor * stress.value[i];
        return trial.definite(shifted);
    };
    Buckling out;
    constexpr double kClose = 1e-3;
    double low = 0, high = 0;  // no factor lies below `low`; one lies below `high`
    const auto settle = [&](double shift) {
        // One factor lies above `shift`, the nearest of all: inverse iteration about it finds it.
        if (!below(shift)) return false;
        const auto shape = iterated(stress, trial, rows, progress);
        if (!shape) return false;
        const double found = shift + 1 / shape->mu;
        if (found > most || (high > 0 && found > high * (1 + kClose))) return false;
        if (!below(shift + (found - shift) * (1 - kClose)) || below(shift + (found - shift) * (1 + kClose)))
            return false;
        out.factor = found;
        out.none_below = found * (1 - kClose);
        out.shape = shape->vector;
        return true;
    };
    double scale = 0;  // of the stiffness against that of the stress
    for (int c = 0; c < rows; ++c) {
        const auto at = static_cast<std::size_t>(in.matrix->first[static_cast<std::size_t>(c)]);
        if (stress.value[at] != 0)
            scale = std::max(scale, std::abs(stress.value[at]) / std::max(1e-300, in.matrix->value[at]));
    }
    if (!(scale > 0)) {
        out.none_below = most;
        return out;
    }
    // One factor that lies nowhere up to `most` is soon proved, and most structures are asked for no more.
    if (below(most)) {
        out.none_below = most;
        return out;
    }
    if (!settle(0)) {
        // Bracket it: no factor can lie far below what the largest entries would give.
        double step = std::min(most, 0.01 / scale);
        for (; step < most && below(step); step *= 4) low = step;
        step = std::min(step, most);
        high = step;
        for (int round = 0; round < 60 && !(low > 0 && settle(low)); ++round) {
            if (high / std::max(low, 1e-12 * high) < 1 + kClose) {
                out.factor = (low + high) / 2;
                break;
            }
            const double middle = low > 0 ? std::sqrt(low * high) : high / 16;
            (below(middle) ? low : high) = middle;
        }
        if (out.none_below == 0) out.none_below = low;
    }
    out.shape = in.whole(out.shape.size() == rows ? out.shape : Eigen::VectorXd::Zero(rows));
    double largest = 0;
    for (std::size_t i = 0; i < in.mesh().points.size(); ++i)
        largest = std::max(largest, out.shape.segment<3>(static_cast<Eigen::Index>(6 * i)).norm());
    if (largest > 0) out.shape /= largest;
    return out;
}

}  // namespace jig::shell_fe
