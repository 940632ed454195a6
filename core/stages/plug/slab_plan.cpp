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
        if (net_area(hole) < kWorthHollowing) continue;
        plan.hollows.push_back(hole);
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
        // What stands in a hollow as an island of the same slab is not free, nor is the cut beside it.
        hole = taken_off(offset(hole, -kerf), offset(all[i].outline, kerf));
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

/// The room for pins in an island: what keeps clear of its edges. A millimetre of thinning is taken off it,
/// so no pin comes nearer to an edge for it.
Loops pin_room(const Loops& island, double clear) {
    constexpr double kThin = 0.001;
    Loops thin;
    for (const auto& loop : island) thin.push_back(simplified(loop, kThin));
    return offset(thin, -clear - kThin, false);
}

/// Two pins in every island, each set through as many slabs as share the room for it; the next set starts on
/// the slab where the last one ends.
void place_pins(SlabPlan& plan, double pin) {
    const auto& all = plan.stack.slabs;
    plan.pins.assign(all.size(), {});
    plan.pin_groups = 0;
    const double clear = 1.5 * pin + 0.005, least = 6 * pin;
    std::vector<Loops> rooms;
    for (const auto& slab : all) rooms.push_back(pin_room(slab.outline, clear));
    for (std::size_t i = 0; i < all.size(); ++i) {
        for (const auto& island : islands(all[i].outline)) {
            const auto held = std::count_if(plan.pins[i].begin(), plan.pins[i].end(),
                                            [&](const Point2& p) { return holds({island.front()}, p); });
            if (held >= 2) continue;
            auto common = shared(rooms[i], {island.front()});
            auto pins = far_apart(common, least);
            // A small island is held by pins that stand closer.
            if (pins.empty()) pins = far_apart(common, 2.5 * pin);
            if (pins.empty()) continue;
            const double apart = std::min(least, (pins[0] - pins[1]).norm() - 1e-9);
            std::size_t from = i, to = i;
            const auto reach = [&](std::size_t next) {
                const auto both = shared(common, rooms[next]);
                const auto fits = far_apart(both, apart);
                if (fits.empty()) return false;
                common = both;
                pins = fits;
                return true;
            };
            if (i > 0 && reach(i - 1)) from = i - 1;
            while (to + 1 < all.size() && reach(to + 1)) ++to;
            for (auto k = from; k <= to; ++k)
                plan.pins[k].insert(plan.pins[k].end(), pins.begin(), pins.end());
            ++plan.pin_groups;
        }
    }
}

/// Parts what goes onto no sheet by straight joints into equal strips or cells that do. The joints of
/// neighbouring slabs stand apart, so that each is bridged above and below.
void part_large_slabs(SlabPlan& plan, const Choices& c, const Board& board) {
    constexpr double kGlueLine = 2e-4;  // m
    const double long_room = board.sheet_length - 2 * c.margin, wide_room = board.sheet_width - 2 * c.margin;
    if (!(long_room > 0.02) || !(wide_room > 0.02)) return;
    for (std::size_t s = 0; s < plan.stack.slabs.size(); ++s) {
        auto& slab = plan.stack.slabs[s];
        Loops lines;
        for (const auto& island : islands(slab.outline)) {
            SheetRules rules;
            rules.length = board.sheet_length;
            rules.width = board.sheet_width;
            rules.margin = c.margin;
            rules.grain = c.slabs.grain;
            if (fits_a_sheet(island.front(), rules)) continue;
            const Point2 low = low_corner({island.front()}), size = high_corner({island.front()}) - low;
            const auto cells = [&](double rx, double ry) {
                return std::pair(static_cast<int>(std::ceil(size.x() / rx)),
                                 static_cast<int>(std::ceil(size.y() / ry)));
            };
            auto [nx, ny] = cells(long_room, wide_room);
            double rx = long_room, ry = wide_room;
            if (const auto [mx, my] = cells(wide_room, long_room); !c.slabs.grain && mx * my < nx * ny) {
                nx = mx;
                ny = my;
                std::swap(rx, ry);
            }
            const auto joints = [&](int axis, int count, double room) {
                const double cell = size[axis] / count, shift = std::min(0.1 * cell, (room - cell) / 2);
                for (int k = 1; k < count; ++k) {
                    const double at = low[axis] + k * cell + (s % 2 == 0 ? shift : -shift);
                    const Point2 high = low + size;
                    lines.push_back(
                        axis == 0
                            ? rectangle(at - kGlueLine / 2, low.y() - 1, at + kGlueLine / 2, high.y() + 1)
                            : rectangle(low.x() - 1, at - kGlueLine / 2, high.x() + 1, at + kGlueLine / 2));
                    ++plan.joints;
                }
            };
            joints(0, nx, rx);
            joints(1, ny, ry);
        }
        if (lines.empty()) continue;
        ++plan.parted;
        slab.outline = taken_off(slab.outline, united(lines));
        slab.area = net_area(slab.outline);
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
    part_large_slabs(plan, c, board);
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
