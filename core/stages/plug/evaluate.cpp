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

Figure cost_of(const std::vector<Plan>& plans, double labour, bool direct) {
    double hours = 0, bought = 0;
    for (const auto& plan : plans) {
        hours += plan.hours();
        bought += plan.cost();
    }
    return {"cost", direct ? "cost of the mould" : "cost of the plug", Kind::money, bought + hours * labour,
            "materials and machines " + quantity(Kind::money, bought) + " and hands"};
}

namespace {

/// Figures of all plans, those of several with their bodies' names.
void name_figures(const std::vector<Plan>& plans, std::vector<Figure>& out) {
    for (const auto& plan : plans) {
        for (auto f : plan.figures) {
            if (plans.size() > 1) f.name = plan.body + ": " + f.name;
            if (plans.size() > 1) f.key = plan.body + "_" + f.key;
            out.push_back(std::move(f));
        }
    }
}

/// What is said of every plug, and of a mould that is made itself.
void add_sums(const Choices& c, const Body& first, const Asked& brief, const Library& shop, Findings& out) {
    const bool direct = no_plug(c);
    double hours = 0, litres = 0, finishing = 0, drying = 0;
    for (const auto& plan : out.plans) hours += plan.hours();
    for (const auto& step : out.finish) {
        litres += step.kind == Kind::mass ? step.amount : 0;
        finishing += step.hours;
        drying += step.wait;
    }
    out.centre = first.centre - bounds_of(first.surface->mesh).low;
    if (direct) out.centre = {out.centre.x(), out.centre.y(), first.frame.w.dot(first.centre) - first.foot};
    out.figures.push_back({"hours", direct ? "hands for the mould" : "hands for the plug", Kind::hours,
                           hours * 3600, "all its steps at the shop's rates"});
    out.figures.push_back(cost_of(out.plans, shop.rate("labour"), direct));
    out.figures.push_back({"sanding", "surface to finish", Kind::area, out.sanding_area, "moulded area"});
    out.figures.push_back({"finishing", "of that, finishing it", Kind::hours, finishing * 3600,
                           fmt::format("{} steps from {} to polish, {} of coats and filler, {} of drying",
                                       out.finish.size(), direct ? "the machine's surface" : "barrier",
                                       quantity(Kind::mass, litres), quantity(Kind::duration, drying))});
    if (direct)
        out.figures.push_back({"deeper", "cut it deeper by", Kind::thickness, cut_deeper(c, shop),
                               cut_deeper(c, shop) > 0
                                   ? "the build-up of filler and sealer; Job menu: the mould as it is cut"
                                   : "nothing is coated onto metal; Job menu: the mould as it is cut"});
    else
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
        {"lift_points", "lifting points from its ends", Kind::length, 0.22 * first.length,
         "22 % of the length from each end bend it least; both beside the centre of gravity"});
}

/// A mould that is cut or printed itself.
Findings direct(const Choices& c, const shape::Choices& shape, const Mould& mould, const Asked& brief,
                const Library& shop, Progress& progress) {
    Findings out;
    if (mould.pieces.empty()) {
        out.plans.push_back(no_plan(c, mould.obstacle, shop));
        out.board = out.plans.front().substrate;
        out.heat_path = c.direct.wall;
        return out;
    }
    for (const auto& piece : mould.pieces) {
        out.plans.push_back(plan_of(c, piece, shape, brief, shop, progress));
        out.mass += piece.mass;
        out.sanding_area += piece.body.area;
    }
    out.board = out.plans.front().substrate;
    out.heat_path = c.direct.wall;
    out.pulls = pulls_of(c, shop);
    out.finish = mould_schedule(c, brief.grade, out.sanding_area, shop);
    name_figures(out.plans, out.figures);
    add_sums(c, mould.pieces.front().body, brief, shop, out);
    return out;
}

}  // namespace

Findings evaluate(const Choices& c, const shape::Choices& shape_choices, const shape::Findings& shape,
                  const split::Findings& split, const Mould& mould, const Asked& brief, const Library& shop,
                  double cure, Progress& progress) {
    if (no_plug(c)) return direct(c, shape_choices, mould, brief, shop, progress);
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
    name_figures(out.plans, out.figures);
    const bool hollow = first.route == Route::slabs && !first.slabs.hollows.empty();
    out.heat_path =
        hollow ? c.slabs.wall : std::max(1e-3, bounds_of(all.front().surface->mesh).size().minCoeff());
    add_sums(c, all.front(), brief, shop, out);
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

namespace {

/// The pieces of a mould that is made itself as one plan: sums added up, the worst of what does not add up.
Plan in_sum(const Choices& c, const Mould& mould, const shape::Choices& shape, const Asked& brief,
            const Library& shop, Progress& progress) {
    auto out = plan_of(c, mould.pieces.front(), shape, brief, shop, progress);
    for (std::size_t i = 1; i < mould.pieces.size(); ++i) {
        const auto more = plan_of(c, mould.pieces[i], shape, brief, shop, progress);
        if (out.obstacle.empty()) out.obstacle = more.obstacle;
        out.needs.insert(out.needs.end(), more.needs.begin(), more.needs.end());
        out.works.insert(out.works.end(), more.works.begin(), more.works.end());
        out.mass += more.mass;
        out.area += more.area;
        for (auto& sum : out.sums) {
            for (const auto& m : more.sums) {
                if (m.key != sum.key) continue;
                const bool adds =
                    sum.key == "hours" || sum.key == "days" || sum.key == "cost" || sum.key == "mass";
                sum.value = adds ? sum.value + m.value : std::max(sum.value, m.value);
            }
        }
    }
    return out;
}

}  // namespace

std::vector<Plan> side_by_side(const Choices& c, const shape::Choices& shape_choices,
                               const shape::Findings& shape, const split::Findings& split, const Mould& mould,
                               const Asked& brief, double scale, const Library& shop, Progress& progress) {
    auto whole = c;
    whole.by_piece = false;
    const auto body = bodies(whole, shape, split).front();
    std::vector<Plan> out;
    for (const auto route : kRoutes) {
        progress.report(static_cast<double>(out.size()) / kRoutes.size(), "setting the routes side by side");
        try {
            if (route == Route::direct) {
                out.push_back(mould.pieces.empty() ? no_plan(c, mould.obstacle, shop)
                                                   : in_sum(c, mould, shape_choices, brief, shop, progress));
                continue;
            }
            std::vector<Plan> one{plan_for(route, whole, body, shape_choices, brief, shop, progress)};
            const auto cut = cutting(one, whole, scale, shop);
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
