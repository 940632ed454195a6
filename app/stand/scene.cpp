#include "app/stand/scene.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/mesh/triangulate.hpp"

namespace jig::app {
namespace {

/// All scenes are built upright: the pull becomes the world's z.
struct Upright {
    Frame frame;
    [[nodiscard]] Point operator()(const Point& p) const {
        return {frame.u.dot(p), frame.v.dot(p), frame.w.dot(p)};
    }
};

void add_triangle(Scene& s, const Point& a, const Point& b, const Point& c, const Point& na, const Point& nb,
                  const Point& nc, const QColor& colour, Pattern pattern) {
    const auto put = [&](const Point& p, const Point& n) {
        s.corners.push_back({static_cast<float>(p.x()), static_cast<float>(p.y()), static_cast<float>(p.z()),
                             static_cast<float>(n.x()), static_cast<float>(n.y()), static_cast<float>(n.z()),
                             colour.redF(), colour.greenF(), colour.blueF(), static_cast<float>(pattern)});
    };
    put(a, na);
    put(b, nb);
    put(c, nc);
}

void add_quad(Scene& s, const Point& a, const Point& b, const Point& c, const Point& d, const QColor& colour,
              Pattern pattern) {
    const Point n = (b - a).cross(c - a).normalized();
    add_triangle(s, a, b, c, n, n, n, colour, pattern);
    add_triangle(s, a, c, d, n, n, n, colour, pattern);
}

/// The shape's faces with soft normals across gentle folds; `colour_of` may leave a face out.
template <class ColourOf>
void add_shape(Scene& s, const TriangleMesh& mesh, const Upright& up, double raise, double grow,
               ColourOf&& colour_of) {
    std::vector<Point> normals(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point n = mesh.area_vector2(f);
        for (const auto i : mesh.triangles[f]) normals[i] += n;
    }
    for (auto& n : normals) n.normalize();
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        QColor colour;
        Pattern pattern = Pattern::plain;
        if (!colour_of(f, colour, pattern)) continue;
        const Point own = mesh.area_vector2(f).normalized();
        std::array<Point, 3> p, n;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto i = mesh.triangles[f][k];
            const Point soft = normals[i].dot(own) > 0.8 ? normals[i] : own;
            p[k] = up(mesh.points[i] + grow * soft) + Point(0, 0, raise);
            n[k] = up(soft);
        }
        add_triangle(s, p[0], p[1], p[2], n[0], n[1], n[2], colour, pattern);
    }
}

void add_ring(Scene& s, const Loops& outer, const Loops& inner, double z, const QColor& colour,
              Pattern pattern) {
    // A flat ring between two parallel loops: quads from each outer point to the nearest inner one.
    if (outer.empty() || inner.empty()) return;
    const auto& o = outer.front();
    const auto& i = inner.front();
    std::vector<std::size_t> near(o.size());
    for (std::size_t k = 0; k < o.size(); ++k) {
        double best = 1e30;
        for (std::size_t j = 0; j < i.size(); ++j) {
            const double d = (o[k] - i[j]).squaredNorm();
            if (d < best) {
                best = d;
                near[k] = j;
            }
        }
    }
    const auto lift = [&](const Point2& p) { return Point(p.x(), p.y(), z); };
    for (std::size_t k = 0; k < o.size(); ++k) {
        const auto next = (k + 1) % o.size();
        // The inner loop may have more points than the outer one: walk all between the two nearest.
        auto j = near[k];
        add_quad(s, lift(o[k]), lift(o[next]), lift(i[j]), lift(i[j]), colour, pattern);
        for (std::size_t guard = 0; j != near[next] && guard < i.size(); ++guard) {
            const auto after = (j + 1) % i.size();
            add_quad(s, lift(o[next]), lift(i[after]), lift(i[j]), lift(i[j]), colour, pattern);
            j = after;
        }
    }
}

void add_flange(Scene& s, const Job& job, const Findings& f, const Ink& k, const QColor& plain,
                double raise) {
    if (!f.edge || !f.split) return;
    const double z = f.split->foot + raise;
    const Loops rim{f.split->rim};
    const auto tape_outer = offset(rim, job.edge.trim + job.edge.channel + job.edge.tape_land);
    add_ring(s, f.edge->tape_inner, rim, z, plain, Pattern::plain);
    add_ring(s, tape_outer, f.edge->tape_inner, z, k.tape, Pattern::plain);
    add_ring(s, f.edge->outer, tape_outer, z, plain, Pattern::plain);
}

