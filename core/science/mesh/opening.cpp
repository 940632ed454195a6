#include "core/science/mesh/opening.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/science/mesh/slice.hpp"

namespace jig {

Loop rim_seen(const TriangleMesh& mesh, const Topology& topology, const DraftMap& map, const Frame& frame,
              double foot, Progress& progress) {
    TriangleMesh moulded;
    moulded.points = mesh.points;
    for (std::size_t i = 0; i < mesh.triangles.size(); ++i) {
        if (map.faces[i] != Release::open) moulded.triangles.push_back(mesh.triangles[i]);
    }
    Loop best;
    for (const auto& loop : rim_loops(moulded, topology_of(moulded))) {
        Loop flat;
        for (const auto i : loop) flat.push_back(frame.flat(moulded.points[i]));
        if (std::abs(signed_area(flat)) > std::abs(signed_area(best))) best = flat;
    }
    const double seen = std::abs(signed_area(best));
    if (seen < 0.2 * map.projected) {
        std::vector<double> heights;
        for (int i = 0; i < 64; ++i) heights.push_back(foot + map.depth * (i + 0.5) / 64);
        double widest = 0;
        for (const auto& section : sections(mesh, topology, frame, heights, progress)) {
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

double widest_circle(const Loop& outline) {
    if (outline.size() < 3) return 0;
    const Point2 size = high_corner({outline}) - low_corner({outline});
    const Loops loops{simplified(outline, 0.003 * size.minCoeff())};
    double low = 0, high = size.minCoeff() / 2;
    for (int i = 0; i < 9; ++i) {
        const double middle = (low + high) / 2;
        (net_area(offset(loops, -middle, false)) > 0 ? low : high) = middle;
    }
    return 2 * low;
}

SkinSections skin_sections(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                           Progress& progress) {
    SkinSections out;
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : mesh.points) {
        low = low.cwiseMin(frame.flat(p));
        high = high.cwiseMax(frame.flat(p));
    }
    const bool along_u = (high - low).x() >= (high - low).y();
    const Point axis = along_u ? frame.u : frame.v;
    const Frame across{frame.w, axis.cross(frame.w), axis};
    const double from = along_u ? low.x() : low.y(),
                 reach = along_u ? high.x() - low.x() : high.y() - low.y();
    std::vector<double> stations;
    for (int i = 0; i < 5; ++i) stations.push_back(from + reach * (0.3 + 0.1 * i));
    for (const auto& cut : sections(mesh, topology, across, stations, progress)) {
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
        out.width += length / 5;
        out.second += (second - first * first / length) / 5;
    }
    return out;
}

}  // namespace jig
