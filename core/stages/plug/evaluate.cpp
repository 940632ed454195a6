#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/plug/sheets.hpp"

namespace jig::plug {
namespace {

/// What a foam bears for hours when warm: a third of its short-time strength (creep), less towards its limit.
double lasting_crush(const Board& board, double temperature) {
    const double creep = board.density < 200 ? 1.0 / 3 : 0.7;
    const double warm =
        std::clamp((temperature - 293.15) / std::max(1.0, board.top_temperature - 293.15), 0.0, 1.0);
    return board.crush * creep * (1 - 0.5 * warm);
}

/// Safety of a hollow plug's wall as a clamped round plate over its widest hollow: σ = 3/4·p·(a/t)², t the
/// slabs that close it (Timoshenko & Woinowsky-Krieger 1959, art. 16).
double wall_safety(const Plan& plan, double load, double strength) {
    double widest = 0;
    for (const auto& hollow : plan.slabs.hollows) {
        for (const auto& loop : hollow) {
            const Point2 size = high_corner({loop}) - low_corner({loop});
            widest = std::max(widest, size.minCoeff());
        }
    }
    if (widest <= 0) return 0;
    const double t = plan.substrate.thickness, a = widest / 2;
    return strength / (0.75 * load * (a / t) * (a / t));
}

}  // namespace

Figure cost_of(const std::vector<Plan>& plans, double labour) {
    double hours = 0, bought = 0;
    for (const auto& plan : plans) {
        hours += plan.hours();
        bought += plan.cost();
    }
    return {"cost", "cost of the plug", Kind::money, bought + hours * labour,
            "materials and machines " + quantity(Kind::money, bought) + " and hands"};
}

Findings evaluate(const Choices& c, const shape::Choices& shape_choices, const shape::Findings& shape,
                  const split::Findings& split, const Asked& brief, const Library& shop, double cure,
                  Progress& progress) {
    Findings out;
    const auto all = bodies(c, shape, split);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto route = all.size() > 1 && i < c.piece_routes.size() ? c.piece_routes[i] : c.route;
        out.plans.push_back(plan_for(route, c, all[i], shape_choices, brief, shop, progress));
        out.mass += out.plans.back().mass;
        out.sanding_area += all[i].area;
    }
    const auto& first = out.plans.front();
    out.board = first.substrate;
    out.finish = surface_schedule(brief.grade, barrier_on(first.route, c), out.sanding_area, shop);
    for (const auto& plan : out.plans) {
        for (auto f : plan.figures) {
            if (out.plans.size() > 1) f.name = plan.body + ": " + f.name;
            if (out.plans.size() > 1) f.key = plan.body + "_" + f.key;
            out.figures.push_back(std::move(f));
        }
    }
    double hours = 0;
    for (const auto& plan : out.plans) hours += plan.hours();
    const auto& body = all.front();
    const Point low = bounds_of(body.surface->mesh).low;
    const bool hollow = first.route == Route::slabs && !first.slabs.hollows.empty();
    out.heat_path = hollow ? c.slabs.wall : std::max(1e-3, bounds_of(body.surface->mesh).size().minCoeff());
    out.centre = body.centre - low;
    double litres = 0, finishing = 0, drying = 0;
    for (const auto& step : out.finish) {
        litres += step.kind == Kind::mass ? step.amount : 0;
        finishing += step.hours;
        drying += step.wait;
    }
    out.figures.push_back(
        {"hours", "hands for the plug", Kind::hours, hours * 3600, "all its steps at the shop's rates"});
    out.figures.push_back(cost_of(out.plans, shop.rate("labour")));
    out.figures.push_back({"sanding", "surface to finish", Kind::area, out.sanding_area, "moulded area"});
    out.figures.push_back(
        {"finishing", "of that, finishing it", Kind::hours, finishing * 3600,
         fmt::format("{} steps from barrier to polish, {} of coats and filler, {} of drying",
                     out.finish.size(), quantity(Kind::mass, litres), quantity(Kind::duration, drying))});
    out.figures.push_back(
        {"undersize", "cut it undersize by", Kind::thickness, c.build_up,
         "the build-up of barrier, filler, primer and paint; Job menu: the plug as it is cut"});
    const auto hands = std::max(1.0, std::ceil(out.mass / brief.lift));
    out.figures.push_back(
        {"people", "people to lift it", Kind::count, hands,
         quantity(Kind::mass, out.mass) + " ÷ " + quantity(Kind::mass, brief.lift) + " for one"});
    out.figures.push_back(
        {"centre", "centre of gravity above the foot", Kind::length, out.centre.z(),
         fmt::format("{} along and {} across from its low corner, taken as solid throughout",
                     quantity(Kind::length, out.centre.x()), quantity(Kind::length, out.centre.y()))});
    out.figures.push_back(
        {"lift_points", "lifting points from its ends", Kind::length, 0.22 * body.length,
         "22 % of the length from each end bend it least; both beside the centre of gravity"});
    if (c.in_envelope) {
        const double bears = lasting_crush(out.board, cure);
        out.crush_safety = c.vacuum > 0 ? bears / c.vacuum : 99;
        out.figures.push_back(
            {"crush_safety", "safety against the envelope bag", Kind::factor, out.crush_safety,
             fmt::format("{} short-time × {} for hours under load, less at {}, against {} from every side",
                         quantity(Kind::strength, out.board.crush), out.board.density < 200 ? "1/3" : "0.7",
                         quantity(Kind::temperature, cure), quantity(Kind::pressure, c.vacuum))});
        out.wall_safety = wall_safety(first, std::max(1.0, c.vacuum), bears);
        if (out.wall_safety > 0)
            out.figures.push_back({"wall_safety", "the same, of its hollow's lid", Kind::factor,
                                   out.wall_safety,
                                   "clamped round plate over the widest hollow, ¾·p·(a/t)²"});
    }
    return out;
}

std::vector<Plan> side_by_side(const Choices& c, const shape::Choices& shape_choices,
                               const shape::Findings& shape, const split::Findings& split, const Asked& brief,
                               const Library& shop, Progress& progress) {
    auto whole = c;
    whole.by_piece = false;
    const auto body = bodies(whole, shape, split).front();
    std::vector<Plan> out;
    for (const auto route : kRoutes) {
        progress.report(static_cast<double>(out.size()) / kRoutes.size(), "setting the routes side by side");
        try {
            std::vector<Plan> one{plan_for(route, whole, body, shape_choices, brief, shop, progress)};
            const auto cut = cutting(one, whole, shop);
            take_sheets(one, whole, cut, lay(cut, progress), shop);
            out.push_back(std::move(one.front()));
        } catch (const InputError& e) {
            auto& plan = out.emplace_back();
            plan.route = route;
            plan.obstacle = e.problem() + ": " + e.mend();
        }
    }
    progress.report(1, "routes set side by side");
    return out;
}

}  // namespace jig::plug
