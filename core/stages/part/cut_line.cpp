#include "core/stages/part/cut_line.hpp"

#include <algorithm>

namespace jig::part {
namespace {

/// Cells from the rim within which an end is taken to mean it, and by which it then lies past it.
constexpr double kMeansRim = 1.5, kPastRim = 3;

}  // namespace

SeenRim::SeenRim(const TriangleMesh& face, const Topology& topology, const Frame& frame) {
    for (std::size_t f = 0; f < face.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) {
            if (topology.across[f][static_cast<std::size_t>(k)] == kNoFace)
                edges_.push_back({frame.flat(face.corner(f, k)), frame.flat(face.corner(f, (k + 1) % 3))});
        }
    }
}

std::optional<Point2> SeenRim::nearest(const Point2& p) const {
    std::optional<Point2> out;
    for (const auto& [a, b] : edges_) {
        const Point2 way = b - a;
        const double along =
            way.squaredNorm() > 0 ? std::clamp((p - a).dot(way) / way.squaredNorm(), 0.0, 1.0) : 0;
        const Point2 at = a + along * way;
        if (!out || (at - p).squaredNorm() < (*out - p).squaredNorm()) out = at;
    }
    return out;
}

double SeenRim::out(const Point2& p, const Point2& way) const {
    double most = 0;
    for (const auto& [a, b] : edges_) {
        const auto across = [&](const Point2& q) { return way.x() * (q - p).y() - way.y() * (q - p).x(); };
        const double u = across(a), v = across(b);
        if ((u < 0) == (v < 0)) continue;
        most = std::max(most, (a + u / (u - v) * (b - a) - p).dot(way));
    }
    return most;
}

Point2 seen_middle(const TriangleMesh& face, const Frame& frame) {
    Point2 low = Point2::Constant(1e300), high = -low;
    for (const auto& t : face.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(frame.flat(face.points[i]));
            high = high.cwiseMax(frame.flat(face.points[i]));
        }
    }
    return (low + high) / 2;
}

double cut_length(const Draped& draped, std::size_t cut) {
    double out = 0;
    for (const auto& laid : draped.cuts) {
        if (laid.as.cut == cut) out = std::max(out, laid.length);
    }
    return out;
}

void move_corner(Cut& cut, std::size_t corner, const Point2& to, const Draped& draped, const Frame& frame) {
    if (corner >= cut.line.size() || !draped.face) return;
    Point2 place = to;
    const bool end = corner == 0 || corner + 1 == cut.line.size();
    if (end && cut.line.size() > 1) {
        const auto& face = *draped.face;
        const Point2 middle = seen_middle(face, frame);
        const auto rim = SeenRim(face, topology_of(face), frame).nearest(middle + to);
        const auto& before = cut.line[corner == 0 ? 1 : corner - 1];
        const Point2 way = to - Point2(before.along, before.across);
        if (rim && (*rim - middle - to).norm() < kMeansRim * draped.cell && way.norm() > 0)
            place += kPastRim * draped.cell * way.normalized();
    }
    cut.line[corner] = {place.x(), place.y()};
}

}  // namespace jig::part
