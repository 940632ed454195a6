// Which cures a job has, in the order of its tool's life and then its part's.
#include <algorithm>
#include <cmath>
#include <map>

#include "core/stages/heat/cures.hpp"
#include "core/stages/part/goes.hpp"

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

/// The common wall, and every wall in the oven's cool and warm end in place of where it may stand between.
std::vector<CurePlace> at_ends(std::vector<CurePlace> walls, const OvenEnds& ends) {
    if (ends.cool >= 0 && ends.warm <= 0) return walls;
    std::vector<CurePlace> out{walls.front()};
    for (auto& place : walls) {
        // The end first: what is cut short in a table is told apart by it.
        const auto of = place.name.empty() ? " of the oven" : ", " + place.name;
        for (const bool warm : {false, true}) {
            out.push_back(place);
            out.back().name = (warm ? "warm end" : "cool end") + of;
            out.back().off = warm ? ends.warm : ends.cool;
        }
    }
    return out;
}

/// What a doubler, or the common wall, has come to where it was least warm.
const WallHistory& least_of(const CureRun& run, std::optional<std::size_t> of) {
    for (const auto& p : run.places) {
        if (p.of == of) return p.history;
    }
    return run.cured.history;
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

/// Layers that were `before` others in a wall, as that wall has left them.
void left_by(const WallHistory& h, std::size_t before, std::vector<WallLayer>& layers) {
    for (const auto& gel : h.gels) {
        if (gel.layer >= before && gel.layer - before < layers.size())
            layers[gel.layer - before].cure = gel.cure;
    }
}

/// Layers of a part as a cure of it has left those of their name, where they are least cured.
void left_by_name(const CureRun& run, std::vector<WallLayer>& layers) {
    for (auto& layer : layers) {
        std::optional<double> least;
        run.each([&](const std::string&, const Wall& wall, const WallHistory& h) {
            for (const auto& gel : h.gels) {
                if (wall.layers[gel.layer].name == layer.name) least = std::min(least.value_or(1), gel.cure);
            }
        });
        if (layer.resin && least) layer.cure = *least;
    }
}

double thickness_of(const StackSum& stack) {
    double out = 0;
    for (const auto& l : stack.laid) out += l.ply.thickness;
    return out;
}

/// A stack that lies somewhere instead of the common one.
struct Elsewhere {
    std::string name;
    const StackSum* stack = nullptr;
    const std::vector<std::size_t>* days = nullptr;  ///< of a doubler, see shell::ZoneSum
    std::size_t number = 0;                          ///< in its list
};

/// Those that differ most from `common` in thickness, each name once.
std::vector<Elsewhere> most_different(std::vector<Elsewhere> all, const StackSum& common) {
    std::map<std::string, int> alike;
    for (auto& e : all) {
        const int number = ++alike[e.name];
        if (number > 1) e.name += " " + std::to_string(number);
    }
    const double usual = thickness_of(common);
    std::stable_sort(all.begin(), all.end(), [&](const Elsewhere& a, const Elsewhere& b) {
        return std::abs(thickness_of(*a.stack) - usual) > std::abs(thickness_of(*b.stack) - usual);
    });
    if (all.size() > kMostPlaces) all.resize(kMostPlaces);
    return all;
}

/// Cures in their order, each with the maker's legs or its usual ones.
class Life {
  public:
    Life(const Choices& c, const CureLibrary& shop, Progress& progress)
        : c_(c), shop_(shop), ends_(ends_of(c.oven, c.room)), progress_(progress) {
        // What is said of one holds while others are added, one that is not kept among them.
        out_.runs.reserve(Words<CureOf>::all.size() + 1);
    }

    const CureRun& run(CureWalls cure, const std::vector<Leg>& usual) {
        const auto& own = legs_in(c_, cure.of);
        // In the room both ends are as warm as it is; what is found sooner and warmer finds them there.
        cure.walls = at_ends(std::move(cure.walls), ends_);
        return out_.runs.emplace_back(
            run_of(std::move(cure), own.empty() ? usual : own, own.empty(), c_.within, progress_));
    }

    /// All goes between the first and the last go by one programme: of the last two runs the one that runs
    /// hotter is what is shown of them.
    void keep_hotter() {
        auto newer = std::move(out_.runs.back());
        out_.runs.pop_back();
        auto& kept = out_.runs.back();
        newer.times += kept.times;
        if (newer.overshoot > kept.overshoot)
            kept = std::move(newer);
        else
            kept.times = newer.times;
    }

    /// One leg: to that heat, as fast as the shop goes, and so long there.
    [[nodiscard]] std::vector<Leg> one_leg(double T, double hold) const {
        return {{std::max(c_.room, T), need(shop_.rates, "post-cure ramp", "shop rates").value / 3600, hold}};
    }

    void shell(const shell::Choices& choices, const shell::Findings& shell, const plug::Findings& plug,
               const back::Choices& back);
    void part(const part::Choices& choices, const part::Findings& part, const shell::Findings& shell,
              bool in_jig);
    Cures done() { return std::move(out_); }

  private:
    class PartWall;
    [[nodiscard]] WallSide air() const { return {c_.transfer, steady(c_.room)}; }
    const Choices& c_;
    const CureLibrary& shop_;
    OvenEnds ends_;
    Progress& progress_;
    Cures out_;
};

void Life::shell(const shell::Choices& choices, const shell::Findings& shell, const plug::Findings& plug,
                 const back::Choices& back) {
    if (shell.stack.laid.empty() || is_solid(shell.stack)) return;
    std::vector<Elsewhere> all;
    for (const auto& zone : shell.zones)
        all.push_back({"doubler " + zone.name, &zone.whole, &zone.days, all.size()});
    all = most_different(std::move(all), shell.stack);
    all.insert(all.begin(), Elsewhere{"", &shell.stack, nullptr, 0});
    const auto number = [&](std::size_t i) { return i == 0 ? std::nullopt : std::optional(all[i].number); };
    std::vector<std::size_t> starts{0};
    for (const auto end : shell.day_ends) starts.push_back(end + 1);
    const PlugUnder under{plug.board, plug.heat_path, true};
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
        lying.push_back(hottest_go(*all[i].stack, std::move(days), c_.room));
        goes.push_back(wall_of(*all[i].stack, shell.resin, lying[i], shop_));
        laid.walls.push_back({all[i].name, on_plug(goes[i], under, c_), {}, number(i), 0});
    }
    const auto& first = run(std::move(laid), legs_on_plug(c_, shell.resin, shop_));
    // From here on all of it goes on from what it has come to.
    std::vector<Seen> whole;
    for (std::size_t i = 0; i < all.size(); ++i) {
        whole.push_back(wall_of(*all[i].stack, shell.resin,
                                {"shell", true, c_.room, 0, all[i].stack->laid.size()}, shop_));
        go_on_from(goes[i], lying[i], least_of(first, number(i)), *all[i].stack, whole[i]);
    }
    auto bonded = bonded_on(back, whole.front().layers, shell.resin, choices.how, c_, shop_);
    // What lies all over it belongs to the common wall, other joints are places of their own.
    std::vector<WallLayer> skin;
    if (!bonded.empty() && bonded.front().where.empty()) skin = bonded.front().layers;
    const auto with = [](Seen seen, const std::vector<WallLayer>& more) {
        seen.layers.insert(seen.layers.end(), more.begin(), more.end());
        return seen;
    };
    const auto at_joints = [&](CureWalls& cure, const auto& wall_with) {
        for (const auto& joint : bonded) {
            if (joint.where.empty()) continue;
            auto wall = wall_with(with(whole.front(), joint.layers));
            wall.sides[1].transfer = joint.transfer;
            cure.walls.push_back({joint.where, std::move(wall), {}, kAtJoint, 0});
        }
    };
    if (!bonded.empty()) {
        const auto lying_on = [&](const Seen& seen) { return on_plug(seen, under, c_); };
        CureWalls joining{CureOf::with_back, false, {{"", lying_on(with(whole.front(), skin)), {}, {}, 0}}};
        for (std::size_t i = 1; i < all.size(); ++i)
            joining.walls.push_back({all[i].name, lying_on(whole[i]), {}, number(i), 0});
        at_joints(joining, lying_on);
        double hardens = 0, at = 0;
        for (const auto& joint : bonded) {
            hardens = std::max(hardens, joint.hardens);
            at = std::max(at, joint.at);
        }
        const auto& second = run(std::move(joining), one_leg(at, hardens));
        for (auto& joint : bonded) left_by_name(second, joint.layers);
        left_by(least_of(second, {}), 1 + whole.front().layers.size(), skin);
        for (std::size_t i = 0; i < all.size(); ++i) left_by(least_of(second, number(i)), 1, whole[i].layers);
    }
    auto post = c_.post_cure;
    if (post.empty())
        post =
            one_leg(choices.cure_temperature, need(shop_.rates, "post-cure hold", "shop rates").value * 3600);
    if (std::none_of(post.begin(), post.end(), [&](const Leg& l) { return l.to > c_.room + 1; })) return;
    const auto standing = [&](Seen seen) { return Wall{std::move(seen.layers), {air(), air()}, c_.room}; };
    CureWalls free{CureOf::post_cure, true, {{"", standing(with(whole.front(), skin)), {}, {}, 0}}};
    for (std::size_t i = 1; i < all.size(); ++i)
        free.walls.push_back({all[i].name, standing(whole[i]), {}, number(i), 0});
    at_joints(free, standing);
    run(std::move(free), post);
}

