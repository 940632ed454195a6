#include "core/stages/heat/oven.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/heat/oven_box.hpp"

namespace jig::heat {
namespace {

constexpr double kSolid =
    1200;  ///< J/(kg·K) of laminate, board and foam; typical, steel and aluminium are less
constexpr double kBetween = 0.05;          ///< m of air between two tools
constexpr double kRisesFrom = 0.5 / 3600;  ///< K/s, slower than which no programme is offered

/// What the air gives to the common wall of a cure, on the sides that it meets.
HeatTaken taken_by(const CureRun& run, double area) {
    const auto& h = run.cured.history;
    const auto follow = follows(run.of);
    HeatTaken out{area, h.times, std::vector<double>(h.times.size(), 0)};
    const std::array<const WallPlace*, 2> faces{&h.places.front(), &h.places.back()};
    for (std::size_t i = 0; i < 2; ++i) {
        const auto& side = run.wall.sides[i];
        if (!follow[i] || !side.transfer) continue;
        for (std::size_t t = 0; t < h.times.size(); ++t)
            out.flux[t] += *side.transfer * (run.cured.air.at(h.times[t]) - faces[i]->T[t]);
    }
    return out;
}

/// J/(m²·K) of a wall.
double capacity_of(const Wall& wall) {
    double out = 0;
    for (const auto& l : wall.layers) out += l.thickness * l.density * l.capacity;
    return out;
}

/// K at which an oven loses as much as its heater gives.
double held_by(const OvenBox& box, double power, double room) {
    double low = room, high = 2000;
    for (int i = 0; i < 60; ++i) {
        const double middle = (low + high) / 2;
        (oven_loss(box, middle, room) < power ? low : high) = middle;
    }
    return low;
}

/// K/s at which the heater keeps up whatever the wall does: it takes no more than all of it warming as fast
/// as the air. None where it keeps up as it is, or at no rate.
std::optional<double> kept_up(const OvenBox& box, const CureRun& run, double area, double power, double most,
                              double room) {
    const double left = power - oven_loss(box, run.highest_air, room);
    if (power <= 0 || most <= power || left <= 0) return {};
    OvenBox still = box;
    still.walls = still.changes = 0;
    // Its own air with it: what a kelvin takes at the room's heat, where it is heaviest.
    const double own = oven_heat(still, {{{0, room}, {1, room + 1}}}, room, {}).stands;
    const double rate = left / (own + area * capacity_of(run.wall));
    return rate >= kRisesFrom ? std::optional(rate) : std::nullopt;
}

/// m² of a cure's common wall, and kg that no wall was worked out for: flange beyond the part, doublers,
/// back, all of a part but its joint.
std::pair<double, double> warmed_by(const CureRun& run, const shell::Findings& shell,
                                    const back::Choices& choices, const back::Findings& back,
                                    const part::Findings& part) {
    const auto tool_but = [&](double area) {
        return back.mass + std::max(0.0, shell.mass - area * shell.stack.laminate.areal_mass);
    };
    switch (run.of) {
        case CureOf::on_plug:
            return {shell.area, 0};
        case CureOf::with_back:
            // A sandwich lies all over it, in the wall.
            return {shell.area, choices.kind == BackKind::sandwich ? 0 : tool_but(shell.area)};
        case CureOf::post_cure:
            return {shell.area, tool_but(shell.area)};
        case CureOf::joined:
            return {part.joint.lap * part.joint.length, part.mass + (run.free ? 0 : shell.mass + back.mass)};
        case CureOf::part_free:
            return {part.area, 0};
        case CureOf::part_first:
        case CureOf::part_next:
        case CureOf::part:
            break;
    }
    const double area = std::min(part.area, shell.area);
    return {area, tool_but(area)};
}

double goes_by(const CureRun& run) {
    double out = 0;
    for (const auto& leg : run.legs) out = std::max(out, leg.rate);
    return out;
}

}  // namespace

const CureHeat* OvenUse::find(CureOf of) const {
    for (const auto& c : cures) {
        if (c.of == of) return &c;
    }
    return nullptr;
}

int boxes_in(const std::array<double, 3>& box, const std::array<double, 3>& oven) {
    std::array<std::size_t, 3> turned{0, 1, 2};
    int most = 0;
    do {
        double all = 1;
        for (std::size_t i = 0; i < 3; ++i) {
            const double size = box[turned[i]];
            // A hair over, lest a box of the oven's own size falls to rounding.
            all *= size > 0 ? std::max(0.0, std::floor((oven[i] + kBetween) / (size + kBetween) + 1e-9)) : 0;
        }
        most = std::max(most, static_cast<int>(std::min(all, 1e6)));
    } while (std::next_permutation(turned.begin(), turned.end()));
    return most;
}

OvenUse oven_use(const Choices& c, const brief::Rooms& brief, const Cures& cures, const edge::Findings& edge,
                 const shell::Findings& shell, const back::Choices& back_choices, const back::Findings& back,
                 const part::Findings& part, const OvenLibrary& shop) {
    OvenUse out;
    out.build = need(shop.ovens, c.oven.build, "heat");
    out.power = c.oven.power;
    out.tools = c.oven.tools;
    const std::array<double, 3> size{brief.oven_x, brief.oven_y, brief.oven_z};
    out.tool = back::tool_box(edge, shell, back_choices);
    if (out.tool) out.goes_in = boxes_in(*out.tool, size);
    const auto box = box_of(brief, out.build);
    if (out.power > 0 && box.area > 0) out.holds = held_by(box, out.power, c.room);
    const auto ends = ends_of(c.oven, c.room);
    for (const auto& run : cures.runs) {
        if (run.highest_air <= c.room + kWarm) continue;
        const auto [area, rest] = warmed_by(run, shell, back_choices, back, part);
        auto with = box;
        with.stands = kSolid * (rest * out.tools + c.oven.others);
        CureHeat heat;
        heat.of = run.of;
        heat.heat = oven_heat(with, run.cured.air, c.room, {taken_by(run, area * out.tools)});
        heat.cool = run.hottest_air(ends.cool);
        heat.climbs = kept_up(with, run, area * out.tools, out.power, heat.heat.most, c.room);
        out.cures.push_back(heat);
    }
    return out;
}

const OvenSpot* coolest(const Oven& oven) {
    const auto least = std::min_element(oven.map.begin(), oven.map.end(),
                                        [](const OvenSpot& a, const OvenSpot& b) { return a.off < b.off; });
    return least != oven.map.end() && least->off < 0 ? &*least : nullptr;
}

const OvenSpot* warmest(const Oven& oven) {
    const auto most = std::max_element(oven.map.begin(), oven.map.end(),
                                       [](const OvenSpot& a, const OvenSpot& b) { return a.off < b.off; });
    return most != oven.map.end() && most->off > 0 ? &*most : nullptr;
}

std::string said_of(const OvenSpot& spot) {
    const auto third = [](double share, const char* low, const char* middle, const char* high) {
        return std::string(share < 1.0 / 3 ? low : share > 2.0 / 3 ? high : middle);
    };
    return third(spot.z, "low, ", "half high, ", "high, ") +
           third(spot.x, "at the door, ", "half way in, ", "at the back, ") +
           third(spot.y, "left", "middle", "right");
}

void oven_figures(const Choices& c, const OvenUse& use, std::vector<Figure>& out) {
    for (const auto& cure : use.cures) {
        const std::string key = "oven_" + std::string(file_word(cure.of)), name(said(cure.of));
        const auto& h = cure.heat;
        out.push_back({key + "_energy", name + ", energy", Kind::energy, h.heater / use.tools,
                       "through the walls of a " + use.build.name + " " + quantity(Kind::energy, h.walls) +
                           ", with its air " + quantity(Kind::energy, h.air) + ", and " +
                           quantity(Kind::energy, h.warmed) +
                           " to warm its lining and what stands in it, of which " +
                           quantity(Kind::energy, h.warmed - std::max(0.0, h.heater - h.walls - h.air)) +
                           " then make up for losses while it cools" +
                           (use.tools > 1 ? fmt::format("; shared by {} tools in one load", use.tools)
                                          : std::string())});
        out.push_back({key + "_power", name + ", heater at most", Kind::power, h.most,
                       "after " + quantity(Kind::duration, h.most_at) +
                           (use.power > 0 ? "; its heater gives " + quantity(Kind::power, use.power)
                                          : "; what the oven's heater gives has not been said")});
    }
    if (use.cures.empty()) return;
    out.push_back(
        {"oven_goes_in", "such tools in one load", Kind::count, static_cast<double>(use.goes_in),
         "with flange and back, in rows with " + quantity(Kind::length, kBetween) +
             " of air between them, turned whichever way takes most" +
             (c.oven.map.empty() ? "; the oven has no map, so its ends are taken as warm as it is set"
                                 : "")});
}

void oven_calls(const Cures& cures, const OvenUse& use, bool judged, Calls& out) {
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::heat, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    for (const auto& cure : use.cures) {
        const auto* run = cures.find(cure.of);
        if (run == nullptr || use.power <= 0 || cure.heat.most <= use.power * 1.005) continue;
        const std::string name(said(cure.of));
        if (use.holds && run->highest_air > *use.holds) {
            add(Severity::stop, "oven_cold",
                "The oven never comes to " + quantity(Kind::temperature, run->highest_air) + " (" + name +
                    "): its heater holds " + quantity(Kind::temperature, *use.holds),
                "Walls and air lose all that it gives by then: cooler and longer, a smaller or better lined "
                "room round the tool, or more heat.");
            continue;
        }
        std::optional<Fix> fix;
        if (cure.climbs) {
            auto legs = run->legs;
            for (auto& leg : legs) leg.rate = std::min(leg.rate, *cure.climbs);
            Json patch = Json::object();
            patch["heat"][std::string(file_word(cure.of))] = to_json_value(legs);
            fix = Fix{"Climb by " + quantity(Kind::heating, *cure.climbs), std::move(patch)};
        }
        add(Severity::caution, "oven_weak",
            "To climb by " + quantity(Kind::heating, goes_by(*run)) + " takes " +
                quantity(Kind::power, cure.heat.most) + "; its heater gives " +
                quantity(Kind::power, use.power) + " (" + name + ")",
            "The oven falls behind its programme, and all that is worked out by it comes later. What it "
            "keeps "
            "up with is reckoned on the safe side.",
            std::move(fix));
    }
    if (!use.cures.empty() && use.tool && use.goes_in == 0 && !judged) {
        const auto& tool = *use.tool;
        // Air all round, and a hand's breadth for what it stands on.
        constexpr double kRound = 0.3;
        const auto tent = [&](std::size_t i) { return std::ceil((tool[i] + kRound) * 10) / 10; };
        add(Severity::caution, "oven_small",
            "The tool, " + quantity(Kind::length, tool[0]) + " × " + quantity(Kind::length, tool[1]) + " × " +
                quantity(Kind::length, tool[2]) + ", does not go into the oven in which it is to cure",
            "Brief says how large that is. A tent with a heater goes round any tool, with ends of its own "
            "that "
            "want a map; a narrower flange or a lower back may do as well.",
            Fix{"Put a tent of quilts round it",
                Json{{"brief", {{"oven_x", tent(0)}, {"oven_y", tent(1)}, {"oven_z", tent(2)}}},
                     {"heat",
                      {{"oven",
                        {{"build", "tent of quilts with a heater"},
                         {"map", Json::array()},
                         {"power", 0}}}}}}});
    }
    if (!use.cures.empty() && use.tools > std::max(1, use.goes_in))
        add(Severity::caution, "oven_full",
            fmt::format("{} such tools are to share a load, and {} go in", use.tools, use.goes_in),
            "Counted as boxes in rows with air between them; racks and shelves are not.",
            Fix{fmt::format("Load {}", std::max(1, use.goes_in)),
                Json{{"heat", {{"oven", {{"tools", std::max(1, use.goes_in)}}}}}}});
}

}  // namespace jig::heat
