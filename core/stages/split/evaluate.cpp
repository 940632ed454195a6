#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/widest.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::split {
namespace {

/// The largest closed edge of the moulded faces, seen along the pull; where there is none (a ball), the
/// widest of 64 sections across the pull.
Loop find_rim(const shape::Findings& shape, const Findings& f, Progress& progress) {
    TriangleMesh moulded;
    moulded.points = shape.mesh.points;
    for (std::size_t i = 0; i < shape.mesh.triangles.size(); ++i) {
        if (f.map.faces[i] != Release::open) moulded.triangles.push_back(shape.mesh.triangles[i]);
    }
    const auto topology = topology_of(moulded);
    Loop best;
    for (const auto& loop : rim_loops(moulded, topology)) {
        Loop flat;
        for (const auto i : loop) flat.push_back(f.frame.flat(moulded.points[i]));
        if (std::abs(signed_area(flat)) > std::abs(signed_area(best))) best = flat;
    }
    const double seen = std::abs(signed_area(best));
    if (seen < 0.2 * f.map.projected) {
        std::vector<double> heights;
        for (int i = 0; i < 64; ++i) heights.push_back(f.foot + f.map.depth * (i + 0.5) / 64);
        double widest = 0;
        for (const auto& section : sections(shape.mesh, shape.topology, f.frame, heights, progress)) {
            for (const auto& loop : section.loops) {
                if (signed_area(loop) > widest) {
                    widest = signed_area(loop);
                    best = loop;
                }
            }
        }
    }
    if (signed_area(best) < 0) std::reverse(best.begin(), best.end());
    return best;
}

/// Developed width and second moment (per unit thickness) of the skin in sections across its longest side.
void measure_sections(const shape::Findings& shape, Findings& f, Progress& progress) {
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : shape.mesh.points) {
        low = low.cwiseMin(f.frame.flat(p));
        high = high.cwiseMax(f.frame.flat(p));
    }
    const bool along_u = (high - low).x() >= (high - low).y();
    const Point axis = along_u ? f.frame.u : f.frame.v;
    const Frame across{f.frame.w, axis.cross(f.frame.w), axis};
    const double from = along_u ? low.x() : low.y(),
                 reach = along_u ? high.x() - low.x() : high.y() - low.y();
    std::vector<double> stations;
    for (int i = 0; i < 5; ++i) stations.push_back(from + reach * (0.3 + 0.1 * i));
    for (const auto& cut : sections(shape.mesh, shape.topology, across, stations, progress)) {
        double length = 0, first = 0, second = 0;
        const auto walk = [&](const Loop& line, bool closed) {
            for (std::size_t i = 0; i + (closed ? 0 : 1) < line.size(); ++i) {
                const auto &a = line[i], &b = line[(i + 1) % line.size()];
                const double ds = (b - a).norm();
                length += ds;
                first += ds * (a.x() + b.x()) / 2;
                second += ds * (a.x() * a.x() + a.x() * b.x() + b.x() * b.x()) / 3;
            }
        };
        for (const auto& loop : cut.loops) walk(loop, true);
        for (const auto& line : cut.open_lines) walk(line, false);
        if (length <= 0) continue;
        f.section_width += length / 5;
        f.section_second += (second - first * first / length) / 5;
    }
}

/// Diameter of the largest circle that goes into an outline, to about half a per cent.
double widest_circle(const Loop& outline) {
    if (outline.size() < 3) return 0;
    const Point2 size = high_corner({outline}) - low_corner({outline});
    const Loops loops{simplified(outline, 0.003 * size.minCoeff())};
    double low = 0, high = size.minCoeff() / 2;
    for (int i = 0; i < 9; ++i) {
        const double middle = (low + high) / 2;
        (net_area(offset(loops, -middle, false)) > 0 ? low : high) = middle;
    }
    return 2 * low;
}

