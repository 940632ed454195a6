// The job card at the left: thirteen stages with one live figure and the mark of their state.
#pragma once

#include <QWidget>
#include <set>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

class JobCard : public QWidget {
    Q_OBJECT
  public:
    explicit JobCard(QWidget* parent = nullptr);
    /// `looked_at`: the stages that the maker has opened; `settled`: those that he has ticked off.
    void show_job(const Job& job, const Findings& findings, const std::set<Stage>& looked_at,
                  const std::set<Stage>& settled, bool stale, const Wording& wording);
    void set_ink(const Ink& ink);
    void set_stage(Stage stage);
    [[nodiscard]] Stage stage() const { return stage_; }
    [[nodiscard]] QRect row(Stage stage) const;
    /// What a stage's mark says in words.
    [[nodiscard]] QString mark_of(Stage stage) const;
    [[nodiscard]] QSize sizeHint() const override { return {192, 600}; }

  signals:
    void stage_wanted(Stage stage);
    /// A stage is to be settled, or opened again where it is.
    void settle_wanted(Stage stage);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    enum class State { unseen, seen, settled, caution, stop };
    void name_it();
    bool event(QEvent* event) override;
    void paint_mark(QPainter& painter, const QRectF& where, State state) const;
    const Ink* ink_;
    Stage stage_ = Stage::brief;
    std::array<QString, kStages.size()> lines_;
    std::array<State, kStages.size()> states_{};
    std::set<Stage> settled_;
    bool stale_ = false;
};

}  // namespace jig::app
