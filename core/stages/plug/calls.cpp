#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/plug/findings.hpp"

namespace jig::plug {
namespace {

class Judge {
  public:
    void add(Severity s, std::string key, std::string headline, std::string why,
             std::optional<Fix> fix = {}) {
        out.push_back({Stage::plug, s, std::move(key), std::move(headline), std::move(why), std::move(fix)});
    }
    Calls out;
};

Json route_patch(Route route) {
    return patch_of("plug", "route", std::string(file_word(route)));
}

void judge_slabs(Judge& judge, const Choices& c, const Plan& plan, const brief::Choices& brief) {
    const auto& board = plan.substrate;
    if (plan.slabs.parted > 0)
        judge.add(
            Severity::note, "sheet_size",
            fmt::format("{} larger than one sheet of {} × {}: parted by {}",
                        plan.slabs.parted == 1 ? "1 slab is" : fmt::format("{} slabs are", plan.slabs.parted),
                        quantity(Kind::length, board.sheet_length), quantity(Kind::length, board.sheet_width),
                        plan.slabs.joints == 1 ? "1 joint" : fmt::format("{} joints", plan.slabs.joints)),
            "The parts have letters and two pins each; joints of neighbouring slabs stand apart. Glue them "
            "edge to edge, or choose larger stock.");
    const double longest = std::max(brief.router_x, brief.router_y),
                 shortest = std::min(brief.router_x, brief.router_y);
    for (const auto& slab : plan.slabs.stack.slabs) {
        bool fits = true;
        Point2 size = Point2::Zero();
        for (const auto& loop : slab.outline) {
            size = high_corner({loop}) - low_corner({loop});
            fits &= size.maxCoeff() <= longest && size.minCoeff() <= shortest;
            if (!fits) break;
        }
        if (fits) continue;
        judge.add(
            Severity::note, "router",
            fmt::format("Slab {} does not go onto the router: {} × {}", slab.number,
                        quantity(Kind::length, size.maxCoeff()), quantity(Kind::length, size.minCoeff())),
            "Cut it by hot wire or saw from the full-size sheet, or in two pieces.");
        break;
    }
    for (std::size_t i = 0; i < plan.slabs.pins.size(); ++i) {
        if (!plan.slabs.pins[i].empty()) continue;
        judge.add(Severity::note, "unpinned",
                  fmt::format("Slab {} has no room for two pins", plan.slabs.stack.slabs[i].number),
                  c.slabs.hollow ? "Leave more wall round the hollows, or line it up by its marks."
                                 : "Line it up by its engraved marks.");
        break;
    }
    const double deep = (plan.slabs.to_sand + plan.slabs.to_fill) / std::max(1e-9, plan.area);
    if (deep > 0.01 && !c.slabs.bevel)
        judge.add(Severity::note, "steps",
                  "Steps of " + quantity(Kind::thickness, deep) + " on average to work off",
                  "A tilted cut follows the wall and leaves about a quarter of that.",
                  Fix{"Bevel the edges", [] {
                          Json patch = Json::object();
                          patch["plug"]["slabs"]["bevel"] = true;
                          return patch;
                      }()});
}

void judge_block(Judge& judge, const Choices& c, const Plan& plan) {
    const auto& r = plan.block.reach;
    if (r.undercut > 1e-3 * plan.area)
        judge.add(Severity::caution, "undercut_block",
                  quantity(Kind::area, r.undercut) + " of the plug is undercut for a spindle along the pull",
                  "Turn the block for a second set-up, or cut those places by hand.");
    if (r.too_tight > 1e-3 * plan.area)
        judge.add(Severity::note, "tight",
                  quantity(Kind::area, r.too_tight) + " is tighter than the ball of " +
                      quantity(Kind::thickness, c.block.cutter),
                  "It stays rounded: pick it out with a smaller ball, or by hand.");
    if (r.too_deep > 1e-3 * plan.area)
        judge.add(
            Severity::caution, "deep_block",
            quantity(Kind::area, r.too_deep) + " is deeper than the cutter sticks out",
            "Its holder would meet the wall: a longer cutter, or the block in two layers.",
            Fix{"Let it stick out " + quantity(Kind::length, std::ceil(plan.block.reach.deepest * 100) / 100),
                [&] {
                    Json patch = Json::object();
                    patch["plug"]["block"]["stick_out"] =
                        std::min(1.0, std::ceil(plan.block.reach.deepest * 100) / 100);
                    return patch;
                }()});
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief, Family shell_resin) {
    Judge judge;
    for (const auto& plan : f.plans) {
        if (!plan.obstacle.empty())
            judge.add(Severity::stop, "obstacle", "This route cannot be taken: " + plan.obstacle,
                      "Mend that, or take another route.",
                      Fix{"Take a stack of slabs", route_patch(Route::slabs)});
        if (plan.route == Route::slabs) judge_slabs(judge, c, plan, brief);
        if (plan.route == Route::block) judge_block(judge, c, plan);
    }
    if (f.board.porous && c.barrier == Barrier::none)
        judge.add(Severity::stop, "porous", f.board.name + " is porous and has no barrier",
                  "Air comes through, release fails and the shell sticks; under vacuum it never seals.",
                  Fix{"Skin it with epoxy", patch_of("plug", "barrier", "epoxy")});
    if (f.crush_safety > 0 && f.crush_safety < 2)
        judge.add(f.crush_safety < 1 ? Severity::stop : Severity::caution, "crush",
                  fmt::format("The envelope bag crushes it: safety {:.2g}", f.crush_safety),
                  "One atmosphere from every side for hours, warm: a stiffer board, less vacuum, or a bag "
                  "sealed on the "
                  "flange.",
                  Fix{"Half the vacuum", patch_of("plug", "vacuum", 0.5 * c.vacuum)});
    if (f.wall_safety > 0 && f.wall_safety < 2)
        judge.add(f.wall_safety < 1 ? Severity::stop : Severity::caution, "wall",
                  fmt::format("The lid of the hollow breaks in under the bag: safety {:.2g}", f.wall_safety),
                  "Leave it solid, or let the hollow breathe through the base.",
                  Fix{"Leave it solid", [] {
                          Json patch = Json::object();
                          patch["plug"]["slabs"]["hollow"] = false;
                          return patch;
                      }()});
    // What the shell's resin does to the fillets and paint that every plug has; its board is judged in Shell.
    if (attack(Substance::clay, shell_resin) != Attack::stands)
        judge.add(
            Severity::note, "attack",
            "Under " + std::string(jig::said(shell_resin)) + " test primer, clay and tape on a patch first",
            "One-pack paint lifts, clay with sulphur stops the cure, tape softens; two-pack primer fully "
            "cured "
            "stands.");
    if (f.mass > brief.lift) {
        const int hands = static_cast<int>(std::ceil(f.mass / brief.lift));
        judge.add(hands > 4 ? Severity::caution : Severity::note, "lift",
                  fmt::format("Plug {}: {} people or a hoist to lift and turn it",
                              quantity(Kind::mass, f.mass), hands),
                  "Counted at " + quantity(Kind::mass, brief.lift) +
                      " for one person; plan the lift before the plug is glued.");
    }
    return std::move(judge.out);
}

}  // namespace jig::plug
