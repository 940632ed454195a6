#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/heat/calmed.hpp"
#include "core/stages/heat/fastest.hpp"
#include "core/stages/heat/oven_box.hpp"

namespace jig::heat {

namespace {

constexpr double kMeans = 5;  ///< K

/// Something that is warmed with the tool or on it, and what it bears.
struct Bears {
    std::string name, key;
    double top = 0;
};

/// The highest limits first is no help: each that gives way is named.
void judge_cure(Calls& out, const std::string& cure, double hot, const std::vector<Bears>& all) {
    for (const auto& b : all) {
        if (hot <= b.top + 0.5) continue;
        out.push_back(
            {Stage::heat,
             hot > b.top + 15 ? Severity::stop : Severity::caution,
             b.key,
             b.name + " keeps its shape to " + quantity(Kind::temperature, b.top) + "; " + cure + " at " +
                 quantity(Kind::temperature, hot),
             "Everything that is in the cure is warmed through: a cooler cure, a material that bears it, or "
             "fit it afterwards. The data sheet has the last word.",
             {}});
    }
}

/// What the back is made of and bonded with.
std::vector<Bears> in_the_back(const back::Choices& b, const std::string& key, const Library& shop) {
    std::vector<Bears> out;
    const auto board = [&](const std::string& name) {
        const auto& e = need(shop.boards, name, "back");
        out.push_back({e.name, key, e.top_temperature});
    };
    if (b.kind == BackKind::none) return out;
    if (b.kind == BackKind::egg_crate) board(b.board);
    if (b.kind == BackKind::foam_blocks) board(b.foam.board);
    if (b.kind == BackKind::sandwich) {
        const auto& core = need(shop.cores, b.sandwich.core, "back");
        out.push_back({core.name, key, core.top_temperature});
        return out;
    }
    const auto& bond = need(shop.bonds, b.joint.bond == Bond::hard ? b.joint.paste : b.joint.strip, "back");
    out.push_back({bond.name, key, bond.top_temperature});
    return out;
}

std::vector<Bears> cores_of(const std::vector<Layer>& layers, const std::string& key, const Library& shop) {
    std::vector<Bears> out;
    for (const auto& l : layers) {
        if (l.kind != LayerKind::core) continue;
        const auto& core = need(shop.cores, l.material, key);
        if (std::none_of(out.begin(), out.end(), [&](const Bears& b) { return b.name == core.name; }))
            out.push_back({core.name, key, core.top_temperature});
    }
    return out;
}

/// K that the plug under a shell comes to; 0 of a cure without it.
double plug_heat(const CureRun& run) {
    double out = 0;
    if (!lies_on_plug(run.of)) return out;
    run.each([&](const std::string&, const Wall&, const WallHistory& h) {
        out = std::max(out, h.hottest.front().T);
    });
    return out;
}

/// What a programme does that it should not.
void judge_run(const Choices& c, const CureRun& run, const plug::Findings& plug, Calls& out) {
    const std::string name(said(run.of));
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::heat, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const auto by_legs = [&](std::string label, const std::vector<Leg>& legs) {
        return Fix{std::move(label),
                   patch_of("heat", std::string(file_word(run.of)).c_str(), to_json_value(legs))};
    };
    const auto with_legs = [&](std::string label, const auto& change) {
        auto legs = run.legs;
        for (auto& leg : legs) change(leg);
        return by_legs(std::move(label), legs);
    };
    const double plug_bears = plug.board.top_temperature;
    const Good calm = [&](const CureRun& r) {
        // Nor may a hold wait in vain that did not before.
        return r.overshoot <= c.runs_past && plug_heat(r) <= plug_bears &&
               (r.cured.waited || !run.cured.waited);
    };
    Progress quiet;
    // Once, for the place and the layer that is least cured.
    std::string raw;
    double least = 2;
    run.each([&](const std::string& where, const Wall& wall, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (gel.all || gel.cure >= least) continue;
            least = gel.cure;
            raw = wall.layers[gel.layer].name + (where.empty() ? "" : " (" + where + ")");
        }
    });
    if (!raw.empty())
        add(Severity::stop, "not_gelled", raw + " has not gelled when the programme ends (" + name + ")",
            fmt::format(
                "It is cured to {:.0f} % by then: warmer or longer. Typical kinetics; the data sheet has the "
                "last word.",
                100 * least),
            run.longer ? std::optional(with_legs(fmt::format("Hold {:g} times as long", *run.longer),
                                                 [&](Leg& leg) { leg.hold *= *run.longer; }))
                       : std::nullopt);
    // Goes are parted by a mean stack: what that hides is let pass.
    if (run.overshoot > c.runs_past + kMeans) {
        const auto legs = gelled_first(run, c.within, calm, quiet);
        add(Severity::caution, "runs_hot",
            "The resin runs " + quantity(Kind::warming, run.overshoot) + " past the hottest air (" + name +
                (run.hottest.empty() ? "" : ", " + run.hottest) + ")",
            std::string("Its own heat does not get out of this wall in time: ") +
                (legs ? "hold cooler until it has gelled, lay it in more goes"
                      : "lay it in more goes (no cooler hold before it would do)") +
                ", or take a slower hardener.",
            legs ? std::optional(by_legs("Hold at " + quantity(Kind::temperature, legs->front().to) +
                                             " for " + quantity(Kind::hours, legs->front().hold) + " first",
                                         *legs))
                 : std::nullopt);
    }
    if (const double hottest = plug_heat(run); hottest > plug_bears + 0.5) {
        const auto legs = held_cooler(run, c.within, calm, quiet);
        double top = 0;
        std::string longer;
        for (std::size_t i = 0; legs && i < legs->size(); ++i) {
            top = std::max(top, (*legs)[i].to);
            if ((*legs)[i].hold > run.legs[i].hold) longer = ", held longer";
        }
        add(Severity::stop, "plug_cooked",
            plug.board.name + " comes to " + quantity(Kind::temperature, hottest) + " under the shell (" +
                name + "); it stands " + quantity(Kind::temperature, plug_bears),
            "It softens while the shell is still soft, and the shape goes with it: cooler, thinner goes, or "
            "a board that bears it.",
            legs ? std::optional(
                       by_legs("Go no hotter than " + quantity(Kind::temperature, top) + longer, *legs))
                 : std::nullopt);
    }
    if (run.free && run.over_Tg > -kStandingMargin) {
        const std::string what = of_part(run.of) ? "the part" : "the shell";
        const auto it = run.over_where.empty() ? what : what + " (" + run.over_where + ")";
        std::optional<Fix> fix;
        if (run.safe_rate)
            fix = with_legs("Go no faster than " + quantity(Kind::heating, *run.safe_rate),
                            [&](Leg& leg) { leg.rate = std::min(leg.rate, *run.safe_rate); });
        add(run.over_Tg > 0 ? Severity::stop : Severity::caution, "sags",
            run.over_Tg > 0
                ? "Standing free, " + it + " is " + quantity(Kind::warming, run.over_Tg) +
                      " over its Tg after " + quantity(Kind::duration, run.over_time)
                : "Standing free, " + it + " comes within " + quantity(Kind::warming, -run.over_Tg) +
                      " of its Tg after " + quantity(Kind::duration, run.over_time),
            run.safe_rate ? "It sags and keeps that shape. At " + quantity(Kind::heating, *run.safe_rate) +
                                " its Tg stays ahead of the heat."
                          : "It sags and keeps that shape: first cure it longer " +
                                std::string(of_part(run.of) ? "in the tool" : "on the plug") +
                                ", or stop on the way and hold.",
            std::move(fix));
    }
    if (!run.cured.waited) {
        // Where the oven's own cool end is what never comes near, the band has to take it in.
        const double under = run.highest_air - run.hottest_air(ends_of(c.oven, c.room).cool);
        const auto* cool = under > c.within ? coolest(c.oven) : nullptr;
        const double band = std::ceil(under + 2);
        add(Severity::caution, "never_near",
            "The slowest place never comes within " + quantity(Kind::warming, c.within) + " of the air (" +
                name + ")",
            cool != nullptr
                ? "The oven's cool end (" + said_of(*cool) + ") stays " + quantity(Kind::warming, under) +
                      " under what it is set to. After two days the hold was counted all the same: more air "
                      "through that end, or a band that takes it in, and a hold that suits it."
                : "After two days the hold was counted all the same: more air about it, or a wider band.",
            cool != nullptr && band <= 100
                ? std::optional(Fix{"Let holds count within " + quantity(Kind::warming, band),
                                    patch_of("heat", "within", band)})
                : std::nullopt);
    }
}

}  // namespace

