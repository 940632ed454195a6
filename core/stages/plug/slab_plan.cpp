#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/units.hpp"
#include "core/stages/plug/plan.hpp"

namespace jig::plug {
namespace {

/// The axis that slabs are cut along, and the stack along it.
SlabStack cut(const Body& body, const Board& board, SlabFit fit, const Point& axis, Progress& progress) {
    return slabs(body.surface->mesh, body.surface->topology, axis, board.thickness, progress, fit);
}

Point long_way(const Body& body) {
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : body.surface->mesh.points) {
        low = low.cwiseMin(body.frame.flat(p));
        high = high.cwiseMax(body.frame.flat(p));
    }
    return (high - low).x() >= (high - low).y() ? body.frame.u : body.frame.v;
}

double outline_area(const SlabStack& stack) {
    double sum = 0;
    for (const auto& s : stack.slabs) sum += s.area;
    return sum;
}

SlabStack chosen_stack(const Choices& c, const Body& body, const Board& board, Progress& progress) {
    const Point along = long_way(body), across = body.frame.w.cross(along);
    const auto& fit = c.slabs.fit;
    switch (c.slabs.way) {
        case SlabWay::length:
            return cut(body, board, fit, along, progress);
        case SlabWay::width:
            return cut(body, board, fit, across, progress);
        case SlabWay::best: {
            // Sheets and sanding both grow with the stack's volume and its number of slabs.
            SlabStack best;
            double least = std::numeric_limits<double>::infinity();
            for (const Point& axis : {body.frame.w, along, across}) {
                auto stack = cut(body, board, fit, axis, progress);
                const double cost = outline_area(stack) / (board.sheet_length * board.sheet_width) +
                                    0.02 * static_cast<double>(stack.slabs.size());
                if (cost < 0.98 * least) {
                    least = cost;
                    best = std::move(stack);
                }
            }
            return best;
        }
        case SlabWay::pull:
            break;
    }
    return cut(body, board, fit, body.frame.w, progress);
}

/// Cuts the middles out where the slabs above and below leave them covered and borne.
void hollow_out(SlabPlan& plan, double wall) {
    auto& all = plan.stack.slabs;
    std::vector<Loops> whole;
    for (const auto& s : all) whole.push_back(s.outline);
    for (std::size_t i = 0; i + 1 < all.size(); ++i) {
        Loops bed = shared(whole[i], whole[i + 1]);
        if (i > 0) bed = shared(bed, whole[i - 1]);
        const auto hole = offset(bed, -wall);
        // What is smaller than a hand is not worth the cut.
        if (net_area(hole) < 0.01) continue;
        all[i].outline = taken_off(all[i].outline, hole);
        all[i].area = net_area(all[i].outline);
    }
}

Loops outer_of(const Loops& loops) {
    Loops out;
    for (const auto& loop : loops) {
        if (signed_area(loop) > 0) out.push_back(loop);
    }
    return out;
}

/// Finds for every slab the hollow of a larger one that it can be cut from, where it lies.
void cut_from_within(SlabPlan& plan, double kerf) {
    const auto& all = plan.stack.slabs;
    plan.inside.assign(all.size(), -1);
    std::vector<char> taken(all.size(), 0);
    for (std::size_t i = 0; i < all.size(); ++i) {
        Loops hole;
        for (const auto& loop : all[i].outline) {
            if (signed_area(loop) >= 0) continue;
            hole.push_back(loop);
            std::reverse(hole.back().begin(), hole.back().end());
        }
        if (hole.empty()) continue;
        hole = offset(hole, -kerf);
        // The largest that goes in; its own hollow serves the next.
        std::size_t best = all.size();
        double area = 0;
        for (std::size_t k = i + 1; k < all.size(); ++k) {
            const auto outline = outer_of(all[k].outline);
            if (taken[k] || net_area(outline) <= area) continue;
            if (net_area(taken_off(outline, hole)) > 1e-9) continue;
            best = k;
            area = net_area(outline);
        }
        if (best == all.size()) continue;
        taken[best] = 1;
        plan.inside[best] = static_cast<int>(i);
    }
}

/// Two points of a region that lie far apart; none where it is too small.
std::vector<Point2> far_apart(const Loops& region, double least) {
    std::vector<Point2> corners;
    for (const auto& loop : region) {
        const auto thin = simplified(loop, 0.002);
        corners.insert(corners.end(), thin.begin(), thin.end());
    }
    std::vector<Point2> best;
    double far = least;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        for (std::size_t k = 0; k < i; ++k) {
            const double d = (corners[i] - corners[k]).norm();
            if (d <= far) continue;
            far = d;
            best = {corners[i], corners[k]};
        }
    }
    return best;
}

