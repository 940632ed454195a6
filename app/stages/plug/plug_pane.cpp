// Under the plug's sentences: the way to the routes' sheet, and the surface schedule as a table.
#include <QBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/slip/record_table.hpp"
#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

class PlugPane : public Pane {
  public:
    PlugPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        auto* row = new QHBoxLayout();
        auto* beside = new QPushButton("Set the routes side by side", this);
        beside->setObjectName("side-by-side");
        row->addWidget(beside);
        row->addStretch();
        box->addLayout(row);
        connect(beside, &QPushButton::clicked, this, [this] { emit wanted("routes"); });
        auto* title = new QLabel("Surface schedule", this);
        title->setFont(word_font(10.5, true));
        box->addWidget(title);
        table_ = new RecordTable({{"step", false, false, {}},
                                  {"of", false, true, {}},
                                  {"hands", false, true, {}},
                                  {"dries", false, true, {}}},
                                 false, this);
        table_->setObjectName("schedule");
        table_->setAccessibleName("Steps of finishing the plug's surface, in order");
        box->addWidget(table_);
    }
    void refresh(const Wording& wording) override {
        QList<QStringList> rows;
        if (const auto& plug = document_.findings().plug) {
            for (const auto& step : plug->finish)
                rows << QStringList{
                    QString::fromStdString(step.what),
                    step.amount > 0 ? QString::fromStdString(jig::show(step.kind, step.amount, wording))
                                    : QString(),
                    step.hours > 0
                        ? QString::fromStdString(jig::show(Kind::hours, step.hours * 3600, wording))
                        : QString(),
                    step.wait > 0 ? QString::fromStdString(jig::show(Kind::duration, step.wait, wording))
                                  : QString()};
        }
        table_->show_rows(rows);
        fit_height(table_, 3, 14);
    }

  private:
    Document& document_;
    RecordTable* table_;
};

}  // namespace

Pane* make_plug_pane(Document& document, QWidget* parent) {
    return new PlugPane(document, parent);
}

}  // namespace jig::app