/// The widest circle that goes into any opening of a piece, seen along its pull.
double mouth_of(const Piece& piece) {
    const auto frame = frame_across(piece.direction);
    const auto topology = topology_of(piece.mesh);
    double widest = 0;
    for (const auto& rim : rim_loops(piece.mesh, topology)) {
        Loop flat;
        for (const auto i : rim) flat.push_back(frame.flat(piece.mesh.points[i]));
        if (signed_area(flat) < 0) std::reverse(flat.begin(), flat.end());
        widest = std::max(widest, widest_circle(flat));
    }
    return widest;
}

std::vector<Painted> painted(const Choices& c) {
    std::vector<Painted> out;
    for (const auto& s : c.painted)
        out.push_back({{{s.at[0], s.at[1], s.at[2]}, {s.facing[0], s.facing[1], s.facing[2]}, s.reach},
                       s.paint,
                       {s.toward[0], s.toward[1], s.toward[2]}});
    return out;
}

/// Show surface: what is seen from above when the part is used (less steep than `show_above` against the
/// pull), and what is painted so by hand.
std::vector<char> show_faces(const TriangleMesh& mesh, const Point& pull, const Choices& c) {
    std::vector<char> show;
    if (c.show_above > 0) {
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
            show.push_back(
                static_cast<char>(mesh.area_vector2(f).normalized().dot(pull) > std::sin(c.show_above)));
    }
    std::vector<int> owner;
    lay_paint(mesh, painted(c), show, owner);
    if (std::find(show.begin(), show.end(), 1) == show.end()) show.clear();
    return show;
}

/// m of the seams that cross show surface: each step counts where the face nearest its middle is shown.
double length_on_show(const TriangleMesh& mesh, const std::vector<char>& show,
                      const std::vector<Line>& seams) {
    if (show.empty()) return 0;
    TriangleMesh shown;
    shown.points = mesh.points;
    double edge = 0;
    for (std::size_t f = 0; f < show.size(); ++f) {
        if (!show[f]) continue;
        shown.triangles.push_back(mesh.triangles[f]);
        edge = std::max(edge, std::sqrt(mesh.area_vector2(f).norm()));
    }
    // A grid of the shown faces' boxes keeps this near linear.
    const auto box = bounds_of(mesh);
    const double cell = std::max({1e-6, edge, box.diagonal() / 80}), reach = 1e-3 * box.diagonal();
    std::map<std::array<int, 3>, std::vector<std::size_t>> grid;
    const auto place = [&](const Point& p) {
        const Point q = (p - box.low) / cell;
        return std::array{static_cast<int>(std::floor(q.x())), static_cast<int>(std::floor(q.y())),
                          static_cast<int>(std::floor(q.z()))};
    };
    for (std::size_t f = 0; f < shown.triangles.size(); ++f) {
        Point low = shown.corner(f, 0), high = low;
        for (int k = 1; k < 3; ++k) {
            low = low.cwiseMin(shown.corner(f, k));
            high = high.cwiseMax(shown.corner(f, k));
        }
        const auto a = place(low - Point::Constant(reach)), b = place(high + Point::Constant(reach));
        for (int x = a[0]; x <= b[0]; ++x) {
            for (int y = a[1]; y <= b[1]; ++y) {
                for (int z = a[2]; z <= b[2]; ++z) grid[{x, y, z}].push_back(f);
            }
        }
    }
    double sum = 0;
    for (const auto& line : seams) {
        for (std::size_t i = 1; i < line.size(); ++i) {
            const Point middle = (line[i] + line[i - 1]) / 2;
            const auto found = grid.find(place(middle));
            if (found == grid.end()) continue;
            const bool on = std::any_of(found->second.begin(), found->second.end(), [&](std::size_t f) {
                return distance_to_face(shown, f, middle) < reach;
            });
            if (on) sum += (line[i] - line[i - 1]).norm();
        }
    }
    return sum;
}

