// The tool on trial: its load cases as a table, and the search for a pitch and feet.
#include <QBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>

#include "app/slip/record_table.hpp"
#include "app/slip/words.hpp"
#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"
#include "core/stages/back/suggest.hpp"

namespace jig::app {
namespace {

/// A load in a word or two; the tip says it whole.
QString brief_word(LoadCase kind) {
    static const std::array<const char*, 8> all{"own weight", "turned over", "leant on",     "squeezed",
                                                "levered",    "surface bag", "envelope bag", "warmed"};
    return all[static_cast<std::size_t>(kind)];
}

class BackPane : public Pane {
  public:
    BackPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        auto* title = new QLabel("The tool on trial", this);
        title->setFont(word_font(10.5, true));
        box->addWidget(title);
        cases_ = new RecordTable({{"load", false, false, {}},
                                  {"moves", false, true, {}},
                                  {"face off", false, true, {}},
                                  {"skins", false, true, {}}},
                                 false, this);
        cases_->setObjectName("trial");
        cases_->setAccessibleName("Load cases; choose one to see it on the stand");
        cases_->verticalHeader()->hide();
        cases_->setSelectionMode(QAbstractItemView::SingleSelection);
        box->addWidget(cases_);
        state_ = new QLabel(this);
        state_->setObjectName("trial-state");
        state_->setWordWrap(true);
        state_->setFont(word_font(9.5));
        box->addWidget(state_);
        connect(cases_, &QTableWidget::itemSelectionChanged, this, [this] {
            if (filling_) return;
            const int row = cases_->currentRow();
            emit wanted(row <= 0 ? QString("load-none")
                                 : "load-" + text_of(file_word(kinds_[static_cast<std::size_t>(row - 1)])));
        });
        auto* seek = new QPushButton("Seek pitch and feet", this);
        seek->setObjectName("seek-pitch");
        seek->setToolTip("Solves the tool at one pitch after another and takes down what each gives");
        connect(seek, &QPushButton::clicked, this, [this] { emit wanted("seek-pitch"); });
        auto* row = new QHBoxLayout();
        row->addWidget(seek);
        take_ = new QPushButton(this);
        take_->setObjectName("take-pitch");
        connect(take_, &QPushButton::clicked, this, [this] {
            const auto& s = document_.findings().pitches;
            if (!s) return;
            document_.edit("take pitch and feet",
                           Json{{"back", {{"pitch", s->pitch}, {"feet", {{"inset", s->inset}}}}}});
        });
        row->addWidget(take_);
        row->addStretch();
        box->addLayout(row);
        pitches_ = new RecordTable(
            {{"pitch", false, true, {}}, {"own weight", false, true, {}}, {"leaning", false, true, {}}},
            false, this);
        pitches_->setObjectName("pitches");
        pitches_->setAccessibleName("Pitches that were tried");
        box->addWidget(pitches_);
    }

    void refresh(const Wording& w) override {
        const auto& f = document_.findings();
        const auto say = [&](Kind kind, double v) { return QString::fromStdString(jig::show(kind, v, w)); };
        filling_ = true;
        const auto chosen = cases_->currentRow();
        QList<QStringList> rows{{"as it is built", "", "", ""}};
        QList<QString> tips{"Shows the back without any load"};
        kinds_.clear();
        if (f.trial) {
            for (const auto& r : f.trial->cases) {
                kinds_.push_back(r.kind);
                rows << QStringList{brief_word(r.kind), say(Kind::thickness, r.moves),
                                    say(Kind::thickness, r.error),
                                    QString("%1 %").arg(100 * std::max(r.skin, r.foam), 0, 'f', 0)};
                tips << text_of(said(r.kind)) + ": " +
                            QString::fromStdString(worded(r.how + "; worst " + r.where, w)) +
                            (r.buckles > 0 ? QString("; buckles at %1 times this").arg(r.buckles, 0, 'f', 1)
                             : r.none_below > 0
                                 ? QString("; no buckling up to %1 times this").arg(r.none_below, 0, 'f', 0)
                                 : QString());
            }
        }
        cases_->show_rows(rows, tips);
        if (chosen >= 0 && chosen < cases_->rowCount()) cases_->selectRow(chosen);
        fit_height(cases_, 2, 10);
        filling_ = false;
        if (!f.trial)
            state_->setText(f.edge && !f.edge->no_tool.empty() ? "No flange, no tool: see Edge."
                                                               : "Being worked out …");
        else
            state_->setText(QString("%1 freedoms, edges of %2%3")
                                .arg(f.trial->freedoms)
                                .arg(say(Kind::length, f.trial->edge))
                                .arg(f.trial->fine ? QString("; out by %1 at most")
                                                         .arg(say(Kind::thickness, most_different(*f.trial)))
                                                   : QString("; a finer mesh is on its way")));
        const auto& s = document_.findings().pitches;
        pitches_->setVisible(s != nullptr);
        take_->setVisible(s != nullptr);
        if (!s) return;
        take_->setText(
            QString("Take %1, feet %2 in").arg(say(Kind::length, s->pitch), say(Kind::ratio, s->inset)));
        take_->setToolTip(s->holds ? "The widest pitch that holds both limits, and the feet that sag least"
                                   : "No pitch holds both limits; this is the closest that was tried");
        QList<QStringList> tried;
        for (const auto& p : s->pitches)
            tried << QStringList{say(Kind::length, p.value), say(Kind::thickness, p.sag.standing),
                                 say(Kind::thickness, p.sag.leaning)};
        pitches_->show_rows(tried);
        fit_height(pitches_, 2, 9);
    }

  private:
    static double most_different(const back::Trial& trial) {
        double most = 0;
        for (const auto& r : trial.cases) most = std::max(most, r.differs);
        return most;
    }

    Document& document_;
    RecordTable *cases_, *pitches_;
    QLabel* state_;
    QPushButton* take_;
    std::vector<LoadCase> kinds_;
    bool filling_ = false;
};

}  // namespace

Pane* make_back_pane(Document& document, QWidget* parent) {
    return new BackPane(document, parent);
}

}  // namespace jig::app
