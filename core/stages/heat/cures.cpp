#include "core/stages/heat/cures.hpp"

#include <algorithm>
#include <cmath>

#include "core/shop/cure.hpp"

namespace jig::heat {
namespace {

constexpr double kStillAir = 8;            ///< W/(m²·K) behind a plug in its room, typical
constexpr double kPatience = 48 * 3600.0;  ///< s that a hold waits for the slowest place
constexpr double kPartRamp = 20.0 / 3600;  ///< K/s up and down with a part in the tool, typical
constexpr double kFilled = 2600;           ///< kg/m³ of the mineral that fills coats and resins
constexpr double kNeat = 1250;             ///< kg/m³ of unfilled resin, the heaviest

/// W/(m·K) across a fibre (methods.md, typical material figures) and of resin.
double across(FibreKind fibre) {
    return fibre == FibreKind::carbon ? 1.5 : fibre == FibreKind::aramid ? 0.2 : 1.0;
}
constexpr double kResin = 0.2;

/// Through a ply, fibres lying across the heat's way (Halpin and Tsai 1969 with a shape of 1).
double through(FibreKind fibre, double share) {
    const double r = across(fibre) / kResin, eta = (r - 1) / (r + 1);
    return kResin * (1 + eta * share) / (1 - eta * share);
}

/// Share of a filled resin's or coat's room that mineral takes, by its density.
double mineral_in(double density) {
    return std::clamp((density - kNeat) / (kFilled - kNeat), 0.0, 0.9);
}

/// kg in a m³ of it that react.
double reacting(double density) {
    return (1 - mineral_in(density)) * std::min(density, kNeat);
}

double capacity(FibreKind fibre) {
    return fibre == FibreKind::carbon ? 750 : fibre == FibreKind::aramid ? 1400 : 800;
}
constexpr double kResinCapacity = 1200;

/// How a stack lies while it cures.
struct Lying {
    std::string of;
    bool fresh = true;          ///< whether it reacts at all
    double room = 293.15;       ///< K that coats have set at before plies came
    std::size_t from = 0;       ///< first layer of this go; what lies before it has cured overnight
    std::size_t to = 1u << 30;  ///< one past its last layer; what comes after is not there yet
};

/// s from one day's lay-up to the next.
constexpr double kOvernight = 16 * 3600.0;

/// A stack as heat sees it, and the layer of the stack that each of its layers begins with.
struct Seen {
    std::vector<WallLayer> layers;
    std::vector<std::size_t> from;
};

/// Neighbours of one kind and one go are one.
Seen wall_of(const StackSum& stack, const Resin& resin, const Lying& lying, const CureLibrary& shop) {
    const auto& of = lying.of;
    const double neat = reacting(resin.matrix.density) / resin.matrix.density;
    const auto cures = [&](const Kinetics& k,
                           std::size_t layer) -> std::pair<std::optional<Kinetics>, double> {
        if (!lying.fresh) return {std::nullopt, 0};
        return {k, layer < lying.from ? cure_after(k, lying.room, kOvernight) : 0};
    };
    Seen seen;
    auto& out = seen.layers;
    enum class Last { none, plies, other } last = Last::none;
    double resists = 0, heats = 0;
    for (std::size_t i = 0; i < std::min(stack.laid.size(), lying.to); ++i) {
        const auto& l = stack.laid[i];
        if (i == lying.from && last == Last::plies) last = Last::other;
        const double t = l.ply.thickness, rho = l.ply.material.density;
        if (t <= 0) continue;
        WallLayer w;
        w.thickness = t;
        w.density = rho;
        if (l.layer.kind == LayerKind::ply) {
            const auto* cloth = find(shop.reinforcements, l.layer.material);
            const auto fibre = cloth != nullptr ? cloth->fibre : FibreKind::glass;
            const double k = through(fibre, l.fibre_volume);
            const double c =
                l.mass() > 0 ? (l.fibre * capacity(fibre) + (l.mass() - l.fibre) * kResinCapacity) / l.mass()
                             : kResinCapacity;
            const double holds = l.resin / t * neat;
            if (last == Last::plies) {
                // In series with the plies before it.
                auto& whole = out.back();
                resists += t / k;
                heats += rho * c * t;
                whole.resin_density =
                    (whole.resin_density * whole.thickness + holds * t) / (whole.thickness + t);
                whole.density = (whole.density * whole.thickness + rho * t) / (whole.thickness + t);
                whole.thickness += t;
                whole.conductivity = whole.thickness / resists;
                whole.capacity = heats / (whole.density * whole.thickness);
                continue;
            }
            resists = t / k;
            heats = rho * c * t;
            w.name = of + ", laminate";
            w.conductivity = k;
            w.capacity = c;
            w.resin_density = holds;
            std::tie(w.resin, w.cure) = cures(kinetics_of(resin), i);
            last = Last::plies;
        } else if (l.layer.kind == LayerKind::core) {
            const auto& core = need(shop.cores, l.layer.material, "heat");
            w.name = core.name;
            w.conductivity = core.conductivity;
            w.capacity = core.heat_capacity;
            // A mat that drinks resin cures with it.
            if (l.resin > 0 && core.fills > 0) {
                w.resin_density = l.resin / t * neat;
                w.conductivity = kResin;
                std::tie(w.resin, w.cure) = cures(kinetics_of(resin), i);
            }
            last = Last::other;
        } else {
            const auto* coat = find(shop.surface_coats, l.layer.material);
            w.name = coat != nullptr ? coat->name : l.name;
            // Mineral takes the room that resin does not.
            const double mineral = mineral_in(rho);
            w.conductivity = kResin * (1 + 2 * mineral) / std::max(0.1, 1 - mineral);
            w.capacity = 1100;
            w.resin_density = reacting(rho);
            // It is tacky, pass for pass, before the first ply comes.
            const auto k = coat != nullptr ? kinetics_of(*coat) : kinetics_of(resin);
            if (lying.fresh) {
                w.resin = k;
                w.cure = cure_after(
                    k, lying.room,
                    i < lying.from || coat == nullptr ? kOvernight : coat->passes * coat->between_passes);
            }
            last = Last::other;
        }
        out.push_back(std::move(w));
        seen.from.push_back(i);
    }
    return seen;
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

/// The legs of a cure: the maker's, or the usual ones.
std::vector<Leg> legs_of(CureOf of, const Choices& c, const shell::Choices& shell_choices,
                         const shell::Findings& shell, const part::Choices& part_choices,
                         const part::Findings& part, const Lists<Rate>& shop) {
    const double ramp = need(shop.rates, "post-cure ramp", "shop rates").value / 3600;
    switch (of) {
        case CureOf::on_plug:
            if (!c.on_plug.empty()) return c.on_plug;
            // A prepreg has its heat on the plug; what is mixed gels in the room or where the maker says.
            return {{std::max(c.room, shell.resin.in_cloth ? shell.resin.gel_temperature
                                      : c.shell_gel > 0    ? c.shell_gel
                                                           : c.room),
                     ramp, shell.resin.demould_time}};
        case CureOf::post_cure:
            if (!c.post_cure.empty()) return c.post_cure;
            return {{std::max(c.room, shell_choices.cure_temperature), ramp,
                     need(shop.rates, "post-cure hold", "shop rates").value * 3600}};
        case CureOf::part:
            break;
    }
    if (!c.part.empty()) return c.part;
    return {{std::max(c.room, part_choices.gel_temperature), kPartRamp, part.resin.demould_time}};
}

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

}  // namespace

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
    const auto legs = [&](CureOf of) {
        return legs_of(of, c, shell_choices, shell, part_choices, part, shop);
    };
    const auto usual = [&](CureOf of) {
        return (of == CureOf::on_plug ? c.on_plug : of == CureOf::post_cure ? c.post_cure : c.part).empty();
    };
    const auto run = [&](CureOf of, Wall wall) -> const CureRun& {
        return out.runs.emplace_back(run_of(of, std::move(wall), legs(of), usual(of), c.within, progress));
    };
    const WallSide air{c.transfer, steady(c.room)};
    if (!shell.stack.laid.empty()) {
        const auto& b = plug.board;
        const auto lying = hottest_go(shell, c.room);
        const auto go = wall_of(shell.stack, shell.resin, lying, shop);
        Wall on_plug{{{"plug, " + b.name,
                       std::max(1e-3, plug.heat_path),
                       b.conductivity,
                       b.density,
                       b.heat_capacity,
                       {},
                       0,
                       0}},
                     {WallSide{kStillAir, steady(c.room)}, air},
                     c.room};
        auto& layers = on_plug.layers;
        layers.insert(layers.end(), go.layers.begin(), go.layers.end());
        const auto& first = run(CureOf::on_plug, std::move(on_plug));
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
    if (!laid.layers.empty()) {
        auto layers = wall_of(shell.stack, shell.resin, {"tool", false, c.room}, shop).layers;
        // The tool's own face lies under the part.
        std::reverse(layers.begin(), layers.end());
        layers.insert(layers.end(), laid.layers.begin(), laid.layers.end());
        run(CureOf::part, {std::move(layers), {air, air}, c.room});
    }
    return out;
}

}  // namespace jig::heat
