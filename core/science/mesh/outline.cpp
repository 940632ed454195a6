#include "core/science/mesh/outline.hpp"

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
        for (const auto& p : path) loop.emplace_back(static_cast<double>(p.X) / kGrid, static_cast<double>(p.Y) / kGrid);
        if (loop.size() >= 3) loops.push_back(std::move(loop));
    }
    return loops;
}

}  // namespace

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
    clipper.AddPaths(to_clip(loops), clip::ptSubject, true);
    clip::Paths out;
    clipper.Execute(clip::ctUnion, out, clip::pftNonZero, clip::pftNonZero);
    return from_clip(out);
}

Loops taken_off(const Loops& a, const Loops& b) {
    clip::Clipper clipper;
    clipper.AddPaths(to_clip(a), clip::ptSubject, true);
    clipper.AddPaths(to_clip(b), clip::ptClip, true);
    clip::Paths out;
    clipper.Execute(clip::ctDifference, out, clip::pftNonZero, clip::pftNonZero);
    return from_clip(out);
}

Loops offset(const Loops& loops, double distance, bool round) {
    clip::ClipperOffset grower(3.0, 2e-5 * kGrid);
    grower.AddPaths(to_clip(loops), round ? clip::jtRound : clip::jtMiter, clip::etClosedPolygon);
    clip::Paths out;
    grower.Execute(out, distance * kGrid);
    return from_clip(out);
}

Loop simplified(const Loop& loop, double tolerance) {
    clip::Path out;
    clip::CleanPolygon(to_clip(loop), out, tolerance * kGrid);
    const auto loops = from_clip({out});
    return loops.empty() ? loop : loops.front();
}

}  // namespace jig
