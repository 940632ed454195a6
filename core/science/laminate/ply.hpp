// Fibre and resin to ply: thickness, resin, stiffness, expansion (docs/methods.md, Ply).
#pragma once

#include <string>

namespace jig {

struct Fibre {
    double density = 2550;        ///< kg/m³
    double E1 = 72e9, E2 = 72e9;  ///< Pa, along and across the filament
    double G12 = 29.5e9, nu12 = 0.22;
    double alpha1 = 5e-6, alpha2 = 5e-6;  ///< 1/K
    bool operator==(const Fibre&) const = default;
};

struct Matrix {
    double density = 1150;  ///< kg/m³
    double E = 3e9, nu = 0.35;
    double alpha = 65e-6;  ///< 1/K
    bool operator==(const Matrix&) const = default;
};

/// How the filaments lie in a layer of cloth.
enum class Weave { unidirectional, cloth, mat };

/// A homogeneous layer in its own directions; an isotropic one has equal moduli.
struct PlyMaterial {
    double E1 = 0, E2 = 0, G12 = 0, nu12 = 0, G13 = 0, G23 = 0;  ///< Pa
    double density = 0;                                          ///< kg/m³
    double alpha1 = 0, alpha2 = 0;                               ///< 1/K
    double alpha3 = 0;                                           ///< 1/K through the thickness
    bool operator==(const PlyMaterial&) const = default;
};

PlyMaterial isotropic(double E, double nu, double density, double alpha);

/// Unidirectional layer: rule of mixtures along, Halpin–Tsai across (xi = 2) and in shear (xi = 1), expansion
/// after Schapery 1968 with fibres that grow across otherwise than along.
PlyMaterial unidirectional(const Fibre& fibre, const Matrix& matrix, double fibre_volume);

/// Cloth: two crossed unidirectional layers, in-plane moduli times `crimp` (1 where fibres lie straight).
PlyMaterial crossed(const Fibre& fibre, const Matrix& matrix, double fibre_volume, double crimp);

/// Chopped mat: E = 3/8 E1 + 5/8 E2, G = 1/8 E1 + 1/4 E2 of the unidirectional layer, times what is left of
/// `straight` for bundles that are short and cross each other.
PlyMaterial random_mat(const Fibre& fibre, const Matrix& matrix, double fibre_volume, double straight = 1);

PlyMaterial ply_of(Weave weave, const Fibre& fibre, const Matrix& matrix, double fibre_volume, double crimp);

/// t = W / (rho_f V_f), m, from areal mass W in kg/m².
double ply_thickness(double areal_mass, double fibre_density, double fibre_volume);
/// (t - W / rho_f) rho_m, kg of resin per m².
double resin_in_ply(double areal_mass, double fibre_density, double fibre_volume, double resin_density);

}  // namespace jig
