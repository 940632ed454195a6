// Pots in turn run by their own age: against the way of the resin integrated here, in a strip and in a ring.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>

#include "core/shop/cure.hpp"
#include "core/stages/bag/flow.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/one_sheet.hpp"

namespace jig::bag {
namespace {

constexpr double kPerm = 2.2e-11, kOpen = 0.5, kThick = 0.004, kVacuumed = 9e4, kWaited = 600;

/// One sheet of cloth, and a resin that thickens by several times before it is full.
FlowAsked thickening(double pot) {
    auto a = fixtures::one_sheet(kPerm, kOpen, kThick, kVacuumed);
    a.resin = flowing(need(fixtures::shop().resins, "epoxy, infusion", "test"), 298.15);
    a.density = 1100;
    a.pot_life = 1e6;
    a.infusion.waited = kWaited;
    a.infusion.pot = pot;
    return a;
}

/// The time at which a front has taken `wanted` kg in, whose resistance from its feed to where it stands goes
/// with `resists` of what it has taken in: μ·R·dm/dt = Δp, pots of `holds` kg each.
double reference(double wanted, double holds, const Viscosity& fresh, bool aged,
                 const std::function<double(double)>& resists) {
    std::vector<std::pair<double, double>> pots{{0, 0}};  // kg before it, s when it was opened
    double time = 0;
    constexpr int kSteps = 200000;
    for (int i = 0; i < kSteps; ++i) {
        const double m = wanted * (i + 0.5) / kSteps;
        double sum = 0;
        for (std::size_t k = 0; k < pots.size(); ++k) {
            const double far = m - pots[k].first, near = k + 1 < pots.size() ? m - pots[k + 1].first : 0;
            sum += (resists(far) - resists(near)) * fresh.at(aged ? time - pots[k].second : time);
        }
        time += sum / kVacuumed * wanted / kSteps;
        const double drawn = wanted * (i + 1) / kSteps;
        if (drawn - pots.back().first >= holds) pots.emplace_back(drawn, time);
    }
    return time;
}

Port rim_from(PortUse use, double from, double to) {
    Port p;
    p.use = use;
    p.kind = PortKind::rim;
    p.along = from;
    p.to_along = to;
    return p;
}

}  // namespace

TEST_CASE("a strip fed from several pots fills as each of them thickens by itself") {
    const double length = 0.45, width = 0.15;
    auto mesh = shapes::plate(length, width, 90, 22);
    for (auto& p : mesh.points) p -= Point(length / 2, width / 2, 0);
    const Shared<TriangleMesh> face(std::make_shared<const TriangleMesh>(std::move(mesh)));
    const double holds = kOpen * kThick * length * width * 1100, along = kOpen * kThick * width * 1100;
    const auto asked_of = [&](double pot) {
        auto a = thickening(pot);
        a.infusion.ports = {rim_from(PortUse::feed, -length / 2 - 1e-4, -length / 2 + 1e-4),
                            rim_from(PortUse::vent, length / 2 - 1e-4, length / 2 + 1e-4)};
        return a;
    };
    const auto fills = [&](double pot, bool aged) {
        const auto f = flow(asked_of(pot), face, fixtures::kLevel, {}, true, quiet);
        INFO(f.fault);
        REQUIRE(f.filling.fill);
        CHECK(f.aged == aged);
        CHECK(f.filling.held == Approx(holds).epsilon(1e-3));
        return *f.filling.fill;
    };
    const Viscosity fresh(thickening(1).resin, -kWaited);
    // x = m/along; R·dm/dt·μ = Δp with R = x/(K·h·w·ρ).
    const auto way = [&](double m) { return m / along / (kPerm * kThick * width) / 1100; };
    const double one = reference(holds, 10 * holds, fresh, true, way);
    CHECK(fills(5, false) == Approx(one).epsilon(0.01));
    for (const double pots : {2.0, 3.0, 5.5}) {
        // A twentieth of a pot stays in it.
        const double each = holds / pots, aged = reference(holds, each, fresh, true, way);
        INFO(pots);
        REQUIRE(aged < 0.97 * one);
        CHECK(fills(1.05 * each, true) == Approx(aged).epsilon(0.01));
    }
}

TEST_CASE("in a ring that closes in, the old resin at the front holds most of the way") {
    const double radius = 0.75, hole = 0.02;
    const auto mesh = shapes::sheet(80, 80, [&](double u, double v) {
        const double a = 2 * u - 1, b = 2 * v - 1;
        return Point(radius * a * std::sqrt(1 - b * b / 2), radius * b * std::sqrt(1 - a * a / 2), 0);
    });
    const Shared<TriangleMesh> face(std::make_shared<const TriangleMesh>(mesh));
    const double by_area = kOpen * kThick * 1100;
    // In what is taken in till the front stands at a third of the radius.
    const double third = radius / 3, wanted = by_area * kPi * (radius * radius - third * third);
    auto asked = thickening(1.05 * wanted / 3);
    Port vent;
    vent.use = PortUse::vent;
    asked.infusion.ports = {rim_from(PortUse::feed, 0, 0), vent};
    const auto f = flow(asked, face, fixtures::kLevel, {}, true, quiet);
    INFO(f.fault);
    REQUIRE(f.runs);
    REQUIRE(f.aged);
    const auto way = [&](double m) {
        const double r = std::sqrt(std::max(hole * hole, radius * radius - m / by_area / kPi));
        return std::log(radius / r) / (2 * kPi * kPerm * kThick) / 1100;
    };
    const Viscosity fresh(asked.resin, -kWaited);
    const double aged = reference(wanted, wanted / 3, fresh, true, way),
                 one = reference(wanted, 10 * wanted, fresh, true, way);
    // The mean over the places at that radius.
    double sum = 0;
    int count = 0;
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        if (std::abs(mesh.points[i].norm() - third) > 0.008 || !f.filling.arrival[i]) continue;
        sum += *f.filling.arrival[i];
        ++count;
    }
    REQUIRE(count > 10);
    REQUIRE(aged < 0.98 * one);
    CHECK(sum / count == Approx(aged).epsilon(0.015));
}

