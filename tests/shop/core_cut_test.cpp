// What holes and slits leave of a core, against closed forms and against a cell that is solved here.
#include <catch2/catch.hpp>
#include <cmath>
#include <Eigen/SparseCholesky>

#include "core/shop/stack_figures.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::shop;

namespace {

constexpr double kCoreG = 28e6, kResinE = 3e9, kResinNu = 0.35;
const Matrix kResin{1150, kResinE, kResinNu, 65e-6};
const double kResinG = kResinE / (2 * (1 + kResinNu));

PlyMaterial foam() {
    auto out = isotropic(75e6, 0.35, 75, 40e-6);
    out.G13 = out.G23 = kCoreG;
    return out;
}

/// Shear along bores on a square pitch: ∇·(G∇w) = 0 over a quarter of a cell, w from 0 to 1 across it, by
/// finite volumes with means in series.
double bored_cell(double share, double in_hole, int n) {
    const double radius = std::sqrt(share / kPi);  // of a cell of 1
    const auto stiff = [&](int i, int j) {
        // Cells that the rim of the hole parts have their share of each.
        int inside = 0;
        for (int a = 0; a < 5; ++a) {
            for (int b = 0; b < 5; ++b)
                inside += std::hypot((i + 0.1 + 0.2 * a) / (2 * n), (j + 0.1 + 0.2 * b) / (2 * n)) < radius;
        }
        return kCoreG + (in_hole - kCoreG) * inside / 25.0;
    };
    const auto at = [&](int i, int j) { return static_cast<Eigen::Index>(j) * n + i; };
    std::vector<Eigen::Triplet<double>> triplets;
    Eigen::VectorXd right = Eigen::VectorXd::Zero(n * n);
    const auto tie = [&](Eigen::Index a, Eigen::Index b, double g) {
        triplets.emplace_back(a, a, g);
        triplets.emplace_back(b, b, g);
        triplets.emplace_back(a, b, -g);
        triplets.emplace_back(b, a, -g);
    };
    for (int j = 0; j < n; ++j) {
        for (int i = 0; i < n; ++i) {
            const double here = stiff(i, j);
            if (i + 1 < n) tie(at(i, j), at(i + 1, j), 2 * here * stiff(i + 1, j) / (here + stiff(i + 1, j)));
            if (j + 1 < n) tie(at(i, j), at(i, j + 1), 2 * here * stiff(i, j + 1) / (here + stiff(i, j + 1)));
            if (i == 0) triplets.emplace_back(at(i, j), at(i, j), 2 * here);
            if (i == n - 1) {
                triplets.emplace_back(at(i, j), at(i, j), 2 * here);
                right[at(i, j)] += 2 * here;
            }
        }
    }
    Eigen::SparseMatrix<double> matrix(n * n, n * n);
    matrix.setFromTriplets(triplets.begin(), triplets.end());
    const Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver(matrix);
    const Eigen::VectorXd w = solver.solve(right);
    double flux = 0;
    for (int j = 0; j < n; ++j) flux += 2 * stiff(0, j) * w[at(0, j)];
    return flux;
}

}  // namespace

TEST_CASE("an uncut core stays as it is, to the last digit") {
    const auto whole = foam();
    CHECK(as_cut(whole, open_of({}, 0.01), Slits::none, &kResin) == whole);
    CHECK(open_of({}, 0.01).volume() == 0);
    CoreCut far;
    far.slits = Slits::both;
    CHECK(open_of(far, 0).volume() == 0);
}

TEST_CASE("holes leave the shear that a cell with a hole has, full and empty") {
    for (const double diameter : {0.004, 0.01}) {
        CoreCut cut;
        cut.hole = diameter;
        cut.hole_pitch = 0.02;
        const auto open = open_of(cut, 0.015);
        const double share = kPi / 4 * std::pow(diameter / 0.02, 2);
        CHECK(open.holes == Approx(share));
        CHECK(open.volume() == Approx(share));
        const auto full = as_cut(foam(), open, Slits::none, &kResin),
                   empty = as_cut(foam(), open, Slits::none, nullptr);
        INFO("hole of " << diameter);
        CHECK(full.G13 == Approx(bored_cell(share, kResinG, 80)).epsilon(0.02));
        CHECK(empty.G13 == Approx(bored_cell(share, 1e-6 * kCoreG, 80)).epsilon(0.02));
        CHECK(empty.G23 == empty.G13);
        CHECK(empty.G13 < kCoreG);
        CHECK(full.G13 > kCoreG);
        // A hole full of the core itself is none.
        const Matrix same{75, 2 * (1 + 0.35) * kCoreG, 0.35, 40e-6};
        CHECK(as_cut(foam(), open, Slits::none, &same).G13 == Approx(kCoreG));
    }
}

