#include <catch2/catch.hpp>

#include "core/science/laminate/ply.hpp"

using namespace jig;

TEST_CASE("a ply's thickness and resin follow from weight and fibre share") {
    // 300 g/m² of glass (2550) at 40 %: 0.3 / (2550 * 0.4) m; the rest of the volume is resin of 1200.
    const double t = ply_thickness(0.3, 2550, 0.4);
    CHECK(t == Approx(2.9411765e-4));
    CHECK(resin_in_ply(0.3, 2550, 0.4, 1200) == Approx(0.6 * t * 1200));
}

TEST_CASE("unidirectional constants against the formulas worked by hand") {
    const Fibre glass{2550, 72e9, 72e9, 29.5e9, 0.22, 5e-6, 5e-6};
    const Matrix epoxy{1150, 3e9, 0.35, 65e-6};
    const auto p = unidirectional(glass, epoxy, 0.5);
    CHECK(p.E1 == Approx(37.5e9));
    CHECK(p.nu12 == Approx(0.285));
    CHECK(p.density == Approx(1850));
    // eta = (24 - 1)/(24 + 2); E2 = 3 (1 + 2 eta/2)/(1 - eta/2)
    const double eta = 23.0 / 26;
    CHECK(p.E2 == Approx(3e9 * (1 + eta) / (1 - eta / 2)));
    // Schapery: (72*5*.5 + 3*65*.5)/37.5 = 7.4e-6
    CHECK(p.alpha1 == Approx(7.4e-6));
    CHECK(p.alpha2 == Approx(1.35 * 65e-6 * 0.5 + 1.22 * 5e-6 * 0.5 - 7.4e-6 * 0.285));
    // No fibre left: the matrix itself.
    const auto none = unidirectional(glass, epoxy, 0);
    CHECK(none.E1 == Approx(3e9));
    CHECK(none.E2 == Approx(3e9));
    CHECK(none.alpha2 == Approx(65e-6).epsilon(1e-9));
}

TEST_CASE("mat is the random average and cloth is alike both ways") {
    const Fibre glass{2550, 72e9, 72e9, 29.5e9, 0.22, 5e-6, 5e-6};
    const Matrix polyester{1200, 3.5e9, 0.36, 80e-6};
    const auto u = unidirectional(glass, polyester, 0.18), m = random_mat(glass, polyester, 0.18);
    CHECK(m.E1 == Approx(0.375 * u.E1 + 0.625 * u.E2));
    CHECK(m.G12 == Approx(u.E1 / 8 + u.E2 / 4));
    // Trade figures for hand-laid mat are 6 to 10 GPa.
    CHECK(m.E1 > 6e9);
    CHECK(m.E1 < 10e9);
    CHECK(m.alpha1 == Approx(m.alpha2));
    const auto straight = crossed(glass, polyester, 0.4, 1), crimped = crossed(glass, polyester, 0.4, 0.9);
    CHECK(straight.E1 == straight.E2);
    CHECK(crimped.E1 == Approx(0.9 * straight.E1));
    // Expansion lies between that of fibre and resin, through the thickness above that in the plane.
    CHECK(straight.alpha1 > 5e-6);
    CHECK(straight.alpha1 < 80e-6);
    CHECK(straight.alpha3 > straight.alpha1);
}
