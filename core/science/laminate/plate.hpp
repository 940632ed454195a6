// Bending of strips and plates with shear, and what faces and cores of sandwiches stand.
#pragma once

namespace jig {

/// Largest sag of a strip of width 1 m that is simply supported on its ends, m. `D` N·m, `S` N/m (per width).
double strip_sag_uniform(double pressure, double span, double D, double S);   ///< 5qL⁴/384D + qL²/8S
double strip_sag_middle(double line_force, double span, double D, double S);  ///< PL³/48D + PL/4S, P in N/m
/// Sag under one force P, N, in the middle of a long plate on two supports a span apart: 0.01695 PL²/D
/// (Timoshenko & Woinowsky-Krieger, art. 37) and P/4S of shear over a width of one span.
double long_plate_sag_point(double force, double span, double D, double S);

/// Middle deflection of a simply supported isotropic rectangular plate a x b under `pressure`, by Navier's
/// series with first-order shear (Timoshenko & Woinowsky-Krieger, art. 28; shear after Reissner), m.
double navier_plate_middle(double pressure, double a, double b, double D, double S, int terms = 99);

/// Face wrinkling stress 0.5 (Ef Ec Gc)^(1/3), Pa (Hoff & Mautner 1945).
double wrinkling_stress(double face_modulus, double core_modulus, double core_shear);

}  // namespace jig
