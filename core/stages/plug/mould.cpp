#include "core/stages/plug/mould.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/times.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/stages/plug/route.hpp"

namespace jig::plug {
namespace {

using namespace route;

constexpr double kStillAir = 0.026;  ///< W/(m·K) of what a print leaves empty

/// Of plates sawn to size, kg bought for each that goes onto the machine: typical.
constexpr double kSawn = 1.05;

/// What takes the place of the moulds that a plug survives.
std::string itself(const Ask& a) {
    return fmt::format("it is the mould itself; looked after it bears about {} pulls, typical",
                       pulls_of(a.c, a.shop));
}

/// Milled: block, cutter and what is bought for them.
void milled(const Ask& a, const MouldPiece& piece, Plan& plan) {
    const auto& cut = a.c.direct.mill;
    const auto& stock = need(a.shop.boards, cut.board, "block of the mould");
    plan.block = block_plan(cut, blank_of(a.body, piece.face), stock, a.brief, a.shop, a.progress);
    const auto& b = plan.block;
    const double block = b.removed + a.body.volume;
    const auto joined = static_cast<double>(b.layers - 1) + static_cast<double>(b.parts.size() - 1);
    if (stock.is_metal()) {
        const double sheet = stock.sheet_length * stock.sheet_width * stock.thickness * stock.density;
        plan.needs.push_back({stock.name, Kind::mass, kSawn * block * stock.density, stock.price / sheet,
                              fmt::format("{} {} sawn to size, 5 % for the saw", b.layers,
                                          b.layers == 1 ? "plate" : "plates")});
        work(plan, fmt::format("mill the joints flat, dowel and bolt {} plates", b.layers),
             a.shop.rate("bolting plates") * b.glue_area);
    } else {
        boards(plan, stock, b.boards);
        buy(plan, a.shop, "structural adhesive", Kind::mass, 0.3 * b.glue_area);
        work(plan, fmt::format("glue up {} boards", b.boards), a.shop.rate("gluing boards") * b.glue_area,
             14 * kHour);
    }
    mill(a, cut, plan);
    figure(plan, "boards", stock.is_metal() ? "plates one on the other" : "boards to glue up", Kind::count,
           stock.is_metal() ? b.layers : b.boards,
           fmt::format("block {} deep of {}", quantity(Kind::length, piece.body.depth + a.c.direct.wall),
                       quantity(Kind::thickness, stock.thickness)));
    figure(plan, "mass", "mass of the mould", Kind::mass, plan.mass,
           fmt::format("{} that is left × {}", quantity(Kind::volume, a.body.volume),
                       quantity(Kind::density, stock.density)));
    const double machine = stock.is_metal() ? 5e-5 : 2e-4;
    sums(plan, machine + 5e-5 * joined,
         fmt::format("{} of machine{}, 0.05 mm for each of {:.0f} joints", quantity(Kind::thickness, machine),
                     stock.is_metal() ? "" : " and board", joined),
         b.scallop, "ridges between passes", stock.top_temperature, "the stock's own, from the shop library",
         1, itself(a));
}

void printed(const Ask& a, Plan& plan) {
    const auto& filament = need(a.shop.filaments, a.c.direct.print.filament, "filament");
    print(a, a.c.direct.print, plan);
    const double row =
        static_cast<double>(*std::max_element(plan.tiles.count.begin(), plan.tiles.count.end()));
    sums(plan, 3e-4 * std::sqrt(row) + 0.001 * a.body.length / std::max(1.0, row),
         fmt::format("0.3 mm × √{:.0f} tiles in a row, and 0.1 % of a tile's length that prints shrink", row),
         5e-4, "layer lines and seams, typical", filament.softens,
         "where the plastic softens, from the shop library", 1, itself(a));
}

}  // namespace

Block metal_cut(bool steel) {
    Block out;
    out.board = steel ? "steel plate, 100 mm" : "aluminium plate, 100 mm";
    out.allowance = 0.003;
    out.cutter = 0.006;
    out.stick_out = 0.12;
    out.feed = steel ? 0.015 : 0.03;
    out.rough_deep = steel ? 0.0015 : 0.003;
    out.rough_wide = steel ? 0.012 : 0.016;
    return out;
}

double Mould::mass() const {
    double sum = 0;
    for (const auto& p : pieces) sum += p.mass;
    return sum;
}

double Mould::face() const {
    double sum = 0;
    for (const auto& p : pieces) sum += p.face;
    return sum;
}

MouldPiece let_in(const Choices& c, std::string name, const TriangleMesh& face, const Frame& pull,
                  double moulded, const Library& shop, Progress& progress) {
    MouldPiece out;
    auto& body = out.body;
    body.name = std::move(name);
    auto stood = std::make_shared<split::Stood>();
    stood->mesh = face;
    for (auto& t : stood->mesh.triangles) std::swap(t[1], t[2]);
    stood->topology = topology_of(stood->mesh);
    body.surface = std::shared_ptr<const split::Stood>(stood);
    body.rays = std::make_shared<const RayMesh>(stood->mesh);
    body.frame = {pull.u, -pull.v, -pull.w};
    measure_across(body);
    body.foot -= c.direct.wall;
    body.area = moulded;
    const auto solid = solid_of(body).mesh;
    const auto m = measure(solid, topology_of(solid));
    body.volume = std::abs(m.volume);
    body.centre = m.centroid;
    for (std::size_t f = 0; f < stood->mesh.triangles.size(); ++f)
        out.face += stood->mesh.area_vector2(f).norm() / 2;
    if (c.direct.way == MouldWay::milled) {
        out.mass = body.volume * need(shop.boards, c.direct.mill.board, "block of the mould").density;
    } else {
        const auto& t = c.direct.print;
        out.tiles = tiles_of(solid, body.frame, rules_of(t), progress);
        out.mass = printed_mass(out.tiles, t, need(shop.filaments, t.filament, "filament"));
    }
    return out;
}

Plan no_plan(const Choices& c, std::string obstacle, const Library& shop) {
    Plan out;
    out.route = Route::direct;
    out.body = "mould";
    out.obstacle = std::move(obstacle);
    out.substrate = substrate_of(Route::direct, c, shop);
    return out;
}

Plan plan_of(const Choices& c, const MouldPiece& piece, const shape::Choices& shape, const Asked& brief,
             const Library& shop, Progress& progress) {
    Plan plan;
    plan.route = Route::direct;
    plan.body = piece.body.name;
    plan.area = piece.body.area;
    plan.substrate = substrate_of(Route::direct, c, shop);
    plan.frame = piece.body.frame;
    plan.mass = piece.mass;
    plan.tiles = piece.tiles;
    plan.mould = std::make_shared<const MouldPiece>(piece);
    const Ask ask{c, piece.body, shape, brief, shop, progress};
    if (c.direct.way == MouldWay::milled)
        milled(ask, piece, plan);
    else
        printed(ask, plan);
    auto schedule = mould_schedule(c, brief.grade, piece.body.area, shop);
    schedule.push_back({"measure it", {}, Kind::mass, 0, 0, shop.rate("measuring a mould") * piece.face, 0});
    settle(plan, schedule, brief, shop);
    return plan;
}

std::optional<Layer> wall_of(const Choices& c, const Mould& mould, const Library& shop) {
    const bool print = c.direct.way == MouldWay::printed;
    const auto* filament = print ? find(shop.filaments, c.direct.print.filament) : nullptr;
    const auto* board = print ? nullptr : find(shop.boards, c.direct.mill.board);
    if (board == nullptr && filament == nullptr) return std::nullopt;
    Solid out;
    double full = 1;  // share of its room that is filled
    if (filament != nullptr) {
        // Printed walls and what is between them work side by side: an upper bound of what they hold
        // together.
        double room = 0;
        for (const auto& p : mould.pieces) room += p.body.volume;
        full = room > 0 ? std::min(1.0, mould.mass() / (room * filament->density)) : 1;
        out.material = isotropic(filament->E * full, 0.35, filament->density * full, filament->alpha);
        out.conductivity = full * filament->conductivity + (1 - full) * kStillAir;
        out.heat_capacity = filament->heat_capacity;
        out.bears = filament->softens;
        out.origin = filament->origin;
    } else {
        out.material = plate_of(*board);
        out.conductivity = board->conductivity;
        out.heat_capacity = board->heat_capacity;
        out.bears = board->top_temperature;
        out.metal = board->is_metal();
        out.origin = board->origin;
    }
    out.mass = mould.mass();
    if (mould.face() > 0) out.material.density = mould.mass() / (mould.face() * c.direct.wall);
    Layer layer;
    layer.kind = LayerKind::wall;
    layer.material = filament != nullptr ? filament->name : board->name;
    layer.thickness = c.direct.wall;
    layer.solid = std::make_shared<const Solid>(std::move(out));
    return layer;
}

FaceKind face_of(const Choices& c, const Library& shop) {
    const auto* board = c.direct.way == MouldWay::milled ? find(shop.boards, c.direct.mill.board) : nullptr;
    return board != nullptr && board->is_metal() ? FaceKind::metal : FaceKind::epoxy_coat;
}

int pulls_of(const Choices& c, const Library& shop) {
    if (c.direct.way == MouldWay::printed) return 10;
    const auto& stock = need(shop.boards, c.direct.mill.board, "block of the mould");
    if (stock.is_metal()) return stock.E > 1.5e11 ? 5000 : 1000;
    return stock.density > 600 ? 25 : 3;
}

double cut_deeper(const Choices& c, const Library& shop) {
    return face_of(c, shop) == FaceKind::metal ? 0 : c.build_up;
}

TriangleMesh as_cut(const MouldPiece& piece, double deeper, double scale) {
    return solid_of(as_cut(piece.body, deeper, scale)).mesh;
}

TileSet tiles_as_cut(const Plan& plan, const Body& body, const Choices& c, double scale, const Library& shop,
                     Progress& progress) {
    const bool mould = plan.mould != nullptr;
    const auto cut = as_cut(body, mould ? cut_deeper(c, shop) : c.build_up, scale);
    return tiles_of(solid_of(cut).mesh, cut.frame, rules_of(mould ? c.direct.print : c.tiles), progress);
}

std::vector<FinishStep> mould_schedule(const Choices& c, Grade grade, double area, const Library& shop) {
    const bool metal = face_of(c, shop) == FaceKind::metal, print = c.direct.way == MouldWay::printed;
    std::vector<FinishStep> out;
    const auto product = [&](const char* what, const char* name, double amount, double hours, double wait) {
        const auto& e = need(shop.consumables, name, "plug");
        out.push_back({what, name, Kind::mass, amount * (1 + e.waste), e.price, hours, wait});
    };
    const auto& grits = grits_of(grade);
    const double sanding = shop.hours("sanding " + std::string(file_word(grade)), area) *
                           (metal ? shop.rate("sanding metal") : 1);
    const double each = sanding / static_cast<double>(grits.size());
    const auto sand = [&](std::size_t i) {
        const auto& e = need(shop.consumables, "grit discs", "plug");
        out.push_back({fmt::format("{}, grit {}{}", metal ? "stone it" : "sand through", grits[i],
                                   grits[i] >= 400 ? ", wet" : ""),
                       e.name, Kind::count, std::ceil((metal ? 4 : 2.5) * area), e.price, each, 0});
    };
    if (print)
        product("fill its layers and seams", "epoxy fairing filler", 0.4 * area,
                shop.hours("filling", area) / 2, 10 * kHour);
    sand(0);
    if (!metal) {
        product("seal it, first coat", "board and print sealer", 0.12 * area, shop.hours("barrier", area),
                12 * kHour);
        product("seal it, second coat", "board and print sealer", 0.12 * area, shop.hours("barrier", area),
                16 * kHour);
    }
    for (std::size_t i = 1; i < grits.size(); ++i) sand(i);
    if (grade == Grade::clear || grade == Grade::gloss)
        product("polish", "polishing compound", 0.04 * area, 0, 0);
    return out;
}

}  // namespace jig::plug
