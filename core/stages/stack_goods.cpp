#include "core/stages/stack_goods.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/science/nest/roll.hpp"

namespace jig {

Extent extent_of(double area, double longest, double section) {
    if (!(area > 0) || !(longest > 0)) return {};
    return {longest, std::max(section, area / longest)};
}

namespace {

/// Every ply of one cloth together.
struct Cloth {
    const Reinforcement* entry = nullptr;
    double area = 0, metres = 0;
    int strips = 0;
};

void buy_cloth(Work& work, Ledger ledger, Stage stage, const Cloth& c, double waste) {
    const auto& r = *c.entry;
    const double by_area = c.area * (1 + waste) / r.roll_width, metres = std::max(by_area, c.metres);
    auto note = c.strips > 0 ? fmt::format("{} lengths, ", c.strips) : std::string();
    note += quantity(Kind::length, metres) + " off a roll " + quantity(Kind::length, r.roll_width) + " wide";
    if (metres > r.roll_length) note += fmt::format(", {:.0f} rolls", std::ceil(metres / r.roll_length));
    work.buy(ledger, stage, r.name, Kind::area, c.area, metres * r.roll_width / c.area - 1, r.price,
             std::move(note));
}

}  // namespace

void buy_stack(Work& work, Ledger ledger, Stage stage, const StackSum& sum, const Resin& resin, double area,
               const Extent& extent, double count, double waste, const StackLists& shop,
               std::optional<double> mix) {
    if (!(area > 0)) return;
    std::map<std::string, Cloth> cloths;
    std::map<std::string, double> cores, coats;
    for (const auto& l : sum.laid) {
        if (l.layer.kind == LayerKind::ply) {
            auto& c = cloths[l.name];
            c.entry = &need(shop.reinforcements, l.name, name_of(stage).key);
            c.area += count * area;
            if (c.entry->roll_width <= kStripOverlap) continue;
            const auto cut =
                cut_off_roll(extent.length, extent.girth, l.layer.angle, c.entry->roll_width, kStripOverlap);
            c.metres += count * cut.metres;
            c.strips += static_cast<int>(count) * cut.strips;
        } else if (l.layer.kind == LayerKind::core) {
            cores[l.name] += count * area;
        } else if (l.layer.kind == LayerKind::surface_coat) {
            coats[l.name] += l.other * count * area;
        }
    }
    for (const auto& [name, cloth] : cloths) buy_cloth(work, ledger, stage, cloth, waste);
    for (const auto& [name, whole] : cores)
        work.buy(ledger, stage, name, Kind::area, whole, waste,
                 need(shop.cores, name, name_of(stage).key).price);
    for (const auto& [name, mass] : coats)
        work.buy(ledger, stage, name, Kind::mass, mass, waste,
                 need(shop.surface_coats, name, name_of(stage).key).price);
    const double in_cloth = count * area * (sum.resin - sum.mixed), laid = count * area * sum.mixed;
    if (in_cloth > 1e-9 * area)
        work.buy(ledger, stage, resin.name + ", in its cloth", Kind::mass, in_cloth, waste, resin.price);
    if (laid > 0)
        work.buy(ledger, stage, resin.name + ", mixed", Kind::mass, laid, mix ? *mix / laid - 1 : waste,
                 resin.price,
                 fmt::format("{:g} parts of hardener to 100 by mass; pot life {} of {} at {}",
                             resin.mix_ratio, quantity(Kind::duration, resin.pot_life),
                             quantity(Kind::mass, kPotOfLife), quantity(Kind::temperature, kShopRoom)));
}

}  // namespace jig