CureBounds bounds_of(const CureRun& run, const Choices& c, const Findings& f, const Warmed& with) {
    CureBounds out;
    out.climbs = c.climbs;
    out.within = c.within;
    out.overshoot = c.runs_past;
    // What an oven of this trade comes to.
    out.air = 453.15;
    out.air_by = "the oven";
    if (f.oven.holds && *f.oven.holds < out.air) {
        // With a quarter left to climb by.
        out.air = c.room + 0.75 * (*f.oven.holds - c.room);
        out.air_by = "what the oven's heater holds";
    }
    // The warm end is what has to bear it.
    const double warm = ends_of(c.oven, c.room).warm;
    const auto bears = [&](double borne, const std::string& what) {
        const double top = c.room + (borne - c.room) / (1 + warm);
        if (top >= out.air) return;
        out.air = top;
        out.air_by = what;
    };
    const auto bear_all = [&](const std::vector<Bears>& all) {
        for (const auto& b : all) bears(b.top, b.name);
    };
    const bool with_tool = !run.free || !of_part(run.of);
    if (with_tool) bear_all(cores_of(with.shell_choices.layers, "core_hot", with.shop));
    if (with_tool && run.of != CureOf::on_plug) bear_all(in_the_back(with.back, "back_hot", with.shop));
    if (of_part(run.of)) bear_all(cores_of(part::all_layers(with.part), "part_core_hot", with.shop));
    double gels = 0, full = 0;
    run.each([&](const std::string&, const Wall& wall, const WallHistory&) {
        for (const auto& layer : wall.layers) {
            if (!layer.resin) continue;
            gels = std::max(gels, layer.resin->gel);
            if (layer.resin->glass)
                full = full > 0 ? std::min(full, layer.resin->glass->full) : layer.resin->glass->full;
        }
    });
    out.cure = std::max(run.cure, std::min(1.0, gels + 0.05));
    out.Tg = run.Tg;
    switch (run.of) {
        case CureOf::on_plug:
        case CureOf::with_back:
            out.plug = with.plug.board.top_temperature;
            bears(out.plug + 20, with.plug.board.name);
            break;
        case CureOf::post_cure: {
            out.under_glass = kStandingMargin;
            // As much as its use asks for, and no more; where its resin cannot, as much as now.
            const double wanted = std::max(with.brief.top_temperature, f.chain.part_gel) + c.Tg_margin;
            if (full > wanted + 1) {
                out.Tg = wanted;
                out.cure = std::min(1.0, gels + 0.05);
            }
            break;
        }
        case CureOf::part_free:
            out.under_glass = kStandingMargin;
            break;
        case CureOf::joined:
            if (run.free) {
                out.under_glass = kStandingMargin;
                break;
            }
            [[fallthrough]];
        case CureOf::part_first:
        case CureOf::part_next:
        case CureOf::part:
            bears(with.brief.top_temperature, "the hottest that Brief says the tool sees");
            bears(f.Tg - c.Tg_margin, "the tool's Tg less its margin");
            break;
    }
    // What its heater has left at that heat, over what a kelvin took of it in the programme that is there,
    // and a tenth more: sooner means steeper.
    if (const auto* use = f.oven.find(run.of); use != nullptr && f.oven.power > 0) {
        const double kelvin_takes = 1.1 * use->heat.warmed / (run.highest_air - c.room);
        const double left = f.oven.power - oven_loss(box_of(with.brief, f.oven.build), out.air, c.room);
        out.climbs = std::clamp(left / kelvin_takes, std::min(0.5 / 3600, out.climbs), out.climbs);
    }
    return out;
}

