// The small numbered flag that ties a call to its place on the stand.
#pragma once

#include <QPainter>

#include "app/theme/ink.hpp"
#include "core/stages/stage.hpp"

namespace jig::app {

inline constexpr QSizeF kPennant{17, 14};

/// The pennant alone, its upper left corner at `at`; cut to a point for a stop, to a swallow's tail for a
/// caution, straight for a note.
void paint_pennant(QPainter& painter, const QPointF& at, int number, Severity severity, const Ink& ink);

}  // namespace jig::app
