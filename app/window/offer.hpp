// The bar under the head that offers work which an earlier run left behind.
#pragma once

#include <QWidget>

#include "app/document/recovery.hpp"

class QListWidget;
class QPushButton;

namespace jig::app {

class Offer : public QWidget {
    Q_OBJECT
  public:
    explicit Offer(QWidget* parent);
    /// Lists what lies in the recovery folder; hidden, and false, where there is nothing.
    bool look_into(const QString& recovery);

  signals:
    void take_up_wanted(const jig::app::Leftover& left);

  private:
    [[nodiscard]] const Leftover* chosen() const;
    QString recovery_;
    QList<Leftover> leftovers_;
    QListWidget* list_;
    QPushButton* drop_;
};

}  // namespace jig::app