void add_slabs(Scene& s, const plug::Findings& plug, const Ink& k, double gap) {
    const auto board = hatch_ground(plug.board.density < 200 ? Hatch::foam : Hatch::board, k);
    double lift = 0;
    for (const auto& slab : plug.stack.slabs) {
        const double from = slab.from + lift, to = slab.to + lift;
        const auto colour = slab.number % 2 ? board : board.darker(107);
        for (const auto& loop : slab.outline) {
            const auto thin = simplified(loop, 0.0005);
            for (std::size_t i = 0; i < thin.size(); ++i) {
                const auto &a = thin[i], &b = thin[(i + 1) % thin.size()];
                add_quad(s, {a.x(), a.y(), from}, {b.x(), b.y(), from}, {b.x(), b.y(), to},
                         {a.x(), a.y(), to}, colour, Pattern::grain);
            }
            if (signed_area(thin) > 0) {
                const auto top = filled(thin, std::sqrt(signed_area(thin)) / 2);
                for (const auto& t : top.triangles) {
                    const auto p = [&](std::uint32_t i) {
                        return Point(top.points[i].x(), top.points[i].y(), to);
                    };
                    add_triangle(s, p(t[0]), p(t[1]), p(t[2]), Point::UnitZ(), Point::UnitZ(), Point::UnitZ(),
                                 colour, Pattern::plain);
                }
                SceneLine edge;
                for (const auto& q : thin) edge.points.emplace_back(q.x(), q.y(), to);
                edge.points.push_back(edge.points.front());
                edge.colour = k.faint;
                s.lines.push_back(std::move(edge));
            }
        }
        lift += gap;
    }
}

/// Egg-crate: plates at the pitch both ways, from the shell's outer contour up to one level.
void add_ribs(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k, double shell) {
    if (job.back.kind == BackKind::none || !f.shape || !f.split) return;
    const double top = f.split->foot + f.split->map.depth + job.back.height + shell;
    const auto colour = hatch_ground(Hatch::ply_wood, k);
    for (int way = 0; way < 2; ++way) {
        const Frame across =
            way == 0 ? Frame{up.frame.v, up.frame.w, up.frame.u} : Frame{up.frame.w, up.frame.u, up.frame.v};
        double low = 1e30, high = -1e30;
        for (const auto& p : f.shape->mesh.points) {
            low = std::min(low, across.w.dot(p));
            high = std::max(high, across.w.dot(p));
        }
        const int count = std::max(2, static_cast<int>(std::floor((high - low) / job.back.pitch)) + 1);
        std::vector<double> heights;
        const double start = (low + high) / 2 - (count - 1) * job.back.pitch / 2;
        for (int i = 0; i < count; ++i)
            heights.push_back(std::clamp(start + i * job.back.pitch, low + 1e-3, high - 1e-3));
        Progress quiet;
        for (const auto& cut : sections(f.shape->mesh, f.shape->topology, across, heights, quiet)) {
            auto lines = cut.open_lines;
            lines.insert(lines.end(), cut.loops.begin(), cut.loops.end());
            for (const auto& line : lines) {
                for (std::size_t i = 0; i + 1 < line.size(); ++i) {
                    const auto world = [&](const Point2& q) { return up(across.lift(q, cut.height)); };
                    Point a = world(line[i]), b = world(line[i + 1]);
                    a.z() += shell;
                    b.z() += shell;
                    add_quad(s, a, b, {b.x(), b.y(), top}, {a.x(), a.y(), top}, colour, Pattern::grain);
                }
            }
        }
    }
}

