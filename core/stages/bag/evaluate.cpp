#include <fmt/format.h>

#include <cmath>

#include "core/base/error.hpp"
#include "core/stages/bag/findings.hpp"
#include "core/stages/part/goes.hpp"
#include "core/stages/whereabouts.hpp"

namespace jig::bag {
namespace {

/// A pump that nobody has described takes any number of hoses.
constexpr int kManyPorts = 1000;

/// No rim that hands can work on holds more.
constexpr std::size_t kMostPlaced = 500;
/// m of tape round a hose or a gauge where it comes out of the film, typical.
constexpr double kTapeEach = 0.3;

/// Feeds and vents of an infusion, which come out of its film; by a plan all vents are one.
int infusion_hoses(const Infusion& c) {
    if (c.plan == InfusionPlan::own) return static_cast<int>(c.ports.size());
    return (c.plan == InfusionPlan::spine ? c.lines : 1) + 1;
}

/// m past the rim that the film reaches: from the part's rim outwards, or, over several, from the flange's
/// own rim inwards past the grip.
double outside_of(const edge::Choices& e, bool several) {
    return several ? -e.grip : e.trim + e.channel + e.tape_land;
}

/// Film over the face of the tool, lands and all, by its girths. Where several parts lie in one mould it goes
/// over the flange between them too.
void measure(const Choices& c, const edge::Choices& edge_choices, const edge::ToolFace& tool, bool several,
             double roll, Findings& out, Progress& progress) {
    const auto mesh = several ? tool.rimmed.mesh : edge::moulded_face(tool);
    const auto topology = topology_of(mesh);
    const auto& e = edge_choices;
    const double outside = outside_of(e, several);
    FilmRules rules{outside, outside - e.tape_land / 2, true, c.ease, roll, c.pleat};
    if (c.own_sheet()) rules.sheet = Point2(c.sheet_length, c.sheet_width);
    for (const auto& p : c.placed) {
        if (p.what == RimThing::pleat) rules.pleats_at.push_back(p.at);
    }
    out.frame = lengthwise(mesh, topology, tool.frame);
    out.film = film_over(mesh, topology, out.frame, rules, progress);
    out.measured = true;
    if (rules.sheet) out.bridge = bridge_under(mesh, topology, out.frame, rules, out.film, progress);
    if (out.bridge) {
        const auto& p = out.bridge->at;
        out.bridge_where =
            whereabouts({tool.frame.u.dot(p), tool.frame.v.dot(p), tool.frame.w.dot(p)}, tool.low, tool.high);
    }
}

/// What goes round the whole tool, or is made to its face once, in place of a film that is pleated round it.
void close_otherwise(const Choices& c, const edge::Choices& e, const edge::ToolFace& tool,
                     const ToolBehind& behind, const Consumable& stock, Findings& out, Progress& progress) {
    auto& film = out.film;
    film.pleats.clear();
    film.ruled.clear();
    film.slack = 0;
    if (c.way == BagWay::reusable) {
        film.length = film.longest_along;
        film.width = film.longest_across;
        film.tape = 0;
        film.joins = 0;
        return;
    }
    const auto& mesh = tool.rimmed.mesh;
    const auto round = round_tool(mesh, topology_of(mesh), out.frame, behind.form, progress);
    out.wrap = wrap_of(c, round, behind, e.tape_land, stock);
    film.length = out.wrap.length;
    film.width = out.wrap.width;
    film.tape = out.wrap.seam;
    film.joins = out.wrap.joins;
    film.land.clear();
    film.land_length = 0;
}

/// The face that is shown, as its layers are cut for it; how far it reaches from the rim's hoses.
Ground ground_of(const edge::ToolFace& tool, const Film& film, const Frame& frame, double outside,
                 bool several, Rim& rim, Progress& progress) {
    Ground out;
    const auto face = edge::moulded_face(tool);
    reach_over(rim, face, frame);
    const auto topology = topology_of(face);
    out.curved = curved_places(face, topology, frame);
    out.length = film.longest_along - 2 * outside;
    out.width = film.longest_across - 2 * outside;
    if (several) {
        const auto only = film_over(face, topology, frame, {0, {}, true, 0, 0, 0}, progress);
        out.length = only.longest_along;
        out.width = only.longest_across;
    }
    return out;
}

template <class Add>
void wrap_figures(const Choices& c, const Findings& out, const Add& add) {
    const auto& k = out.wrap;
    const auto from = [&](double girth, const char* way) {
        return fmt::format("half of {} round face and back {}, + {:.0f} % of ease{}",
                           quantity(Kind::length, girth), way, 100 * c.ease,
                           k.sheets == 1 && !k.tube ? "; one sheet, folded" : "");
    };
    if (k.tube) {
        add("sheet_length", "tube, length", Kind::length, k.length,
            from(k.round.along, "along") + ", and both seams");
        add("sheet_width", "tube, lying flat", Kind::length, k.width,
            c.tube > 0 ? "the tube that you have" : "the shop's");
        add("tube_wanted", "it has to lie", Kind::length, k.wanted, from(k.round.across, "across"));
    } else {
        add("sheet_length", k.sheets == 2 ? "film, length of both sheets" : "film, length of the sheet",
            Kind::length, k.length, from(k.round.along, "along") + ", and both seams");
        add("sheet_width", k.sheets == 2 ? "film, width of both" : "film, width before it is folded",
            Kind::length, k.width,
            k.sheets == 2 ? from(k.round.across, "across") + ", and both seams"
                          : quantity(Kind::length, k.round.across) +
                                " round face and back across, with its "
                                "ease and one seam");
        add("joins", "joins in the film", Kind::count, k.joins, "where a sheet is wider than the roll");
    }
    if (k.bends > 0 && std::isfinite(k.bends)) {
        add("bends", "between ribs it bends by a radius of", Kind::length, k.bends,
            "an arc over " + quantity(Kind::length, out.behind.gap) + " that is longer by its ease");
        if (out.gives > 0)
            add("gives", "it stretches for good past a radius of", Kind::length, out.gives,
                "what the film carries by the library ÷ pressure on it");
    }
}

void figures(const Choices& c, const part::Choices& part, Findings& out) {
    const auto& f = out.film;
    const auto add = [&](const char* key, std::string name, Kind kind, double value, std::string reason) {
        out.figures.push_back({key, std::move(name), kind, value, std::move(reason)});
    };
    if (out.clamp) return;
    if (!out.closed) {
        add("film", "film", Kind::area, 0, "laid by hand: there is no bag");
        return;
    }
    if (const auto goes = part::goes_of(part); goes > 1)
        add("bags", "bags of one pull", Kind::count, static_cast<double>(goes),
            "one for each go that it is laid in; sheets, tape and layers below are those of one");
    if (out.wrap.sheets > 0) {
        wrap_figures(c, out, add);
    } else if (c.way == BagWay::reusable && out.measured) {
        add("sheet_length", "the bag, over face and land, length", Kind::length, f.length,
            "longest way over the face and both lands: it is made to the face, without ease");
        add("sheet_width", "the bag, width", Kind::length, f.width, "the same across");
    } else if (out.measured) {
        const auto from =
            fmt::format("longest way over the face and both tape lands, + {:.0f} % of ease", 100 * c.ease);
        const auto it = c.own_sheet() ? std::string("the sheet that you have") : from;
        add("sheet_length", "film, length of the sheet", Kind::length, f.length, it);
        add("sheet_width", "film, width of the sheet", Kind::length, f.width, it);
        if (out.bridge && out.bridge->reaches) {
            add("bridges", "the film stands off the face by", Kind::length, out.bridge->gap,
                "where it lacks " + quantity(Kind::length, out.bridge->short_by) +
                    (out.bridge->along ? " along" : " across") +
                    ": free film bends by one radius everywhere, here " +
                    quantity(Kind::length, out.bridge->radius));
            if (out.gives > 0)
                add("gives", "it stretches for good past a radius of", Kind::length, out.gives,
                    "what the film carries by the library ÷ pressure on it");
        }
        add("slack", "film's edge longer than its land", Kind::length, std::max(0.0, f.slack),
            "2 × (length + width) less the middle of the tape land, " +
                quantity(Kind::length, f.land_length));
        add("pleats", "pleats", Kind::count, static_cast<double>(f.pleats.size()),
            f.pleats.empty()
                ? std::string("none: a flat face takes the film as it is")
                : fmt::format(
                      "{}, up to {} tall; each takes up twice its height",
                      f.ruled.empty() ? "opposite corners and deep places" : "where you have put them",
                      quantity(Kind::length, std::max_element(f.pleats.begin(), f.pleats.end(),
                                                              [](const Pleat& a, const Pleat& b) {
                                                                  return a.height < b.height;
                                                              })
                                                 ->height)));
        add("joins", "joins in the film", Kind::count, f.joins, "where the sheet is wider than the roll");
    }
    if (c.way == BagWay::reusable) {
        add("film", "reusable bag", Kind::area, out.film_area,
            fmt::format("face and flange; it serves {:.0f} pulls, and each pays its share", out.pulls));
    } else {
        add("film", "film", Kind::area, out.film_area,
            std::string(out.wrap.sheets > 0 ? "all of it, in the same share for every piece"
                        : out.measured      ? "sheet, in the same share for every piece"
                                            : "face and flange, with ease") +
                (c.films() > 1 ? "; two bags" : ""));
        add("tape", "sealant tape", Kind::length, out.tape,
            fmt::format("{}{}, and {} for each of {} hoses and gauges{}",
                        c.wraps() ? "along the seams" : "along the land, up and down every pleat",
                        !c.wraps() && f.joins > 0 ? ", along the film's joins" : "",
                        quantity(Kind::length, kTapeEach), out.comes_out, c.films() > 1 ? "; two bags" : ""));
    }
    if (out.rim.far > 0)
        add("far", "the face's farthest place to a hose", Kind::length, out.rim.far,
            out.reaches > 0 ? "over the face; " + out.carries + " carries air over about " +
                                  quantity(Kind::length, out.reaches) + " by the library"
                            : std::string("over the face"));
    add("room", "pressure of the room", Kind::pressure, out.room,
        "standard atmosphere at " + quantity(Kind::length, c.altitude) + " above the sea");
    add("force", "the room presses on it with", Kind::force, out.force,
        "difference of pressure × projected area");
    add("volume", "air to draw out", Kind::volume, out.pump.volume,
        fmt::format("layers under the film {}, {} of hose {}, trap {}", quantity(Kind::volume, out.porous),
                    quantity(Kind::length, c.hoses_out() * c.hose),
                    quantity(Kind::volume, hose_volume(c.hoses_out() * c.hose, c.bore)),
                    quantity(Kind::volume, out.trap)));
    add("reached", "it comes to", Kind::pressure, out.reached,
        fmt::format("{}'s own {} + leak ÷ speed of {}, the leak {}",
                    out.drawn_by.name.empty() ? "pump" : out.drawn_by.name,
                    quantity(Kind::pressure, out.drawn_by.ultimate), quantity(Kind::flow, out.drawn_by.speed),
                    out.tested ? "by your drop test" : "as much as is allowed: not tested yet"));
    // Where it never gets there the call says so, and there is no time to show.
    if (out.down)
        add("down", "down to " + quantity(Kind::pressure, c.wanted) + " after", Kind::duration, *out.down,
            "V ÷ S · ln((p0 − p∞) ÷ (p − p∞)), hoses taken as wide enough");
    add("allowed", "it may rise, shut for ten minutes, by", Kind::pressure, kTenMinutes * out.allowed,
        c.rise > 0 ? "your choice above"
                   : "the shop's pass mark for a part that is " + std::string(said(part.how)));
    if (out.told_after > 0)
        add("told_after", "a drop test lasts, at least", Kind::duration, out.told_after,
            "two steps of the " + out.gauge->name + ", " + quantity(Kind::pressure, out.gauge->step) +
                " each, ÷ the rise that is allowed");
    // No gauge rises past the room.
    const auto rises = [&](const char* said, double rise, std::string why) {
        if (kTenMinutes * rise > out.room)
            add("rise", "shut, it is full of air after", Kind::duration, out.room / rise, std::move(why));
        else
            add("rise", said, Kind::pressure, kTenMinutes * rise, std::move(why));
    };
    if (out.drop)
        rises("and rose, in ten minutes, by", out.drop->rise,
              fmt::format("straight line through {} readings over {}{}: a leak of {}", out.drop->readings,
                          quantity(Kind::duration, out.drop->seconds),
                          out.drop->spread
                              ? ", out by " + quantity(Kind::pressure, kTenMinutes * out.unsure()) +
                                    " at most, 19 times in 20"
                              : std::string(),
                          leak_words(out.pump.leak)));
    else if (c.drop.seconds > 0)
        rises("and rose, in ten minutes, by", out.leak_rise,
              fmt::format("{} in {}, as far as outgassing does not fade with time: a leak of {}",
                          quantity(Kind::pressure, c.drop.to - c.drop.from),
                          quantity(Kind::duration, c.drop.seconds), leak_words(out.pump.leak)));
    else if (out.tested)
        rises("and rises, in ten minutes, by", out.leak_rise,
              fmt::format("{} while the pump rests for {}: a leak of {}",
                          quantity(Kind::pressure, c.switching.high - c.switching.low),
                          quantity(Kind::duration, c.switching.rests), leak_words(out.pump.leak)));
    if (out.alone) {
        const double rest = std::max(0.0, out.pump.leak - *out.alone);
        add("alone",
            out.tested ? "of that leak pump, trap and hoses alone"
                       : "of what is allowed, pump, trap and hoses alone leak",
            Kind::ratio, out.pump.leak > 0 ? *out.alone / out.pump.leak : 0,
            fmt::format("{} in {} over {} of hoses and trap: {}; {} are left for the bag",
                        quantity(Kind::pressure, std::max(0.0, c.alone.to - c.alone.from)),
                        quantity(Kind::duration, c.alone.seconds),
                        quantity(Kind::volume, out.pump.volume - out.porous), leak_words(*out.alone),
                        leak_words(rest)));
    }
    if (out.cycle)
        add("duty", "the pump runs, of all the time", Kind::ratio, out.cycle->duty(),
            fmt::format("it rests for {}, V·Δp ÷ leak, and draws down again in {}{}",
                        quantity(Kind::duration, out.cycle->off), quantity(Kind::duration, out.cycle->on),
                        out.tested ? "" : "; the leak as much as is allowed"));
    if (out.boils > 0)
        add("boils", "styrene boils at", Kind::pressure, out.boils,
            "by Antoine's equation at " + quantity(Kind::temperature, part.gel_temperature));
}

}  // namespace

std::string leak_words(double leak) {
    return fmt::format("{:.3g} mbar·L/s", 10 * leak);
}

Findings evaluate(const Choices& c, const part::Choices& part_choices, const part::Findings& part,
                  const split::Findings& split, const edge::Choices& edge_choices, const edge::Findings& edge,
                  const ToolBehind& behind, const brief::Of<brief::Making, brief::Pump>& brief,
                  const Library& shop, Progress& progress) {
    if (c.placed.size() > kMostPlaced)
        throw InputError("bag", fmt::format("{} things stand on its rim", c.placed.size()),
                         fmt::format("keep {} at most", kMostPlaced));
    Findings out;
    out.behind = behind;
    out.how = part_choices.how;
    out.closed = part_choices.how != LayUp::hand && brief.process != Process::squeeze;
    if (brief.process == Process::squeeze)
        out.clamp = clamp(c.clamp, edge_choices, edge, split.map.projected * split.parts(), shop);
    out.room = room_pressure(c.altitude);
    out.reached = out.room;
    // Without a bag the film may be missing from the library: nobody buys it.
    const auto* film = find(shop.consumables, "bag film");
    const auto* stock = out.closed ? &need(shop.consumables, closed_with(c), "bag") : film;
    const double bags = c.films(), area = part.area * split.parts(), whole = area + edge.area;
    Ground ground;
    ground.area = area;
    ground.rim = edge.rim_length;
    out.cover = whole * (1 + c.ease);
    // Up and down the pleats it takes a seventh more, typical.
    out.cover_tape = edge.tape_land_length * 1.15;
    double share = 1;
    if (edge.tool) {
        measure(c, edge_choices, *edge.tool, split.parts() > 1, film != nullptr ? film->width : 0, out,
                progress);
        double shown = 0;
        for (std::size_t f = 0; f < edge.tool->rimmed.mesh.triangles.size(); ++f)
            shown += edge.tool->rimmed.mesh.area_vector2(f).norm() / 2;
        // Pieces that are not shown take film and tape in the share of the one that is.
        share = split.one_piece() ? 1 : whole / shown;
        out.cover = out.film.area() * share;
        out.cover_tape =
            out.film.tape * (split.one_piece() ? 1 : edge.tape_land_length / out.film.land_length);
    }
    if (!out.closed) {
        out.bridge.reset();
        out.film = {};
        out.measured = false;
        if (out.clamp) out.figures = clamp_figures(c.clamp, edge_choices, *out.clamp);
        figures(c, part_choices, out);
        return out;
    }
    if (edge.tool) {
        if (c.way != BagWay::surface)
            close_otherwise(c, edge_choices, *edge.tool, behind, *stock, out, progress);
        out.rim = rim_of(c, out.film, part_choices.how != LayUp::infused);
        const auto lies =
            ground_of(*edge.tool, out.film, out.frame, outside_of(edge_choices, split.parts() > 1),
                      split.parts() > 1, out.rim, progress);
        ground.length = lies.length;
        ground.width = lies.width;
        ground.curved = lies.curved;
        ground.pieces = share;
    }
    out.pulls = c.way == BagWay::reusable ? stock->pulls : 1;
    if (c.way == BagWay::reusable) {
        out.film_area = whole;
    } else if (out.wrap.sheets > 0) {
        out.film_area = out.wrap.area() * share;
        out.tape = out.wrap.seam * share;
    } else {
        // Without a face to measure, what goes round the tool is twice what goes over its face.
        out.film_area = bags * out.cover * (c.wraps() ? 2 : 1);
        out.tape = bags * (out.cover_tape + share * out.film.joins * out.film.length);
    }
    if (c.way != BagWay::reusable) {
        out.comes_out = (part_choices.how == LayUp::infused ? infusion_hoses(c.infusion) : c.hoses_out()) +
                        std::max(1, c.placed_of(RimThing::gauge));
        out.tape += bags * kTapeEach * out.comes_out;
    }
    out.layers = layers(c, part_choices.how, ground, out.film, out.film_area, out.wrap, shop);
    for (const auto& l : out.layers)
        if (const auto* entry = find(shop.consumables, l.name)) {
            out.porous += entry->porous * l.area;
            if (entry->reach <= out.reaches) continue;
            out.carries = entry->name;
            out.reaches = entry->reach;
        }
    if (c.pump.empty()) {
        out.drawn_by.speed = brief.pump;
        out.drawn_by.ultimate = c.ultimate;
        out.drawn_by.ports = kManyPorts;
        out.drawn_by.oil = false;
    } else {
        out.drawn_by = need(shop.pumps, c.pump, "bag");
    }
    out.trap = c.trap;
    out.inlets = out.drawn_by.ports;
    if (!c.catcher.empty()) {
        const auto& trap = need(shop.traps, c.catcher, "bag");
        out.trap = trap.volume;
        out.inlets = trap.ports;
    }
    const double lines = hose_volume(c.hoses_out() * c.hose, c.bore) + out.trap;
    out.pump = {out.porous + lines, out.drawn_by.speed, out.drawn_by.ultimate, 0, out.room};
    const double usual = need(shop.pass_marks, file_word(part_choices.how), "bag").rise;
    out.allowed = (c.rise > 0 ? c.rise : usual) / kTenMinutes;
    if (!c.gauge.empty()) {
        out.gauge = need(shop.gauges, c.gauge, "bag");
        out.told_after = 2 * out.gauge->step / out.allowed;
    }
    std::vector<DropReading> readings;
    for (const auto& r : c.drop.readings) readings.push_back({r.seconds, r.pressure});
    out.drop = fit_drop(std::move(readings));
    const bool shut = out.drop || c.drop.seconds > 0;
    out.tested = shut || c.switching.watched();
    out.leak_rise = out.drop     ? std::max(0.0, out.drop->rise)
                    : shut       ? std::max(0.0, c.drop.to - c.drop.from) / c.drop.seconds
                    : out.tested ? (c.switching.high - c.switching.low) / c.switching.rests
                                 : out.allowed;
    if (c.alone.seconds > 0)
        out.alone = leak_of_drop(lines, c.alone.from, std::max(c.alone.from, c.alone.to), c.alone.seconds);
    out.pump.leak = out.leak_rise * out.pump.volume;
    out.reached = std::min(out.room, out.pump.end().value_or(out.room));
    out.down = out.pump.time_to(c.wanted);
    if (c.switching.switches && c.switching.high > c.switching.low && c.switching.high < out.room)
        out.cycle = cycle_of(out.pump, c.switching.low, c.switching.high);
    out.force =
        std::max(0.0, out.room - std::max(c.wanted, out.reached)) * split.map.projected * split.parts();
    if (has_styrene(part.resin.family)) out.boils = boils_at(Liquid::styrene, part_choices.gel_temperature);
    if (out.room > out.reached) out.gives = stock->gives / (out.room - out.reached);
    figures(c, part_choices, out);
    return out;
}

}  // namespace jig::bag
