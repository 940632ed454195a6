// The section ribbon under the stand.
#pragma once

#include <QPainter>
#include <QWidget>

#include "app/ribbon/section.hpp"

class QToolButton;

namespace jig::app {

/// Draws a section into a rectangle: layers with their hatches, names with lines to them, stretch and scale
/// bar. `lit` is the index of a layer to bring out, -1 for none. `scale` widens hatches for print.
void paint_section(QPainter& painter, const QRectF& where, const Section2& section, const Ink& ink,
                   const Wording& wording, int lit = -1, double scale = 1);

/// How much of the window the section takes: drawn, a thin handle that opens it, or nothing.
enum class SectionRoom { open, handle, away };

/// What a stage's work leaves it when the maker has not said otherwise: drawn where layers are decided, a
/// handle where the shape is, nothing beside a chart.
SectionRoom usual_room(Stage stage);

class Ribbon : public QWidget {
    Q_OBJECT
  public:
    explicit Ribbon(QWidget* parent = nullptr);
    void set_room(SectionRoom room);
    [[nodiscard]] SectionRoom room() const { return room_; }
    void show_section(Section2 section, const Wording& wording);
    void set_ink(const Ink& ink);
    [[nodiscard]] const Section2& section() const { return section_; }
    [[nodiscard]] QSize sizeHint() const override { return {600, 170}; }
    [[nodiscard]] QSize minimumSizeHint() const override { return {200, 40}; }
    /// The layer under a point of this widget, -1 for none.
    [[nodiscard]] int layer_at(const QPointF& point) const;

  signals:
    void stage_wanted(Stage stage);
    /// The handle was hit: open what is folded, fold what is open.
    void fold_wanted();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void leaveEvent(QEvent*) override;

  private:
    void light_up(int layer);
    [[nodiscard]] QString words_of(int layer) const;
    SectionRoom room_ = SectionRoom::open;
    QToolButton* fold_;
    Section2 section_;
    Wording wording_;
    const Ink* ink_;
    int lit_ = -1;
};

}  // namespace jig::app
