// The plug on the stand, cut up the way its route builds it.
#include <algorithm>
#include <cmath>

#include "app/stand/scene_parts.hpp"

namespace jig::app {
namespace {

QColor ground_of(const Board& board, const Ink& k) {
    return hatch_ground(board.is_metal()      ? Hatch::metal
                        : board.density < 200 ? Hatch::foam
                                              : Hatch::board,
                        k);
}

void add_slabs(Scene& s, const plug::Plan& plan, const Upright& up, const Ink& k, double apart) {
    const auto& stack = plan.slabs.stack;
    const auto board = ground_of(plan.substrate, k);
    const double gap = 0.7 * plan.substrate.thickness * apart;
    double lift = 0;
    for (std::size_t i = 0; i < stack.slabs.size(); ++i) {
        const auto& slab = stack.slabs[i];
        const double from = slab.from + lift, to = slab.to + lift;
        const auto colour = slab.number % 2 ? board : board.darker(107);
        for (const auto& loop : slab.outline) {
            const auto thin = simplified(loop, 0.0005);
            const auto at = [&](const Point2& p, double h) { return up(stack.frame.lift(p, h)); };
            for (std::size_t j = 0; j < thin.size(); ++j) {
                const auto &a = thin[j], &b = thin[(j + 1) % thin.size()];
                add_quad(s, at(a, from), at(b, from), at(b, to), at(a, to), colour, Pattern::grain);
            }
            SceneLine edge;
            for (const auto& q : thin) edge.points.push_back(at(q, to));
            edge.points.push_back(edge.points.front());
            edge.colour = k.faint;
            s.lines.push_back(std::move(edge));
        }
        add_flat(s, slab.outline, stack.frame, to, up, colour, Pattern::plain);
        for (const auto& pin : plan.slabs.pins[i]) {
            const Point foot = up(stack.frame.lift(pin, from)), top = up(stack.frame.lift(pin, to + gap));
            s.lines.push_back({{foot, top}, k.oxide, 2.0, false});
        }
        if (!slab.outline.empty())
            s.labels.push_back({up(stack.frame.lift({low_corner(slab.outline).x(), 0}, (from + to) / 2)),
                                QString::number(slab.number)});
        lift += gap;
    }
    s.legend = "slabs drawn apart, numbered from the foot    red lines: pins";
}

/// The block that it is cut from, and its dowels; `at` stands a place of the plan's own frame.
template <class At>
void add_block_lines(Scene& s, const plug::Plan& plan, const Ink& k, const At& at) {
    for (const auto& part : plan.block.parts) {
        const auto corner_at = [&](int corner) {
            return at(Point(corner & 1 ? part.high.x() : part.low.x(),
                            corner & 2 ? part.high.y() : part.low.y(),
                            corner & 4 ? part.high.z() : part.low.z()));
        };
        for (const auto& [a, b] : {std::pair{0, 1},
                                   {1, 3},
                                   {3, 2},
                                   {2, 0},
                                   {4, 5},
                                   {5, 7},
                                   {7, 6},
                                   {6, 4},
                                   {0, 4},
                                   {1, 5},
                                   {3, 7},
                                   {2, 6}})
            s.lines.push_back({{corner_at(a), corner_at(b)}, k.faint, 1.0, true});
        for (const auto& d : part.dowels) {
            const Point p = at(d);
            const double arm = 0.02 * s.bounds.diagonal();
            s.lines.push_back({{p - Point(arm, 0, 0), p + Point(arm, 0, 0)}, k.oxide, 2.0, false});
            s.lines.push_back({{p - Point(0, arm, 0), p + Point(0, arm, 0)}, k.oxide, 2.0, false});
        }
    }
    s.legend =
        "dashed: block and its parts    red crosses: dowels    dotted: too tight for the ball    crossed: "
        "too deep "
        "or undercut";
}

/// Where the cutter does not come, in the colours of the release map.
auto reached(const plug::Plan& plan, const QColor& board, const Ink& k) {
    return [&plan, board, &k](std::size_t face, QColor& c, Pattern& p) {
        const auto& faces = plan.block.reach.faces;
        const auto r = face < faces.size() ? faces[face] : Reach::reached;
        c = r == Reach::reached ? board : r == Reach::too_tight ? k.drags : k.locks;
        p = r == Reach::reached ? Pattern::grain : r == Reach::too_tight ? Pattern::dots : Pattern::crosses;
        return true;
    };
}

void add_block(Scene& s, const plug::Plan& plan, const TriangleMesh& surface, const Upright& up,
               const Ink& k) {
    add_shape(s, surface, up, 0, 0, reached(plan, ground_of(plan.substrate, k), k));
    add_block_lines(s, plan, k, [&](const Point& q) { return up(plan.frame.lift({q.x(), q.y()}, q.z())); });
}

void add_skeleton(Scene& s, const plug::Plan& plan, const Upright& up, const Ink& k) {
    const auto ply = hatch_ground(Hatch::ply_wood, k);
    for (const auto* ribs : {&plan.skeleton.stations, &plan.skeleton.keels}) {
        for (const auto& rib : *ribs) {
            add_flat(s, rib.outline, rib.plane, rib.at, up,
                     ribs == &plan.skeleton.keels ? ply.darker(108) : ply, Pattern::grain);
            for (const auto& loop : rib.outline) {
                SceneLine edge;
                for (const auto& q : simplified(loop, 0.0005))
                    edge.points.push_back(up(rib.plane.lift(q, rib.at)));
                edge.points.push_back(edge.points.front());
                edge.colour = k.ink;
                s.lines.push_back(std::move(edge));
            }
        }
    }
    s.legend = "stations and keels, half-lapped; foam or strips go between and over them";
}

void add_tiles(Scene& s, const plug::Plan& plan, const Upright& up, const Ink& k, double apart) {
    const Point middle = (s.bounds.low + s.bounds.high) / 2;
    const QColor base = k.sheet.darker(k.paper.lightness() > 128 ? 112 : 75);
    for (const auto& tile : plan.tiles.tiles) {
        const auto first = s.corners.size();
        const bool odd = (tile.cell[0] + tile.cell[1] + tile.cell[2]) % 2 != 0;
        add_shape(s, tile.mesh, up, 0, 0, [&](std::size_t, QColor& c, Pattern& p) {
            c = odd ? base : base.darker(112);
            p = Pattern::plain;
            return true;
        });
        Point centre = Point::Zero();
        for (auto c = first; c < s.corners.size(); ++c)
            centre += Point(static_cast<double>(s.corners[c].x), static_cast<double>(s.corners[c].y),
                            static_cast<double>(s.corners[c].z)) /
                      static_cast<double>(s.corners.size() - first);
        const Point move = 0.5 * apart * (centre - middle);
        for (auto c = first; c < s.corners.size(); ++c) {
            s.corners[c].x += static_cast<float>(move.x());
            s.corners[c].y += static_cast<float>(move.y());
            s.corners[c].z += static_cast<float>(move.z());
        }
        if (plan.tiles.tiles.size() <= 60)
            s.labels.push_back({centre + move, QString::fromStdString(tile.name())});
    }
    s.legend = "tiles drawn apart; a letter along, a number across, the layer last";
}

void add_plainly(Scene& s, const TriangleMesh& surface, const Upright& up, double raise, const QColor& colour,
                 Pattern pattern) {
    add_shape(s, surface, up, raise, 0, [&](std::size_t, QColor& c, Pattern& p) {
        c = colour;
        p = pattern;
        return true;
    });
}

}  // namespace

void add_moulds(Scene& s, const std::vector<plug::Plan>& plans, const Upright& up, const Ink& k,
                double apart) {
    s.bounds.low = Point::Constant(1e30);
    s.bounds.high = -s.bounds.low;
    double next = 0;
    for (const auto& plan : plans) {
        if (!plan.mould) continue;
        // Turned over, face up, beside the one before, on the ground.
        const Upright own{plan.mould->body.frame};
        auto solid = plug::solid_of(plan.mould->body).mesh;
        Point low = Point::Constant(1e30), high = -low;
        for (const auto& p : solid.points) {
            low = low.cwiseMin(own(p));
            high = high.cwiseMax(own(p));
        }
        const Point move(next - low.x(), -(low.y() + high.y()) / 2, -low.z());
        const auto stood = [&](TriangleMesh& mesh) {
            for (auto& p : mesh.points) p = up.back(own(p) + move);
        };
        next += (high - low).x() * 1.15;
        s.bounds.low = s.bounds.low.cwiseMin(low + move);
        s.bounds.high = s.bounds.high.cwiseMax(high + move);
        if (plan.tiles.tiles.empty()) {
            stood(solid);
            add_shape(s, solid, up, 0, 0, reached(plan, ground_of(plan.substrate, k), k));
            add_block_lines(s, plan, k, [&](const Point& q) -> Point { return q + move; });
        } else {
            auto placed = plan;
            for (auto& tile : placed.tiles.tiles) stood(tile.mesh);
            add_tiles(s, placed, up, k, apart);
        }
    }
    s.ground = 0;
    s.legend = "the mould turned over, its face up    " + s.legend;
}

void add_plan(Scene& s, const plug::Plan& plan, const TriangleMesh& surface, const Upright& up, const Ink& k,
              double apart) {
    switch (plan.route) {
        case Route::slabs:
            add_slabs(s, plan, up, k, apart);
            break;
        case Route::block:
            add_block(s, plan, surface, up, k);
            break;
        case Route::skeleton:
            add_skeleton(s, plan, up, k);
            break;
        case Route::tiles:
            add_tiles(s, plan, up, k, apart);
            break;
        case Route::foam:
            add_plainly(s, surface, up, 0, ground_of(plan.substrate, k), Pattern::grain);
            s.legend = "foam shaped by eye against templates, then skinned";
            break;
        case Route::existing:
            add_plainly(s, surface, up, 0, hatch_ground(Hatch::cloth_heavy, k), Pattern::plain);
            s.legend = "the part itself, its holes blanked";
            break;
        case Route::splash: {
            const double raise = 0.9 * (s.bounds.high.z() - s.bounds.low.z()) * std::max(0.25, apart);
            add_plainly(s, surface, up, 0, hatch_ground(Hatch::foam, k), Pattern::grain);
            add_plainly(s, surface, up, raise, hatch_ground(Hatch::plaster, k), Pattern::plain);
            s.bounds.high.z() += raise;
            s.legend = "the splash lifted off its soft foam; the mould is then taken off it";
            break;
        }
        case Route::direct:
            add_moulds(s, {plan}, up, k, apart);
            break;
    }
    // What is drawn apart may reach beyond the shape.
    for (const auto& c : s.corners) {
        const Point p(static_cast<double>(c.x), static_cast<double>(c.y), static_cast<double>(c.z));
        s.bounds.low = s.bounds.low.cwiseMin(p);
        s.bounds.high = s.bounds.high.cwiseMax(p);
    }
}

}  // namespace jig::app
