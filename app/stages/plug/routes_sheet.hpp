// The seven plug routes beside each other on one sheet.
#pragma once

#include <QScrollArea>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

class QGridLayout;
class QLabel;

namespace jig::app {

/// Columns are routes with a small picture of the shape cut up that way, rows what they come to. A figure's
/// reasoning opens on hover and stays under the table on click; the best of a row is set strong.
class RoutesSheet : public QScrollArea {
    Q_OBJECT
  public:
    explicit RoutesSheet(QWidget* parent = nullptr);
    void show_routes(std::vector<plug::Plan> plans, const Job& job, const Findings& findings,
                     const Shop& shop);
    void set_look(const Ink& ink, const Wording& wording);
    /// Whether what is shown belongs to this job.
    [[nodiscard]] bool belongs_to(const Job& job) const { return !plans_.empty() && job_ == job; }

  signals:
    void route_wanted(Route route);
    void close_wanted();

  private:
    void rebuild();
    std::vector<plug::Plan> plans_;
    Job job_;
    Findings findings_;
    std::vector<std::pair<Grade, plug::FinishHours>> finish_;
    const Ink* ink_;
    Wording wording_;
};

/// Hours of finishing over the number of parts: in the tool against in every part, where they meet.
void paint_finishing(QPainter& painter, const QRectF& where, Grade grade, const plug::FinishHours& hours,
                     int parts, const Ink& ink);
/// Cost of finishing a block against the step between passes, the cheapest marked.
void paint_steps(QPainter& painter, const QRectF& where, const plug::BlockPlan& block, const Ink& ink,
                 const Wording& wording);

}  // namespace jig::app
