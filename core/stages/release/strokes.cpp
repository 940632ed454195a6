#include "core/stages/release/strokes.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/vacuum/film.hpp"

namespace jig::release {
namespace {

/// rad within which two ways are one.
constexpr double kAlike = 0.01;

double flat_turn(double turn) {
    const double t = std::fmod(std::fmod(turn, kPi) + kPi, kPi);
    return t > kPi - kAlike ? 0 : t;
}

double length_of(const Loop& line) {
    double out = 0;
    for (std::size_t i = 1; i < line.size(); ++i) out += (line[i] - line[i - 1]).norm();
    return out;
}

}  // namespace

std::vector<Stroke> strokes_of(const std::vector<Step>& plan, const TriangleMesh& face, const Frame& frame,
                               Progress& progress) {
    std::vector<Stroke> out;
    for (std::size_t i = 0; i < plan.size(); ++i) {
        const double turn = flat_turn(plan[i].turn);
        auto same = out.begin();
        while (same != out.end() && std::abs(same->turn - turn) > kAlike) ++same;
        if (same == out.end()) same = out.insert(out.end(), {turn, {}, {}});
        same->coats.push_back(static_cast<int>(i) + 1);
    }
    if (out.empty() || face.triangles.empty()) return {};
    const auto topology = topology_of(face);
    const auto along = lengthwise(face, topology, frame);
    Point2 low = Point2::Constant(1e300), high = -low;
    for (const auto& t : face.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(along.flat(face.points[i]));
            high = high.cwiseMax(along.flat(face.points[i]));
        }
    }
    const Point2 middle = (low + high) / 2;
    for (auto& stroke : out) {
        const Point way = std::cos(stroke.turn) * along.u + std::sin(stroke.turn) * along.v;
        // Through the middle, upright along the way.
        const Point across = along.w.cross(way);
        const Frame plane{along.w, across.cross(along.w), across};
        const double at = across.dot(along.u) * middle.x() + across.dot(along.v) * middle.y();
        const std::vector<double> heights{at};
        const auto section = sections(face, topology, plane, heights, progress);
        Loop longest;
        for (const auto& s : section) {
            for (const auto& line : s.open_lines) {
                if (length_of(line) > length_of(longest)) longest = line;
            }
            for (auto loop : s.loops) {
                loop.push_back(loop.front());
                if (length_of(loop) > length_of(longest)) longest = loop;
            }
        }
        for (const auto& p : longest) stroke.way.push_back(plane.lift(p, at));
        // It runs the way that it is turned.
        if (stroke.way.size() > 1 && (stroke.way.back() - stroke.way.front()).dot(way) < 0)
            std::reverse(stroke.way.begin(), stroke.way.end());
    }
    std::erase_if(out, [](const Stroke& s) { return s.way.size() < 2; });
    return out;
}

}  // namespace jig::release
