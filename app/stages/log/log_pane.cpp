#include <QDateTime>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"

namespace jig::app {
namespace {

double moment_now() {
    return static_cast<double>(QDateTime::currentSecsSinceEpoch());
}

class LogPane : public RecordsPane<log::LogEntry> {
    enum Column { kNote, kDate, kKind, kMass, kCoats, kFace, kProduct, kWay, kWho, kReason };

  public:
    LogPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.log.entries; },
              {"log", "Entries of the log", "log entry", 0, 4, 14, true},
              {{"note", true, false, {}},
               {"date", true, true, {}},
               {"kind", true, false, [](int) { return words_all<EntryKind>(); }},
               {"kg", true, true, {}},
               {"coats", true, true, {}},
               {"face", true, false, [&document](int) { return faces_of(document); }},
               {"product", true, false, {}},
               {"way", true, false, [](int) { return words_all<CoatWay>(); }},
               {"who", true, false, {}},
               {"all the same, because", true, false, {}}},
              false, parent),
          document_(document) {
        gate_ = make_gate_pane(document, this);
        box()->insertWidget(0, gate_);
        auto* row = new QHBoxLayout();
        for (const auto& [text, key, step, kind] :
             {std::tuple{"Note a pull", "log-pull", "note pull", EntryKind::pull},
              std::tuple{"Note release care", "log-care", "note release care", EntryKind::care},
              std::tuple{"Note a repair", "log-repair", "note repair", EntryKind::repair}}) {
            auto* b = new QPushButton(text, this);
            b->setObjectName(key);
            connect(b, &QPushButton::clicked, this, [this, step = QString(step), kind = kind] {
                if (kind == EntryKind::pull && ask_why()) return;
                note(step, kind, {});
            });
            row->addWidget(b);
        }
        row->addStretch();
        box()->addLayout(row);
        why_not_ = new QLabel(this);
        why_not_->setObjectName("log-why-not");
        why_not_->setWordWrap(true);
        reason_ = new QLineEdit(this);
        reason_->setObjectName("log-reason");
        reason_->setAccessibleName("Why it was laid up all the same");
        reason_->setPlaceholderText("why it was laid up all the same, then Enter");
        box()->addWidget(why_not_);
        box()->addWidget(reason_);
        why_not_->hide();
        reason_->hide();
        connect(reason_, &QLineEdit::returnPressed, this, [this] {
            const auto words = reason_->text().trimmed();
            if (words.isEmpty()) return;
            why_not_->hide();
            reason_->hide();
            reason_->clear();
            note("note pull", EntryKind::pull, words.toStdString());
        });
    }

    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        gate_->refresh(wording);
    }

  protected:
    void keyPressEvent(QKeyEvent* event) override {
        if (event->key() == Qt::Key_Escape && reason_->isVisible()) {
            why_not_->hide();
            reason_->hide();
            reason_->clear();
            return;
        }
        RecordsPane::keyPressEvent(event);
    }

  private:
    static QStringList faces_of(const Document& document) {
        QStringList out{""};
        if (const auto& f = document.findings(); f.log) {
            for (const auto& face : f.log->faces) out << QString::fromStdString(face.name);
        }
        return out;
    }

    /// A pull that the gate has not let through is noted with its reason; true where that is asked for.
    bool ask_why() {
        const auto& f = document_.findings();
        if (!f.log) return false;
        for (const auto& face : f.log->faces) {
            if (face.of != release::FaceOf::mould) continue;
            const auto gate = face.gate(moment_now());
            if (gate.go) continue;
            const auto why = gate.reasons.empty()
                                 ? QString()
                                 : QString::fromStdString(worded(gate.reasons.front(), wording()));
            why_not_->setText(
                QString("The gate of %1 says no: %2").arg(QString::fromStdString(face.name), why));
            why_not_->show();
            reason_->show();
            reason_->setFocus();
            return true;
        }
        return false;
    }

    void note(const QString& step, EntryKind kind, const std::string& reason) {
        log::LogEntry e;
        e.date = write_moment(moment_now());
        e.kind = kind;
        e.reason = reason;
        add(step, records().size(), e);
    }

    [[nodiscard]] QStringList cells(const log::LogEntry& e) const override {
        return {QString::fromStdString(e.note),
                // The offset from UTC stands in the file; what is read here is the wall's clock.
                QString::fromStdString(e.date).left(16).replace('T', ' '), text_of(said(e.kind)),
                e.mass > 0 ? QString::fromStdString(show_for_edit(Kind::mass, e.mass, wording())) : QString(),
                e.coats > 0 ? QString::number(e.coats) : QString(), QString::fromStdString(e.face),
                QString::fromStdString(e.product), text_of(said(e.way)), QString::fromStdString(e.who),
                QString::fromStdString(e.reason)};
    }
    [[nodiscard]] std::optional<QString> type(log::LogEntry& e, int column,
                                              const QString& text) const override {
        switch (column) {
            case kNote:
                e.note = text.toStdString();
                break;
            case kDate: {
                if (QString::fromStdString(e.date).left(16).replace('T', ' ') == text) break;
                const auto when = read_moment(text.toStdString());
                if (!when)
                    return QString("\"%1\" is no date: write it as 2026-05-31, or as 2026-05-31 14:30")
                        .arg(text);
                e.date = when->timed ? write_moment(when->at) : text.toStdString();
                break;
            }
            case kKind:
                return pick(e.kind, text);
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
            case kFace: {
                const auto all = faces_of(document_);
                if (!all.contains(text))
                    return QString("\"%1\" is none of the faces: %2").arg(text, all.mid(1).join(", "));
                e.face = text.toStdString();
                break;
            }
            case kProduct:
                e.product = text.toStdString();
                break;
            case kWay:
                return pick(e.way, text);
            case kWho:
                e.who = text.toStdString();
                break;
            case kReason:
                e.reason = text.toStdString();
                break;
            default:
                break;
        }
        return std::nullopt;
    }
    void headings() override {
        table().horizontalHeaderItem(kMass)->setText(
            QString::fromStdString(unit_sign(Kind::mass, wording())));
    }

    Document& document_;
    Pane* gate_ = nullptr;
    QLabel* why_not_;
    QLineEdit* reason_;
};

}  // namespace

Pane* make_log_pane(Document& document, QWidget* parent) {
    return new LogPane(document, parent);
}

}  // namespace jig::app
