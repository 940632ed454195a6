#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/heat/findings.hpp"

namespace jig::heat {

namespace {

/// The plug's mean heat where what lies on it gels: it warms from its faces for as long as the gel takes, so
/// a thick insulator stays near its room inside. Nothing is cooler than the room it stands in.
double plug_warmth(double room, const plug::Findings& plug, double gel, double seconds) {
    const auto& b = plug.board;
    const double spread = b.conductivity / (b.density * b.heat_capacity);
    return room + warmed_share(spread * seconds / (plug.heat_path * plug.heat_path)) * (gel - room);
}

/// What a cure comes to, in lines of its own.
void figures_of(const CureRun& run, const Oven& oven, std::vector<Figure>& out) {
    const std::string key = "cure_" + std::string(file_word(run.of)), name(said(run.of));
    out.push_back(
        {key + "_hours", name + ", in all", Kind::duration, run.seconds,
         std::string(run.usual ? "the usual programme of resin and rates" : "your programme") +
             ", holds counted from when the slowest place" +
             (run.slowest.empty() ? "" : " (" + run.slowest + ")") + " is near, and back to the room" +
             (run.times > 1 ? fmt::format("; there are {} of them, and this one runs hottest", run.times)
                            : std::string())});
    std::optional<double> first, all;
    double peak = 0, when = 0, set_free = 0;
    run.each([&](const std::string&, const Wall& wall, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (wall.layers[gel.layer].cure >= wall.layers[gel.layer].resin->gel) continue;
            if (gel.first && (!first || *gel.first < *first)) first = gel.first;
            if (gel.all) all = std::max(all.value_or(0), *gel.all);
        }
        if (h.peak <= peak) return;
        peak = h.peak;
        when = h.peak_time;
        set_free = h.reaction;
    });
    if (all)
        out.push_back({key + "_gel", name + ", gelled all through after", Kind::duration, *all,
                       "its first place after " + quantity(Kind::duration, first.value_or(*all)) +
                           "; typical kinetics of the family brought to the resin's own gel time"});
    const auto ends = run.highest_air <= run.wall.start + kWarm ? std::string()
                      : oven.map.empty()
                          ? " (the oven has no map: at either end)"
                          : ", " + quantity(Kind::temperature, run.warmest_air) + " at the oven's warm end";
    out.push_back({key + "_peak", name + ", hottest", Kind::temperature, peak,
                   "after " + quantity(Kind::duration, when) +
                       (run.hottest.empty() ? "" : ", " + run.hottest) + "; the air is " +
                       quantity(Kind::temperature, run.highest_air) + " at most" + ends +
                       ", and the resin sets " + fmt::format("{:.0f} kJ/m² free", set_free / 1000)});
    out.push_back(
        {key + "_cure", name + ", cured to", Kind::ratio, run.cure,
         "the least of all that reacts, at the end" +
             (run.Tg ? "; its Tg is then " + quantity(Kind::temperature, *run.Tg) : std::string())});
}

/// How thick it may be laid at once.
void figure_of(const OneGo& go, const char* key, const char* name, std::vector<Figure>& out) {
    if (go.curve.empty()) return;
    const auto limits =
        quantity(Kind::temperature, go.limits.laid) + " in its plies" +
        (go.limits.under < 1000 ? " and " + quantity(Kind::temperature, go.limits.under) + " in " + go.under
                                : std::string());
    out.push_back({key, name, Kind::thickness, go.most.value_or(0),
                   go.most ? (*go.most >= kThickest ? "no thickness up to that is hotter than "
                                                    : "thicker than that, its own heat brings more than ") +
                                 limits + "; all of its " + quantity(Kind::thickness, go.laid) +
                                 " of plies laid alike, typical kinetics"
                           : "even the thinnest is hotter than " + limits + ": its air is too warm"});
}

}  // namespace

