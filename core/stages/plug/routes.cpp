// The routes of a plug, one function each: what is cut, bought and done.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/times.hpp"
#include "core/stages/plug/findings.hpp"
#include "core/stages/plug/route.hpp"

namespace jig::plug {
namespace {

using namespace route;

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
    plan.block = block_plan(a.c.block, blank_of(a.body, a.body.area), board, a.brief, a.shop, a.progress);
    const auto& b = plan.block;
    plan.mass = a.body.volume * board.density;
    boards(plan, board, b.boards);
    buy(plan, a.shop, "foam adhesive", Kind::mass, 0.3 * b.glue_area);
    work(plan, fmt::format("glue up {} boards", b.boards), a.shop.rate("gluing boards") * b.glue_area,
         14 * kHour);
    mill(a, a.c.block, plan);
    figure(plan, "boards", "boards to glue up", Kind::count, b.boards,
           fmt::format("{} layers of {}", b.layers, quantity(Kind::thickness, board.thickness)));
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
    plan.frame = a.body.frame;
    plan.tiles = tiles_of(solid_of(a.body).mesh, a.body.frame, rules_of(a.c.tiles), a.progress);
    const auto& set = plan.tiles;
    print(a, a.c.tiles, plan);
    const auto& filament = need(a.shop.filaments, a.c.tiles.filament, "filament");
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

/// What printed tiles are made of, as a board.
Board printed(const Printing& t, const Library& shop) {
    const auto& filament = need(shop.filaments, t.filament, "filament");
    Board out;
    out.name = filament.name;
    out.density = filament.density;
    out.E = filament.E;
    out.alpha = filament.alpha;
    out.conductivity = filament.conductivity;
    out.heat_capacity = filament.heat_capacity;
    out.top_temperature = filament.softens;
    out.dissolves_in_styrene = filament.dissolves_in_styrene;
    out.porous = true;
    out.crush = 2e7 * t.infill;
    out.origin = filament.origin;
    return out;
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
        case Route::tiles:
            return printed(c.tiles, shop);
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
        case Route::direct:
            if (c.direct.way == MouldWay::milled)
                return need(shop.boards, c.direct.mill.board, "block of the mould");
            return printed(c.direct.print, shop);
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
        case Route::direct:
            plan.obstacle = "pieces are either all taken off plugs or all made themselves";
            break;
    }
    settle(plan, surface_schedule(brief.grade, barrier_on(route, c), body.area, shop), brief, shop);
    return plan;
}

}  // namespace jig::plug
