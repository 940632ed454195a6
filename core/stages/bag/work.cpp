#include "core/stages/bag/work.hpp"

#include <fmt/format.h>

namespace jig::bag {

Work work(const Choices& c, const Findings& bag, const part::Findings& part, const edge::Findings& edge,
          int parts, double cured, const Lists<Consumable, Rate>& shop) {
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
    buy(bag.how == LayUp::infused ? "flow medium" : "breather", Kind::area, area);
    if (c.film == ReleaseFilm::perforated) buy("perforated film", Kind::area, area);
    if (c.film == ReleaseFilm::solid) buy("release film", Kind::area, area);
    buy("sealant tape", Kind::length, bag.tape);
    // Hoses are clogged or cut with every pull.
    buy("vacuum hose", Kind::length, c.hoses * c.hose);
    if (bag.how == LayUp::infused) buy("spiral feed line", Kind::length, edge.rim_length);
    auto& step = out.step(When::part, Stage::bag, "bag it and find the leaks",
                          {at_rate(shop, "bagging", (area + edge.area) * (c.second ? 2 : 1)),
                           at_rate(shop, "setting up bag", c.second ? 2 : 1)});
    step.can_break = false;
    step.wait = cured;
    for (auto& s : out.steps) s.ledger = each;
    return out;
}

}  // namespace jig::bag
