#include "app/slip/sentence_view.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QRegularExpression>
#include <QToolButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/widgets.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

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

/// A word is as wide as its text and stands on the line of its neighbours; what is too long for a line is
/// shortened, with the whole on hover.
void set_word(QToolButton* button, const Blank& word, const QString& text) {
    const auto metrics = button->fontMetrics();
    const int most = static_cast<int>(290 * text_scale());
    button->setText(metrics.elidedText(text, Qt::ElideRight, most).replace('&', "&&"));
    button->setAccessibleName(word.name + ": " + text);
    button->setToolTip(word.name + (text == button->text() ? QString() : ": " + text) +
                       (word.note.isEmpty() ? QString() : "\n" + word.note));
    button->setFixedSize(std::min(most + 8, metrics.horizontalAdvance(text) + 6), metrics.height() + 2);
}

}  // namespace

SentenceView::SentenceView(Take take, QWidget* parent) : QWidget(parent), take_(std::move(take)) {
    auto* lines = new QVBoxLayout(this);
    lines->setContentsMargins(0, 0, 0, 0);
    lines->setSpacing(8);
}

void SentenceView::show_sentences(std::vector<Sentence> sentences, const Json& job, const Wording& wording) {
    job_ = job;
    wording_ = wording;
    if (same_shape(sentences, shown_)) {
        for (auto& [word, button] : words_) set_word(button, word, word_text(word, job_, wording_));
        name_lines();
        return;
    }
    const auto* had = window()->focusWidget();
    const auto focused = had != nullptr && isAncestorOf(had) ? had->property("path").toString() : QString();
    clear_layout(layout());
    words_.clear();
    lines_.clear();
    shown_ = std::move(sentences);
    for (const auto& sentence : shown_) {
        auto* line = new FlowLine(word_font(), this);
        for (const auto& piece : sentence) {
            if (const auto* text = std::get_if<QString>(&piece)) {
                line->add_words(*text);
                continue;
            }
            const auto& word = std::get<Blank>(piece);
            const auto path = QString::fromStdString(word.path);
            auto* button = new QToolButton(line);
            button->setObjectName("word");
            button->setProperty("path", path);
            button->setFont(word_font());
            set_word(button, word, word_text(word, job_, wording_));
            button->setCursor(Qt::PointingHandCursor);
            button->setFocusPolicy(Qt::StrongFocus);
            connect(button, &QToolButton::clicked, this, [this, word, button] { open_editor(word, button); });
            words_.emplace_back(word, button);
            line->add(button);
            if (focused == path) button->setFocus();
        }
        layout()->addWidget(line);
        lines_.push_back(line);
        line->show();
    }
    name_lines();
}

/// A reader of screens says a sentence with what its words are now.
void SentenceView::name_lines() {
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        QStringList said;
        for (const auto& piece : shown_[i]) {
            const auto* word = std::get_if<Blank>(&piece);
            said << (word != nullptr ? word_text(*word, job_, wording_)
                                     : std::get<QString>(piece).simplified());
        }
        static const QRegularExpression before_stop(" (?=[.,;:])");
        lines_[i]->setAccessibleName(said.join(' ').remove(before_stop));
    }
}

QWidget* SentenceView::open_word(const QString& path) {
    for (const auto& [word, button] : words_) {
        if (QString::fromStdString(word.path) != path) continue;
        open_editor(word, button);
        return button;
    }
    return nullptr;
}

void SentenceView::open_editor(const Blank& word, QWidget* under) {
    auto* editor = new Editor(
        word, job_.at(Json::json_pointer(word.path)), wording_,
        [this, word](const Json& value) { return take_(word, value); }, window());
    editor->adjustSize();
    const auto at = under->mapToGlobal(QPoint(0, under->height() + 2));
    const auto edge = window()->mapToGlobal(
        QPoint(window()->width() - editor->width() - 8, window()->height() - editor->height() - 8));
    editor->move(std::min(at.x(), edge.x()), std::min(at.y(), std::max(0, edge.y())));
    editor->show();
}

}  // namespace jig::app
