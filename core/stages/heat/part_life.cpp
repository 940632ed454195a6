// A part's cures: in its tool go by go, joined, and by itself.
#include <algorithm>
#include <map>

#include "core/stages/heat/going.hpp"
#include "core/stages/heat/life.hpp"
#include "core/stages/part/goes.hpp"

namespace jig::heat {
namespace {

/// All goes between the first and the last go by one programme: of the last two runs the one that runs hotter
/// is what is shown of them.
void keep_hotter(std::vector<CureRun>& runs) {
    auto newer = std::move(runs.back());
    runs.pop_back();
    auto& kept = runs.back();
    newer.times += kept.times;
    if (newer.overshoot > kept.overshoot)
        kept = std::move(newer);
    else
        kept.times = newer.times;
}

/// A stack of a part as it is laid go by go in one place, and how far each layer of its wall has come.
class PartWall {
  public:
    PartWall(const StackSum& stack, const std::vector<std::size_t>& goes) : stack_(stack), goes_(goes) {}
    /// What lies there by the end of that go, as those before it have left it; without a layer where nothing
    /// does.
    [[nodiscard]] Seen by(std::size_t go, const Resin& resin, const Going& going) const {
        Lying lying{"part", true, going.in.room, part::first_of_go(goes_, go),
                    part::first_of_go(goes_, go + 1)};
        for (std::size_t g = 1; g < go; ++g) lying.starts.push_back(part::first_of_go(goes_, g));
        auto out = wall_of(stack_, resin, lying, going.shop);
        for (std::size_t l = 0; l < out.layers.size(); ++l) {
            const auto known = came_to_.find(out.from[l]);
            if (known != came_to_.end() && out.layers[l].resin) out.layers[l].cure = known->second;
        }
        return out;
    }
    /// After that go, which it went through as `seen`, behind so many layers of the tool.
    void went(const Seen& seen, std::size_t before, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (gel.layer >= before) came_to_[seen.from.at(gel.layer - before)] = gel.cure;
        }
    }

  private:
    const StackSum& stack_;
    const std::vector<std::size_t>& goes_;
    std::map<std::size_t, double> came_to_;  ///< by the stack's layer with which a wall's begins
};

/// Where a part's zones lie instead of its common stack.
std::vector<Elsewhere> zones_of(const part::Choices& choices, const part::Findings& part) {
    std::vector<Elsewhere> zones;
    for (std::size_t number = 0; number < part.regions.size(); ++number) {
        const auto& region = part.regions[number];
        if (region.zones == 0 || region.area <= 0) continue;
        std::string name;
        for (std::size_t z = 0; z < choices.zones.size(); ++z) {
            if ((region.zones >> z & 1u) != 0) name += (name.empty() ? "" : " and ") + choices.zones[z].name;
        }
        zones.push_back({"part, " + name, &region.stack, nullptr, number});
    }
    return most_different(std::move(zones), part.stack);
}

Seen whole(const StackSum& stack, const part::Findings& part, const Going& going) {
    return wall_of(stack, part.resin, {"part", true, going.in.room}, going.shop);
}

}  // namespace