TEST_CASE("pots that are all fresh are followed once, and those that gel stop as the first does") {
    auto asked = thickening(0.02);
    asked.resin.kinetics.A1 = asked.resin.kinetics.A2 = 0;
    const double length = 0.3;
    auto mesh = shapes::plate(length, 0.1, 30, 10);
    for (auto& p : mesh.points) p -= Point(length / 2, 0.05, 0);
    const Shared<TriangleMesh> face(std::make_shared<const TriangleMesh>(std::move(mesh)));
    asked.infusion.ports = {rim_from(PortUse::feed, -length / 2 - 1e-4, -length / 2 + 1e-4),
                            rim_from(PortUse::vent, length / 2 - 1e-4, length / 2 + 1e-4)};
    const auto even = flow(asked, face, fixtures::kLevel, {}, false, quiet);
    REQUIRE(even.filling.fill);
    CHECK(even.pots.size() > 2);
    CHECK_FALSE(even.aged);
    // So tight that it gels on the way: not later than the first pot does, and farther with fresh pots.
    asked = thickening(0.01);
    asked.preform[0].flow.K1 = asked.preform[0].flow.K2 = 5e-13;
    asked.infusion.ports = {rim_from(PortUse::feed, -length / 2 - 1e-4, -length / 2 + 1e-4),
                            rim_from(PortUse::vent, length / 2 - 1e-4, length / 2 + 1e-4)};
    const auto many = flow(asked, face, fixtures::kLevel, {}, false, quiet);
    asked.infusion.pot = 5;
    const auto single = flow(asked, face, fixtures::kLevel, {}, false, quiet);
    CHECK_FALSE(many.filling.fill);
    CHECK_FALSE(single.filling.fill);
    CHECK(many.gel == single.gel);
    CHECK(many.filling.filled > single.filling.filled);
    CHECK(many.filling.filled < 1);
}

}  // namespace jig::bag