/// Puts the parts that one mould makes beside each other.
void lay_out(const Choices& c, const shape::Findings& shape, Findings& out) {
    const Point full = shape.measures.size;
    out.size = {std::max(full.x(), full.y()), std::min(full.x(), full.y())};
    out.rims = out.joined = {out.rim};
    out.places = {PartPlace{}};
    if (c.together == Together::alone || c.way != SplitWay::one || out.rim.size() < 3) return;
    out.places = lay_parts({out.rim}, c);
    out.rims.clear();
    for (const auto& place : out.places) out.rims.push_back(placed(out.rim, place));
    out.joined = joined_outline(out.rims, c.between);
    out.stood = stand_parts(shape.mesh, out.frame, out.places);
    const Point2 reach = high_corner(out.joined) - low_corner(out.joined);
    out.size = {reach.maxCoeff(), reach.minCoeff()};
}

/// Divides the mould and judges every piece: its faces, its way out, its opening, its boards.
void divide(const Choices& c, const shape::Findings& shape, double hole, Findings& out, Progress& progress) {
    const Point at(c.plane_at[0], c.plane_at[1], c.plane_at[2]),
        normal(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]);
    if (c.way == SplitWay::plane) {
        out.set = pieces_by_plane(shape.mesh, *shape.rays, at, normal, out.drag_angle, progress);
    } else {
        PieceRules rules;
        rules.count = c.pieces;
        rules.drag_angle = out.drag_angle;
        rules.show = out.show;
        rules.painted = painted(c);
        out.set = find_pieces(shape.mesh, *shape.rays, rules, progress);
    }
    out.boards = parting_boards(shape.mesh, shape.topology, out.set, c, hole, progress);
    out.seam_on_show = length_on_show(shape.mesh, out.show, out.set.seams);
    const auto ways = ways_out(out.set, *shape.rays, c.backing, progress);
    for (std::size_t i = 0; i < out.set.pieces.size(); ++i) {
        const auto& piece = out.set.pieces[i];
        PieceFacts facts;
        facts.name = i < c.names.size() && !c.names[i].empty() ? c.names[i] : fmt::format("piece {}", i + 1);
        facts.way = ways[i];
        facts.mouth = mouth_of(piece);
        facts.depth = piece.map.depth;
        if (!out.show.empty()) facts.show = show_faces(piece.mesh, out.pull, c);
        out.facts.push_back(std::move(facts));
    }
    // The whole mould's sums are the pieces' sums, each along its own pull; what each face does stands in the
    // pieces' own maps, since their faces are not the part's.
    out.pull = out.set.pieces.front().direction;
    auto& m = out.map;
    m = DraftMap{};
    m.faces.assign(shape.mesh.triangles.size(), Release::slides);
    m.shadow.assign(shape.mesh.triangles.size(), 0);
    m.min_draft = std::numeric_limits<double>::infinity();
    for (const auto& piece : out.set.pieces) {
        m.area += piece.map.area;
        m.slides += piece.map.slides;
        m.drags += piece.map.drags;
        m.locks += piece.map.locks;
        m.shadowed += piece.map.shadowed;
        m.projected += piece.map.projected;
        m.min_draft = std::min(m.min_draft, piece.map.min_draft);
        m.depth = std::max(m.depth, piece.map.depth);
    }
}

}  // namespace

double drag_angle_for(Grade grade) {
    switch (grade) {
        case Grade::structural:
            return radians(1);
        case Grade::paintable:
            return radians(1.5);
        case Grade::clear:
            return radians(2);
        case Grade::gloss:
            break;
    }
    return radians(3);
}

const TriangleMesh& mould_mesh(const shape::Findings& shape, const Findings& split) {
    return split.stood ? split.stood->mesh : shape.mesh;
}

const Topology& mould_topology(const shape::Findings& shape, const Findings& split) {
    return split.stood ? split.stood->topology : shape.topology;
}

Asked asked(const Choices& c, const brief::Of<brief::Wanted, brief::Series>& brief, const Library& shop) {
    return {c.drag_rule == DragRule::surface ? drag_angle_for(brief.grade) : c.drag_angle,
            c.together == Together::alone ? 0 : brief.pulls,
            need(shop.fasteners, c.dowel, "split dowel").diameter,
            need(shop.boards, c.board, "parting board").thickness};
}

