#include "core/stages/shell/work.hpp"

#include <fmt/format.h>

#include "core/stages/bag/work.hpp"
#include "core/stages/stack_goods.hpp"

namespace jig::shell {
namespace {

/// s from one day's laying to the next at the least.
constexpr double kNight = 10 * 3600;

using WorkLists = Lists<Reinforcement, SurfaceCoat, Core, Consumable, Rate>;

/// Lays one piece of `area` m², day by day. A coat that comes after plies ends what was laid before it.
void lay(Work& out, const Choices& c, const Findings& shell, double area, double pieces,
         const std::string& of, const WorkLists& shop) {
    std::vector<Labour> today;
    int day = 1;
    const auto finish_day = [&](double wait) {
        if (today.empty()) return;
        auto& step = out.step(When::shell, Stage::shell,
                              (shell.days > 1 ? fmt::format("lay up the shell, day {} of {}", day, shell.days)
                                              : std::string("lay up the shell")) +
                                  of,
                              std::move(today));
        today.clear();
        step.can_break = false;
        step.wait = wait;
        if (day == 1) step.look("before it: corners are filled, so that no cloth bridges one");
        step.look(
            c.how == LayUp::infused || c.how == LayUp::prepreg
                ? "each ply is ticked with its direction, lies without a fold and bridges no corner"
                : "each ply is ticked with its direction, no air under it, each pot's grams are written "
                  "down");
    };
    // Once the coats are tacky, before the first ply.
    bool filled = shell.corners.length < kWorthFilling;
    double debulks = 0;
    // m² of doublers' plies by the day that they go on: the last of the common stack, and those after it.
    std::vector<double> doubled(1);
    for (const auto& z : shell.zones) {
        doubled.resize(std::max(doubled.size(), z.days.size() + 1));
        for (std::size_t i = 0; i < z.extra.laid.size(); ++i)
            doubled[static_cast<std::size_t>(std::count_if(z.days.begin(), z.days.end(),
                                                           [&](std::size_t first) { return first <= i; }))] +=
                z.area / pieces;
    }
    for (const auto& step : shell.order) debulks += step.kind == LayStep::Kind::debulk;
    for (std::size_t i = 0; i < c.layers.size(); ++i) {
        const auto& layer = c.layers[i];
        if (layer.kind == LayerKind::surface_coat) {
            finish_day(shell.working.gel);
            const auto& coat = need(shop.surface_coats, layer.material, "shell");
            for (int p = 1; p <= coat.passes; ++p) {
                auto& step = out.step(When::shell, Stage::shell,
                                      fmt::format("{}, pass {} of {}{}", coat.name, p, coat.passes, of),
                                      {at_rate(shop, "coating", area)});
                step.can_break = false;
                step.wait = coat.between_passes;
                step.no_later = coat.window;
                step.look("even and without a pinhole; tacky, and nothing comes off on a finger");
            }
            continue;
        }
        if (!filled) today.push_back(at_rate(shop, "filling corners", shell.corners.length / pieces));
        filled = true;
        today.push_back(at_rate(shop,
                                layer.kind == LayerKind::coupling ? "coating"
                                : layer.kind == LayerKind::core   ? "laying core"
                                                                  : "laying ply",
                                area));
        if (i + 1 < c.layers.size() &&
            std::find(shell.day_ends.begin(), shell.day_ends.end(), i) != shell.day_ends.end()) {
            finish_day(std::max(shell.working.gel, kNight));
            ++day;
        }
    }
    if (doubled.front() > 0) today.push_back(at_rate(shop, "laying ply", doubled.front()));
    if (debulks > 0) today.push_back(at_rate(shop, "debulk", debulks));
    for (std::size_t more = 1; more < doubled.size(); ++more) {
        finish_day(std::max(shell.working.gel, kNight));
        ++day;
        if (doubled[more] > 0) today.push_back(at_rate(shop, "laying ply", doubled[more]));
    }
    finish_day(0);
}

}  // namespace

Work work(const Choices& c, const Findings& shell, const edge::Findings& edge,
          const bag::Choices& bag_choices, const bag::Findings& bag, const bag::Flow& flow,
          const split::Findings& split, const brief::Of<brief::Crew, brief::Making>& brief, double cured,
          const WorkLists& shop) {
    Work out;
    if (is_solid(shell.stack)) return out;
    const int pieces = split.one_piece() ? 1 : static_cast<int>(split.set.pieces.size());
    const double area = shell.area / pieces;
    const auto extent = extent_of(area, split.size.maxCoeff() + 2 * edge.width,
                                  pieces > 1 ? 0 : split.section_width + 2 * edge.width);
    std::optional<double> mix;
    if (c.how == LayUp::infused) mix = shell.stack.mixed * shell.area * (1 + c.waste) + c.pot_loss;
    buy_stack(out, Ledger::once, Stage::shell, shell.stack, shell.resin, area, extent, pieces, c.waste, shop,
              mix);
    for (const auto& zone : shell.zones)
        buy_stack(out, Ledger::once, Stage::shell, zone.extra, shell.resin, zone.area, {}, 1, c.waste, shop);
    out.filler(Ledger::once, Stage::shell, "thickened epoxy for fillets", shell.corners.filler, shop);
    out.consumable(Ledger::once, Stage::shell, "peel ply", Kind::area, shell.area, shop);
    const bool bagged = c.how != LayUp::hand, infused = c.how == LayUp::infused;
    // One that is filled in several goes is bagged for each.
    const double goes = infused ? shell.days : 1;
    const auto buy = [&](const char* name, Kind kind, double amount) {
        out.consumable(Ledger::once, Stage::shell, name, kind, amount * goes, shop);
    };
    if (bagged) {
        buy("bag film", Kind::area, bag.cover);
        buy("sealant tape", Kind::length, bag.cover_tape);
        if (!infused) buy("breather", Kind::area, shell.area);
    }
    if (infused) {
        if (bag_choices.shell_infusion.medium) buy("flow medium", Kind::area, shell.area);
        // The pieces of a mould share the hoses of the one that is followed by their faces.
        buy("spiral feed line", Kind::length,
            flow.runs && flow.area > 0 ? flow.line() * std::max(1.0, shell.area / flow.area)
                                       : edge.rim_length);
        buy("vacuum hose", Kind::length, bag_choices.hoses_out() * bag_choices.hose * pieces);
    }
    out.consumable(Ledger::once, Stage::shell, "brushes, rollers, pots", Kind::count, 1 + shell.days * pieces,
                   shop);
    out.consumable(Ledger::once, Stage::shell, "gloves and masks", Kind::count, brief.people, shop);
    for (int p = 1; p <= pieces; ++p) {
        const auto of = pieces > 1 ? fmt::format(", piece {} of {}", p, pieces) : std::string();
        if (p > 1)
            out.step(When::shell, Stage::split, "turn it over, clear the seam and release it" + of,
                     {at_rate(shop, "clearing the seam", split.set.seam_length / (pieces - 1))});
        const auto before = out.steps.size();
        lay(out, c, shell, area, pieces, of, shop);
        if (out.steps.size() > before) out.steps[before].look("before it: the release gate says go");
        if (bagged) {
            auto& closing =
                out.step(When::shell, Stage::shell, "bag the shell and find its leaks" + of,
                         {at_rate(shop, "bagging", area * goes), at_rate(shop, "setting up bag", goes)});
            closing.can_break = false;
            bag::look_at_bag(closing, BagWay::surface, 0);
        }
        if (infused && flow.runs && flow.filling.fill) {
            auto& run = out.step(When::shell, Stage::shell, "let the resin into the shell, hose by hose" + of,
                                 {{"bagging", goes * bag::watched(*flow.filling.fill) / 3600}});
            run.hands = 1;
            run.can_break = false;
            bag::look_at_hoses(out.steps[out.steps.size() - 2], run);
        }
        if (out.steps.size() == before) continue;  // nothing is laid
        // Whatever came last cures before anything goes on.
        auto& last = out.steps.back();
        last.wait = cured;
        if (infused && flow.runs && flow.filling.fill)
            last.wait += *flow.filling.fill - bag::watched(*flow.filling.fill);
        last.no_later = 0;
    }
    return out;
}

}  // namespace jig::shell
