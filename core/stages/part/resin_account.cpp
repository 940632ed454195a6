#include "core/stages/part/resin_account.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/base/units.hpp"

namespace jig::part {
namespace {

double in_laminate(const ResinAsked& a, ResinBy by) {
    return (by == ResinBy::ratio ? a.ratio * a.cloth : a.plies) + a.cores;
}

/// For a face `scale` times as long and as wide.
std::vector<ResinLine> lines_of(const ResinAsked& a, ResinBy by, double scale) {
    std::vector<ResinLine> out;
    const double face = scale * scale, area = a.area * face, rim = a.rim * scale;
    const double laminate = in_laminate(a, by) * face, each_m2 = area > 0 ? laminate / area : 0;
    const auto add = [&](std::string key, std::string name, double mass, std::string why) {
        if (mass > 0) out.push_back({std::move(key), std::move(name), mass, std::move(why)});
    };
    const std::string cores = a.cores > 0
                                  ? fmt::format(", {} of it in cores", quantity(Kind::mass, a.cores * face))
                                  : std::string();
    add("laminate", "resin in the laminate", laminate,
        by == ResinBy::ratio
            ? fmt::format("{:g} × {} of dry cloth{}", a.ratio, quantity(Kind::mass, a.cloth * face), cores)
            : "by the fibre share of its process" + cores);
    const double edge = rim * a.keepers.trim * each_m2;
    add("edge", "in the edge that is trimmed off", edge,
        fmt::format("{} past a rim of {}", quantity(Kind::length, a.keepers.trim),
                    quantity(Kind::length, rim)));
    add("offcuts", "in laps and offcuts", std::max(0.0, laminate * a.waste / 2 - edge),
        fmt::format("half of {:.0f} % of cloth that is over, less that edge", 100 * a.waste));
    for (const auto& k : a.keepers.all) add(k.key, k.name, k.mass(area, rim), k.why);
    add("pots", "left in pots, brushes and lines", a.pot_loss, "your figure above");
    return out;
}

double sum_of(const std::vector<ResinLine>& lines) {
    double out = 0;
    for (const auto& l : lines) out += l.mass;
    return out;
}

}  // namespace

double ResinAccount::over_cloth(double area) const {
    if (!(asked.area > 0) || !(asked.cloth > 0) || !(area > 0)) return 0;
    const double face = area / asked.area;
    return sum_of(lines_of(asked, asked.by, std::sqrt(face))) / (asked.cloth * face);
}

ResinAccount account_of(ResinAsked asked) {
    ResinAccount out;
    out.asked = std::move(asked);
    const auto& a = out.asked;
    // A prepreg brings its own.
    if (a.plies + a.cores <= 0) return out;
    out.lines = lines_of(a, a.by, 1);
    out.total = sum_of(out.lines);
    out.other = sum_of(lines_of(a, a.by == ResinBy::share ? ResinBy::ratio : ResinBy::share, 1));
    return out;
}

}  // namespace jig::part
