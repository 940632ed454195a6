// A scene painted with the painter alone: where there is no OpenGL, and for small pictures.
#pragma once

#include <QPainter>

#include "app/stand/camera.hpp"
#include "app/stand/scene.hpp"

namespace jig::app {

/// Triangles from far to near, shaded, with the shadow under them; lines where `lines` says so.
void paint_plainly(QPainter& painter, const Scene& scene, const Camera& camera, const QSize& size,
                   bool lines);

}  // namespace jig::app
