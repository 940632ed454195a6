#include "core/science/mesh/outline.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <polyclipping/clipper.hpp>

namespace jig {
namespace {

namespace clip = ClipperLib;
constexpr double kGrid = 1e6;  // Clipper counts in whole micrometres

clip::Path to_clip(const Loop& loop) {
    clip::Path path;
    path.reserve(loop.size());
    for (const auto& p : loop) path.emplace_back(std::llround(p.x() * kGrid), std::llround(p.y() * kGrid));
    return path;
}

clip::Paths to_clip(const Loops& loops) {
    clip::Paths paths;
    for (const auto& loop : loops) paths.push_back(to_clip(loop));
    return paths;
}

Loops from_clip(const clip::Paths& paths) {
    Loops loops;
    for (const auto& path : paths) {
        Loop loop;
        loop.reserve(path.size());
        for (const auto& p : path)
            loop.emplace_back(static_cast<double>(p.X) / kGrid, static_cast<double>(p.Y) / kGrid);
        if (loop.size() >= 3) loops.push_back(std::move(loop));
    }
    return loops;
}

/// An edge from one corner to another.
struct Way {
    clip::IntPoint from, to;
};
bool before(const clip::IntPoint& a, const clip::IntPoint& b) {
    return a.X != b.X ? a.X < b.X : a.Y < b.Y;
}

/// Closed paths that go as often round every place as `paths` do, without the edges that two of them run
/// along against each other: of a mesh laid flat its rims are left. O(n log n) for n edges.
clip::Paths rims_of(const clip::Paths& paths) {
    std::vector<Way> ways;
    for (const auto& path : paths) {
        for (std::size_t i = 0; i < path.size(); ++i) {
            if (const Way way{path[i], path[(i + 1) % path.size()]}; way.from != way.to) ways.push_back(way);
        }
    }
    const auto low = [](const Way& w) { return before(w.to, w.from) ? w.to : w.from; };
    const auto high = [](const Way& w) { return before(w.to, w.from) ? w.from : w.to; };
    std::sort(ways.begin(), ways.end(), [&](const Way& a, const Way& b) {
        const auto la = low(a), lb = low(b);
        return la != lb ? before(la, lb) : before(high(a), high(b));
    });
    std::vector<Way> left;
    for (std::size_t i = 0, next = 0; i < ways.size(); i = next) {
        std::ptrdiff_t up = 0;
        for (; next < ways.size() && low(ways[next]) == low(ways[i]) && high(ways[next]) == high(ways[i]);
             ++next)
            up += before(ways[next].from, ways[next].to) ? 1 : -1;
        const Way way = up > 0 ? Way{low(ways[i]), high(ways[i])} : Way{high(ways[i]), low(ways[i])};
        left.insert(left.end(), static_cast<std::size_t>(std::abs(up)), way);
    }
    // As many ways lead to each corner as from it: who walks on until there is none left has come home.
    std::sort(left.begin(), left.end(), [](const Way& a, const Way& b) { return before(a.from, b.from); });
    const auto first_from = [&](const clip::IntPoint& p) {
        return static_cast<std::size_t>(
            std::lower_bound(left.begin(), left.end(), p,
                             [](const Way& w, const clip::IntPoint& q) { return before(w.from, q); }) -
            left.begin());
    };
    std::vector<std::size_t> taken(left.size(), 0);  // by the first way from a corner, how many are gone
    clip::Paths out;
    for (std::size_t start = 0; start < left.size(); ++start) {
        const auto own = first_from(left[start].from);
        if (start - own < taken[own]) continue;
        auto& path = out.emplace_back();
        for (auto at = own; at < left.size() && at + taken[at] < left.size();) {
            const auto& way = left[at + taken[at]];
            if (way.from != left[at].from) break;
            ++taken[at];
            path.push_back(way.from);
            at = first_from(way.to);
        }
    }
    return out;
}

}  // namespace

Loop rectangle(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

bool upright_span(const Loops& loops, double x, double& low, double& high) {
    low = std::numeric_limits<double>::infinity();
    high = -low;
    for (const auto& loop : loops) {
        for (std::size_t i = 0; i < loop.size(); ++i) {
            const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
            if ((a.x() - x) * (b.x() - x) > 0 || a.x() == b.x()) continue;
            const double y = a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y());
            low = std::min(low, y);
            high = std::max(high, y);
        }
    }
    return high > low;
}

double signed_area(const Loop& loop) {
    double twice = 0;
    for (std::size_t i = 0; i < loop.size(); ++i) {
        const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
        twice += a.x() * b.y() - b.x() * a.y();
    }
    return twice / 2;
}

double net_area(const Loops& loops) {
    double sum = 0;
    for (const auto& loop : loops) sum += signed_area(loop);
    return sum;
}

double perimeter(const Loop& loop) {
    double sum = 0;
    for (std::size_t i = 0; i < loop.size(); ++i) sum += (loop[(i + 1) % loop.size()] - loop[i]).norm();
    return sum;
}

Point2 low_corner(const Loops& loops) {
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity());
    for (const auto& loop : loops) {
        for (const auto& p : loop) low = low.cwiseMin(p);
    }
    return low;
}

