// The charts of a stage in the window, where the stand is elsewhere.
#pragma once

#include <QWidget>

#include "app/charts/charts.hpp"
#include "app/charts/days.hpp"

class QSplitter;

class QGridLayout;

namespace jig::app {

/// One chart, read by the pointer or the arrows; Ctrl+C copies it as text and as a picture.
class PlotView : public QWidget {
    Q_OBJECT
  public:
    explicit PlotView(QWidget* parent = nullptr);
    void show_plot(Plot plot, const Ink& ink, const Wording& wording);
    [[nodiscard]] const Plot& plot() const { return plot_; }
    /// Where it is read, SI; none while nobody reads.
    [[nodiscard]] std::optional<double> read() const { return read_; }

  protected:
    void paintEvent(QPaintEvent*) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    [[nodiscard]] QRectF paper() const;
    void read_at(std::optional<double> x);
    void walk(int by);
    Plot plot_;
    std::optional<double> read_;
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
