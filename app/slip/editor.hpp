// The small editor that a word opens.
#pragma once

#include <functional>
#include <QFrame>

#include "app/slip/sentence.hpp"

class QLabel;
class QLineEdit;

namespace jig::app {

/// Pops up under a word: a field with unit and a slider, a list, or a line of text. What is typed is taken by
/// Enter and by a click anywhere else, and dropped by Esc alone; text that is no such quantity, or one that
/// the job does not take, stays in its field with the reason beside it.
class Editor : public QFrame {
    Q_OBJECT
  public:
    /// Sets a value; returns why it cannot be, or nothing.
    using Take = std::function<QString(const Json&)>;
    Editor(const Blank& word, const Json& now, const Wording& wording, Take take, QWidget* parent);

  protected:
    void mousePressEvent(QMouseEvent* event) override;

  private:
    void build_quantity(const Json& now);
    void build_choice(const Json& now);
    void build_text(const Json& now);
    void add_note();
    /// Takes what stands in the field where it was changed; false where it cannot be taken and stays.
    bool take_field();
    bool give(const Json& value);
    Blank word_;
    Wording wording_;
    Take take_;
    QLineEdit* field_ = nullptr;
    QLabel* note_ = nullptr;
    QString usual_;  ///< what the note says while nothing is wrong
};

}  // namespace jig::app
