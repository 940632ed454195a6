// What lies between the last ply and the pump, sheet by sheet as it is cut; the chosen one's darts stand on
// the stand.
#include <QHeaderView>
#include <QVBoxLayout>

#include "app/slip/widgets.hpp"
#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

class LayersPane : public Pane {
  public:
    LayersPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        box->addWidget(wrapped("Layers, from the last ply out", this, word_font(10.5, true)));
        table_ = new RecordTable(
            {{"layer", false, false, {}}, {"cut", false, true, {}}, {"darts", false, true, {}}}, false, this);
        table_->setObjectName("bag-layers");
        table_->setToolTip("Choose one to see its darts; a second click lets go of it");
        table_->setAccessibleName("Layers of the bag, from the last ply outwards");
        table_->verticalHeader()->hide();
        box->addWidget(table_);
        connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
            if (filling_ || row < 0 || row == before) return;
            fresh_ = true;
            choose(row);
        });
        connect(table_, &QTableWidget::cellClicked, this, [this](int row) {
            // A second click lets go of it.
            if (!fresh_) choose(chosen_ == row ? -1 : row);
            fresh_ = false;
        });
    }

    void refresh(const Wording& w) override {
        const auto& f = document_.findings();
        const bool closed = f.bag && f.bag->closed;
        setVisible(closed);
        if (!closed) return;
        const auto say = [&](Kind kind, double v) { return QString::fromStdString(jig::show(kind, v, w)); };
        const auto unit = QString::fromStdString(unit_sign(Kind::length, w));
        const auto plain = [&](double v) { return say(Kind::length, v).chopped(unit.size()).trimmed(); };
        table_->horizontalHeaderItem(1)->setText("cut, " + unit);
        QList<QStringList> rows;
        QList<QString> tips;
        for (const auto& l : f.bag->layers) {
            rows << QStringList{
                QString::fromStdString(l.name),
                l.length > 0 ? plain(l.length) + " × " + plain(l.width) : say(Kind::area, l.area),
                l.judged ? QString::number(l.darts.size()) : QString("—")};
            QString tip =
                "Covers " + QString::fromStdString(worded(l.covers, w)) + ": " + say(Kind::area, l.area);
            if (l.cut.metres > 0)
                tip += "\n" + say(Kind::length, l.cut.metres) + " off its roll for one pull";
            if (l.cut.strips > 1)
                tip += QString(", in %1 lengths of a roll %2 wide")
                           .arg(l.cut.strips)
                           .arg(say(Kind::length, l.roll));
            if (l.beside > 1)
                tip += QString(", its share of %1 that lie side by side on a roll %2 wide")
                           .arg(l.beside)
                           .arg(say(Kind::length, l.roll));
            if (!l.darts.empty()) {
                tip += "\nDarts close, slits open by";
                for (const auto& d : l.darts)
                    tip += (&d == &l.darts.front() ? " " : ", ") + say(Kind::angle, std::abs(d.angle)) +
                           (d.angle < 0 ? " (slit)" : "");
            }
            tips << tip;
        }
        filling_ = true;
        table_->show_rows(rows, tips);
        filling_ = false;
        fit_height(table_, 2, 8);
    }

  private:
    void choose(int row) {
        chosen_ = row;
        emit wanted(row < 0 ? QString("bag-layer-none") : QString("bag-layer-%1").arg(row + 1));
    }

    Document& document_;
    RecordTable* table_;
    bool filling_ = false, fresh_ = false;
    int chosen_ = -1;
};

}  // namespace

Pane* make_layers_pane(Document& document, QWidget* parent) {
    return new LayersPane(document, parent);
}

}  // namespace jig::app