/// A stack of a part as it is laid go by go in one place, and how far each layer of its wall has come.
class Life::PartWall {
  public:
    PartWall(const StackSum& stack, const std::vector<std::size_t>& goes) : stack_(stack), goes_(goes) {}
    /// What lies there by the end of that go, as those before it have left it; without a layer where nothing
    /// does.
    [[nodiscard]] Seen by(std::size_t go, const Resin& resin, const Life& life) const {
        Lying lying{"part", true, life.c_.room, part::first_of_go(goes_, go),
                    part::first_of_go(goes_, go + 1)};
        for (std::size_t g = 1; g < go; ++g) lying.starts.push_back(part::first_of_go(goes_, g));
        auto out = wall_of(stack_, resin, lying, life.shop_);
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

void Life::part(const part::Choices& choices, const part::Findings& part, const shell::Findings& shell,
                bool in_jig) {
    const auto seen = [&](const StackSum& stack) {
        return wall_of(stack, part.resin, {"part", true, c_.room}, shop_);
    };
    const auto laid = seen(part.stack);
    if (laid.layers.empty()) return;
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
    zones = most_different(std::move(zones), part.stack);
    std::vector<std::size_t> common;
    for (std::size_t i = 0; i < part.stack.laid.size(); ++i) common.push_back(part::go_of(choices, {-1, i}));
    std::vector<PartWall> walls{{part.stack, common}};
    for (const auto& z : zones) walls.emplace_back(*z.stack, part.regions[z.number].goes);
    const auto tool = in_tool({}, shell, c_, shop_).layers.size();
    const CureRun* last = nullptr;
    const auto legs = legs_of_part(c_, choices.gel_temperature, part.resin);
    const auto count = part.goes.size();
    for (std::size_t go = 0; go < count; ++go) {
        const auto of = cure_of_go(go, count);
        CureWalls in{of, false, {}};
        std::vector<std::pair<std::size_t, Seen>> there;
        for (std::size_t w = 0; w < walls.size(); ++w) {
            auto wall = walls[w].by(go, part.resin, *this);
            // The common wall stands for all of it, whatever lies there by then.
            if (w > 0 && wall.layers.empty()) continue;
            in.walls.push_back({w == 0 ? "" : zones[w - 1].name,
                                in_tool(wall, shell, c_, shop_),
                                {},
                                w == 0 ? std::nullopt : std::optional(zones[w - 1].number),
                                0});
            there.push_back({w, std::move(wall)});
        }
        const auto& now = run(std::move(in), legs);
        for (const auto& [w, wall] : there)
            walls[w].went(wall, tool,
                          least_of(now, w == 0 ? std::nullopt : std::optional(zones[w - 1].number)));
        if (of == CureOf::part_next && go > 1) keep_hotter();
        last = &out_.runs.back();
    }
    std::optional<Wall> joint;
    if (choices.joint.kind != JointKind::none) {
        const auto& bond = need(shop_.bonds, choices.joint.adhesive, "part");
        auto edge = seen(edge_of(part.stack));
        left_by_name(*last, edge.layers);
        if (bond.sets() && !edge.layers.empty()) {
            joint = at_joint(edge, bond, choices.joint.gap, in_jig ? &shell : nullptr, c_, shop_);
            last = &run({CureOf::joined, !in_jig, {{"", *joint, {}, {}, 0}}},
                        one_leg(bond.hardens_at, bond.hardens));
            left_by(least_of(*last, {}), 0, joint->layers);
        }
    }
    // By itself it is cured where the maker says so: no resin has a usual one.
    if (c_.part_free.empty()) return;
    CureWalls free{CureOf::part_free, true, {}};
    const auto stand = [&](const std::string& name, std::vector<WallLayer> layers,
                           std::optional<std::size_t> number) {
        left_by_name(*out_.find(CureOf::part), layers);
        left_by_name(*last, layers);
        free.walls.push_back({name, {std::move(layers), {air(), air()}, c_.room}, {}, number, 0});
    };
    stand("", laid.layers, {});
    for (const auto& z : zones) {
        auto there = seen(*z.stack);
        if (!there.layers.empty()) stand(z.name, std::move(there.layers), z.number);
    }
    if (joint && !in_jig) free.walls.push_back({"at the joint", *joint, {}, kAtJoint, 0});
    run(std::move(free), {});
}

}  // namespace

Cures cures(const Choices& c, const brief::Jig& brief, const plug::Findings& plug,
            const shell::Choices& shell_choices, const shell::Findings& shell, const back::Choices& back,
            const part::Choices& part_choices, const part::Findings& part, const CureLibrary& shop,
            Progress& progress) {
    Life life(c, shop, progress);
    life.shell(shell_choices, shell, plug, back);
    life.part(part_choices, part, shell, brief.assembly_jig);
    return life.done();
}

}  // namespace jig::heat
