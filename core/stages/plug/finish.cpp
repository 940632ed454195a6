#include <fmt/format.h>

#include <cmath>

#include "core/base/times.hpp"
#include "core/stages/plug/findings.hpp"

namespace jig::plug {

const std::vector<int>& grits_of(Grade grade) {
    static const std::vector<int> structural{80, 120}, paintable{80, 120, 180, 240, 320},
        clear{80, 120, 180, 240, 320, 400, 600}, gloss{80, 120, 180, 240, 320, 400, 600, 800, 1200, 1500};
    switch (grade) {
        case Grade::structural:
            return structural;
        case Grade::paintable:
            return paintable;
        case Grade::clear:
            return clear;
        case Grade::gloss:
            break;
    }
    return gloss;
}

std::vector<FinishStep> surface_schedule(Grade grade, Barrier barrier, double area, const Library& shop) {
    std::vector<FinishStep> out;
    const auto product = [&](const char* what, const char* name, Kind kind, double amount, double hours,
                             double wait) {
        const auto& c = need(shop.consumables, name, "plug");
        out.push_back({what, name, kind, amount * (1 + c.waste), c.price, hours, wait});
    };
    const auto& grits = grits_of(grade);
    const double sanding = shop.hours("sanding " + std::string(file_word(grade)), area);
    // Half before the last primer, half after: a grit's hours are even shares.
    const double each = sanding / static_cast<double>(grits.size());
    const auto sand = [&](std::size_t i) {
        const auto& c = need(shop.consumables, "grit discs", "plug");
        out.push_back({fmt::format("sand through, grit {}{}", grits[i], grits[i] >= 400 ? ", wet" : ""),
                       c.name, Kind::count, std::ceil(2.5 * area), c.price, each, 0});
    };
    if (barrier == Barrier::water)
        product("brush on the barrier coat", "barrier coat, water-based", Kind::mass, 0.4 * area,
                shop.hours("barrier", area), 12 * kHour);
    if (barrier == Barrier::epoxy)
        product("skin it with epoxy", "thickened epoxy for fillets", Kind::mass, 0.5 * area,
                shop.hours("barrier", area), 12 * kHour);
    product("fill and fair", "epoxy fairing filler", Kind::mass, 1.0 * area, shop.hours("filling", area),
            10 * kHour);
    sand(0);
    product("prime and guide coat", "high-build primer", Kind::mass, 0.45 * area, shop.hours("priming", area),
            14 * kHour);
    for (std::size_t i = 1; i < grits.size(); ++i) {
        // Paint goes on at 320, or where the ladder ends before.
        if (grade != Grade::structural && grits[i] == 320) {
            sand(i);
            product("spray the top coat", "plug top coat", Kind::mass, 0.25 * area,
                    shop.hours("priming", 0.1 * area), 16 * kHour);
            continue;
        }
        sand(i);
    }
    if (grade == Grade::clear || grade == Grade::gloss)
        product("polish", "polishing compound", Kind::mass, 0.04 * area, 0, 0);
    return out;
}

FinishHours finish_hours(Grade grade, double area, const Lists<Rate>& shop) {
    const std::string word(file_word(grade));
    FinishHours out;
    const double kept = shop.rate("paint kept out of part");
    const double part = shop.hours("finishing " + word, area),
                 bare = shop.hours("finishing structural", area);
    // Plug to the grade and the mould half of it again; the part then needs what the tool cannot give.
    out.tool = 1.5 * shop.hours("sanding " + word, area);
    out.part = part - kept * (part - bare);
    out.bare_tool = 1.5 * shop.hours("sanding structural", area);
    out.bare_part = part;
    const double saved = out.bare_part - out.part;
    out.break_even = saved > 0 ? (out.tool - out.bare_tool) / saved : 0;
    return out;
}

}  // namespace jig::plug
