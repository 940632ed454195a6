// Where the stand is seen from.
#pragma once

#include <algorithm>
#include <cmath>
#include <QMatrix4x4>
#include <QPointF>
#include <QSize>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::app {

struct Camera {
    static constexpr double kSteepest = 1.5;  ///< rad, all but straight down
    double yaw = -0.65, pitch = 0.48;         ///< rad
    double distance = 3;                      ///< m from the target
    Point target = Point::Zero();

    /// Looks at the whole box from where it stands now, as near as the view lets it, with air round it for
    /// dimensions and captions.
    void frame(const Bounds& box, const QSize& view) {
        constexpr double kWide = 0.76, kTall = 0.68, kMiddle = 0.46;  ///< shares of the view
        target = (box.low + box.high) / 2;
        distance = std::max(1e-6, 2 * box.diagonal());
        if (view.width() < 2 || view.height() < 2) return;
        for (int round = 0; round < 12; ++round) {
            const auto m = matrix(view);
            double left = 1e30, right = -1e30, top = 1e30, foot = -1e30;
            for (int corner = 0; corner < 8; ++corner) {
                const auto at = project(m,
                                        {((corner & 1) != 0 ? box.high : box.low).x(),
                                         ((corner & 2) != 0 ? box.high : box.low).y(),
                                         ((corner & 4) != 0 ? box.high : box.low).z()},
                                        view);
                left = std::min(left, at.x());
                right = std::max(right, at.x());
                top = std::min(top, at.y());
                foot = std::max(foot, at.y());
            }
            const double fill =
                std::max((right - left) / (kWide * view.width()), (foot - top) / (kTall * view.height()));
            if (!std::isfinite(fill) || fill <= 0) return;
            // The middle of the picture goes to the middle of the view: along what is right and up there.
            const double metre = 0.54 * distance / view.height();
            const Point across(std::cos(yaw), std::sin(yaw), 0),
                up(-std::sin(pitch) * std::sin(yaw), std::sin(pitch) * std::cos(yaw), std::cos(pitch));
            target += across * ((left + right) / 2 - view.width() / 2.0) * metre;
            target -= up * ((top + foot) / 2 - kMiddle * view.height()) * metre;
            distance *= std::clamp(fill, 0.5, 2.0);
        }
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
