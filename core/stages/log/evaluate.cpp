#include <fmt/format.h>

#include "core/stages/log/findings.hpp"

namespace jig::log {
namespace {

bool is_date(const std::string& text) {
    if (text.size() != 10 || text[4] != '-' || text[7] != '-') return false;
    for (const std::size_t i : {0u, 1u, 2u, 3u, 5u, 6u, 8u, 9u}) {
        if (text[i] < '0' || text[i] > '9') return false;
    }
    const int month = std::stoi(text.substr(5, 2)), day = std::stoi(text.substr(8, 2));
    return month >= 1 && month <= 12 && day >= 1 && day <= 31;
}

}  // namespace

Findings evaluate(const Choices& c, const part::Findings& part) {
    Findings out;
    bool coated = false;
    double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (std::size_t i = 0; i < c.entries.size(); ++i) {
        const auto& e = c.entries[i];
        if (!is_date(e.date))
            throw InputError(fmt::format("log entry {}", i + 1), "\"" + e.date + "\" is no date",
                             "write it as 2026-05-31");
        if (e.coats > 0) {
            out.since_release = 0;
            coated = true;
        }
        if (e.kind != EntryKind::pull) continue;
        ++out.pulls;
        if (!coated && out.bare_pull == 0) out.bare_pull = out.pulls;
        ++out.since_release;
        if (e.mass > 0) {
            const double x = out.pulls;
            n += 1;
            sx += x;
            sy += e.mass;
            sxx += x * x;
            sxy += x * e.mass;
        }
    }
    out.weighed = static_cast<int>(n);
    if (n > 0) out.mean_mass = sy / n;
    if (n > 1) out.trend = (n * sxy - sx * sy) / (n * sxx - sx * sx);
    out.figures = {{"pulls", "pulls so far", Kind::count, static_cast<double>(out.pulls),
                    "entries of the kind \"pull\""},
                   {"mean_mass", "mean mass of the part", Kind::mass, out.mean_mass,
                    fmt::format("of {} weighed; planned {}", out.weighed, quantity(Kind::mass, part.mass))},
                   {"trend", "change from pull to pull", Kind::mass, out.trend,
                    "straight line through the weighed pulls"},
                   {"since_release", "pulls since release was put on", Kind::count,
                    static_cast<double>(out.since_release), "counted from the last entry with coats"}};
    return out;
}

}  // namespace jig::log
