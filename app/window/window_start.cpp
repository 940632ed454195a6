// The start, and the first walk.
#include <QStackedWidget>
#include <QToolButton>

#include "app/window/main_window.hpp"
#include "app/window/walk.hpp"

namespace jig::app {

bool MainWindow::is_at_start() const {
    return whole_->currentWidget() == start_;
}

void MainWindow::show_start() {
    start_->renew(wording_);
    whole_->setCurrentWidget(start_);
    job_changed();
}

void MainWindow::show_bench() {
    whole_->setCurrentIndex(0);
    job_changed();
}

void MainWindow::start_shape(ShapeKind kind) {
    if (!may_leave()) return;
    auto job = fresh_job();
    job.shape.kind = kind;
    if (kind == ShapeKind::copied) job.plug.route = Route::existing;
    start_job(std::move(job));
    show_stage(Stage::shape);
}

void MainWindow::begin_walk() {
    if (is_at_start()) {
        if (!may_leave()) return;
        start_shape(ShapeKind::tray);
    }
    if (auto* old = findChild<Walk*>()) old->close();
    const auto in_slip = [this](const char* name) {
        return [this, name]() -> QWidget* { return slip_->findChild<QWidget*>(name); };
    };
    auto* walk = new Walk(
        {{Stage::brief, in_slip("word"),
          "A choice is a word in a sentence. Click one, or press Enter on it, and type: 12, 1/2 in, 40 °C."},
         {Stage::brief, [this]() -> QWidget* { return card_; },
          "The stages in working order, each with its live figure. A thin ring is not looked at, a tick "
          "looked at; "
          "Space settles a stage."},
         {Stage::shape, [this]() -> QWidget* { return menu_; },
          "Your own shape: Job, Bring in a shape; or drop a file on the window. Until then a small tray lies "
          "here."},
         {Stage::shape, [this]() -> QWidget* { return stand_; },
          "Drag turns it, the right button shifts, the wheel comes nearer; 1 to 4 look along the pull, from "
          "the front, from the side and as usual. Drag "
          "the yellow cut."},
         {Stage::split, in_slip("no-calls"),
          "The verdict stands under the stage's name, worst first. Open a call for its reason, its mend and "
          "what "
          "causes it."},
         {Stage::plug, in_slip("figure-row-cost"),
          "The figures that matter most are large. Click one, or press Enter: how it came about opens under "
          "it."},
         {Stage::shell, [this]() -> QWidget* { return ribbon_; },
          "The section at the cut, in the order of laying. The pointer or the arrows name a layer, a click "
          "or "
          "Enter goes to where it is decided. F4 folds it."},
         {Stage::back, [this]() -> QWidget* { return centre_; },
          "Here the tool is tried out: standing, turned, leant on, in its heat. It goes on while you work."},
         {Stage::log, [this]() -> QWidget* { return calls_; },
          "All calls of the job, worst first. Enter goes to one."},
         {Stage::log, [this]() -> QWidget* { return sheets_; },
          "Print the sheets for the bench, or export by stage. What does not fit this job is grey and says "
          "why."}},
        this);
    connect(walk, &Walk::stage_wanted, this, &MainWindow::show_stage);
    walk->begin();
}

}  // namespace jig::app
