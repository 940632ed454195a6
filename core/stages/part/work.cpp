#include "core/stages/part/work.hpp"

#include "core/stages/plug/findings.hpp"
#include "core/stages/stack_goods.hpp"

namespace jig::part {

Work work(const Choices& c, const Findings& part, const edge::Findings& edge, const split::Findings& split,
          const brief::Of<brief::Wanted, brief::Crew>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Consumable, Rate>& shop, double cured, Work closing) {
    Work out;
    const auto each = Ledger::each;
    const double parts = split.parts(), area = parts * part.area;
    const double longest =
        parts > 1 && split.section_width > 0 ? part.area / split.section_width : split.size.maxCoeff();
    buy_stack(out, each, Stage::part, part.stack, part.resin, part.area,
              extent_of(part.area, longest, split.one_piece() ? split.section_width : 0), parts, c.waste,
              shop, parts * part.resin_mix);
    out.filler(each, Stage::part, "thickened epoxy for fillets", parts * part.corners.filler, shop);
    out.consumable(each, Stage::part, "structural adhesive", Kind::mass, parts * part.joint.adhesive, shop);
    out.consumable(each, Stage::part, "gloves and masks", Kind::count, brief.people * 0.5 * parts, shop);
    out.consumable(each, Stage::part, "brushes, rollers, pots", Kind::count, 1, shop);
    out.consumable(each, Stage::part, "solvent and wipes", Kind::count, 1, shop);
    std::vector<Labour> laying;
    for (const auto& layer : c.layers)
        laying.push_back(at_rate(shop,
                                 layer.kind == LayerKind::core  ? "laying core"
                                 : layer.kind == LayerKind::ply ? "laying ply"
                                                                : "coating",
                                 area));
    out.step(When::part, Stage::part, "lay up the first part", std::move(laying)).can_break = false;
    if (closing.steps.empty()) out.steps.back().wait = cured;
    out.steps.insert(out.steps.end(), closing.steps.begin(), closing.steps.end());
    out.goods.insert(out.goods.end(), closing.goods.begin(), closing.goods.end());
    out.step(When::part, Stage::part, "pull and trim the first part",
             {at_rate(shop, "demould part", parts), at_rate(shop, "trimming", edge.rim_length)});
    out.step(When::part, Stage::part, "finish the first part",
             {{"finishing", plug::finish_hours(brief.grade, area, shop).part}});
    for (auto& step : out.steps) step.ledger = each;
    return out;
}

}  // namespace jig::part
