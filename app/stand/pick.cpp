#include "app/stand/pick.hpp"

#include <cmath>
#include <limits>

namespace jig::app {

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
    const auto corner = [&](std::size_t i) {
        const auto& c = scene.corners[i];
        return Point(static_cast<double>(c.x), static_cast<double>(c.y), static_cast<double>(c.z));
    };
    std::optional<Touched> out;
    double nearest = std::numeric_limits<double>::infinity();
    for (const auto& surface : scene.surfaces) {
        for (auto i = surface.from; i + 2 < surface.to; i += 3) {
            // Möller & Trumbore 1997.
            const Point a = corner(i), ab = corner(i + 1) - a, ac = corner(i + 2) - a, h = way.cross(ac);
            const double det = ab.dot(h);
            if (std::abs(det) < 1e-15) continue;
            const Point s = eye - a, q = s.cross(ab);
            const double u = s.dot(h) / det, v = way.dot(q) / det, t = ac.dot(q) / det;
            if (u < 0 || v < 0 || u + v > 1 || t <= 0 || t >= nearest) continue;
            nearest = t;
            const auto& f = scene.upright;
            const auto home = [&](const Point& p) -> Point {
                return f.u * p.x() + f.v * p.y() + f.w * p.z();
            };
            const Point shown = eye + t * way;
            out = Touched{home(shown - surface.move), home(ab.cross(ac).normalized()), shown};
        }
    }
    return out;
}

}  // namespace jig::app
