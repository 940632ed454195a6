// What strains and forces use up of a stack's strength: against closed forms.
#include "core/science/laminate/strength.hpp"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/laminate/plate.hpp"
#include "core/science/shell/system.hpp"
#include "tests/quiet.hpp"
#include "tests/science/shell/sheets.hpp"

using namespace jig;

namespace {

constexpr double kSkin = 0.001, kFoam = 0.010, kEf = 20e9, kEc = 75e6, kGc = 28e6;

std::vector<StackPly> sandwich() {
    auto core = isotropic(kEc, 0.35, 75, 0);
    core.G13 = core.G23 = kGc;
    return {{isotropic(kEf, 0.3, 1800, 5e-6), 0, kSkin},
            {core, 0, kFoam},
            {isotropic(kEf, 0.3, 1800, 5e-6), 0, kSkin}};
}

Eigen::Vector3d turned_strain(const Eigen::Vector3d& e, double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    return {c * c * e[0] + s * s * e[1] + c * s * e[2], s * s * e[0] + c * c * e[1] - c * s * e[2],
            2 * c * s * (e[1] - e[0]) + (c * c - s * s) * e[2]};
}

}  // namespace

TEST_CASE("shear in one layer is 3/2h, in a sandwich's core what its skins' first moment says") {
    const std::vector<StackPly> one{{isotropic(3e9, 0.3, 1000, 0), 0.4, 0.008}};
    CHECK(shear_shares(one)[0].x() == Approx(1.5 / 0.008));
    CHECK(shear_shares(one)[0].y() == Approx(1.5 / 0.008));
    // τ = E·S / D of the plate's own moduli, largest on the middle line.
    const double q = 1 / (1 - 0.3 * 0.3), qc = 1 / (1 - 0.35 * 0.35), d = kFoam + kSkin;
    const double D =
        kEf * q * (kSkin * d * d / 2 + std::pow(kSkin, 3) / 6) + kEc * qc * std::pow(kFoam, 3) / 12;
    const double skins = kEf * q * kSkin * d / 2, core = kEc * qc * kFoam * kFoam / 8;
    const auto shares = shear_shares(sandwich());
    // The unit moment also bends it crosswise, which a plate of nearly one ν hardly feels.
    CHECK(shares[1].x() == Approx((skins + core) / D).epsilon(2e-3));
    CHECK(shares[0].x() == Approx(skins / D).epsilon(2e-3));
    // Turned by a quarter, x and y change places.
    PlyMaterial tape{120e9, 8e9, 4e9, 0.3, 4e9, 3e9, 1600, 0, 0, 0};
    const auto along = shear_shares(std::vector<StackPly>{{tape, 0, 0.001}, {tape, 0.7, 0.002}});
    const auto across =
        shear_shares(std::vector<StackPly>{{tape, kPi / 2, 0.001}, {tape, 0.7 + kPi / 2, 0.002}});
    CHECK(along[1].x() == Approx(across[1].y()));
    CHECK(along[0].y() == Approx(across[0].x()));
}

TEST_CASE("a laminate moved off its middle bends a free strip as before and grows as before") {
    const std::vector<StackPly> odd{{isotropic(20e9, 0.3, 1800, 5e-6), 0, 0.002},
                                    {isotropic(3e9, 0.35, 1200, 60e-6), 0, 0.003}};
    const auto before = laminate(odd);
    const double by = 0.0071;
    const auto after = moved(before, by);
    const Eigen::Matrix3d free = after.D - after.B * after.A.inverse() * after.B;
    CHECK((free - before.D_free).norm() < 1e-9 * before.D_free.norm());
    // Growth where the middle now lies is what it was.
    CHECK((after.cte + by * after.curvature - before.cte).norm() < 1e-15);
    const auto back = moved(after, -by);
    CHECK((back.D - before.D).norm() < 1e-9 * before.D.norm());
    CHECK((back.B - before.B).norm() < 1e-9 * before.A.norm() * by);
}

