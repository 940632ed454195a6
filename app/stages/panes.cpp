#include "app/stages/panes.hpp"

#include <QBoxLayout>
#include <QHeaderView>

#include "app/slip/stack_pane.hpp"

namespace jig::app {
namespace {

class StackHolder : public Pane {
  public:
    StackHolder(Document& document, Stage stage, QWidget* parent)
        : Pane(parent), stack_(new StackPane(document, stage, this)) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->addWidget(stack_);
    }
    void refresh(const Wording& wording) override { stack_->refresh(wording); }

  private:
    StackPane* stack_;
};

}  // namespace

Pane* make_pane(Document& document, Stage stage, QWidget* parent) {
    switch (stage) {
        case Stage::shape:
            return make_outline_pane(document, parent);
        case Stage::shell:
        case Stage::part:
            return new StackHolder(document, stage, parent);
        case Stage::run:
            return make_run_pane(document, parent);
        case Stage::log:
            return make_log_pane(document, parent);
        default:
            return nullptr;
    }
}

void fit_height(RecordTable* table, int least, int most) {
    table->setFixedHeight(table->horizontalHeader()->sizeHint().height() +
                          24 * std::clamp(table->rowCount(), least, most) + 6);
}

}  // namespace jig::app
