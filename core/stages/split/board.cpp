#include "core/stages/split/board.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/units.hpp"
#include "core/science/mesh/slice.hpp"

namespace jig::split {
namespace {

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

std::vector<Board> plane_boards(const TriangleMesh& mesh, const Topology& topology, const Point& at,
                                const Point& normal, const Choices& c, Progress& progress) {
    const auto frame = frame_across(normal);
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
    // Each outer loop with its holes is a board; what lies inside a hole of the plug is a board of its own.
    for (const auto& loop : all) {
        if (signed_area(loop) <= 0) continue;
        Board board;
        board.name = fmt::format("board {}", out.size() + 1);
        board.outline.push_back(loop);
        for (const auto& hole : all) {
            if (signed_area(hole) < 0 && net_area(taken_off({[&] {
                                                                auto filled_hole = hole;
                                                                std::reverse(filled_hole.begin(),
                                                                             filled_hole.end());
                                                                return filled_hole;
                                                            }()},
                                                            {loop})) < 1e-9)
                board.outline.push_back(hole);
        }
        board.area = net_area(board.outline);
        for (std::size_t i = 1; i < board.outline.size(); ++i) board.length += perimeter(board.outline[i]);
        if (board.length == 0) board.length = perimeter(loop);
        out.push_back(std::move(board));
    }
    return out;
}

std::vector<Board> seam_boards(const std::vector<Line>& seams, const std::vector<std::vector<Point>>& outward,
                               const Choices& c) {
    std::vector<Board> out;
    for (std::size_t s = 0; s < seams.size(); ++s) {
        if (seams[s].size() < 2 || length_of(seams[s]) < 2 * c.stand_off) continue;
        auto near = seams[s];
        auto ways = outward[s];
        thin_out(near, ways, 0.15 * c.board_width);
        Line far;
        for (std::size_t i = 0; i < near.size(); ++i) {
            far.push_back(near[i] + (c.stand_off + c.board_width) * ways[i]);
            near[i] += c.stand_off * ways[i];
        }
        Board board;
        board.name = fmt::format("board {}", out.size() + 1);
        board.developed = true;
        board.length = length_of(seams[s]);
        board.outline = {unrolled(near, far)};
        if (signed_area(board.outline.front()) < 0)
            std::reverse(board.outline.front().begin(), board.outline.front().end());
        board.area = signed_area(board.outline.front());
        board.bend = tightest(near);
        out.push_back(std::move(board));
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
        piece.slab = static_cast<int>(out.sheets.size()) + 1;
        for (const auto& loop : board.outline) {
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
