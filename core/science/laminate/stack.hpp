// A stack of plies: classical lamination theory with first-order shear (docs/methods.md, Stack).
#pragma once

#include <Eigen/Core>
#include <span>

#include "core/science/laminate/ply.hpp"

namespace jig {

struct StackPly {
    PlyMaterial material;
    double angle = 0;      ///< rad from the stack's x
    double thickness = 0;  ///< m
    bool operator==(const StackPly&) const = default;
};

struct Moduli {
    double Ex = 0, Ey = 0, Gxy = 0, nuxy = 0;  ///< Pa
    bool operator==(const Moduli&) const = default;
};

struct Laminate {
    double thickness = 0;                         ///< m
    double areal_mass = 0;                        ///< kg/m²
    Eigen::Matrix3d A = Eigen::Matrix3d::Zero();  ///< N/m
    Eigen::Matrix3d B = Eigen::Matrix3d::Zero();  ///< N
    Eigen::Matrix3d D = Eigen::Matrix3d::Zero();  ///< N·m
    /// N·m, bending stiffness of a free strip: D - B·A⁻¹·B. It is what a plate bends by that nothing keeps
    /// from stretching, and the same whatever line z is measured from.
    Eigen::Matrix3d D_free = Eigen::Matrix3d::Zero();
    Moduli membrane, bending;
    Eigen::Vector2d shear_stiffness = Eigen::Vector2d::Zero();  ///< N/m, xz and yz, energy based
    Eigen::Vector3d cte = Eigen::Vector3d::Zero();              ///< 1/K, free strain per kelvin: x, y, xy
    Eigen::Vector3d curvature = Eigen::Vector3d::Zero();  ///< 1/(m·K), free curvature per kelvin: x, y, xy
    double cte_through = 0;                               ///< 1/K through the thickness, by thickness share
    bool symmetric = false;                               ///< mirrored about the middle
    bool balanced = false;                                ///< no coupling of stretch and shear
    bool operator==(const Laminate&) const = default;
};

/// First ply at the tool face, z = -h/2. Moduli are those of a free strip (the stack may bend while it is
/// stretched). Throws InputError for an empty stack, a thickness that is not positive, or constants that are
/// no material (E, G <= 0; nu12² >= E1/E2).
Laminate laminate(std::span<const StackPly> plies);

/// Plane-stress stiffness of a ply turned by `angle`, Pa.
Eigen::Matrix3d turned_stiffness(const PlyMaterial& material, double angle);

}  // namespace jig
