#include "core/stages/part/work.hpp"

#include <algorithm>

#include "core/stages/part/goes.hpp"
#include "core/stages/plug/findings.hpp"
#include "core/stages/stack_goods.hpp"

namespace jig::part {
namespace {

/// Off rolls, sheets and cans: what lies all over by the face's lengths, what lies in places by its area; the
/// resin once, for all of it.
void buy_layers(Work& out, const Choices& c, const Findings& part, double longest, double section,
                double parts, const StackLists& shop) {
    const auto part_of = [&](const Laying& l) {
        StackSum one;
        one.laid = {l.laid};
        one.resin = l.laid.resin;
        if (c.how != LayUp::prepreg || l.laid.layer.kind == LayerKind::coupling) one.mixed = l.laid.resin;
        return one;
    };
    // Sheets that its panels are laid onto are bought as they are.
    const auto on_sheets = [&](const std::string& core) {
        return std::any_of(part.core_bought.begin(), part.core_bought.end(),
                           [&](const CoreBought& b) { return b.material == core; });
    };
    for (const auto& b : part.core_bought)
        out.buy(Ledger::each, Stage::part, b.material, Kind::area, parts * b.area, 0,
                need(shop.cores, b.material, "part").price, b.how);
    double mixed = 0;
    StackSum whole;  // what covers the whole part, as one
    std::vector<std::pair<StackSum, double>> places;
    for (const auto& l : part.laying_order) {
        auto one = part_of(l);
        const bool bought = l.laid.layer.kind == LayerKind::core && on_sheets(l.laid.name);
        if (bought) one.laid.clear();
        mixed += one.mixed * l.area;
        if (l.area < part.area * (1 - 1e-9)) {
            places.push_back({std::move(one), l.area});
            continue;
        }
        if (!bought) whole.laid.push_back(l.laid);
        whole.resin += one.resin;
        whole.mixed += one.mixed;
    }
    // As much over as the mix for the part has over what stays in it.
    const double over = mixed > 0 ? part.resin_mix / mixed : 0;
    const auto buy = [&](const StackSum& sum, double area, const Extent& extent) {
        buy_stack(out, Ledger::each, Stage::part, sum, part.resin, area, extent, parts, c.waste, shop,
                  parts * sum.mixed * area * over);
    };
    buy(whole, part.area, extent_of(part.area, longest, section));
    for (const auto& [sum, area] : places) buy(sum, area, {});
}

/// One of its goes: keyed onto what has hardened, laid, closed and left to cure.
void lay_go(Work& out, const Choices& c, const Findings& part, std::size_t number, double parts,
            Closing& closing, bool keyed, const Lists<Rate>& shop) {
    const auto which = which_go(part.goes, number);
    if (number > 0) {
        // A hard face takes a quarter of what sanding a plug does, as between the days of a shell.
        const auto labour =
            keyed ? at_rate(shop, "keying", parts * part.area)
                  : Labour{"sanding structural", shop.hours("sanding structural", parts * part.area) / 4};
        out.step(When::part, Stage::part, "key it for " + which.substr(2), {labour})
            .look(keyed ? "peel ply is off to the last thread, nothing shiny is left"
                        : "abraded until nothing shines, blown off and wiped")
            .look("what stands proud is cut down, voids are opened and filled");
    }
    std::vector<Labour> laying;
    if (number == 0 && part.corners.length >= kWorthFilling)
        laying.push_back(at_rate(shop, "filling corners", parts * part.corners.length));
    for (const auto& l : part.laying_order) {
        if (l.go != number) continue;
        const auto kind = l.laid.layer.kind;
        laying.push_back(at_rate(shop,
                                 kind == LayerKind::core  ? "laying core"
                                 : kind == LayerKind::ply ? "laying ply"
                                                          : "coating",
                                 parts * l.area));
    }
    auto& lay = out.step(When::part, Stage::part, "lay up the first part" + which, std::move(laying));
    lay.can_break = false;
    lay.look(number == 0 ? "before it: the release gate says go, cloth and core lie cut and numbered"
                         : "before it: the last go is hard, and dry where it was wiped")
        .look(
            c.how == LayUp::hand || c.how == LayUp::bagged
                ? "each ply is ticked with its direction, no air under it, each pot's grams are written down"
                : "each ply is ticked with its direction, lies without a fold and bridges no corner");
    if (closing.work.steps.empty()) lay.wait = closing.cured;
    out.steps.insert(out.steps.end(), closing.work.steps.begin(), closing.work.steps.end());
    out.goods.insert(out.goods.end(), closing.work.goods.begin(), closing.work.goods.end());
}

}  // namespace

Work work(const Choices& c, const Findings& part, const edge::Findings& edge, const split::Findings& split,
          const brief::Of<brief::Wanted, brief::Crew, brief::Jig>& brief,
          const Lists<Reinforcement, SurfaceCoat, Core, Board, Consumable, Bonding, Rate>& shop,
          const CureTimes& cured, std::vector<Closing> closings) {
    Work out;
    const auto each = Ledger::each;
    const double parts = split.parts(), area = parts * part.area;
    const double longest =
        parts > 1 && split.section_width > 0 ? part.area / split.section_width : split.size.maxCoeff();
    buy_layers(out, c, part, longest, split.one_piece() ? split.section_width : 0, parts, shop);
    out.filler(each, Stage::part, "thickened epoxy for fillets",
               parts * (part.corners.filler + part.panel_filler), shop);
    const bool joins = c.joint.kind != JointKind::none;
    if (joins) {
        const auto& adhesive = need(shop.bonds, c.joint.adhesive, "part");
        const double amount = parts * (adhesive.by_length ? part.joint.length : part.joint.adhesive);
        constexpr double kOver = 0.1;  // share bought over
        out.buy(each, Stage::part, adhesive.name, adhesive.by_length ? Kind::length : Kind::mass, amount,
                kOver, adhesive.price);
    }
    out.consumable(each, Stage::part, "gloves and masks", Kind::count, brief.people * 0.5 * parts, shop);
    out.consumable(each, Stage::part, "brushes, rollers, pots", Kind::count, 1, shop);
    out.consumable(each, Stage::part, "solvent and wipes", Kind::count, 1, shop);
    const double inserts = parts * part.inserts_set;
    if (inserts > 0) {
        out.consumable(each, Stage::part, "threaded insert", Kind::count, inserts, shop);
        out.filler(each, Stage::part, "thickened epoxy for fillets", parts * part.potting, shop);
    }
    for (const auto& [name, sawn] : part.blocks) {
        const auto& board = need(shop.boards, name, "part");
        constexpr double kOver = 0.2;  // share that is sawn to waste
        out.buy(each, Stage::part, name + ", for blocks", Kind::area, parts * sawn, kOver,
                board.price / (board.sheet_length * board.sheet_width));
    }
    for (std::size_t go = 0; go < part.goes.size(); ++go)
        lay_go(out, c, part, go, parts, closings.at(go), go > 0 && closings[go - 1].keyed, shop);
    const auto join = [&] {
        if (!joins) return;
        auto& step = out.step(When::part, Stage::part, "join the first part",
                              {at_rate(shop, "joining parts", parts * part.joint.length)});
        step.can_break = false;  // adhesive that is mixed waits for nobody
        step.wait = cured.joined > 0 ? cured.joined : need(shop.bonds, c.joint.adhesive, "part").hardens;
        step.look(
                "before it: fitted dry, the gap is even and as wide as it is planned, both faces are keyed "
                "and wiped")
            .look("squeeze-out all along, nothing sprung, shims and clamps hold it as it is wanted");
    };
    if (brief.assembly_jig) join();
    out.step(When::part, Stage::part, "pull and trim the first part",
             {at_rate(shop, "demould part", parts), at_rate(shop, "trimming", edge.rim_length)})
        .look("before it: the part is hard, and it is no earlier than Heat says")
        .look("mould and part are whole; weight and what was seen are written into the log");
    if (inserts > 0)
        out.step(When::part, Stage::part, "mark, bore and set its inserts",
                 {at_rate(shop, "setting inserts", inserts)});
    if (!brief.assembly_jig) join();
    if (cured.free > 0) {
        auto& step = out.step(When::part, Stage::part, "post-cure the first part, free-standing",
                              {at_rate(shop, "loading the oven", parts)});
        step.wait = cured.free;
        step.look(
            "before it: it stands or hangs so that nothing bends it, sensors are placed, the alarm is set");
    }
    out.step(When::part, Stage::part, "finish the first part",
             {{"finishing", plug::finish_hours(brief.grade, area, shop).part}});
    for (auto& step : out.steps) step.ledger = each;
    return out;
}

}  // namespace jig::part
