#include "app/stand/plain.hpp"

#include <algorithm>

namespace jig::app {

void paint_plainly(QPainter& p, const Scene& scene, const Camera& camera, const QSize& size, bool lines) {
    const auto m = camera.matrix(size);
    const auto spot = [](const Corner& c) {
        return Point(static_cast<double>(c.x), static_cast<double>(c.y), static_cast<double>(c.z));
    };
    p.setPen(Qt::NoPen);
    auto dark = QColor(Qt::black);
    dark.setAlpha(24);
    p.setBrush(dark);
    for (const auto& loop : scene.shadow) {
        QPolygonF outline;
        for (const auto& q : loop) outline << Camera::project(m, {q.x(), q.y(), scene.ground}, size);
        p.drawPolygon(outline);
    }
    const Point eye = camera.eye();
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t i = 0; i + 2 < scene.corners.size(); i += 3) {
        const Point middle =
            (spot(scene.corners[i]) + spot(scene.corners[i + 1]) + spot(scene.corners[i + 2])) / 3;
        order.emplace_back(-(middle - eye).squaredNorm(), i);
    }
    std::sort(order.begin(), order.end());
    for (const auto& [depth, i] : order) {
        const auto& c = scene.corners[i];
        Point n(static_cast<double>(c.nx), static_cast<double>(c.ny), static_cast<double>(c.nz));
        if (n.dot(eye - spot(c)) < 0) n = -n;
        const double light = 0.52 + 0.34 * std::max(0.0, n.dot(Point(-0.46, -0.55, 0.69))) + 0.14 * n.z();
        const auto tone = [&](float v) {
            return static_cast<float>(std::clamp(static_cast<double>(v) * light, 0.0, 1.0));
        };
        const auto colour = QColor::fromRgbF(tone(c.r), tone(c.g), tone(c.b));
        QPolygonF triangle;
        for (std::size_t k = 0; k < 3; ++k) triangle << Camera::project(m, spot(scene.corners[i + k]), size);
        p.setPen(QPen(colour, 0.6));
        p.setBrush(c.pattern > 1.5f && c.pattern < 2.5f ? QBrush(colour.lighter(130), Qt::DiagCrossPattern)
                                                        : QBrush(colour));
        p.drawPolygon(triangle);
    }
    if (!lines) return;
    for (const auto& line : scene.lines) {
        QPolygonF path;
        for (const auto& q : line.points) path << Camera::project(m, q, size);
        p.setPen(QPen(line.colour, 0.7 * line.width, line.dashed ? Qt::DashLine : Qt::SolidLine));
        p.drawPolyline(path);
    }
}

}  // namespace jig::app