/// Pins through as many slabs as share the room for them; each set starts on the slab where the last one
/// ends.
void place_pins(SlabPlan& plan, double pin) {
    const auto& all = plan.stack.slabs;
    plan.pins.assign(all.size(), {});
    const double clear = 1.5 * pin + 0.005, least = 6 * pin;
    plan.pin_groups = 0;
    // A millimetre of thinning is taken off the room, so no pin comes nearer to an edge for it.
    const auto room = [&](std::size_t i) {
        constexpr double kThin = 0.001;
        Loops thin;
        for (const auto& loop : all[i].outline) thin.push_back(simplified(loop, kThin));
        return offset(thin, -clear - kThin, false);
    };
    std::size_t from = 0;
    while (from < all.size()) {
        Loops common = room(from);
        std::vector<Point2> pins = far_apart(common, least);
        std::size_t to = from;
        while (to + 1 < all.size()) {
            const auto next = shared(common, room(to + 1));
            const auto fits = far_apart(next, least);
            if (fits.empty()) break;
            common = next;
            pins = fits;
            ++to;
        }
        for (auto i = from; i <= to; ++i) plan.pins[i].insert(plan.pins[i].end(), pins.begin(), pins.end());
        ++plan.pin_groups;
        if (to + 1 >= all.size()) break;
        from = to > from ? to : to + 1;
    }
}

/// The lean of the wall through each slab, at about every 15 cm of its edge.
void measure_bevels(SlabPlan& plan, const Body& body, Progress& progress) {
    const auto& stack = plan.stack;
    plan.bevels.assign(stack.slabs.size(), {});
    std::vector<double> heights;
    for (const auto& s : stack.slabs) {
        const double hair = 0.01 * (s.to - s.from);
        heights.push_back(s.from + hair);
        heights.push_back(s.to - hair);
    }
    const auto cuts = sections(body.surface->mesh, body.surface->topology, stack.frame, heights, progress);
    const auto solid = [&](std::size_t i) {
        Loops loops = cuts[i].loops;
        for (const auto& line : cuts[i].open_lines) {
            if (line.size() >= 3) loops.push_back(line);
        }
        return loops.size() == 1 ? loops : united(loops);
    };
    for (std::size_t s = 0; s < stack.slabs.size(); ++s) {
        const auto low = solid(2 * s), high = solid(2 * s + 1);
        if (low.empty() || high.empty()) continue;
        const double thick = 0.98 * (stack.slabs[s].to - stack.slabs[s].from);
        for (const auto& loop : low) {
            const double around = perimeter(loop);
            const auto count =
                std::clamp(static_cast<std::size_t>(around / 0.15), std::size_t{4}, std::size_t{40});
            double next = 0, run = 0;
            for (std::size_t i = 0; i < loop.size(); ++i) {
                const double step = (loop[(i + 1) % loop.size()] - loop[i]).norm();
                if (run + step >= next) {
                    double nearest = std::numeric_limits<double>::infinity();
                    for (const auto& other : high) {
                        for (std::size_t k = 0; k < other.size(); ++k) {
                            const Point2 a = other[k], ab = other[(k + 1) % other.size()] - a;
                            const double t = std::clamp(
                                (loop[i] - a).dot(ab) / std::max(1e-30, ab.squaredNorm()), 0.0, 1.0);
                            nearest = std::min(nearest, (loop[i] - a - t * ab).norm());
                        }
                    }
                    const double sign = holds(high, loop[i]) ? -1 : 1;
                    plan.bevels[s].push_back({loop[i], std::atan2(sign * nearest, thick)});
                    next += around / static_cast<double>(count);
                }
                run += step;
            }
        }
    }
}

}  // namespace