/// Something everybody knows the size of, lying in front: a sheet of A4 beside small things, a metre rule
/// beside large ones.
void add_scale_figure(Scene& s, const Ink& k) {
    const bool large = (s.bounds.high - s.bounds.low).head<2>().maxCoeff() > 1.6;
    const double wide = large ? 1.0 : 0.297, deep = large ? 0.04 : 0.21;
    const double x = s.bounds.low.x(), y = s.bounds.low.y() - deep - 0.05;
    const Point a(x, y, s.ground), b(x + wide, y, s.ground), c(x + wide, y + deep, s.ground),
        d(x, y + deep, s.ground);
    add_quad(s, a, b, c, d, k.sheet, Pattern::plain);
    s.lines.push_back({{a, b, c, d, a}, k.faint, 1, false});
    for (int i = 1; i < (large ? 10 : 5); ++i) {
        const Point across(wide * i / 10, 0, 0), up(0, 0.035 * i + 0.02, 0);
        if (large)
            s.lines.push_back({{a + across, d + across}, k.faint, 1, false});
        else
            s.lines.push_back({{a + up + Point(0.03, 0, 0), b + up - Point(0.03, 0, 0)}, k.rule, 1, false});
    }
    s.labels.push_back({(a + b) / 2 + Point(0, -0.04, 0), large ? "1 m rule" : "A4 sheet"});
}

void add_dimensions(Scene& s, const Wording& w) {
    const auto &lo = s.bounds.low, &hi = s.bounds.high;
    const double away = 0.12 * (hi - lo).head<2>().maxCoeff();
    const auto text = [&](double v) { return QString::fromStdString(show(Kind::length, v, w)); };
    s.dimensions.push_back(
        {{lo.x(), lo.y(), s.ground}, {hi.x(), lo.y(), s.ground}, {0, -away, 0}, text(hi.x() - lo.x())});
    s.dimensions.push_back(
        {{hi.x(), lo.y(), s.ground}, {hi.x(), hi.y(), s.ground}, {away, 0, 0}, text(hi.y() - lo.y())});
    s.dimensions.push_back({{hi.x(), lo.y(), lo.z()},
                            {hi.x(), lo.y(), hi.z()},
                            {away * 0.6, -away * 0.6, 0},
                            text(hi.z() - lo.z())});
}

/// A small cross where the file was mended.
void add_repairs(Scene& s, const Findings& f, const Upright& up, const Ink& k) {
    const double arm = 0.012 * s.bounds.diagonal();
    for (const auto& repair : f.shape->repairs) {
        for (const auto& place : repair.places) {
            const Point p = up(place);
            for (int i = 0; i < 3; ++i)
                s.lines.push_back({{p - arm * Point::Unit(i), p + arm * Point::Unit(i)}, k.tape, 2.0, false});
        }
        if (!repair.places.empty() && repair.count <= 50)
            s.labels.push_back(
                {up(repair.places.front()) + Point(0, 0, 2 * arm), QString::fromStdString(repair.what)});
    }
}

/// A line of the part, lifted a little so that it shows on the surface.
void add_line(Scene& s, const Line& line, const Upright& up, const Point& move, const QColor& colour,
              double width, bool dashed = false) {
    SceneLine out;
    for (const auto& p : line) out.points.push_back(up(p) + move);
    out.colour = colour;
    out.width = width;
    out.dashed = dashed;
    s.lines.push_back(std::move(out));
}

void add_arrow(Scene& s, const Point& from, const Point& way, const QString& text, const Ink& k) {
    const Point tip = from + way;
    const Point side =
        way.cross(std::abs(way.normalized().z()) > 0.9 ? Point::UnitX() : Point::UnitZ()).normalized() *
        way.norm() / 10;
    s.lines.push_back({{from, tip}, k.petrol, 2.0, false});
    s.lines.push_back({{tip + side - way / 6, tip, tip - side - way / 6}, k.petrol, 2.0, false});
    s.labels.push_back({tip, text});
}

