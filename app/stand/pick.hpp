// What of the part lies under the mouse.
#pragma once

#include <optional>

#include "app/stand/camera.hpp"
#include "app/stand/scene.hpp"

namespace jig::app {

struct Touched {
    Point at, facing;  ///< in the part's own axes
    Point shown;       ///< where it is drawn, in the scene's
};

/// The nearest place of the scene's surfaces under a point of the view; none beside them. Cost: one test a
/// triangle.
std::optional<Touched> touched(const Scene& scene, const Camera& camera, const QSize& view,
                               const QPointF& at);

/// Whether something of the scene stands between the eye and a place.
bool hidden(const Scene& scene, const Camera& camera, const Point& place);

}  // namespace jig::app
