#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/units.hpp"
#include "core/stages/plug/plan.hpp"

namespace jig::plug {
namespace {

Loop hole(const Point2& at, double diameter) {
    Loop out;
    constexpr int kSides = 24;
    for (int i = 0; i < kSides; ++i) {
        const double a = -2 * kPi * i / kSides;
        out.push_back(at + diameter / 2 * Point2(std::cos(a), std::sin(a)));
    }
    return out;
}

/// Lowest point of an outline on the upright line at x; none where it misses.
std::optional<double> front_edge(const Loop& loop, double x) {
    double low = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < loop.size(); ++i) {
        const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
        if ((a.x() - x) * (b.x() - x) > 0 || a.x() == b.x()) continue;
        low = std::min(low, a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y()));
    }
    if (!std::isfinite(low)) return std::nullopt;
    return low;
}

/// The island of a slab, from number `first` on, in whose hollow an outline lies; -1 where none does.
int hollow_round(const Loop& outline, std::size_t first, const std::vector<CutPiece>& pieces) {
    const auto& slab = pieces[first].slab;
    for (auto k = first; k < pieces.size() && pieces[k].slab == slab; ++k) {
        const auto& loops = pieces[k].outline;
        const bool lies = std::any_of(loops.begin() + 1, loops.end(), [&](const Loop& hole) {
            return signed_area(hole) < 0 && holds({hole}, outline.front());
        });
        if (lies) return static_cast<int>(k);
    }
    return -1;
}

std::vector<CutPiece> slab_pieces(const SlabPlan& plan, const Choices& c) {
    const auto& slabs = plan.stack.slabs;
    std::vector<CutPiece> out;
    // The range along which every slab has a front edge carries the sloping line of ticks.
    double left = -std::numeric_limits<double>::infinity(), right = -left;
    for (const auto& s : slabs) {
        if (s.outline.empty()) continue;
        left = std::max(left, low_corner(s.outline).x());
        right = std::min(right, high_corner(s.outline).x());
    }
    const double n = static_cast<double>(slabs.size());
    std::vector<std::size_t> first_of(slabs.size(), 0);
    for (std::size_t i = 0; i < slabs.size(); ++i) {
        SlabStack one;
        one.slabs = {slabs[i]};
        auto pieces = pieces_of(one);
        first_of[i] = out.size();
        for (auto& piece : pieces) {
            const Loop outer = piece.outline.front();
            for (const auto& pin : plan.pins[i]) {
                if (holds({outer}, pin)) piece.outline.push_back(hole(pin, c.slabs.pin));
            }
            const double x = right > left
                                 ? left + (right - left) * (0.25 + 0.5 * (static_cast<double>(i) + 0.5) / n)
                                 : (low_corner({outer}).x() + high_corner({outer}).x()) / 2;
            if (const auto y = front_edge(outer, x)) {
                const double size =
                    std::min(0.03, 0.2 * (high_corner({outer}) - low_corner({outer})).minCoeff());
                piece.engraved.push_back({{x, *y}, {x, *y + size}});
                // The arrow beside it points to the front.
                piece.engraved.push_back({{x + 0.3 * size, *y + 0.7 * size},
                                          {x + 0.6 * size, *y + 0.2 * size},
                                          {x + 0.9 * size, *y + 0.7 * size}});
            }
            double bevel = 0;
            for (const auto& b : plan.bevels[i])
                bevel += b.angle / static_cast<double>(std::max<std::size_t>(1, plan.bevels[i].size()));
            piece.words = fmt::format(
                "slab {} of {}, {} to {} from the foot; top up, arrow to the front{}", slabs[i].number,
                slabs.size(), quantity(Kind::length, slabs[i].from - slabs.front().from),
                quantity(Kind::length, slabs[i].to - slabs.front().from),
                plan.bevels[i].empty() ? std::string() : "; mean bevel " + quantity(Kind::angle, bevel));
            if (plan.inside[i] >= 0)
                piece.inside = hollow_round(outer, first_of[static_cast<std::size_t>(plan.inside[i])], out);
            out.push_back(std::move(piece));
        }
    }
    return out;
}

}  // namespace

std::vector<CutPiece> cut_pieces(const Plan& plan, const Choices& c, double scale, bool templates) {
    std::vector<CutPiece> out;
    const auto add = [&](const std::vector<Rib>& ribs) {
        for (const auto& rib : ribs) add_pieces(rib.outline, rib.name, scale * rib.at, out);
    };
    if (plan.route == Route::slabs && !templates) {
        out = slab_pieces(plan.slabs, c);
    } else if (plan.route == Route::skeleton && templates) {
        add(plan.skeleton.templates);
    } else if (plan.route == Route::skeleton) {
        add(plan.skeleton.stations);
        add(plan.skeleton.keels);
    }
    for (auto& piece : out) {
        for (auto* loops : {&piece.outline, &piece.engraved}) {
            for (auto& loop : *loops) {
                for (auto& p : loop) p *= scale;
            }
        }
    }
    return out;
}

TriangleMesh stack_as_cut(const Plan& plan, double scale) {
    const auto& stack = plan.slabs.stack;
    auto out = stack_mesh(stack);
    for (auto& p : out.points) p = stack.frame.lift(scale * stack.frame.flat(p), stack.frame.w.dot(p));
    return out;
}

const Board& stock_of(const Plan& plan, const Choices& c, const Library& shop) {
    return need(shop.boards, plan.route == Route::skeleton ? c.skeleton.board : c.board, "plug board");
}

SheetRules sheet_rules(const Plan& plan, const Choices& c, const Library& shop) {
    const auto& stock = stock_of(plan, c, shop);
    SheetRules rules;
    rules.length = stock.sheet_length;
    rules.width = stock.sheet_width;
    rules.margin = c.margin;
    rules.kerf = c.slabs.kerf;
    rules.grain = c.slabs.grain;
    return rules;
}

TriangleMesh compensated(const TriangleMesh& mesh, double build_up, double scale) {
    auto out = mesh;
    std::vector<Point> normal(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (const auto i : mesh.triangles[f]) normal[i] += mesh.area_vector2(f);
    }
    const auto box = bounds_of(mesh);
    const Point middle = (box.low + box.high) / 2;
    for (std::size_t i = 0; i < out.points.size(); ++i) {
        Point p = mesh.points[i];
        if (normal[i].norm() > 0) p -= build_up * normal[i].normalized();
        out.points[i] = middle + scale * (p - middle);
    }
    return out;
}

}  // namespace jig::plug