Findings evaluate(const Choices& c, const brief::Limits& brief, const shape::Findings& shape,
                  const plug::Choices& routes, const plug::Findings& plug, const shell::Findings& shell,
                  const part::Choices& part_choices, const part::Findings& part, const Cures& cures,
                  const ShellGo& shell_go, const PartGo& part_go, const FaceFolds& folds,
                  const FoldZones& fold_zones, const Library& shop) {
    Findings out;
    out.shell_go = shell_go;
    out.part_go = part_go;
    out.cures = std::make_shared<const Cures>(cures);
    out.length = std::max(shape.measures.size.x(), shape.measures.size.y());
    const auto mean = [](const Laminate& l) { return (l.cte[0] + l.cte[1]) / 2; };
    out.chain.room = c.room;
    out.chain.plug_alpha = plug.board.alpha;
    out.chain.shell_gel = std::max(c.room, c.shell_gel > 0 ? c.shell_gel : shell.resin.gel_temperature);
    out.chain.shell_alpha = mean(shell.stack.laminate);
    out.chain.shell_cure_shrinkage = shell.stack.cure.in_plane;
    out.chain.part_gel = std::max(c.room, part_choices.gel_temperature);
    out.chain.part_alpha = mean(part.stack.laminate);
    out.chain.part_cure_shrinkage = part.stack.cure.in_plane;
    out.chain.plug_warmth = plug_warmth(c.room, plug, out.chain.shell_gel, shell.resin.gel_time);
    const auto splash = std::find_if(plug.plans.begin(), plug.plans.end(),
                                     [](const plug::Plan& p) { return p.route == Route::splash; });
    if (splash != plug.plans.end()) {
        const auto& plaster = need(shop.resins, "laminating plaster", "splash");
        const auto& foam = need(shop.boards, routes.board, "splash");
        out.chain.splash = {plaster.matrix.alpha, std::max(c.room, plaster.gel_temperature),
                            routes.splash.shrink};
        out.chain.plug_alpha = foam.alpha;
        out.chain.plug_warmth = c.room;  // the master is soft foam, and plaster gels in minutes
    }
    const bool direct = plug::no_plug(routes);
    if (direct) {
        // Cut in the room at its own size: nothing is taken off anything before the part is.
        out.chain.plug_alpha = out.chain.shell_cure_shrinkage = 0;
        out.chain.shell_gel = out.chain.plug_warmth = c.room;
        out.chain.splash.reset();
    }
    out.sizes = grow(out.chain);
    out.part_error = ((1 + out.sizes.part_room) * c.plug_scale - 1) * out.length;
    out.plug_scale = 1 / (1 + out.sizes.part_room);
    // What the programmes make of it; of a resin without a glass transition, what the library says.
    const auto brought = [&](CureOf of, double otherwise) {
        const auto* run = cures.find(of);
        return run != nullptr ? run->Tg.value_or(otherwise) : otherwise;
    };
    out.part_Tg = brought(CureOf::part_free, brought(CureOf::part, part.resin.Tg));
    out.Tg = brought(CureOf::post_cure, brought(CureOf::with_back, brought(CureOf::on_plug, shell.Tg)));
    out.Tg_margin = out.Tg - brief.top_temperature;
    const auto& pl = part.stack.laminate;
    out.spring_in = spring_in(c.corner, out.chain.part_alpha, pl.cte_through, -part.stack.cure.in_plane,
                              -part.stack.cure.through, c.room - out.chain.part_gel);
    out.folds = folds_use(folds, fold_zones, out.chain, part_choices, part);
    // Opened once is opened enough: the tool turns as it is drawn.
    for (std::size_t i = 0; c.opened && i < out.folds.all.size(); ++i)
        out.folds.all[i].build = (*folds.folds)[i].turn;
    const auto um = [](double a) { return quantity(Kind::expansion, a); };
    out.figures = {
        {"tool_room", direct ? "tool as it is cut, in the room" : "tool against plug, in the room",
         Kind::thickness, out.sizes.tool_room * out.length,
         direct ? std::string("it is cut itself: no plug and no shell stand before it")
                : fmt::format("plug grown by {} × {:.0f} K of its mean where {} gels{}, shell shrinks {:.3f} "
                              "% in cure and "
                              "{} × {:.0f} K on cooling, over {}",
                              um(out.chain.plug_alpha), out.chain.plug_warmth - c.room,
                              out.chain.splash ? "the splash" : "the shell",
                              out.chain.splash
                                  ? fmt::format(", the splash shrinks {:.2f} %", 100 * routes.splash.shrink)
                                  : std::string(),
                              100 * out.chain.shell_cure_shrinkage, um(out.chain.shell_alpha),
                              out.chain.shell_gel - c.room, quantity(Kind::length, out.length))},
        {"tool_hot", "tool where the part gels", Kind::thickness, out.sizes.tool_hot * out.length,
         fmt::format("and grown by {} × {:.0f} K", um(out.chain.shell_alpha), out.chain.part_gel - c.room)},
        {"part_error", "part against drawing", Kind::thickness, out.part_error,
         fmt::format("the part takes the tool's size at {}, shrinks {:.3f} % in cure and {} × {:.0f} K on "
                     "cooling; the {} is cut at "
                     "{:.3f} % of size",
                     quantity(Kind::temperature, out.chain.part_gel), 100 * out.chain.part_cure_shrinkage,
                     um(out.chain.part_alpha), out.chain.part_gel - c.room, direct ? "mould" : "plug",
                     100 * c.plug_scale)},
        {"plug_scale", "scale that brings it right", Kind::scale, out.plug_scale,
         "1 ÷ (1 + the part's relative error)"},
        {"spring_in", "a square corner closes by", Kind::angle, out.spring_in,
         fmt::format("θ·[(αl − αt)·ΔT/(1 + αt·ΔT) + (φl − φt)/(1 + φt)], αl {}, αt {}",
                     um(out.chain.part_alpha), um(pl.cte_through))},
        {"Tg", direct ? "what the tool bears" : "the tool's Tg", Kind::temperature, out.Tg,
         direct
             ? shell.Tg_reason
             : "the lowest of its resin and coats after its last programme below, by DiBenedetto; by rule of "
               "thumb " +
                   shell.Tg_reason},
        {"part_Tg", "the part's Tg", Kind::temperature, out.part_Tg,
         "after its last programme below; its resin can come to " +
             quantity(Kind::temperature, part.resin.Tg)},
        {"Tg_margin", direct ? "margin under that" : "margin under Tg", Kind::warming, out.Tg_margin,
         std::string(direct ? "that" : "Tg") + " less the top temperature " +
             quantity(Kind::temperature, brief.top_temperature)}};
    if (const auto* joined = cures.find(CureOf::joined)) {
        const auto& adhesive = part_choices.joint.adhesive;
        const auto* free = cures.find(CureOf::part_free);
        const auto later = free != nullptr ? free->Tg_of(adhesive) : std::nullopt;
        if (const auto Tg = later ? later : joined->Tg_of(adhesive))
            out.figures.push_back({"joint_Tg", "the joint's Tg", Kind::temperature, *Tg,
                                   adhesive + ", after the last programme below that it is in"});
    }
    fold_figures(c, out.folds, out.figures);
    for (const auto& run : cures.runs) figures_of(run, c.oven, out.figures);
    figure_of(shell_go, "go_shell", "shell, at most in one go", out.figures);
    figure_of(part_go, "go_part", "part, at most in one go", out.figures);
    return out;
}

Findings with_oven(Findings f, const Choices& c, const OvenUse& oven) {
    oven_figures(c, oven, f.figures);
    f.oven = oven;
    return f;
}

}  // namespace jig::heat
