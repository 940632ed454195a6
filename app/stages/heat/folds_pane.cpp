#include "app/stages/heat/folds_pane.hpp"

#include <QLabel>
#include <QPushButton>

#include "app/charts/plot.hpp"
#include "app/document/document.hpp"
#include "app/slip/records_pane.hpp"

namespace jig::app {
namespace {

class FoldsPane : public Pane {
  public:
    FoldsPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        said_ = new QLabel(this);
        said_->setObjectName("folds-said");
        said_->setWordWrap(true);
        box->addWidget(said_);
        table_ = new RecordTable({{"fold", false, false, {}},
                                  {"turns", false, true, {}},
                                  {"closes", false, true, {}},
                                  {"build it", false, true, {}}},
                                 false, this);
        table_->setObjectName("folds");
        table_->setAccessibleName("The part's folds and what each closes by");
        box->addWidget(table_);
        show_ = new QPushButton("Show them on the part", this);
        show_->setObjectName("show-folds");
        show_->setToolTip("The part's face stands in place of the charts, each fold with its number");
        connect(show_, &QPushButton::clicked, this, [this] { emit wanted("show-folds"); });
        box->addWidget(show_, 0, Qt::AlignLeft);
    }

    void refresh(const Wording& wording) override {
        const auto& f = document_.findings();
        const bool known = f.heat && f.heat->folds.on.folds;
        setVisible(known);
        if (!known) return;
        const auto& use = f.heat->folds;
        const auto& folds = *use.on.folds;
        table_->setVisible(!folds.empty());
        show_->setVisible(!folds.empty());
        if (folds.empty()) {
            said_->setText("<b>Folds</b>: the part's face has none; what is curved both ways holds itself.");
            return;
        }
        const auto& chain = f.heat->chain;
        said_->setText(
            QString("<b>Folds</b>: from %1 down to %2 each turns further, for the part shrinks more through "
                    "its thickness than along it. %3")
                .arg(shown(Kind::temperature, chain.part_gel, wording),
                     shown(Kind::temperature, chain.room, wording),
                     document_.job().heat.opened
                         ? "The drawing has them opened: build them as they are drawn."
                         : "Draw them so much opener, and they come right."));
        QList<QStringList> rows;
        QList<QString> tips;
        for (std::size_t i = 0; i < folds.size(); ++i) {
            const auto& one = use.all[i];
            const auto& fold = folds[i];
            rows << QStringList{QString::fromStdString(use.on.where[i]),
                                shown(Kind::angle, fold.turn, wording),
                                shown(Kind::angle, one.closes, wording), hundredths(one.build)};
            tips << QString(
                        "%1, %2 along it, %3; across it the stack grows by %4%7; %5 of its shorter flank "
                        "swing, whose end moves %6")
                        .arg(fold.hollow ? "hollow seen from outside" : "round seen from outside",
                             shown(Kind::length, fold.length, wording),
                             fold.radius > 0 ? "radius " + shown(Kind::thickness, fold.radius, wording)
                                             : QString("sharp"),
                             shown(Kind::expansion, one.alpha, wording),
                             shown(Kind::length, one.swings, wording),
                             shown(Kind::thickness, one.moves, wording),
                             one.zoned > 0 ? QString(", %1 % of it as its zones are laid")
                                                 .arg(std::lround(100 * one.zoned))
                                           : QString());
        }
        table_->show_rows(rows, tips);
        fit_height(table_, 1, 8);
    }

  private:
    Document& document_;
    QLabel* said_ = nullptr;
    RecordTable* table_ = nullptr;
    QPushButton* show_ = nullptr;
};

}  // namespace

Pane* make_folds_pane(Document& document, QWidget* parent) {
    return new FoldsPane(document, parent);
}

}  // namespace jig::app
