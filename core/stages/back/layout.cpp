#include "core/stages/back/layout.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/mesh/slice.hpp"

namespace jig::back {
namespace {

/// How far ribs end inside the flange's outside, m.
constexpr double kInset = 0.012;

PlaneSet set_of(const Point& normal, double low, double high, double pitch, bool wanted) {
    PlaneSet out{normal, {}};
    if (!wanted) return out;
    low += kInset;
    high -= kInset;
    const int count = std::max(2, static_cast<int>(std::ceil((high - low) / pitch - 1e-9)) + 1);
    for (int i = 0; i < count; ++i) out.at.push_back(low + (high - low) * i / (count - 1));
    return out;
}

}  // namespace

std::array<PlaneSet, 2> rib_planes(const Choices& c, const edge::ToolFace& face) {
    const bool grid = c.has_grid();
    return {set_of(face.frame.u, face.low.x(), face.high.x(), c.pitch, grid && c.across),
            set_of(face.frame.v, face.low.y(), face.high.y(), c.pitch, grid && c.along)};
}

double rib_length(const Choices& c, const edge::ToolFace& face) {
    if (!c.has_plates()) return 0;
    const auto topology = topology_of(face.rimmed.mesh);
    Progress quiet;
    double out = 0;
    for (const auto& set : rib_planes(c, face)) {
        if (set.at.empty()) continue;
        for (const auto& cut : sections(face.rimmed.mesh, topology, frame_across(set.normal), set.at, quiet)) {
            for (const auto& loop : cut.loops) out += perimeter(loop);
            for (const auto& line : cut.open_lines) {
                for (std::size_t i = 1; i < line.size(); ++i) out += (line[i] - line[i - 1]).norm();
            }
        }
    }
    return out;
}

std::vector<Point2> feet_at(const Choices& c) {
    std::vector<Point2> out;
    const auto share = [&](int i, int n) {
        return c.feet.inset + (1 - 2 * c.feet.inset) * i / (n - 1.0);
    };
    for (int j = 0; j < c.feet.across; ++j) {
        for (int i = 0; i < c.feet.along; ++i)
            out.emplace_back(share(i, c.feet.along), share(j, c.feet.across));
    }
    return out;
}

}  // namespace jig::back
