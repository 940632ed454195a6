#include "core/science/vacuum/bridging.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace jig {
namespace {

double line_length(const Loop& line) {
    double sum = 0;
    for (std::size_t i = 1; i < line.size(); ++i) sum += (line[i] - line[i - 1]).norm();
    return sum;
}

/// Whether `c` lies left of, or on, the way from `a` to `b`.
bool turns_left(const Point2& a, const Point2& b, const Point2& c) {
    const Point2 u = b - a, v = c - a;
    return u.x() * v.y() - u.y() * v.x() >= 0;
}

/// A string drawn tight over the face from its first to its last point: the upper hull between them.
Loop taut(const Loop& face) {
    const auto &from = face.front(), &to = face.back();
    Loop points;
    for (const auto& p : face) {
        if (p.x() > from.x() && p.x() < to.x()) points.push_back(p);
    }
    std::sort(points.begin(), points.end(), [](const Point2& a, const Point2& b) { return a.x() < b.x(); });
    points.push_back(to);
    Loop out{from};
    for (const auto& p : points) {
        while (out.size() > 1 && turns_left(out[out.size() - 2], out.back(), p)) out.pop_back();
        out.push_back(p);
    }
    return out;
}

/// The air over a face under a lid so high, between walls so far out, that neither is felt by a disc of the
/// largest radius.
struct Air {
    Loop outline;
    double largest = 0;  ///< m
};

Air air_over(const Loop& face) {
    const Point2 low = low_corner({face}), high = high_corner({face});
    Air out;
    out.largest = 6 * (high - low).norm();
    const double aside = 1.5 * out.largest, lid = high.y() + 2.5 * out.largest;
    const Point2 from(face.front().x() - aside, face.front().y()),
        to(face.back().x() + aside, face.back().y());
    out.outline.push_back(from);
    out.outline.insert(out.outline.end(), face.begin(), face.end());
    out.outline.push_back(to);
    out.outline.emplace_back(to.x(), lid);
    out.outline.emplace_back(from.x(), lid);
    return out;
}

/// Where a disc of radius `r` reaches.
Loop rolled(const Air& air, double r) {
    Loop out;
    // 130 chords to a turn cost a ten-thousandth of an arc's length; Clipper's time goes by their square.
    const double arc = std::max(1e-6, 3e-4 * r);
    for (auto& loop : offset(offset({air.outline}, -r, true, arc), r, true, arc)) {
        if (signed_area(loop) > signed_area(out)) out = std::move(loop);
    }
    return out;
}

/// The lower side of `reached` between the ends of the face.
Loop lower_side(const Loop& reached, const Loop& face) {
    const double from = face.front().x(), to = face.back().x(),
                 top = high_corner({face}).y() + 1e-6 * (to - from);
    std::size_t first = 0;
    // The outline runs anticlockwise: along its lower side from the wall on the left.
    for (std::size_t i = 1; i < reached.size(); ++i) {
        const auto &p = reached[i], &best = reached[first];
        if (p.x() < best.x() || (p.x() == best.x() && p.y() < best.y())) first = i;
    }
    Loop out{face.front()};
    for (std::size_t k = 0; k < reached.size(); ++k) {
        const auto& p = reached[(first + k) % reached.size()];
        if (p.y() > top) {
            if (out.size() > 1) break;
            continue;
        }
        if (p.x() > from && p.x() < to) out.push_back(p);
    }
    out.push_back(face.back());
    return out;
}

double distance_to(const Loop& line, const Point2& p) {
    double best = std::numeric_limits<double>::infinity();
    for (std::size_t i = 1; i < line.size(); ++i) {
        const Point2 a = line[i - 1], ab = line[i] - a;
        const double t = std::clamp((p - a).dot(ab) / std::max(1e-30, ab.squaredNorm()), 0.0, 1.0);
        best = std::min(best, (p - a - t * ab).norm());
    }
    return best;
}

void widest_gap(const Loop& face, Span& span) {
    const double step = line_length(face) / 600;
    const auto look = [&](const Point2& p) {
        const double gap = distance_to(span.line, p);
        if (gap <= span.gap) return;
        span.gap = gap;
        span.at = p;
    };
    for (std::size_t i = 1; i < face.size(); ++i) {
        const Point2 a = face[i - 1], ab = face[i] - a;
        const int parts = std::clamp(static_cast<int>(ab.norm() / step), 1, 600);
        for (int k = 0; k < parts; ++k) look(a + ab * (static_cast<double>(k) / parts));
    }
}

/// All that a section cuts, in one line from its one end to the other with the air on its left. `up` is 1
/// where the air lies along the pull, -1 where it lies against it.
Loop face_in(const Section& cut, double up) {
    std::vector<Loop> lines;
    for (const auto& line : cut.open_lines) {
        if (line.size() < 2) continue;
        auto& one = lines.emplace_back();
        for (const auto& p : line) one.emplace_back(p.y(), up * p.x());
        if (one.front().x() > one.back().x()) std::reverse(one.begin(), one.end());
    }
    std::sort(lines.begin(), lines.end(),
              [](const Loop& a, const Loop& b) { return a.front().x() < b.front().x(); });
    Loop out;
    for (const auto& line : lines) out.insert(out.end(), line.begin(), line.end());
    return out;
}

}  // namespace

