// What stands on the stand: surfaces, lines and dimensions as plain values, the same for OpenGL and for
// paper.
#pragma once

#include <QColor>
#include <QString>
#include <vector>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

/// How a surface is drawn beside its colour, so that state is never colour alone.
enum class Pattern { plain = 0, dots = 1, crosses = 2, grain = 3 };

struct Corner {
    float x, y, z;
    float nx, ny, nz;
    float r, g, b;
    float pattern;
};

struct SceneLine {
    std::vector<Point> points;
    QColor colour;
    double width = 1;
    bool dashed = false;
};

/// A draughting dimension between two points, drawn `off` away from them.
struct Dimension {
    Point a, b;
    Point off = Point::Zero();
    QString text;
};

struct SceneLabel {
    Point at;
    QString text;
};

struct Scene {
    std::vector<Corner> corners;  ///< three to a triangle
    std::vector<SceneLine> lines;
    std::vector<Dimension> dimensions;
    std::vector<SceneLabel> labels;
    Loops shadow;  ///< outline on the ground, in the world's x and y
    double ground = 0;
    Bounds bounds;
    Point cut_origin = Point::Zero(), cut_normal = Point::UnitX();  ///< of the section
    Point cut_low = Point::Zero(), cut_high = Point::Zero();        ///< travel of the cut's handle
    bool has_cut = false;
    QString legend;  ///< one line under the stand
};

/// The scene of a stage. Where its findings are missing, the shape alone, and nothing where that is missing.
Scene scene_of(const Job& job, const Findings& findings, Stage stage, const Ink& ink, const Wording& wording);

}  // namespace jig::app