SlabPlan slab_plan(const Choices& c, const Body& body, const Board& board, Progress& progress) {
    SlabPlan plan;
    plan.stack = chosen_stack(c, body, board, progress);
    // What stands over the shape's own end is planed off in one go and no step.
    double end = -std::numeric_limits<double>::infinity();
    for (const auto& p : body.surface->mesh.points) end = std::max(end, plan.stack.frame.w.dot(p));
    const double over_end = plan.stack.slabs.empty() ? 0
                                                     : std::max(0.0, plan.stack.slabs.back().to - end) *
                                                           plan.stack.slabs.back().area;
    const double solid = std::max(1e-12, body.volume), stack = plan.stack.volume - over_end;
    const Point axis = plan.stack.frame.w;
    if (c.slabs.fit == SlabFit::middle) {
        // A straight wall leaves, on each side of the middle, an eighth of what lies between inside and
        // outside.
        const double over = cut(body, board, SlabFit::oversize, axis, progress).volume,
                     under = cut(body, board, SlabFit::undersize, axis, progress).volume;
        plan.to_sand = plan.to_fill = std::max(0.0, over - under) / 8;
    } else {
        plan.to_sand = c.slabs.fit == SlabFit::oversize ? std::max(0.0, stack - solid) : 0;
        plan.to_fill = c.slabs.fit == SlabFit::undersize ? std::max(0.0, solid - stack) : 0;
    }
    measure_bevels(plan, body, progress);
    // A tilted cut takes a straight wall's steps away; what curves between the faces stays, about a quarter.
    if (c.slabs.bevel) {
        plan.to_sand *= 0.25;
        plan.to_fill *= 0.25;
    }
    if (c.slabs.hollow) hollow_out(plan, c.slabs.wall);
    plan.stack.volume = 0;
    for (const auto& s : plan.stack.slabs) plan.stack.volume += s.area * board.thickness;
    cut_from_within(plan, c.slabs.kerf);
    place_pins(plan, c.slabs.pin);
    double spread = 0;
    for (std::size_t i = 0; i < plan.stack.slabs.size(); ++i) {
        const auto& slab = plan.stack.slabs[i];
        double rim = 0;
        for (const auto& loop : slab.outline) rim += perimeter(loop);
        plan.cut_length += rim;
        const auto outer = outer_of(slab.outline);
        double edge = 0;
        for (const auto& loop : outer) {
            edge += perimeter(loop);
            const Point2 size = high_corner({loop}) - low_corner({loop}) + Point2::Constant(2 * c.margin);
            plan.too_large |= size.maxCoeff() > std::max(board.sheet_length, board.sheet_width) ||
                              size.minCoeff() > std::min(board.sheet_length, board.sheet_width);
        }
        if (plan.inside[i] < 0) spread += net_area(outer) + c.margin * edge;
    }
    plan.sheets =
        static_cast<int>(std::ceil(spread / (board.sheet_length * board.sheet_width * (1 - c.waste)) - 1e-9));
    for (std::size_t i = 0; i + 1 < plan.stack.slabs.size(); ++i)
        plan.glue += 0.25 * std::min(plan.stack.slabs[i].area, plan.stack.slabs[i + 1].area);
    return plan;
}

}  // namespace jig::plug