Point2 high_corner(const Loops& loops) {
    Point2 high = Point2::Constant(-std::numeric_limits<double>::infinity());
    for (const auto& loop : loops) {
        for (const auto& p : loop) high = high.cwiseMax(p);
    }
    return high;
}

Loops united(const Loops& loops) {
    clip::Clipper clipper;
    clipper.AddPaths(rims_of(to_clip(loops)), clip::ptSubject, true);
    clip::Paths out;
    clipper.Execute(clip::ctUnion, out, clip::pftNonZero, clip::pftNonZero);
    return from_clip(out);
}

std::vector<Loops> islands(const Loops& loops) {
    std::vector<Loops> out;
    for (const auto& loop : loops) {
        if (signed_area(loop) > 0) out.push_back({loop});
    }
    std::stable_sort(out.begin(), out.end(), [](const Loops& a, const Loops& b) {
        return signed_area(a.front()) > signed_area(b.front());
    });
    for (const auto& loop : loops) {
        if (signed_area(loop) > 0) continue;
        const auto owner = std::find_if(out.rbegin(), out.rend(), [&](const Loops& island) {
            return signed_area(island.front()) > -signed_area(loop) && holds({island.front()}, loop.front());
        });
        if (owner != out.rend()) owner->push_back(loop);
    }
    return out;
}

Loops taken_off(const Loops& a, const Loops& b) {
    clip::Clipper clipper;
    clipper.AddPaths(to_clip(a), clip::ptSubject, true);
    clipper.AddPaths(to_clip(b), clip::ptClip, true);
    clip::Paths out;
    clipper.Execute(clip::ctDifference, out, clip::pftNonZero, clip::pftNonZero);
    return from_clip(out);
}

Loops tidied(const Loops& loops, double distance) {
    auto paths = to_clip(loops);
    clip::CleanPolygons(paths, distance * kGrid);
    clip::Paths out;
    // Holes keep their turn through the union, whose crossings are solved strictly.
    clip::Clipper clipper;
    clipper.StrictlySimple(true);
    clipper.AddPaths(paths, clip::ptSubject, true);
    clipper.Execute(clip::ctUnion, out, clip::pftNonZero, clip::pftNonZero);
    clip::CleanPolygons(out, distance * kGrid);
    return from_clip(out);
}

Loops shared(const Loops& a, const Loops& b) {
    clip::Clipper clipper;
    clipper.AddPaths(to_clip(a), clip::ptSubject, true);
    clipper.AddPaths(to_clip(b), clip::ptClip, true);
    clip::Paths out;
    clipper.Execute(clip::ctIntersection, out, clip::pftNonZero, clip::pftNonZero);
    return from_clip(out);
}

bool holds(const Loops& loops, const Point2& p) {
    bool inside = false;
    for (const auto& loop : loops) {
        for (std::size_t i = 0; i < loop.size(); ++i) {
            const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
            if ((a.y() > p.y()) != (b.y() > p.y()) &&
                p.x() < a.x() + (p.y() - a.y()) / (b.y() - a.y()) * (b.x() - a.x()))
                inside = !inside;
        }
    }
    return inside;
}

Loops offset(const Loops& loops, double distance, bool round, double arc) {
    clip::ClipperOffset grower(3.0, arc * kGrid);
    grower.AddPaths(to_clip(loops), round ? clip::jtRound : clip::jtMiter, clip::etClosedPolygon);
    clip::Paths out;
    grower.Execute(out, distance * kGrid);
    return from_clip(out);
}

Loops stroked(const std::vector<Loop>& lines, double reach, double arc) {
    clip::ClipperOffset grower(3.0, arc * kGrid);
    grower.AddPaths(to_clip(lines), clip::jtRound, clip::etOpenRound);
    clip::Paths out;
    grower.Execute(out, reach * kGrid);
    return from_clip(out);
}

Loop simplified(const Loop& loop, double tolerance) {
    const auto n = loop.size();
    if (n < 8) return loop;
    // Douglas–Peucker on the two halves between a first point and the one furthest from it.
    std::size_t far = 0;
    for (std::size_t i = 1; i < n; ++i) {
        if ((loop[i] - loop[0]).squaredNorm() > (loop[far] - loop[0]).squaredNorm()) far = i;
    }
    std::vector<char> keep(n, 0);
    keep[0] = keep[far] = 1;
    std::vector<std::pair<std::size_t, std::size_t>> spans{{0, far}, {far, n}};
    while (!spans.empty()) {
        const auto [from, to] = spans.back();
        spans.pop_back();
        const Point2 a = loop[from], ab = loop[to % n] - a;
        double worst = tolerance;
        std::size_t at = from;
        for (auto i = from + 1; i < to; ++i) {
            const Point2 p = loop[i] - a;
            const double t = std::clamp(p.dot(ab) / std::max(1e-30, ab.squaredNorm()), 0.0, 1.0);
            const double off = (p - t * ab).norm();
            if (off > worst) {
                worst = off;
                at = i;
            }
        }
        if (at == from) continue;
        keep[at] = 1;
        spans.emplace_back(from, at);
        spans.emplace_back(at, to);
    }
    Loop out;
    for (std::size_t i = 0; i < n; ++i) {
        if (keep[i]) out.push_back(loop[i]);
    }
    return out.size() >= 3 ? out : loop;
}

}  // namespace jig
