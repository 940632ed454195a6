#include <catch2/catch.hpp>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/laminate/plate.hpp"
#include "core/science/laminate/stack.hpp"

using namespace jig;

namespace {

PlyMaterial carbon_ud() {
    return {140e9, 10e9, 5e9, 0.3, 5e9, 3.5e9, 1600, 0.2e-6, 30e-6, 30e-6};
}

}  // namespace

TEST_CASE("an isotropic plate by hand") {
    const double E = 70e9, nu = 0.3, h = 0.004;
    const auto m = isotropic(E, nu, 2700, 23e-6);
    // Cut into three unequal layers, which must change nothing.
    const std::vector<StackPly> plies{{m, 0.3, 0.001}, {m, 1.1, 0.0005}, {m, 0, 0.0025}};
    const auto l = laminate(plies);
    CHECK(l.thickness == Approx(h));
    CHECK(l.areal_mass == Approx(10.8));
    CHECK(l.A(0, 0) == Approx(E * h / (1 - nu * nu)));
    CHECK(l.A(0, 1) == Approx(nu * E * h / (1 - nu * nu)));
    CHECK(l.A(2, 2) == Approx(E * h / (2 * (1 + nu))));
    CHECK(l.D(0, 0) == Approx(E * h * h * h / (12 * (1 - nu * nu))));
    CHECK(l.B.norm() < 1e-6 * l.A.norm() * h);
    CHECK(l.membrane.Ex == Approx(E));
    CHECK(l.bending.Ey == Approx(E));
    CHECK(l.bending.nuxy == Approx(nu));
    CHECK(l.shear_stiffness[0] == Approx(5.0 / 6 * E / (2.6) * h));
    CHECK(l.cte[0] == Approx(23e-6));
    CHECK(std::abs(l.curvature[0]) < 1e-12);
}

TEST_CASE("a cross-ply couples stretch and bend as the closed form says") {
    const auto m = carbon_ud();
    const double t = 0.001;
    const std::vector<StackPly> plies{{m, 0, t}, {m, kPi / 2, t}};
    const auto l = laminate(plies);
    const double d = 1 - m.nu12 * m.nu12 * m.E2 / m.E1, q1 = m.E1 / d, q2 = m.E2 / d, q12 = m.nu12 * q2;
    CHECK(l.A(0, 0) == Approx((q1 + q2) * t));
    CHECK(l.B(0, 0) == Approx((q2 - q1) * t * t / 2));
    CHECK(l.B(1, 1) == Approx(-l.B(0, 0)));
    CHECK(l.B(0, 1) == Approx(0).margin(1e-3));
    CHECK(l.D(0, 0) == Approx((q1 + q2) * t * t * t / 3));
    // Free bend per kelvin: by symmetry ex = ey = e and kx = -ky = k. From N = 0 and M = 0:
    // (A11 + A12) e + B11 k = N, and B11 e + (D11 - D12) k = M.
    const double n1 = q1 * m.alpha1 + q12 * m.alpha2, n2 = q2 * m.alpha2 + q12 * m.alpha1;
    const double N = (n1 + n2) * t, M = (n2 - n1) * t * t / 2;
    const double a = (q1 + q2) * t + 2 * q12 * t, b = (q2 - q1) * t * t / 2,
                 c = (q1 + q2 - 2 * q12) * t * t * t / 3;
    const double k = (a * M - b * N) / (a * c - b * b), e = (N - b * k) / a;
    CHECK(l.curvature[0] == Approx(k));
    CHECK(l.curvature[1] == Approx(-k));
    CHECK(l.cte[0] == Approx(e));
    CHECK_FALSE(l.symmetric);
    CHECK(l.balanced);
}

TEST_CASE("two strips of different expansion bend as Timoshenko says") {
    // Timoshenko 1925: 1/rho = 6 (a2 - a1) dT (1+m)² / (h (3 (1+m)² + (1 + mn)(m² + 1/(mn)))), narrow strips
    // (nu = 0).
    const double t1 = 0.001, t2 = 0.0015, E1 = 150e9, E2 = 100e9, a1 = 12e-6, a2 = 19e-6;
    const auto l = laminate(
        std::vector<StackPly>{{isotropic(E1, 0, 8000, a1), 0, t1}, {isotropic(E2, 0, 8000, a2), 0, t2}});
    const double m = t1 / t2, n = E1 / E2, h = t1 + t2;
    const double k = 6 * (a2 - a1) * (1 + m) * (1 + m) /
                     (h * (3 * (1 + m) * (1 + m) + (1 + m * n) * (m * m + 1 / (m * n))));
    CHECK(std::abs(l.curvature[0]) == Approx(k));
}

