// Find any stage, action, layer, material or figure by its name.
#pragma once

#include <functional>
#include <QFrame>

class QLineEdit;
class QListWidget;

namespace jig::app {

struct Findable {
    QString name;  ///< what is searched and shown
    QString kind;  ///< "stage", "action", "material" …
    std::function<void()> go;
};

class Palette : public QFrame {
    Q_OBJECT
  public:
    /// `hint` stands in the field while nothing is typed; `most` lines are shown at a time.
    Palette(std::vector<Findable> all, const QString& hint, int most, QWidget* parent);
    /// Places it under the head and takes the keys.
    void open();

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void filter(const QString& text);
    void take();
    std::vector<Findable> all_;
    std::vector<std::size_t> shown_;
    int most_;
    QLineEdit* field_;
    QListWidget* list_;
};

}  // namespace jig::app
