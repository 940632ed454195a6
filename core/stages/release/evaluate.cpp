#include <fmt/format.h>

#include "core/stages/release/findings.hpp"

namespace jig::release {

Findings evaluate(const Choices& c, const split::Findings& split, const edge::Findings& edge,
                  const Library& shop) {
    Findings out;
    out.system = need(shop.releases, c.system, "release system");
    out.area = split.mould_area() + edge.area - (c.mask_land ? edge.tape_land_area : 0);
    int coats = 0;
    for (const auto& coat : out.system.first_use) {
        for (int k = 1; k <= coat.coats; ++k) {
            const double work = coat.minutes * 60 * out.area;
            out.plan.push_back({coat.product, k, coat.coats, out.clock, coat.wait});
            out.work += work;
            out.clock += work + coat.wait;
            ++coats;
        }
        out.litres += coat.coats * out.area / coat.cover;
        out.cost_first += coat.coats * out.area / coat.cover * coat.price;
    }
    out.clock += out.system.final_cure;
    const double share = 1.0 / out.system.pulls_per_touch_up;
    for (const auto& coat : out.system.each_pull) {
        out.work_each += share * coat.coats * coat.minutes * 60 * out.area;
        out.cost_each += share * coat.coats * out.area / coat.cover * coat.price;
    }
    out.figures = {
        {"coats", "coats before the first pull", Kind::count, static_cast<double>(coats), out.system.care},
        {"area", "area to coat", Kind::area, out.area,
         "moulded area and flange, less the masked tape land " +
             quantity(Kind::area, c.mask_land ? edge.tape_land_area : 0)},
        {"clock", "first coat to first pull", Kind::duration, out.clock,
         "work on every coat, its wait, and the last cure of " +
             quantity(Kind::duration, out.system.final_cure)},
        {"work", "hands for the first use", Kind::hours, out.work, "minutes per m² and coat × area"},
        {"litres", "product for the first use", Kind::volume, out.litres * 1e-3, "coats × area ÷ cover"},
        {"touch_up", "pulls per touch-up", Kind::count, static_cast<double>(out.system.pulls_per_touch_up),
         "from the shop library"},
        {"limit", "good up to", Kind::temperature, out.system.top_temperature,
         "from the shop library: " + out.system.origin.note}};
    return out;
}

}  // namespace jig::release
