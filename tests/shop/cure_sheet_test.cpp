// A resin that cures by its own data sheet: what is typed into the library is what Heat goes by.
#include <catch2/catch.hpp>

#include "core/science/heat/pot.hpp"
#include "core/shop/cure.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;

namespace {

/// A resin of which everything is known, and its sheet as a maker of resin would print it.
struct Known {
    Kinetics k = kinetics_by_gel(CureFamily::epoxy, 293.15, 5400, 370, 15);
    Resin resin;
    Known() {
        // Another temperature slope than is typical, about the same speed at 20 °C.
        const double by = 9000;
        k.E1 += by;
        k.E2 += by;
        k.A1 *= std::exp(by / (kGasConstant * 293.15));
        k.A2 *= std::exp(by / (kGasConstant * 293.15));
        resin.name = "synthetic";
        resin.family = Family::epoxy;
        resin.gel_time = *gel_time(k, 293.15);
        resin.Tg = 370;
        for (const double T : {303.15, 313.15, 333.15}) resin.cures.gels.push_back({T, *gel_time(k, T)});
        resin.cures.heat = k.heat;
        for (const double T : {323.15, 343.15, 363.15, 393.15})
            resin.cures.glass.push_back({T, 28800, k.glass->at(cure_after(k, T, 28800))});
    }
};

}  // namespace

TEST_CASE("gel times at heats that the sheet does not give come back from a synthetic sheet") {
    const Known known;
    const auto k = kinetics_of(known.resin);
    const auto fit = cure_fit(known.resin);
    for (const double T : {298.15, 308.15, 323.15, 343.15}) {
        INFO(T);
        const double told = *gel_time(known.k, T), fitted = *gel_time(k, T);
        CHECK(fitted == Approx(told).epsilon(std::max(0.02, 3 * fit.gel_spread(T))));
        CHECK(fitted == Approx(told).epsilon(0.05));
    }
    CHECK(k.E2 == Approx(known.k.E2).epsilon(0.05));
    // What is typical of its family alone is out by much more.
    auto plain = known.resin;
    plain.cures = {};
    CHECK(std::abs(*gel_time(kinetics_of(plain), 343.15) / *gel_time(known.k, 343.15) - 1) > 0.25);
    // Tg after cures that the sheet does not give.
    for (const double T : {333.15, 353.15, 373.15}) {
        INFO(T);
        CHECK(k.glass->at(cure_after(k, T, 14400)) ==
              Approx(known.k.glass->at(cure_after(known.k, T, 14400))).margin(6));
    }
}

TEST_CASE("a sheet that is silent of Tg leaves the resin's own, one that tells of no heat the typical one") {
    Known known;
    known.resin.cures.glass.clear();
    known.resin.cures.heat = 0;
    const auto k = kinetics_of(known.resin);
    REQUIRE(k.glass);
    CHECK(k.glass->full == Approx(370).margin(3));
    CHECK(k.glass->lead == known.resin.Tg_lead);
    CHECK(k.heat == Approx(typical_kinetics(CureFamily::epoxy).heat).epsilon(0.02));
    // Nothing but the gel time is what it was before there were sheets.
    known.resin.cures = {};
    CHECK(kinetics_of(known.resin) ==
          kinetics_by_gel(CureFamily::epoxy, kShopRoom, known.resin.gel_time, 370, known.resin.Tg_lead));
}

