#include <catch2/catch.hpp>

#include "core/base/error.hpp"
#include "core/base/units.hpp"

using namespace jig;

TEST_CASE("quantities are shown in the maker's units") {
    const Wording metric, imperial{UnitSystem::imperial, "$"};
    CHECK(show(Kind::thickness, 0.0064) == "6.40 mm");
    CHECK(show(Kind::thickness, 0.00254, imperial) == "0.100 in");
    CHECK(show(Kind::temperature, kelvin(60)) == "60 °C");
    CHECK(show(Kind::temperature, kelvin(100), imperial) == "212 °F");
    CHECK(show(Kind::areal_mass, 0.3) == "300 g/m²");
    // 1 oz/yd² is 28.349523125 g over 0.83612736 m².
    CHECK(show(Kind::areal_mass, 0.028349523125 / 0.83612736, imperial) == "1.00 oz/yd²");
    CHECK(show(Kind::pressure, 90000) == "900 mbar");
    CHECK(show(Kind::angle, radians(3)) == "3.00°");
    CHECK(show(Kind::money, 12.5, imperial) == "$12.50");
    CHECK(show(Kind::mass, 0.25) == "250 g");
    CHECK(show(Kind::length, 11.546) == "11.5 m");
    CHECK(show(Kind::length, 1.275) == "1\u202f275 mm");
    CHECK(show(Kind::duration, 5400) == "90 min");
    CHECK(show(Kind::length, std::nan("")) == "–");
    CHECK(show(Kind::length, -1e-9) == "0.00 mm");
}

TEST_CASE("typed quantities are read with and without a unit") {
    const Wording metric, imperial{UnitSystem::imperial, "$"};
    CHECK(read_quantity(Kind::length, "12").value() == Approx(0.012));
    CHECK(read_quantity(Kind::length, "12", imperial).value() == Approx(0.3048));
    CHECK(read_quantity(Kind::length, "0,5 in").value() == Approx(0.0127));
    CHECK(read_quantity(Kind::length, "3/8 in").value() == Approx(0.009525));
    CHECK(read_quantity(Kind::temperature, "140 °F").value() == Approx(kelvin(60)));
    CHECK(read_quantity(Kind::areal_mass, "300 gsm").value() == Approx(0.3));
    CHECK(read_quantity(Kind::money, "$ 12.50", imperial).value() == Approx(12.5));
    CHECK(read_quantity(Kind::factor, "1e-3").value() == Approx(0.001));
    for (const char* bad : {"", "mm", "12 parsec", "1/0", "--3", "12 12", "nan"}) {
        INFO(bad);
        CHECK_FALSE(read_quantity(Kind::length, bad).has_value());
    }
    CHECK_THROWS_AS(need_quantity("flange", Kind::length, "wide"), InputError);
}

TEST_CASE("every kind comes back from the text that its editor shows") {
    for (int k = 0; k <= static_cast<int>(Kind::count); ++k) {
        for (const auto system : {UnitSystem::metric, UnitSystem::imperial}) {
            const Wording w{system, "¤"};
            const auto kind = static_cast<Kind>(k);
            const double si = kind == Kind::count ? 7 : kind == Kind::temperature ? 333.15 : 0.0371;
            INFO(k);
            CHECK(read_quantity(kind, show_for_edit(kind, si, w), w).value() == Approx(si).epsilon(1e-4));
        }
    }
}

TEST_CASE("sentences carry quantities until they are shown") {
    const auto sentence =
        "sags " + quantity(Kind::thickness, 9e-4) + " at " + quantity(Kind::length, 0.41) + ".";
    CHECK(worded(sentence) == "sags 0.90 mm at 410 mm.");
    CHECK(worded(sentence, {UnitSystem::imperial, "$"}) == "sags 0.035 in at 16.1 in.");
    CHECK(worded("no figure") == "no figure");
}
