// The part's stack with its zones, what it carries, and where its resin goes.
#include <QBoxLayout>
#include <QPushButton>

#include "app/charts/chart_view.hpp"
#include "app/charts/charts.hpp"
#include "app/slip/stack_pane.hpp"
#include "app/stages/part/builds_pane.hpp"
#include "app/stages/part/cuts_pane.hpp"
#include "app/stages/part/duty_pane.hpp"
#include "app/stages/part/inserts_pane.hpp"

namespace jig::app {
namespace {

class PartPane : public Pane {
  public:
    PartPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        stack_ = new StackPane(document, Stage::part, this);
        box->addWidget(stack_);
        cuts_ = make_cuts_pane(document, this);
        box->addWidget(cuts_);
        inserts_ = make_inserts_pane(document, this);
        box->addWidget(inserts_);
        duty_ = make_duty_pane(document, this);
        box->addWidget(duty_);
        builds_ = make_builds_pane(document, this);
        box->addWidget(builds_);
        resin_ = new PlotView(this);
        resin_->setObjectName("resin-plot");
        resin_->setMinimumHeight(210);
        box->addWidget(resin_);
        auto* kit = new QPushButton("Lay the kit on its rolls", this);
        kit->setObjectName("lay-kit");
        kit->setToolTip("Every ply flat, numbered and nested on its roll, with the order of laying");
        connect(kit, &QPushButton::clicked, this, [this] { emit wanted("kit"); });
        box->insertWidget(1, kit, 0, Qt::AlignLeft);
        for (auto* pane : {static_cast<Pane*>(stack_), cuts_, inserts_, duty_, builds_})
            connect(pane, &Pane::wanted, this, &Pane::wanted);
    }
    void refresh(const Wording& wording) override {
        stack_->refresh(wording);
        cuts_->refresh(wording);
        inserts_->refresh(wording);
        duty_->refresh(wording);
        builds_->refresh(wording);
        const auto& part = document_.findings().part;
        // A prepreg's resin is not mixed.
        resin_->setVisible(part && part->resin_account.total > 0 && part->resin_account.asked.cloth > 0);
        if (resin_->isVisibleTo(this))
            resin_->show_plot(resin_plot(part->resin_account, wording), *ink_, wording);
    }
    void set_ink(const Ink& ink) override {
        ink_ = &ink;
        stack_->set_ink(ink);
    }

  private:
    Document& document_;
    PlotView* resin_;
    const Ink* ink_ = &app::ink(Light::day);
    StackPane* stack_;
    Pane *cuts_, *inserts_, *duty_, *builds_;
};

}  // namespace

Pane* make_part_pane(Document& document, QWidget* parent) {
    return new PartPane(document, parent);
}

}  // namespace jig::app
