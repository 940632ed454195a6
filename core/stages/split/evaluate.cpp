#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/science/mesh/slice.hpp"
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
    const Loops loops{simplified(outline, 0.001 * size.minCoeff())};
    double low = 0, high = size.minCoeff() / 2;
    for (int i = 0; i < 12; ++i) {
        const double middle = (low + high) / 2;
        (net_area(offset(loops, -middle, false)) > 0 ? low : high) = middle;
    }
    return 2 * low;
}

/// The opening of a piece: its longest rim seen along its pull.
Loop mouth_of(const Piece& piece) {
    const auto frame = frame_across(piece.direction);
    const auto topology = topology_of(piece.mesh);
    Loop best;
    for (const auto& rim : rim_loops(piece.mesh, topology)) {
        Loop flat;
        for (const auto i : rim) flat.push_back(frame.flat(piece.mesh.points[i]));
        if (std::abs(signed_area(flat)) > std::abs(signed_area(best))) best = std::move(flat);
    }
    if (signed_area(best) < 0) std::reverse(best.begin(), best.end());
    return best;
}

/// Which way a parting board stands off along each seam: the part's outward normal there, out of the mean
/// pull.
std::vector<std::vector<Point>> away_from(const TriangleMesh& mesh, const std::vector<Line>& seams) {
    // The nearest of the mesh's points lends its normal; a coarse grid finds it.
    std::vector<Point> normal(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (const auto i : mesh.triangles[f]) normal[i] += mesh.area_vector2(f);
    }
    const auto box = bounds_of(mesh);
    const double cell = std::max(1e-9, box.diagonal() / 60);
    std::map<std::array<int, 3>, std::vector<std::size_t>> grid;
    const auto place = [&](const Point& p) {
        const Point q = (p - box.low) / cell;
        return std::array{static_cast<int>(q.x()), static_cast<int>(q.y()), static_cast<int>(q.z())};
    };
    for (std::size_t i = 0; i < mesh.points.size(); ++i) grid[place(mesh.points[i])].push_back(i);
    std::vector<std::vector<Point>> out;
    for (const auto& line : seams) {
        auto& ways = out.emplace_back();
        for (const auto& p : line) {
            const auto at = place(p);
            double nearest = std::numeric_limits<double>::infinity();
            Point way = ways.empty() ? Point(Point::UnitX()) : ways.back();
            for (int x = -1; x <= 1; ++x) {
                for (int y = -1; y <= 1; ++y) {
                    for (int z = -1; z <= 1; ++z) {
                        const auto found = grid.find({at[0] + x, at[1] + y, at[2] + z});
                        if (found == grid.end()) continue;
                        for (const auto i : found->second) {
                            const double d = (mesh.points[i] - p).squaredNorm();
                            if (d < nearest && normal[i].norm() > 0) {
                                nearest = d;
                                way = normal[i].normalized();
                            }
                        }
                    }
                }
            }
            ways.push_back(way);
        }
    }
    return out;
}

/// Faces that are seen from above when the part is used: those less steep than `above` against the pull.
std::vector<char> show_faces(const TriangleMesh& mesh, const Point& pull, double above) {
    std::vector<char> show;
    if (above <= 0) return show;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        show.push_back(static_cast<char>(mesh.area_vector2(f).normalized().dot(pull) > std::sin(above)));
    return show;
}

/// Divides the mould and judges every piece: its faces, its way out, its opening, its boards.
void divide(const Choices& c, const shape::Findings& shape, Findings& out, Progress& progress) {
    const Point at(c.plane_at[0], c.plane_at[1], c.plane_at[2]),
        normal(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]);
    if (c.way == SplitWay::plane) {
        out.set = pieces_by_plane(shape.mesh, *shape.rays, at, normal, out.drag_angle, progress);
        out.boards = plane_boards(shape.mesh, shape.topology, at, normal, c, progress);
    } else {
        PieceRules rules;
        rules.count = c.pieces;
        rules.drag_angle = out.drag_angle;
        rules.show = show_faces(shape.mesh, out.pull, c.show_above);
        out.set = find_pieces(shape.mesh, *shape.rays, rules, progress);
        out.boards = seam_boards(out.set.seams, away_from(shape.mesh, out.set.seams), c);
    }
    const auto ways = ways_out(out.set, *shape.rays, c.backing, progress);
    for (std::size_t i = 0; i < out.set.pieces.size(); ++i) {
        const auto& piece = out.set.pieces[i];
        PieceFacts facts;
        facts.name = i < c.names.size() && !c.names[i].empty() ? c.names[i] : fmt::format("piece {}", i + 1);
        facts.way = ways[i];
        facts.mouth = widest_circle(mouth_of(piece));
        facts.depth = piece.map.depth;
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

Findings evaluate(const Choices& c, const shape::Findings& shape, const brief::Choices& brief,
                  Progress& progress) {
    Findings out;
    out.drag_angle = c.drag_rule == DragRule::surface ? drag_angle_for(brief.grade) : c.drag_angle;
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
    if (c.way == SplitWay::one)
        out.map = draft(shape.mesh, *shape.rays, out.pull, rules, progress);
    else
        divide(c, shape, out, progress);
    out.frame = frame_across(out.pull);
    out.zero_lines = zero_draft_lines(shape.mesh, shape.topology, out.pull);
    out.moulded_area = out.map.area - out.map.open;
    out.foot = std::numeric_limits<double>::infinity();
    for (const auto& t : shape.mesh.triangles) {
        for (const auto i : t) out.foot = std::min(out.foot, out.pull.dot(shape.mesh.points[i]));
    }
    out.rim = find_rim(shape, out, progress);
    out.mouth = widest_circle(out.rim);
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
    if (!out.one_piece()) {
        double board_area = 0, clay = 0;
        constexpr double kBoardThickness = 0.012;
        for (const auto& board : out.boards) {
            board_area += board.area;
            clay += clay_volume(board.length, c, kBoardThickness);
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
             "length × (gap × " + quantity(Kind::length, kBoardThickness) + " of board + (1 − π/4)·r²)"});
        if (c.locating == Locating::dowels)
            out.figures.push_back(
                {"dowels", "dowels", Kind::count,
                 std::max(2.0, std::ceil(out.set.seam_length / 0.6)) *
                     static_cast<double>(std::max<std::size_t>(1, out.set.pieces.size() - 1)),
                 "two or more a joint, not further apart than 0.6 m, one round one slotted"});
        else
            out.figures.push_back({"lean_step", "step of the leaning face", Kind::length,
                                   c.board_width * std::tan(c.lean),
                                   "board width × tan " + quantity(Kind::angle, c.lean)});
    }
    return out;
}

}  // namespace jig::split
