#include "core/base/units.hpp"

#include <fmt/format.h>

#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <vector>

#include "core/base/error.hpp"

namespace jig {
namespace {

/// shown = si / scale - offset
struct Unit {
    const char* sign;
    double scale;
    double offset = 0;
};

constexpr double kInch = 0.0254;
constexpr double kPound = 0.45359237;
constexpr double kOuncePerYard2 = 0.028349523125 / (0.9144 * 0.9144);

/// The units of a kind: metric default, imperial default, then others that may be typed.
std::vector<Unit> units_of(Kind kind) {
    switch (kind) {
        case Kind::length:
            return {{"mm", 1e-3}, {"in", kInch}, {"cm", 1e-2}, {"m", 1}, {"ft", 0.3048}, {"\"", kInch}};
        case Kind::thickness:
            return {{"mm", 1e-3}, {"in", kInch}, {"mil", kInch / 1000},
                    {"µm", 1e-6}, {"um", 1e-6},  {"\"", kInch}};
        case Kind::area:
            return {{"m²", 1}, {"ft²", 0.09290304}, {"m2", 1}, {"ft2", 0.09290304}, {"cm²", 1e-4}};
        case Kind::volume:
            return {{"L", 1e-3}, {"gal", 3.785411784e-3}, {"l", 1e-3}, {"m³", 1}, {"ml", 1e-6}, {"m3", 1}};
        case Kind::mass:
            return {{"kg", 1}, {"lb", kPound}, {"g", 1e-3}, {"oz", kPound / 16}};
        case Kind::areal_mass:
            return {{"g/m²", 1e-3}, {"oz/yd²", kOuncePerYard2},
                    {"g/m2", 1e-3}, {"oz/yd2", kOuncePerYard2},
                    {"kg/m²", 1},   {"kg/m2", 1},
                    {"gsm", 1e-3},  {"oz", kOuncePerYard2}};
        case Kind::density:
            return {{"kg/m³", 1},
                    {"lb/ft³", kPound / 0.028316846592},
                    {"kg/m3", 1},
                    {"lb/ft3", kPound / 0.028316846592}};
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
        case Kind::duration:
            return {{"min", 60}, {"min", 60}, {"h", 3600}, {"d", 86400}, {"days", 86400}, {"s", 1}};
        case Kind::hours:
            return {{"h", 3600}, {"h", 3600}, {"min", 60}};
        case Kind::pressure:
            return {{"mbar", 100}, {"inHg", 3386.389}, {"bar", 1e5}, {"kPa", 1e3}, {"psi", 6894.757}};
        case Kind::strength:
            return {{"kPa", 1e3}, {"psi", 6894.757}, {"MPa", 1e6}, {"bar", 1e5}};
        case Kind::modulus:
            return {{"GPa", 1e9}, {"Msi", 6.894757e9}, {"MPa", 1e6}};
        case Kind::force:
            return {{"N", 1}, {"lbf", 4.4482216}, {"kN", 1000}};
        case Kind::flow:
            return {{"m³/h", 1.0 / 3600}, {"cfm", 4.719474e-4}, {"L/min", 1e-3 / 60}, {"m3/h", 1.0 / 3600}};
        case Kind::expansion:
            return {{"µm/m·K", 1e-6}, {"µin/in·°F", 1.8e-6}};
        case Kind::curvature:
            return {{"1/m", 1}, {"1/ft", 1 / 0.3048}};
        case Kind::stiffness:
            return {{"N·m", 1}, {"lbf·in", 0.112984829}};
        case Kind::price_area:
            return {{"/m²", 1}, {"/ft²", 1 / 0.09290304}};
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
    if ((kind == Kind::curvature || kind == Kind::modulus || kind == Kind::mass) && size < 0.1 && size > 0)
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

std::string lower_without_space(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (std::isspace(static_cast<unsigned char>(c)) == 0) out += c;
    }
    return out;
}

std::optional<double> read_number(std::string_view& text) {
    std::string number;
    std::size_t at = 0;
    while (at < text.size()) {
        const auto c = static_cast<unsigned char>(text[at]);
        const bool exponent =
            (c == 'e' || c == 'E') && at + 1 < text.size() && !number.empty() &&
            (std::isdigit(static_cast<unsigned char>(text[at + 1])) != 0 || text[at + 1] == '-');
        if (std::isdigit(c) == 0 && c != '.' && c != ',' && c != '-' && c != '+' && !exponent) break;
        if (exponent) {
            number += 'e';
            number += text[++at];
        } else {
            number += c == ',' ? '.' : static_cast<char>(c);
        }
        ++at;
    }
    if (!number.empty() && number[0] == '+') number.erase(0, 1);
    double value = 0;
    const auto [end, bad] = std::from_chars(number.data(), number.data() + number.size(), value);
    if (bad != std::errc{} || end != number.data() + number.size() || !std::isfinite(value))
        return std::nullopt;
    text.remove_prefix(at);
    return value;
}

}  // namespace

std::string show(Kind kind, double value, const Wording& wording) {
    if (!std::isfinite(value)) return "–";
    const bool imperial = wording.system == UnitSystem::imperial;
    if (kind == Kind::duration) {
        if (std::abs(value) >= 2 * 86400) return rounded(value / 86400, Kind::factor, false) + " days";
        if (std::abs(value) >= 2 * 3600) return rounded(value / 3600, Kind::factor, false) + " h";
        return rounded(value / 60, Kind::count, false) + " min";
    }
    if (kind == Kind::money) return wording.currency + rounded(value, kind, imperial);
    if (kind == Kind::mass && !imperial && std::abs(value) < 1 && value != 0) {
        return rounded(value * 1000, Kind::count, false) + " g";
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

std::optional<double> read_quantity(Kind kind, std::string_view text, const Wording& wording) {
    // "12 12" is two numbers, not one.
    for (std::size_t i = 1; i + 1 < text.size(); ++i) {
        const auto digit = [&](std::size_t at) {
            return std::isdigit(static_cast<unsigned char>(text[at])) != 0;
        };
        if (text[i] == ' ' && digit(i - 1) && digit(i + 1)) return std::nullopt;
    }
    const auto squeezed = lower_without_space(text);
    std::string_view rest = squeezed;
    if (kind == Kind::money && rest.substr(0, wording.currency.size()) == wording.currency) {
        rest.remove_prefix(wording.currency.size());
    }
    auto number = read_number(rest);
    if (!number) return std::nullopt;
    if (!rest.empty() && rest[0] == '/' && rest.size() > 1 &&
        std::isdigit(static_cast<unsigned char>(rest[1])) != 0) {
        rest.remove_prefix(1);
        const auto below = read_number(rest);
        if (!below || *below == 0) return std::nullopt;
        *number /= *below;
    }
    if (rest.empty()) {
        const auto unit = shown_unit(kind, wording);
        return (*number + unit.offset) * unit.scale;
    }
    for (const auto& unit : units_of(kind)) {
        if (rest == unit.sign) return (*number + unit.offset) * unit.scale;
    }
    return std::nullopt;
}

double need_quantity(std::string_view where, Kind kind, std::string_view text, const Wording& wording) {
    if (const auto value = read_quantity(kind, text, wording)) return *value;
    const auto sign = unit_sign(kind, wording);
    throw InputError(std::string(where), fmt::format("\"{}\" is not a quantity of this kind", text),
                     sign.empty() ? "write a plain number such as 12"
                                  : fmt::format("write a number in {0}, such as 12 {0}", sign));
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
