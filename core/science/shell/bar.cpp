#include "core/science/shell/bar.hpp"

#include <tuple>

#include "core/base/error.hpp"

namespace jig::shell_fe {
namespace {

/// Rows: along the bar, towards its `up`, across. Throws InputError where they cannot be told.
Eigen::Matrix3d axes_of(const Bar& bar, const Point& a, const Point& b) {
    const double L = (b - a).norm();
    const Point x = L > 0 ? Point((b - a) / L) : Point::UnitX();
    const Point across = bar.up - bar.up.dot(x) * x;
    if (!(L > 0) || !(across.norm() > 1e-9 * bar.up.norm()))
        throw InputError("bar", "its ends fall together or it points along its own upright",
                         "look at the mesh it stands on");
    const Point y = across.normalized(), z = x.cross(y);
    Eigen::Matrix3d axes;
    axes << x.transpose(), y.transpose(), z.transpose();
    return axes;
}

Matrix12 in_the_world(const Matrix12& K, const Eigen::Matrix3d& axes) {
    Matrix12 T = Matrix12::Zero();
    for (int i = 0; i < 12; i += 3) T.block<3, 3>(i, i) = axes;
    return T.transpose() * K * T;
}

}  // namespace

Matrix12 bar_stress_stiffness(const Bar& bar, const Point& a, const Point& b, double force) {
    const double L = (b - a).norm(), s = force / (30 * L);
    Matrix12 K = Matrix12::Zero();
    // Sideways both ways; the sign says which way a turn lifts the far end.
    for (const auto& [move, turn, sign] : {std::tuple{1, 5, 1.0}, std::tuple{2, 4, -1.0}}) {
        for (const int end : {0, 6}) {
            for (const int other : {0, 6}) {
                K(move + end, move + other) += (end == other ? 36 : -36) * s;
                K(turn + end, turn + other) += (end == other ? 4 : -1) * L * L * s;
                const double both = (end == 0 ? 3 : -3) * L * s * sign;
                K(move + end, turn + other) += both;
                K(turn + other, move + end) += both;
            }
        }
    }
    return in_the_world(K, axes_of(bar, a, b));
}

Matrix12 bar_stiffness(const Bar& bar, const Point& a, const Point& b) {
    const auto axes = axes_of(bar, a, b);
    const double L = (b - a).norm();
    Matrix12 K = Matrix12::Zero();
    const auto pair = [&](int i, double k) {
        K(i, i) += k;
        K(i + 6, i + 6) += k;
        K(i, i + 6) -= k;
        K(i + 6, i) -= k;
    };
    pair(0, bar.stretch / L);
    pair(3, bar.twist / L);
    // Bending: `move` goes with `turn`, whose sign says which way a turn lifts the far end.
    const auto bend = [&](int move, int turn, double EI, double sign) {
        const double s = EI / (L * L * L);
        pair(move, 12 * s);
        for (const int end : {0, 6}) {
            K(turn + end, turn + end) += 4 * s * L * L;
            for (const int other : {0, 6}) {
                const double shear = (other == 0 ? 6 : -6) * s * L * sign;
                K(move + other, turn + end) += shear;
                K(turn + end, move + other) += shear;
            }
        }
        K(turn, turn + 6) += 2 * s * L * L;
        K(turn + 6, turn) += 2 * s * L * L;
    };
    bend(1, 5, bar.bend_up, 1);
    bend(2, 4, bar.bend_across, -1);
    return in_the_world(K, axes);
}

Vector12 bar_warming(const Bar& bar, const Point& a, const Point& b) {
    Vector12 out = Vector12::Zero();
    const Point pull = bar.stretch * bar.alpha * (b - a).normalized();
    out.segment<3>(0) = -pull;
    out.segment<3>(6) = pull;
    return out;
}

}  // namespace jig::shell_fe
