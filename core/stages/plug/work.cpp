#include "core/stages/plug/work.hpp"

#include <fmt/format.h>

#include <cmath>

namespace jig::plug {

Work work(const Findings& plug, const brief::Wanted& brief, const Lists<Consumable>& shop) {
    Work out;
    double discs = 0, price = 0;
    for (const auto& plan : plug.plans) {
        for (const auto& n : plan.needs) {
            // Discs are bought by the box, whatever their grit.
            if (n.what == "grit discs") {
                discs += n.amount;
                price = n.price;
            } else {
                out.buy(Ledger::once, Stage::plug, n.what, n.kind, n.amount, 0, n.price, n.note);
            }
        }
        for (const auto& w : plan.works)
            out.step(When::plug, Stage::plug, w.what, {{w.what, w.hours}}).wait = w.wait;
        const bool direct = plan.route == Route::direct;
        if (!plan.works.empty() && direct)
            out.steps.back()
                .look("it is measured at its own places, written down and within its tolerance")
                .look(
                    "no scratch of a coarser grit, no pore and no seam is left, seen wet and against the "
                    "light");
        else if (!plan.works.empty())
            out.steps.back()
                .look("every template lies on it all round, no light under it")
                .look("its finish is hard to the nail, without a pinhole, and as even as its grade asks");
    }
    // The mould is gone over as the plug was, with half its work; one that is made itself has had its own.
    const bool direct = !plug.plans.empty() && plug.plans.front().route == Route::direct;
    const double mould = direct ? 0 : std::ceil(discs / 2);
    out.buy(Ledger::once, Stage::plug, "grit discs", Kind::count, discs + mould, 0, price,
            direct ? std::string("of all grits")
                   : fmt::format("of all grits; {:.0f} of them for the mould, the finer ones", mould));
    if (direct) return out;
    if (brief.grade == Grade::clear || brief.grade == Grade::gloss)
        out.consumable(Ledger::once, Stage::run, "polishing compound", Kind::mass, 0.04 * plug.sanding_area,
                       shop);
    return out;
}

}  // namespace jig::plug
