#include "core/stages/split/board.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/base/units.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/triangulate.hpp"

namespace jig::split {
namespace {

constexpr double kDowelPitch = 0.6;  // m, no further apart than that

/// Smallest radius of the circle through three neighbours of a line.
double tightest(const Line& line) {
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 1; i + 1 < line.size(); ++i) {
        const Point a = line[i] - line[i - 1], b = line[i + 1] - line[i];
        const double twice = a.cross(b).norm();
        if (twice > 1e-12) least = std::min(least, a.norm() * b.norm() * (a + b).norm() / (2 * twice));
    }
    return std::isfinite(least) ? least : 0;
}

/// About every `step` m a point, ends kept.
void thin_out(Line& line, std::vector<Point>& outward, double step) {
    Line kept;
    std::vector<Point> ways;
    for (std::size_t i = 0; i < line.size(); ++i) {
        if (!kept.empty() && i + 1 < line.size() && (line[i] - kept.back()).norm() < step) continue;
        kept.push_back(line[i]);
        ways.push_back(outward[i]);
    }
    line = std::move(kept);
    outward = std::move(ways);
}

}  // namespace

Loop unrolled(const Line& near, const Line& far) {
    Loop a, b;
    if (near.size() < 2 || near.size() != far.size()) return {};
    // The third corner of a triangle whose base lies at p, q in the plane, on its left or right.
    const auto corner = [](const Point2& p, const Point2& q, double from_p, double from_q, double side) {
        const Point2 base = q - p;
        const double d = std::max(1e-12, base.norm());
        const double along = (d * d + from_p * from_p - from_q * from_q) / (2 * d);
        const double off = std::sqrt(std::max(0.0, from_p * from_p - along * along));
        const Point2 u = base / d;
        return Point2(p + along * u + side * off * Point2(-u.y(), u.x()));
    };
    a.emplace_back(0, 0);
    b.emplace_back(0, (far[0] - near[0]).norm());
    for (std::size_t i = 0; i + 1 < near.size(); ++i) {
        // The strip runs to the right of the line from `near` to `far`.
        a.push_back(corner(a[i], b[i], (near[i + 1] - near[i]).norm(), (near[i + 1] - far[i]).norm(), -1));
        b.push_back(
            corner(b[i], a[i + 1], (far[i + 1] - far[i]).norm(), (far[i + 1] - near[i + 1]).norm(), 1));
    }
    a.insert(a.end(), b.rbegin(), b.rend());
    return a;
}

namespace {

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

/// Points at even distances of at most `most` m along a line, two at least, clear of its ends.
std::vector<std::pair<std::size_t, double>> spaced(const std::vector<double>& along, bool closed,
                                                   double most) {
    std::vector<std::pair<std::size_t, double>> out;
    const double length = along.back();
    const auto count = std::max<std::size_t>(2, static_cast<std::size_t>(std::ceil(length / most)));
    std::size_t k = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const double n = static_cast<double>(count), at = closed
                                                              ? length * static_cast<double>(i) / n
                                                              : length * (static_cast<double>(i) + 0.5) / n;
        while (k + 2 < along.size() && along[k + 1] < at) ++k;
        out.emplace_back(k, std::clamp((at - along[k]) / std::max(1e-12, along[k + 1] - along[k]), 0.0, 1.0));
    }
    return out;
}

template <class P>
std::vector<double> run_along(const std::vector<P>& line) {
    std::vector<double> out{0};
    for (std::size_t i = 1; i < line.size(); ++i) out.push_back(out.back() + (line[i] - line[i - 1]).norm());
    return out;
}

template <class P>
std::vector<P> places(const std::vector<P>& line, bool closed, double most) {
    std::vector<P> out;
    for (const auto& [k, t] : spaced(run_along(line), closed, most))
        out.push_back(line[k] + t * (line[k + 1] - line[k]));
    return out;
}

Loop closed_loop(Loop loop) {
    loop.push_back(loop.front());
    return loop;
}

/// Turns the ways off the seam by `lean` towards `pull`.
void lean_over(const Line& line, std::vector<Point>& ways, double lean, const Point& pull) {
    for (std::size_t i = 0; i < line.size(); ++i) {
        const Point tangent = (line[std::min(i + 1, line.size() - 1)] - line[i > 0 ? i - 1 : 0]).normalized();
        Point way = ways[i] - ways[i].dot(tangent) * tangent;
        if (!(way.norm() > 1e-9)) continue;
        way.normalize();
        Point over = tangent.cross(way);
        if (over.dot(pull) < 0) over = -over;
        ways[i] = std::cos(lean) * way + std::sin(lean) * over;
    }
}

