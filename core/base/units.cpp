#include "core/base/units.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "core/base/times.hpp"
#include "core/base/unit_table.hpp"

namespace jig {
namespace {

constexpr double kInch = 0.0254, kFoot = 12 * kInch;
constexpr double kPound = 0.45359237;
constexpr double kOuncePerYard2 = 0.028349523125 / (0.9144 * 0.9144);
constexpr double kPsi = 6894.757;

}  // namespace

std::vector<Unit> units_of(Kind kind) {
    auto all = typed_units(kind);
    all.resize(2);
    return all;
}

std::vector<Unit> typed_units(Kind kind) {
    switch (kind) {
        case Kind::length:
        case Kind::thickness:
            return {{"mm", 1e-3},          {"in", kInch},          {"cm", 1e-2},      {"m", 1},
                    {"\"", kInch},         {"inch", kInch},        {"inches", kInch}, {"ft", kFoot},
                    {"'", kFoot},          {"foot", kFoot},        {"feet", kFoot},   {"thou", kInch / 1000},
                    {"mil", kInch / 1000}, {"mils", kInch / 1000}, {"µm", 1e-6}};
        case Kind::area:
            return {{"m²", 1},
                    {"ft²", kFoot * kFoot},
                    {"cm²", 1e-4},
                    {"mm²", 1e-6},
                    {"in²", kInch * kInch},
                    {"yd²", 9 * kFoot * kFoot},
                    {"sqft", kFoot * kFoot}};
        case Kind::volume:
            return {{"L", 1e-3},     {"gal", 3.785411784e-3}, {"m³", 1},
                    {"ml", 1e-6},    {"cm³", 1e-6},           {"ft³", kFoot * kFoot * kFoot},
                    {"litre", 1e-3}, {"litres", 1e-3},        {"in³", kInch * kInch * kInch}};
        case Kind::mass:
            return {{"kg", 1},   {"lb", kPound},      {"lbs", kPound},
                    {"g", 1e-3}, {"oz", kPound / 16}, {"t", 1000}};
        case Kind::areal_mass:
            return {{"g/m²", 1e-3}, {"oz/yd²", kOuncePerYard2}, {"kg/m²", 1},
                    {"gsm", 1e-3},  {"oz", kOuncePerYard2},     {"lb/ft²", kPound / (kFoot * kFoot)}};
        case Kind::density:
            return {{"kg/m³", 1}, {"lb/ft³", kPound / (kFoot * kFoot * kFoot)}, {"g/cm³", 1000}};
        case Kind::angle:
            return {{"°", kPi / 180}, {"°", kPi / 180}, {"deg", kPi / 180}, {"rad", 1}};
        case Kind::temperature:
            return {{"°C", 1, 273.15},
                    {"°F", 5.0 / 9, 459.67},
                    {"C", 1, 273.15},
                    {"F", 5.0 / 9, 459.67},
                    {"K", 1}};
        case Kind::warming:
            return {{"K", 1}, {"°F", 5.0 / 9}, {"°C", 1}};
        case Kind::heating:
            return {{"K/h", 1 / kHour},
                    {"°F/h", 5.0 / 9 / kHour},
                    {"°C/h", 1 / kHour},
                    {"K/min", 1 / kMinute},
                    {"K/s", 1}};
        case Kind::duration:
            return {{"min", kMinute}, {"min", kMinute}, {"h", kHour}, {"hr", kHour},
                    {"hrs", kHour},   {"hours", kHour}, {"d", kDay},  {"day", kDay},
                    {"days", kDay},   {"s", 1},         {"sec", 1},   {"minutes", kMinute}};
        case Kind::hours:
            return {{"h", kHour}, {"h", kHour}, {"min", kMinute}, {"hr", kHour}, {"hours", kHour}};
        case Kind::pressure:
            return {{"mbar", 100}, {"inHg", 3386.389}, {"bar", 1e5}, {"kPa", 1e3},
                    {"psi", kPsi}, {"Pa", 1},          {"hPa", 100}, {"torr", 133.3224}};
        case Kind::strength:
            return {{"kPa", 1e3}, {"psi", kPsi}, {"MPa", 1e6}, {"bar", 1e5}, {"Pa", 1}, {"ksi", 1000 * kPsi}};
        case Kind::modulus:
            return {{"GPa", 1e9}, {"Msi", 1e6 * kPsi}, {"MPa", 1e6}, {"ksi", 1000 * kPsi}, {"psi", kPsi}};
        case Kind::force:
            return {{"N", 1}, {"lbf", 4.4482216}, {"kN", 1000}, {"lb", 4.4482216}, {"lbs", 4.4482216}};
        case Kind::torque:
            return {{"N·m", 1},
                    {"lbf·ft", 1.35581795},
                    {"Nm", 1},
                    {"lbf·in", 0.112984829},
                    {"ft·lb", 1.35581795}};
        case Kind::flow:
            return {{"m³/h", 1 / kHour}, {"cfm", 4.719474e-4}, {"L/min", 1e-3 / kMinute}, {"m³/s", 1}};
        case Kind::speed:
            return {{"mm/s", 1e-3},
                    {"in/min", kInch / kMinute},
                    {"mm/min", 1e-3 / kMinute},
                    {"m/min", 1 / kMinute},
                    {"m/s", 1}};
        case Kind::output:
            return {{"g/h", 1e-3 / kHour}, {"oz/h", kPound / 16 / kHour}, {"kg/h", 1 / kHour}, {"kg/s", 1}};
        case Kind::power:
            return {{"kW", 1e3}, {"kBtu/h", 1055056 / kHour}, {"W", 1}, {"hp", 745.7}};
        case Kind::energy:
            return {{"kWh", 1e3 * kHour}, {"kWh", 1e3 * kHour}, {"MJ", 1e6}, {"kBtu", 1055056}, {"J", 1}};
        case Kind::expansion:
            return {{"µm/m·K", 1e-6}, {"µin/in·°F", 1.8e-6}, {"1/K", 1}};
        case Kind::curvature:
            return {{"1/m", 1}, {"1/ft", 1 / kFoot}};
        case Kind::stiffness:
            return {{"N·m", 1}, {"lbf·in", 0.112984829}};
        case Kind::price_area:
            return {{"/m²", 1}, {"/ft²", 1 / (kFoot * kFoot)}};
        case Kind::price_mass:
            return {{"/kg", 1}, {"/lb", 1 / kPound}};
        case Kind::ratio:
        case Kind::scale:
            return {{"%", 0.01}, {"%", 0.01}};
        case Kind::money:
        case Kind::factor:
        case Kind::count:
            return {{"", 1}, {"", 1}};
    }
    return {{"", 1}, {"", 1}};
}

namespace {

Unit shown_unit(Kind kind, const Wording& wording) {
    return units_of(kind)[wording.system == UnitSystem::metric ? 0 : 1];
}

double in_unit(double si, const Unit& unit) {
    return si / unit.scale - unit.offset;
}

/// About three significant figures, never more than the kind deserves, and no "-0".
std::string rounded(double shown, Kind kind, bool imperial) {
    const double size = std::abs(shown);
    int digits = size >= 100 ? 0 : size >= 10 ? 1 : 2;
    if (kind == Kind::count || kind == Kind::temperature) digits = 0;
    if (kind == Kind::ratio) digits = size >= 10 ? 0 : 1;
    if (kind == Kind::scale) digits = 3;
    if (kind == Kind::angle) digits = size >= 10 ? 1 : 2;
    if (kind == Kind::money) digits = size >= 100 ? 0 : 2;
    if (kind == Kind::length && !imperial) digits = size >= 100 ? 0 : size >= 1 ? 1 : 2;
    if (kind == Kind::thickness && imperial) digits = 3;
    if ((kind == Kind::curvature || kind == Kind::modulus || kind == Kind::mass) && size < 0.1 &&
        size >= 5e-5)
        digits = 4;
    auto text = fmt::format("{:.{}f}", shown, digits);
    if (text.find_first_not_of("-0.") == std::string::npos && text[0] == '-') text.erase(0, 1);
    if (text.find('.') == std::string::npos) {
        // Thin spaces between thousands keep long figures readable without a locale's comma or point.
        const std::size_t first = text[0] == '-' ? 1 : 0;
        for (std::size_t at = text.size(); at > first + 3;) text.insert(at -= 3, "\u202f");
    }
    return text;
}

}  // namespace

std::string show(Kind kind, double value, const Wording& wording) {
    if (!std::isfinite(value)) return "–";
    const bool imperial = wording.system == UnitSystem::imperial;
    if (kind == Kind::duration) {
        if (std::abs(value) >= 2 * 86400) return rounded(value / 86400, Kind::factor, false) + " days";
        if (std::abs(value) >= 2 * 3600) return rounded(value / 3600, Kind::factor, false) + " h";
        // What passes in less than two minutes is watched by the second.
        if (std::abs(value) >= 0.5 && std::abs(value) < 119.5)
            return rounded(value, Kind::count, false) + " s";
        return rounded(value / 60, Kind::count, false) + " min";
    }
    if (kind == Kind::money) return wording.currency + rounded(value, kind, imperial);
    if (kind == Kind::mass && !imperial && std::abs(value) < 1 && value != 0) {
        return rounded(value * 1000, Kind::count, false) + " g";
    }
    if (kind == Kind::volume && !imperial && std::abs(value) < 1e-4 && value != 0) {
        return rounded(value * 1e6, Kind::factor, false) + " ml";
    }
    // What is the size of a hand is no hundredth of a square metre or foot.
    if (kind == Kind::area && value != 0 && std::abs(value) < (imperial ? 0.1 * kFoot * kFoot : 0.01)) {
        return imperial ? rounded(value / (kInch * kInch), Kind::factor, true) + " in²"
                        : rounded(value * 1e4, Kind::factor, false) + " cm²";
    }
    const bool far = kind == Kind::length && std::abs(value) >= 10;
    const auto unit = far ? (imperial ? Unit{"ft", 0.3048} : Unit{"m", 1}) : shown_unit(kind, wording);
    const auto number = rounded(in_unit(value, unit), kind, imperial);
    if (kind == Kind::price_area || kind == Kind::price_mass) return wording.currency + number + unit.sign;
    if (unit.sign[0] == '\0') return number;
    return kind == Kind::angle ? number + unit.sign : number + " " + unit.sign;
}

std::string show_for_edit(Kind kind, double value, const Wording& wording) {
    const double shown = in_unit(value, shown_unit(kind, wording));
    if (kind == Kind::count) return fmt::format("{:.0f}", shown);
    return fmt::format("{:.6g}", shown);
}

std::string unit_sign(Kind kind, const Wording& wording) {
    if (kind == Kind::money) return wording.currency;
    return shown_unit(kind, wording).sign;
}

std::string quantity(Kind kind, double value) {
    return fmt::format("\x01{}|{:.9g}\x02", static_cast<int>(kind), value);
}

std::string worded(std::string_view sentence, const Wording& wording) {
    std::string out;
    while (true) {
        const auto open = sentence.find('\x01');
        const auto bar = sentence.find('|', open), close = sentence.find('\x02', open);
        if (open == std::string_view::npos || bar == std::string_view::npos ||
            close == std::string_view::npos)
            break;
        out += sentence.substr(0, open);
        int kind = 0;
        std::from_chars(sentence.data() + open + 1, sentence.data() + bar, kind);
        const std::string number(sentence.substr(bar + 1, close - bar - 1));
        double value = 0;
        const auto [end, bad] = std::from_chars(number.data(), number.data() + number.size(), value);
        static_cast<void>(end);
        out += bad == std::errc{} ? show(static_cast<Kind>(kind), value, wording) : "–";
        sentence.remove_prefix(close + 1);
    }
    return out.append(sentence);
}

}  // namespace jig
