#include "core/stages/plug/route.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/times.hpp"
#include "core/science/schedule/timetable.hpp"
#include "core/stages/plug/findings.hpp"

namespace jig::plug::route {

void buy(Plan& plan, const Library& shop, const char* consumable, Kind kind, double amount,
         std::string note) {
    if (amount <= 0) return;
    const auto& c = need(shop.consumables, consumable, "plug");
    plan.needs.push_back({c.name, kind, amount * (1 + c.waste), c.price, std::move(note)});
}

void boards(Plan& plan, const Board& board, int count) {
    if (count <= 0) return;
    plan.needs.push_back({board.name, Kind::count, static_cast<double>(count), board.price,
                          "sheets of " + quantity(Kind::length, board.sheet_length) + " × " +
                              quantity(Kind::length, board.sheet_width)});
}

void work(Plan& plan, std::string what, double hours, double wait) {
    if (hours > 0 || wait > 0) plan.works.push_back({std::move(what), hours, wait});
}

void figure(Plan& plan, const char* key, const char* name, Kind kind, double value, std::string reason) {
    plan.figures.push_back({key, name, kind, value, std::move(reason)});
}

Figure cost_sum(const Plan& plan, double labour) {
    const double bought = plan.cost();
    return {"cost", "cost", Kind::money, bought + plan.hours() * labour,
            fmt::format("materials and machines {} + hands at {:g} an hour", quantity(Kind::money, bought),
                        labour)};
}

void sums(Plan& plan, double accuracy, std::string accuracy_why, double step, std::string step_why,
          double temperature, std::string heat_why, double moulds, std::string moulds_why) {
    plan.sums = {
        {"accuracy", "true to the drawing within", Kind::thickness, accuracy, std::move(accuracy_why)},
        {"surface", "left to sand or fill", Kind::thickness, step, std::move(step_why)},
        {"heat", "good up to", Kind::temperature, temperature, std::move(heat_why)},
        {"moulds", "moulds it will survive", Kind::count, moulds, std::move(moulds_why)}};
}

void mill(const Ask& a, const Block& cut, Plan& plan) {
    const auto& b = plan.block;
    if (a.brief.router_x <= 0 || a.brief.router_y <= 0 || a.brief.router_z <= 0)
        plan.obstacle = "the shop has no router: give its travel in Brief, or have it machined";
    plan.needs.push_back({"router, hours", Kind::hours, b.machine, a.shop.rate("router") / kHour,
                          "running cost of the machine"});
    const double machine = b.machine / kHour;
    work(plan, fmt::format("rough and finish {} part{}", b.parts.size(), b.parts.size() > 1 ? "s" : ""),
         a.shop.rate("setting up the router") * static_cast<double>(b.parts.size()) +
             a.shop.rate("watching the router") * machine,
         (1 - std::min(1.0, a.shop.rate("watching the router"))) * b.machine);
    work(plan, "take the cutter's ridges off", b.by_hand);
    figure(plan, "parts", "parts on the router", Kind::count, static_cast<double>(b.parts.size()),
           fmt::format("block ÷ travel of {} × {} × {}, two dowels in each joint",
                       quantity(Kind::length, a.brief.router_x), quantity(Kind::length, a.brief.router_y),
                       quantity(Kind::length, a.brief.router_z)));
    figure(plan, "removed", "cut away", Kind::volume, b.removed, "block less shape: dust and chips");
    figure(plan, "machine", "on the machine", Kind::hours, b.machine,
           fmt::format("roughing at {} × {}, finishing every {}, feed {:.0f} mm/s, a fifth over for moves",
                       quantity(Kind::thickness, cut.rough_deep), quantity(Kind::thickness, cut.rough_wide),
                       quantity(Kind::thickness, b.step), 1e3 * cut.feed));
    figure(plan, "step", cut.step > 0 ? "step of the finishing passes" : "cheapest step", Kind::thickness,
           b.step,
           cut.step > 0
               ? std::string("your choice above")
               : std::string("where the machine's hours and the hands' on its ridges cost least together"));
    figure(plan, "scallop", "ridges it leaves", Kind::thickness, b.scallop,
           fmt::format("R − √(R² − s²/4) with a ball of {}", quantity(Kind::thickness, cut.cutter)));
    figure(plan, "unreached", "out of the cutter's reach", Kind::area,
           b.reach.too_tight + b.reach.too_deep + b.reach.undercut,
           fmt::format("{} tighter than the ball, {} deeper than it sticks out, {} undercut",
                       quantity(Kind::area, b.reach.too_tight), quantity(Kind::area, b.reach.too_deep),
                       quantity(Kind::area, b.reach.undercut)));
    figure(plan, "stick_out", "stick-out that reaches all", Kind::length, b.reach.deepest,
           "the highest wall within the holder's radius of where the ball rests");
}

TileRules rules_of(const Printing& t) {
    TileRules rules;
    rules.room = {t.room[0], t.room[1], t.room[2]};
    rules.key_radius = t.key;
    rules.key_depth = 2 * t.key;
    return rules;
}

namespace {

/// m² and m³ of printed tiles.
std::pair<double, double> faces_and_volume(const TileSet& set) {
    double surface = 0, volume = 0;
    for (const auto& tile : set.tiles) {
        volume += tile.volume;
        for (std::size_t f = 0; f < tile.mesh.triangles.size(); ++f)
            surface += tile.mesh.area_vector2(f).norm() / 2;
    }
    return {surface, volume};
}

}  // namespace

double printed_mass(const TileSet& set, const Printing& t, const Filament& filament) {
    const auto [surface, volume] = faces_and_volume(set);
    const double walls = std::min(volume, surface * t.wall);
    return (walls + t.infill * (volume - walls)) * filament.density;
}

void print(const Ask& a, const Printing& t, Plan& plan) {
    const auto& filament = need(a.shop.filaments, t.filament, "filament");
    const auto& set = plan.tiles;
    plan.mass = printed_mass(set, t, filament);
    const double n = static_cast<double>(set.tiles.size()), print = plan.mass / t.rate;
    plan.needs.push_back(
        {filament.name, Kind::mass, 1.08 * plan.mass, filament.price, "8 % for starts and supports"});
    plan.needs.push_back(
        {"printer, hours", Kind::hours, print, a.shop.rate("printer") / kHour, "running cost"});
    buy(plan, a.shop, "structural adhesive", Kind::mass, 0.4 * set.face);
    work(plan, fmt::format("print {:.0f} tiles", n), a.shop.rate("setting up the printer") * n,
         print / t.printers);
    work(plan, "glue the tiles and fill their seams", a.shop.rate("joining tiles") * set.seam, 12 * kHour);
    figure(plan, "tiles", "tiles", Kind::count, n,
           fmt::format("{} × {} × {} cuts of the room {} × {} × {}", set.count[0], set.count[1], set.count[2],
                       quantity(Kind::length, t.room[0]), quantity(Kind::length, t.room[1]),
                       quantity(Kind::length, t.room[2])));
    figure(plan, "printing", "time on the printer", Kind::duration, print / t.printers,
           fmt::format("{} ÷ {:.0f} g/h ÷ {} printers", quantity(Kind::mass, plan.mass), t.rate * 3.6e6,
                       t.printers));
    figure(plan, "seams", "seams on the surface", Kind::length, set.seam,
           "where the planes of the cuts meet it");
    figure(plan, "keys", "pegs between tiles", Kind::count, set.keys, "where both tiles have wall for them");
    figure(plan, "mass", "filament", Kind::mass, plan.mass,
           fmt::format("{} of wall on {} of faces, {:.0f} % of the rest", quantity(Kind::thickness, t.wall),
                       quantity(Kind::area, faces_and_volume(set).first), 100 * t.infill));
}

void settle(Plan& plan, const std::vector<FinishStep>& schedule, const Asked& brief, const Library& shop) {
    for (const auto& step : schedule) {
        if (step.amount > 0) plan.needs.push_back({step.product, step.kind, step.amount, step.price, {}});
        plan.works.push_back({step.what, step.hours, step.wait});
    }
    // Days of the plug alone, booked into the shop's shifts.
    std::vector<Task> tasks;
    for (const auto& w : plan.works)
        tasks.push_back(
            {"plug", w.what, w.hours * kHour / std::max(1, brief.people), brief.people, w.wait, true, 0});
    Shift shift;
    shift.length = brief.shift;
    const auto days = timetable(tasks, shift).days;
    const double hours = plan.hours();
    std::vector<Figure> first{
        {"hours", "hands", Kind::hours, hours * kHour, "shop rates × areas, lengths and pieces, finishing counted"},
        {"days", "days", Kind::count, static_cast<double>(days),
         fmt::format("{} steps with their waits, {} people in shifts of {}", tasks.size(), brief.people,
                     quantity(Kind::hours, brief.shift))},
        cost_sum(plan, shop.rate("labour")),
        {"mass", "mass", Kind::mass, plan.mass, value_of(plan.figures, "mass") > 0 ? [&] {
             for (const auto& f : plan.figures) {
                 if (f.key == "mass") return f.reason;
             }
             return std::string();
         }()
                                                                                   : std::string()}};
    plan.sums.insert(plan.sums.begin(), first.begin(), first.end());
}

}  // namespace jig::plug::route
