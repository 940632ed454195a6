// A stage's figures: the three that matter large, the rest in groups; each opens its reasoning in place.
#pragma once

#include <QWidget>
#include <set>

#include "app/theme/ink.hpp"
#include "core/stages/stage.hpp"

class QLabel;

namespace jig::app {

class FigureRow;

class FiguresView : public QWidget {
    Q_OBJECT
  public:
    /// The large ones stand right under the verdict, the others at the foot of the slip.
    enum class Part { large, rest };
    FiguresView(Part part, QWidget* parent);
    /// `stale` while newer ones are on their way. Widgets stay where only values have changed.
    void show_figures(Stage stage, const std::vector<Figure>& figures, bool stale, const Ink& ink,
                      const Wording& wording);

  signals:
    /// The handbook's page of this stage is wanted.
    void page_wanted();

  private:
    void build(Stage stage, const std::vector<Figure>& figures);
    Part part_;
    std::vector<std::string> keys_;
    std::vector<FigureRow*> rows_;  ///< as the figures; null for those of the other part
    std::set<std::string> open_;
    Stage stage_ = Stage::brief;
};

/// One figure and, when it is open, how it came about. Enter, Space or a click opens and shuts it.
class FigureRow : public QWidget {
    Q_OBJECT
  public:
    FigureRow(const std::string& key, bool large, QLabel* more, QWidget* parent);
    void set(const Figure& figure, bool stale, const Ink& ink, const Wording& wording);
    [[nodiscard]] bool is_open() const;
    void toggle();

  signals:
    void toggled(bool open);

  protected:
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

  private:
    void name_it();
    QLabel *name_, *value_, *more_;
    QString said_;
    const Ink* ink_;
};

}  // namespace jig::app
