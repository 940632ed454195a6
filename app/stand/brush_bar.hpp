// The brushes of the stand: what the left button paints, and how wide.
#pragma once

#include <optional>
#include <QWidget>
#include <vector>

#include "app/stand/scene.hpp"

class QButtonGroup;
class QHBoxLayout;
class QSlider;

namespace jig::app {

/// A row of words over the stand: turn it, or paint with one of the scene's brushes.
class BrushBar : public QWidget {
    Q_OBJECT
  public:
    explicit BrushBar(QWidget* parent);
    /// Shows the brushes of a scene whose longest side is `size` m; hides itself where there are none. The
    /// brush in hand stays in hand where it is still offered.
    void show_brushes(const std::vector<Brush>& brushes, double size);
    /// What is in hand; none where the stand is turned.
    [[nodiscard]] std::optional<Brush> brush() const;
    /// m that a touch reaches round the point.
    [[nodiscard]] double reach() const;
    void put_away();
    /// Takes up the next brush, and after the last none; false where there are none.
    bool take_next();
    /// Makes the brush wider by that many of its steps.
    void widen(int steps);

  signals:
    void brush_changed();

  private:
    std::vector<Brush> brushes_;
    double size_ = 1;
    QHBoxLayout* row_;
    QButtonGroup* group_;
    QSlider* width_;
};

}  // namespace jig::app
