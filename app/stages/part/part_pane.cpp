// The part's stack with its zones, and what it carries.
#include <QBoxLayout>

#include "app/slip/stack_pane.hpp"
#include "app/stages/part/builds_pane.hpp"
#include "app/stages/part/duty_pane.hpp"
#include "app/stages/part/inserts_pane.hpp"

namespace jig::app {
namespace {

class PartPane : public Pane {
  public:
    PartPane(Document& document, QWidget* parent) : Pane(parent) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        stack_ = new StackPane(document, Stage::part, this);
        box->addWidget(stack_);
        inserts_ = make_inserts_pane(document, this);
        box->addWidget(inserts_);
        duty_ = make_duty_pane(document, this);
        box->addWidget(duty_);
        builds_ = make_builds_pane(document, this);
        box->addWidget(builds_);
        for (auto* pane : {static_cast<Pane*>(stack_), inserts_, duty_, builds_})
            connect(pane, &Pane::wanted, this, &Pane::wanted);
    }
    void refresh(const Wording& wording) override {
        stack_->refresh(wording);
        inserts_->refresh(wording);
        duty_->refresh(wording);
        builds_->refresh(wording);
    }
    void set_ink(const Ink& ink) override { stack_->set_ink(ink); }

  private:
    StackPane* stack_;
    Pane *inserts_, *duty_, *builds_;
};

}  // namespace

Pane* make_part_pane(Document& document, QWidget* parent) {
    return new PartPane(document, parent);
}

}  // namespace jig::app
