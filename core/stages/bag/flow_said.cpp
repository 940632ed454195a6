// What is said of a resin's way: figures, calls, and when each hose opens.
#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/stages/bag/flow.hpp"
#include "core/stages/pots.hpp"

namespace jig::bag {
namespace {

/// Typical permeabilities are good to a factor of two either way.
constexpr double kTypical = 2;
/// Of the time to gel that a filling may take.
constexpr double kMargin = 0.7;
/// Of the resin that may run out by the vents.
constexpr double kBleeds = 0.10;
/// Permeability of the library's that a preform may have: as the job's own bounds.
constexpr double kLeastLets = 0.01, kMostLets = 100;
/// kg: larger pots heat themselves whatever they are told.
constexpr double kLargestPot = 10;
/// Dry places smaller than this are the mesh's.
constexpr double kSmallest = 1e-4;
/// Of the drive that hoses may take before they are called thin.
constexpr double kChokes = 0.2;
/// Times as thick as elsewhere that plies may stay where they were fed.
constexpr double kUneven = 1.05;
/// m, holes that a shut core is offered. Typical.
constexpr double kHole = 0.003, kHolePitch = 0.04;

/// Part or shell with holes in every core.
Json bored(Infused of, part::Choices part) {
    const auto bore = [](std::vector<Layer>& layers) {
        for (auto& l : layers) {
            if (l.kind != LayerKind::core || l.cut.hole > 0) continue;
            l.cut.hole = kHole;
            l.cut.hole_pitch = kHolePitch;
        }
    };
    bore(part.layers);
    if (of == Infused::shell) return Json{{"shell", {{"layers", to_json_value(part.layers)}}}};
    for (auto& zone : part.zones) bore(zone.layers);
    return Json{{"part", {{"layers", to_json_value(part.layers)}, {"zones", to_json_value(part.zones)}}}};
}

/// Of a preform that is not full: rounded down, so that it never says 100 %.
std::string filled_words(double share) {
    const double hundredths = std::floor(share * 1e4) / 100;
    return fmt::format("{:.{}f} %", share < 0.99 ? std::floor(hundredths) : hundredths, share < 0.99 ? 0 : 2);
}

std::string place_words(const Flow& flow, const Point& at) {
    const Point2 p = FlowGround(*flow.face, flow.frame).seen(at);
    return quantity(Kind::length, p.x()) + " along, " + quantity(Kind::length, p.y()) + " across";
}

}  // namespace

namespace {

std::string pot_words(const FeedPot& pot) {
    const auto when = pot.mixed < 0 ? quantity(Kind::duration, -pot.mixed) + " before"
                                    : "after " + quantity(Kind::duration, pot.mixed);
    return quantity(Kind::mass, pot.mass) + " mixed " + when +
           (pot.from > 0 ? ", drawn from after " + quantity(Kind::duration, pot.from) : std::string());
}

/// Whole millimetres of bore at which hoses take a tenth of the drive, or as much as the widest takes.
double wide_bore(const Flow& f, const Infusion& c) {
    // Two resistances in series, of which the hose's is to be a ninth of the other. Where hardly anything is
    // left of the drive nobody knows the other: then wider by a few times, and asked again.
    const double share = std::min(0.98, f.choked / f.drive);
    const double wanted = c.bore * std::pow(9 * share / (1 - share), 0.25);
    return std::min(0.05, std::ceil(1000 * wanted) / 1000);
}

}  // namespace

Infusion with_own_ports(Infusion infusion, const Flow& flow) {
    if (infusion.plan == InfusionPlan::own) return infusion;
    infusion.plan = InfusionPlan::own;
    infusion.ports.clear();
    for (const auto& p : flow.ports) infusion.ports.push_back(p.port);
    return infusion;
}

std::string opening_words(const Flow& flow, std::size_t feed) {
    const auto& port = flow.ports[feed].port;
    const auto& given = flow.filling.feeds[feed];
    auto out = std::string(said(port.opens));
    if (port.opens == PortOpens::start) return out;
    if (!given.opened) return out + ": never";
    return out + ", after " + quantity(Kind::duration, *given.opened);
}

std::vector<Figure> flow_figures(const Flow& f, const Infusion& c) {
    std::vector<Figure> out;
    if (!f.runs) return out;
    const bool shell = f.of == Infused::shell;
    const auto add = [&](const std::string& key, const std::string& name, Kind kind, double value,
                         std::string reason) {
        out.push_back(
            {(shell ? "shell_" : "") + key, (shell ? "shell: " : "") + name, kind, value, std::move(reason)});
    };
    const auto mesh = fmt::format("control volumes on {} triangles, {} edge{}", f.face->triangles.size(),
                                  quantity(Kind::length, f.edge),
                                  f.fine ? "" : ", coarse: a fine one is followed behind it");
    const std::string from =
        c.lets == 1
            ? fmt::format("permeability as is typical: half or {:g} times as long may be true", kTypical)
            : fmt::format("permeability {:.2f} times the library's, as your fronts showed", c.lets);
    if (f.filling.fill)
        add("fill", "full after", Kind::duration, *f.filling.fill,
            fmt::format("{:.2g} Pa·s at first, {} between pot and vents; {}; {}", f.viscosity,
                        quantity(Kind::pressure, f.drive), from, mesh));
    else
        // Rounded down, so that what is not full never reads as if it were.
        add("filled", "it fills", Kind::ratio, std::floor(f.filling.filled * 100) / 100,
            "share of the preform's pores until the resin gels or stands; " + mesh);
    if (f.gel)
        add("flow_gel", "its resin gels after", Kind::duration, *f.gel,
            "by its cure at the heat at which the " + std::string(shell ? "shell" : "part") +
                " gels, mixed " + quantity(Kind::duration, c.waited) + " before the first feed opens");
    add("flow_resin", "resin that goes in", Kind::mass, f.filling.taken,
        quantity(Kind::mass, f.filling.held) + " stay in cloth, core and medium, " +
            quantity(Kind::mass, f.filling.bled) + " run out by the vents");
    for (std::size_t i = 0; i < f.filling.feeds.size(); ++i)
        add("flow_" + std::to_string(i + 1), f.ports[i].name + " takes", Kind::mass, f.filling.feeds[i].mass,
            "opens " + opening_words(f, i));
    if (f.filling.last && f.filling.fill)
        add("flow_last", "filled last, from the middle of the face", Kind::length,
            FlowGround(*f.face, f.frame).seen(*f.filling.last).norm(),
            place_words(f, f.face->points[*f.filling.last]));
    if (f.lag.length > 0)
        add("flow_lag", "front under the medium behind it by", Kind::length, f.lag.length,
            "resin goes down through the preform while the medium carries it on" +
                (f.lag_time > 0 ? ": " + quantity(Kind::duration, f.lag_time) + " at the mean speed"
                                : std::string()));
    if (c.hose > 0)
        add("flow_hoses", "hoses take of the drive", Kind::pressure, f.choked,
            "on average, of the feed that loses most: " + quantity(Kind::length, c.hose) +
                " with a bore of " + quantity(Kind::length, c.bore) + " each; they hold " +
                quantity(Kind::mass, f.hoses) + " of resin, and are filled before anything runs");
    if (!f.pots.empty()) {
        std::string said;
        for (std::size_t i = 0; i < f.pots.size() && i < 4; ++i)
            said += (i > 0 ? "; " : "") + pot_words(f.pots[i]);
        if (f.pots.size() > 4) said += fmt::format("; and {} more", f.pots.size() - 4);
        if (f.aged) said += "; each runs by its own age";
        add("flow_pots", "pots in turn", Kind::count, static_cast<double>(f.pots.size()), std::move(said));
    }
    if (f.thickness) {
        const auto& t = *f.thickness;
        add("flow_thick_full", "plies at their thickest when it is full", Kind::factor, t.full,
            "times what the full vacuum leaves: where it is fed the resin bears the load; " +
                quantity(Kind::mass, t.over) + " lie in it for that");
        add("flow_thick", "and when it gels", Kind::factor, t.end,
            c.when_full == WhenFull::clamp ? "hoses clamped: what lies in it evens out and stays"
                                           : "the vents draw " + quantity(Kind::mass, t.drawn) +
                                                 " off in the " + quantity(Kind::duration, t.wait) +
                                                 " that are left; thickest at " + place_words(f, t.at));
    }
    add("flow_line", "spiral line", Kind::length, f.line(), "feeds and vents as they lie on the face");
    if (f.fit)
        add("flow_seen", "your fronts: it lets through, of the library's", Kind::factor, f.fit->lets,
            f.fit->spread ? fmt::format("{} marks; times or divided by {:.2f}, 19 times in 20", f.fit->marks,
                                        *f.fit->spread)
                          : std::string("one mark: nobody knows how far it is out"));
    return out;
}

Calls flow_calls(const Flow& f, const Infusion& c, const Preform& preform) {
    Calls out;
    const bool shell = f.of == Infused::shell;
    const char *const own_field = shell ? "shell_infusion" : "infusion", *const what =
                                                                             shell ? "shell" : "part";
    const auto* raced = preform.raced;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        if (shell) {
            headline.front() = static_cast<char>(std::tolower(static_cast<unsigned char>(headline.front())));
            headline = "Shell: " + headline;
        }
        out.push_back({Stage::bag, s, (shell ? "shell_" : "") + std::string(key), std::move(headline),
                       std::move(why), std::move(fix)});
    };
    const auto set = [&](const char* field, Json value) {
        Json patch = Json::object();
        patch["bag"][own_field][field] = std::move(value);
        return patch;
    };
    if (!f.fault.empty()) {
        auto said = f.fault;
        said.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(said.front())));
        const bool gelled = f.gel && *f.gel <= 0;
        add(Severity::stop, gelled ? "gelled" : "hoses", std::move(said), "To mend it: " + f.mend + ".",
            gelled ? Fix{"Open it as soon as it is mixed", set("waited", 0.0)}
                   : Fix{"Take a line along the face", set("plan", "spine")});
    }
    if (!f.runs) return out;
    std::optional<Fix> medium;
    if (!c.medium) medium = Fix{"Lay a flow medium", set("medium", true)};
    const auto& fill = f.filling;
    if (f.shut_core)
        add(Severity::stop, "shut_core", "The core lets no resin through to the skin under it",
            "A core without holes parts the skins: what lies on the tool stays dry. Figures here take both "
            "skins as fed.",
            Fix{"Bore holes of " + quantity(Kind::length, kHole) + " every " +
                    quantity(Kind::length, kHolePitch),
                bored(f.of, preform.stack)});
    if (f.drive <= f.rise || f.drive <= 0)
        add(Severity::stop, "no_drive",
            "The resin has " + quantity(Kind::pressure, f.rise) + " to climb and " +
                quantity(Kind::pressure, std::max(0.0, f.drive)) + " to drive it",
            "The height of the face takes all that the vacuum gives: raise the pot, or draw deeper.",
            c.below > 0 ? std::optional(
                              Fix{shell ? "Set the pot level with the top" : "Set the pot level with the rim",
                                  set("below", 0.0)})
                        : std::nullopt);
    else if (f.rise > 0.3 * f.drive)
        add(Severity::caution, "tall",
            "The height of the face takes " + quantity(Kind::pressure, f.rise) + " of " +
                quantity(Kind::pressure, f.drive),
            "The fibre share will differ from rim to deepest place, and the last of it fills slowly.");
    double dry = 0;
    for (const auto& d : fill.dry) dry += d.area;
    if (dry > 0 && !fill.fill) {
        std::optional<Fix> fix;
        // Another vent there: from then on the hoses are the maker's own.
        auto own = with_own_ports(c, f);
        const Point2 at = FlowGround(*f.face, f.frame).seen(fill.dry.front().at);
        Port vent;
        vent.use = PortUse::vent;
        vent.along = at.x();
        vent.across = at.y();
        own.ports.push_back(vent);
        fix = Fix{"Put a vent there", Json{{"bag", {{own_field, to_json_value(own)}}}}};
        add(dry > std::min(kSmallest, 1e-3 * f.area) ? Severity::stop : Severity::caution, "dry",
            fmt::format("{} of the face stay dry{}", quantity(Kind::area, dry),
                        fill.dry.size() > 1 ? fmt::format(" in {} places", fill.dry.size()) : std::string()),
            "Resin closes round it while no vent draws there: the largest at " +
                place_words(f, fill.dry.front().at) + ".",
            std::move(fix));
        out.back().at = fill.dry.front().at;
    }
    // What is left beside the dry places, and by more than their edges on the mesh.
    if (!fill.fill && (dry <= 0 || (1 - fill.filled) * f.area - dry > 0.02 * f.area)) {
        const bool gels = fill.gelled || (f.gel && *f.gel <= 86400);
        add(Severity::stop, gels ? "gels_first" : "never_full",
            gels ? fmt::format("The resin gels after {} with {} of the preform filled",
                               quantity(Kind::duration, f.gel.value_or(0)), filled_words(fill.filled))
                 : fmt::format("The preform fills to {} in a day and no further", filled_words(fill.filled)),
            "A slower hardener, more lines, a flow medium or a shorter way; warmer resin runs better and "
            "gels "
            "sooner.",
            medium);
    } else if (fill.fill && f.gel && *fill.fill > kMargin * *f.gel) {
        add(Severity::caution, "gel_margin",
            "Full after " + quantity(Kind::duration, *fill.fill) + "; the resin gels after " +
                quantity(Kind::duration, *f.gel),
            "Permeability is good to a factor of two: seven tenths of the time to gel are a usual margin.",
            medium);
    }
    if (fill.bled > kBleeds * std::max(fill.held, 1e-9)) {
        add(Severity::caution, "vent_early",
            quantity(Kind::mass, fill.bled) + " of resin run out by the vents before it is full",
            "Resin comes to a vent while other places are dry: a wider brake, or a vent farther off; clamp "
            "it when no bubbles come.");
    }
    if (c.medium && c.brake < f.brake) {
        const double needed = std::ceil(f.brake * 100) / 100;
        add(Severity::caution, "no_brake",
            "The medium ends " + quantity(Kind::length, c.brake) + " before the vents; " +
                quantity(Kind::length, f.brake) + " let the cloth under it catch up",
            "Its front is " + quantity(Kind::length, f.lag.length) +
                " behind: resin reaches the vent over the top of cloth that is still dry.",
            Fix{"End it " + quantity(Kind::length, needed) + " before them", set("brake", needed)});
    }
    const double drawn = fill.taken + f.hoses + (f.thickness ? f.thickness->over : 0);
    const double mixed = preform.mixed * preform.share;
    if (fill.fill && mixed < 1.02 * drawn) {
        const double lacks = (1.05 * drawn - mixed) / std::max(preform.share, 1e-9);
        // To the next tenth of a kilogram.
        const double needed = std::ceil((preform.stack.pot_loss + lacks) * 10) / 10;
        add(Severity::caution, "runs_dry",
            quantity(Kind::mass, mixed) + " are mixed for the " + what + "; " + quantity(Kind::mass, drawn) +
                " are drawn in",
            "Flow medium, holes, vents, hoses and plies that swell take resin too: a feed that draws air "
            "spoils the " +
                std::string(what) + ".",
            Fix{"Mix " + quantity(Kind::mass, needed) + " more than the laminate takes",
                patch_of(what, "pot_loss", needed)});
    }
    if (preform.goes > 1)
        add(Severity::note, "goes",
            fmt::format("What may be laid at once is passed: it is filled in {} goes", preform.goes),
            "Its heat allows no more (see Shell). The resin is followed here through the whole stack as if "
            "it were "
            "filled at once.");
    for (std::size_t i = 0; i < fill.feeds.size(); ++i) {
        if (!fill.feeds[i].opened && f.ports[i].port.opens != PortOpens::start)
            add(Severity::caution, "feed_waits", f.ports[i].name + " never opens",
                "The resin that it waits for does not come: open it by the clock, or take it away.");
    }
    if (f.pot_life > 0 && c.waited > kUsedOfLife * f.pot_life)
        add(Severity::caution, "pot_old",
            "A pot is " + quantity(Kind::duration, c.waited) + " old when it is opened; it lasts " +
                quantity(Kind::duration, f.pot_life),
            "It thickens and heats in the pot before it is drawn: mix it later.",
            Fix{"Mix it five minutes before", set("waited", 300.0)});
    else if (f.pots.size() > 1) {
        // Whether one pot would do if it were as large as that.
        const bool lasts = !fill.fill || *fill.fill + c.waited <= kUsedOfLife * f.pot_life;
        double whole = 0;
        for (const auto& pot : f.pots) whole += pot.mass;
        const double larger = std::ceil(10 * whole) / 10;
        const bool more = f.pots.size() > kMostPots;
        add(Severity::caution, "pots",
            more ? fmt::format("It is fed from more than {} pots in turn", kMostPots)
                 : fmt::format("It is fed from {} pots in turn", f.pots.size()),
            (lasts ? "A pot holds " + quantity(Kind::mass, c.pot)
                   : "The filling takes " + quantity(Kind::duration, fill.fill.value_or(0)) +
                         "; a pot lasts " + quantity(Kind::duration, f.pot_life)) +
                (more ? ", and no more of them are written down" : "") +
                ": the next stands mixed beside the hose before the last is empty, and no hose ever draws "
                "air. A large pot heats itself sooner than its data sheet's.",
            lasts && !more && larger <= kLargestPot
                ? std::optional(Fix{"Mix " + quantity(Kind::mass, larger) + " at once", set("pot", larger)})
                : std::nullopt);
    }
    if (f.choked > kChokes * f.drive && f.drive > 0) {
        const double bore = wide_bore(f, c);
        // A part that is full in good time only waits for its hoses.
        const bool in_time = fill.fill && (!f.gel || *fill.fill <= kMargin * *f.gel);
        add(in_time ? Severity::note : Severity::caution, "thin_hose",
            "The hoses take " + quantity(Kind::pressure, std::min(f.choked, f.drive)) + " of " +
                quantity(Kind::pressure, f.drive) + " on average",
            "Resin is slow in " + quantity(Kind::length, c.hose) + " with a bore of " +
                quantity(Kind::length, c.bore) + ": shorter or wider ones fill it sooner.",
            bore > c.bore
                ? std::optional(Fix{"Take hoses of " + quantity(Kind::length, bore), set("bore", bore)})
                : std::nullopt);
    }
    if (f.thickness && f.thickness->end > kUneven) {
        add(Severity::caution, "uneven",
            fmt::format("Plies gel {:.0f} % thicker at {} than where the vacuum holds",
                        100 * (f.thickness->end - 1), place_words(f, f.thickness->at)),
            c.when_full == WhenFull::clamp
                ? "With every hose clamped the resin that is over has no way out."
                : "Resin that is over has no time to leave before it gels: a slower hardener, a vent nearer "
                  "to the feed, or a lower pot.",
            c.when_full == WhenFull::clamp
                ? std::optional(Fix{"Let the vents draw on", set("when_full", "draw_on")})
                : std::nullopt);
        out.back().at = f.thickness->at;
    }
    if (fill.unsettled > 0)
        add(Severity::note, "unsettled",
            fmt::format("{} of {} steps of the filling did not settle", fill.unsettled, fill.steps),
            "The front after them is worth so much less.");
    // To three figures.
    const auto three = [](double v) {
        const double step = std::pow(10, std::floor(std::log10(v)) - 2);
        return std::round(v / step) * step;
    };
    if (raced != nullptr && std::abs(std::log(raced->race / c.race)) > 0.05) {
        const double lets = std::clamp(three(raced->fit.lets), kLeastLets, kMostLets),
                     race = three(raced->race);
        Json patch = set("lets", lets);
        patch["bag"]["infusion"]["race"] = race;
        add(Severity::note, "fronts_race",
            fmt::format("Your fronts say that resin runs {:.3g} times as well along the rim; {:.3g} is used",
                        race, c.race),
            fmt::format(
                "{} marks then lie within a factor of {:.2f}, which they miss by {:.2f} as it is; the "
                "rest lets through {:.3g} times what the library says.",
                raced->fit.marks, raced->fit.off, raced->off_before, lets),
            Fix{fmt::format("Use {:.3g} times along the rim and {:.3g} elsewhere", race, lets),
                std::move(patch)});
    } else if (f.fit && std::abs(std::log(f.fit->lets / c.lets)) > 0.1 && f.fit->marks >= 3) {
        // What is a hundred times off is a slip of the clock or of the plan.
        const double lets = three(f.fit->lets);
        const bool believed = lets >= kLeastLets && lets <= kMostLets;
        add(Severity::note, "fronts_differ",
            fmt::format("Your fronts say {:.3g} times the library's permeability; {:.3g} is used",
                        f.fit->lets, c.lets),
            believed ? "Marked at the bench, they outrank a typical figure."
                     : "So far off it is no preform: look at the clock, the places and the plan of hoses.",
            believed ? std::optional(Fix{fmt::format("Use {:.3g} times", lets), set("lets", lets)})
                     : std::nullopt);
    }
    return out;
}

}  // namespace jig::bag
