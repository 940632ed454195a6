#include "core/science/laminate/stack.hpp"

#include <fmt/format.h>

#include <cmath>
#include <Eigen/Dense>
#include <vector>

#include "core/base/error.hpp"
#include "core/base/units.hpp"

namespace jig {
namespace {

using Matrix6 = Eigen::Matrix<double, 6, 6>;
using Vector6 = Eigen::Matrix<double, 6, 1>;

void validate(std::span<const StackPly> plies) {
    if (plies.empty()) throw InputError("stack", "it has no ply", "add at least one");
    for (std::size_t i = 0; i < plies.size(); ++i) {
        const auto& [m, angle, t] = plies[i];
        const auto where = fmt::format("stack ply {}", i + 1);
        if (!(t > 0) || !std::isfinite(t))
            throw InputError(where, "its thickness is not positive", "give the thickness in metres");
        if (!std::isfinite(angle)) throw InputError(where, "its angle is no number", "give it in degrees");
        const bool stiff = m.E1 > 0 && m.E2 > 0 && m.G12 > 0 && m.G13 > 0 && m.G23 > 0 && m.density >= 0;
        if (!stiff || m.nu12 * m.nu12 >= m.E1 / m.E2) {
            throw InputError(where, "its constants are those of no material",
                             "check moduli above zero and nu12 below sqrt(E1/E2)");
        }
    }
}

/// Strain turned from the stack's axes into the ply's: engineering shear.
Eigen::Matrix3d strain_turn(double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    Eigen::Matrix3d t;
    t << c * c, s * s, c * s, s * s, c * c, -c * s, -2 * c * s, 2 * c * s, c * c - s * s;
    return t;
}

/// Shear stiffness across direction `dir` (0: xz, 1: yz): the energy of the shear stress that equilibrium
/// asks for when the moment in that direction changes (Whitney 1973). Right for sandwiches, 5/6 Gh for one
/// layer.
double shear_stiffness(std::span<const StackPly> plies, const std::vector<Eigen::Matrix3d>& q,
                       const std::vector<double>& z, const Matrix6& compliance, int dir) {
    const Vector6 unit_moment = compliance.col(3 + dir);
    const Eigen::Vector3d strain = unit_moment.head<3>(), bend = unit_moment.tail<3>();
    double stress_sum = 0, flexibility = 0;
    constexpr std::array<double, 3> at{-0.7745966692414834, 0, 0.7745966692414834},
        weight{5.0 / 9, 8.0 / 9, 5.0 / 9};
    for (std::size_t i = 0; i < plies.size(); ++i) {
        const double p = q[i].row(dir).dot(strain), r = q[i].row(dir).dot(bend);
        const double c = std::cos(plies[i].angle), s = std::sin(plies[i].angle);
        const auto& m = plies[i].material;
        // Compliances add when the transverse axes are turned.
        const double g = dir == 0 ? 1 / (c * c / m.G13 + s * s / m.G23) : 1 / (s * s / m.G13 + c * c / m.G23);
        const double z0 = z[i], half = (z[i + 1] - z0) / 2;
        const auto tau = [&](double zz) { return stress_sum + p * (zz - z0) + r * (zz * zz - z0 * z0) / 2; };
        for (std::size_t k = 0; k < 3; ++k) {
            const double t = tau(z0 + half + half * at[k]);
            flexibility += weight[k] * half * t * t / g;
        }
        stress_sum = tau(z[i + 1]);
    }
    return 1 / flexibility;
}

Moduli moduli(const Eigen::Matrix3d& compliance, double scale) {
    return {scale / compliance(0, 0), scale / compliance(1, 1), scale / compliance(2, 2),
            -compliance(0, 1) / compliance(0, 0)};
}

bool same_turn(double a, double b) {
    return std::abs(std::remainder(a - b, kPi)) < 1e-4;
}

bool mirrored(std::span<const StackPly> plies) {
    for (std::size_t i = 0; i < plies.size() / 2; ++i) {
        const auto &a = plies[i], &b = plies[plies.size() - 1 - i];
        const bool turnless =
            a.material.E1 == a.material.E2 && a.material.alpha1 == a.material.alpha2 &&
            std::abs(a.material.G12 - a.material.E1 / (2 * (1 + a.material.nu12))) < 1e-6 * a.material.G12;
        if (!(a.material == b.material) || std::abs(a.thickness - b.thickness) > 1e-9 ||
            !(turnless || same_turn(a.angle, b.angle)))
            return false;
    }
    return true;
}

}  // namespace

Eigen::Matrix3d turned_stiffness(const PlyMaterial& m, double angle) {
    const double nu21 = m.nu12 * m.E2 / m.E1, d = 1 - m.nu12 * nu21;
    Eigen::Matrix3d q = Eigen::Matrix3d::Zero();
    q(0, 0) = m.E1 / d;
    q(1, 1) = m.E2 / d;
    q(0, 1) = q(1, 0) = m.nu12 * m.E2 / d;
    q(2, 2) = m.G12;
    const auto t = strain_turn(angle);
    return t.transpose() * q * t;
}

Laminate laminate(std::span<const StackPly> plies) {
    validate(plies);
    Laminate out;
    for (const auto& ply : plies) {
        out.thickness += ply.thickness;
        out.areal_mass += ply.thickness * ply.material.density;
    }
    std::vector<double> z{-out.thickness / 2};
    std::vector<Eigen::Matrix3d> q;
    Eigen::Vector3d force = Eigen::Vector3d::Zero(), moment = Eigen::Vector3d::Zero();  // per kelvin, held
    for (const auto& ply : plies) {
        const double a = z.back(), b = a + ply.thickness;
        z.push_back(b);
        q.push_back(turned_stiffness(ply.material, ply.angle));
        out.A += q.back() * (b - a);
        out.B += q.back() * (b * b - a * a) / 2;
        out.D += q.back() * (b * b * b - a * a * a) / 3;
        const Eigen::Vector3d own(ply.material.alpha1, ply.material.alpha2, 0);
        const Eigen::Vector3d stress = q.back() * strain_turn(-ply.angle) * own;
        force += stress * (b - a);
        moment += stress * (b * b - a * a) / 2;
        out.cte_through += ply.material.alpha3 * ply.thickness / out.thickness;
    }
    Matrix6 stiffness;
    stiffness << out.A, out.B, out.B, out.D;
    const Matrix6 compliance = stiffness.inverse();
    out.D_free = out.D - out.B * out.A.inverse() * out.B;
    out.membrane = moduli(compliance.topLeftCorner<3, 3>(), 1 / out.thickness);
    out.bending = moduli(compliance.bottomRightCorner<3, 3>(), 12 / std::pow(out.thickness, 3));
    for (int dir = 0; dir < 2; ++dir)
        out.shear_stiffness[dir] = shear_stiffness(plies, q, z, compliance, dir);
    Vector6 held;
    held << force, moment;
    const Vector6 free = compliance * held;
    out.cte = free.head<3>();
    out.curvature = free.tail<3>();
    out.symmetric = mirrored(plies);
    const double coupling = std::abs(out.A(0, 2)) + std::abs(out.A(1, 2));
    out.balanced = coupling < 1e-5 * (out.A(0, 0) + out.A(1, 1));
    return out;
}

}  // namespace jig
