#include "core/stages/heat/walls.hpp"

#include <algorithm>
#include <cmath>

#include "core/shop/cure.hpp"
#include "core/stages/back/findings.hpp"

namespace jig::heat {
namespace {

constexpr double kStillAir = 8;   ///< W/(m²·K) behind a plug in its room, typical
constexpr double kFilled = 2600;  ///< kg/m³ of the mineral that fills coats and resins
constexpr double kNeat = 1250;    ///< kg/m³ of unfilled resin, the heaviest

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

/// A layer of resin with mineral in it, by its density.
WallLayer filled(std::string name, double thickness, double density) {
    WallLayer out;
    out.name = std::move(name);
    out.thickness = thickness;
    out.density = density;
    // Mineral takes the room that resin does not.
    const double mineral = mineral_in(density);
    out.conductivity = kResin * (1 + 2 * mineral) / std::max(0.1, 1 - mineral);
    out.capacity = 1100;
    out.resin_density = reacting(density);
    return out;
}

WallLayer paste(const Bonding& bond, double thickness) {
    constexpr double kThinBond = 2e-4;  // m, of what is pressed home
    auto out = filled(bond.name, std::max(kThinBond, thickness), bond.density);
    out.resin = kinetics_of(bond);
    return out;
}

/// W/(m·K), typical of structural grades.
double conducts(Metal metal) {
    return metal == Metal::steel ? 50 : 167;
}

/// s from one day's lay-up to the next.
constexpr double kOvernight = 16 * 3600.0;

}  // namespace

Seen wall_of(const StackSum& stack, const Resin& resin, const Lying& lying, const WallLibrary& shop) {
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
        const bool begins =
            i == lying.from || std::find(lying.starts.begin(), lying.starts.end(), i) != lying.starts.end();
        if (begins && last == Last::plies) last = Last::other;
        const double t = l.ply.thickness, rho = l.ply.material.density;
        if (t <= 0) continue;
        WallLayer w;
        w.thickness = t;
        w.density = rho;
        if (l.layer.solid) {
            w.name = of + ", " + l.name;
            w.conductivity = l.layer.solid->conductivity;
            w.capacity = l.layer.solid->heat_capacity;
            last = Last::other;
        } else if (l.layer.kind == LayerKind::ply) {
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
            w = filled(coat != nullptr ? coat->name : l.name, t, rho);
            // It is tacky, pass for pass, before the first ply comes; what beds a core on a go that has
            // hardened comes with it.
            const bool beds = coat == nullptr && lying.from > 0 && i >= lying.from;
            const auto k = coat != nullptr ? kinetics_of(*coat) : kinetics_of(resin);
            if (lying.fresh) {
                w.resin = k;
                w.cure = beds ? 0
                              : cure_after(k, lying.room,
                                           i < lying.from || coat == nullptr
                                               ? kOvernight
                                               : coat->passes * coat->between_passes);
            }
            last = Last::other;
        }
        out.push_back(std::move(w));
        seen.from.push_back(i);
    }
    return seen;
}

Wall on_plug(const Seen& go, const PlugUnder& plug, const Conditions& c) {
    const auto& b = plug.board;
    Wall out{{{"plug, " + b.name,
               std::max(1e-3, plug.path),
               b.conductivity,
               b.density,
               b.heat_capacity,
               {},
               0,
               0}},
             {WallSide{kStillAir, steady(c.room)}, WallSide{c.transfer, steady(c.room)}},
             c.room};
    out.layers.insert(out.layers.end(), go.layers.begin(), go.layers.end());
    return out;
}

Wall in_tool(const Seen& laid, const shell::Findings& shell, const Conditions& c, const WallLibrary& shop) {
    auto layers = wall_of(shell.stack, shell.resin, {"tool", false, c.room}, shop).layers;
    // The tool's own face lies under the part.
    std::reverse(layers.begin(), layers.end());
    layers.insert(layers.end(), laid.layers.begin(), laid.layers.end());
    const WallSide air{c.transfer, steady(c.room)};
    return {std::move(layers), {air, air}, c.room};
}

