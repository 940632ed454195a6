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

/// What the cutter does not reach of a `what`, whose cutting stands under /plug/`key`.
void judge_reach(Judge& judge, const Block& cut, const char* what, const char* key, const Plan& plan) {
    const auto& r = plan.block.reach;
    if (r.undercut > 1e-3 * plan.area)
        judge.add(Severity::caution, "undercut_block",
                  quantity(Kind::area, r.undercut) + " of the " + what +
                      " is undercut for a spindle along the pull",
                  "Turn the block for a second set-up, or cut those places by hand.");
    if (r.too_tight > 1e-3 * plan.area)
        judge.add(Severity::note, "tight",
                  quantity(Kind::area, r.too_tight) + " is tighter than the ball of " +
                      quantity(Kind::thickness, cut.cutter),
                  "It stays rounded: pick it out with a smaller ball, or by hand.");
    if (r.too_deep > 1e-3 * plan.area) {
        const double longer = std::min(1.0, std::ceil(r.deepest * 100) / 100);
        Json patch = Json::object();
        (key == std::string_view("block") ? patch["plug"]["block"]
                                          : patch["plug"][key]["mill"])["stick_out"] = longer;
        judge.add(Severity::caution, "deep_block",
                  quantity(Kind::area, r.too_deep) + " is deeper than the cutter sticks out",
                  "Its holder would meet the wall: a longer cutter, or the block in two layers.",
                  Fix{"Let it stick out " + quantity(Kind::length, longer), patch});
    }
}

/// m³/s that a cutter clears at most of a stock before it chatters or clogs, and the least that is worth a
/// day: typical of a shop's own router.
std::pair<double, double> pace_of(const Board& stock) {
    if (!stock.is_metal()) return {2e-5, 1.5e-6};
    return stock.E > 1.5e11 ? std::pair{4e-7, 5e-8} : std::pair{2.5e-6, 2e-7};
}

/// A mould that is made itself.
void judge_direct(Judge& judge, const Choices& c, const Findings& f, const brief::Choices& brief) {
    const auto& stock = f.board;
    const bool milled = c.direct.way == MouldWay::milled;
    if (f.pulls > 0 && brief.pulls > f.pulls)
        judge.add(Severity::caution, "life",
                  fmt::format("{} pulls asked of a mould that lasts about {}", brief.pulls, f.pulls),
                  "Typical of " + stock.name +
                      fmt::format(", looked after: plan {:.0f} moulds, or metal.",
                                  std::ceil(static_cast<double>(brief.pulls) / f.pulls)));
    if (!milled) return;
    for (const auto& plan : f.plans) {
        judge_reach(judge, c.direct.mill, "mould", "direct", plan);
        if (plan.block.layers > 1)
            judge.add(Severity::note, "seams",
                      fmt::format("The {} is {} {} deep: {} through its face",
                                  f.plans.size() > 1 ? "block of " + plan.body : "block", plan.block.layers,
                                  stock.is_metal() ? "plates" : "boards",
                                  plan.block.layers > 2 ? fmt::format("{} seams run", plan.block.layers - 1)
                                                        : std::string("a seam runs")),
                      stock.is_metal()
                          ? "Bolted seams leak air and show on the part: seal them from behind, or buy a "
                            "thicker plate or a casting."
                          : "Their glue is harder than the board and stands up when it is sanded.");
    }
    const double pace = c.direct.mill.feed * c.direct.mill.rough_deep * c.direct.mill.rough_wide;
    const auto [most, least] = pace_of(stock);
    if (pace <= most && pace >= least) return;
    const auto own = stock.is_metal() ? metal_cut(stock.E > 1.5e11) : Block{};
    Json patch = Json::object();
    auto& mill = patch["plug"]["direct"]["mill"];
    mill["feed"] = own.feed;
    mill["rough_deep"] = own.rough_deep;
    mill["rough_wide"] = own.rough_wide;
    judge.add(pace > most ? Severity::caution : Severity::note, "pace",
              fmt::format("Roughing clears {:.3g} cm³ a minute of {}", pace * 6e7, stock.name),
              pace > most
                  ? fmt::format("More than about {:.3g} chatters, clogs or breaks the cutter of a shop's "
                                "own router; a milling machine may bear it.",
                                most * 6e7)
                  : "That is the pace of a harder stock: this one may be cut much faster.",
              Fix{"Cut it as its kind is usually cut", patch});
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
        if (plan.route == Route::block) judge_reach(judge, c.block, "plug", "block", plan);
    }
    if (no_plug(c)) {
        judge_direct(judge, c, f, brief);
        return std::move(judge.out);
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
