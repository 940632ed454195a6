// The seven routes, one function each: what is cut, bought and done.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/times.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/schedule/timetable.hpp"
#include "core/stages/plug/findings.hpp"

namespace jig::plug {
namespace {

/// What every route is told.
struct Ask {
    const Choices& c;
    const Body& body;
    const shape::Choices& shape;
    Asked brief;
    Library shop;
    Progress& progress;
};

void buy(Plan& plan, const Library& shop, const char* consumable, Kind kind, double amount,
         std::string note = {}) {
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

void work(Plan& plan, std::string what, double hours, double wait = 0) {
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

/// The sums that routes are compared by, but for hours, days and cost, which follow from the plan.
void sums(Plan& plan, double accuracy, std::string accuracy_why, double step, std::string step_why,
          double temperature, std::string heat_why, double moulds, std::string moulds_why) {
    plan.sums = {
        {"accuracy", "true to the drawing within", Kind::thickness, accuracy, std::move(accuracy_why)},
        {"surface", "left to sand or fill", Kind::thickness, step, std::move(step_why)},
        {"heat", "good up to", Kind::temperature, temperature, std::move(heat_why)},
        {"moulds", "moulds it will survive", Kind::count, moulds, std::move(moulds_why)}};
}

void slab_route(const Ask& a, Plan& plan) {
    const auto& board = need(a.shop.boards, a.c.board, "plug board");
    plan.slabs = slab_plan(a.c, a.body, board, a.progress);
    const auto& s = plan.slabs;
    const auto n = static_cast<double>(s.stack.slabs.size());
    plan.frame = s.stack.frame;
    plan.mass = s.stack.volume * board.density;
    boards(plan, board, s.sheets);
    buy(plan, a.shop, "foam adhesive", Kind::mass, s.glue);
    buy(plan, a.shop, "light fairing filler", Kind::mass,
        s.to_fill * need(a.shop.consumables, "light fairing filler", "plug").density);
    work(plan, fmt::format("cut {:.0f} slabs", n),
         a.shop.rate("cutting slabs") * s.cut_length * (a.c.slabs.bevel ? 1.25 : 1));
    work(plan, "pin and glue the stack", a.shop.rate("gluing slabs") * n, 12 * kHour);
    const double share = (a.c.slabs.fit == SlabFit::oversize ? 1.0
                          : a.c.slabs.fit == SlabFit::middle ? 0.7
                                                             : 0.4) *
                         (a.c.slabs.bevel ? 0.5 : 1.0);
    work(plan, "fill the steps", a.shop.rate("filling steps") * s.to_fill * 1e3,
         s.to_fill > 0 ? 8 * kHour : 0);
    work(plan, "sand the steps fair", board.shaping * a.body.area * share);
    figure(plan, "slabs", "slabs", Kind::count, n,
           quantity(Kind::length, plan.slabs.stack.slabs.back().to - plan.slabs.stack.slabs.front().from) +
               " ÷ sheet " + quantity(Kind::length, board.thickness) + ", rounded up");
    const auto inside = std::count_if(s.inside.begin(), s.inside.end(), [](int i) { return i >= 0; });
    figure(
        plan, "sheets", "sheets of stock", Kind::count, s.sheets,
        fmt::format("outlines with margins ÷ ({} a sheet × {:.0f} % used), rounded up{}",
                    quantity(Kind::area, board.sheet_length * board.sheet_width), 100 * (1 - a.c.waste),
                    inside > 0 ? fmt::format("; {} slabs come out of larger ones", inside) : std::string()));
    figure(plan, "stack_volume", "volume of the stack", Kind::volume, s.stack.volume,
           fmt::format("slab areas × thickness{}; the shape's own is {}",
                       a.c.slabs.hollow ? ", hollows off" : "", quantity(Kind::volume, a.body.volume)));
    figure(plan, "mass", "mass of the stack", Kind::mass, plan.mass,
           "volume × " + quantity(Kind::density, board.density));
    figure(plan, "cut_length", "length of cuts", Kind::length, s.cut_length, "all slab outlines and hollows");
    figure(plan, "glue", "adhesive", Kind::mass, s.glue, "250 g/m² of joint, typical");
    if (s.to_sand > 0)
        figure(plan, "to_sand", "steps to sand off", Kind::volume, s.to_sand,
               "stack less shape" +
                   std::string(a.c.slabs.bevel ? ", a quarter of it where edges are bevelled" : "") +
                   fmt::format("; {} deep on average", quantity(Kind::thickness, s.to_sand / a.body.area)));
    if (s.to_fill > 0)
        figure(plan, "to_fill", "steps to fill", Kind::volume, s.to_fill,
               fmt::format("shape less stack; {} deep on average",
                           quantity(Kind::thickness, s.to_fill / a.body.area)));
    double steepest = 0;
    for (const auto& slab : s.bevels) {
        for (const auto& bevel : slab) steepest = std::max(steepest, std::abs(bevel.angle));
    }
    figure(plan, "bevel", "steepest bevel", Kind::angle, steepest,
           "lean of the wall through a slab; each slab's own stands on its sheet");
    figure(plan, "pin_sets", "sets of pins", Kind::count, s.pin_groups,
           "two pins through every slab; a new set begins on the slab where the last one runs out of wall");
    const double joints = 3e-4 * std::sqrt(n);
    sums(plan, std::hypot(joints, 5e-4),
         fmt::format("0.3 mm of sheet thickness and glue × √{:.0f} joints, and 0.5 mm of sanding by hand", n),
         (s.to_sand + s.to_fill) / a.body.area, "volume of the steps ÷ surface", board.top_temperature,
         "the board's own, from the shop library", board.density < 200 ? 1 : 4,
         board.density < 200 ? "soft foam: dents and solvent usually end it with the first mould"
                             : "hard board: worn by demoulding and waxing; typical");
}

void block_route(const Ask& a, Plan& plan) {
    const auto& board = need(a.shop.boards, a.c.block.board, "block board");
    plan.frame = a.body.frame;
    plan.block = block_plan(a.c, a.body, board, a.brief, a.shop, a.progress);
    const auto& b = plan.block;
    if (a.brief.router_x <= 0 || a.brief.router_y <= 0 || a.brief.router_z <= 0)
        plan.obstacle = "the shop has no router: give its travel in Brief, or have it machined";
    plan.mass = a.body.volume * board.density;
    boards(plan, board, b.boards);
    buy(plan, a.shop, "foam adhesive", Kind::mass, 0.3 * b.glue_area);
    plan.needs.push_back({"router, hours", Kind::hours, b.machine, a.shop.rate("router") / kHour,
                          "running cost of the machine"});
    work(plan, fmt::format("glue up {} boards", b.boards), a.shop.rate("gluing boards") * b.glue_area,
         14 * kHour);
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
    figure(plan, "boards", "boards to glue up", Kind::count, b.boards,
           fmt::format("{} layers of {}", b.layers, quantity(Kind::thickness, board.thickness)));
    figure(plan, "removed", "cut away", Kind::volume, b.removed, "block less shape: dust and chips");
    figure(plan, "machine", "on the machine", Kind::hours, b.machine,
           fmt::format("roughing at {} × {}, finishing every {}, feed {:.0f} mm/s, a fifth over for moves",
                       quantity(Kind::thickness, a.c.block.rough_deep),
                       quantity(Kind::thickness, a.c.block.rough_wide), quantity(Kind::thickness, b.step),
                       1e3 * a.c.block.feed));
    figure(plan, "step", a.c.block.step > 0 ? "step of the finishing passes" : "cheapest step",
           Kind::thickness, b.step,
           a.c.block.step > 0
               ? std::string("your choice above")
               : std::string("where the machine's hours and the hands' on its ridges cost least together"));
    figure(plan, "scallop", "ridges it leaves", Kind::thickness, b.scallop,
           fmt::format("R − √(R² − s²/4) with a ball of {}", quantity(Kind::thickness, a.c.block.cutter)));
    figure(plan, "unreached", "out of the cutter's reach", Kind::area,
           b.reach.too_tight + b.reach.too_deep + b.reach.undercut,
           fmt::format("{} tighter than the ball, {} deeper than it sticks out, {} undercut",
                       quantity(Kind::area, b.reach.too_tight), quantity(Kind::area, b.reach.too_deep),
                       quantity(Kind::area, b.reach.undercut)));
    figure(plan, "stick_out", "stick-out that reaches all", Kind::length, b.reach.deepest,
           "the highest wall within the holder's radius of where the ball rests");
    figure(plan, "mass", "mass of the plug", Kind::mass, plan.mass,
           "volume × " + quantity(Kind::density, board.density));
    sums(plan, 2e-4 + 1e-4 * static_cast<double>(b.parts.size() - 1),
         "0.2 mm of machine and board, 0.1 mm for every further set-up", b.scallop, "ridges between passes",
         board.top_temperature, "the board's own, from the shop library", board.density > 600 ? 10 : 3,
         "hard board, sealed; typical");
}

void skeleton_route(const Ask& a, Plan& plan) {
    const auto& ply = need(a.shop.boards, a.c.skeleton.board, "skeleton board");
    const auto& fill = need(a.shop.boards, a.c.skeleton.fill, "skeleton fill");
    plan.frame = a.body.frame;
    plan.skeleton = skeleton_plan(a.c, a.body, ply, a.progress);
    const auto& s = plan.skeleton;
    if (s.stations.empty() || s.keels.empty())
        plan.obstacle = "the skin is thicker than the shape: no station is left";
    plan.mass = s.ply_area * ply.thickness * ply.density + (s.fill + s.skin) * fill.density;
    boards(plan, ply, s.sheets);
    const double sheet = fill.sheet_length * fill.sheet_width * fill.thickness;
    boards(plan, fill, static_cast<int>(std::ceil(1.15 * (s.fill + s.skin) / sheet)));
    buy(plan, a.shop, "foam adhesive", Kind::mass, 0.25 * (s.fill + s.skin) / fill.thickness);
    buy(plan, a.shop, "light fairing filler", Kind::mass,
        0.002 * a.body.area * need(a.shop.consumables, "light fairing filler", "plug").density);
    const double ribs = static_cast<double>(s.stations.size() + s.keels.size());
    work(plan,
         fmt::format("cut {} stations and {} keel{}", s.stations.size(), s.keels.size(),
                     s.keels.size() > 1 ? "s" : ""),
         a.shop.rate("cutting stations") * s.cut_length);
    work(plan, "slot and square them", a.shop.rate("fitting stations") * ribs, 8 * kHour);
    work(plan, "fill between and shape to them", a.shop.rate("filling a skeleton") * a.body.area, 10 * kHour);
    figure(plan, "stations", "stations", Kind::count, static_cast<double>(s.stations.size()),
           "length ÷ pitch " + quantity(Kind::length, a.c.skeleton.pitch) + ", rounded up");
    figure(plan, "sheets", "sheets of ply", Kind::count, s.sheets,
           quantity(Kind::area, s.ply_area) + " of ribs ÷ sheet, " +
               fmt::format("{:.0f} % used", 100 * (1 - a.c.waste)));
    figure(plan, "fill", "foam between the ribs", Kind::volume, s.fill, "shape less skin less ribs");
    figure(plan, "skin", "skin outside the ribs", Kind::volume, s.skin,
           "area × " + quantity(Kind::thickness, a.c.skeleton.skin));
    figure(plan, "battens", "battens to fair it by", Kind::length, s.batten_length,
           fmt::format("{} lines round half the girth, every {} or less, and 5 %", s.battens,
                       quantity(Kind::length, a.c.skeleton.batten)));
    figure(plan, "mass", "mass of the plug", Kind::mass, plan.mass, "ribs and foam");
    sums(plan, 1e-3 + a.c.skeleton.pitch / 200,
         "1 mm at the stations, a two-hundredth of their pitch between them: what the eye fairs", 2e-3,
         "foam and ply sand at different rates: 2 mm of filler, typical",
         std::min(ply.top_temperature, fill.top_temperature), "the lesser of ply and foam", 2,
         "filler on foam cracks with use; typical");
}

void foam_route(const Ask& a, Plan& plan) {
    const auto& board = need(a.shop.boards, a.c.foam.board, "foam core");
    const auto& cloth = need(a.shop.reinforcements, a.c.foam.cloth, "skin of the foam core");
    plan.frame = a.body.frame;
    const double block = a.body.length * a.body.width * a.body.depth;
    const double sheet = board.sheet_length * board.sheet_width * board.thickness;
    const int count = static_cast<int>(std::ceil(1.1 * std::min(block, 1.5 * a.body.volume) / sheet));
    const double skin = a.c.foam.plies * cloth.areal_mass * a.body.area * 2;  // cloth and as much resin
    plan.mass = a.body.volume * board.density + skin;
    boards(plan, board, count);
    buy(plan, a.shop, "foam adhesive", Kind::mass, 0.25 * a.body.volume / board.thickness);
    if (a.c.foam.plies > 0) {
        plan.needs.push_back(
            {cloth.name, Kind::area, a.c.foam.plies * a.body.area * 1.15, cloth.price, "skin of the core"});
        buy(plan, a.shop, "thickened epoxy for fillets", Kind::mass, skin / 2);
    }
    work(plan, "glue up and shape by eye", a.shop.rate("shaping foam by eye") * a.body.area, 10 * kHour);
    work(plan, fmt::format("skin it with {} pl{}", a.c.foam.plies, a.c.foam.plies == 1 ? "y" : "ies"),
         a.c.foam.plies > 0 ? a.shop.rate("skinning") * a.body.area : 0, a.c.foam.plies > 0 ? 14 * kHour : 0);
    figure(plan, "sheets", "sheets of foam", Kind::count, count,
           "glued up half as large again as the shape, 10 % over");
    figure(plan, "skin", "skin", Kind::mass, skin,
           fmt::format("{} plies of cloth and as much resin", a.c.foam.plies));
    figure(plan, "mass", "mass of the plug", Kind::mass, plan.mass, "foam and skin");
    sums(plan, 3e-3 + 0.002 * a.body.length, "3 mm and 2 mm a metre: by eye, against templates", 3e-3,
         "3 mm of filler over hand-shaped foam, typical", board.top_temperature,
         "the foam's own, from the shop library", a.c.foam.plies > 0 ? 2 : 1,
         "a skin of glass bears a second mould; typical");
}

void tile_route(const Ask& a, Plan& plan) {
    const auto& t = a.c.tiles;
    const auto& filament = need(a.shop.filaments, t.filament, "filament");
    plan.frame = a.body.frame;
    TileRules rules;
    rules.room = {t.room[0], t.room[1], t.room[2]};
    rules.key_radius = t.key;
    rules.key_depth = 2 * t.key;
    plan.tiles = tiles_of(solid_of(a.body).mesh, a.body.frame, rules, a.progress);
    const auto& set = plan.tiles;
    double surface = 0, volume = 0;
    for (const auto& tile : set.tiles) {
        volume += tile.volume;
        for (std::size_t f = 0; f < tile.mesh.triangles.size(); ++f)
            surface += tile.mesh.area_vector2(f).norm() / 2;
    }
    const double walls = std::min(volume, surface * t.wall);
    plan.mass = (walls + t.infill * (volume - walls)) * filament.density;
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
                       quantity(Kind::area, surface), 100 * t.infill));
    const double row = static_cast<double>(*std::max_element(set.count.begin(), set.count.end()));
    sums(plan, 3e-4 * std::sqrt(row) + 0.001 * a.body.length / std::max(1.0, row),
         fmt::format("0.3 mm × √{:.0f} tiles in a row, and 0.1 % of a tile's length that prints shrink", row),
         5e-4, "layer lines and seams, typical", filament.softens,
         "where the plastic softens, from the shop library", 4, "sealed plastic; typical");
}

void existing_route(const Ask& a, Plan& plan) {
    plan.frame = a.body.frame;
    plan.mass = 5 * a.body.area;
    if (a.shape.kind != ShapeKind::copied && a.shape.kind != ShapeKind::mesh)
        plan.obstacle = "the shape is drawn here: there is no part to take a mould from";
    const double holes = a.shape.kind == ShapeKind::copied ? a.shape.copying.holes : 0;
    work(plan, "clean, repair and flat it", a.c.existing.preparing * a.body.area);
    work(plan, fmt::format("blank {:.0f} holes", holes), a.shop.rate("blanking holes") * holes,
         holes > 0 ? 8 * kHour : 0);
    figure(plan, "holes", "holes to blank", Kind::count, holes,
           a.shape.kind == ShapeKind::copied ? "from Shape's checklist"
                                             : "Shape is drawn, not copied: none known");
    figure(plan, "mass", "mass of the part", Kind::mass, plan.mass, "5 kg/m² of laminate, typical");
    sums(plan, 5e-4 + 5e-4 * a.body.length,
         "0.5 mm and 0.5 mm a metre that a part has sprung and crept; it cannot be more true than it is",
         2e-4, "scratches and repairs, typical", kelvin(60), "a usual laminate's; ask what it was made of", 3,
         "a sound laminate, waxed; typical");
}

void splash_route(const Ask& a, Plan& plan) {
    const auto& board = need(a.shop.boards, a.c.board, "plug board");
    plan.frame = a.body.frame;
    const double sheet = board.sheet_length * board.sheet_width * board.thickness;
    const double area = 1.15 * a.body.area;
    plan.mass = area * a.c.splash.thickness * 1700;
    boards(plan, board, static_cast<int>(std::ceil(1.3 * a.body.volume / sheet)));
    buy(plan, a.shop, "laminating plaster, dry", Kind::mass, 0.7 * plan.mass);
    buy(plan, a.shop, "light fairing filler", Kind::mass,
        0.002 * a.body.area * need(a.shop.consumables, "light fairing filler", "plug").density);
    work(plan, "shape soft foam by eye", a.shop.rate("shaping foam by eye") * a.body.area, 8 * kHour);
    work(plan, "skim and fair it", a.shop.rate("filling") * a.body.area, 10 * kHour);
    work(plan, "take the splash off it", a.shop.rate("laying a splash") * a.body.area, 20 * kHour);
    work(plan, "fair the splash", a.shop.rate("filling") * a.body.area, 10 * kHour);
    figure(plan, "shrink", "smaller by the second taking-off", Kind::thickness,
           a.c.splash.shrink * a.body.length,
           fmt::format("{:.2f} % of {}", 100 * a.c.splash.shrink, quantity(Kind::length, a.body.length)));
    figure(plan, "mass", "mass of the splash", Kind::mass, plan.mass,
           "area × " + quantity(Kind::thickness, a.c.splash.thickness) + " of plaster and cloth");
    sums(plan, 3e-3 + (0.002 + a.c.splash.shrink) * a.body.length,
         "by eye as a foam core, and the shrinkage of one taking-off more", 1e-3, "a second round of fairing",
         kelvin(60), "plaster and cloth; drier stands more", 6, "a hard master; typical");
}

}  // namespace

Board substrate_of(Route route, const Choices& c, const Library& shop) {
    Board out;
    switch (route) {
        case Route::slabs:
            return need(shop.boards, c.board, "plug board");
        case Route::block:
            return need(shop.boards, c.block.board, "block board");
        case Route::skeleton:
            return need(shop.boards, c.skeleton.fill, "skeleton fill");
        case Route::foam:
            return need(shop.boards, c.foam.board, "foam core");
        case Route::tiles: {
            const auto& filament = need(shop.filaments, c.tiles.filament, "filament");
            out.name = filament.name;
            out.density = filament.density;
            out.alpha = filament.alpha;
            out.top_temperature = filament.softens;
            out.dissolves_in_styrene = filament.dissolves_in_styrene;
            out.porous = true;
            out.crush = 2e7 * c.tiles.infill;
            out.origin = filament.origin;
            return out;
        }
        case Route::existing:
            out.name = "the part's own surface";
            out.density = 1700;
            out.alpha = 25e-6;
            out.crush = 1e8;
            out.porous = false;
            out.top_temperature = kelvin(60);
            return out;
        case Route::splash:
            out.name = "splash of plaster and glass";
            out.density = 1700;
            out.alpha = 12e-6;
            out.crush = 2e7;
            out.porous = true;
            out.dissolves_in_styrene = false;
            out.top_temperature = kelvin(60);
            return out;
    }
    return out;
}

void take_sheets(Plan& plan, const std::string& stock, int count, const std::string& how, double labour) {
    // The first: what a skeleton is filled with may be of the same stock, and is no flat piece.
    const auto bought = std::find_if(plan.needs.begin(), plan.needs.end(),
                                     [&](const Need& n) { return n.what == stock && n.kind == Kind::count; });
    if (bought != plan.needs.end()) bought->amount = count;
    for (auto& f : plan.figures) {
        if (f.key != "sheets") continue;
        f.value = count;
        f.reason = how;
    }
    for (auto& f : plan.sums) {
        if (f.key == "cost") f = cost_sum(plan, labour);
    }
}

Plan plan_for(Route route, const Choices& c, const Body& body, const shape::Choices& shape,
              const Asked& brief, const Library& shop, Progress& progress) {
    Plan plan;
    plan.route = route;
    plan.body = body.name;
    plan.area = body.area;
    plan.substrate = substrate_of(route, c, shop);
    const Ask ask{c, body, shape, brief, shop, progress};
    switch (route) {
        case Route::block:
            block_route(ask, plan);
            break;
        case Route::slabs:
            slab_route(ask, plan);
            break;
        case Route::skeleton:
            skeleton_route(ask, plan);
            break;
        case Route::foam:
            foam_route(ask, plan);
            break;
        case Route::tiles:
            tile_route(ask, plan);
            break;
        case Route::existing:
            existing_route(ask, plan);
            break;
        case Route::splash:
            splash_route(ask, plan);
            break;
    }
    for (const auto& step : surface_schedule(brief.grade, barrier_on(route, c), body.area, shop)) {
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
    return plan;
}

}  // namespace jig::plug
