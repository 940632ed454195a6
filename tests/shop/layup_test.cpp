// What layers come to, against figures of data sheets and sums by hand.
#include <catch2/catch.hpp>

#include "core/science/laminate/stack.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::shop;

namespace {

StackSum laid(const std::vector<Layer>& layers, const char* resin, LayUp how = LayUp::hand) {
    return sum_stack(layers, need(shop().resins, resin, "test"), how, shop(), "test");
}

}  // namespace

TEST_CASE("a free strip bends by D less what stretching gives back, whatever line it is measured from") {
    // One thin skin on a thick soft layer: the strip bends about its own neutral axis, by hand.
    const double Ef = 40e9, Ec = 0.5e9, tf = 0.001, tc = 0.010;
    const std::vector<StackPly> stack{{isotropic(Ef, 0, 1800, 0), 0, tf}, {isotropic(Ec, 0, 100, 0), 0, tc}};
    const auto l = laminate(stack);
    const double axis = (Ef * tf * tf / 2 + Ec * tc * (tf + tc / 2)) / (Ef * tf + Ec * tc);
    const double EI = Ef * (tf * tf * tf / 12 + tf * std::pow(axis - tf / 2, 2)) +
                      Ec * (tc * tc * tc / 12 + tc * std::pow(tf + tc / 2 - axis, 2));
    CHECK(l.D_free(0, 0) == Approx(EI));
    CHECK(l.D(0, 0) > 4 * EI);  // about mid-thickness it seems several times as stiff
    // A second material of next to nothing on one side moves mid-thickness, and nothing else.
    auto more = stack;
    more.push_back({isotropic(1, 0, 1, 0), 0, 0.02});
    CHECK(laminate(more).D_free(0, 0) == Approx(EI).epsilon(1e-6));
    // Symmetric: both are one.
    const std::vector<StackPly> even{stack[0], stack[1], stack[0]};
    CHECK(laminate(even).D_free(0, 0) == Approx(laminate(even).D(0, 0)));
}

TEST_CASE("fibres that grow across otherwise than along: Schapery by hand for carbon and aramid") {
    const Matrix m{1150, 3e9, 0.35, 65e-6};
    for (const auto kind : {FibreKind::glass, FibreKind::carbon, FibreKind::aramid}) {
        const auto& f = fibre_of(kind);
        const double vf = 0.55, E1 = vf * f.E1 + 0.45 * m.E, nu = vf * f.nu12 + 0.45 * m.nu;
        const double along = (vf * f.E1 * f.alpha1 + 0.45 * m.E * m.alpha) / E1;
        const auto p = unidirectional(f, m, vf);
        CHECK(p.alpha1 == Approx(along));
        CHECK(p.alpha2 == Approx(vf * (f.alpha2 + f.nu12 * f.alpha1) + 0.45 * m.alpha * 1.35 - along * nu));
    }
    // Data sheets of carbon tape: about 0 along and 25 to 40 across.
    const auto carbon = unidirectional(fibre_of(FibreKind::carbon), m, 0.55);
    CHECK(std::abs(carbon.alpha1) < 1e-6);
    CHECK(carbon.alpha2 > 25e-6);
    CHECK(carbon.alpha2 < 45e-6);
}

TEST_CASE("mat, roving and cloth have the stiffness that data sheets give at their fibre share") {
    // Hand-laid mat in polyester at 30 % by mass: 6.5 to 8.5 GPa.
    const auto mat = laid({{LayerKind::ply, "glass mat 450", 0, 0}}, "polyester, general");
    CHECK(mat.fibre / (mat.fibre + mat.resin) == Approx(0.32).margin(0.03));
    CHECK(mat.laminate.membrane.Ex > 6.5e9);
    CHECK(mat.laminate.membrane.Ex < 8.5e9);
    // Woven roving by hand: about half glass by mass, 13 to 18 GPa.
    const auto roving = laid({{LayerKind::ply, "glass woven roving 600", 0, 0}}, "polyester, general");
    CHECK(roving.fibre / (roving.fibre + roving.resin) == Approx(0.5).margin(0.05));
    CHECK(roving.laminate.membrane.Ex > 12e9);
    CHECK(roving.laminate.membrane.Ex < 18e9);
    CHECK(roving.laid[0].fibre_volume <
          laid({{LayerKind::ply, "glass cloth 600 twill", 0, 0}}, "polyester, general").laid[0].fibre_volume);
}