/// Pieces in inks of their own, drawn apart along their pulls round the part.
void add_pieces(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
                const QColor& stone, const View& view) {
    const auto& split = *f.split;
    const double size = (s.bounds.high - s.bounds.low).maxCoeff(), away = 0.6 * size * view.apart;
    add_shape(s, f.shape->mesh, up, 0, 0, [&](std::size_t, QColor& c, Pattern&) {
        c = stone;
        return true;
    });
    auto box = s.bounds;
    for (std::size_t i = 0; i < split.set.pieces.size(); ++i) {
        const auto& piece = split.set.pieces[i];
        const Point way = up(piece.direction), move = (0.004 * size + away) * way;
        const auto first = s.corners.size();
        add_shape(s, piece.mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
            const auto r = piece.map.faces[face];
            c = piece_colour(i, k);
            p = r == Release::locks ? Pattern::crosses : r == Release::drags ? Pattern::dots : Pattern::plain;
            return true;
        });
        Point middle = Point::Zero();
        double count = 0;
        Point low = Point::Constant(1e30), high = -low;
        for (auto c = first; c < s.corners.size(); ++c) {
            auto& corner = s.corners[c];
            corner.x += static_cast<float>(move.x());
            corner.y += static_cast<float>(move.y());
            corner.z += static_cast<float>(move.z());
            const Point at(static_cast<double>(corner.x), static_cast<double>(corner.y),
                           static_cast<double>(corner.z));
            middle += at;
            ++count;
            low = low.cwiseMin(at);
            high = high.cwiseMax(at);
        }
        if (count == 0) continue;
        middle /= count;
        box.low = box.low.cwiseMin(low);
        box.high = box.high.cwiseMax(high);
        // The arrow starts where the piece ends along its way.
        double end = -1e30;
        for (int corner = 0; corner < 8; ++corner) {
            const Point q(corner & 1 ? high.x() : low.x(), corner & 2 ? high.y() : low.y(),
                          corner & 4 ? high.z() : low.z());
            end = std::max(end, way.dot(q));
        }
        const Point from = middle + (end - way.dot(middle)) * way, tip = from + 0.22 * size * way;
        box.low = box.low.cwiseMin(tip);
        box.high = box.high.cwiseMax(tip);
        add_arrow(s, from, tip - from, QString::fromStdString(split.facts[i].name), k);
    }
    for (const auto& line : split.set.seams) add_line(s, line, up, Point::Zero(), k.ink, 2.5);
    if (job.split.way == SplitWay::plane) {
        const auto& c = job.split;
        const auto frame = frame_across(Point(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]));
        const double height = frame.w.dot(Point(c.plane_at[0], c.plane_at[1], c.plane_at[2]));
        for (const auto& board : split.boards) {
            for (const auto& loop : board.outline) {
                Line line;
                for (const auto& p : loop) line.push_back(frame.lift(p, height));
                line.push_back(line.front());
                add_line(s, line, up, Point::Zero(), k.clay, 1.2);
            }
        }
    }
    s.bounds = box;
    s.comes_apart = true;
    s.legend =
        "pieces in inks of their own, arrows their pulls    dotted: drags    crossed: locks    dark line: "
        "seam    brown line: parting board";
}

/// The plane of a split with the travel of its handle.
void add_plane(Scene& s, const Job& job, const Upright& up) {
    const Point normal =
                    up(Point(job.split.plane_normal[0], job.split.plane_normal[1], job.split.plane_normal[2]))
                        .normalized(),
                at = up(Point(job.split.plane_at[0], job.split.plane_at[1], job.split.plane_at[2]));
    if (!normal.allFinite()) return;
    const auto frame = frame_across(normal);
    double low = 1e30, high = -1e30, reach = 0;
    const Point middle = (s.bounds.low + s.bounds.high) / 2;
    for (int corner = 0; corner < 8; ++corner) {
        const Point q(corner & 1 ? s.bounds.high.x() : s.bounds.low.x(),
                      corner & 2 ? s.bounds.high.y() : s.bounds.low.y(),
                      corner & 4 ? s.bounds.high.z() : s.bounds.low.z());
        low = std::min(low, normal.dot(q));
        high = std::max(high, normal.dot(q));
        reach = std::max({reach, std::abs(frame.u.dot(q - middle)), std::abs(frame.v.dot(q - middle))});
    }
    reach *= 1.12;
    s.plane_at = middle + (normal.dot(at) - normal.dot(middle)) * normal;
    s.plane_low = middle + (low - normal.dot(middle)) * normal;
    s.plane_high = middle + (high - normal.dot(middle)) * normal;
    s.plane = {s.plane_at + reach * (frame.u + frame.v), s.plane_at + reach * (frame.v - frame.u),
               s.plane_at - reach * (frame.u + frame.v), s.plane_at + reach * (frame.u - frame.v)};
    s.has_plane = true;
}

}  // namespace

