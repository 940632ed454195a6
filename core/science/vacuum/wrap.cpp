#include "core/science/vacuum/wrap.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace jig {
namespace {

/// Seen along the section: how wide it is from end to end.
double breadth_of(const Section& cut) {
    double low = std::numeric_limits<double>::infinity(), high = -low;
    const auto take = [&](const std::vector<Loop>& lines) {
        for (const auto& line : lines) {
            for (const auto& p : line) {
                low = std::min(low, p.y());
                high = std::max(high, p.y());
            }
        }
    };
    take(cut.loops);
    take(cut.open_lines);
    return high > low ? high - low : 0;
}

}  // namespace

Round round_tool(const TriangleMesh& mesh, const Topology& topology, const Frame& frame, const Behind& behind,
                 Progress& progress) {
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, frame.w.dot(mesh.points[i]));
            high = std::max(high, frame.w.dot(mesh.points[i]));
        }
    }
    const auto rim = film_rim(mesh, topology, frame);
    const double foot = low - behind.wall - behind.back, tall = high - foot;
    Round out;
    const Girth* longest = nullptr;
    const auto measure = [&](const std::vector<Girth>& girths, double& into) {
        for (const auto& g : girths) {
            const double face_behind = g.length + 2 * behind.wall;
            const double all =
                g.length + (behind.boxed ? std::max(face_behind, breadth_of(g.cut) + 2 * tall) : face_behind);
            if (all <= into) continue;
            into = all;
            longest = &g;
        }
    };
    measure(film_girths(mesh, topology, frame, frame.v, rim.height, progress), out.along);
    longest = nullptr;
    const auto across = film_girths(mesh, topology, frame, frame.u, rim.height, progress);
    measure(across, out.across);
    if (longest == nullptr) return out;
    // The longest of its lines stands for the section.
    const Loop* face = nullptr;
    double most = 0;
    for (const auto& line : longest->cut.open_lines) {
        double length = 0;
        for (std::size_t i = 1; i < line.size(); ++i) length += (line[i] - line[i - 1]).norm();
        if (length <= most) continue;
        most = length;
        face = &line;
    }
    if (face == nullptr) return out;
    const auto cut = girth_frame(frame, frame.u);
    for (const auto& p : *face) out.line.push_back(cut.lift(p, longest->cut.height));
    if (behind.boxed) {
        for (const auto& end : {face->back(), face->front()})
            out.line.push_back(cut.lift(Point2(foot, end.y()), longest->cut.height));
    } else {
        for (auto p = face->rbegin(); p != face->rend(); ++p)
            out.line.push_back(cut.lift(Point2(p->x() - behind.wall, p->y()), longest->cut.height));
    }
    out.line.push_back(out.line.front());
    return out;
}

double radius_of_span(double gap, double ease) {
    if (!(ease > 0)) return std::numeric_limits<double>::infinity();
    // Half the arc's angle a: a/sin a = 1 + ease.
    double low = 0, high = std::numbers::pi / 2;
    if (high <= 1 + ease) return gap / 2;
    for (int round = 0; round < 60; ++round) {
        const double a = (low + high) / 2;
        (a < (1 + ease) * std::sin(a) ? low : high) = a;
    }
    return gap / (2 * std::sin(high));
}

}  // namespace jig
