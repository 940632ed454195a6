#include "core/science/mesh/disc_cover.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace jig {
namespace {

/// Cosine of how far a face may look away from the disc.
constexpr double kLooksAlong = 0.5;

double cross(const Point2& a, const Point2& b) {
    return a.x() * b.y() - a.y() * b.x();
}

/// Signed area of the disc about the origin that lies in the triangle of origin, a and b.
double wedge(const Point2& a, const Point2& b, double radius) {
    const auto sector = [&](const Point2& from, const Point2& to) {
        return radius * radius / 2 * std::atan2(cross(from, to), from.dot(to));
    };
    const Point2 way = b - a;
    const double A = way.squaredNorm(), B = a.dot(way), C = a.squaredNorm() - radius * radius;
    const double inner = B * B - A * C;
    if (!(A > 0)) return 0;
    if (inner <= 0) return sector(a, b);
    const double in = (-B - std::sqrt(inner)) / A, out = (-B + std::sqrt(inner)) / A;
    if (in >= 1 || out <= 0) return sector(a, b);
    const Point2 p = a + std::max(in, 0.0) * way, q = a + std::min(out, 1.0) * way;
    return (in > 0 ? sector(a, p) : 0) + cross(p, q) / 2 + (out < 1 ? sector(q, b) : 0);
}

}  // namespace

std::vector<std::pair<std::size_t, double>> disc_cover(const TriangleMesh& mesh, const Point& middle,
                                                       const Point& normal, double radius) {
    const Point n = normal.normalized();
    const Point u = n.unitOrthogonal(), v = n.cross(u);
    std::vector<std::pair<std::size_t, double>> out;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        std::array<Point2, 3> seen;
        Point2 low = Point2::Constant(1e300), high = -low;
        double below = 1e300, above = -1e300;
        for (int k = 0; k < 3; ++k) {
            const Point p = mesh.corner(f, k) - middle;
            auto& s = seen[static_cast<std::size_t>(k)];
            s = {u.dot(p), v.dot(p)};
            low = low.cwiseMin(s);
            high = high.cwiseMax(s);
            below = std::min(below, n.dot(p));
            above = std::max(above, n.dot(p));
        }
        if (low.maxCoeff() > radius || high.minCoeff() < -radius || below > radius || above < -radius)
            continue;
        const double area = cross(seen[1] - seen[0], seen[2] - seen[0]) / 2;
        if (!(area > kLooksAlong / 2 * mesh.area_vector2(f).norm())) continue;
        const double covered = wedge(seen[0], seen[1], radius) + wedge(seen[1], seen[2], radius) +
                               wedge(seen[2], seen[0], radius);
        const double share = std::clamp(covered / area, 0.0, 1.0);
        if (share > 1e-9) out.emplace_back(f, share);
    }
    return out;
}

}  // namespace jig
