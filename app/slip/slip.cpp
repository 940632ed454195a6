#include "app/slip/slip.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QGridLayout>
#include <QToolButton>

#include "app/slip/call_row.hpp"
#include "app/slip/editor.hpp"
#include "app/slip/flow_layout.hpp"
#include "core/job/schools.hpp"
#include "core/stages/cautions.hpp"

namespace jig::app {
namespace {

void clear(QLayout* layout) {
    while (auto* item = layout->takeAt(0)) {
        if (auto* widget = item->widget()) {
            widget->hide();
            widget->deleteLater();
        }
        if (item->layout() != nullptr) clear(item->layout());
        delete item;
    }
}

QLabel* wrapped(const QString& text, QWidget* parent, const QFont& font) {
    auto* label = new QLabel(text, parent);
    label->setWordWrap(true);
    label->setFont(font);
    return label;
}

/// Whether two lists of sentences have the same words at the same places.
bool same_shape(const std::vector<Sentence>& a, const std::vector<Sentence>& b) {
    if (a.size() != b.size()) return false;
    for (std::size_t i = 0; i < a.size(); ++i) {
        if (a[i].size() != b[i].size()) return false;
        for (std::size_t k = 0; k < a[i].size(); ++k) {
            if (a[i][k].index() != b[i][k].index()) return false;
            if (const auto* text = std::get_if<QString>(&a[i][k]);
                text != nullptr && *text != std::get<QString>(b[i][k]))
                return false;
            if (const auto* word = std::get_if<Blank>(&a[i][k])) {
                const auto& other = std::get<Blank>(b[i][k]);
                if (word->path != other.path || word->form != other.form) return false;
            }
        }
    }
    return true;
}

/// A word is as wide as its text and stands on the line of its neighbours.
void set_word(QToolButton* button, const Blank& word, const QString& text) {
    button->setText(text);
    button->setAccessibleName(word.name + ": " + text);
    const auto metrics = button->fontMetrics();
    button->setFixedSize(std::min(300, metrics.horizontalAdvance(text) + 6), metrics.height() + 2);
}

}  // namespace

Slip::Slip(Document& document, QWidget* parent)
    : QScrollArea(parent), document_(document), ink_(&app::ink(Light::day)) {
    setObjectName("sheet");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(&document_, &Document::changed, this, &Slip::job_changed);
    connect(&document_, &Document::evaluated, this, &Slip::findings_changed);
    rebuild();
}

void Slip::show_stage(Stage stage) {
    stage_ = stage;
    rebuild();
}

void Slip::set_look(const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    wording_ = wording;
    rebuild();
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
    sentences_ = new QWidget(sheet);
    auto* lines = new QVBoxLayout(sentences_);
    lines->setContentsMargins(0, 0, 0, 0);
    lines->setSpacing(8);
    box->addWidget(sentences_);
    pane_ = make_pane(document_, stage_, sheet);
    if (pane_ != nullptr) {
        box->addWidget(pane_);
        connect(pane_, &Pane::wanted, this, &Slip::act_wanted);
    }
    figures_ = new QWidget(sheet);
    auto* grid = new QGridLayout(figures_);
    grid->setContentsMargins(0, 4, 0, 4);
    grid->setHorizontalSpacing(12);
    grid->setVerticalSpacing(3);
    box->addWidget(figures_);
    fill_cautions(box);
    box->addStretch();
    setWidget(sheet);
    shown_.clear();
    fill_sentences();
    findings_changed();
}

void Slip::fill_sentences() {
    const auto json = job_to_json(document_.job());
    auto sentences = sentences_of(stage_, document_.job(), document_.shop());
    if (same_shape(sentences, shown_)) {
        for (auto& [word, button] : words_) {
            set_word(button, word, word_text(word, json, wording_));
        }
        return;
    }
    const auto focused = focusWidget() != nullptr ? focusWidget()->property("path").toString() : QString();
    clear(sentences_->layout());
    words_.clear();
    shown_ = std::move(sentences);
    for (const auto& sentence : shown_) {
        auto* line = new QWidget(sentences_);
        auto* flow = new FlowLayout(line);
        for (const auto& piece : sentence) {
            if (const auto* text = std::get_if<QString>(&piece)) {
                // Word by word, so that lines break between them.
                for (const auto& part : text->split(' ', Qt::SkipEmptyParts))
                    flow->addWidget(new QLabel(part, line));
                continue;
            }
            const auto& word = std::get<Blank>(piece);
            auto* button = new QToolButton(line);
            button->setObjectName("word");
            button->setProperty("path", QString::fromStdString(word.path));
            button->setFont(word_font());
            set_word(button, word, word_text(word, json, wording_));
            button->setToolTip(word.name + (word.note.isEmpty() ? QString() : "\n" + word.note));
            button->setCursor(Qt::PointingHandCursor);
            button->setFocusPolicy(Qt::StrongFocus);
            connect(button, &QToolButton::clicked, this, [this, word, button] { open_editor(word, button); });
            words_.emplace_back(word, button);
            flow->addWidget(button);
            if (focused == QString::fromStdString(word.path)) button->setFocus();
        }
        sentences_->layout()->addWidget(line);
        line->show();
    }
}

bool Slip::open_word(const QString& path) {
    for (const auto& [word, button] : words_) {
        if (QString::fromStdString(word.path) != path) continue;
        ensureWidgetVisible(button);
        open_editor(word, button);
        return true;
    }
    return false;
}

void Slip::open_editor(const Blank& word, QWidget* under) {
    const auto json = job_to_json(document_.job());
    const auto take = [this, word](const Json& value) -> QString {
        // A school is a fresh start: it brings its whole stack.
        if (word.path == "/shell/school") {
            auto job = document_.job();
            School school{};
            from_json_value(JsonPlace(value, "school"), school);
            job.shell = restarted(job.shell, school);
            document_.replace("start from a school", std::move(job));
            return {};
        }
        return document_.edit("set " + word.name, word_patch(word, job_to_json(document_.job()), value));
    };
    auto* editor = new Editor(word, json.at(Json::json_pointer(word.path)), wording_, take, window());
    editor->adjustSize();
    auto at = under->mapToGlobal(QPoint(0, under->height() + 2));
    const auto edge = window()->mapToGlobal(
        QPoint(window()->width() - editor->width() - 8, window()->height() - editor->height() - 8));
    editor->move(std::min(at.x(), edge.x()), std::min(at.y(), std::max(0, edge.y())));
    editor->show();
}

void Slip::fill_figures() {
    auto* grid = static_cast<QGridLayout*>(figures_->layout());
    const auto& figures = document_.findings().figures(stage_);
    // Widgets are made once a stage and then only told new words: an edit must not flicker.
    const bool fits = grid->count() == static_cast<int>(2 * figures.size());
    if (!fits) clear(grid);
    for (int i = 0; i < static_cast<int>(figures.size()); ++i) {
        const auto& f = figures[static_cast<std::size_t>(i)];
        auto* name =
            fits ? static_cast<QLabel*>(grid->itemAt(2 * i)->widget()) : wrapped({}, figures_, word_font());
        auto* value = fits ? static_cast<QLabel*>(grid->itemAt(2 * i + 1)->widget()) : new QLabel(figures_);
        const auto reason = QString::fromStdString(worded(f.reason, wording_));
        name->setText(QString::fromStdString(worded(f.name, wording_)));
        value->setText(QString::fromStdString(jig::show(f.kind, f.value, wording_)));
        value->setObjectName("figure-" + QString::fromStdString(f.key));
        value->setFont(figure_font());
        value->setAlignment(Qt::AlignRight | Qt::AlignTop);
        value->setStyleSheet(QString("color: %1").arg((document_.stale() ? ink_->faint : ink_->ink).name()));
        for (auto* label : {name, value}) label->setToolTip("<p>" + reason.toHtmlEscaped() + "</p>");
        if (!fits) {
            grid->addWidget(name, i, 0);
            grid->addWidget(value, i, 1);
            grid->setColumnStretch(0, 1);
        }
    }
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
    clear(box);
    std::vector<const Call*> calls;
    for (const auto& call : shown_calls_) calls.push_back(&call);
    // Worst first; what is worst shows its way out at once.
    std::stable_sort(calls.begin(), calls.end(),
                     [](const Call* a, const Call* b) { return a->severity > b->severity; });
    for (const auto* call : calls) {
        const auto key = QString::fromStdString(call->key);
        const auto kept = open_.find({stage_, key});
        const bool open =
            kept != open_.end() ? kept->second : call == calls.front() && call->severity != Severity::note;
        auto* row = new CallRow(*call, open, *ink_, wording_, calls_);
        connect(row, &CallRow::toggled, this, [this, key](bool now) { open_[{stage_, key}] = now; });
        if (call->fix) {
            const auto label = QString::fromStdString(worded(call->fix->label, wording_));
            const auto patch = call->fix->patch;
            connect(row, &CallRow::fix_wanted, this,
                    [this, label, patch] { document_.edit(label.left(1).toLower() + label.mid(1), patch); });
        }
        connect(row, &CallRow::word_wanted, this, &Slip::word_wanted);
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

void Slip::fill_cautions(QLayout* into) {
    const auto cautions = cautions_for(document_.job(), stage_);
    if (cautions.empty()) return;
    auto* parent = into->parentWidget();
    auto* title = new QLabel("Take care", parent);
    title->setFont(word_font(10.5, true));
    into->addWidget(title);
    for (const auto& caution : cautions)
        into->addWidget(wrapped("· " + QString::fromStdString(caution), parent, word_font(9.5)));
    auto* deferral = wrapped(QString::fromUtf8(kDeferral), parent, word_font(9.5));
    deferral->setStyleSheet(QString("color: %1").arg(ink_->faint.name()));
    into->addWidget(deferral);
}

void Slip::job_changed() {
    fill_sentences();
    if (pane_ != nullptr) pane_->refresh(wording_);
    fill_figures();  // marks them as being renewed
}

void Slip::findings_changed() {
    fill_figures();
    fill_calls();
    if (pane_ != nullptr) pane_->refresh(wording_);
}

}  // namespace jig::app
