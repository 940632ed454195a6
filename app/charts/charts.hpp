// Charts that stand where the stand is, on screen and on paper.
#pragma once

#include <QPainter>
#include <QWidget>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

/// The days of building, a row a task, nights grey, waits as thin lines.
void paint_days(QPainter& painter, const QRectF& where, const run::Findings& run, const Ink& ink,
                const Wording& wording);
/// Cost of one part against the number made, with the planned number marked.
void paint_cost(QPainter& painter, const QRectF& where, const run::Findings& run, const Ink& ink,
                const Wording& wording);
/// Length of plug, tool and part through the temperatures, against the drawing.
void paint_growth(QPainter& painter, const QRectF& where, const heat::Findings& heat, double tolerance,
                  const Ink& ink, const Wording& wording);
/// Mass of each weighed pull against the plan.
void paint_log(QPainter& painter, const QRectF& where, const log::Choices& log, double planned,
               const Ink& ink, const Wording& wording);

/// Whether a stage is shown as a chart instead of in 3D.
bool has_chart(Stage stage);

class ChartView : public QWidget {
    Q_OBJECT
  public:
    explicit ChartView(QWidget* parent = nullptr) : QWidget(parent), ink_(&app::ink(Light::day)) {
        setObjectName("chart");
    }
    void show_chart(Job job, Findings findings, Stage stage, const Ink& ink, const Wording& wording);

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    Job job_;
    Findings findings_;
    Stage stage_ = Stage::run;
    const Ink* ink_;
    Wording wording_;
};

}  // namespace jig::app