CuredInTool cure_in_tool(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::part_first>& first,
                         const LegsOf<CureOf::part_next>& next, const LegsOf<CureOf::part>& last,
                         const shell::Findings& shell, const part::Choices& choices,
                         const part::Findings& part, const CureLibrary& shop, Progress& progress) {
    CuredInTool out;
    const Going going{air, ends, shop, progress};
    if (whole(part.stack, part, going).layers.empty()) return out;
    const auto zones = zones_of(choices, part);
    std::vector<std::size_t> common;
    for (std::size_t i = 0; i < part.stack.laid.size(); ++i) common.push_back(part::go_of(choices, {-1, i}));
    std::vector<PartWall> walls{{part.stack, common}};
    for (const auto& z : zones) walls.emplace_back(*z.stack, part.regions[z.number].goes);
    const auto tool = in_tool({}, shell, air, shop).layers.size();
    const auto usual = legs_of_part(air, choices.gel_temperature, part.resin);
    const auto count = part.goes.size();
    for (std::size_t go = 0; go < count; ++go) {
        const auto of = cure_of_go(go, count);
        CureWalls in{of, false, {}};
        std::vector<std::pair<std::size_t, Seen>> there;
        const auto number = [&](std::size_t w) {
            return w == 0 ? std::nullopt : std::optional(zones[w - 1].number);
        };
        for (std::size_t w = 0; w < walls.size(); ++w) {
            auto wall = walls[w].by(go, part.resin, going);
            // The common wall stands for all of it, whatever lies there by then.
            if (w > 0 && wall.layers.empty()) continue;
            in.walls.push_back(
                {w == 0 ? "" : zones[w - 1].name, in_tool(wall, shell, air, shop), {}, number(w), 0});
            there.push_back({w, std::move(wall)});
        }
        const auto& legs = of == CureOf::part_first  ? first.legs
                           : of == CureOf::part_next ? next.legs
                                                     : last.legs;
        out.runs.push_back(going.run(std::move(in), legs, usual));
        for (const auto& [w, wall] : there) walls[w].went(wall, tool, least_of(out.runs.back(), number(w)));
        if (of == CureOf::part_next && go > 1) keep_hotter(out.runs);
    }
    return out;
}

CuredJoined cure_joined(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::joined>& legs,
                        const CuredInTool& before, const brief::Jig& brief, const shell::Findings& shell,
                        const part::Choices& choices, const part::Findings& part, const CureLibrary& shop,
                        Progress& progress) {
    if (before.runs.empty() || choices.joint.kind == JointKind::none) return {};
    const Going going{air, ends, shop, progress};
    const auto& bond = need(shop.bonds, choices.joint.adhesive, "part");
    auto edge = whole(edge_of(part.stack), part, going);
    left_by_name(before.runs.back(), edge.layers);
    if (!bond.sets() || edge.layers.empty()) return {};
    CuredJoined out;
    const bool in_jig = brief.assembly_jig;
    out.joint = at_joint(edge, bond, choices.joint.gap, in_jig ? &shell : nullptr, air, shop);
    out.run = going.run({CureOf::joined, !in_jig, {{"", *out.joint, {}, {}, 0}}}, legs.legs,
                        going.one_leg(bond.hardens_at, bond.hardens));
    left_by(least_of(*out.run, {}), 0, out.joint->layers);
    return out;
}

CuredFree cure_free(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::part_free>& legs,
                    const CuredInTool& in_tool, const CuredJoined& joined, const brief::Jig& brief,
                    const part::Choices& choices, const part::Findings& part, const CureLibrary& shop,
                    Progress& progress) {
    // By itself it is cured where the maker says so: no resin has a usual one.
    if (in_tool.runs.empty() || legs.legs.empty()) return {};
    const Going going{air, ends, shop, progress};
    CureWalls free{CureOf::part_free, true, {}};
    const auto stand = [&](const std::string& name, std::vector<WallLayer> layers,
                           std::optional<std::size_t> number) {
        left_by_name(in_tool.runs.back(), layers);
        if (joined.run) left_by_name(*joined.run, layers);
        free.walls.push_back({name, going.standing(std::move(layers)), {}, number, 0});
    };
    stand("", whole(part.stack, part, going).layers, {});
    for (const auto& z : zones_of(choices, part)) {
        auto there = whole(*z.stack, part, going);
        if (!there.layers.empty()) stand(z.name, std::move(there.layers), z.number);
    }
    if (joined.joint && !brief.assembly_jig)
        free.walls.push_back({"at the joint", *joined.joint, {}, kAtJoint, 0});
    return {going.run(std::move(free), legs.legs, {})};
}

Cures cures(const CuredOnPlug& on_plug, const CuredWithBack& with_back, const CuredStanding& standing,
            const CuredInTool& in_tool, const CuredJoined& joined, const CuredFree& free) {
    Cures out;
    const auto add = [&](const std::optional<CureRun>& run) {
        if (run) out.runs.push_back(*run);
    };
    add(on_plug.run);
    add(with_back.run);
    add(standing.run);
    out.runs.insert(out.runs.end(), in_tool.runs.begin(), in_tool.runs.end());
    add(joined.run);
    add(free.run);
    return out;
}

}  // namespace jig::heat