TEST_CASE("strain of a ply is that of its own directions, at the face of it that is strained more") {
    const Eigen::Vector3d middle(0.001, -0.0004, 0.0006), bend(0.3, 0.1, -0.2);
    for (const double angle : {0.0, 0.3, -1.2, kPi / 2, 2.0}) {
        INFO(angle);
        const auto low = turned_strain(middle + 0.001 * bend, angle),
                   high = turned_strain(middle + 0.004 * bend, angle);
        const auto tape = ply_strain(middle, bend, 0.001, 0.004, angle, false);
        CHECK(tape.longest == Approx(std::max({0.0, low[0], high[0]})));
        CHECK(tape.shortest == Approx(std::min({0.0, low[0], high[0]})).margin(1e-15));
        const auto cloth = ply_strain(middle, bend, 0.001, 0.004, angle, true);
        CHECK(cloth.longest == Approx(std::max({0.0, low[0], high[0], low[1], high[1]})));
        CHECK(cloth.any == Approx(tape.any));
    }
    // Pure shear: threads at 45° are strained by half of it, one way longer and one way shorter.
    const auto sheared = ply_strain({0, 0, 0.002}, {0, 0, 0}, 0, 0.001, kPi / 4, true);
    CHECK(sheared.longest == Approx(0.001));
    CHECK(sheared.shortest == Approx(-0.001));
    CHECK(sheared.any == Approx(0.001));
}

TEST_CASE("a skin wrinkles by Hoff and Mautner, whichever way it is pressed, and never when pulled") {
    const auto plies = sandwich();
    const auto skins = skins_of(plies, {0, 1, 0});
    REQUIRE(skins.size() == 2);
    CHECK(skins[0].high == Approx(-kFoam / 2));
    CHECK(skins[1].low == Approx(kFoam / 2));
    // Pressed one way with the other free: σ = E·ε.
    const double strain = 1e-3;
    const double use = kEf * strain / wrinkling_stress(kEf, kEc, kGc);
    for (const double angle : {0.0, 0.5, kPi / 3}) {
        const auto pressed = turned_strain({-strain, 0.3 * strain, 0}, -angle);
        CHECK(wrinkling_use(skins[0], kEc, kGc, pressed, {0, 0, 0}) == Approx(use));
        CHECK(wrinkling_use(skins[1], kEc, kGc, -pressed, {0, 0, 0}) == Approx(0).margin(1e-9));
    }
    // Bent, one skin is pressed and the other pulled.
    const Eigen::Vector3d bend(0.2, -0.06, 0);
    CHECK(wrinkling_use(skins[1], kEc, kGc, {0, 0, 0}, bend) == Approx(0).margin(1e-9));
    CHECK(wrinkling_use(skins[0], kEc, kGc, {0, 0, 0}, bend) ==
          Approx(kEf * 0.2 * (kFoam + kSkin) / 2 / wrinkling_stress(kEf, kEc, kGc)));
    // Solid laminate has no skins; of two cores the outer skins count.
    CHECK(skins_of(plies, {0, 0, 0}).empty());
    CHECK(skins_of(std::vector<StackPly>{plies[0], plies[1], plies[0], plies[1], plies[0]}, {0, 1, 0, 1, 0})
              .size() == 2);
    CHECK(skins_of(std::vector<StackPly>{plies[1], plies[0]}, {1, 0}).size() == 1);
}

TEST_CASE("the shear that an element tells carries the force of a cantilever, on any lie of the mesh") {
    const double length = 0.6, width = 0.1, force = 40;
    const auto l = laminate(sandwich());
    for (const double turn : {0.0, 0.6}) {
        INFO(turn);
        const Eigen::AngleAxisd turned(turn, Point(0.2, 0.4, 0.9).normalized());
        shell_fe::Model model;
        fixtures::sheet(model.mesh, 30, 5,
                        [&](double u, double v) { return turned * Point(length * u, width * v, 0); });
        model.skins = {{l, turned * Point::UnitX()}};
        shell_fe::Support root;
        root.fix = fixtures::kAll;
        for (std::uint32_t j = 0; j <= 5; ++j) root.points.push_back(j * 31);
        const shell_fe::System system(model, {root}, quiet);
        shell_fe::Loads loads;
        for (std::uint32_t j = 0; j <= 5; ++j)
            loads.nodes.push_back(
                {j * 31 + 30, (j == 0 || j == 5 ? 0.1 : 0.2) * force * (turned * Point::UnitZ())});
        const auto solution = system.solve(loads);
        double sum = 0, area = 0;
        for (std::size_t f = 0; f < model.mesh.triangles.size(); ++f) {
            const double x = (turned.inverse() * model.mesh.centre(f)).x();
            if (x < 0.2 || x > 0.4) continue;
            const double a = model.mesh.area_vector2(f).norm();
            sum += a * system.strain(f, solution).shear.x() * l.shear_stiffness.x();
            area += a;
        }
        CHECK(sum / area == Approx(force / width).epsilon(0.01));
    }
}