std::array<double, 3> plane_dragged_to(const Job& job, const Findings& f, double share) {
    const auto& n = job.split.plane_normal;
    const Point normal = Point(n[0], n[1], n[2]).normalized();
    double low = 1e30, high = -1e30;
    for (const auto& t : f.shape->mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, normal.dot(f.shape->mesh.points[i]));
            high = std::max(high, normal.dot(f.shape->mesh.points[i]));
        }
    }
    const Point at(job.split.plane_at[0], job.split.plane_at[1], job.split.plane_at[2]);
    const double inside = low + std::clamp(share, 0.01, 0.99) * (high - low);
    const Point moved = at + (inside - normal.dot(at)) * normal;
    return {moved.x(), moved.y(), moved.z()};
}

Scene scene_of(const Job& job, const Findings& f, Stage stage, const Ink& k, const Wording& w,
               const View& view) {
    Scene s;
    if (!f.shape) return s;
    const Upright up{f.split ? f.split->frame : frame_across(Point::UnitZ())};
    const auto& mesh = f.shape->mesh;
    s.bounds.low = Point::Constant(1e30);
    s.bounds.high = -s.bounds.low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const Point p = up(mesh.points[i]);
            s.bounds.low = s.bounds.low.cwiseMin(p);
            s.bounds.high = s.bounds.high.cwiseMax(p);
        }
    }
    s.ground = s.bounds.low.z();
    const double shell = f.shell ? f.shell->stack.laminate.thickness : 0.005;
    const auto plain = [&](const QColor& colour) {
        return [&f, colour](std::size_t face, QColor& c, Pattern&) {
            c = colour;
            return !f.split || f.split->map.faces.size() <= face || f.split->map.faces[face] != Release::open;
        };
    };
    const QColor stone = stage == Stage::part ? hatch_ground(Hatch::cloth_light, k)
                                              : k.sheet.darker(k.paper.lightness() > 128 ? 106 : 70)
                                                    .lighter(k.paper.lightness() > 128 ? 100 : 210);
    const QColor shell_colour = hatch_ground(Hatch::cloth_heavy, k);
    bool wide = true;
    switch (stage) {
        case Stage::split:
            if (f.split && !f.split->one_piece()) {
                // The plane's travel is the part's own extent, before its pieces are drawn apart.
                if (job.split.way == SplitWay::plane) add_plane(s, job, up);
                add_pieces(s, job, f, up, k, stone, view);
                break;
            }
            add_shape(s, mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
                const auto r = f.split ? f.split->map.faces[face] : Release::slides;
                c = release_colour(r, k);
                p = r == Release::locks   ? Pattern::crosses
                    : r == Release::drags ? Pattern::dots
                                          : Pattern::plain;
                return r != Release::open;
            });
            s.legend =
                "plain: slides    dotted: drags    crossed: locks    yellow line: no draft    arrow: the "
                "pull";
            if (f.split) {
                const double reach = 0.35 * (s.bounds.high - s.bounds.low).head<2>().maxCoeff();
                Point top = (s.bounds.low + s.bounds.high) / 2;
                top.z() = s.bounds.high.z();
                add_arrow(s, top, Point(0, 0, reach), "pull", k);
                for (const auto& line : f.split->zero_lines)
                    add_line(s, line, up, Point::Zero(), k.tape, 2.5);
                // Where the best pull locks something, the next best are drawn too, fainter, with what they
                // lock.
                const bool open_question = f.split->map.locks > 1e-4 * f.split->moulded_area;
                for (std::size_t i = 1; open_question && i < f.split->candidates.size(); ++i) {
                    const auto& other = f.split->candidates[i];
                    const Point way = up(other.direction), half = (s.bounds.high - s.bounds.low) / 2;
                    const Point from = (s.bounds.low + s.bounds.high) / 2 +
                                       (half.cwiseProduct(way).norm() + 0.1 * reach) * way;
                    s.lines.push_back({{from, from + 0.6 * reach * way}, k.faint, 1.0, true});
                    s.labels.push_back(
                        {from + 0.6 * reach * way,
                         QString("locks %1").arg(QString::fromStdString(show(Kind::area, other.locks, w)))});
                }
            }
            break;
        case Stage::plug:
            if (f.plug) {
                const double gap = 0.35 * f.plug->board.thickness;
                add_slabs(s, *f.plug, k, gap);
                const double lift = gap * static_cast<double>(f.plug->stack.slabs.size());
                for (const auto& slab : f.plug->stack.slabs) {
                    const double h = slab.from + (slab.number - 1) * gap + (slab.to - slab.from) / 2;
                    if (!slab.outline.empty())
                        s.labels.push_back(
                            {{low_corner(slab.outline).x(), 0, h}, QString::number(slab.number)});
                }
                s.bounds.high.z() += lift;
                s.legend = "slabs drawn apart, numbered from the foot";
            }
            break;
        case Stage::edge:
        case Stage::release:
            add_shape(s, mesh, up, 0, 0, plain(stage == Stage::release ? k.slides : stone));
            add_flange(s, job, f, k, stage == Stage::release ? k.slides : stone.darker(104), 0);
            s.legend = stage == Stage::release
                           ? "released: green grey    keep clear and masked: tape land, yellow"
                           : "tape land yellow; trim and channel inside it, grip outside";
            break;
        case Stage::shell:
        case Stage::heat: {
            const double raise = 0.9 * (s.bounds.high.z() - s.bounds.low.z());
            add_shape(s, mesh, up, 0, 0, plain(stone));
            add_shape(s, mesh, up, raise, shell, plain(shell_colour));
            add_flange(s, job, f, k, shell_colour, raise);
            s.bounds.high.z() += raise;
            s.legend = "the shell lifted off the plug";
            break;
        }
        case Stage::back:
            add_shape(s, mesh, up, 0, shell, plain(shell_colour));
            add_flange(s, job, f, k, shell_colour, 0);
            add_ribs(s, job, f, up, k, shell);
            s.bounds.high.z() += job.back.kind == BackKind::none ? 0 : job.back.height;
            s.legend = "the tool as it lies on the plug; turned over, it stands on its ribs";
            break;
        case Stage::brief:
        case Stage::shape:
        case Stage::part:
        case Stage::run:
        case Stage::log:
            add_shape(s, mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
                const bool kept = plain(stone)(face, c, p);
                const auto* corners = stage == Stage::shape && f.shell ? &f.shell->corners
                                      : stage == Stage::part && f.part ? &f.part->corners
                                                                       : nullptr;
                if (corners != nullptr && face < corners->faces.size() && corners->faces[face]) {
                    c = k.drags;
                    p = Pattern::dots;
                    s.legend = "dotted: corners so tight that cloth bridges them";
                }
                return kept;
            });
            wide = false;
            if (stage == Stage::shape) add_repairs(s, f, up, k);
            break;
    }
    if (stage == Stage::shape || stage == Stage::brief || stage == Stage::part) add_dimensions(s, w);
    if (f.split && !f.split->rim.empty() && !s.comes_apart) {
        s.shadow = wide && f.edge && stage != Stage::split && stage != Stage::plug ? f.edge->outer
                                                                                   : Loops{f.split->rim};
        SceneLine rim;
        for (const auto& p : f.split->rim) rim.points.emplace_back(p.x(), p.y(), f.split->foot);
        rim.points.push_back(rim.points.front());
        rim.colour = k.ink;
        if (stage != Stage::plug) s.lines.push_back(std::move(rim));
    }
    if (s.comes_apart) s.ground = s.bounds.low.z();
    if (!s.comes_apart) add_scale_figure(s, k);
    const int axis = job.cut.across == CutAlong::length
                         ? ((s.bounds.high - s.bounds.low).x() >= (s.bounds.high - s.bounds.low).y() ? 0 : 1)
                         : ((s.bounds.high - s.bounds.low).x() >= (s.bounds.high - s.bounds.low).y() ? 1 : 0);
    s.has_cut = stage != Stage::plug && !s.comes_apart;
    s.cut_normal = Point::Unit(axis);
    s.cut_low = s.cut_high = (s.bounds.low + s.bounds.high) / 2;
    s.cut_low[axis] = s.bounds.low[axis];
    s.cut_high[axis] = s.bounds.high[axis];
    s.cut_origin = s.cut_low + job.cut.at * (s.cut_high - s.cut_low);
    return s;
}

}  // namespace jig::app
