// Pots of an infusion in their turn, and how thick its pressure leaves the plies.
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/stages/panes.hpp"
#include "core/stages/bag/flow.hpp"

namespace jig::app {
namespace {

class PotsPane : public Pane {
  public:
    PotsPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        auto* title = new QLabel(
            "<span style='font-weight:600'>Pots</span>, times from the first feed's "
            "opening: mixed, drawn from, empty.",
            this);
        title->setWordWrap(true);
        box->addWidget(title);
        table_ = new RecordTable({{"resin", false, true, {}},
                                  {"hardener", false, true, {}},
                                  {"mixed", false, true, {}},
                                  {"from", false, true, {}},
                                  {"empty", false, true, {}}},
                                 false, this);
        table_->setObjectName("pots");
        table_->setAccessibleName("Pots in turn: what is in each, when it is mixed, drawn from and empty");
        box->addWidget(table_);
        thick_ = new QPushButton("Show how thick the plies stay", this);
        thick_->setObjectName("show-thickness");
        thick_->setCheckable(true);
        thick_->setToolTip("In place of the front: as the part is full, and, with the slider, as it gels");
        connect(thick_, &QPushButton::toggled, this, [this](bool on) {
            thick_->setText(on ? "Show the front again" : "Show how thick the plies stay");
            emit wanted(on ? "flow-thickness-on" : "flow-thickness-off");
        });
        box->addWidget(thick_, 0, Qt::AlignLeft);
    }

    void refresh(const Wording& w) override {
        const auto& f = document_.findings();
        const bool there = f.flow && !f.flow->pots.empty();
        setVisible(there);
        // What is no longer told is not shown either.
        if (!there || !f.flow->thickness) thick_->setChecked(false);
        if (!there) return;
        thick_->setVisible(f.flow->thickness.has_value());
        const auto say = [&](Kind kind, double v) { return QString::fromStdString(jig::show(kind, v, w)); };
        QList<QStringList> rows;
        for (const auto& p : f.flow->pots)
            rows << QStringList{say(Kind::mass, p.mass - p.hardener), say(Kind::mass, p.hardener),
                                (p.mixed < 0 ? "−" : "") + say(Kind::duration, std::abs(p.mixed)),
                                say(Kind::duration, p.from), say(Kind::duration, p.till)};
        table_->show_rows(rows);
        fit_height(table_, 1, 6);
    }

  private:
    Document& document_;
    RecordTable* table_;
    QPushButton* thick_;
};

}  // namespace

Pane* make_pots_pane(Document& document, QWidget* parent) {
    return new PotsPane(document, parent);
}

}  // namespace jig::app
