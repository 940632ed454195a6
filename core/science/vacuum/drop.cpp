#include "core/science/vacuum/drop.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace jig {
namespace {

/// A bend counts where it stands out of its own standard error by so much (two-sided, about 1 in 100 by
/// chance).
constexpr double kStandsOut = 2.6;

}  // namespace

std::optional<DropFit> fit_drop(std::vector<DropReading> readings) {
    std::sort(readings.begin(), readings.end(),
              [](const DropReading& a, const DropReading& b) { return a.seconds < b.seconds; });
    const auto n = static_cast<Eigen::Index>(readings.size());
    if (n < 2 || !(readings.back().seconds > readings.front().seconds)) return std::nullopt;
    DropFit out;
    out.readings = static_cast<int>(n);
    out.seconds = readings.back().seconds - readings.front().seconds;
    // Time counted from the middle, in lengths of the test: line and bend then hardly mix.
    const double start = readings.front().seconds;
    Eigen::VectorXd t(n), p(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const auto& r = readings[static_cast<std::size_t>(i)];
        t[i] = (r.seconds - start) / out.seconds - 0.5;
        p[i] = r.pressure;
    }
    Eigen::MatrixXd line(n, 2);
    line << Eigen::VectorXd::Ones(n), t;
    const Eigen::Vector2d straight = line.colPivHouseholderQr().solve(p);
    out.rise = straight[1] / out.seconds;
    out.from = straight[0] - 0.5 * straight[1];
    if (n > 2) {
        const double left = (p - line * straight).squaredNorm() / static_cast<double>(n - 2);
        out.scatter = std::sqrt(left);
        const double spread = std::sqrt(left / (t.array() - t.mean()).square().sum());
        out.spread = spread / out.seconds;
    }
    if (n >= 5) {
        Eigen::MatrixXd curve(n, 3);
        curve << Eigen::VectorXd::Ones(n), t, t.cwiseAbs2();
        const Eigen::Vector3d bent = curve.colPivHouseholderQr().solve(p);
        const double left = (p - curve * bent).squaredNorm() / static_cast<double>(n - 3);
        const Eigen::Matrix3d inverse = (curve.transpose() * curve).inverse();
        const double error = std::sqrt(std::max(0.0, left * inverse(2, 2)));
        // Slopes at both ends of the test: b ∓ c.
        const double first = bent[1] - bent[2], last = bent[1] + bent[2];
        const double steepest = std::max(first, last);
        if (std::abs(bent[2]) > kStandsOut * error && std::abs(bent[2]) > 1e-9 * p.cwiseAbs().maxCoeff() &&
            steepest > 0)
            out.flattens = (first - last) / steepest;
    }
    return out;
}

}  // namespace jig
