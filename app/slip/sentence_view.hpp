// Sentences as widgets: words that can be changed stand underlined among words that cannot.
#pragma once

#include <QWidget>

#include "app/slip/editor.hpp"
#include "app/slip/sentence.hpp"

class QToolButton;

namespace jig::app {

class SentenceView : public QWidget {
    Q_OBJECT
  public:
    /// Sets the value of a word; returns why it cannot be, or nothing.
    using Take = std::function<QString(const Blank& word, const Json& value)>;
    SentenceView(Take take, QWidget* parent);

    void set_take(Take take) { take_ = std::move(take); }
    /// Shows the sentences over a job's JSON. Widgets stay where only values have changed.
    void show_sentences(std::vector<Sentence> sentences, const Json& job, const Wording& wording);
    /// Opens the editor of the word at a JSON pointer and returns the word's widget; null where there is
    /// none.
    QWidget* open_word(const QString& path);

  private:
    void open_editor(const Blank& word, QWidget* under);
    void name_lines();

    Take take_;
    Json job_;
    Wording wording_;
    std::vector<Sentence> shown_;
    std::vector<std::pair<Blank, QToolButton*>> words_;
    std::vector<QWidget*> lines_;  ///< one a sentence
};

}  // namespace jig::app
