#include "core/stages/heat/one_go.hpp"

#include "core/stages/part/goes.hpp"

#include <algorithm>
#include <cmath>

namespace jig::heat {
namespace {

constexpr int kPoints = 13;  ///< of a curve

/// The plies of `seen` from the stack's layer `from` on, and what drinks resin with them, laid at once,
/// `before` layers of the wall in front of them.
LaidAtOnce at_once(Wall wall, const Seen& seen, const StackSum& stack, std::size_t from, std::size_t before,
                   CureOf of, const std::vector<Leg>& legs) {
    LaidAtOnce out;
    out.wall = std::move(wall);
    for (std::size_t i = 0; i < seen.layers.size(); ++i) {
        if (seen.from[i] >= from && seen.layers[i].resin &&
            stack.laid[seen.from[i]].layer.kind != LayerKind::surface_coat)
            out.layers.push_back(before + i);
    }
    out.programme = segments_of(legs, out.wall.start, 0);
    out.follow = follows(of);
    return out;
}

/// m of a stack's plies, and of what drinks resin with them, from one of its layers to before another.
double plies_of(const StackSum& stack, const Lists<Core>& shop, std::size_t from = 0,
                std::size_t to = static_cast<std::size_t>(-1)) {
    double out = 0;
    for (auto i = from; i < std::min(to, stack.laid.size()); ++i) {
        const auto& l = stack.laid[i];
        const bool drinks =
            l.layer.kind == LayerKind::core && need(shop.cores, l.layer.material, "heat").fills > 0;
        out += drinks || l.layer.kind == LayerKind::ply ? l.ply.thickness : 0;
    }
    return out;
}

void work_out(const LaidAtOnce& laid, double past, OneGo& out, Progress& progress) {
    out.air = laid.wall.start;
    for (const auto& s : laid.programme) {
        if (!s.hold) out.air = std::max(out.air, s.to);
    }
    out.limits.laid = out.air + past;
    if (laid.layers.empty()) return;
    out.laid = thickness_of(laid);
    out.curve = peaks_at(laid, thicknesses(), progress);
    out.whole = peak_at(laid, out.laid, progress);
    out.most = thickest(laid, out.curve, out.limits, progress);
    if (!out.most || *out.most >= kThickest) return;
    // More closely where it turns up.
    std::vector<double> about;
    for (const double times : {0.85, 0.95, 1.05, 1.15, 1.3}) {
        if (*out.most * times < kThickest) about.push_back(*out.most * times);
    }
    const auto more = peaks_at(laid, about, progress);
    out.curve.insert(out.curve.end(), more.begin(), more.end());
    std::sort(out.curve.begin(), out.curve.end(),
              [](const ThicknessPeak& a, const ThicknessPeak& b) { return a.thickness < b.thickness; });
}

}  // namespace

std::vector<double> thicknesses() {
    std::vector<double> out;
    for (int i = 0; i < kPoints; ++i)
        out.push_back(kThinnest * std::pow(kThickest / kThinnest, static_cast<double>(i) / (kPoints - 1)));
    return out;
}

ShellGo shell_go(const Conditions& c, const RunsPast& past, const PlugUnder& plug,
                 const shell::Choices& shell, const GoLibrary& shop, Progress& progress) {
    ShellGo out;
    if (is_solid(shell.layers)) return out;
    const auto& resin = need(shop.resins, shell.resin, "shell resin");
    auto stack = sum_stack(shell.layers, resin, shell.how, shop, "shell");
    const double common = plies_of(stack, shop);
    for (const auto& zone : shell.zones) {
        if (zone.layers.empty()) continue;
        auto layers = shell.layers;
        layers.insert(layers.end(), zone.layers.begin(), zone.layers.end());
        auto whole = sum_stack(layers, resin, shell.how, shop, "shell zone");
        if (plies_of(whole, shop) > std::max(common, plies_of(stack, shop))) stack = std::move(whole);
    }
    const auto seen = wall_of(stack, resin, {"shell", true, c.room, 0, stack.laid.size()}, shop);
    if (!plug.known) return out;
    out.under = plug.board.name;
    out.limits.under = plug.board.top_temperature;
    work_out(
        at_once(on_plug(seen, plug, c), seen, stack, 0, 1, CureOf::on_plug, legs_on_plug(c, resin, shop)),
        past.by, out, progress);
    return out;
}

PartGo part_go(const Conditions& c, const RunsPast& past, const shell::Findings& shell,
               const part::Choices& part_choices, const part::Findings& part, const GoLibrary& shop,
               Progress& progress) {
    PartGo out;
    // Of all goes in all places the one that lays most plies.
    const auto* stack = &part.stack;
    Lying lying{"part", true, c.room};
    std::size_t thickest = 0;
    double most = 0;
    for (const auto& region : part.regions) {
        for (std::size_t go = 0; go < part.goes.size(); ++go) {
            const auto from = part::first_of_go(region.goes, go), to = part::first_of_go(region.goes, go + 1);
            const double plies = plies_of(region.stack, shop, from, to);
            if (plies <= most + 1e-12) continue;
            most = plies;
            thickest = go;
            stack = &region.stack;
            lying.from = from;
            lying.to = to;
            lying.starts.clear();
            for (std::size_t g = 1; g < go; ++g) lying.starts.push_back(part::first_of_go(region.goes, g));
        }
    }
    const auto seen = wall_of(*stack, part.resin, lying, shop);
    out.under = "the tool";
    out.limits.under = shell.Tg > 0 ? shell.Tg : out.limits.under;
    const auto wall = in_tool(seen, shell, c, shop);
    const auto before = wall.layers.size() - seen.layers.size();
    work_out(at_once(wall, seen, *stack, lying.from, before, cure_of_go(thickest, part.goes.size()),
                     legs_of_part(c, part_choices.gel_temperature, part.resin)),
             past.by, out, progress);
    return out;
}

GoLimit go_limit(const OneGo& go, const Resin& resin) {
    const bool known = resin.origin_of("day_limit_m").kind != OriginKind::typical;
    const auto entry = [&] { return GoLimit{resin.day_limit, "it overheats, as its library entry says"}; };
    const auto past = std::find_if(go.curve.begin(), go.curve.end(),
                                   [&](const ThicknessPeak& p) { return go.most && p.thickness > *go.most; });
    if (past == go.curve.end() || (known && resin.day_limit < *go.most)) return entry();
    // What gives way first names itself.
    const bool under = past->under > go.limits.under && past->peak <= go.limits.laid;
    return {*go.most, "its own heat would take " + (under ? go.under : std::string("it")) + " past " +
                          quantity(Kind::temperature, under ? go.limits.under : go.limits.laid)};
}

}  // namespace jig::heat
