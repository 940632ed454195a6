#include <QBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

QString text_of(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

/// Materials by ledger, and what the shop buys for the job.
class RunPane : public Pane {
  public:
    RunPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        const auto heading = [&](const char* text) {
            auto* label = new QLabel(text, this);
            label->setFont(word_font(10.5, true));
            box->addWidget(label);
        };
        heading("Materials");
        materials_ = new RecordTable(
            {{"material", false, false, {}}, {"amount", false, true, {}}, {"cost", false, true, {}}}, false,
            this);
        materials_->setObjectName("materials");
        materials_->setAccessibleName("Bill of materials");
        box->addWidget(materials_);
        heading("Equipment bought for this job");
        equipment_ = new RecordTable({{"what", true, false, {}}, {"price", true, true, {}}}, false, this);
        equipment_->setObjectName("equipment");
        equipment_->setAccessibleName("Equipment bought for this job");
        box->addWidget(equipment_);
        auto* add = new QPushButton("Add equipment", this);
        auto* row = new QHBoxLayout();
        row->addWidget(add);
        row->addStretch();
        box->addLayout(row);
        connect(add, &QPushButton::clicked, this, [this] {
            auto job = document_.job();
            job.run.equipment.push_back({"new equipment", 0});
            document_.replace("add equipment", std::move(job));
        });
        connect(equipment_, &RecordTable::remove_wanted, this, [this](int r) {
            auto job = document_.job();
            job.run.equipment.erase(job.run.equipment.begin() + r);
            document_.replace("take equipment away", std::move(job));
        });
        connect(equipment_, &RecordTable::typed, this, [this](int r, int c, const QString& text) {
            auto job = document_.job();
            auto& e = job.run.equipment[static_cast<std::size_t>(r)];
            if (c == 0) {
                e.name = text.toStdString();
            } else {
                const auto price = read_quantity(Kind::money, text.toStdString(), wording_);
                if (!price || *price < 0) {
                    emit document_.refused(QString("\"%1\" is no price").arg(text));
                    refresh(wording_);
                    return;
                }
                e.price = *price;
            }
            document_.replace("change equipment", std::move(job));
        });
    }
    void refresh(const Wording& wording) override {
        wording_ = wording;
        QList<QStringList> rows;
        QList<QString> tips;
        if (const auto& run = document_.findings().run) {
            auto ledger = Ledger::equipment;
            for (const auto& m : run->materials) {
                if (m.ledger == Ledger::equipment) continue;
                if (m.ledger != ledger) {
                    ledger = m.ledger;
                    rows << QStringList{
                        "– " + text_of(said(ledger)) + " –", QString(),
                        QString::fromStdString(jig::show(
                            Kind::money, run->ledgers[static_cast<std::size_t>(ledger)].materials, wording))};
                    tips << "materials of this ledger";
                }
                rows << QStringList{QString::fromStdString(m.what),
                                    QString::fromStdString(jig::show(m.kind, m.amount, wording)),
                                    QString::fromStdString(jig::show(Kind::money, m.cost, wording))};
                tips << QString::fromStdString(
                    m.what + (m.note.empty() ? "" : "\n" + worded(m.note, wording)) +
                    worded("\nwaste counted: " + quantity(Kind::ratio, m.waste), wording));
            }
        }
        materials_->show_rows(rows, tips);
        fit_height(materials_, 4, 12);
        rows.clear();
        for (const auto& e : document_.job().run.equipment)
            rows << QStringList{QString::fromStdString(e.name),
                                QString::fromStdString(show_for_edit(Kind::money, e.price, wording))};
        equipment_->show_rows(rows);
        fit_height(equipment_, 1, 5);
    }

  private:
    Document& document_;
    RecordTable *materials_, *equipment_;
    Wording wording_;
};

}  // namespace

Pane* make_run_pane(Document& document, QWidget* parent) {
    return new RunPane(document, parent);
}

}  // namespace jig::app
