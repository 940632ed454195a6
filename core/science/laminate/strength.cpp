#include "core/science/laminate/strength.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>

#include "core/base/units.hpp"
#include "core/science/laminate/plate.hpp"

namespace jig {

Laminate moved(Laminate l, double by) {
    l.D += 2 * by * l.B + by * by * l.A;
    l.B += by * l.A;
    l.cte -= by * l.curvature;
    return l;
}

std::vector<Eigen::Vector2d> shear_shares(std::span<const StackPly> plies) {
    const auto whole = laminate(plies);
    Eigen::Matrix<double, 6, 6> stiffness;
    stiffness << whole.A, whole.B, whole.B, whole.D;
    const Eigen::Matrix<double, 6, 6> compliance = stiffness.inverse();
    std::vector<Eigen::Vector2d> out(plies.size(), Eigen::Vector2d::Zero());
    for (int dir = 0; dir < 2; ++dir) {
        const Eigen::Matrix<double, 6, 1> unit_moment = compliance.col(3 + dir);
        double stress = 0, z0 = -whole.thickness / 2;
        for (std::size_t i = 0; i < plies.size(); ++i) {
            const auto q = turned_stiffness(plies[i].material, plies[i].angle);
            const double p = q.row(dir).dot(unit_moment.head<3>()), r = q.row(dir).dot(unit_moment.tail<3>()),
                         z1 = z0 + plies[i].thickness;
            const auto tau = [&](double z) { return stress + p * (z - z0) + r * (z * z - z0 * z0) / 2; };
            // A parabola: largest at an end, or where its slope is naught.
            double most = std::max(std::abs(tau(z0)), std::abs(tau(z1)));
            const double turn = std::abs(r) > 0 ? -p / r : z0;
            if (turn > z0 && turn < z1) most = std::max(most, std::abs(tau(turn)));
            out[i][dir] = most;
            stress = tau(z1);
            z0 = z1;
        }
    }
    return out;
}

PlyStrain ply_strain(const Eigen::Vector3d& middle, const Eigen::Vector3d& curvature, double z0, double z1,
                     double angle, bool both) {
    PlyStrain out;
    const double c = std::cos(angle), s = std::sin(angle);
    for (const double z : {z0, z1}) {
        const Eigen::Vector3d e = middle + z * curvature;
        const double along = c * c * e[0] + s * s * e[1] + c * s * e[2];
        const double across = e[0] + e[1] - along;
        out.longest = std::max({out.longest, along, both ? across : 0});
        out.shortest = std::min({out.shortest, along, both ? across : 0});
        const double mean = (e[0] + e[1]) / 2, radius = std::hypot((e[0] - e[1]) / 2, e[2] / 2);
        out.any = std::max({out.any, std::abs(mean + radius), std::abs(mean - radius)});
    }
    return out;
}

std::vector<SkinOver> skins_of(std::span<const StackPly> plies, const std::vector<char>& core) {
    std::vector<SkinOver> out;
    const auto first = std::find(core.begin(), core.end(), 1) - core.begin();
    if (first == static_cast<std::ptrdiff_t>(core.size())) return out;
    const auto last = core.rend() - std::find(core.rbegin(), core.rend(), 1) - 1;
    double z = 0;
    for (const auto& p : plies) z -= p.thickness / 2;
    SkinOver below, above;
    below.core = static_cast<std::size_t>(first);
    above.core = static_cast<std::size_t>(last);
    below.low = z;
    for (std::size_t i = 0; i < plies.size(); ++i) {
        const auto at = static_cast<std::ptrdiff_t>(i);
        auto* skin = at < first ? &below : at > last ? &above : nullptr;
        if (at == first) below.high = z;
        z += plies[i].thickness;
        if (at == last) above.low = z;
        if (skin != nullptr)
            skin->A += turned_stiffness(plies[i].material, plies[i].angle) * plies[i].thickness;
    }
    above.high = z;
    if (below.high > below.low && first > 0) out.push_back(below);
    if (above.high > above.low && last + 1 < static_cast<std::ptrdiff_t>(plies.size())) out.push_back(above);
    return out;
}

double wrinkling_use(const SkinOver& skin, double core_modulus, double core_shear,
                     const Eigen::Vector3d& middle, const Eigen::Vector3d& curvature) {
    const double thick = skin.high - skin.low;
    if (!(thick > 0)) return 0;
    const Eigen::Vector3d stress = skin.A * (middle + (skin.low + skin.high) / 2 * curvature) / thick;
    const double mean = (stress[0] + stress[1]) / 2,
                 radius = std::hypot((stress[0] - stress[1]) / 2, stress[2]);
    const double pressed = radius - mean;
    if (!(pressed > 0)) return 0;
    // The skin's modulus in the direction of that stress: half a turn on from the other principal one.
    const double way = 0.5 * std::atan2(2 * stress[2], stress[0] - stress[1]) + kPi / 2;
    const double c = std::cos(way), s = std::sin(way);
    const Eigen::Vector3d unit(c * c, s * s, c * s);
    const double modulus = 1 / (thick * unit.dot(skin.A.inverse() * unit));
    return pressed / wrinkling_stress(modulus, core_modulus, core_shear);
}

}  // namespace jig