TEST_CASE("a pot's peak moves the heat of reaction, and a plaster has no glass to be told of") {
    Known known;
    known.resin.cures.glass.clear();
    known.resin.cures.heat = 0;
    // A pot as it truly goes gives the heat back that was in it; loss to the air is known to a third only.
    double last = 0;
    for (const double heat : {340e3, 400e3, 460e3}) {
        INFO(heat);
        auto k = known.k;
        k.heat = heat;
        const auto peak = pot_peak(k, 0.1, kPotCapacity, 296.15, pot_loss(0.1));
        known.resin.cures.pot = {0.1, 296.15, peak.T, peak.time};
        const double told = kinetics_of(known.resin).heat;
        CHECK(told == Approx(heat).epsilon(0.12));
        CHECK(told > last);
        last = told;
    }
    Resin plaster;
    plaster.name = "mud";
    plaster.family = Family::plaster;
    plaster.gel_time = 900;
    plaster.cures.gels = {{313.15, 500}};
    const auto k = kinetics_of(plaster);
    CHECK_FALSE(k.glass.has_value());
    CHECK(*gel_time(k, 313.15) == Approx(500).epsilon(0.05));
    plaster.cures.glass = {{353.15, 3600, 360}};
    CHECK_THROWS_WITH(kinetics_of(plaster), Catch::Contains("mud") && Catch::Contains("glass"));
}

TEST_CASE("a sheet that contradicts itself is a stop that names the resin, and no older cure is shown") {
    auto shop = fixtures::shop();
    auto job = fixtures::bagged();
    for (auto& r : shop.resins) {
        if (r.name == job.part.resin) r.cures.gels = {{333.15, 900}, {343.15, 4000}};
    }
    const auto f = evaluate(job, shop, quiet, Depth::stages);
    CHECK_FALSE(f.heat);
    bool told = false;
    for (const auto& c : f.calls) {
        if (c.severity != Severity::stop) continue;
        told = told || (c.headline + c.why).find("gels later") != std::string::npos;
    }
    CHECK(told);
}

TEST_CASE("Heat goes by the sheet: a resin that is told to be quicker when warm is cured sooner") {
    auto shop = fixtures::shop();
    const auto job = fixtures::bagged();
    const auto usual = evaluate(job, shop, quiet, Depth::stages);
    for (auto& r : shop.resins) {
        if (r.name == job.part.resin) r.cures.gels = {{333.15, r.gel_time / 40}};
    }
    const auto quick = evaluate(job, shop, quiet, Depth::stages);
    REQUIRE(usual.heat);
    REQUIRE(quick.heat);
    CHECK_FALSE(*usual.heat == *quick.heat);
}

TEST_CASE("coats and adhesives cure by their data sheets, and are named where those contradict themselves") {
    const auto& all = fixtures::shop();
    auto coat = need(all.surface_coats, "epoxy surface coat", "test");
    CHECK(*gel_time(kinetics_of(coat), kShopRoom) == Approx(coat.between_passes).epsilon(0.01));
    // Told at another heat, it is met there and stays as it was in the room.
    const double typical = *gel_time(kinetics_of(coat), 333.15);
    coat.cures.gels = {{333.15, 0.6 * typical}};
    CHECK(*gel_time(kinetics_of(coat), 333.15) == Approx(0.6 * typical).epsilon(0.05));
    CHECK(*gel_time(kinetics_of(coat), kShopRoom) == Approx(coat.between_passes).epsilon(0.05));
    coat.cures.gels = {{313.15, 100}, {323.15, 4000}};
    CHECK_THROWS_WITH(kinetics_of(coat), Catch::Contains("surface coat \"epoxy surface coat\""));

    for (const auto& bond : all.bonds) {
        if (!bond.sets()) continue;
        CAPTURE(bond.name);
        const auto k = kinetics_of(bond);
        CHECK(*gel_time(k, kShopRoom) == Approx(bond.gel_time).epsilon(0.01));
        // When it may be moved it has gelled, at the heat at which that is told.
        CHECK(cure_after(k, bond.hardens_at, bond.hardens) > k.gel);
        REQUIRE(k.glass);
        CHECK(k.glass->at(1) == Approx(bond.Tg).margin(1));
    }
    auto bond = need(all.bonds, "thickened epoxy", "test");
    bond.cures.glass = {{353.15, 28800, 338.15}};
    const auto k = kinetics_of(bond);
    CHECK(k.glass->at(cure_after(k, 353.15, 28800)) == Approx(338.15).margin(1.5));
    bond.cures.gels = {{313.15, 100}, {323.15, 4000}};
    CHECK_THROWS_WITH(kinetics_of(bond), Catch::Contains("adhesive \"thickened epoxy\""));
}