Span span_over(const Loop& face, double length) {
    Span out;
    if (face.size() < 2 || length >= line_length(face)) {
        out.line = face;
        return out;
    }
    const auto string = taut(face);
    const double shortest = line_length(string);
    out.line = string;
    if (length < shortest) {
        out.reaches = false;
        widest_gap(face, out);
        return out;
    }
    const auto air = air_over(face);
    // The larger the disc the shorter the film.
    double low = 1e-5 * air.largest, high = air.largest;
    while (high > low * (1 + 1e-4)) {
        const double r = std::sqrt(low * high);
        auto film = lower_side(rolled(air, r), face);
        if (line_length(film) > length) {
            low = r;
        } else {
            high = r;
            out.line = std::move(film);
        }
    }
    out.radius = high;
    widest_gap(face, out);
    return out;
}

std::optional<Bridge> bridge_under(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                                   const FilmRules& rules, const Film& film, Progress& progress) {
    const auto rim = film_rim(mesh, topology, frame);
    double deepest = 0;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const double d = frame.w.dot(mesh.points[i]) - rim.height;
            if (std::abs(d) > std::abs(deepest)) deepest = d;
        }
    }
    const double up = deepest > 0 ? -1 : 1;
    std::optional<Bridge> out;
    for (const bool along : {true, false}) {
        const Point axis = along ? frame.v : frame.u;
        const double there = (along ? film.length : film.width) - 2 * rules.land;
        auto girths = film_girths(mesh, topology, frame, axis, rim.height, progress);
        std::sort(girths.begin(), girths.end(),
                  [](const Girth& a, const Girth& b) { return a.length > b.length; });
        // What lacks most gapes most, or nearly: a few are looked at.
        constexpr std::size_t kLookedAt = 5;
        for (std::size_t i = 0; i < std::min(kLookedAt, girths.size()); ++i) {
            const auto& g = girths[i];
            if (g.length <= there + 1e-4 * g.length || !g.cut.loops.empty()) continue;
            progress.report(0.8, "looking where the film does not reach");
            auto face = face_in(g.cut, up);
            if (face.empty()) continue;
            // No film is as exact; an open line is to keep its last point.
            const auto last = face.back();
            face = simplified(face, 2e-5);
            if (face.back() != last) face.push_back(last);
            const auto span = span_over(face, there);
            if (out && out->reaches && span.reaches && span.gap <= out->gap) continue;
            if (out && !out->reaches && (span.reaches || g.length - there <= out->short_by)) continue;
            const auto across = girth_frame(frame, axis);
            const auto lift = [&](const Point2& p) {
                return across.lift(Point2(up * p.y(), p.x()), g.cut.height);
            };
            out = Bridge{span.reaches, along, g.length - there, span.radius, span.gap, lift(span.at), {}};
            for (const auto& p : span.line) out->line.push_back(lift(p));
        }
    }
    if (out && out->reaches && out->gap < 1e-4) return std::nullopt;
    return out;
}

}  // namespace jig
