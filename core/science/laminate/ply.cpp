#include "core/science/laminate/ply.hpp"

namespace jig {
namespace {

/// Halpin–Tsai: Jones, Mechanics of Composite Materials (2nd ed.), section 3.3.
double halpin_tsai(double fibre, double matrix, double volume, double xi) {
    const double eta = (fibre / matrix - 1) / (fibre / matrix + xi);
    return matrix * (1 + xi * eta * volume) / (1 - eta * volume);
}

}  // namespace

PlyMaterial isotropic(double E, double nu, double density, double alpha) {
    const double G = E / (2 * (1 + nu));
    return {E, E, G, nu, G, G, density, alpha, alpha, alpha};
}

PlyMaterial unidirectional(const Fibre& f, const Matrix& m, double vf) {
    const double vm = 1 - vf, Gm = m.E / (2 * (1 + m.nu));
    PlyMaterial p;
    p.E1 = f.E1 * vf + m.E * vm;
    p.E2 = halpin_tsai(f.E2, m.E, vf, 2);
    p.nu12 = f.nu12 * vf + m.nu * vm;
    p.G12 = halpin_tsai(f.G12, Gm, vf, 1);
    p.G13 = p.G12;
    p.G23 = halpin_tsai(f.E2 / (2 * (1 + f.nu12)), Gm, vf, 1);
    p.density = f.density * vf + m.density * vm;
    p.alpha1 = (f.E1 * f.alpha1 * vf + m.E * m.alpha * vm) / p.E1;
    p.alpha2 = (1 + m.nu) * m.alpha * vm + (f.alpha2 + f.nu12 * f.alpha1) * vf - p.alpha1 * p.nu12;
    p.alpha3 = p.alpha2;
    return p;
}

PlyMaterial crossed(const Fibre& f, const Matrix& m, double vf, double crimp) {
    const auto u = unidirectional(f, m, vf);
    const double nu21 = u.nu12 * u.E2 / u.E1, d = 1 - u.nu12 * nu21;
    // Half the layer each way (classical lamination of [0/90] with equal shares, coupling left out).
    const double q11 = (u.E1 + u.E2) / (2 * d), q12 = u.nu12 * u.E2 / d;
    PlyMaterial p = u;
    p.nu12 = q12 / q11;
    p.E1 = p.E2 = crimp * q11 * (1 - p.nu12 * p.nu12);
    p.G12 = u.G12;
    p.G13 = p.G23 = (u.G13 + u.G23) / 2;
    const double n = (u.E1 * (u.alpha1 + nu21 * u.alpha2) + u.E2 * (u.alpha2 + u.nu12 * u.alpha1)) / (2 * d);
    p.alpha1 = p.alpha2 = n / (q11 + q12);
    // Constrained both ways in the plane, the layer grows the more through its thickness.
    p.alpha3 = u.alpha2 + u.nu12 * (u.alpha1 + u.alpha2 - 2 * p.alpha1);
    return p;
}

PlyMaterial random_mat(const Fibre& f, const Matrix& m, double vf, double straight) {
    const auto u = unidirectional(f, m, vf);
    const double E = straight * (3.0 / 8 * u.E1 + 5.0 / 8 * u.E2), G = straight * (u.E1 / 8 + u.E2 / 4);
    PlyMaterial p = crossed(f, m, vf, 1);
    p.E1 = p.E2 = E;
    p.G12 = G;
    p.nu12 = E / (2 * G) - 1;
    return p;
}

PlyMaterial ply_of(Weave weave, const Fibre& f, const Matrix& m, double vf, double crimp) {
    switch (weave) {
        case Weave::unidirectional:
            return unidirectional(f, m, vf);
        case Weave::cloth:
            return crossed(f, m, vf, crimp);
        case Weave::mat:
            return random_mat(f, m, vf, crimp);
    }
    return unidirectional(f, m, vf);
}

double ply_thickness(double areal_mass, double fibre_density, double fibre_volume) {
    return areal_mass / (fibre_density * fibre_volume);
}

double resin_in_ply(double areal_mass, double fibre_density, double fibre_volume, double resin_density) {
    return (ply_thickness(areal_mass, fibre_density, fibre_volume) - areal_mass / fibre_density) *
           resin_density;
}

}  // namespace jig
