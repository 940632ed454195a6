// The charts of a stage in the window, where the stand is elsewhere.
#pragma once

#include <QWidget>

#include "app/charts/charts.hpp"
#include "app/charts/days.hpp"

class QSplitter;

class QGridLayout;

namespace jig::app {

/// One chart, read by the pointer or the arrows; Ctrl+C copies it as text and as a picture. Its grips are
/// drawn by the pointer, or chosen by N and moved by the arrows.
class PlotView : public QWidget {
    Q_OBJECT
  public:
    explicit PlotView(QWidget* parent = nullptr);
    void show_plot(Plot plot, const Ink& ink, const Wording& wording);
    [[nodiscard]] const Plot& plot() const { return plot_; }
    /// Where it is read, SI; none while nobody reads.
    [[nodiscard]] std::optional<double> read() const { return read_; }
    /// Where a place of it is on the widget, px.
    [[nodiscard]] QPointF on_screen(const QPointF& at) const { return drawn_at(paper(), plot_, at); }

  signals:
    /// A grip of `key` has been drawn to a place, SI; `done` when it is let go.
    void drawn(const QString& key, std::size_t grip, const QPointF& to, bool done);
    /// What was drawn is to be as it was.
    void dropped();

  protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void paintEvent(QPaintEvent*) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void hideEvent(QHideEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

  private:
    [[nodiscard]] QRectF paper() const;
    [[nodiscard]] std::optional<std::size_t> grip_near(const QPointF& at) const;
    void read_at(std::optional<double> x);
    void walk(int by);
    /// The next grip, and after the last the first.
    void choose_grip();
    /// Moves the grip that is chosen by that many of its steps.
    void step_grip(const QPointF& steps);
    /// Ends what a key or the pointer draws.
    void let_go();
    void tell(const QString& words);
    Plot plot_;
    std::optional<double> read_;
    /// The grip that is held and where the pointer has drawn it, SI. Meanwhile the axes stay as they are, so
    /// that the same place of the screen stays the same time and heat.
    std::optional<std::size_t> held_;
    QPointF held_at_;
    bool moved_ = false, by_key_ = false;
    std::optional<std::size_t> chosen_;  ///< grip that the arrows move
    const Ink* ink_;
    Wording wording_;
};

class ChartView : public QWidget {
    Q_OBJECT
  public:
    explicit ChartView(QWidget* parent = nullptr);
    void show_chart(const Job& job, const Findings& findings, Stage stage, const Ink& ink,
                    const Wording& wording);

  signals:
    void stage_wanted(Stage stage);
    void drawn(const QString& key, std::size_t grip, const QPointF& to, bool done);
    void dropped();

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    DaysView* days_;
    PlotView* plot_;
    std::vector<PlotView*> more_;  ///< beside it, where a stage has several that belong together
    QGridLayout* grid_;
    const Ink* ink_;
};

}  // namespace jig::app
