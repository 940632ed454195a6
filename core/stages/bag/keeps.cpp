#include "core/stages/bag/keeps.hpp"

#include <fmt/format.h>

#include "core/science/vacuum/pump.hpp"
#include "core/stages/part/goes.hpp"

namespace jig::bag {
namespace {

/// m of feed line for each m of rim, and in all, as a plan lays it on a face twice as long as wide.
struct LineLength {
    double by_rim = 0, each = 0;
    int hoses = 1;
};
LineLength line_of(const Infusion& c) {
    constexpr double kLong = 1.0 / 3, kWide = 1.0 / 6;
    switch (c.plan) {
        case InfusionPlan::spine:
            return {kLong * c.lines, 0, c.lines};
        case InfusionPlan::fishbone:
            return {kLong + kWide * c.lines, 0, 1};
        case InfusionPlan::ring:
            return {1, 0, 1};
        case InfusionPlan::end:
            return {kWide, 0, 1};
        case InfusionPlan::own:
            break;
    }
    LineLength out{0, 0, 0};
    for (const auto& p : c.ports) {
        if (p.use != PortUse::feed) continue;
        ++out.hoses;
        if (p.kind == PortKind::rim) out.by_rim += 1;
        if (p.kind == PortKind::line || p.kind == PortKind::fishbone)
            out.each += Point2(p.to_along - p.along, p.to_across - p.across).norm() + 2 * p.bones * p.reach;
    }
    return out;
}

}  // namespace

part::Keepers keepers(const Choices& c, const part::Choices& part, const edge::Choices& edge,
                      const brief::Making& brief, const Lists<Resin, Consumable>& shop) {
    part::Keepers out;
    out.trim = edge.trim;
    const bool infused = part.how == LayUp::infused;
    if (part.how == LayUp::hand || brief.process == Process::squeeze) return out;
    const auto* resin = find(shop.resins, part.resin);
    const double density = resin != nullptr ? resin->matrix.density : 0;
    // Each go has a bag of its own.
    const auto bags = static_cast<double>(part::goes_of(part));
    const auto layer = [&](const char* key, const char* name) {
        const auto* stock = find(shop.consumables, name);
        if (stock == nullptr || stock->takes <= 0) return;
        out.all.push_back({key, std::string("in ") + name, bags * stock->takes, 0, 0,
                           quantity(Kind::areal_mass, stock->takes) + " by the library" +
                               (bags > 1 ? fmt::format(", in each of {:.0f} bags", bags) : std::string())});
    };
    if (c.peel_ply) layer("peel_ply", "peel ply");
    if (c.film == ReleaseFilm::perforated) layer("film", "perforated film");
    // Nothing bleeds through film without holes.
    if (!infused && c.breather && c.film != ReleaseFilm::solid) layer("breather", "breather");
    if (!infused) return out;
    if (const auto* medium = find(shop.consumables, "flow medium"); c.infusion.medium && medium != nullptr) {
        const double holds = medium->pressed * medium->share * density;
        const bool round =
            c.infusion.plan == InfusionPlan::spine || c.infusion.plan == InfusionPlan::fishbone;
        if (holds > 0)
            out.all.push_back(
                {"medium", "in the flow medium", holds, round ? -holds * c.infusion.brake : 0, 0,
                 fmt::format("{} pressed, {:.0f} % of it resin{}", quantity(Kind::thickness, medium->pressed),
                             100 * medium->share, round ? ", ending before the rim" : "")});
    }
    const auto line = line_of(c.infusion);
    if (const auto* spiral = find(shop.consumables, "spiral feed line");
        spiral != nullptr && spiral->takes > 0)
        out.all.push_back({"lines", "in feed lines", 0, spiral->takes * line.by_rim,
                           spiral->takes * line.each,
                           "by their plan, about; " + quantity(Kind::mass, spiral->takes) + " a metre"});
    const double hoses = line.hoses * hose_volume(c.infusion.hose, c.infusion.bore) * density;
    if (hoses > 0)
        out.all.push_back(
            {"hoses", "in the feeds' hoses", 0, 0, hoses,
             fmt::format("{} of {} with a bore of {}", line.hoses, quantity(Kind::length, c.infusion.hose),
                         quantity(Kind::length, c.infusion.bore))});
    return out;
}

}  // namespace jig::bag
