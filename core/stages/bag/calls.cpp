#include <fmt/format.h>

#include <cmath>

#include "core/stages/bag/findings.hpp"

namespace jig::bag {
namespace {

/// After hoses and the tool alone, in the order in which to look.
std::string where_it_leaks(const Choices& c) {
    if (c.wraps()) return "ends and corners of the seams, edges of the tool that the film lies on.";
    if (c.way == BagWay::reusable)
        return "its lip all round, old cuts and thin places, the tool's own fittings and pin-holes.";
    return "pleats, corners, joins of the film, the tool's own fittings and pin-holes.";
}

const Fix kRoundTheFace{"Close it by a film round its face", patch_of("bag", "way", "surface")};

/// Of a film round the whole tool.
template <class Add>
void wrap_calls(const Findings& f, const Add& add) {
    const auto& k = f.wrap;
    if (!k.fits())
        add(Severity::stop, "tube_narrow",
            "The tube lies " + quantity(Kind::length, k.width) + " wide; " +
                quantity(Kind::length, k.wanted) + " go round the tool",
            "It would not go on, or bridge every hollow.",
            Fix{"Take an envelope of sheets", patch_of("bag", "way", "envelope")});
    if (k.bends > 0 && (f.gives <= 0 || k.bends > f.gives))
        add(Severity::stop, "drawn_in",
            "The film would be drawn in between ribs " + quantity(Kind::length, f.behind.gap) + " apart",
            (std::isfinite(k.bends) ? "There it bends by " + quantity(Kind::length, k.bends)
                                    : std::string("There it hangs straight")) +
                (f.gives > 0 ? "; free film stretches for good past " + quantity(Kind::length, f.gives)
                             : std::string(", and nobody says what it bears")) +
                ". A tool goes into a film without its back, or with one that is closed.",
            kRoundTheFace);
    if (!f.behind.tried_as)
        add(Severity::caution, "tried_otherwise", "Back has not tried the tool in a film all round it",
            "A film round its face presses skin and back alike; one round the tool bends the skin between "
            "supports.",
            Fix{"Try it in an envelope", patch_of("back", "bag", "envelope")});
}

/// No more hoses than that, placed or counted.
Json fewer_hoses(const Choices& c, int most) {
    auto list = c.placed;
    int kept = 0;
    std::erase_if(list, [&](const OnRim& p) { return p.what == RimThing::hose && ++kept > most; });
    return {{"bag", {{"hoses", std::min(c.hoses, most)}, {"placed", to_json_value(list)}}}};
}

/// The smallest of the shop's that holds `volume` and takes so many hoses; where it has none, one of a size
/// of its own.
Fix larger_trap(double volume, int hoses, const Library& shop) {
    const ResinTrap* best = nullptr;
    for (const auto& t : shop.traps) {
        if (t.volume < volume || t.ports < hoses) continue;
        if (best == nullptr || t.volume < best->volume) best = &t;
    }
    if (best != nullptr) return {"Take the " + best->name, patch_of("bag", "catcher", best->name)};
    return {"Take a larger trap",
            Json{{"bag", {{"catcher", ""}, {"trap", std::ceil(volume * 1000) / 1000}}}}};
}

/// Pa either way by which weather moves the room's pressure, usual.
constexpr double kWeather = 2000;

/// Of what the pressure is read off.
template <class Add>
void gauge_calls(const Choices& c, const Findings& f, const Library& shop, const Add& add) {
    if (!f.gauge) return;
    const auto& g = *f.gauge;
    // The coarsest of the shop's that serves: the dearest one is seldom needed.
    const auto serves = [&](const auto& judge) {
        const VacuumGauge* best = nullptr;
        for (const auto& other : shop.gauges) {
            if (judge(other) && (best == nullptr || other.step > best->step)) best = &other;
        }
        return best == nullptr
                   ? std::nullopt
                   : std::optional(Fix{"Take the " + best->name, patch_of("bag", "gauge", best->name)});
    };
    const double shut = f.drop ? f.drop->seconds : c.drop.seconds;
    const auto reads = [&](const VacuumGauge& o) { return o.lowest <= c.wanted; };
    if (!reads(g)) {
        add(Severity::caution, "gauge_blind",
            "The " + g.name + " shows nothing under " + quantity(Kind::pressure, g.lowest) + "; " +
                quantity(Kind::pressure, c.wanted) + " is wanted",
            "Nobody would see whether the bag gets there.",
            serves([&](const VacuumGauge& o) { return reads(o) && o.absolute; }));
    } else if (shut > 0 && shut < f.told_after * (1 - 1e-9)) {
        add(Severity::caution, "gauge_coarse",
            "In " + quantity(Kind::duration, shut) + " a bag that holds may rise by " +
                quantity(Kind::pressure, f.allowed * shut) + "; the " + g.name + " shows steps of " +
                quantity(Kind::pressure, g.step),
            "It would say the same of one that does not: wait for " + quantity(Kind::duration, f.told_after) +
                ", or read it off a finer one.",
            serves([&](const VacuumGauge& o) {
                return reads(o) && o.absolute && 2 * o.step <= f.allowed * shut;
            }));
    } else if (!g.absolute && c.wanted < 5 * kWeather) {
        add(Severity::note, "gauge_weather",
            "The " + g.name + " counts from the room's pressure, which weather moves by " +
                quantity(Kind::pressure, kWeather) + " either way",
            "Where it shows " + quantity(Kind::pressure, c.wanted) + ", " +
                quantity(Kind::pressure, std::max(0.0, c.wanted - kWeather)) + " to " +
                quantity(Kind::pressure, c.wanted + kWeather) +
                " may be in the bag. A rise in a short test it tells all the same.",
            serves([&](const VacuumGauge& o) { return reads(o) && o.absolute; }));
    }
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const edge::Choices& edge_choices,
            const part::Choices& part_choices, const part::Findings& part, int parts, const Library& shop) {
    if (f.clamp) return clamp_calls(edge_choices, *f.clamp);
    Calls out;
    if (!f.closed) return out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::bag, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const auto ask_for = [](double pressure) {
        // Rounded up to whole millibars, as a gauge is read.
        const double p = std::ceil(pressure / 100) * 100;
        return Fix{"Ask for " + quantity(Kind::pressure, p), patch_of("bag", "wanted", p)};
    };
    if (c.wanted >= f.room) {
        add(Severity::stop, "no_vacuum",
            quantity(Kind::pressure, c.wanted) + " in the bag is no less than the room's " +
                quantity(Kind::pressure, f.room),
            "Nothing presses the film onto the part.", ask_for(0.1 * f.room));
    } else if (!f.down) {
        std::optional<Fix> fix;
        if (1.2 * f.reached < 0.9 * f.room) fix = ask_for(1.2 * f.reached);
        add(f.how == LayUp::infused || f.how == LayUp::prepreg ? Severity::stop : Severity::caution,
            "pump_short",
            "The pump comes to " + quantity(Kind::pressure, f.reached) + "; " +
                quantity(Kind::pressure, c.wanted) + " is wanted",
            f.tested ? "Its own limit and the leak decide: find the leak, or take a larger pump."
                     : "With the leak that is allowed: a tighter bag or a larger pump gets lower.",
            std::move(fix));
    } else if (*f.down > 900) {
        add(Severity::caution, "slow_pump",
            "Emptying takes " + quantity(Kind::duration, *f.down) + " with this pump",
            "Resin that is wet ages meanwhile, and pleats are hard to set in a slack film.");
    }
    if (f.boils > 0 && std::max(c.wanted, f.reached) < 2 * f.boils) {
        add(Severity::caution, "boils",
            "Styrene boils at " + quantity(Kind::pressure, f.boils) + "; " +
                quantity(Kind::pressure, c.wanted) + " comes too near it",
            "Resin foams where the vacuum is deepest; twice the boiling pressure is a usual margin.",
            ask_for(2 * f.boils));
    }
    if (c.hoses_out() > f.inlets)
        add(Severity::caution, "ports",
            fmt::format("{} has {}, the bag {} hoses", c.catcher.empty() ? f.drawn_by.name : c.catcher,
                        f.inlets == 1 ? "one port" : fmt::format("{} ports", f.inlets), c.hoses_out()),
            c.catcher.empty() ? "Join them before the trap, take fewer, or another pump."
                              : "Join them before it, take fewer, or another trap.",
            Fix{fmt::format("Take {}", f.inlets), fewer_hoses(c, f.inlets)});
    gauge_calls(c, f, shop, add);
    if (f.drawn_by.oil && f.boils > 0)
        add(Severity::note, "oil", f.drawn_by.name + "'s oil takes up styrene",
            "It draws worse from pull to pull: let it run with its ballast open, and change the oil early. "
            "What "
            "it blows out goes outside.");
    const bool fell = f.drop ? (f.drop->rise + f.unsure()) * f.drop->seconds < -1
                             : c.drop.seconds > 0 && c.drop.to < c.drop.from;
    if (fell) {
        const double from = f.drop ? f.drop->from : c.drop.from;
        const double to = f.drop ? f.drop->from + f.drop->rise * f.drop->seconds : c.drop.to;
        add(Severity::caution, "fell",
            "The gauge fell from " + quantity(Kind::pressure, from) + " to " + quantity(Kind::pressure, to) +
                " in the drop test",
            "Absolute pressure in a shut bag rises or stays: was the valve open, or does the gauge count the "
            "other way?");
    } else if (f.tested && f.leak_rise - f.unsure() > f.allowed) {
        add(f.how == LayUp::infused ? Severity::stop : Severity::caution, "leaks",
            (kTenMinutes * f.leak_rise > f.room
                 ? "Shut, the bag is full of air after " + quantity(Kind::duration, f.room / f.leak_rise) +
                       "; a rise of " + quantity(Kind::pressure, kTenMinutes * f.allowed) +
                       " in ten minutes is allowed"
                 : "The bag rises by " + quantity(Kind::pressure, kTenMinutes * f.leak_rise) +
                       " in ten minutes; " + quantity(Kind::pressure, kTenMinutes * f.allowed) +
                       " is allowed"),
            f.leak_rise > 20 * f.allowed ? "So much can be heard: a hose or valve that is not shut, a port "
                                           "through the film, tape that never "
                                           "touched. Then test pump, trap and hoses alone."
                                         : "Shut off pump, trap and hoses and test them alone first; then "
                                           "walk round it in this order: hoses where they go in, " +
                                               where_it_leaks(c));
    } else if (f.drop && f.leak_rise + f.unsure() > f.allowed) {
        add(Severity::caution, "not_proven",
            "The drop test says " + quantity(Kind::pressure, kTenMinutes * f.leak_rise) +
                " in ten minutes, give or take " + quantity(Kind::pressure, kTenMinutes * f.unsure()) + "; " +
                quantity(Kind::pressure, kTenMinutes * f.allowed) + " is allowed",
            "The readings do not tell a tight bag from a leaking one: read on for longer, or by a finer "
            "gauge.");
    }
    if (f.drop && f.drop->flattens && *f.drop->flattens > 0.4) {
        add(Severity::note, "levels_out",
            fmt::format("The rise levels out: at the end it is {:.0f} % slower",
                        100 * std::min(1.0, *f.drop->flattens)),
            "A leak goes on and on. This gives off gas (solvent, damp core, fresh resin) or cools: draw down "
            "again for a "
            "while, and test once more.");
    } else if (f.drop && f.drop->flattens && *f.drop->flattens < -0.4) {
        add(Severity::caution, "quickens", "The rise quickens during the drop test",
            "Something opens as the bag slackens: a pleat, a corner, tape on a dusty land.");
    }
    if (f.alone && *f.alone > f.allowed * f.pump.volume)
        add(f.how == LayUp::infused ? Severity::stop : Severity::caution, "system_leaks",
            "Pump, trap and hoses alone leak " + leak_words(*f.alone) + "; " +
                leak_words(f.allowed * f.pump.volume) + " are allowed with the bag",
            "Fittings, clamps, the trap's lid and its seal, hoses that have gone hard: no bag on them can "
            "pass.");
    if (c.switching.switches && !f.cycle)
        add(Severity::caution, "never_rests",
            c.switching.high <= c.switching.low || c.switching.high >= f.room
                ? "The pump would start at " + quantity(Kind::pressure, c.switching.high) + " and stop at " +
                      quantity(Kind::pressure, c.switching.low) + ", in a room of " +
                      quantity(Kind::pressure, f.room)
                : "The pump never stops: it comes to " + quantity(Kind::pressure, f.reached) +
                      " and would stop at " + quantity(Kind::pressure, c.switching.low),
            "It switches off below and on above: set both over what it comes to, and under what the part "
            "wants.",
            Fix{"Set them over what it comes to",
                Json{{"bag",
                      {{"switching",
                        {{"low", std::ceil(1.2 * f.reached / 100) * 100},
                         {"high", std::ceil(1.2 * f.reached / 100) * 100 + 3000},
                         {"rests", 0.0}}}}}}});
    else if (c.switching.switches && c.switching.high > c.wanted + 1)
        add(Severity::caution, "rests_high",
            "The pump lets the bag rise to " + quantity(Kind::pressure, c.switching.high) + "; " +
                quantity(Kind::pressure, c.wanted) + " are wanted",
            "Between two runs the part has less vacuum than it wants.",
            c.wanted > c.switching.low
                ? std::optional(Fix{"Let it start at what is wanted",
                                    Json{{"bag", {{"switching", {{"high", c.wanted}, {"rests", 0.0}}}}}}})
                : std::nullopt);
    if (c.alone.seconds > 0 && c.alone.to < c.alone.from)
        add(Severity::caution, "lines_fell",
            "With pump, trap and hoses alone the gauge fell from " + quantity(Kind::pressure, c.alone.from) +
                " to " + quantity(Kind::pressure, c.alone.to),
            "Absolute pressure in what is shut rises or stays: was the valve open, or does the gauge count "
            "the other way?");
    else if (f.alone && f.tested && *f.alone > f.pump.leak * (1 + 1e-9))
        add(Severity::caution, "lines_differ",
            "Pump, trap and hoses alone leak " + leak_words(*f.alone) + ", with the bag on them " +
                leak_words(f.pump.leak),
            "The whole cannot leak less than its part: test both again.");
    if (!f.tested) {
        add(Severity::note, "untested", "No drop test of this bag yet",
            "Shut the valve, wait, write down what the gauge says: before any resin is mixed.");
    }
    if (f.how == LayUp::infused && part.resin.matrix.density > 0) {
        const double resin = parts * part.resin_mix / part.resin.matrix.density;
        if (f.trap < 0.3 * resin)
            add(Severity::caution, "small_trap",
                "The trap holds " + quantity(Kind::volume, f.trap) + "; " + quantity(Kind::volume, resin) +
                    " of resin go in",
                "What runs out of the vents must not reach the pump: a third of all the resin, at least.",
                larger_trap(0.3 * resin, c.hoses_out(), shop));
    }
    const Fix cut_it{"Cut a film to size", Json{{"bag", {{"sheet_length", 0.0}, {"sheet_width", 0.0}}}}};
    if (f.measured && c.own_sheet() && (f.film.slack < 0 || (f.bridge && !f.bridge->reaches))) {
        add(Severity::stop, "film_short", "The film that you have does not reach its land all round",
            f.film.slack < 0
                ? "Its edge is " + quantity(Kind::length, -f.film.slack) + " shorter than the land."
                : "Even drawn straight from land to land it lacks " +
                      quantity(Kind::length, f.bridge->short_by) + " over the face.",
            cut_it);
        if (f.bridge) out.back().at = f.bridge->at;
    } else if (f.bridge) {
        const bool tears = f.gives > 0 && f.bridge->radius > f.gives;
        add(tears || f.how == LayUp::infused || f.how == LayUp::prepreg ? Severity::stop : Severity::caution,
            "bridges",
            "The film stands " + quantity(Kind::length, f.bridge->gap) + " off the face, " + f.bridge_where,
            "It lacks " + quantity(Kind::length, f.bridge->short_by) +
                ". What it does not touch is not pressed" +
                (f.how == LayUp::infused ? ", and resin runs through the gap" : "") +
                (tears ? ". Free film stretches for good past a radius of " +
                             quantity(Kind::length, f.gives) + "; here it bends by " +
                             quantity(Kind::length, f.bridge->radius) + " and may burst."
                       : "."),
            cut_it);
        out.back().at = f.bridge->at;
    }
    wrap_calls(f, add);
    rim_calls(c, f, edge_choices.trim + edge_choices.channel, out);
    if (c.way == BagWay::reusable && has_styrene(part.resin.family))
        add(Severity::note, "swells", "Styrene swells and wears a bag of silicone",
            "Its life is shorter than with epoxy: wash it, let it air, and look at it against the light "
            "before every pull.");
    if (c.way != BagWay::reusable && !c.own_sheet() && c.ease < 0.05 && f.film.depth > 0.02) {
        add(Severity::caution, "tight_film",
            fmt::format("Film only {:.0f} % larger than the face under it", 100 * c.ease),
            "Too small a bag bridges corners and bursts there, or leaves them without pressure.",
            Fix{"Cut it a tenth larger", patch_of("bag", "ease", 0.10)});
    }
    if (f.film.joins > 0) {
        add(Severity::note, "joined",
            fmt::format("The film is joined {}: {} wide",
                        f.film.joins == 1 ? "once" : fmt::format("{} times", f.film.joins),
                        quantity(Kind::length, f.film.width)),
            "Lap the widths with sealant tape between, out of corners, and test that seam first.");
    }
    if (!c.peel_ply && c.film == ReleaseFilm::none) {
        add(Severity::stop, "bonds", "Nothing parts the part from breather or medium",
            "Peel ply or release film lies on the last ply, or what absorbs resin stays on the part.",
            Fix{"Lay peel ply", patch_of("bag", "peel_ply", true)});
    } else if (!c.peel_ply && part_choices.joint.kind != JointKind::none) {
        add(Severity::note, "no_peel", "No peel ply under a joint",
            "A face that is bonded wants peel ply, or an hour of abrading.",
            Fix{"Lay peel ply", patch_of("bag", "peel_ply", true)});
    }
    if (f.how != LayUp::infused && !c.breather)
        add(Severity::caution, "no_breather", "Nothing carries the air to the hoses",
            "The film seals itself onto the part where it first touches, and what lies past that is not "
            "emptied.",
            Fix{"Lay breather", patch_of("bag", "breather", true)});
    if (f.how == LayUp::bagged && c.film == ReleaseFilm::solid) {
        add(Severity::note, "no_bleed", "Film without holes lets no resin out",
            "What is too much stays in the part: weigh the resin, or take perforated film.",
            Fix{"Take perforated film", patch_of("bag", "film", "perforated")});
    }
    return out;
}

}  // namespace jig::bag
