#include "app/stand/pick.hpp"

#include <cmath>
#include <limits>

namespace jig::app {
namespace {

Point corner_of(const std::vector<Corner>& corners, std::size_t i) {
    const auto& c = corners[i];
    return {static_cast<double>(c.x), static_cast<double>(c.y), static_cast<double>(c.z)};
}

/// How far along a ray it meets a triangle (Möller & Trumbore 1997); none where it misses.
std::optional<double> met(const Point& eye, const Point& way, const Point& a, const Point& ab,
                          const Point& ac) {
    const Point h = way.cross(ac);
    const double det = ab.dot(h);
    if (std::abs(det) < 1e-15) return std::nullopt;
    const Point s = eye - a, q = s.cross(ab);
    const double u = s.dot(h) / det, v = way.dot(q) / det, t = ac.dot(q) / det;
    if (u < 0 || v < 0 || u + v > 1 || t <= 0) return std::nullopt;
    return t;
}

}  // namespace

bool hidden(const Scene& scene, const Camera& camera, const Point& place) {
    const Point eye = camera.eye(), way = place - eye;
    // The light copy of large things says it as well, but for a cell of it.
    const bool light = !scene.coarse.empty();
    const auto& corners = light ? scene.coarse : scene.corners;
    const double before = light ? 0.965 : 0.985;
    for (std::size_t i = 0; i + 2 < corners.size(); i += 3) {
        const Point a = corner_of(corners, i);
        const auto t = met(eye, way, a, corner_of(corners, i + 1) - a, corner_of(corners, i + 2) - a);
        if (t && *t < before) return true;
    }
    return false;
}

std::optional<Touched> touched(const Scene& scene, const Camera& camera, const QSize& view,
                               const QPointF& at) {
    bool can = false;
    const auto back = camera.matrix(view).inverted(&can);
    if (!can || view.isEmpty()) return std::nullopt;
    const auto space = [&](float depth) {
        const auto q = back.map(QVector3D(static_cast<float>(2 * at.x() / view.width() - 1),
                                          static_cast<float>(1 - 2 * at.y() / view.height()), depth));
        return Point(static_cast<double>(q.x()), static_cast<double>(q.y()), static_cast<double>(q.z()));
    };
    const Point eye = camera.eye(), way = (space(0.5F) - eye).normalized();
    const auto corner = [&](std::size_t i) { return corner_of(scene.corners, i); };
    std::optional<Touched> out;
    double nearest = std::numeric_limits<double>::infinity();
    for (const auto& surface : scene.surfaces) {
        for (auto i = surface.from; i + 2 < surface.to; i += 3) {
            const Point a = corner(i), ab = corner(i + 1) - a, ac = corner(i + 2) - a;
            const auto t = met(eye, way, a, ab, ac);
            if (!t || *t >= nearest) continue;
            nearest = *t;
            const auto& f = scene.upright;
            const auto home = [&](const Point& p) -> Point {
                return f.u * p.x() + f.v * p.y() + f.w * p.z();
            };
            const Point shown = eye + *t * way;
            out = Touched{home(shown - surface.move), home(ab.cross(ac).normalized()), shown};
        }
    }
    return out;
}

}  // namespace jig::app