/// How far apart two flat outlines of the same points lie once they are laid on each other as well as can be.
double apart(const Loop& a, const Loop& b) {
    Point2 ma = Point2::Zero(), mb = Point2::Zero();
    const double n = static_cast<double>(a.size());
    for (std::size_t i = 0; i < a.size(); ++i) {
        ma += a[i] / n;
        mb += b[i] / n;
    }
    double c = 0, s = 0;
    for (std::size_t i = 0; i < a.size(); ++i) {
        const Point2 p = a[i] - ma, q = b[i] - mb;
        c += p.dot(q);
        s += q.x() * p.y() - q.y() * p.x();
    }
    const double turn = std::atan2(s, c), cosine = std::cos(turn), sine = std::sin(turn);
    double worst = 0;
    for (std::size_t i = 0; i < a.size(); ++i) {
        const Point2 q = b[i] - mb;
        const Point2 laid(q.x() * cosine - q.y() * sine, q.x() * sine + q.y() * cosine);
        worst = std::max(worst, (a[i] - ma - laid).norm());
    }
    return worst;
}

/// Flat boards in the plane of the split: the part's outline there grown by the stand-off, out to the board's
/// width.
std::vector<Board> plane_boards(const TriangleMesh& mesh, const Topology& topology, const Choices& c,
                                const Point& pull, Progress& progress) {
    const Point at(c.plane_at[0], c.plane_at[1], c.plane_at[2]),
        normal(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]);
    const auto frame = frame_across(normal.normalized());
    const std::array<double, 1> height{frame.w.dot(at)};
    auto cut = sections(mesh, topology, frame, height, progress).front();
    for (auto& line : cut.open_lines) {
        if (line.size() < 3) continue;
        if (signed_area(line) < 0) std::reverse(line.begin(), line.end());
        cut.loops.push_back(std::move(line));
    }
    std::vector<Board> out;
    if (cut.loops.empty()) return out;
    const auto plug = offset(cut.loops, c.stand_off);
    const auto all = taken_off(offset(cut.loops, c.stand_off + c.board_width), plug);
    const auto middle = offset(cut.loops, c.stand_off + c.board_width / 2);
    // Each outer loop with its holes is a board; what lies inside a hole of the plug is a board of its own.
    for (const auto& loop : all) {
        if (signed_area(loop) <= 0) continue;
        Board board;
        board.name = fmt::format("board {}", out.size() + 1);
        board.outline.push_back(loop);
        for (const auto& hole : all) {
            if (signed_area(hole) < 0 && holds({loop}, hole.front())) board.outline.push_back(hole);
        }
        board.area = net_area(board.outline);
        for (std::size_t i = 1; i < board.outline.size(); ++i) board.length += perimeter(board.outline[i]);
        if (board.length == 0) board.length = perimeter(loop);
        for (const auto& line : middle) {
            for (const auto& p : places(closed_loop(line), true, kDowelPitch)) {
                if (holds(board.outline, p)) board.dowels.push_back(p);
            }
        }
        const auto flat = filled(board.outline, std::max(0.01, c.board_width / 2));
        for (const auto& p : flat.points) board.surface.points.push_back(frame.lift(p, height[0]));
        board.surface.triangles = flat.triangles;
        if (frame.w.dot(pull) < 0) turn_over(board.surface);
        for (const auto& p : places(closed_loop(loop), true, c.support_pitch))
            board.supports.push_back({frame.lift(p, height[0]), 0});
        out.push_back(std::move(board));
    }
    return out;
}

