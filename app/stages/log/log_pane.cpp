#include <QDate>
#include <QPushButton>

#include "app/slip/records_pane.hpp"

namespace jig::app {
namespace {

enum Column { kNote, kDate, kKind, kMass, kCoats };

class LogPane : public RecordsPane<log::LogEntry> {
  public:
    LogPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.log.entries; },
              {"log", "Entries of the log", "log entry", 0, 4, 14, true},
              {{"note", true, false, {}},
               {"date", true, true, {}},
               {"kind", true, false, [](int) { return kinds(); }},
               {"kg", true, true, {}},
               {"coats", true, true, {}}},
              false, parent) {
        auto* row = new QHBoxLayout();
        for (const auto& [text, key, step, kind] :
             {std::tuple{"Note a pull", "log-pull", "note pull", EntryKind::pull},
              std::tuple{"Note release care", "log-care", "note release care", EntryKind::care},
              std::tuple{"Note a repair", "log-repair", "note repair", EntryKind::repair}}) {
            auto* b = new QPushButton(text, this);
            b->setObjectName(key);
            connect(b, &QPushButton::clicked, this, [this, step = QString(step), kind = kind] {
                log::LogEntry e;
                e.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
                e.kind = kind;
                add(step, records().size(), e);
            });
            row->addWidget(b);
        }
        row->addStretch();
        box()->addLayout(row);
    }

  private:
    static QStringList kinds() {
        QStringList out;
        for (const auto& w : Words<EntryKind>::all)
            out << QString::fromUtf8(w.said.data(), static_cast<qsizetype>(w.said.size()));
        return out;
    }
    [[nodiscard]] QStringList cells(const log::LogEntry& e) const override {
        return {QString::fromStdString(e.note), QString::fromStdString(e.date),
                kinds()[static_cast<int>(e.kind)],
                e.mass > 0 ? QString::fromStdString(show_for_edit(Kind::mass, e.mass, wording())) : QString(),
                e.coats > 0 ? QString::number(e.coats) : QString()};
    }
    [[nodiscard]] std::optional<QString> type(log::LogEntry& e, int column,
                                              const QString& text) const override {
        switch (column) {
            case kNote:
                e.note = text.toStdString();
                break;
            case kDate:
                if (!QDate::fromString(text, Qt::ISODate).isValid())
                    return QString("\"%1\" is no date: write it as 2026-05-31").arg(text);
                e.date = text.toStdString();
                break;
            case kKind: {
                const auto i = kinds().indexOf(text);
                if (i < 0) return QString("\"%1\" is none of: %2").arg(text, kinds().join(", "));
                e.kind = static_cast<EntryKind>(i);
                break;
            }
            case kMass: {
                double mass = 0;
                if (!text.isEmpty()) {
                    if (auto why = read_cell(Kind::mass, "mass", text, wording(), mass)) return why;
                }
                if (mass < 0) return QString("\"%1\" is no mass").arg(text);
                e.mass = mass;
                break;
            }
            case kCoats: {
                bool ok = text.isEmpty();
                const int n = ok ? 0 : text.toInt(&ok);
                if (!ok || n < 0 || n > 50) return QString("\"%1\" is no number of coats").arg(text);
                e.coats = n;
                break;
            }
            default:
                break;
        }
        return std::nullopt;
    }
    void headings() override {
        table().horizontalHeaderItem(kMass)->setText(
            QString::fromStdString(unit_sign(Kind::mass, wording())));
    }
};

}  // namespace

Pane* make_log_pane(Document& document, QWidget* parent) {
    return new LogPane(document, parent);
}

}  // namespace jig::app
