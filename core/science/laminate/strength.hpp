// What of its strength a stack uses up: strains of its plies, shear of its core, wrinkling of its skins.
#pragma once

#include <vector>

#include "core/science/laminate/stack.hpp"

namespace jig {

/// The laminate of a stack whose middle lies `by` m further along z than the plane that strains are told of:
/// B + by·A, D + 2·by·B + by²·A. What a free strip does stays as it was.
Laminate moved(Laminate laminate, double by);

/// Largest shear stress in each ply per unit of transverse shear force along x and along y, 1/m: what
/// equilibrium asks for when the moment in that direction changes (Whitney 1973), 3/2h for one layer.
std::vector<Eigen::Vector2d> shear_shares(std::span<const StackPly> plies);

/// Where a ply is stretched most, in its own directions.
struct PlyStrain {
    double longest = 0, shortest = 0;  ///< along its fibres: the largest and the smallest, 0 counted
    double any = 0;                    ///< the largest of all directions, by its amount
};
/// Of one ply from z0 to z1 turned by `angle`. `both` ways carry fibres: woven cloth.
PlyStrain ply_strain(const Eigen::Vector3d& middle, const Eigen::Vector3d& curvature, double z0, double z1,
                     double angle, bool both);

/// The plies on one side of a core, as one skin.
struct SkinOver {
    std::size_t core = 0;                         ///< the ply that holds it from wrinkling
    double low = 0, high = 0;                     ///< m from the stack's middle
    Eigen::Matrix3d A = Eigen::Matrix3d::Zero();  ///< N/m
};
/// Skins at the outsides of a stack whose ply i is a core where `core[i]`; none without a core. What lies
/// between two cores wrinkles no further than they let it and is left out.
std::vector<SkinOver> skins_of(std::span<const StackPly> plies, const std::vector<char>& core);

/// Compression of a skin ÷ the stress at which it wrinkles, 0.5 (Ef Ec Gc)^(1/3), in the direction that it is
/// compressed most; 0 where it is nowhere compressed. Of the core its modulus through the thickness and its
/// shear modulus, Pa.
double wrinkling_use(const SkinOver& skin, double core_modulus, double core_shear,
                     const Eigen::Vector3d& middle, const Eigen::Vector3d& curvature);

}  // namespace jig
