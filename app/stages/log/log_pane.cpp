#include <QBoxLayout>
#include <QDate>
#include <QPushButton>

#include "app/stages/panes.hpp"

namespace jig::app {
namespace {

enum Column { kNote, kDate, kKind, kMass, kCoats };

class LogPane : public Pane {
  public:
    LogPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        QStringList kinds;
        for (const auto& w : Words<EntryKind>::all)
            kinds << QString::fromUtf8(w.said.data(), static_cast<qsizetype>(w.said.size()));
        table_ = new RecordTable({{"note", true, false, {}},
                                  {"date", true, true, {}},
                                  {"kind", true, false, [kinds](int) { return kinds; }},
                                  {"kg", true, true, {}},
                                  {"coats", true, true, {}}},
                                 false, this);
        table_->setObjectName("log");
        table_->setAccessibleName("Entries of the log");
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->addWidget(table_);
        auto* row = new QHBoxLayout();
        for (const auto& [text, key, kind] : {std::tuple{"Note a pull", "log-pull", EntryKind::pull},
                                              std::tuple{"Note release care", "log-care", EntryKind::care},
                                              std::tuple{"Note a repair", "log-repair", EntryKind::repair}}) {
            auto* b = new QPushButton(text, this);
            b->setObjectName(key);
            connect(b, &QPushButton::clicked, this, [this, kind] {
                auto next = entries();
                log::LogEntry e;
                e.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
                e.kind = kind;
                next.push_back(e);
                set(kind == EntryKind::pull   ? "note pull"
                    : kind == EntryKind::care ? "note release care"
                                              : "note repair",
                    next);
            });
            row->addWidget(b);
        }
        row->addStretch();
        box->addLayout(row);
        connect(table_, &RecordTable::remove_wanted, this, [this](int r) {
            auto next = entries();
            next.erase(next.begin() + r);
            set("take log entry away", next);
        });
        connect(table_, &RecordTable::typed, this, &LogPane::typed);
    }
    void refresh(const Wording& wording) override {
        wording_ = wording;
        table_->horizontalHeaderItem(kMass)->setText(QString::fromStdString(unit_sign(Kind::mass, wording)));
        QList<QStringList> rows;
        for (const auto& e : entries()) {
            const auto kind = said(e.kind);
            rows << QStringList{
                QString::fromStdString(e.note), QString::fromStdString(e.date),
                QString::fromUtf8(kind.data(), static_cast<qsizetype>(kind.size())),
                e.mass > 0 ? QString::fromStdString(show_for_edit(Kind::mass, e.mass, wording)) : QString(),
                e.coats > 0 ? QString::number(e.coats) : QString()};
        }
        table_->show_rows(rows);
        fit_height(table_, 4, 14);
    }

  private:
    [[nodiscard]] const std::vector<log::LogEntry>& entries() const { return document_.job().log.entries; }
    void set(const QString& name, std::vector<log::LogEntry> entries) {
        auto job = document_.job();
        job.log.entries = std::move(entries);
        document_.replace(name, std::move(job));
    }
    void typed(int r, int c, const QString& text) {
        auto next = entries();
        auto& e = next[static_cast<std::size_t>(r)];
        const auto refuse = [&](const QString& why) {
            emit document_.refused(why);
            refresh(wording_);
        };
        switch (c) {
            case kNote:
                e.note = text.toStdString();
                break;
            case kDate:
                if (!QDate::fromString(text, Qt::ISODate).isValid())
                    return refuse(QString("\"%1\" is no date: write it as 2026-05-31").arg(text));
                e.date = text.toStdString();
                break;
            case kKind:
                for (std::size_t i = 0; i < Words<EntryKind>::all.size(); ++i) {
                    if (text.toStdString() == Words<EntryKind>::all[i].said)
                        e.kind = static_cast<EntryKind>(i);
                }
                break;
            case kMass: {
                const auto m = text.trimmed().isEmpty()
                                   ? std::optional<double>(0)
                                   : read_quantity(Kind::mass, text.toStdString(), wording_);
                if (!m || *m < 0) return refuse(QString("\"%1\" is no mass").arg(text));
                e.mass = *m;
                break;
            }
            case kCoats: {
                bool ok = text.trimmed().isEmpty();
                const int n = ok ? 0 : text.toInt(&ok);
                if (!ok || n < 0 || n > 50) return refuse(QString("\"%1\" is no number of coats").arg(text));
                e.coats = n;
                break;
            }
            default:
                break;
        }
        set("change log entry " + QString::number(r + 1), next);
    }
    Document& document_;
    RecordTable* table_;
    Wording wording_;
};

}  // namespace

Pane* make_log_pane(Document& document, QWidget* parent) {
    return new LogPane(document, parent);
}

}  // namespace jig::app
