#include <catch2/catch.hpp>

#include "core/base/error.hpp"
#include "core/base/typed.hpp"
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
    CHECK(show(Kind::volume, 2.6e-4) == "0.26 L");
    CHECK(show(Kind::volume, 3.4e-6) == "3.40 ml");
    CHECK(show(Kind::volume, 0) == "0.00 L");
    CHECK(show(Kind::volume, 0.5) == "500 L");
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

TEST_CASE("numbers are read as makers of all lands type them, and what may mean two things asks") {
    const auto mm = [](const char* text) { return read_typed(Kind::length, text).value.value_or(-99) * 1e3; };
    for (const auto& [text, value] : std::vector<std::pair<const char*, double>>{{"12,5", 12.5},
                                                                                 {"12.5", 12.5},
                                                                                 {".5", 0.5},
                                                                                 {"0,200", 0.2},
                                                                                 {"1 200", 1200},
                                                                                 {"1\u202f200 mm", 1200},
                                                                                 {"1\u00a0200", 1200},
                                                                                 {"1 200 000", 1200000},
                                                                                 {"1 200,5", 1200.5},
                                                                                 {"1,200.5", 1200.5},
                                                                                 {"1.200,5", 1200.5},
                                                                                 {"1,200,000", 1200000},
                                                                                 {"1.200.000", 1200000},
                                                                                 {"1.200", 1.2},
                                                                                 {"12,50", 12.5},
                                                                                 {"2e3", 2000},
                                                                                 {"2E+3", 2000},
                                                                                 {"5e-1", 0.5},
                                                                                 {"+3", 3},
                                                                                 {"\u22123", -3},
                                                                                 {"- 3", -3},
                                                                                 {"1 1/2 in", 38.1},
                                                                                 {"1-1/2\"", 38.1},
                                                                                 {"3/4\"", 19.05},
                                                                                 {"\u00bd in", 12.7},
                                                                                 {"1\u00bd in", 38.1},
                                                                                 {"2 \u215d\u2033", 66.675},
                                                                                 {"5' 6\"", 1676.4},
                                                                                 {"5 ft 6 1/2 in", 1689.1},
                                                                                 {"6'", 1828.8},
                                                                                 {"40 thou", 1.016},
                                                                                 {"40 MIL", 1.016},
                                                                                 {"12 inches", 304.8},
                                                                                 {"12 MM", 12},
                                                                                 {"1.2 m", 1200},
                                                                                 {"12cm", 120},
                                                                                 {"1234,5", 1234.5},
                                                                                 {"12345", 12345},
                                                                                 {"1 200 1/2 in", 30492.7}}) {
        INFO(text);
        CHECK(mm(text) == Approx(value));
    }
    for (const char* text : {"1,200", "12,345 mm", "999,999"}) {
        INFO(text);
        const auto typed = read_typed(Kind::length, text);
        CHECK_FALSE(typed.value);
        CHECK_THAT(typed.question, Catch::Contains("or") && Catch::Contains("?"));
        CHECK_THROWS_WITH(need_quantity("here", Kind::length, text), Catch::Contains(typed.question));
    }
    for (const char* text :
         {"",    " ",     "mm",    "1 20", "12 12", "1,20,300", "1.2.3",     "1,2,3", "1..2",    "1e", "1/0",
          "--3", "3 / 4", "1 1/0", "nan",  "inf",   "1e999",    "12 parsec", "5' 6'", "1,2.3,4", ",",  "."}) {
        INFO(text);
        const auto typed = read_typed(Kind::length, text);
        CHECK_FALSE(typed.value);
        CHECK(typed.question.empty());
    }
    CHECK(read_typed(Kind::mass, "30 lbs").value.value() == Approx(13.6077711));
    CHECK(read_typed(Kind::areal_mass, "300 g/m^2").value.value() == Approx(0.3));
    CHECK(read_typed(Kind::areal_mass, "6 oz/yd2").value.value() == Approx(0.2034345));
    CHECK(read_typed(Kind::areal_mass, "6 oz/yd\u00b2").value.value() == Approx(0.2034345));
    CHECK(read_typed(Kind::modulus, "7000 MPa").value.value() == Approx(7e9));
    CHECK(read_typed(Kind::factor, "2e6").value.value() == Approx(2e6));
    CHECK(read_typed(Kind::temperature, "60 C").value.value() == Approx(333.15));
    CHECK(read_typed(Kind::temperature, "60 c").value.value() == Approx(333.15));
    CHECK(read_typed(Kind::duration, "90 s").value.value() == Approx(90));
    CHECK(read_typed(Kind::duration, "1,5 h").value.value() == Approx(5400));
    CHECK(read_typed(Kind::pressure, "500 Pa").value.value() == Approx(500));
    CHECK(read_typed(Kind::money, "$1,250.00", {UnitSystem::imperial, "$"}).value.value() == Approx(1250));
}

TEST_CASE("what is shown can be typed back, whatever its kind and size") {
    for (int k = 0; k <= static_cast<int>(Kind::count); ++k) {
        for (const auto system : {UnitSystem::metric, UnitSystem::imperial}) {
            const Wording w{system, "\u00a4"};
            const auto kind = static_cast<Kind>(k);
            for (const double si :
                 {0.0, 0.004, 0.73, 1.0, 7.0, 45.0, 333.15, 1275.0, 86400.0, 1234567.0, -12.0}) {
                const auto text = show(kind, si, w);
                INFO(k << " " << text);
                const auto back = read_typed(kind, text, w);
                REQUIRE(back.value);
                // It comes back as the same figure on screen.
                CHECK(show(kind, *back.value, w) == text);
            }
        }
    }
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