std::vector<BondedOn> bonded_on(const back::Choices& back, const std::vector<WallLayer>& shell,
                                const Resin& resin, LayUp how, const Conditions& c, const CureLibrary& shop) {
    std::vector<BondedOn> out;
    const auto lay = [&](const char* where, const char* of, const std::vector<Layer>& layers, LayUp so) {
        auto seen = wall_of(sum_stack(layers, resin, so, shop, "back"), resin, {of, true, c.room}, shop);
        // A prepreg gels at its own heat, wherever it lies.
        const double at = resin.in_cloth ? std::max(c.room, resin.gel_temperature) : c.room;
        out.push_back({where, std::move(seen.layers), c.transfer, resin.demould_time, at});
    };
    const auto plies = [](const std::string& cloth, int count) {
        return std::vector<Layer>(static_cast<std::size_t>(count), Layer{LayerKind::ply, cloth, 0, 0});
    };
    /// On a rib so `wide`, whose two sides lead heat away through `leads` W/K, thickness × conductivity each.
    const auto bed = [&](const char* where, double wide, double leads) {
        const auto& bond = need(shop.bonds, back.joint.paste, "back");
        if (!bond.sets()) return;
        double beside = 0;
        for (const auto& l : shell) beside += l.thickness * l.conductivity;
        const double flanks = 2 * c.transfer * back.joint.gap;
        const double fins = 2 * std::sqrt(c.transfer * beside) + 2 * std::sqrt(c.transfer * leads);
        out.push_back({where,
                       {paste(bond, back.joint.gap * wide / (back.joint.gap + wide))},
                       (flanks + fins) / wide,
                       bond.hardens,
                       std::max(c.room, bond.hardens_at)});
    };
    const bool hard = back.joint.bond == Bond::hard;
    if (back.kind == BackKind::sandwich) lay("", "inner skin", back::inner_layers(back.sandwich), how);
    if (back.kind == BackKind::egg_crate && hard) {
        const auto& board = need(shop.boards, back.board, "back");
        bed("under a rib", board.thickness, board.conductivity * board.thickness / 2);
    }
    if (back.kind == BackKind::foam_blocks) {
        const auto& foam = need(shop.boards, back.foam.board, "back");
        if (hard) bed("under a block", back.foam.wide, foam.conductivity * back.foam.wide / 2);
        lay("under the wrap", "wrap", plies(back.foam.cloth, back.foam.plies), LayUp::hand);
    }
    if (back.has_bars() && hard)
        bed("under a tube", back.tubes.size, conducts(back.tubes.metal) * back.tubes.wall);
    if (back.has_grid() && back.kind != BackKind::foam_blocks && back.joint.bond == Bond::soft)
        lay("under a tab", "tab", plies(back.joint.cloth, back.joint.plies), LayUp::hand);
    return out;
}

StackSum edge_of(const StackSum& stack) {
    auto out = stack;
    std::erase_if(out.laid, [](const auto& l) { return l.layer.kind == LayerKind::core; });
    return out;
}

Wall at_joint(const Seen& edge, const Bonding& bond, double gap, const shell::Findings* jig,
              const Conditions& c, const CureLibrary& shop) {
    std::vector<WallLayer> half;
    if (jig != nullptr) {
        half = wall_of(jig->stack, jig->resin, {"tool", false, c.room}, shop).layers;
        std::reverse(half.begin(), half.end());
    }
    half.insert(half.end(), edge.layers.begin(), edge.layers.end());
    auto layers = half;
    layers.push_back(paste(bond, gap));
    layers.insert(layers.end(), half.rbegin(), half.rend());
    const WallSide air{c.transfer, steady(c.room)};
    return {std::move(layers), {air, air}, c.room};
}

}  // namespace jig::heat
