#include "app/slip/slip.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QPushButton>
#include <QSettings>

#include "app/slip/call_row.hpp"
#include "app/slip/figures_view.hpp"
#include "app/slip/sentence_view.hpp"
#include "app/slip/widgets.hpp"
#include "core/job/schools.hpp"
#include "core/stages/cautions.hpp"

namespace jig::app {
Slip::Slip(Document& document, QWidget* parent)
    : QScrollArea(parent), document_(document), ink_(&app::ink(Light::day)) {
    setObjectName("sheet");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(&document_, &Document::changed, this, &Slip::job_changed);
    connect(&document_, &Document::evaluated, this, &Slip::findings_changed);
}

void Slip::show_stage(Stage stage) {
    stage_ = stage;
    rebuild();
}

void Slip::set_look(const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    wording_ = wording;
    if (widget() != nullptr) rebuild();
}

void Slip::rebuild() {
    auto* sheet = new QWidget(this);
    sheet->setObjectName("sheet");
    auto* box = new QVBoxLayout(sheet);
    box->setContentsMargins(16, 12, 14, 12);
    box->setSpacing(8);
    auto* title = new QLabel(name_of(stage_).said, sheet);
    title->setFont(word_font(12, true));
    box->addWidget(title);
    calls_ = new QWidget(sheet);
    auto* calls = new QVBoxLayout(calls_);
    calls->setContentsMargins(0, 0, 0, 0);
    calls->setSpacing(2);
    box->addWidget(calls_);
    large_ = new FiguresView(FiguresView::Part::large, sheet);
    connect(large_, &FiguresView::page_wanted, this, &Slip::page_wanted);
    box->addWidget(large_);
    sentences_ =
        new SentenceView([this](const Blank& word, const Json& value) { return take(word, value); }, sheet);
    box->addWidget(sentences_);
    pane_ = make_pane(document_, stage_, sheet);
    if (pane_ != nullptr) pane_->set_ink(*ink_);
    if (pane_ != nullptr) {
        box->addWidget(pane_);
        connect(pane_, &Pane::wanted, this, &Slip::act_wanted);
    }
    figures_ = new FiguresView(FiguresView::Part::rest, sheet);
    connect(figures_, &FiguresView::page_wanted, this, &Slip::page_wanted);
    box->addWidget(figures_);
    fill_cautions(box);
    box->addStretch();
    setWidget(sheet);
    fill_sentences();
    findings_changed();
}

void Slip::fill_sentences() {
    sentences_->show_sentences(sentences_of(stage_, document_.job(), document_.shop()),
                               job_to_json(document_.job()), wording_);
}

bool Slip::open_word(const QString& path) {
    auto* word = sentences_->open_word(path);
    if (word != nullptr) ensureWidgetVisible(word);
    return word != nullptr;
}

bool Slip::open_call(const QString& key) {
    auto* row = calls_->findChild<CallRow*>("call-row-" + key);
    if (row == nullptr) return false;
    ensureWidgetVisible(row);
    if (!row->is_open()) row->toggle();
    row->setFocus();
    return true;
}

bool Slip::open_figure(const QString& key) {
    auto* row = widget()->findChild<FigureRow*>("figure-row-" + key);
    if (row == nullptr) return false;
    if (!row->is_open()) row->toggle();
    ensureWidgetVisible(row);
    row->setFocus();
    return true;
}

QString Slip::take(const Blank& word, const Json& value) {
    // A school is a fresh start: it brings its whole stack.
    if (word.path == "/shell/school") {
        auto job = document_.job();
        School school{};
        from_json_value(JsonPlace(value, "school"), school);
        job.shell = restarted(job.shell, school);
        document_.replace("start from a school", std::move(job));
        return {};
    }
    // Fittings that become the maker's own begin where they lie.
    if (word.path == "/edge/by_rule" && value == false) {
        auto job = document_.job();
        if (own_fittings(job, document_.findings())) {
            document_.replace("set " + word.name, std::move(job));
            return {};
        }
    }
    return document_.edit("set " + word.name, word_patch(word, job_to_json(document_.job()), value));
}

void Slip::fill_figures() {
    for (auto* view : {large_, figures_})
        view->show_figures(stage_, document_.findings().figures(stage_), document_.stale(), *ink_, wording_);
}

void Slip::fill_calls() {
    Calls calls_here;
    for (const auto& call : document_.findings().calls) {
        if (call.stage == stage_) calls_here.push_back(call);
    }
    // The words below do not jump while nothing has changed.
    const bool known = !document_.findings().figures(stage_).empty();
    if (calls_->layout()->count() > 0 && calls_here == shown_calls_ && known == shown_known_) return;
    shown_calls_ = std::move(calls_here);
    shown_known_ = known;
    auto* box = static_cast<QVBoxLayout*>(calls_->layout());
    QString focused;
    for (const auto* row : calls_->findChildren<CallRow*>()) {
        if (row->hasFocus()) focused = row->key();
    }
    clear_layout(box);
    // What is worst shows its way out at once.
    const auto calls = worst_first(shown_calls_, stage_);
    int flags = 0;
    for (const auto* call : calls) {
        const auto key = QString::fromStdString(call->key);
        const auto kept = open_.find({stage_, key});
        const bool open =
            kept != open_.end() ? kept->second : call == calls.front() && call->severity != Severity::note;
        auto* row = new CallRow(*call, open, call->at ? ++flags : 0, *ink_, wording_, calls_);
        connect(row, &CallRow::toggled, this, [this, key](bool now) { open_[{stage_, key}] = now; });
        if (call->fix) {
            const auto label = QString::fromStdString(worded(call->fix->label, wording_));
            const auto patch = call->fix->patch;
            connect(row, &CallRow::fix_wanted, this,
                    [this, label, patch] { document_.edit(label.left(1).toLower() + label.mid(1), patch); });
        }
        connect(row, &CallRow::word_wanted, this, &Slip::word_wanted);
        connect(row, &CallRow::place_wanted, this, [this, key] { emit place_wanted(key); });
        box->addWidget(row);
        row->show();
        if (key == focused) row->setFocus();
    }
    if (!calls.empty()) return;
    auto* quiet =
        wrapped(known ? "Nothing speaks against it." : "Not worked out yet.", calls_, word_font(10));
    quiet->setObjectName("no-calls");
    quiet->setStyleSheet(QString("color: %1").arg(ink_->faint.name()));
    box->addWidget(quiet);
    quiet->show();
}

/// Read once, the cautions fold to a line; it stays in sight and opens again.
void Slip::fill_cautions(QLayout* into) {
    const auto cautions = cautions_for(document_.job(), stage_);
    if (cautions.empty()) return;
    auto* parent = into->parentWidget();
    QString read;
    for (const auto& caution : cautions) read += QString::fromStdString(caution) + '\n';
    const auto key = QString("read/%1").arg(name_of(stage_).key);
    const bool known = QSettings().value(key).toString() == read;
    auto* title = new QPushButton(parent);
    title->setObjectName("take-care");
    title->setFont(word_font(10.5, true));
    title->setCheckable(true);
    title->setMinimumHeight(24);
    into->addWidget(title);
    auto* text = new QWidget(parent);
    auto* box = new QVBoxLayout(text);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    for (const auto& caution : cautions)
        box->addWidget(wrapped("· " + QString::fromStdString(caution), text, word_font(9.5)));
    auto* deferral = wrapped(QString::fromUtf8(kDeferral), text, word_font(9.5));
    deferral->setStyleSheet(QString("color: %1").arg(ink_->faint.name()));
    box->addWidget(deferral);
    auto* done = new QPushButton("I have read this", text);
    done->setObjectName("have-read");
    done->setVisible(!known);
    box->addWidget(done, 0, Qt::AlignLeft);
    into->addWidget(text);
    const auto fold = [title, text, n = cautions.size()](bool open) {
        title->setChecked(open);
        title->setText(open ? QString("Take care") : QString("Take care: %1 points, read; open them").arg(n));
        title->setAccessibleName(title->text());
        text->setVisible(open);
    };
    fold(!known);
    connect(title, &QPushButton::clicked, this, fold);
    connect(done, &QPushButton::clicked, this, [fold, done, key, read] {
        QSettings().setValue(key, read);
        done->hide();
        fold(false);
    });
}

void Slip::job_changed() {
    if (widget() == nullptr) return;
    fill_sentences();
    if (pane_ != nullptr) pane_->refresh(wording_);
    fill_figures();  // marks them as being renewed
}

void Slip::findings_changed() {
    if (widget() == nullptr) return;
    fill_figures();
    fill_calls();
    if (pane_ != nullptr) pane_->refresh(wording_);
}

}  // namespace jig::app
