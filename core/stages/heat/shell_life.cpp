// A shell's cures: on its plug, with its back, and standing free.
#include <algorithm>

#include "core/stages/heat/going.hpp"
#include "core/stages/heat/life.hpp"

namespace jig::heat {
namespace {

/// Of the goes that begin with these layers, rising, the one that lays most resin at once: it runs hottest.
Lying hottest_go(const StackSum& stack, std::vector<std::size_t> starts, double room) {
    starts.push_back(stack.laid.size());
    Lying out{"shell", true, room, starts.front(), stack.laid.size()};
    double most = -1;
    for (std::size_t go = 0; go + 1 < starts.size(); ++go) {
        double laid = 0;
        for (auto i = starts[go]; i < starts[go + 1]; ++i) laid += stack.laid[i].resin;
        if (laid <= most) continue;
        most = laid;
        out.from = starts[go];
        out.to = starts[go + 1];
    }
    return out;
}

/// Of the layers that lie on a plug in one go, what each of a whole stack's has come to there.
void go_on_from(const Seen& go, const Lying& lying, const WallHistory& h, const StackSum& stack,
                Seen& whole) {
    double plies = 1;
    for (const auto& gel : h.gels) {
        const auto i = go.from[gel.layer - 1];
        if (stack.laid[i].layer.kind == LayerKind::ply && i >= lying.from) plies = std::min(plies, gel.cure);
    }
    for (std::size_t l = 0; l < whole.layers.size(); ++l) {
        auto& layer = whole.layers[l];
        if (!layer.resin) continue;
        // Other days' plies as that day's.
        if (stack.laid[whole.from[l]].layer.kind == LayerKind::ply) layer.cure = plies;
        for (const auto& gel : h.gels) {
            if (go.from[gel.layer - 1] == whole.from[l]) layer.cure = gel.cure;
        }
    }
}

/// Where a shell lies otherwise than in common, the common stack first.
std::vector<Elsewhere> places_of(const shell::Findings& shell) {
    std::vector<Elsewhere> all;
    for (const auto& zone : shell.zones)
        all.push_back({"doubler " + zone.name, &zone.whole, &zone.days, all.size()});
    all = most_different(std::move(all), shell.stack);
    all.insert(all.begin(), Elsewhere{"", &shell.stack, nullptr, 0});
    return all;
}

std::optional<std::size_t> number_of(const std::vector<Elsewhere>& all, std::size_t i) {
    return i == 0 ? std::nullopt : std::optional(all[i].number);
}

Seen with(Seen seen, const std::vector<WallLayer>& more) {
    seen.layers.insert(seen.layers.end(), more.begin(), more.end());
    return seen;
}

/// The walls of a shell with its back on it: what of that lies all over belongs to the common wall, other
/// joints are places of their own.
std::vector<CurePlace> joined_walls(const ShellCured& shell, const std::vector<Elsewhere>& all,
                                    const auto& wall_with) {
    std::vector<CurePlace> out{{"", wall_with(with(shell.walls.front(), shell.skin)), {}, {}, 0}};
    for (std::size_t i = 1; i < all.size(); ++i)
        out.push_back({all[i].name, wall_with(shell.walls[i]), {}, number_of(all, i), 0});
    for (const auto& joint : shell.joints) {
        if (joint.where.empty()) continue;
        auto wall = wall_with(with(shell.walls.front(), joint.layers));
        wall.sides[1].transfer = joint.transfer;
        out.push_back({joint.where, std::move(wall), {}, kAtJoint, 0});
    }
    return out;
}

}  // namespace

CuredOnPlug cure_on_plug(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::on_plug>& legs,
                         const PlugMade& plug, const shell::Findings& shell, const CureLibrary& shop,
                         Progress& progress) {
    CuredOnPlug out;
    if (shell.stack.laid.empty() || is_solid(shell.stack)) return out;
    const Going going{air, ends, shop, progress};
    const auto all = places_of(shell);
    std::vector<std::size_t> starts{0};
    for (const auto end : shell.day_ends) starts.push_back(end + 1);
    std::vector<Lying> lying;
    std::vector<Seen> goes;
    CureWalls laid{CureOf::on_plug, false, {}};
    for (std::size_t i = 0; i < all.size(); ++i) {
        auto days = starts;
        if (i > 0) {
            // What goes on with the last day's plies, and on days of its own.
            days = {starts.back()};
            for (const auto first : *all[i].days) days.push_back(shell.stack.laid.size() + first);
        }
        lying.push_back(hottest_go(*all[i].stack, std::move(days), air.room));
        goes.push_back(wall_of(*all[i].stack, shell.resin, lying[i], shop));
        laid.walls.push_back({all[i].name, on_plug(goes[i], plug, air), {}, number_of(all, i), 0});
    }
    out.run = going.run(std::move(laid), legs.legs, legs_on_plug(air, shell.resin, shop));
    // From here on all of it goes on from what it has come to.
    for (std::size_t i = 0; i < all.size(); ++i) {
        out.walls.push_back(wall_of(*all[i].stack, shell.resin,
                                    {"shell", true, air.room, 0, all[i].stack->laid.size()}, shop));
        go_on_from(goes[i], lying[i], least_of(*out.run, number_of(all, i)), *all[i].stack, out.walls[i]);
    }
    return out;
}

CuredWithBack cure_with_back(const Conditions& air, const OvenEnds& ends,
                             const LegsOf<CureOf::with_back>& legs, const CuredOnPlug& before,
                             const PlugMade& plug, const shell::Choices& choices,
                             const shell::Findings& shell, const back::Choices& back, const CureLibrary& shop,
                             Progress& progress) {
    CuredWithBack out{before};
    out.run.reset();
    if (out.walls.empty()) return out;
    const Going going{air, ends, shop, progress};
    const auto all = places_of(shell);
    out.joints = bonded_on(back, out.walls.front().layers, shell.resin, choices.how, air, shop);
    if (out.joints.empty()) return out;
    if (out.joints.front().where.empty()) out.skin = out.joints.front().layers;
    double hardens = 0, at = 0;
    for (const auto& joint : out.joints) {
        hardens = std::max(hardens, joint.hardens);
        at = std::max(at, joint.at);
    }
    const auto lying_on = [&](const Seen& seen) { return on_plug(seen, plug, air); };
    out.run = going.run({CureOf::with_back, false, joined_walls(out, all, lying_on)}, legs.legs,
                        going.one_leg(at, hardens));
    for (auto& joint : out.joints) left_by_name(*out.run, joint.layers);
    left_by(least_of(*out.run, {}), 1 + out.walls.front().layers.size(), out.skin);
    for (std::size_t i = 0; i < all.size(); ++i)
        left_by(least_of(*out.run, number_of(all, i)), 1, out.walls[i].layers);
    return out;
}

CuredStanding cure_standing(const Conditions& air, const OvenEnds& ends,
                            const LegsOf<CureOf::post_cure>& legs, const CuredWithBack& before,
                            const shell::Choices& choices, const shell::Findings& shell,
                            const CureLibrary& shop, Progress& progress) {
    if (before.walls.empty()) return {};
    const Going going{air, ends, shop, progress};
    const auto usual = legs.legs.empty()
                           ? going.one_leg(choices.cure_temperature,
                                           need(shop.rates, "post-cure hold", "shop rates").value * 3600)
                           : legs.legs;
    if (std::none_of(usual.begin(), usual.end(), [&](const Leg& l) { return l.to > air.room + 1; }))
        return {};
    const auto free = [&](const Seen& seen) { return going.standing(seen.layers); };
    return {
        going.run({CureOf::post_cure, true, joined_walls(before, places_of(shell), free)}, legs.legs, usual)};
}

}  // namespace jig::heat