/// One strip along each seam, `board_width` wide along `ways`, laid flat by unrolling its triangles.
std::vector<Board> seam_boards(const std::vector<Line>& seams, std::vector<std::vector<Point>> ways,
                               const Choices& c, const Point& pull) {
    std::vector<Board> out;
    for (std::size_t s = 0; s < seams.size(); ++s) {
        if (seams[s].size() < 2 || length_of(seams[s]) < std::max(1e-4, 2 * c.stand_off)) continue;
        const bool closed = seams[s].size() > 3 && seams[s].front() == seams[s].back();
        auto near = seams[s];
        thin_out(near, ways[s], 0.15 * c.board_width);
        if (c.locating == Locating::leaning) lean_over(near, ways[s], c.lean, pull);
        Line far;
        for (std::size_t i = 0; i < near.size(); ++i) {
            far.push_back(near[i] + (c.stand_off + c.board_width) * ways[s][i]);
            near[i] += c.stand_off * ways[s][i];
        }
        Board board;
        board.name = fmt::format("board {}", out.size() + 1);
        board.developed = true;
        board.length = length_of(seams[s]);
        board.outline = {unrolled(near, far)};
        // Run the other way the strip parts along its other diagonals; what differs is no fault of either.
        auto back = unrolled(Line(near.rbegin(), near.rend()), Line(far.rbegin(), far.rend()));
        const auto n = static_cast<std::ptrdiff_t>(near.size());
        std::reverse(back.begin(), back.begin() + n);
        std::reverse(back.begin() + n, back.end());
        for (auto& p : back) p.x() = -p.x();
        board.misfit = apart(board.outline.front(), back);
        const auto& strip = board.outline.front();
        Loop middle;
        for (std::size_t i = 0; i < near.size(); ++i)
            middle.push_back((strip[i] + strip[2 * near.size() - 1 - i]) / 2);
        board.dowels = places(middle, closed, kDowelPitch);
        if (signed_area(board.outline.front()) < 0)
            std::reverse(board.outline.front().begin(), board.outline.front().end());
        board.area = signed_area(board.outline.front());
        board.bend = tightest(near);
        for (std::size_t i = 0; i < near.size(); ++i) {
            board.surface.points.push_back(near[i]);
            board.surface.points.push_back(far[i]);
            if (i == 0) continue;
            const auto k = static_cast<std::uint32_t>(2 * i);
            board.surface.triangles.push_back({k - 2, k - 1, k});
            board.surface.triangles.push_back({k, k - 1, k + 1});
        }
        Point facing = Point::Zero();
        for (std::size_t f = 0; f < board.surface.triangles.size(); ++f)
            facing += board.surface.area_vector2(f);
        if (facing.dot(pull) < 0) turn_over(board.surface);
        for (const auto& p : places(far, closed, c.support_pitch)) board.supports.push_back({p, 0});
        out.push_back(std::move(board));
    }
    return out;
}

}  // namespace

std::vector<Board> parting_boards(const TriangleMesh& mesh, const Topology& topology, const PieceSet& set,
                                  const Choices& c, double hole, Progress& progress) {
    if (set.pieces.empty()) return {};
    const Point pull = set.pieces.front().direction;
    std::vector<Board> out;
    if (c.way == SplitWay::plane && c.locating == Locating::dowels) {
        out = plane_boards(mesh, topology, c, pull, progress);
    } else {
        auto ways = away_from(mesh, set.seams);
        if (c.way == SplitWay::plane) {
            // Before they lean, the boards of a plane lie in it.
            const Point n = Point(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]).normalized();
            for (auto& line : ways) {
                for (auto& way : line) {
                    const Point flat = way - way.dot(n) * n;
                    if (flat.norm() > 1e-6) way = flat.normalized();
                }
            }
        }
        out = seam_boards(set.seams, std::move(ways), c, pull);
    }
    // The plug lies on the bench with the first piece's pull upwards.
    double bench = std::numeric_limits<double>::infinity();
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) bench = std::min(bench, pull.dot(mesh.points[i]));
    }
    for (auto& board : out) {
        if (c.locating != Locating::dowels) board.dowels.clear();
        board.hole = hole;
        for (auto& support : board.supports) support.height = std::max(0.0, pull.dot(support.at) - bench);
    }
    return out;
}

Loops drilled(const Board& board) {
    auto out = board.outline;
    for (const auto& at : board.dowels) {
        Loop circle;
        constexpr int kSides = 32;
        for (int i = 0; i < kSides; ++i) {
            const double a = -2 * kPi * i / kSides;
            circle.push_back(at + board.hole / 2 * Point2(std::cos(a), std::sin(a)));
        }
        out.push_back(std::move(circle));
    }
    return out;
}

SheetSet boards_on_sheets(const std::vector<Board>& boards) {
    SheetSet out;
    // As large as the largest board needs, not as the stock that the rules begin with.
    out.rules.length = out.rules.width = 0;
    constexpr double kPad = 0.02;
    double area = 0;
    for (const auto& board : boards) {
        const Point2 low = low_corner(board.outline), size = high_corner(board.outline) - low;
        SheetPiece piece;
        piece.name = std::to_string(out.sheets.size() + 1);
        for (const auto& loop : drilled(board)) {
            Loop moved;
            for (const auto& p : loop) moved.push_back(p - low + Point2(kPad, kPad));
            piece.loops.push_back(std::move(moved));
        }
        // The number goes onto the board itself, which may be a ring.
        piece.mark = piece.loops.front().front() * 0.97 + Point2(kPad, kPad) * 0.03;
        out.rules.length = std::max(out.rules.length, size.x() + 2 * kPad);
        out.rules.width = std::max(out.rules.width, size.y() + 2 * kPad);
        out.sheets.push_back({{std::move(piece)}});
        area += board.area;
    }
    if (!boards.empty())
        out.yield = area / (static_cast<double>(boards.size()) * out.rules.length * out.rules.width);
    return out;
}

double clay_volume(double length, const Choices& c, double board_thickness) {
    return length * (c.stand_off * board_thickness + (1 - kPi / 4) * c.fillet * c.fillet);
}

}  // namespace jig::split
