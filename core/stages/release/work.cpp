#include "core/stages/release/work.hpp"

#include <fmt/format.h>

namespace jig::release {
namespace {

/// The coats of one kind of face, done in one go over all of them.
void coats(Work& out, const Findings& release, FaceOf of, When when, const char* onto) {
    double area = 0;
    const Face* first = nullptr;
    for (const auto& face : release.faces) {
        if (face.of != of) continue;
        if (first == nullptr) first = &face;
        area += face.area;
    }
    if (first == nullptr || area <= 0) return;
    const auto& system = first->system;
    const auto steps = coats_of(system.first_use, area);
    std::size_t i = 0;
    for (const auto& coat : system.first_use) {
        for (int k = 1; k <= coat.coats; ++k, ++i) {
            auto& step =
                out.step(when, Stage::release,
                         fmt::format("{}, coat {} of {}, on the {}", coat.product, k, coat.coats, onto),
                         {{fmt::format("release on the {}", onto), coat.minutes / 60 * area}});
            step.hands = 1;
            step.can_break = false;
            step.wait = coat.wait + (i + 1 == steps.size() ? system.final_cure : 0);
            if (i + 1 == steps.size())
                step.look(fmt::format("the {}: every place has all of its coats, tape comes off clean", onto))
                    .look("each coat stands in the log with its hour and who laid it");
        }
    }
}

}  // namespace

Work work(const Findings& release, const Lists<Consumable>& shop) {
    Work out;
    coats(out, release, FaceOf::plug, When::release_plug, "plug");
    coats(out, release, FaceOf::boards, When::release_plug, "parting boards");
    coats(out, release, FaceOf::mould, When::release_mould, "mould");
    coats(out, release, FaceOf::loose, When::release_mould, "loose pieces");
    // Each system is bought once for all its faces; films and tapes by their own measure.
    struct Sum {
        double amount = 0, cost = 0;
        bool rolled = false, strips = false;
    };
    std::map<std::string, Sum> sums;
    for (const auto& face : release.faces) {
        auto& sum = sums[face.system.name];
        sum.rolled = face.system.kind == ReleaseKind::sheet || face.system.kind == ReleaseKind::tape;
        sum.strips = face.system.kind == ReleaseKind::tape;
        sum.amount += sum.strips ? face.strips : sum.rolled ? face.litres : face.litres * 1e-3;
        sum.cost += face.cost;
    }
    for (const auto& [name, sum] : sums) {
        if (sum.amount <= 0) continue;
        out.buy(Ledger::once, Stage::release, name + ", first use",
                sum.strips   ? Kind::length
                : sum.rolled ? Kind::area
                             : Kind::volume,
                sum.amount, 0, sum.cost / sum.amount);
    }
    // Plug and mould are each wiped down before their first coat.
    out.consumable(Ledger::once, Stage::release, "solvent and wipes", Kind::count, 2, shop);
    if (release.masked > 0)
        out.consumable(Ledger::once, Stage::release, "masking tape", Kind::length, release.masked, shop);
    if (release.seam_fill > 0 && release.seam_with == SeamFill::wax)
        out.consumable(Ledger::each, Stage::release, "filleting wax", Kind::mass, release.seam_fill, shop);
    if (release.seam_fill > 0 && release.seam_with == SeamFill::clay)
        out.consumable(Ledger::each, Stage::release, "clay fillet", Kind::mass, release.seam_fill, shop);
    const double share = 1.0 / release.system.pulls_per_touch_up;
    const bool rolled = release.system.kind == ReleaseKind::sheet || release.system.kind == ReleaseKind::tape;
    double touch = 0;
    for (const auto& coat : release.system.each_pull)
        touch += share * coat.coats * release.area / coat.cover / (1 - coat.loss);
    const double amount = rolled ? touch : touch * 1e-3;
    out.buy(Ledger::each, Stage::release, release.system.name + ", touch-up",
            rolled ? Kind::area : Kind::volume, amount, 0, amount > 0 ? release.cost_each / amount : 0);
    auto& step = out.step(When::after, Stage::release, "touch the release up for the next pull",
                          {{"release touch-up", release.work_each / 3600}});
    step.ledger = Ledger::each;
    step.hands = 1;
    step.look("no dull or sticky place; tape comes off clean");
    return out;
}

}  // namespace jig::release