Findings evaluate(const Choices& c, const shape::Findings& shape, const Asked& asked, Progress& progress) {
    Findings out;
    out.drag_angle = asked.drag_angle;
    DraftRules rules;
    rules.drag_angle = out.drag_angle;
    rules.foot_open = c.foot_open;
    if (c.way == SplitWay::plane) {
        out.pull = Point(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]);
    } else if (c.mode == PullMode::best) {
        out.candidates = best_pulls(shape.mesh, *shape.rays, rules, 3, progress);
        out.pull = out.candidates.front().direction;
    } else {
        out.pull = {c.pull[0], c.pull[1], c.pull[2]};
        if (!(out.pull.norm() > 1e-9))
            throw InputError("split", "the pull has no length", "give a direction such as 0, 0, 1");
        out.pull.normalize();
    }
    if (c.way == SplitWay::one) {
        out.map = draft(shape.mesh, *shape.rays, out.pull, rules, progress);
    } else {
        out.show = show_faces(shape.mesh, out.pull, c);
        divide(c, shape, asked.dowel, out, progress);
    }
    out.frame = frame_across(out.pull);
    out.zero_lines = zero_draft_lines(shape.mesh, shape.topology, out.pull);
    out.moulded_area = out.map.area - out.map.open;
    out.foot = std::numeric_limits<double>::infinity();
    for (const auto& t : shape.mesh.triangles) {
        for (const auto i : t) out.foot = std::min(out.foot, out.pull.dot(shape.mesh.points[i]));
    }
    out.rim = find_rim(shape, out, progress);
    out.mouth = widest_circle(out.rim);
    lay_out(c, shape, out);
    if (!out.one_piece() || out.map.locks > 1e-4 * out.moulded_area)
        out.widest = widest_height(shape.mesh, shape.topology, out.pull, progress);
    measure_sections(shape, out, progress);
    const auto& m = out.map;
    const auto share = [&](double a) {
        return fmt::format("{:.1f} % of the moulded area",
                           out.moulded_area > 0 ? 100 * a / out.moulded_area : 0);
    };
    out.figures = {
        {"slides", "slides", Kind::area, m.slides,
         share(m.slides) + ": more draft than the drag angle and nothing stands over it"},
        {"drags", "drags", Kind::area, m.drags,
         share(m.drags) + ": draft between 0 and " + quantity(Kind::angle, out.drag_angle)},
        {"locks", "locks", Kind::area, m.locks, share(m.locks) + ": turned away from the pull, or overhung"},
        {"overhung", "of that, overhung", Kind::area, m.shadowed,
         "rays from the face along the pull meet the shape"},
        {"min_draft", "worst draft", Kind::angle, m.min_draft,
         out.one_piece() ? "asin of normal · pull at the worst face"
                         : "asin of normal · pull at the worst face, each along its own piece's pull"},
        {"moulded", "moulded area", Kind::area, out.moulded_area,
         "all faces less " + quantity(Kind::area, m.open) + " of open foot"},
        {"projected", "seen along the pull", Kind::area, m.projected,
         "sum of A·sin(draft) over faces that nothing stands over"},
        {"draw", "depth of draw", Kind::length, m.depth, "extent along the pull"},
        {"mouth", "widest circle in its mouth", Kind::length, out.mouth,
         "the largest circle inside the rim seen along the pull: hands, bag and hoses pass through it"}};
    for (std::size_t i = 1; out.one_piece() && i < out.candidates.size(); ++i) {
        const auto& other = out.candidates[i];
        const auto& d = other.direction;
        out.figures.push_back(
            {fmt::format("pull_{}", i + 1), fmt::format("pull number {} would lock", i + 1), Kind::area,
             other.locks,
             fmt::format("along {:.2f}, {:.2f}, {:.2f}; drags {}, {} deep", d.x(), d.y(), d.z(),
                         quantity(Kind::area, other.drags), quantity(Kind::length, other.depth))});
    }
    if (out.parts() > 1) {
        out.figures.push_back(
            {"parts", "parts from one pull", Kind::count, static_cast<double>(out.parts()),
             fmt::format("{}, {} of flange between two at least; the mould is {} × {} without its own flange",
                         c.together == Together::mirrored ? "left and right" : "alike",
                         quantity(Kind::length, c.between), quantity(Kind::length, out.size.x()),
                         quantity(Kind::length, out.size.y()))});
        out.figures.push_back({"bags_saved", "bagging operations saved", Kind::count,
                               static_cast<double>(asked.pulls) * (out.parts() - 1),
                               fmt::format("{} pulls × ({} parts − 1), against one mould for each part",
                                           asked.pulls, out.parts())});
    }
    if (!out.one_piece()) {
        double board_area = 0, clay = 0, misfit = 0, low = std::numeric_limits<double>::infinity(), high = 0;
        std::size_t dowels = 0, supports = 0;
        for (const auto& board : out.boards) {
            board_area += board.area;
            clay += clay_volume(board.length, c, asked.stock);
            misfit = std::max(misfit, board.misfit);
            dowels += board.dowels.size();
            supports += board.supports.size();
            for (const auto& s : board.supports) {
                low = std::min(low, s.height);
                high = std::max(high, s.height);
            }
        }
        out.figures.push_back({"pieces", "pieces", Kind::count, static_cast<double>(out.set.pieces.size()),
                               c.way == SplitWay::plane ? "one on each side of the plane"
                                                        : "as few as free every face, up to your number"});
        out.figures.push_back({"seam", "length of the seams", Kind::length, out.set.seam_length,
                               "along the part, steps of the mesh smoothed out"});
        for (std::size_t i = 0; i < out.facts.size(); ++i) {
            const auto& piece = out.set.pieces[i];
            const auto& d = piece.direction;
            out.figures.push_back(
                {fmt::format("piece_{}", i + 1), out.facts[i].name, Kind::area, piece.map.area,
                 fmt::format(
                     "pull {:.2f}, {:.2f}, {:.2f}; locks {}, drags {}; {} deep, mouth {}; {}", d.x(), d.y(),
                     d.z(), quantity(Kind::area, piece.map.locks), quantity(Kind::area, piece.map.drags),
                     quantity(Kind::length, out.facts[i].depth), quantity(Kind::length, out.facts[i].mouth),
                     out.facts[i].way.turn > 0 ? fmt::format("comes off as number {}", out.facts[i].way.turn)
                                               : std::string("held by another piece"))});
        }
        out.figures.push_back(
            {"boards", "parting boards", Kind::area, board_area,
             fmt::format("{} boards, {} wide, {} off the plug", out.boards.size(),
                         quantity(Kind::length, c.board_width), quantity(Kind::length, c.stand_off))});
        out.figures.push_back(
            {"clay", "clay fillet", Kind::volume, clay,
             "length × (gap × " + quantity(Kind::length, asked.stock) + " of board + (1 − π/4)·r²)"});
        if (supports > 0)
            out.figures.push_back(
                {"supports", "supports under the boards", Kind::count, static_cast<double>(supports),
                 fmt::format(
                     "every {} or less along their outer edges, {} to {} above the bench that the plug "
                     "lies on",
                     quantity(Kind::length, c.support_pitch), quantity(Kind::length, low),
                     quantity(Kind::length, high))});
        if (misfit > 0)
            out.figures.push_back(
                {"misfit", "boards laid flat may be out by", Kind::thickness, misfit,
                 "the strip parted along its one set of diagonals and along the other, laid on each other; a "
                 "strip bent one way only gives 0"});
        if (!out.show.empty())
            out.figures.push_back({"seam_on_show", "seam across show surface", Kind::length, out.seam_on_show,
                                   "steps of the seams whose middle lies on a shown face"});
        if (c.locating == Locating::dowels)
            out.figures.push_back(
                {"dowels", "dowels", Kind::count, static_cast<double>(dowels),
                 "two or more a board, no further apart than 0.6 m, one round one slotted: " + c.dowel});
        else
            out.figures.push_back({"lean_step", "step of the leaning face", Kind::length,
                                   c.board_width * std::tan(c.lean),
                                   "board width × tan " + quantity(Kind::angle, c.lean)});
    }
    return out;
}

}  // namespace jig::split
