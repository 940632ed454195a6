#include "core/science/shell/rigid.hpp"

#include <fmt/format.h>

#include <cmath>
#include <Eigen/Dense>
#include <numeric>

namespace jig::shell_fe {
namespace {

using Matrix6 = Eigen::Matrix<double, 6, 6>;
using Vector6 = Eigen::Matrix<double, 6, 1>;

/// Points that hang together, by their lowest number.
std::vector<std::uint32_t> parts_of(const Model& model) {
    std::vector<std::uint32_t> parent(model.mesh.points.size());
    std::iota(parent.begin(), parent.end(), 0U);
    const auto root = [&](std::uint32_t i) {
        while (parent[i] != i) i = parent[i] = parent[parent[i]];
        return i;
    };
    const auto join = [&](std::uint32_t a, std::uint32_t b) {
        a = root(a);
        b = root(b);
        parent[std::max(a, b)] = std::min(a, b);
    };
    for (const auto& t : model.mesh.triangles) {
        join(t[0], t[1]);
        join(t[1], t[2]);
    }
    for (const auto& bar : model.bars) join(bar.a, bar.b);
    for (const auto& tie : model.ties) join(tie.a, tie.b);
    for (std::uint32_t i = 0; i < parent.size(); ++i) parent[i] = root(i);
    return parent;
}

std::string said(const Vector6& motion, const Point& middle) {
    const Point turn = motion.tail<3>(), shift = motion.head<3>();
    const auto way = [](Point p) {
        p.normalize();
        for (int i = 0; i < 3; ++i) p[i] = std::abs(p[i]) < 5e-4 ? 0 : p[i];
        return fmt::format("({:.3g}, {:.3g}, {:.3g})", p.x(), p.y(), p.z());
    };
    if (turn.norm() < 1e-6) return "shift along " + way(shift);
    // The axis passes where turning and shifting cancel.
    const Point axis = turn.normalized(), at = middle + turn.cross(shift) / turn.squaredNorm();
    return "turn about " + way(axis) +
           fmt::format(" through ({:.3g}, {:.3g}, {:.3g}) m", at.x(), at.y(), at.z());
}

}  // namespace

std::optional<std::string> free_motion(const Model& model, const std::vector<char>& held) {
    const auto part = parts_of(model);
    std::vector<char> used(model.mesh.points.size(), 0);
    for (const auto& t : model.mesh.triangles) {
        for (const auto i : t) used[i] = 1;
    }
    for (const auto& bar : model.bars) used[bar.a] = used[bar.b] = 1;
    for (const auto& tie : model.ties) used[tie.a] = used[tie.b] = 1;
    struct Sum {
        Point middle = Point::Zero();
        double points = 0, size = 0;
        Matrix6 rows = Matrix6::Zero();
    };
    std::vector<std::pair<std::uint32_t, Sum>> sums;
    std::vector<std::size_t> of(part.size(), 0);
    for (std::uint32_t i = 0; i < part.size(); ++i) {
        if (!used[i]) continue;
        if (part[i] == i) {
            of[i] = sums.size();
            sums.emplace_back(i, Sum{});
        }
        of[i] = of[part[i]];
        auto& sum = sums[of[i]].second;
        sum.middle += model.mesh.points[i];
        sum.points += 1;
    }
    for (auto& [first, sum] : sums) sum.middle /= sum.points;
    for (std::uint32_t i = 0; i < part.size(); ++i) {
        if (!used[i]) continue;
        auto& sum = sums[of[i]].second;
        sum.size = std::max(sum.size, (model.mesh.points[i] - sum.middle).norm());
    }
    for (std::uint32_t i = 0; i < part.size(); ++i) {
        if (!used[i]) continue;
        auto& sum = sums[of[i]].second;
        const Point arm = (model.mesh.points[i] - sum.middle) / std::max(1e-12, sum.size);
        for (int k = 0; k < 6; ++k) {
            if (!held[6 * std::size_t{i} + static_cast<std::size_t>(k)]) continue;
            // What this freedom does in each of three shifts and three turns about the middle.
            Vector6 row = Vector6::Zero();
            if (k < 3) {
                row[k] = 1;
                row.tail<3>() = arm.cross(Point::Unit(k));
            } else {
                row[k] = 1;
            }
            sum.rows += row * row.transpose();
        }
    }
    for (const auto& [first, sum] : sums) {
        const Eigen::SelfAdjointEigenSolver<Matrix6> modes(sum.rows);
        if (modes.eigenvalues()[0] > 1e-10 * std::max(1.0, modes.eigenvalues()[5])) continue;
        Vector6 motion = modes.eigenvectors().col(0);
        motion.tail<3>() /= std::max(1e-12, sum.size);
        if (motion.tail<3>().norm() * sum.size < 1e-5) motion.tail<3>().setZero();
        return said(motion, sum.middle) +
               (sums.size() > 1 ? fmt::format(", one of {} parts that hang together", sums.size())
                                : std::string());
    }
    return std::nullopt;
}

}  // namespace jig::shell_fe
