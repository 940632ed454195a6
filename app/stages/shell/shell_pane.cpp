// The shell's stack and doublers, its ways to the comparison, and the order of laying it up.
#include <QBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/stack_pane.hpp"
#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

class ShellPane : public Pane {
  public:
    ShellPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        stack_ = new StackPane(document, Stage::shell, this);
        box->addWidget(stack_);
        auto* row = row_ = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        for (const auto& [text, name, act] :
             {std::tuple{"Set the schools side by side", "schools-beside", "schools"},
              std::tuple{"Seek a stack", "seek-stack", "seek-stack"}}) {
            auto* b = new QPushButton(text, row);
            b->setObjectName(name);
            connect(b, &QPushButton::clicked, this, [this, act = QString(act)] { emit wanted(act); });
            flow->addWidget(b);
        }
        box->addWidget(row);
        auto* title = title_ = new QLabel("Order of laying up", this);
        title->setFont(word_font(10.5, true));
        box->addWidget(title);
        order_ = new RecordTable({{"step", false, false, {}},
                                  {"resin", false, true, {}},
                                  {"pots", false, true, {}},
                                  {"shift", false, true, {}}},
                                 false, this);
        order_->setObjectName("lay-order");
        order_->setAccessibleName("Steps of laying the shell up, in order");
        box->addWidget(order_);
    }

    void refresh(const Wording& w) override {
        // Of a mould that is made itself nothing is laid, and nothing here would do anything.
        const bool laid = !plug::no_plug(document_.job().plug);
        for (QWidget* widget : {static_cast<QWidget*>(stack_), row_, static_cast<QWidget*>(title_),
                                static_cast<QWidget*>(order_)})
            widget->setVisible(laid);
        if (!laid) return;
        stack_->refresh(w);
        const auto& f = document_.findings();
        QList<QStringList> rows;
        QList<QString> tips;
        const auto say = [&](Kind kind, double v) { return QString::fromStdString(jig::show(kind, v, w)); };
        if (f.shell) {
            for (const auto& s : f.shell->order) {
                const auto what = QString::fromStdString(worded(s.what, w));
                rows << QStringList{what, s.resin > 0 ? say(Kind::mass, s.resin) : QString(),
                                    s.batches > 0 ? QString::number(s.batches) : QString(),
                                    s.offset > 0 ? say(Kind::length, s.offset) : QString()};
                tips << what + ", begun " + say(Kind::duration, s.from) + " into the day" +
                            (s.note.empty() ? QString() : "\n" + QString::fromStdString(worded(s.note, w)));
            }
        }
        order_->show_rows(rows, tips);
        fit_height(order_, 2, 24);
    }

  private:
    Document& document_;
    StackPane* stack_;
    QWidget* row_;
    QLabel* title_;
    RecordTable* order_;
};

}  // namespace

Pane* make_shell_pane(Document& document, QWidget* parent) {
    return new ShellPane(document, parent);
}

}  // namespace jig::app