TEST_CASE("a sandwich bends like its faces and shears like its core") {
    const double tf = 0.001, tc = 0.02, Ef = 20e9, Gc = 30e6;
    auto core = isotropic(60e6, 0.3, 75, 40e-6);
    core.G13 = core.G23 = Gc;
    const auto face = isotropic(Ef, 0, 1900, 15e-6);
    const auto l = laminate(std::vector<StackPly>{{face, 0, tf}, {core, 0, tc}, {face, 0, tf}});
    const double d = tc + tf;
    // E_f t_f d²/2, and what faces and core bend by themselves.
    const double own = Ef * tf * tf * tf / 6 + 60e6 / 0.91 * tc * tc * tc / 12;
    CHECK(l.D(0, 0) == Approx(Ef * tf * d * d / 2 + own));
    CHECK(own < 0.02 * l.D(0, 0));
    // Energy: S = G d²/tc for a weak core between thin faces (Allen 1969).
    CHECK(l.shear_stiffness[0] == Approx(Gc * d * d / tc).epsilon(0.02));
    CHECK(l.symmetric);
}

TEST_CASE("a quasi-isotropic stack is alike in all directions of its plane") {
    const auto m = carbon_ud();
    std::vector<StackPly> plies;
    for (const double a : {0.0, 45.0, -45.0, 90.0, 90.0, -45.0, 45.0, 0.0})
        plies.push_back({m, radians(a), 0.000125});
    const auto l = laminate(plies);
    CHECK(l.membrane.Ex == Approx(l.membrane.Ey));
    CHECK(l.membrane.Gxy == Approx(l.membrane.Ex / (2 * (1 + l.membrane.nuxy))));
    CHECK(l.cte[0] == Approx(l.cte[1]));
    CHECK(l.symmetric);
    CHECK(l.balanced);
    // Turning the whole stack changes nothing in its plane.
    for (auto& p : plies) p.angle += 0.4;
    CHECK(laminate(plies).membrane.Ex == Approx(l.membrane.Ex));
    // One ply off the balance shows.
    plies[0].angle = radians(20);
    CHECK_FALSE(laminate(plies).balanced);
}

TEST_CASE("stacks that are none are refused with their place") {
    const auto m = carbon_ud();
    CHECK_THROWS_AS(laminate(std::vector<StackPly>{}), InputError);
    CHECK_THROWS_WITH(laminate(std::vector<StackPly>{{m, 0, 1e-3}, {m, 0, 0}}), Catch::Contains("ply 2"));
    auto odd = m;
    odd.nu12 = 4;
    CHECK_THROWS_AS(laminate(std::vector<StackPly>{{odd, 0, 1e-3}}), InputError);
    CHECK_THROWS_AS(laminate(std::vector<StackPly>{{m, std::nan(""), 1e-3}}), InputError);
}

TEST_CASE("strips and plates sag as the books say") {
    const double D = 100, S = 1e6, L = 0.4, q = 1000;
    CHECK(strip_sag_uniform(q, L, D, 1e30) == Approx(5 * q * std::pow(L, 4) / (384 * D)));
    CHECK(strip_sag_uniform(q, L, 1e30, S) == Approx(q * L * L / (8 * S)));
    CHECK(strip_sag_middle(50, L, D, S) == Approx(50 * L * L * L / (48 * D) + 50 * L / (4 * S)));
    // Square plate: 0.00406 q a⁴ / D (Timoshenko & Woinowsky-Krieger, table 8).
    CHECK(navier_plate_middle(q, L, L, D, 1e30) == Approx(0.00406 * q * std::pow(L, 4) / D).epsilon(1e-3));
    // A long plate is a strip: 0.01302 q a⁴ / D.
    CHECK(navier_plate_middle(q, L, 8 * L, D, 1e30) ==
          Approx(0.01302 * q * std::pow(L, 4) / D).epsilon(2e-3));
    // Soft core: shear part of a square plate is 0.0737 q a² / S (Allen 1969, chapter 5).
    CHECK(navier_plate_middle(q, L, L, 1e30, S) == Approx(0.0737 * q * L * L / S).epsilon(2e-3));
    CHECK(wrinkling_stress(70e9, 75e6, 28e6) == Approx(0.5 * std::cbrt(70e9 * 75e6 * 28e6)));
    // A force in the middle of a long plate: Navier's double series over a plate eight times as long as wide
    // (Timoshenko & Woinowsky-Krieger 1959, art. 34).
    double series = 0;
    for (int m = 1; m < 400; m += 2) {
        for (int n = 1; n < 3200; n += 2) series += 1 / std::pow(m * m + n * n / 64.0, 2);
    }
    CHECK(long_plate_sag_point(300, L, D, 1e30) ==
          Approx(4 * 300 * L * L / (std::pow(kPi, 4) * D * 8) * series).epsilon(2e-3));
}
