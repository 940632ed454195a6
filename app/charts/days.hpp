// The day plan as a calendar: a row a task, every other day shaded, waits as thin lines.
#pragma once

#include <QAbstractScrollArea>
#include <QPainter>

#include "app/theme/ink.hpp"
#include "core/stages/run/findings.hpp"
#include "core/stages/stage.hpp"

namespace jig::app {

/// A row of the plan: one task, or several of a kind that follow each other.
struct DayRow {
    struct Bar {
        double from = 0, to = 0, wait = 0;  ///< s from midnight of the first day; the wait follows
    };
    QString name;
    Stage stage = Stage::plug;  ///< where it is decided
    int people = 1;
    std::vector<Bar> bars;
    QStringList looks;  ///< before going on
};

/// Release coats of one go share a row, and so do passes of a coat and grits that follow each other.
std::vector<DayRow> day_rows(const run::Findings& run, const Wording& wording);

/// "spray the top coat: day 2, 08:00 to day 2, 09:30, 1.5 h for 2"
QString words_of(const DayRow& row, const Wording& wording);

/// The plan as a table, tab between cells, headings first; a row a stretch of work.
QString text_of(const std::vector<DayRow>& rows, const Wording& wording);

/// Draws days and rows into `where`, each row `line` px high and the rows moved up by `scrolled` px. `lit` is
/// a row to bring out, -1 for none.
void paint_days(QPainter& painter, const QRectF& where, const std::vector<DayRow>& rows, int days,
                const Ink& ink, double line, double scrolled = 0, int lit = -1);

/// The calendar in the window: scrolls, names what is under the pointer, arrows walk the rows.
class DaysView : public QAbstractScrollArea {
    Q_OBJECT
  public:
    explicit DaysView(QWidget* parent = nullptr);
    void show_days(const run::Findings& run, const Ink& ink, const Wording& wording);
    [[nodiscard]] const std::vector<DayRow>& rows() const { return rows_; }
    [[nodiscard]] int lit() const { return lit_; }
    /// Height of a row in px: legible, and higher where there is room.
    [[nodiscard]] double line() const;

  signals:
    void stage_wanted(Stage stage);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void renew_bar();
    void light_up(int row);
    [[nodiscard]] int row_at(double y) const;
    std::vector<DayRow> rows_;
    QString title_;
    int days_ = 1, lit_ = -1;
    const Ink* ink_;
    Wording wording_;
};

}  // namespace jig::app
