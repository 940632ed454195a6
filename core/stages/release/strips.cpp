#include "core/stages/release/strips.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/vacuum/film.hpp"
#include "core/stages/release/upright.hpp"

namespace jig::release {
namespace {

constexpr int kWays = 12;
/// Sections that a way is judged by.
constexpr int kJudged = 15;
/// No face that is worked on takes more.
constexpr int kMostStrips = 400;

double turning_of(const Loop& line) {
    double out = 0;
    for (std::size_t i = 1; i + 1 < line.size(); ++i) {
        const Point2 a = line[i] - line[i - 1], b = line[i + 1] - line[i];
        if (a.norm() > 0 && b.norm() > 0)
            out += std::abs(std::atan2(a.x() * b.y() - a.y() * b.x(), a.dot(b)));
    }
    return out;
}

std::vector<double> evenly(const Reach& reach, int count) {
    std::vector<double> out;
    for (int i = 0; i < count; ++i) out.push_back(reach.low + (reach.high - reach.low) * (i + 0.5) / count);
    return out;
}

}  // namespace

Strips strips_over(const TriangleMesh& face, const Frame& frame, double pitch, Progress& progress) {
    Strips out;
    if (face.triangles.empty() || !(pitch > 0)) return out;
    const auto topology = topology_of(face);
    const auto along = lengthwise(face, topology, frame);
    const auto way_of = [&](double turn) {
        return Point(std::cos(turn) * along.u + std::sin(turn) * along.v);
    };
    double least = 1e300, girth = 0;
    for (int i = 0; i < kWays; ++i) {
        progress.report(static_cast<double>(i) / kWays, "laying strips");
        const double turn = kPi * i / kWays;
        // What a strip along this way has to follow from side to side.
        const Point across = along.w.cross(way_of(turn));
        const auto plane = plane_along(along, across);
        double turning = 0, longest = 0;
        for (const auto& lines :
             lines_along(face, topology, plane, evenly(reach_of(face, plane.w), kJudged), progress)) {
            double whole = 0;
            for (const auto& line : lines) {
                turning += turning_of(line) / kJudged;
                whole += length_of_line(line);
            }
            longest = std::max(longest, whole);
        }
        // The longer side's own way wins where others are as good.
        if (turning >= least - 1e-6) continue;
        least = turning;
        girth = longest;
        out.turn = turn;
    }
    out.puckers = least;
    const int count = std::clamp(static_cast<int>(std::ceil(girth / pitch - 1e-9)), 1, kMostStrips);
    const auto plane = plane_along(along, way_of(out.turn));
    const auto at = evenly(reach_of(face, plane.w), count);
    const auto all = lines_along(face, topology, plane, at, progress);
    for (std::size_t i = 0; i < all.size(); ++i) {
        for (const auto& line : all[i]) {
            auto& way = out.ways.emplace_back();
            for (const auto& p : line) way.push_back(plane.lift(p, at[i]));
            out.metres += length_of_line(line);
        }
    }
    return out;
}

}  // namespace jig::release
