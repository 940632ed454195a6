#include "core/stages/release/work.hpp"

#include <fmt/format.h>

namespace jig::release {
namespace {

void coats(Work& out, const Findings& release, When when, const char* onto) {
    for (std::size_t i = 0; i < release.plan.size(); ++i) {
        const auto& one = release.plan[i];
        double minutes = 0;
        for (const auto& coat : release.system.first_use) {
            if (coat.product == one.product) minutes = coat.minutes;
        }
        auto& step =
            out.step(when, Stage::release,
                     fmt::format("{}, coat {} of {}, on the {}", one.product, one.coat, one.of, onto),
                     {{fmt::format("release on the {}", onto), minutes / 60 * release.area}});
        step.hands = 1;
        step.can_break = false;
        step.wait = one.wait + (i + 1 == release.plan.size() ? release.system.final_cure : 0);
    }
}

}  // namespace

Work work(const Findings& release, const Lists<Consumable>& shop) {
    Work out;
    coats(out, release, When::release_plug, "plug");
    coats(out, release, When::release_mould, "mould");
    const double each = release.litres * 1e-3;
    out.buy(Ledger::once, Stage::release, release.system.name + ", plug and mould", Kind::volume, 2 * each, 0,
            each > 0 ? release.cost_first / each : 0);
    // Plug and mould are each wiped down before their first coat.
    out.consumable(Ledger::once, Stage::release, "solvent and wipes", Kind::count, 2, shop);
    const double touch = each / (5.0 * release.system.pulls_per_touch_up);
    out.buy(Ledger::each, Stage::release, release.system.name + ", touch-up", Kind::volume, touch, 0,
            touch > 0 ? release.cost_each / touch : 0);
    auto& step = out.step(When::after, Stage::release, "touch the release up for the next pull",
                          {{"release touch-up", release.work_each / 3600}});
    step.ledger = Ledger::each;
    step.hands = 1;
    return out;
}

}  // namespace jig::release
