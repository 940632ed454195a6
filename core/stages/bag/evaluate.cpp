#include <fmt/format.h>

#include "core/stages/bag/findings.hpp"

namespace jig::bag {
namespace {

/// Air in so much of what lies under the film; 0 for what the shop has no thickness of.
double air_in(const Library& shop, const char* name, double area) {
    return need(shop.consumables, name, "bag").porous * area;
}

/// Film over the face of the tool, lands and all, by its girths. Where several parts lie in one mould it goes
/// over the flange between them too.
void measure(const Choices& c, const edge::Choices& edge_choices, const edge::ToolFace& tool, bool several,
             double roll, Findings& out, Progress& progress) {
    const auto mesh = several ? tool.rimmed.mesh : edge::moulded_face(tool);
    const auto topology = topology_of(mesh);
    const auto& e = edge_choices;
    // From the part's rim outwards, or from the flange's own rim inwards past the grip.
    const double outside = several ? -e.grip : e.trim + e.channel + e.tape_land;
    FilmRules rules{outside, outside - e.tape_land / 2, true, c.ease, roll, c.pleat};
    out.frame = lengthwise(mesh, topology, tool.frame);
    out.film = film_over(mesh, topology, out.frame, rules, progress);
    out.measured = true;
}

void figures(const Choices& c, const part::Choices& part, Findings& out) {
    const auto& f = out.film;
    const auto add = [&](const char* key, std::string name, Kind kind, double value, std::string reason) {
        out.figures.push_back({key, std::move(name), kind, value, std::move(reason)});
    };
    if (!out.closed) {
        add("film", "film", Kind::area, 0, "laid by hand or squeezed: there is no bag");
        return;
    }
    if (out.measured) {
        const auto from =
            fmt::format("longest way over the face and both tape lands, + {:.0f} % of ease", 100 * c.ease);
        add("sheet_length", "film, length of the sheet", Kind::length, f.length, from);
        add("sheet_width", "film, width of the sheet", Kind::length, f.width, from);
        add("slack", "film's edge longer than its land", Kind::length, std::max(0.0, f.slack),
            "2 × (length + width) less the middle of the tape land, " +
                quantity(Kind::length, f.land_length));
        add("pleats", "pleats", Kind::count, static_cast<double>(f.pleats.size()),
            f.pleats.empty()
                ? std::string("none: a flat face takes the film as it is")
                : "opposite corners and deep places, " + quantity(Kind::length, f.pleats.front().height) +
                      " tall; each takes up twice that");
        add("joins", "joins in the film", Kind::count, f.joins, "where the sheet is wider than the roll");
    }
    add("film", "film", Kind::area, out.film_area,
        std::string(out.measured ? "sheet, in the same share for every piece"
                                 : "face and flange, with ease") +
            (c.second ? "; two bags" : ""));
    add("tape", "sealant tape", Kind::length, out.tape,
        std::string("along the land and up and down every pleat") + (c.second ? "; two bags" : ""));
    add("room", "pressure of the room", Kind::pressure, out.room,
        "standard atmosphere at " + quantity(Kind::length, c.altitude) + " above the sea");
    add("force", "the room presses on it with", Kind::force, out.force,
        "difference of pressure × projected area");
    add("volume", "air to draw out", Kind::volume, out.pump.volume,
        fmt::format("layers under the film {}, {} of hose {}, trap {}", quantity(Kind::volume, out.porous),
                    quantity(Kind::length, c.hoses * c.hose),
                    quantity(Kind::volume, hose_volume(c.hoses * c.hose, c.bore)),
                    quantity(Kind::volume, c.trap)));
    add("reached", "it comes to", Kind::pressure, out.reached,
        fmt::format("pump's own {} + leak ÷ speed, the leak {}", quantity(Kind::pressure, c.ultimate),
                    out.tested ? "by your drop test" : "as much as is allowed: not tested yet"));
    // Where it never gets there the call says so, and there is no time to show.
    if (out.down)
        add("down", "down to " + quantity(Kind::pressure, c.wanted) + " after", Kind::duration, *out.down,
            "V ÷ S · ln((p0 − p∞) ÷ (p − p∞)), hoses taken as wide enough");
    add("allowed", "it may rise, shut for ten minutes, by", Kind::pressure, kTenMinutes * out.allowed,
        c.rise > 0 ? "your choice above" : "typical for a part that is " + std::string(said(part.how)));
    if (out.drop)
        add("rise", "and rose, in ten minutes, by", Kind::pressure, kTenMinutes * out.drop->rise,
            fmt::format("straight line through {} readings over {}{}: a leak of {}", out.drop->readings,
                        quantity(Kind::duration, out.drop->seconds),
                        out.drop->spread
                            ? ", out by " + quantity(Kind::pressure, kTenMinutes * out.unsure()) +
                                  " at most, 19 times in 20"
                            : std::string(),
                        leak_words(out.pump.leak)));
    else if (out.tested)
        add("rise", "and rose, in ten minutes, by", Kind::pressure, kTenMinutes * out.leak_rise,
            fmt::format("{} in {}, as far as outgassing does not fade with time: a leak of {}",
                        quantity(Kind::pressure, c.drop.to - c.drop.from),
                        quantity(Kind::duration, c.drop.seconds), leak_words(out.pump.leak)));
    if (out.boils > 0)
        add("boils", "styrene boils at", Kind::pressure, out.boils,
            "by Antoine's equation at " + quantity(Kind::temperature, part.gel_temperature));
}

}  // namespace

std::string leak_words(double leak) {
    return fmt::format("{:.3g} mbar·L/s", 10 * leak);
}

double usual_rise(LayUp how) {
    // An infusion draws air through the resin for hours; a wet lay-up forgives.
    return how == LayUp::bagged ? 3000 : 500;
}

Findings evaluate(const Choices& c, const part::Choices& part_choices, const part::Findings& part,
                  const split::Findings& split, const edge::Choices& edge_choices, const edge::Findings& edge,
                  const brief::Of<brief::Making, brief::Pump>& brief, const Library& shop,
                  Progress& progress) {
    Findings out;
    out.how = part_choices.how;
    out.closed = part_choices.how != LayUp::hand && brief.process != Process::squeeze;
    out.room = room_pressure(c.altitude);
    out.reached = out.room;
    // Without a bag the film may be missing from the library: nobody buys it.
    const auto* stock =
        out.closed ? &need(shop.consumables, "bag film", "bag") : find(shop.consumables, "bag film");
    const double bags = c.second ? 2 : 1, area = part.area * split.parts(), whole = area + edge.area;
    out.cover = whole * (1 + c.ease);
    // Up and down the pleats it takes a seventh more, typical.
    out.cover_tape = edge.tape_land_length * 1.15;
    if (edge.tool) {
        measure(c, edge_choices, *edge.tool, split.parts() > 1, stock != nullptr ? stock->width : 0, out,
                progress);
        double shown = 0;
        for (std::size_t f = 0; f < edge.tool->rimmed.mesh.triangles.size(); ++f)
            shown += edge.tool->rimmed.mesh.area_vector2(f).norm() / 2;
        // Pieces that are not shown take film and tape in the share of the one that is.
        const double share = split.one_piece() ? 1 : whole / shown;
        out.cover = out.film.area() * share;
        out.cover_tape =
            out.film.tape * (split.one_piece() ? 1 : edge.tape_land_length / out.film.land_length);
    }
    if (!out.closed) {
        out.film = {};
        out.measured = false;
        figures(c, part_choices, out);
        return out;
    }
    out.film_area = bags * out.cover;
    out.tape = bags * out.cover_tape;
    const bool infused = part_choices.how == LayUp::infused;
    out.porous =
        (infused && !c.infusion.medium ? 0 : air_in(shop, infused ? "flow medium" : "breather", area)) +
        (c.peel_ply ? air_in(shop, "peel ply", area) : 0);
    out.pump = {out.porous + hose_volume(c.hoses * c.hose, c.bore) + c.trap, brief.pump, c.ultimate, 0,
                out.room};
    out.allowed = (c.rise > 0 ? c.rise : usual_rise(part_choices.how)) / kTenMinutes;
    std::vector<DropReading> readings;
    for (const auto& r : c.drop.readings) readings.push_back({r.seconds, r.pressure});
    out.drop = fit_drop(std::move(readings));
    out.tested = out.drop || c.drop.seconds > 0;
    out.leak_rise = out.drop     ? std::max(0.0, out.drop->rise)
                    : out.tested ? std::max(0.0, c.drop.to - c.drop.from) / c.drop.seconds
                                 : out.allowed;
    out.pump.leak = out.leak_rise * out.pump.volume;
    out.reached = std::min(out.room, out.pump.end().value_or(out.room));
    out.down = out.pump.time_to(c.wanted);
    out.force =
        std::max(0.0, out.room - std::max(c.wanted, out.reached)) * split.map.projected * split.parts();
    if (has_styrene(part.resin.family)) out.boils = boils_at(Liquid::styrene, part_choices.gel_temperature);
    figures(c, part_choices, out);
    return out;
}

}  // namespace jig::bag
