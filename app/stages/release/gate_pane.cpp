// The gate of each face: go or no-go, why, from when to when, and the next coat noted by a button.
#include <QBoxLayout>
#include <QDateTime>
#include <QLabel>
#include <QPushButton>
#include <QTimer>

#include "app/slip/words.hpp"
#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

CoatWay way_of(double turn) {
    const double t = std::fmod(turn, kPi);
    if (t < 0.35 || t > kPi - 0.35) return CoatWay::along;
    return std::abs(t - kPi / 2) < 0.35 ? CoatWay::across : CoatWay::aslant;
}

/// One face: its name and state, the gate's word, the reasons, the next coat.
class GateRow : public QWidget {
  public:
    GateRow(Document& document, std::size_t face, QWidget* parent)
        : QWidget(parent), document_(document), face_(face) {
        setObjectName("gate-row");
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 2, 0, 6);
        box->setSpacing(2);
        head_ = new QLabel(this);
        head_->setObjectName("gate");
        head_->setWordWrap(true);
        why_ = new QLabel(this);
        why_->setObjectName("gate-why");
        why_->setWordWrap(true);
        note_ = new QPushButton(this);
        note_->setObjectName("note-coat");
        note_->setMinimumHeight(26);
        box->addWidget(head_);
        box->addWidget(why_);
        box->addWidget(note_, 0, Qt::AlignLeft);
        connect(note_, &QPushButton::clicked, this, &GateRow::note_next);
    }

    void renew(const Wording& w) {
        const auto& f = document_.findings();
        if (!f.log || face_ >= f.log->faces.size()) return;
        const auto& face = f.log->faces[face_];
        const double now = static_cast<double>(QDateTime::currentSecsSinceEpoch());
        const auto gate = face.gate(now);
        const auto name = QString::fromStdString(face.name);
        QString head =
            QString(
                "<span style=\"font-weight:600\">%1</span>: %2, <span style=\"font-weight:600\">%3</span>")
                .arg(name.toHtmlEscaped(), QString::fromStdString(release::words_of(gate.state)),
                     gate.go ? "go" : "no go");
        if (gate.go && gate.latest)
            head += " until " + QString::fromStdString(moment_words(*gate.latest, now));
        if (!gate.go && gate.earliest && *gate.earliest > now)
            head += ", from " + QString::fromStdString(moment_words(*gate.earliest, now));
        head_->setText(head);
        QStringList why;
        for (const auto& reason : gate.reasons) why << QString::fromStdString(worded(reason, w));
        for (const auto& remark : gate.state.remarks) why << QString::fromStdString(worded(remark, w));
        why_->setText(why.join("\n"));
        why_->setVisible(!why.isEmpty());
        setAccessibleName(QString("%1: %2. %3").arg(name, gate.go ? "go" : "no go", why.join(" ")));
        next_.reset();
        if (!gate.state.next.empty()) next_ = gate.state.next.front();
        const bool stripped_first =
            gate.state.standing == release::Standing::wrong && gate.state.next.empty();
        note_->setVisible(next_.has_value() && !stripped_first);
        if (next_) {
            const auto way = text_of(said(way_of(next_->turn)));
            note_->setText(QString("Note %1, coat %2 of %3, %4")
                               .arg(QString::fromStdString(next_->product))
                               .arg(next_->coat)
                               .arg(next_->of)
                               .arg(way));
            note_->setToolTip("Notes it in the log as laid now");
        }
    }

  private:
    void note_next() {
        const auto& f = document_.findings();
        if (!next_ || !f.log || face_ >= f.log->faces.size()) return;
        const auto& face = f.log->faces[face_];
        auto job = document_.job();
        log::LogEntry e;
        e.date = write_moment(static_cast<double>(QDateTime::currentSecsSinceEpoch()));
        e.kind = EntryKind::coat;
        e.coats = 1;
        e.face = face.name;
        e.product = next_->product;
        e.way = way_of(next_->turn);
        for (const auto& earlier : job.log.entries) {
            if (!earlier.who.empty()) e.who = earlier.who;
        }
        job.log.entries.push_back(std::move(e));
        document_.replace("note a coat", std::move(job));
    }

    Document& document_;
    std::size_t face_;
    QLabel *head_, *why_;
    QPushButton* note_;
    std::optional<release::Step> next_;
};

class GatePane : public Pane {
  public:
    GatePane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        setObjectName("gate-pane");
        box_ = new QVBoxLayout(this);
        box_->setContentsMargins(0, 0, 0, 0);
        box_->setSpacing(0);
        auto* title = new QLabel("Gate, as it stands now", this);
        title->setObjectName("pane-title");
        title->setFont(word_font(10, true));
        box_->addWidget(title);
        // What is dry now was not a minute ago.
        clock_.setInterval(20000);
        connect(&clock_, &QTimer::timeout, this, [this] { renew_rows(); });
        clock_.start();
    }

    void refresh(const Wording& wording) override {
        wording_ = wording;
        const auto& f = document_.findings();
        const std::size_t wanted = f.log ? f.log->faces.size() : 0;
        while (rows_.size() > wanted) {
            delete rows_.back();
            rows_.pop_back();
        }
        while (rows_.size() < wanted) {
            rows_.push_back(new GateRow(document_, rows_.size(), this));
            box_->addWidget(rows_.back());
        }
        renew_rows();
    }

  private:
    void renew_rows() {
        for (auto* row : rows_) row->renew(wording_);
    }
    Document& document_;
    QVBoxLayout* box_;
    std::vector<GateRow*> rows_;
    QTimer clock_;
    Wording wording_;
};

/// Both under each other.
class ReleasePane : public Pane {
  public:
    ReleasePane(Document& document, QWidget* parent)
        : Pane(parent), gate_(make_gate_pane(document, this)), loose_(make_loose_pane(document, this)) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->addWidget(gate_);
        box->addWidget(loose_);
    }
    void refresh(const Wording& wording) override {
        gate_->refresh(wording);
        loose_->refresh(wording);
    }

  private:
    Pane *gate_, *loose_;
};

}  // namespace

Pane* make_gate_pane(Document& document, QWidget* parent) {
    return new GatePane(document, parent);
}

Pane* make_release_pane(Document& document, QWidget* parent) {
    return new ReleasePane(document, parent);
}

}  // namespace jig::app
