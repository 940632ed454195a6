#include "core/stages/release/strokes.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/vacuum/film.hpp"
#include "core/stages/release/upright.hpp"

namespace jig::release {
namespace {

/// rad within which two ways are one.
constexpr double kAlike = 0.01;

double flat_turn(double turn) {
    const double t = std::fmod(std::fmod(turn, kPi) + kPi, kPi);
    return t > kPi - kAlike ? 0 : t;
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
    const Point2 middle(reach_of(face, along.u).middle(), reach_of(face, along.v).middle());
    for (auto& stroke : out) {
        const Point way = std::cos(stroke.turn) * along.u + std::sin(stroke.turn) * along.v;
        // Through the middle.
        const auto plane = plane_along(along, way);
        const double at = plane.w.dot(along.u) * middle.x() + plane.w.dot(along.v) * middle.y();
        Loop longest;
        for (const auto& lines : lines_along(face, topology, plane, {at}, progress)) {
            for (const auto& line : lines) {
                if (length_of_line(line) > length_of_line(longest)) longest = line;
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
