#include "core/base/typed.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/unit_table.hpp"

namespace jig {
namespace {

bool digit(char c) {
    return c >= '0' && c <= '9';
}

/// One byte for each sign that has several ways to be written.
std::string plain(std::string_view text) {
    struct Same {
        std::string_view from, to;
    };
    static constexpr std::array same{
        Same{"\u00a0", " "},    Same{"\u202f", " "},    Same{"\u2009", " "},    Same{"\u2212", "-"},
        Same{"\u2013", "-"},    Same{"\u2033", "\""},   Same{"\u2032", "'"},    Same{"\u201d", "\""},
        Same{"\u2019", "'"},    Same{"\u00bd", " 1/2"}, Same{"\u00bc", " 1/4"}, Same{"\u00be", " 3/4"},
        Same{"\u2153", " 1/3"}, Same{"\u2154", " 2/3"}, Same{"\u215b", " 1/8"}, Same{"\u215c", " 3/8"},
        Same{"\u215d", " 5/8"}, Same{"\u215e", " 7/8"}, Same{"''", "\""}};
    std::string out;
    while (!text.empty()) {
        const auto one = std::find_if(same.begin(), same.end(),
                                      [&](const Same& s) { return text.substr(0, s.from.size()) == s.from; });
        if (one != same.end()) {
            out += one->to;
            text.remove_prefix(one->from.size());
        } else {
            out += text.front();
            text.remove_prefix(1);
        }
    }
    const auto first = out.find_first_not_of(" \t\r\n"), last = out.find_last_not_of(" \t\r\n");
    return first == std::string::npos ? std::string() : out.substr(first, last - first + 1);
}

std::optional<double> parsed(const std::string& number) {
    double value = 0;
    const auto [end, bad] = std::from_chars(number.data(), number.data() + number.size(), value);
    if (bad != std::errc{} || end != number.data() + number.size() || !std::isfinite(value))
        return std::nullopt;
    return value;
}

/// Whether `run` is groups of three digits behind a first of one to three, parted by `sign`.
bool in_thousands(std::string_view run, char sign) {
    std::size_t at = run.find(sign);
    if (at == 0 || at > 3 || at == std::string_view::npos) return false;
    while (at < run.size()) {
        if (run[at] != sign || run.size() - at < 4) return false;
        for (std::size_t k = 1; k <= 3; ++k) {
            if (!digit(run[at + k])) return false;
        }
        at += 4;
    }
    return true;
}

std::string without(std::string_view text, char sign) {
    std::string out(text);
    std::erase(out, sign);
    return out;
}

/// Digits with points and commas, as a number with a point; or a question.
std::optional<double> from_run(std::string_view run, std::string& question) {
    const auto commas = std::count(run.begin(), run.end(), ','),
               points = std::count(run.begin(), run.end(), '.');
    if (commas > 0 && points > 0) {
        const char decimal = run.rfind(',') > run.rfind('.') ? ',' : '.', group = decimal == ',' ? '.' : ',';
        const auto cut = run.rfind(decimal);
        if (std::count(run.begin(), run.end(), decimal) > 1 || !in_thousands(run.substr(0, cut), group))
            return std::nullopt;
        return parsed(without(run.substr(0, cut), group) + "." + std::string(run.substr(cut + 1)));
    }
    if (points > 1) return in_thousands(run, '.') ? parsed(without(run, '.')) : std::nullopt;
    if (commas > 1) return in_thousands(run, ',') ? parsed(without(run, ',')) : std::nullopt;
    if (commas == 1) {
        auto as_decimal = std::string(run);
        std::replace(as_decimal.begin(), as_decimal.end(), ',', '.');
        if (in_thousands(run, ',') && run[0] != '0') {
            question = fmt::format("is it {} or {}?", as_decimal, without(run, ','));
            return std::nullopt;
        }
        return parsed(as_decimal);
    }
    return parsed(std::string(run));
}

/// Takes a number off the front of `text`, fractions and thousands counted.
std::optional<double> take_number(std::string_view& text, std::string& question) {
    auto rest = text;
    const auto skip_blanks = [&] {
        while (!rest.empty() && rest.front() == ' ') rest.remove_prefix(1);
    };
    double sign = 1;
    if (!rest.empty() && (rest.front() == '-' || rest.front() == '+')) {
        sign = rest.front() == '-' ? -1 : 1;
        rest.remove_prefix(1);
    }
    skip_blanks();
    const auto digits = [&](std::string_view from) {
        std::size_t n = 0;
        while (n < from.size() && digit(from[n])) ++n;
        return n;
    };
    /// "3/4" at the front of `from`: its length and value.
    const auto fraction = [&](std::string_view from) -> std::optional<std::pair<std::size_t, double>> {
        const auto above = digits(from);
        if (above == 0 || above >= from.size() || from[above] != '/') return std::nullopt;
        const auto below = digits(from.substr(above + 1));
        if (below == 0) return std::nullopt;
        const auto p = parsed(std::string(from.substr(0, above))),
                   q = parsed(std::string(from.substr(above + 1, below)));
        if (!p || !q || *q == 0) return std::nullopt;
        return std::pair{above + 1 + below, *p / *q};
    };
    if (const auto alone = fraction(rest)) {
        rest.remove_prefix(alone->first);
        text = rest;
        return sign * alone->second;
    }
    std::string run;
    while (!rest.empty() && (digit(rest.front()) || ((rest.front() == '.' || rest.front() == ',') &&
                                                     (!run.empty() || rest.front() == '.')))) {
        run += rest.front();
        rest.remove_prefix(1);
    }
    if (run.empty()) return std::nullopt;
    const bool whole = run.find_first_not_of("0123456789") == std::string::npos;
    // "1 200", "1 200 000,5": blanks between groups of three.
    if (whole && run.size() <= 3) {
        while (rest.size() >= 4 && rest[0] == ' ' && digits(rest.substr(1)) == 3 &&
               (rest.size() < 6 || rest[4] != '/' || !digit(rest[5]))) {
            run += rest.substr(1, 3);
            rest.remove_prefix(4);
            if (rest.size() >= 2 && (rest[0] == '.' || rest[0] == ',') && digit(rest[1])) {
                const auto n = digits(rest.substr(1));
                run += '.';
                run += rest.substr(1, n);
                rest.remove_prefix(1 + n);
                break;
            }
        }
    }
    auto value = from_run(run, question);
    if (!value) return std::nullopt;
    if (rest.size() >= 2 && (rest[0] == 'e' || rest[0] == 'E')) {
        const std::size_t from = rest[1] == '-' || rest[1] == '+' ? 2 : 1;
        if (const auto n = digits(rest.substr(from)); n > 0) {
            value =
                parsed(fmt::format("{:.17g}e{}", *value,
                                   rest.substr(rest[1] == '+' ? 2 : 1, from + n - (rest[1] == '+' ? 2 : 1))));
            if (!value) return std::nullopt;
            rest.remove_prefix(from + n);
        }
    } else if (whole && rest.size() > 1 && (rest[0] == ' ' || rest[0] == '-')) {
        // "1 1/2", "1-1/2"
        auto after = rest.substr(1);
        while (!after.empty() && after.front() == ' ') after.remove_prefix(1);
        if (const auto more = fraction(after)) {
            *value += more->second;
            rest = after.substr(more->first);
        }
    }
    skip_blanks();
    text = rest;
    return sign * *value;
}

/// A unit as it is compared: no blanks, no caret, no raised figures.
std::string bare(std::string_view sign) {
    std::string out;
    while (!sign.empty()) {
        const auto two = sign.substr(0, 2);
        if (two == "\u00b2" || two == "\u00b3") {
            out += two == "\u00b2" ? '2' : '3';
            sign.remove_prefix(2);
        } else if (two == "\u00b7") {
            out += '.';
            sign.remove_prefix(2);
        } else if (two == "\u00b5" || two == "\u03bc") {
            out += 'u';
            sign.remove_prefix(2);
        } else {
            if (sign.front() != ' ' && sign.front() != '^') out += sign.front() == '*' ? '.' : sign.front();
            sign.remove_prefix(1);
        }
    }
    return out;
}

std::string lower(std::string text) {
    for (auto& c : text) {
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    }
    return text;
}

/// As it stands first, so that "MPa" is no "mPa"; then in any case.
std::optional<Unit> unit_named(Kind kind, std::string_view text) {
    const auto wanted = bare(text);
    const auto units = typed_units(kind);
    for (const auto& unit : units) {
        if (wanted == bare(unit.sign)) return unit;
    }
    for (const auto& unit : units) {
        if (lower(wanted) == lower(bare(unit.sign))) return unit;
    }
    return std::nullopt;
}

}  // namespace

Typed read_typed(Kind kind, std::string_view text, const Wording& wording) {
    const auto squeezed = plain(text);
    std::string_view rest = squeezed;
    const bool money = kind == Kind::money || kind == Kind::price_area || kind == Kind::price_mass;
    if (money && !wording.currency.empty() && rest.substr(0, wording.currency.size()) == wording.currency) {
        rest.remove_prefix(wording.currency.size());
        while (!rest.empty() && rest.front() == ' ') rest.remove_prefix(1);
    }
    Typed out;
    const auto number = take_number(rest, out.question);
    if (!number) return out;
    const auto in = [](double n, const Unit& unit) { return (n + unit.offset) * unit.scale; };
    if (rest.empty()) {
        out.value = in(*number, units_of(kind)[wording.system == UnitSystem::metric ? 0 : 1]);
        return out;
    }
    if (const auto unit = unit_named(kind, rest)) {
        out.value = in(*number, *unit);
        return out;
    }
    // Feet and inches: 5' 6", 5 ft 6 1/2 in.
    if (kind == Kind::length) {
        const auto next = rest.find_first_of("0123456789");
        if (next == std::string_view::npos) return out;
        const auto unit = unit_named(kind, rest.substr(0, next));
        auto inches = rest.substr(next);
        const auto more = take_number(inches, out.question);
        const auto small = inches.empty() ? unit_named(kind, "in") : unit_named(kind, inches);
        const double foot = unit_named(kind, "ft")->scale, inch = unit_named(kind, "in")->scale;
        if (unit && more && small && unit->scale == foot && small->scale == inch)
            out.value = in(*number, *unit) + (*number < 0 ? -1 : 1) * in(*more, *small);
    }
    return out;
}

std::optional<double> read_quantity(Kind kind, std::string_view text, const Wording& wording) {
    return read_typed(kind, text, wording).value;
}

double need_quantity(std::string_view where, Kind kind, std::string_view text, const Wording& wording) {
    const auto typed = read_typed(kind, text, wording);
    if (typed.value) return *typed.value;
    if (!typed.question.empty())
        throw InputError(std::string(where), fmt::format("\"{}\": {}", text, typed.question),
                         "write it without the comma, or with a point");
    const auto sign = unit_sign(kind, wording);
    throw InputError(std::string(where), fmt::format("\"{}\" is not a quantity of this kind", text),
                     sign.empty() ? "write a plain number such as 12"
                                  : fmt::format("write a number in {0}, such as 12 {0}", sign));
}

}  // namespace jig
