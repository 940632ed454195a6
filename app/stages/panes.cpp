#include "app/stages/panes.hpp"

#include <QHeaderView>

#include "app/slip/stack_pane.hpp"

namespace jig::app {
Pane* make_pane(Document& document, Stage stage, QWidget* parent) {
    switch (stage) {
        case Stage::shape:
            return make_outline_pane(document, parent);
        case Stage::shell:
        case Stage::part:
            return new StackPane(document, stage, parent);
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
