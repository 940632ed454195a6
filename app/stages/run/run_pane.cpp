#include <QLabel>
#include <QPushButton>

#include "app/charts/days.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/widgets.hpp"
#include "app/slip/words.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

/// What the shop buys for the job.
class EquipmentPane : public RecordsPane<run::Equipment> {
  public:
    EquipmentPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.run.equipment; },
              {"equipment", "Equipment bought for this job", "equipment", 0, 1, 5},
              {{"what", true, false, {}}, {"price", true, true, {}}}, false, parent) {
        auto* row = new QHBoxLayout();
        auto* add_one = new QPushButton("Add equipment", this);
        row->addWidget(add_one);
        row->addStretch();
        box()->addLayout(row);
        connect(add_one, &QPushButton::clicked, this, [this] {
            add("add equipment", records().size(), {"new equipment", 0});
        });
    }

  private:
    [[nodiscard]] QStringList cells(const run::Equipment& e) const override {
        return {QString::fromStdString(e.name),
                QString::fromStdString(show_for_edit(Kind::money, e.price, wording()))};
    }
    [[nodiscard]] std::optional<QString> type(run::Equipment& e, int column,
                                              const QString& text) const override {
        if (column == 0) {
            e.name = text.toStdString();
            return std::nullopt;
        }
        auto why = read_cell(Kind::money, "price", text, wording(), e.price);
        if (!why && e.price < 0) why = QString("\"%1\" is no price").arg(text);
        return why;
    }
};

/// Materials by ledger, then the equipment.
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
        equipment_ = new EquipmentPane(document, this);
        box->addWidget(equipment_);
        heading("Before going on");
        looks_ = wrapped({}, this, word_font(10));
        looks_->setObjectName("looks");
        looks_->setTextFormat(Qt::RichText);
        looks_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
        looks_->setAccessibleName("What must be seen, measured or signed after each step");
        box->addWidget(looks_);
    }
    void refresh(const Wording& wording) override {
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
        QString looks;
        if (const auto& run = document_.findings().run) {
            for (const auto& row : day_rows(*run, wording)) {
                if (row.looks.isEmpty()) continue;
                looks += QString("<p style='margin:6px 0 0 0'><span style='font-weight:600'>%1</span>")
                             .arg(row.name.toHtmlEscaped());
                for (const auto& look : row.looks) looks += "<br>· " + look.toHtmlEscaped();
                looks += "</p>";
            }
        }
        // What is selected in it stays so while it says the same.
        if (looks_->text() != looks) looks_->setText(looks);
        equipment_->refresh(wording);
    }

  private:
    Document& document_;
    RecordTable* materials_;
    QLabel* looks_;
    EquipmentPane* equipment_;
};

}  // namespace

Pane* make_run_pane(Document& document, QWidget* parent) {
    return new RunPane(document, parent);
}

}  // namespace jig::app