Calls calls(const Choices& c, const Findings& f, const Warmed& with) {
    const auto& [brief, plug, shell_choices, shell, back, part, shop] = with;
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::heat, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const bool direct = is_solid(shell.stack);
    if (f.Tg_margin < c.Tg_margin) {
        add(f.Tg_margin < 0 ? Severity::stop : Severity::caution, "Tg",
            (f.Tg_margin < 0 ? "The tool is " + quantity(Kind::warming, -f.Tg_margin) + " over " +
                                   (direct ? "what it bears, " : "its Tg of ")
                             : "Only " + quantity(Kind::warming, f.Tg_margin) + " under " +
                                   (direct ? "what the tool bears, " : "the tool's Tg of ")) +
                quantity(Kind::temperature, f.Tg),
            direct ? "Past it a mould of " + shell_choices.layers.front().material +
                         " creeps or softens: cure cooler, or make it of something that bears more."
                   : "A tool at its Tg creeps and loses its shape: choose a hotter resin and surface coat, "
                     "post-cured in steps.");
    }
    const char* cut = direct ? "mould" : "plug";
    if (std::abs(f.part_error) > brief.tolerance) {
        add(Severity::caution, "size",
            std::string("The part comes out ") + quantity(Kind::thickness, std::abs(f.part_error)) +
                (f.part_error < 0 ? " short over " : " long over ") + quantity(Kind::length, f.length),
            fmt::format("The tolerance is {}; cut the {} at {:.3f} % of size.",
                        quantity(Kind::thickness, brief.tolerance), cut, 100 * f.plug_scale),
            f.plug_scale > 0.9 && f.plug_scale < 1.1
                ? std::optional(Fix{fmt::format("Cut the {} at {:.3f} % of size", cut, 100 * f.plug_scale),
                                    patch_of("heat", "plug_scale", f.plug_scale)})
                : std::nullopt);
    }
    fold_calls(c, f.folds, brief.tolerance, out);
    for (const auto& plan : plug.plans) {
        if (direct || f.chain.shell_gel <= plan.substrate.top_temperature) continue;
        add(Severity::stop, "plug_hot",
            plan.substrate.name + " stands " + quantity(Kind::temperature, plan.substrate.top_temperature) +
                "; the shell gels at " + quantity(Kind::temperature, f.chain.shell_gel),
            "The plug softens under the shell: lay thinner layers, or choose a cooler resin or a better "
            "board.");
    }
    // The warm end of what each programme is set to, which may be more than the resin asks for.
    const auto air_of = [&](CureOf of) {
        const auto* run = f.cures->find(of);
        return run != nullptr ? run->warmest_air : 0.0;
    };
    const auto* joined = f.cures->find(CureOf::joined);
    const double in_jig = joined != nullptr && !joined->free ? joined->warmest_air : 0;
    const double part_hot = std::max({part.gel_temperature, air_of(CureOf::part_first),
                                      air_of(CureOf::part_next), air_of(CureOf::part), in_jig});
    if (part_hot > brief.top_temperature + 0.5) {
        add(Severity::caution, "brief_heat",
            (part_hot > part.gel_temperature + 0.5 ? "The part's cure comes to " : "The part gels at ") +
                quantity(Kind::temperature, part_hot) + ", hotter than the brief's " +
                quantity(Kind::temperature, brief.top_temperature),
            "The brief's top temperature is what the tool is judged by.",
            part_hot <= 500
                ? std::optional(Fix{"Raise the brief to it", patch_of("brief", "top_temperature", part_hot)})
                : std::nullopt);
    }
    const double tool_sees = std::max({brief.top_temperature, f.chain.part_gel, part_hot});
    auto with_tool = cores_of(shell_choices.layers, "core_hot", shop);
    for (auto& b : in_the_back(back, "back_hot", shop)) with_tool.push_back(std::move(b));
    const double post_air = air_of(CureOf::post_cure),
                 post_cured = post_air > 0 ? post_air : shell_choices.cure_temperature;
    const double bonded = air_of(CureOf::with_back), hottest = std::max({post_cured, tool_sees, bonded});
    judge_cure(out,
               direct || tool_sees > std::max(post_cured, bonded) ? "the tool is used"
               : bonded > post_cured                              ? "the back is bonded on"
                                                                  : "the shell is post-cured with it",
               hottest, with_tool);
    const double part_free = std::max(air_of(CureOf::joined), air_of(CureOf::part_free));
    judge_cure(out,
               part_free > part_hot                ? "the part is warmed after its pull"
               : part_hot > f.chain.part_gel + 0.5 ? "the part is cured"
                                                   : "the part gels",
               std::max({f.chain.part_gel, part_hot, part_free}),
               cores_of(part::all_layers(part), "part_core_hot", shop));
    for (const auto& run : f.cures->runs) judge_run(c, run, plug, out);
    // Back judges it where Brief asks for more heat than a warm room.
    oven_calls(*f.cures, f.oven, brief.top_temperature > back::kWarmRoom, out);
    if (!direct && c.shell_gel > 0 && c.shell_gel < c.room)
        add(Severity::note, "cool_gel",
            "The shell is said to gel at " + quantity(Kind::temperature, c.shell_gel) +
                ", cooler than the room",
            "Nothing is cooler than the room that it stands in: the room's " +
                quantity(Kind::temperature, c.room) + " is taken.",
            Fix{"Take the room's", patch_of("heat", "shell_gel", c.room)});
    return out;
}

}  // namespace jig::heat
