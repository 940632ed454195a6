#include "core/stages/bag/work.hpp"

#include <fmt/format.h>

namespace jig::bag {

Work work(const Choices& c, const Findings& bag, const Flow& flow, const part::Findings& part,
          const edge::Findings& edge, int parts, double cured, const Lists<Consumable, Rate>& shop) {
    Work out;
    if (!bag.closed) return out;
    const auto each = Ledger::each;
    const double area = part.area * parts;
    const auto buy = [&](const char* name, Kind kind, double amount) {
        out.consumable(each, Stage::bag, name, kind, amount, shop);
    };
    const auto& film = need(shop.consumables, "bag film", "bag");
    if (bag.measured && bag.film.joins > 0)
        out.buy(each, Stage::bag, film.name, Kind::area, bag.film_area, film.waste, film.price,
                fmt::format("joined from {} widths", bag.film.joins + 1));
    else
        buy("bag film", Kind::area, bag.film_area);
    if (c.peel_ply) buy("peel ply", Kind::area, area);
    if (bag.how != LayUp::infused)
        buy("breather", Kind::area, area);
    else if (c.infusion.medium)
        buy("flow medium", Kind::area, area);
    if (c.film == ReleaseFilm::perforated) buy("perforated film", Kind::area, area);
    if (c.film == ReleaseFilm::solid) buy("release film", Kind::area, area);
    buy("sealant tape", Kind::length, bag.tape);
    // Hoses are clogged or cut with every pull.
    buy("vacuum hose", Kind::length, c.hoses * c.hose);
    // The face that is followed is one piece of a mould, whose pieces share its hoses by their faces.
    if (bag.how == LayUp::infused)
        buy("spiral feed line", Kind::length,
            flow.runs && flow.area > 0 ? flow.line() * std::max(1.0, area / flow.area) : edge.rim_length);
    auto& step = out.step(When::part, Stage::bag, "bag it and find the leaks",
                          {at_rate(shop, "bagging", (area + edge.area) * (c.second ? 2 : 1)),
                           at_rate(shop, "setting up bag", c.second ? 2 : 1)});
    step.can_break = false;
    step.wait = cured;
    if (flow.runs && flow.filling.fill) {
        // Nobody stays by a hose for longer than a shift's half; what runs on by then is waited for.
        constexpr double kWatched = 4 * 3600;
        const double fill = *flow.filling.fill, watched = std::min(fill, kWatched);
        step.wait = 0;
        auto& run =
            out.step(When::part, Stage::bag, "let the resin in, hose by hose", {{"bagging", watched / 3600}});
        run.hands = 1;
        run.can_break = false;
        run.wait = fill - watched + cured;
    }
    for (auto& s : out.steps) s.ledger = each;
    return out;
}

}  // namespace jig::bag
