#include "core/stages/heat/cures.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/stages/heat/walls.hpp"

namespace jig::heat {
namespace {

constexpr double kPatience = 48 * 3600.0;  ///< s that a hold waits for the slowest place
constexpr double kPartRamp = 20.0 / 3600;  ///< K/s up and down with a part in the tool, typical
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

/// How far a wall lies over its Tg once it has gelled, and when.
std::pair<double, double> over_glass(const WallHistory& h) {
    double most = -1000, when = 0;
    for (const auto& place : h.places) {
        if (place.Tg.empty()) continue;
        const auto gel =
            std::find_if(h.gels.begin(), h.gels.end(), [&](const auto& g) { return g.layer == place.layer; });
        if (gel == h.gels.end() || !gel->all) continue;
        for (std::size_t t = 0; t < h.times.size(); ++t) {
            if (h.times[t] < *gel->all || place.T[t] - place.Tg[t] <= most) continue;
            most = place.T[t] - place.Tg[t];
            when = h.times[t];
        }
    }
    return {most, when};
}

/// `walls` are the common one and the others with their names.
CureRun run_of(CureOf of, std::vector<CurePlace> walls, std::vector<Leg> legs, bool usual, double within,
               Progress& progress) {
    CureRun out;
    out.of = of;
    out.usual = usual;
    out.legs = std::move(legs);
    std::vector<InOven> in_oven;
    for (const auto& place : walls) {
        std::vector<std::size_t> watched;
        for (std::size_t l = 0; l < place.wall.layers.size(); ++l) {
            if (place.wall.layers[l].resin) watched.push_back(l);
        }
        in_oven.push_back({place.wall, std::move(watched), place.off});
    }
    const auto tried = [&](const std::vector<Leg>& with, bool waits) {
        return run_programme(in_oven, segments_of(with, walls.front().wall.start, within), follows(of),
                             waits ? kPatience : 0, progress);
    };
    auto together = tried(out.legs, true);
    out.wall = std::move(walls.front().wall);
    out.cured = {std::move(together.air), std::move(together.histories.front()), together.waited};
    for (std::size_t i = 1; i < walls.size(); ++i) {
        walls[i].history = std::move(together.histories[i]);
        out.places.push_back(std::move(walls[i]));
    }
    if (together.slowest && *together.slowest > 0) out.slowest = out.places[*together.slowest - 1].name;
    out.seconds = out.cured.air.end();
    for (const auto& corner : out.cured.air.corners) out.highest_air = std::max(out.highest_air, corner.T);
    out.warmest_air = out.highest_air;
    const auto runs_past = [&](const WallHistory& h, double off) {
        const double air = out.hottest_air(off);
        out.warmest_air = std::max(out.warmest_air, air);
        for (const auto& gel : h.gels) out.overshoot = std::max(out.overshoot, gel.peak - air);
    };
    runs_past(out.cured.history, 0);
    for (const auto& p : out.places) runs_past(p.history, p.off);
    out.cure = 1;
    bool gelled = true;
    double hottest = 0;
    out.each([&](const std::string& name, const Wall&, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (gel.Tg && (!out.Tg || *gel.Tg < *out.Tg)) out.Tg = gel.Tg;
            out.cure = std::min(out.cure, gel.cure);
            gelled = gelled && gel.all;
        }
        if (h.peak > hottest + 0.05) {
            hottest = h.peak;
            out.hottest = name;
        }
        const auto [over, when] = over_glass(h);
        if (over <= out.over_Tg) return;
        out.over_Tg = over;
        out.over_time = when;
        out.over_where = name;
    });
    const auto all_gelled = [](const CuredTogether& c) {
        return std::all_of(c.histories.begin(), c.histories.end(), [](const WallHistory& h) {
            return std::all_of(h.gels.begin(), h.gels.end(),
                               [](const auto& gel) { return gel.all.has_value(); });
        });
    };
    for (double times = 2; !gelled && !out.longer && times <= 64; times *= 2) {
        auto held = out.legs;
        for (auto& leg : held) leg.hold *= times;
        if (all_gelled(tried(held, true))) out.longer = times;
    }
    // Standing free it must hold its own weight: slower, its Tg keeps ahead of the heat.
    if (of != CureOf::post_cure || out.over_Tg <= -kStandingMargin) return out;
    const auto under = [&](double rate) {
        auto slower = out.legs;
        for (auto& leg : slower) leg.rate = std::min(leg.rate, rate);
        const auto all = tried(slower, false).histories;
        return std::all_of(all.begin(), all.end(),
                           [](const WallHistory& h) { return over_glass(h).first <= -kStandingMargin; });
    };
    double low = 0.5 / 3600, high = 0;
    for (const auto& leg : out.legs) high = std::max(high, leg.rate);
    if (high <= low || !under(low)) return out;
    for (int i = 0; i < 7; ++i) {
        const double middle = std::sqrt(low * high);
        (under(middle) ? low : high) = middle;
    }
    out.safe_rate = low;
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

}  // namespace

std::vector<Leg> legs_on_plug(const Choices& c, const Resin& resin, const Lists<Rate>& shop) {
    if (!c.on_plug.empty()) return c.on_plug;
    // A prepreg has its heat on the plug; what is mixed gels in the room or where the maker says.
    const double wanted = resin.in_cloth ? resin.gel_temperature : c.shell_gel;
    return {{std::max(c.room, wanted), need(shop.rates, "post-cure ramp", "shop rates").value / 3600,
             resin.demould_time}};
}

std::vector<Leg> legs_of_part(const Choices& c, double gels_at, const Resin& resin) {
    if (!c.part.empty()) return c.part;
    return {{std::max(c.room, gels_at), kPartRamp, resin.demould_time}};
}

OvenEnds ends_of(const Oven& oven, double room) {
    constexpr double kReadWarm = 10;  // K over the room, less of which says nothing of a hot oven
    OvenEnds out;
    if (oven.map.empty()) return out;
    const double by = oven.mapped_at - room;
    if (by < kReadWarm)
        throw InputError("heat",
                         "the oven's map was read at " + quantity(Kind::temperature, oven.mapped_at) +
                             ", hardly warmer than the room",
                         "say what it was set to while it was read, or read it hot");
    for (const auto& spot : oven.map) {
        out.cool = std::min(out.cool, spot.off / by);
        out.warm = std::max(out.warm, spot.off / by);
    }
    return out;
}

std::vector<Segment> segments_of(const std::vector<Leg>& legs, double room, double within) {
    std::vector<Segment> out;
    for (const auto& leg : legs) {
        out.push_back({false, leg.to, leg.rate, 0, {}});
        Segment hold;
        hold.hold = true;
        hold.seconds = leg.hold;
        hold.within = within;
        if (leg.hold > 0) out.push_back(hold);
    }
    // And back to the room, as fast as it last went.
    out.push_back({false, room, legs.empty() ? kPartRamp : legs.back().rate, 0, {}});
    return out;
}

CureRun through(const CureRun& run, std::vector<Leg> legs, double within, Progress& progress) {
    std::vector<CurePlace> walls{{"", run.wall, {}, {}}};
    for (const auto& p : run.places) walls.push_back({p.name, p.wall, {}, p.of, p.off});
    return run_of(run.of, std::move(walls), std::move(legs), false, within, progress);
}

const CureRun* Cures::find(CureOf of) const {
    for (const auto& run : runs) {
        if (run.of == of) return &run;
    }
    return nullptr;
}

Cures cures(const Choices& c, const plug::Findings& plug, const shell::Choices& shell_choices,
            const shell::Findings& shell, const part::Choices& part_choices, const part::Findings& part,
            const CureLibrary& shop, Progress& progress) {
    Cures out;
    out.runs.reserve(3);
    const auto legs = [&](CureOf of) -> std::vector<Leg> {
        if (of == CureOf::on_plug) return legs_on_plug(c, shell.resin, shop);
        if (of == CureOf::part) return legs_of_part(c, part_choices.gel_temperature, part.resin);
        if (!c.post_cure.empty()) return c.post_cure;
        return {{std::max(c.room, shell_choices.cure_temperature),
                 need(shop.rates, "post-cure ramp", "shop rates").value / 3600,
                 need(shop.rates, "post-cure hold", "shop rates").value * 3600}};
    };
    const auto usual = [&](CureOf of) {
        return (of == CureOf::on_plug ? c.on_plug : of == CureOf::post_cure ? c.post_cure : c.part).empty();
    };
    const auto ends = ends_of(c.oven, c.room);
    const auto run = [&](CureOf of, std::vector<CurePlace> walls) -> const CureRun& {
        // In the room both ends are as warm as it is; what is found sooner and warmer finds them there.
        return out.runs.emplace_back(
            run_of(of, at_ends(std::move(walls), ends), legs(of), usual(of), c.within, progress));
    };
    const WallSide air{c.transfer, steady(c.room)};
    if (!shell.stack.laid.empty() && !is_solid(shell.stack)) {
        std::vector<Elsewhere> doublers;
        for (const auto& zone : shell.zones)
            doublers.push_back({"doubler " + zone.name, &zone.whole, &zone.days, doublers.size()});
        doublers = most_different(std::move(doublers), shell.stack);
        std::vector<std::size_t> starts{0};
        for (const auto end : shell.day_ends) starts.push_back(end + 1);
        std::vector<Lying> lying{hottest_go(shell.stack, starts, c.room)};
        for (const auto& d : doublers) {
            // What goes on with the last day's plies, and on days of its own.
            std::vector<std::size_t> own{starts.back()};
            for (const auto first : *d.days) own.push_back(shell.stack.laid.size() + first);
            lying.push_back(hottest_go(*d.stack, own, c.room));
        }
        std::vector<Seen> goes;
        std::vector<CurePlace> walls;
        for (std::size_t i = 0; i < lying.size(); ++i) {
            goes.push_back(
                wall_of(i == 0 ? shell.stack : *doublers[i - 1].stack, shell.resin, lying[i], shop));
            walls.push_back({i == 0 ? std::string() : doublers[i - 1].name,
                             on_plug(goes.back(), {plug.board, plug.heat_path, true}, c),
                             {},
                             i == 0 ? std::nullopt : std::optional(doublers[i - 1].number)});
        }
        const auto& first = run(CureOf::on_plug, std::move(walls));
        const auto post = legs(CureOf::post_cure);
        if (std::any_of(post.begin(), post.end(), [&](const Leg& l) { return l.to > c.room + 1; })) {
            // Off the plug all of it goes on from what it has come to there.
            std::vector<CurePlace> free;
            const auto stand = [&](const std::string& name, std::optional<std::size_t> number,
                                   const StackSum& stack, const Seen& go, const Lying& laid_so) {
                auto whole = wall_of(stack, shell.resin, {"shell", true, c.room, 0, stack.laid.size()}, shop);
                go_on_from(go, laid_so, least_of(first, number), stack, whole);
                free.push_back({name, {std::move(whole.layers), {air, air}, c.room}, {}, number});
            };
            stand("", {}, shell.stack, goes.front(), lying.front());
            for (std::size_t i = 0; i < doublers.size(); ++i)
                stand(doublers[i].name, doublers[i].number, *doublers[i].stack, goes[i + 1], lying[i + 1]);
            run(CureOf::post_cure, std::move(free));
        }
    }
    const auto laid = wall_of(part.stack, part.resin, {"part", true, c.room}, shop);
    if (!laid.layers.empty()) {
        std::vector<Elsewhere> zones;
        for (std::size_t number = 0; number < part.regions.size(); ++number) {
            const auto& region = part.regions[number];
            if (region.zones == 0 || region.area <= 0) continue;
            std::string name;
            for (std::size_t z = 0; z < part_choices.zones.size(); ++z) {
                if ((region.zones >> z & 1u) != 0)
                    name += (name.empty() ? "" : " and ") + part_choices.zones[z].name;
            }
            zones.push_back({"part, " + name, &region.stack, nullptr, number});
        }
        std::vector<CurePlace> walls{{"", in_tool(laid, shell, c, shop), {}, {}}};
        for (const auto& z : most_different(std::move(zones), part.stack)) {
            const auto seen = wall_of(*z.stack, part.resin, {"part", true, c.room}, shop);
            if (!seen.layers.empty()) walls.push_back({z.name, in_tool(seen, shell, c, shop), {}, z.number});
        }
        run(CureOf::part, std::move(walls));
    }
    return out;
}

}  // namespace jig::heat
