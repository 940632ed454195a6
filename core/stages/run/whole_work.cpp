#include <algorithm>

#include "core/stages/back/work.hpp"
#include "core/stages/bag/work.hpp"
#include "core/stages/edge/work.hpp"
#include "core/stages/heat/work.hpp"
#include "core/stages/part/work.hpp"
#include "core/stages/plug/work.hpp"
#include "core/stages/release/work.hpp"
#include "core/stages/run/findings.hpp"
#include "core/stages/shell/work.hpp"
#include "core/stages/split/work.hpp"

namespace jig::run {
namespace {

/// Run's own: drawing the tool, taking it off the plug and finishing it.
Work own_work(const Before& b, const Library& shop) {
    Work out;
    out.step(When::design, Stage::brief, "draw and plan the tool", {at_rate(shop, "design", 1)});
    if (plug::no_plug(b.plug_choices)) return out;
    out.step(When::demould, Stage::run, "take the mould off and trim it", {at_rate(shop, "demould tool", 1)})
        .look("before it: its cure is over and it is as cold as the room")
        .look("the face is whole: no star, no print, nothing left on the plug");
    // It comes off a finished plug: a third of what both take.
    out.step(When::finish, Stage::run, "wet-sand and polish the mould",
             {{"finishing the mould", plug::finish_hours(b.brief.grade, b.plug.sanding_area, shop).tool / 3}})
        .look("no scratch of a coarser grit is left, seen wet and against the light");
    return out;
}

}  // namespace

Work whole_work(const Before& b, const Library& shop) {
    Work out;
    const auto add = [&](Work more) {
        out.steps.insert(out.steps.end(), more.steps.begin(), more.steps.end());
        out.goods.insert(out.goods.end(), more.goods.begin(), more.goods.end());
    };
    // What lies there cures as long as its programme takes.
    const auto cured = [&](CureOf of, double otherwise) {
        const auto* run = b.cures.find(of);
        return run != nullptr ? run->seconds : otherwise;
    };
    constexpr double kOvernight = 16 * 3600;  // s, of a back that nothing is known to react in
    const bool plug = !plug::no_plug(b.plug_choices);
    std::vector<part::Closing> closings;
    for (std::size_t go = 0; go < b.part.goes.size(); ++go) {
        const double hard = cured(heat::cure_of_go(go, b.part.goes.size()), b.part.resin.demould_time);
        closings.push_back(
            {bag::work(b.bag_choices, b.bag, b.flow, b.part, b.edge, b.split.parts(), go, hard, shop), hard,
             b.bag.closed && b.bag_choices.peel_ply});
    }
    add(own_work(b, shop));
    add(plug::work(b.plug, b.brief, shop));
    add(edge::work(b.edge_choices, b.edge, b.split.set.seam_length, plug, b.split_choices.board, shop));
    add(split::work(b.split_choices, b.split, plug, shop));
    add(release::work(b.release, shop));
    add(shell::work(b.shell_choices, b.shell, b.edge, b.bag_choices, b.bag, b.shell_flow, b.split, b.brief,
                    cured(CureOf::on_plug, b.shell.resin.demould_time), shop));
    add(back::work(b.back_choices, b.back, b.pieces(), b.shell_choices, b.shell,
                   cured(CureOf::with_back, kOvernight), shop));
    add(heat::work(b.room, b.cures, b.oven, shop));
    add(part::work(b.part_choices, b.part, b.edge, b.split, b.brief, shop,
                   {cured(CureOf::joined, 0), cured(CureOf::part_free, 0)}, std::move(closings)));
    std::erase_if(out.steps, [](const Step& s) { return s.hours() <= 0 && s.wait <= 0; });
    std::stable_sort(out.steps.begin(), out.steps.end(),
                     [](const Step& a, const Step& c) { return a.when < c.when; });
    return out;
}

}  // namespace jig::run
