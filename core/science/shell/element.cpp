#include "core/science/shell/element.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/LU>

#include "core/base/error.hpp"

namespace jig::shell_fe {
namespace {

constexpr std::array<int, 3> kNext{1, 2, 0}, kLast{2, 0, 1};

/// Three points at the sides' middles integrate what is quadratic exactly.
const std::array<Eigen::Vector3d, 3>& gauss() {
    static const std::array<Eigen::Vector3d, 3> points{
        Eigen::Vector3d(0.5, 0.5, 0), Eigen::Vector3d(0, 0.5, 0.5), Eigen::Vector3d(0.5, 0, 0.5)};
    return points;
}

/// B·D·Bᵀ, added up in place: so small a product is slower by a matrix library's blocks than written out.
template <int N>
Eigen::Matrix<double, 9, 9> squared(const Eigen::Matrix<double, 9, N>& B,
                                    const Eigen::Matrix<double, N, N>& D) {
    const Eigen::Matrix<double, 9, N> BD = B.lazyProduct(D);
    return BD.lazyProduct(B.transpose());
}

}  // namespace

Section section_of(const Laminate& l) {
    Section s;
    s.A = l.A;
    s.B = l.B;
    s.D = l.D;
    s.S = l.shear_stiffness.asDiagonal();
    s.N_T = l.A * l.cte + l.B * l.curvature;
    s.M_T = l.B * l.cte + l.D * l.curvature;
    s.areal_mass = l.areal_mass;
    return s;
}

Element::Element(const Point& a, const Point& b, const Point& c, const Point& zero_direction,
                 const Section& section)
    : section_(&section) {
    const Point twice = (b - a).cross(c - a);
    area_ = twice.norm() / 2;
    const double longest2 = std::max({(b - a).squaredNorm(), (c - b).squaredNorm(), (a - c).squaredNorm()});
    if (!(area_ > 1e-12 * longest2))
        throw InputError("mesh", "it holds a triangle without area", "mend the mesh, or read it as STL");
    z_ = twice / (2 * area_);
    x_ = zero_direction - zero_direction.dot(z_) * z_;
    // Where the laminate's direction stands on the face, the first side serves.
    if (x_.norm() < 1e-6 * std::max(1e-300, zero_direction.norm())) x_ = b - a;
    x_.normalize();
    y_ = z_.cross(x_);
    const Point middle = (a + b + c) / 3;
    for (int i = 0; i < 3; ++i) {
        const Point p = (i == 0 ? a : i == 1 ? b : c) - middle;
        px_[i] = x_.dot(p);
        py_[i] = y_.dot(p);
    }
    for (int i = 0; i < 3; ++i) {
        const int j = kNext[static_cast<std::size_t>(i)], k = kLast[static_cast<std::size_t>(i)];
        slope_(0, i) = (py_[j] - py_[k]) / (2 * area_);
        slope_(1, i) = (px_[k] - px_[j]) / (2 * area_);
        // Side i runs from corner i to the next.
        const double dx = px_[j] - px_[i], dy = py_[j] - py_[i];
        side_[i] = std::hypot(dx, dy);
        cosine_[i] = dx / side_[i];
        sine_[i] = dy / side_[i];
        // Bending and shear stiffness along the side.
        const double cc = cosine_[i] * cosine_[i], ss = sine_[i] * sine_[i], cs = cosine_[i] * sine_[i];
        const auto& D = section.D;
        const Eigen::Vector3d along(cc, ss, 2 * cs);
        const double bend = along.dot(D * along);
        const double slide = section.S(0, 0) * cc + section.S(1, 1) * ss + 2 * section.S(0, 1) * cs;
        phi_[i] = 12 * bend / (slide * side_[i] * side_[i]);
    }
    // γ of a side, (w_j − w_i)/L + mean turning along it + ⅔ of the bulge, equals −⅔·φ of the bulge.
    bulge_.setZero();
    for (int i = 0; i < 3; ++i) {
        const int j = kNext[static_cast<std::size_t>(i)];
        const double f = -1.5 / (1 + phi_[i]);
        bulge_(i, 3 * i) = -f / side_[i];
        bulge_(i, 3 * j) = f / side_[i];
        for (const int n : {i, j}) {
            bulge_(i, 3 * n + 1) = 0.5 * f * cosine_[i];
            bulge_(i, 3 * n + 2) = 0.5 * f * sine_[i];
        }
    }
}

Eigen::Matrix<double, 9, 3> Element::lumping() const {
    // Felippa 2003, eq. 22, with α_b = 3/2 and unit thickness; freedoms u, v, turn of each corner.
    Eigen::Matrix<double, 9, 3> L;
    for (int i = 0; i < 3; ++i) {
        const int j = kNext[static_cast<std::size_t>(i)], k = kLast[static_cast<std::size_t>(i)];
        const double yjk = py_[j] - py_[k], xkj = px_[k] - px_[j];
        const double yik = py_[i] - py_[k], yji = py_[j] - py_[i], xki = px_[k] - px_[i],
                     xij = px_[i] - px_[j];
        L.row(3 * i) << yjk, 0, xkj;
        L.row(3 * i + 1) << 0, xkj, yjk;
        L.row(3 * i + 2) << kDrilling / 6 * yjk * (yik - yji), kDrilling / 6 * xkj * (xki - xij),
            kDrilling / 3 * (xki * yik - xij * yji);
    }
    return 0.5 * L;
}

Eigen::Matrix<double, 9, 9> Element::stretch() const {
    const auto& A = section_->A;
    const auto L = lumping();
    Eigen::Matrix<double, 9, 9> K = squared(L, A) / area_;
    // The higher-order part (Felippa 2003, eqs. 24–34, template OPT) sees the corners' turning against the
    // triangle's own.
    const auto x = [&](int i, int j) { return px_[i] - px_[j]; };
    const auto y = [&](int i, int j) { return py_[i] - py_[j]; };
    const double l21 = side_[0] * side_[0], l32 = side_[1] * side_[1], l13 = side_[2] * side_[2];
    Eigen::Matrix<double, 3, 9> turning;
    turning << x(2, 1), y(2, 1), 4 * area_, x(0, 2), y(0, 2), 0, x(1, 0), y(1, 0), 0,  //
        x(2, 1), y(2, 1), 0, x(0, 2), y(0, 2), 4 * area_, x(1, 0), y(1, 0), 0,         //
        x(2, 1), y(2, 1), 0, x(0, 2), y(0, 2), 0, x(1, 0), y(1, 0), 4 * area_;
    turning /= 4 * area_;
    Eigen::Matrix3d natural;
    natural << y(1, 2) * y(0, 2) * l21, y(2, 0) * y(1, 0) * l32, y(0, 1) * y(2, 1) * l13,  //
        x(1, 2) * x(0, 2) * l21, x(2, 0) * x(1, 0) * l32, x(0, 1) * x(2, 1) * l13,         //
        (y(1, 2) * x(2, 0) + x(2, 1) * y(0, 2)) * l21, (y(2, 0) * x(0, 1) + x(0, 2) * y(1, 0)) * l32,
        (y(0, 1) * x(1, 2) + x(1, 0) * y(2, 1)) * l13;
    natural /= 4 * area_ * area_;
    const Eigen::Matrix3d E = natural.transpose() * A * natural;
    constexpr std::array<double, 10> b{0, 1, 2, 1, 0, 1, -1, -1, -1, -2};
    Eigen::Matrix3d Q1, Q2, Q3;
    Q1 << b[1] / l21, b[2] / l21, b[3] / l21, b[4] / l32, b[5] / l32, b[6] / l32, b[7] / l13, b[8] / l13,
        b[9] / l13;
    Q2 << b[9] / l21, b[7] / l21, b[8] / l21, b[3] / l32, b[1] / l32, b[2] / l32, b[6] / l13, b[4] / l13,
        b[5] / l13;
    Q3 << b[5] / l21, b[6] / l21, b[4] / l21, b[8] / l32, b[9] / l32, b[7] / l32, b[2] / l13, b[3] / l13,
        b[1] / l13;
    const double f = 2 * area_ / 3;
    const Eigen::Matrix3d Q4 = f * (Q1 + Q2) / 2, Q5 = f * (Q2 + Q3) / 2, Q6 = f * (Q3 + Q1) / 2;
    const Eigen::Matrix3d Kt =
        area_ / 3 * (Q4.transpose() * E * Q4 + Q5.transpose() * E * Q5 + Q6.transpose() * E * Q6);
    const double nu = std::clamp(A(0, 1) / std::max(1e-300, std::max(A(0, 0), A(1, 1))), 0.0, 0.5);
    const double beta0 = std::max(0.01, 0.5 * (1 - 4 * nu * nu));
    K += 2.25 * beta0 * squared<3>(turning.transpose(), Kt);
    return K;
}

Eigen::Matrix<double, 3, 9> Element::curvature(const Eigen::Vector3d& N) const {
    Eigen::Matrix<double, 3, 9> B = Eigen::Matrix<double, 3, 9>::Zero();
    for (int i = 0; i < 3; ++i) {
        B(0, 3 * i + 1) = slope_(0, i);
        B(1, 3 * i + 2) = slope_(1, i);
        B(2, 3 * i + 1) = slope_(1, i);
        B(2, 3 * i + 2) = slope_(0, i);
    }
    Eigen::Matrix3d sides;
    for (int i = 0; i < 3; ++i) {
        const int j = kNext[static_cast<std::size_t>(i)];
        const double dx = 4 * (slope_(0, i) * N[j] + N[i] * slope_(0, j)),
                     dy = 4 * (slope_(1, i) * N[j] + N[i] * slope_(1, j));
        sides.col(i) << dx * cosine_[i], dy * sine_[i], dy * cosine_[i] + dx * sine_[i];
    }
    return B + sides * bulge_;
}

Eigen::Matrix<double, 2, 9> Element::shear(const Eigen::Vector3d& N) const {
    Eigen::Matrix<double, 2, 3> from_sides = Eigen::Matrix<double, 2, 3>::Zero();
    for (int i = 0; i < 3; ++i) {
        // Corner i lies between side i and the one before it.
        const int p = kLast[static_cast<std::size_t>(i)];
        const double det = cosine_[i] * sine_[p] - cosine_[p] * sine_[i];
        from_sides(0, i) += N[i] * sine_[p] / det;
        from_sides(1, i) -= N[i] * cosine_[p] / det;
        from_sides(0, p) -= N[i] * sine_[i] / det;
        from_sides(1, p) += N[i] * cosine_[i] / det;
    }
    return from_sides * Eigen::Vector3d(-2.0 / 3 * phi_).asDiagonal() * bulge_;
}

Eigen::Matrix<double, 3, 9> Element::mean_curvature() const {
    return (curvature(gauss()[0]) + curvature(gauss()[1]) + curvature(gauss()[2])) * area_ / 3;
}

Matrix18 Element::to_world() const {
    // Own freedoms u, v, turn; w, turning of x, turning of y of each corner, from the world's.
    Matrix18 T = Matrix18::Zero();
    for (int i = 0; i < 3; ++i) {
        const int m = 3 * i, b = 9 + 3 * i, g = 6 * i;
        T.block<1, 3>(m, g) = x_.transpose();
        T.block<1, 3>(m + 1, g) = y_.transpose();
        T.block<1, 3>(m + 2, g + 3) = z_.transpose();
        T.block<1, 3>(b, g) = z_.transpose();
        // What lies z above moves by z·turning: along x for a rotation about y, along −y for one about x.
        T.block<1, 3>(b + 1, g + 3) = y_.transpose();
        T.block<1, 3>(b + 2, g + 3) = -x_.transpose();
    }
    return T;
}

Matrix18 Element::stiffness() const {
    const auto membrane = stretch();
    Eigen::Matrix<double, 9, 9> bend = Eigen::Matrix<double, 9, 9>::Zero();
    for (const auto& place : gauss()) {
        const auto kappa = curvature(place);
        const auto gamma = shear(place);
        bend += area_ / 3 *
                (squared<3>(kappa.transpose(), section_->D) + squared<2>(gamma.transpose(), section_->S));
    }
    const Eigen::Matrix<double, 9, 3> LB = lumping().lazyProduct(section_->B) / area_;
    const Eigen::Matrix<double, 9, 9> couple = LB.lazyProduct(mean_curvature());
    // Corner by corner: what shifts (u, v, w) and what turns, each three of its own onto the world's three.
    Eigen::Matrix3d shift, turn;
    shift << x_.transpose(), y_.transpose(), z_.transpose();
    turn << z_.transpose(), y_.transpose(), -x_.transpose();
    Matrix18 K;
    Eigen::Matrix3d ss, st, tt;
    for (int i = 0; i < 3; ++i) {
        for (int j = i; j < 3; ++j) {
            const int a = 3 * i, b = 3 * j;
            const auto block = [&](const Eigen::Matrix3d& own, const Eigen::Matrix3d& left,
                                   const Eigen::Matrix3d& right, int row, int column) {
                const Eigen::Matrix3d half = own.lazyProduct(right);
                const Eigen::Matrix3d world = left.transpose().lazyProduct(half);
                K.block<3, 3>(column, row) = world.transpose();
                K.block<3, 3>(row, column) = world;
            };
            ss << membrane.block<2, 2>(a, b), couple.block<2, 1>(a, b),  //
                couple.block<2, 1>(b, a).transpose(), bend(a, b);
            tt << membrane(a + 2, b + 2), couple.block<1, 2>(a + 2, b + 1),  //
                couple.block<1, 2>(b + 2, a + 1).transpose(), bend.block<2, 2>(a + 1, b + 1);
            st << membrane.block<2, 1>(a, b + 2), couple.block<2, 2>(a, b + 1),  //
                couple(b + 2, a), bend.block<1, 2>(a, b + 1);
            block(ss, shift, shift, 6 * i, 6 * j);
            block(tt, turn, turn, 6 * i + 3, 6 * j + 3);
            block(st, shift, turn, 6 * i, 6 * j + 3);
            if (i == j) continue;
            st << membrane.block<2, 1>(b, a + 2), couple.block<2, 2>(b, a + 1),  //
                couple(a + 2, b), bend.block<1, 2>(b, a + 1);
            block(st, shift, turn, 6 * j, 6 * i + 3);
        }
    }
    return K;
}

Vector18 Element::warming() const {
    Vector18 own;
    own.head<9>() = lumping() * section_->N_T;
    own.tail<9>() = mean_curvature().transpose() * section_->M_T;
    return to_world().transpose() * own;
}

Eigen::Matrix<double, 6, 1> Element::strain(const Vector18& freedoms) const {
    const Vector18 own = to_world() * freedoms;
    Eigen::Matrix<double, 6, 1> out;
    out.head<3>() = lumping().transpose() * own.head<9>() / area_;
    out.tail<3>() = mean_curvature() * own.tail<9>() / area_;
    return out;
}

Eigen::Vector2d Element::shear_strain(const Vector18& freedoms) const {
    const Vector18 own = to_world() * freedoms;
    return shear(Eigen::Vector3d::Constant(1.0 / 3)) * own.tail<9>();
}

Matrix18 Element::stress_stiffness(const Eigen::Vector3d& force) const {
    Eigen::Matrix2d N;
    N << force[0], force[2], force[2], force[1];
    const Eigen::Matrix3d k = area_ * slope_.transpose() * N * slope_;
    Matrix18 K = Matrix18::Zero();
    for (int i = 0; i < 3; ++i) {
        for (int j = 0; j < 3; ++j) {
            for (int d = 0; d < 3; ++d) K(6 * i + d, 6 * j + d) = k(i, j);
        }
    }
    return K;
}

}  // namespace jig::shell_fe