TEST_CASE("end grain and honeycomb carry next to nothing in their plane") {
    for (const auto* name : {"end-grain balsa 150, 12.5 mm", "aramid honeycomb 48, 10 mm"}) {
        const auto& core = need(shop().cores, name, "test");
        const auto sum = laid({{LayerKind::core, name, 0, 0}}, "epoxy, infusion");
        INFO(name);
        CHECK(sum.laminate.membrane.Ex < 0.03 * core.E);
        CHECK(sum.laid[0].ply.material.G13 == core.G);
    }
    // Foam is alike every way.
    const auto foam = laid({{LayerKind::core, "PVC foam 75, 10 mm", 0, 0}}, "epoxy, infusion");
    CHECK(foam.laminate.membrane.Ex == Approx(75e6));
}

TEST_CASE("a bulking mat fills with resin, and what prepreg brings nobody mixes") {
    // Half of 3 mm fills: 1.5 mm of resin of 1200 kg/m³, and 40 kg/m³ dry.
    const auto mat = laid({{LayerKind::core, "bulking mat 3 mm", 0, 0}}, "polyester, general");
    CHECK(mat.resin == Approx(0.0015 * 1200));
    CHECK(mat.other == Approx(0.003 * 40));
    CHECK(mat.laminate.areal_mass == Approx(mat.areal_mass()));
    const std::vector<Layer> part{{LayerKind::ply, "carbon cloth 200 twill", 0, 0},
                                  {LayerKind::core, "aramid honeycomb 48, 6 mm", 0, 0},
                                  {LayerKind::ply, "carbon cloth 200 twill", 0, 0}};
    const auto prepreg = laid(part, "tooling prepreg resin", LayUp::prepreg);
    CHECK(prepreg.mixed == 0);
    CHECK(prepreg.laid[1].resin == 0);
    CHECK(prepreg.resin > 0);
    const auto wet = laid(part, "epoxy, room temperature slow", LayUp::bagged);
    CHECK(wet.mixed == Approx(wet.resin));
    CHECK(wet.laid[1].resin > 0);
}

TEST_CASE(
    "carbon holds a resin's shrinkage back more than glass, and nothing holds it through the thickness") {
    const auto of = [](const char* cloth, const char* resin) {
        return laid({{LayerKind::ply, cloth, 0, 0}, {LayerKind::ply, cloth, 0, 0}}, resin).cure;
    };
    const auto& epoxy = need(shop().resins, "epoxy, tooling post-cured", "test");
    const auto glass = of("glass cloth 300 satin", "epoxy, tooling post-cured"),
               carbon = of("carbon cloth 285 twill", "epoxy, tooling post-cured");
    // The library's figure is that of hand-laid glass cloth.
    CHECK(glass.in_plane == Approx(epoxy.shrinkage).epsilon(0.06));
    CHECK(carbon.in_plane < 0.6 * glass.in_plane);
    CHECK(carbon.in_plane > 0);
    CHECK(glass.through > 3 * glass.in_plane);
    CHECK(carbon.through > glass.in_plane * 3);
    // Alike on both sides it stays flat; carbon on one side and glass on the other curls.
    CHECK(glass.curvature.norm() < 1e-12);
    CHECK(laid({{LayerKind::ply, "glass cloth 300 satin", 0, 0},
                {LayerKind::ply, "carbon cloth 285 twill", 0, 0}},
               "epoxy, tooling post-cured")
              .cure.curvature.norm() > 1e-3);
    // Polyester's is that of mat.
    CHECK(of("glass mat 450", "polyester, general").in_plane ==
          Approx(need(shop().resins, "polyester, general", "test").shrinkage).epsilon(0.02));
}
