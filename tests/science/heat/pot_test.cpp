// Pots of mixed resin that are left standing.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/science/heat/cure_fit.hpp"
#include "core/science/heat/pot.hpp"

using namespace jig;

namespace {

Kinetics resin() {
    return kinetics_by_gel(CureFamily::epoxy, 293.15, 3600, 353.15, 20);
}

/// The same pot by small even steps.
double peak_by_steps(const Kinetics& k, double mass, double room, double step) {
    double T = room, cure = 0, most = room;
    for (double t = 0; t < 40 * 3600; t += step) {
        const double rate = cure_rate(k, T, cure).rate;
        T += step * (k.heat * rate / kPotCapacity - pot_loss(mass) * (T - room) / (mass * kPotCapacity));
        cure = std::min(1.0, cure + step * rate);
        most = std::max(most, T);
    }
    return most;
}

}  // namespace

TEST_CASE("a litre of resin loses what the side and top of its cylinder and its foot lose") {
    // d = (4 V/π)^⅓ = 108.4 mm; side π·d², top and foot π·d²/4 each; 8 W/(m²·K).
    const double d = std::cbrt(4e-3 / 3.14159265358979);
    CHECK(d == Approx(0.1084).epsilon(1e-3));
    CHECK(pot_loss(1.15) == Approx(8 * (3.14159265358979 * d * d + 2 * 3.14159265358979 * d * d / 4)));
    // Eight times the resin has four times the face.
    CHECK(pot_loss(9.2) == Approx(4 * pot_loss(1.15)));
}

TEST_CASE("a large pot comes near its whole heat, a small one stays near its room, none goes past either") {
    const auto k = resin();
    const double room = 295, all = room + k.heat / kPotCapacity;
    double before = room;
    for (const double mass : {1e-6, 0.02, 0.1, 0.5, 2.0, 20.0, 2000.0}) {
        const auto p = left_standing(k, mass, room);
        CHECK(p.T >= before - 1e-6);
        CHECK(p.T <= all + 1e-6);
        before = p.T;
    }
    // A drop gives its heat away as fast as it comes.
    CHECK(left_standing(k, 1e-6, room).T < room + 8);
    CHECK(left_standing(k, 2000, room).T > room + 0.9 * k.heat / kPotCapacity);
    // Warmer to begin with is hotter and sooner.
    CHECK(left_standing(k, 1, 303).T > left_standing(k, 1, 293).T);
    CHECK(left_standing(k, 1, 303).time < left_standing(k, 1, 293).time);
}

TEST_CASE("a pot's peak is what small even steps come to") {
    const auto k = resin();
    for (const double mass : {0.2, 1.0, 5.0})
        CHECK(left_standing(k, mass, 293.15).T == Approx(peak_by_steps(k, mass, 293.15, 0.5)).margin(0.5));
}

namespace {

/// s by small even steps until a pot that stands has come to that degree of cure.
double until_by_steps(const Kinetics& k, double mass, double room, double cure) {
    constexpr double kStep = 0.1;
    double T = room, a = 0, t = 0;
    for (; a < cure && t < 1e6; t += kStep) {
        const double rate = cure_rate(k, T, a).rate;
        T += kStep * (k.heat * rate / kPotCapacity - pot_loss(mass) * (T - room) / (mass * kPotCapacity));
        a += kStep * rate;
    }
    return t;
}

}  // namespace

TEST_CASE("a pot lives until it has come as far as the one that is known had") {
    const auto k = resin();
    const PotLife known{500, 1, 293.15};
    CHECK(pot_life_of(k, known, 1, 293.15) == Approx(500).epsilon(1e-9));
    const double spent = pot_cure(k, 1, kPotCapacity, 293.15, pot_loss(1), 500);
    CHECK(spent > 0);
    CHECK(spent < k.gel);
    for (const auto& [mass, room] : {std::pair{0.2, 293.15}, {5.0, 293.15}, {1.0, 303.15}, {0.5, 283.15}}) {
        INFO(mass << " kg at " << room);
        CHECK(until_by_steps(k, mass, room, spent) ==
              Approx(pot_life_of(k, known, mass, room)).epsilon(4e-3));
    }
    // A drop, which comes to a kelvin over its room at most, gets there little sooner than at one heat.
    const double at_one_heat = cure_after(k, 293.15, pot_life_of(k, known, 1e-7, 293.15));
    CHECK(at_one_heat < spent);
    CHECK(at_one_heat > 0.9 * spent);
    // Warmer or larger is never longer.
    double before = 1e12;
    for (const double room : {278.15, 288.15, 293.15, 298.15, 308.15}) {
        double last = 1e12;
        for (const double mass : {0.05, 0.2, 1.0, 5.0, 25.0}) {
            const double life = pot_life_of(k, known, mass, room);
            CHECK(life <= last * (1 + 1e-6));
            last = life;
        }
        const double kilogram = pot_life_of(k, known, 1, room);
        CHECK(kilogram < before);
        before = kilogram;
    }
    // A life that lasts past gelation is told in proportion, and what never gets there lasts.
    const PotLife long_one{40000, 0.05, 293.15};
    CHECK(pot_life_of(k, long_one, 0.05, 293.15) == Approx(40000));
    CHECK(pot_life_of(k, long_one, 0.05, 313.15) < 40000);
    CHECK(pot_life_of(k, known, 0.05, 200) == Approx(1e7));
}
