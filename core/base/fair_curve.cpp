#include "core/base/fair_curve.hpp"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <Eigen/Dense>

namespace jig {

FairCurve::FairCurve(std::vector<double> x, const std::vector<double>& y, double stiffness)
    : x_(std::move(x)), value_(y), bend_(x_.size(), 0.0) {
    assert(x_.size() >= 2 && x_.size() == y.size());
    const auto n = static_cast<Eigen::Index>(x_.size());
    if (n < 3) return;
    const auto gap = [&](Eigen::Index i) {
        return x_[static_cast<std::size_t>(i + 1)] - x_[static_cast<std::size_t>(i)];
    };
    // Q holds second differences, R the overlaps of the bends' tents.
    Eigen::MatrixXd Q = Eigen::MatrixXd::Zero(n, n - 2), R = Eigen::MatrixXd::Zero(n - 2, n - 2);
    for (Eigen::Index j = 0; j + 2 < n; ++j) {
        Q(j, j) = 1 / gap(j);
        Q(j + 1, j) = -1 / gap(j) - 1 / gap(j + 1);
        Q(j + 2, j) = 1 / gap(j + 1);
        R(j, j) = (gap(j) + gap(j + 1)) / 3;
        if (j + 3 < n) R(j, j + 1) = R(j + 1, j) = gap(j + 1) / 6;
    }
    const double range = x_.back() - x_.front(), weight = stiffness * range * range * range;
    const Eigen::Map<const Eigen::VectorXd> given(y.data(), n);
    const Eigen::VectorXd bends = (R + weight * Q.transpose() * Q).ldlt().solve(Q.transpose() * given);
    const Eigen::VectorXd faired = given - weight * (Q * bends);
    for (Eigen::Index i = 0; i < n; ++i) value_[static_cast<std::size_t>(i)] = faired[i];
    for (Eigen::Index i = 0; i + 2 < n; ++i) bend_[static_cast<std::size_t>(i + 1)] = bends[i];
}

std::size_t FairCurve::span(double x) const {
    const auto after = std::upper_bound(x_.begin(), x_.end(), x) - x_.begin();
    return static_cast<std::size_t>(
        std::clamp<std::ptrdiff_t>(after - 1, 0, static_cast<std::ptrdiff_t>(x_.size()) - 2));
}

double FairCurve::at(double x) const {
    const auto i = span(x);
    const double h = x_[i + 1] - x_[i], b = std::clamp((x - x_[i]) / h, 0.0, 1.0), a = 1 - b;
    return a * value_[i] + b * value_[i + 1] +
           ((a * a * a - a) * bend_[i] + (b * b * b - b) * bend_[i + 1]) * h * h / 6;
}

double FairCurve::bend(double x) const {
    const auto i = span(x);
    const double b = std::clamp((x - x_[i]) / (x_[i + 1] - x_[i]), 0.0, 1.0);
    return (1 - b) * bend_[i] + b * bend_[i + 1];
}

int FairCurve::humps(double share) const {
    double largest = 0;
    for (const double b : bend_) largest = std::max(largest, std::abs(b));
    int count = 0;
    double last = 0;
    for (const double b : bend_) {
        if (std::abs(b) <= share * largest) continue;
        count += last * b < 0 ? 1 : 0;
        last = b;
    }
    return count;
}

}  // namespace jig
