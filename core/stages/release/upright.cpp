#include "core/stages/release/upright.hpp"

#include <algorithm>

namespace jig::release {

Reach reach_of(const TriangleMesh& face, const Point& way) {
    Reach out;
    for (const auto& t : face.triangles) {
        for (const auto i : t) {
            out.low = std::min(out.low, way.dot(face.points[i]));
            out.high = std::max(out.high, way.dot(face.points[i]));
        }
    }
    return out;
}

double length_of_line(const Loop& line) {
    double out = 0;
    for (std::size_t i = 1; i < line.size(); ++i) out += (line[i] - line[i - 1]).norm();
    return out;
}

std::vector<std::vector<Loop>> lines_along(const TriangleMesh& face, const Topology& topology,
                                           const Frame& plane, const std::vector<double>& at,
                                           Progress& progress) {
    std::vector<std::vector<Loop>> out;
    for (auto& s : sections(face, topology, plane, at, progress)) {
        auto& lines = out.emplace_back(std::move(s.open_lines));
        for (auto& loop : s.loops) {
            loop.push_back(loop.front());
            lines.push_back(std::move(loop));
        }
    }
    return out;
}

Frame plane_along(const Frame& frame, const Point& way) {
    const Point across = frame.w.cross(way);
    return {frame.w, across.cross(frame.w), across};
}

}  // namespace jig::release
