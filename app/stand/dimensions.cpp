#include "app/stand/dimensions.hpp"

#include <QPolygonF>

namespace jig::app {
namespace {

constexpr double kShortest = 12;  ///< pixels

/// What the scene's box covers of the view.
QPolygonF outline(const Bounds& box, const QMatrix4x4& m, const QSize& view) {
    std::vector<QPointF> at;
    for (int i = 0; i < 8; ++i)
        at.push_back(
            Camera::project(m,
                            {((i & 1) != 0 ? box.high : box.low).x(), ((i & 2) != 0 ? box.high : box.low).y(),
                             ((i & 4) != 0 ? box.high : box.low).z()},
                            view));
    std::sort(at.begin(), at.end(), [](const QPointF& a, const QPointF& b) {
        return a.x() < b.x() || (a.x() == b.x() && a.y() < b.y());
    });
    // Andrew's monotone chain, once along its foot and once back along its top.
    QPolygonF out;
    const auto chain = [&](auto from, auto to) {
        const auto first = out.size();
        for (; from != to; ++from) {
            while (out.size() >= first + 2) {
                const auto a = out[out.size() - 2], b = out.back();
                if ((b.x() - a.x()) * (from->y() - a.y()) - (b.y() - a.y()) * (from->x() - a.x()) > 0) break;
                out.removeLast();
            }
            out << *from;
        }
        out.removeLast();
    };
    chain(at.begin(), at.end());
    chain(at.rbegin(), at.rend());
    return out;
}

bool cross(const QLineF& a, const QLineF& b) {
    return a.intersects(b, nullptr) == QLineF::BoundedIntersection;
}

/// How much a dimension is in the way of what is there, 0 for not at all.
double in_the_way(const DrawnDimension& d, const QPolygonF& thing,
                  const std::vector<DrawnDimension>& before) {
    double out = 0;
    constexpr int kLooks = 24;
    for (int i = 0; i <= kLooks; ++i)
        out += thing.containsPoint(d.line.pointAt(static_cast<double>(i) / kLooks), Qt::WindingFill) /
               (kLooks + 1.0);
    for (const auto& b : before) {
        // Its own ground round a text, as it is painted.
        constexpr double kWide = 70, kHigh = 20;
        out += cross(d.line, b.line);
        const auto apart = d.line.center() - b.line.center();
        out += std::abs(apart.x()) < kWide && std::abs(apart.y()) < kHigh;
        for (const auto& leader : b.leaders) out += 0.5 * cross(d.line, leader);
        for (const auto& leader : d.leaders) out += 0.5 * cross(leader, b.line);
    }
    if (d.line.length() < kShortest) out += 4;
    return out;
}

}  // namespace

std::vector<DrawnDimension> dimensions_in(const Scene& scene, const Camera& camera, const QSize& view) {
    const auto m = camera.matrix(view);
    const auto at = [&](const Point& p) { return Camera::project(m, p, view); };
    const auto thing = outline(scene.bounds, m, view);
    const auto drawn = [&](const Dimension& d) {
        const auto leader = [&](const Point& p) { return QLineF(at(p + 0.15 * d.off), at(p + 1.1 * d.off)); };
        return DrawnDimension{{at(d.a + d.off), at(d.b + d.off)}, {leader(d.a), leader(d.b)}, d.text};
    };
    std::vector<DrawnDimension> out;
    for (const auto& d : scene.dimensions) {
        auto best = drawn(d);
        double least = in_the_way(best, thing, out);
        for (const auto& other : d.elsewhere) {
            auto place = drawn(other);
            const double way = in_the_way(place, thing, out);
            // Hardly better is no reason to jump while it is turned.
            if (way >= least - 0.02) continue;
            least = way;
            best = std::move(place);
        }
        if (best.line.length() >= kShortest) out.push_back(std::move(best));
    }
    return out;
}

}  // namespace jig::app
