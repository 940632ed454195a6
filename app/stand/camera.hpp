// Where the stand is seen from.
#pragma once

#include <QMatrix4x4>
#include <QPointF>
#include <QSize>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::app {

struct Camera {
    double yaw = -0.65, pitch = 0.48;  ///< rad
    double distance = 3;               ///< m from the target
    Point target = Point::Zero();

    /// Looks at the whole box with a little air round it.
    void frame(const Bounds& box, const QSize& view) {
        target = (box.low + box.high) / 2;
        const double aspect = view.height() > 0 ? static_cast<double>(view.width()) / view.height() : 1.5;
        distance = 1.75 * box.diagonal() / std::min(1.0, 0.72 * aspect);
    }
    [[nodiscard]] Point eye() const {
        return target + distance * Point(std::cos(pitch) * std::sin(yaw), -std::cos(pitch) * std::cos(yaw),
                                         std::sin(pitch));
    }
    [[nodiscard]] QMatrix4x4 matrix(const QSize& view) const {
        QMatrix4x4 m;
        m.perspective(30, static_cast<float>(view.width()) / static_cast<float>(std::max(1, view.height())),
                      static_cast<float>(0.02 * distance), static_cast<float>(12 * distance));
        const Point e = eye();
        m.lookAt(
            {static_cast<float>(e.x()), static_cast<float>(e.y()), static_cast<float>(e.z())},
            {static_cast<float>(target.x()), static_cast<float>(target.y()), static_cast<float>(target.z())},
            {0, 0, 1});
        return m;
    }
    [[nodiscard]] static QPointF project(const QMatrix4x4& m, const Point& p, const QSize& view) {
        const auto q =
            m.map(QVector3D(static_cast<float>(p.x()), static_cast<float>(p.y()), static_cast<float>(p.z())));
        return {(static_cast<double>(q.x()) + 1) / 2 * view.width(),
                (1 - static_cast<double>(q.y())) / 2 * view.height()};
    }
};

}  // namespace jig::app
