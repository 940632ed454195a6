// The first walk: ten notes beside the real controls, from a shape to printed sheets.
#pragma once

#include <functional>
#include <QFrame>
#include <QPointer>
#include <vector>

#include "core/stages/stage.hpp"

class QLabel;
class QPushButton;

namespace jig::app {

/// One note: where it stands, what it says.
struct WalkStep {
    Stage stage;
    std::function<QWidget*()> beside;  ///< may return null: the note then stands in the middle
    QString said;
};

class Walk : public QFrame {
    Q_OBJECT
  public:
    Walk(std::vector<WalkStep> steps, QWidget* parent);
    void begin();
    [[nodiscard]] std::size_t at() const { return at_; }

  signals:
    void stage_wanted(Stage stage);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void go(int by);
    void stand_beside();
    std::vector<WalkStep> steps_;
    std::size_t at_ = 0;
    QLabel *count_, *text_;
    QPushButton *back_, *next_;
    QPointer<QFrame> ring_;
};

}  // namespace jig::app
