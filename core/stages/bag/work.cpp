#include "core/stages/bag/work.hpp"

#include <fmt/format.h>

#include "core/stages/part/goes.hpp"

namespace jig::bag {
namespace {

/// Lengths off its roll where it has been cut to a size, else by its area; never less than the shop's own
/// waste asks for.
void buy_layer(Work& work, const BagLayer& l, const Lists<Consumable, Rate>& shop) {
    const char* name = l.name == "second bag film" ? "bag film" : l.name.c_str();
    const auto& stock = need(shop.consumables, name, "bag");
    if (stock.pulls > 1) {
        work.buy(
            Ledger::each, Stage::bag, name, Kind::area, l.area / stock.pulls, stock.waste, stock.price,
            fmt::format("{} bought once, one pull of {:.0f}", quantity(Kind::area, l.area), stock.pulls));
        return;
    }
    if (!(l.cut.metres > 0) || !(l.area > 0)) {
        work.consumable(Ledger::each, Stage::bag, name, Kind::area, l.area, shop);
        return;
    }
    const double metres = std::max(l.cut.metres, l.area * (1 + stock.waste) / l.roll);
    work.buy(Ledger::each, Stage::bag, stock.name, Kind::area, l.area, metres * l.roll / l.area - 1,
             stock.price,
             fmt::format("{}{} off a roll {} wide",
                         l.beside > 1       ? fmt::format("{} side by side, ", l.beside)
                         : l.cut.strips > 1 ? fmt::format("{} lengths, ", l.cut.strips)
                                            : std::string(),
                         quantity(Kind::length, metres), quantity(Kind::length, l.roll)));
}

}  // namespace

void look_at_bag(Step& step, BagWay way, double rise) {
    step.look("pump, trap and hoses alone hold for ten minutes")
        .look(way == BagWay::surface ? "corners are stuck first, each pleat is shut to its tip"
              : way == BagWay::reusable
                  ? "lip and land are clean, no cut or thin place against the light"
                  : "edges and corners of the tool are padded, each seam is shut to its "
                    "ends")
        .look("drawn in part and set into every hollow, then drawn down")
        .look(rise > 0 ? "shut for ten minutes it has risen by " + quantity(Kind::pressure, rise) + " at most"
                       : std::string("shut for ten minutes it has risen no more than the shop's mark"));
}

void look_at_hoses(Step& bag, Step& filling) {
    bag.look("every hose is clamped, the trap empty, pots weighed and labelled with their order");
    filling.look("no feed draws air; each front's time is written beside the planned one")
        .look("a vent is clamped when no more bubbles come; the last place is wet");
}

Work work(const Choices& c, const Findings& bag, const Flow& flow, const part::Findings& part,
          const edge::Findings& edge, int parts, std::size_t go, double cured,
          const Lists<Consumable, Rate>& shop) {
    Work out;
    const auto which = part::which_go(part.goes, go);
    if (bag.clamp && bag.clamp->bolts > 0 && go + 1 == part.goes.size()) {
        auto& step = out.step(When::part, Stage::bag, "close the squeeze mould and draw its bolts crosswise",
                              {at_rate(shop, "closing the mould", edge.rim_length)});
        step.ledger = Ledger::each;
        step.can_break = false;
        step.wait = cured;
        step.look("drawn up in its order and three rounds, the gap even all round");
    }
    if (!bag.closed) return out;
    const auto each = Ledger::each;
    const double area = part.area * parts;
    const auto buy = [&](const char* name, Kind kind, double amount) {
        out.consumable(each, Stage::bag, name, kind, amount, shop);
    };
    for (const auto& l : bag.layers) buy_layer(out, l, shop);
    if (bag.tape > 0) buy("sealant tape", Kind::length, bag.tape);
    // Hoses are clogged or cut with every pull.
    buy("vacuum hose", Kind::length, c.hoses_out() * c.hose);
    // The face that is followed is one piece of a mould, whose pieces share its hoses by their faces.
    if (bag.how == LayUp::infused)
        buy("spiral feed line", Kind::length,
            flow.runs && flow.area > 0 ? flow.line() * std::max(1.0, area / flow.area) : edge.rim_length);
    auto& step = out.step(When::part, Stage::bag, "bag it and find the leaks" + which,
                          {at_rate(shop, c.way == BagWay::reusable ? "closing a reusable bag" : "bagging",
                                   (area + edge.area) * c.films()),
                           at_rate(shop, "setting up bag", c.films())});
    step.can_break = false;
    step.wait = cured;
    look_at_bag(step, c.way, kTenMinutes * bag.allowed);
    if (flow.runs && flow.filling.fill) {
        const double fill = *flow.filling.fill;
        step.wait = 0;
        auto& run = out.step(When::part, Stage::bag, "let the resin in, hose by hose",
                             {{"bagging", watched(fill) / 3600}});
        run.hands = 1;
        run.can_break = false;
        // Adding the step may have moved the one before it.
        look_at_hoses(out.steps[out.steps.size() - 2], run);
        run.wait = fill - watched(fill) + cured;
    }
    for (auto& s : out.steps) s.ledger = each;
    return out;
}

}  // namespace jig::bag
