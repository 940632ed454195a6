#include <QBoxLayout>
#include <QPushButton>

#include "app/stages/panes.hpp"

namespace jig::app {
namespace {

class OutlinePane : public Pane {
  public:
    OutlinePane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        table_ = new RecordTable({{"along", true, true, {}}, {"across", true, true, {}}}, true, this);
        table_->setObjectName("outline");
        table_->setAccessibleName("Points of the outline, in order round the mouth");
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->addWidget(table_);
        auto* row = new QHBoxLayout();
        auto* add = new QPushButton("Add a point after it", this);
        auto* away = new QPushButton("Take it away", this);
        row->addWidget(add);
        row->addWidget(away);
        row->addStretch();
        box->addLayout(row);
        connect(add, &QPushButton::clicked, this, [this] {
            auto p = points();
            const auto n = p.size();
            const auto i = table_->currentRow() >= 0 ? static_cast<std::size_t>(table_->currentRow()) : n - 1;
            const auto &a = p[i], &b = p[(i + 1) % n];
            p.insert(p.begin() + static_cast<std::ptrdiff_t>(i) + 1, {(a[0] + b[0]) / 2, (a[1] + b[1]) / 2});
            set("add outline point", p);
        });
        connect(away, &QPushButton::clicked, this,
                [this] { emit table_->remove_wanted(table_->currentRow()); });
        connect(table_, &RecordTable::remove_wanted, this, [this](int r) {
            auto p = points();
            if (r < 0 || p.size() <= 3) return;
            p.erase(p.begin() + r);
            set("take outline point away", p);
        });
        connect(table_, &RecordTable::moved, this, [this](int from, int to) {
            auto p = points();
            const auto q = p[static_cast<std::size_t>(from)];
            p.erase(p.begin() + from);
            p.insert(p.begin() + to, q);
            set("move outline point", p);
        });
        connect(table_, &RecordTable::typed, this, [this](int r, int c, const QString& text) {
            const auto v = read_quantity(Kind::length, text.toStdString(), wording_);
            if (!v) {
                emit document_.refused(QString("\"%1\" is no length").arg(text));
                refresh(wording_);
                return;
            }
            auto p = points();
            p[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)] = *v;
            set("move outline point", p);
        });
        connect(table_, &RecordTable::pasted, this, [this](const QList<QStringList>& rows) {
            std::vector<std::array<double, 2>> p;
            for (const auto& cells : rows) {
                const auto x = read_quantity(Kind::length, cells.value(0).toStdString(), wording_),
                           y = read_quantity(Kind::length, cells.value(1).toStdString(), wording_);
                if (x && y) p.push_back({*x, *y});
            }
            if (p.size() >= 3)
                set("paste outline", p);
            else
                emit document_.refused("An outline needs three lines of two lengths at least");
        });
    }
    void refresh(const Wording& wording) override {
        wording_ = wording;
        setVisible(document_.job().shape.kind == ShapeKind::tray);
        QList<QStringList> rows;
        for (const auto& p : points())
            rows << QStringList{QString::fromStdString(show_for_edit(Kind::length, p[0], wording)),
                                QString::fromStdString(show_for_edit(Kind::length, p[1], wording))};
        const auto sign = QString::fromStdString(unit_sign(Kind::length, wording));
        table_->horizontalHeaderItem(0)->setText("along, " + sign);
        table_->horizontalHeaderItem(1)->setText("across, " + sign);
        table_->show_rows(rows);
        fit_height(table_, 3, 9);
    }

  private:
    [[nodiscard]] const std::vector<std::array<double, 2>>& points() const {
        return document_.job().shape.tray.outline;
    }
    void set(const QString& name, std::vector<std::array<double, 2>> p) {
        auto job = document_.job();
        job.shape.tray.outline = std::move(p);
        document_.replace(name, std::move(job));
    }
    Document& document_;
    RecordTable* table_;
    Wording wording_;
};

}  // namespace

Pane* make_outline_pane(Document& document, QWidget* parent) {
    return new OutlinePane(document, parent);
}

}  // namespace jig::app
