// The border between SI, which every core variable and file uses, and what a maker reads and types.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace jig {

/// What a number measures; decides its unit on screen, its rounding and which typed units are understood.
enum class Kind {
    length,       ///< m, shown in mm or in
    thickness,    ///< m, shown in mm or thousandths of an inch
    area,         ///< m²
    volume,       ///< m³, shown in litres or gallons
    mass,         ///< kg
    areal_mass,   ///< kg/m², shown in g/m² or oz/yd²
    density,      ///< kg/m³
    angle,        ///< rad, shown in degrees
    temperature,  ///< K, shown in °C or °F
    warming,      ///< K of difference
    heating,      ///< K/s, shown in K/h or °F/h
    duration,     ///< s, shown in minutes, hours or days by size
    hours,        ///< s of labour, shown in hours
    pressure,     ///< Pa, shown in mbar or inHg
    strength,     ///< Pa, shown in kPa or psi
    modulus,      ///< Pa, shown in GPa or Msi
    force,        ///< N, shown in N or lbf
    torque,       ///< N·m, shown in N·m or lbf·ft
    flow,         ///< m³/s, shown in m³/h or cfm
    speed,        ///< m/s of a tool, shown in mm/s or in/min
    output,       ///< kg/s laid down, shown in g/h or oz/h
    power,        ///< W, shown in kW or kBtu/h
    energy,       ///< J, shown in kWh
    expansion,    ///< 1/K
    curvature,    ///< 1/m
    stiffness,    ///< N·m, bending stiffness per width
    money,        ///< neutral currency
    price_area,   ///< currency per m²
    price_mass,   ///< currency per kg
    ratio,        ///< shown in %
    scale,        ///< a ratio near 1, shown in % with three places
    factor,       ///< plain number with a fraction
    count,        ///< whole number
};

enum class UnitSystem { metric, imperial };

/// How figures are worded: the maker's settings that touch every number on screen and paper.
struct Wording {
    UnitSystem system = UnitSystem::metric;
    std::string currency = "¤";
    bool operator==(const Wording&) const = default;
};

/// `value` in SI as a maker reads it, with its unit, rounded to about three figures ("6.4 mm").
std::string show(Kind kind, double value, const Wording& wording = {});

/// The bare number in the maker's unit without rounding for reading, for an editor's field.
std::string show_for_edit(Kind kind, double value, const Wording& wording = {});

/// The sign of the unit that an editor's field is in ("mm"), empty for counts and factors.
std::string unit_sign(Kind kind, const Wording& wording = {});

/// Reads what a maker typed, in the wording's unit or with any unit of that kind written behind it
/// ("12", "0,5 in", "3/8 in", "140 °F"). Returns SI; nothing where the text is no such quantity.
std::optional<double> read_quantity(Kind kind, std::string_view text, const Wording& wording = {});

/// As read_quantity, but throws InputError that names `where` and shows how such a quantity is written.
double need_quantity(std::string_view where, Kind kind, std::string_view text, const Wording& wording = {});

/// A quantity inside a sentence, worded only when it is shown: `"sags " + quantity(Kind::thickness, 9e-4)`.
std::string quantity(Kind kind, double value);
/// The sentence with its quantities in the maker's units.
std::string worded(std::string_view sentence, const Wording& wording = {});

constexpr double kPi = 3.14159265358979323846;
constexpr double radians(double degrees) {
    return degrees * kPi / 180.0;
}
constexpr double degrees(double radians) {
    return radians * 180.0 / kPi;
}
constexpr double kelvin(double celsius) {
    return celsius + 273.15;
}
constexpr double celsius(double kelvin) {
    return kelvin - 273.15;
}
constexpr double kGravity = 9.80665;

}  // namespace jig
