#include "core/stages/heat/cures.hpp"

#include <algorithm>
#include <cmath>

#include "core/stages/heat/walls.hpp"

namespace jig::heat {
namespace {

constexpr double kPatience = 48 * 3600.0;  ///< s that a hold waits for the slowest place
constexpr double kPartRamp = 20.0 / 3600;  ///< K/s up and down with a part in the tool, typical
/// The go that lays most at once: the one that runs hottest.
Lying hottest_go(const shell::Findings& shell, double room) {
    const auto whole = shell.stack.laid.size();
    Lying out{"shell", true, room, 0, whole};
    double most = -1;
    std::size_t from = 0;
    for (std::size_t day = 0; day <= shell.day_ends.size(); ++day) {
        const auto to = day < shell.day_ends.size() ? std::min(shell.day_ends[day] + 1, whole) : whole;
        double laid = 0;
        for (auto i = from; i < to; ++i) laid += shell.stack.laid[i].resin;
        if (laid > most) {
            most = laid;
            out.from = from;
            out.to = to;
        }
        from = to;
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

CureRun run_of(CureOf of, Wall wall, std::vector<Leg> legs, bool usual, double within, Progress& progress) {
    CureRun out;
    out.of = of;
    out.usual = usual;
    out.legs = std::move(legs);
    out.wall = std::move(wall);
    std::vector<std::size_t> watched;
    for (std::size_t l = 0; l < out.wall.layers.size(); ++l) {
        if (out.wall.layers[l].resin) watched.push_back(l);
    }
    const auto tried = [&](const std::vector<Leg>& with, bool waits) {
        return run_programme(out.wall, segments_of(with, out.wall.start, within), follows(of),
                             waits ? watched : std::vector<std::size_t>{}, waits ? kPatience : 0, progress);
    };
    out.cured = tried(out.legs, true);
    const auto& h = out.cured.history;
    out.seconds = out.cured.air.end();
    for (const auto& corner : out.cured.air.corners) out.highest_air = std::max(out.highest_air, corner.T);
    out.cure = 1;
    bool gelled = true;
    for (const auto& gel : h.gels) {
        out.overshoot = std::max(out.overshoot, gel.peak - out.highest_air);
        if (gel.Tg && (!out.Tg || *gel.Tg < *out.Tg)) out.Tg = gel.Tg;
        out.cure = std::min(out.cure, gel.cure);
        gelled = gelled && gel.all;
    }
    for (double times = 2; !gelled && !out.longer && times <= 64; times *= 2) {
        auto held = out.legs;
        for (auto& leg : held) leg.hold *= times;
        const auto longer = tried(held, true);
        if (std::all_of(longer.history.gels.begin(), longer.history.gels.end(),
                        [](const auto& gel) { return gel.all.has_value(); }))
            out.longer = times;
    }
    std::tie(out.over_Tg, out.over_time) = over_glass(h);
    // Standing free it must hold its own weight: slower, its Tg keeps ahead of the heat.
    if (of != CureOf::post_cure || out.over_Tg <= -kStandingMargin) return out;
    const auto under = [&](double rate) {
        auto slower = out.legs;
        for (auto& leg : slower) leg.rate = std::min(leg.rate, rate);
        return over_glass(tried(slower, false).history).first <= -kStandingMargin;
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
    return run_of(run.of, run.wall, std::move(legs), false, within, progress);
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
    const auto run = [&](CureOf of, Wall wall) -> const CureRun& {
        return out.runs.emplace_back(run_of(of, std::move(wall), legs(of), usual(of), c.within, progress));
    };
    const WallSide air{c.transfer, steady(c.room)};
    if (!shell.stack.laid.empty()) {
        const auto lying = hottest_go(shell, c.room);
        const auto go = wall_of(shell.stack, shell.resin, lying, shop);
        const auto& first = run(CureOf::on_plug, on_plug(go, {plug.board, plug.heat_path, true}, c));
        const auto post = legs(CureOf::post_cure);
        if (std::any_of(post.begin(), post.end(), [&](const Leg& l) { return l.to > c.room + 1; })) {
            // Off the plug all of it goes on from what it has come to there; other days' plies as that day's.
            auto whole =
                wall_of(shell.stack, shell.resin, {"shell", true, c.room, 0, shell.stack.laid.size()}, shop);
            double plies = 1;
            for (const auto& gel : first.cured.history.gels) {
                const auto i = go.from[gel.layer - 1];
                if (shell.stack.laid[i].layer.kind == LayerKind::ply && i >= lying.from)
                    plies = std::min(plies, gel.cure);
            }
            for (std::size_t l = 0; l < whole.layers.size(); ++l) {
                auto& layer = whole.layers[l];
                if (!layer.resin) continue;
                if (shell.stack.laid[whole.from[l]].layer.kind == LayerKind::ply) layer.cure = plies;
                for (const auto& gel : first.cured.history.gels) {
                    if (go.from[gel.layer - 1] == whole.from[l]) layer.cure = gel.cure;
                }
            }
            run(CureOf::post_cure, {whole.layers, {air, air}, c.room});
        }
    }
    const auto laid = wall_of(part.stack, part.resin, {"part", true, c.room}, shop);
    if (!laid.layers.empty()) run(CureOf::part, in_tool(laid, shell, c, shop));
    return out;
}

}  // namespace jig::heat