TEST_CASE(
    "slits are layers: stacked across them, side by side along them, in series with what is under them") {
    CoreCut cut;
    cut.slits = Slits::along;
    cut.slit = 0.002;
    cut.slit_pitch = 0.02;
    cut.slit_depth = 0.005;
    const auto open = open_of(cut, 0.01);
    CHECK(open.across == Approx(0.1));
    CHECK(open.depth == Approx(0.5));
    CHECK(open.volume() == Approx(0.05));
    const auto full = as_cut(foam(), open, Slits::along, &kResin);
    const double stacked = 1 / (0.9 / kCoreG + 0.1 / kResinG), beside = 0.9 * kCoreG + 0.1 * kResinG;
    CHECK(full.G23 == Approx(1 / (0.5 / stacked + 0.5 / kCoreG)));
    CHECK(full.G13 == Approx(1 / (0.5 / beside + 0.5 / kCoreG)));
    CHECK(full.E1 == Approx(0.5 * 75e6 + 0.5 * (0.9 * 75e6 + 0.1 * kResinE)));
    // Empty ones leave their share of the section to shear, and nothing to pull on in the depth that they
    // cut.
    const auto empty = as_cut(foam(), open, Slits::along, nullptr);
    CHECK(empty.G23 == Approx(1 / (0.5 / (0.9 * kCoreG) + 0.5 / kCoreG)));
    CHECK(empty.E2 == Approx(0.5 * 75e6));
    CHECK(empty.E1 == Approx(0.95 * 75e6));
    // Both ways alike; crossings are cut once.
    cut.slits = Slits::both;
    const auto crossed = open_of(cut, 0.01);
    CHECK(crossed.volume() == Approx(0.5 * (2 * 0.1 - 0.01)));
    const auto square = as_cut(foam(), crossed, Slits::both, nullptr);
    CHECK(square.G13 == Approx(square.G23));
    CHECK(square.E1 == Approx(square.E2));
    // Right through and empty it still has something to be laid by, and a laminate of it can be worked out.
    cut.slit_depth = 0.3;
    const auto through = as_cut(foam(), open_of(cut, 0.01), Slits::both, nullptr);
    CHECK(through.E1 > 0);
    CHECK(through.nu12 * through.nu12 < through.E1 / through.E2);
}

TEST_CASE("a stack weighs what its cuts leave and what they drink") {
    const auto& core = need(shop().cores, "PVC foam 75, 10 mm", "test");
    const auto& resin = need(shop().resins, "epoxy, infusion", "test");
    Layer layer{LayerKind::core, core.name, 0, 0};
    layer.cut.hole = 0.003;
    layer.cut.hole_pitch = 0.03;
    layer.cut.slits = Slits::both;
    layer.cut.slit = 0.001;
    layer.cut.slit_depth = 0.006;
    layer.cut.slit_pitch = 0.02;
    const double holes = kPi / 4 * 0.01, slits = (2 * 0.05 - 0.0025) * (1 - holes),
                 gone = holes + 0.6 * slits;
    const auto wet = sum_stack({layer}, resin, LayUp::infused, shop(), "test");
    CHECK(wet.other == Approx(0.01 * core.density * (1 - gone)));
    CHECK(wet.resin == Approx(2 * core.uptake + 0.01 * gone * resin.matrix.density));
    CHECK(wet.laid[0].ply.material.density * 0.01 == Approx(wet.other + wet.resin));
    const auto& low =
        *std::find_if(shop().resins.begin(), shop().resins.end(), [](const Resin& r) { return r.in_cloth; });
    const auto dry = sum_stack({layer}, low, LayUp::prepreg, shop(), "test");
    CHECK(dry.resin == 0);
    CHECK(dry.laid[0].ply.material.G13 < core.G);
    // What lies in the stack of a sandwich shears by it.
    auto sandwich = [&](const CoreCut& cut) {
        auto middle = layer;
        middle.cut = cut;
        const Layer ply{LayerKind::ply, "glass cloth 300 twill", 0, 0};
        return sum_stack({ply, middle, ply}, low, LayUp::prepreg, shop(), "test").laminate.shear_stiffness[0];
    };
    CHECK(sandwich(layer.cut) < 0.99 * sandwich({}));
}

TEST_CASE("a core bends by what was done to it, and no further than somebody knows") {
    Core core;
    core.bends_cold = 0.5;
    core.bends_slit = 0.1;
    CoreCut cut;
    CHECK(bends_to(core, cut) == 0.5);
    cut.heated = true;
    CHECK(bends_to(core, cut) == 0.5);
    cut.slits = Slits::along;
    CHECK(bends_to(core, cut) == 0.1);
    core.bends_hot = 0.08;
    CHECK(bends_to(core, cut) == 0.08);
    core.bends_cold = 0;
    CHECK(bends_to(core, {}) == 0);
}
