#include "core/science/shell/bar.hpp"

#include "core/base/error.hpp"

namespace jig::shell_fe {

Matrix12 bar_stiffness(const Bar& bar, const Point& a, const Point& b) {
    const double L = (b - a).norm();
    const Point x = L > 0 ? Point((b - a) / L) : Point::UnitX();
    const Point across = bar.up - bar.up.dot(x) * x;
    if (!(L > 0) || !(across.norm() > 1e-9 * bar.up.norm()))
        throw InputError("bar", "its ends fall together or it points along its own upright",
                         "look at the mesh it stands on");
    const Point y = across.normalized(), z = x.cross(y);
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
    Eigen::Matrix3d axes;
    axes << x.transpose(), y.transpose(), z.transpose();
    Matrix12 T = Matrix12::Zero();
    for (int i = 0; i < 12; i += 3) T.block<3, 3>(i, i) = axes;
    return T.transpose() * K * T;
}

Vector12 bar_warming(const Bar& bar, const Point& a, const Point& b) {
    Vector12 out = Vector12::Zero();
    const Point pull = bar.stretch * bar.alpha * (b - a).normalized();
    out.segment<3>(0) = -pull;
    out.segment<3>(6) = pull;
    return out;
}

}  // namespace jig::shell_fe
