// One call on the slip: a line that opens to its reason and its way out.
#pragma once

#include <QWidget>

#include "app/theme/ink.hpp"
#include "core/stages/stage.hpp"

class QLabel;

namespace jig::app {

/// JSON pointer of the one choice that a fix sets; empty where it sets several.
QString word_of(const Fix& fix);

class CallRow : public QWidget {
    Q_OBJECT
  public:
    /// `flag` is the number of its flag on the stand; 0 where it has none.
    CallRow(const Call& call, bool open, int flag, const Ink& ink, const Wording& wording, QWidget* parent);
    [[nodiscard]] bool is_open() const;
    [[nodiscard]] const QString& key() const { return key_; }
    void toggle();

  signals:
    void toggled(bool open);
    void fix_wanted();
    /// The word that causes it is to be shown.
    void word_wanted(const QString& path);
    /// So is its place on the stand.
    void place_wanted();

  protected:
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

  private:
    void name_it();
    QString key_, said_;
    const Ink* ink_;
    QWidget* more_ = nullptr;
};

}  // namespace jig::app
