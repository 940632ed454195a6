// Where a scene's dimensions are drawn, as it is seen.
#pragma once

#include <QLineF>

#include "app/stand/camera.hpp"
#include "app/stand/scene.hpp"

namespace jig::app {

/// A dimension in the view, in pixels.
struct DrawnDimension {
    QLineF line;
    std::array<QLineF, 2> leaders;  ///< from what is measured to the line's ends
    QString text;
};

/// Each at that of its places where it lies clear of the thing itself and of the dimensions before it, or
/// least in their way. What is too short to be read is left out.
std::vector<DrawnDimension> dimensions_in(const Scene& scene, const Camera& camera, const QSize& view);

}  // namespace jig::app
