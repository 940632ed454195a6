// The small editor that a word opens.
#pragma once

#include <QFrame>

#include "app/slip/sentence.hpp"

class QLineEdit;

namespace jig::app {

/// Pops up under a word: a field with unit and a slider, a list, or a line of text. Emits every accepted
/// value; text that is no such quantity is said in place and nothing is changed.
class Editor : public QFrame {
    Q_OBJECT
  public:
    Editor(const Blank& word, const Json& now, const Wording& wording, QWidget* parent);

  signals:
    void chosen(const Json& value);

  private:
    void build_quantity(const Json& now);
    void build_choice(const Json& now);
    void build_text(const Json& now);
    Blank word_;
    Wording wording_;
};

}  // namespace jig::app
