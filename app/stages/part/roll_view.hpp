// A roll of cloth with the pieces that are cut from it.
#pragma once

#include <QWidget>

#include "app/theme/ink.hpp"
#include "core/base/units.hpp"
#include "core/stages/part/kit.hpp"

namespace jig::app {

/// The roll runs from left to right, one length of it under the other. A piece is chosen by a click or by the
/// arrows; its name and measures are said below it, the sheet is told.
class RollView : public QWidget {
    Q_OBJECT
  public:
    RollView(const part::KitRoll& roll, Hatch hatch, const Ink& ink, const Wording& wording, QWidget* parent);
    void choose(const QString& piece);
    [[nodiscard]] QString chosen() const { return chosen_; }
    [[nodiscard]] QSize sizeHint() const override { return {560, heightForWidth(560)}; }
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override;
    /// Where a piece's name stands, px; none where it is not on this roll.
    [[nodiscard]] std::optional<QPointF> place_of(const QString& piece) const;

  signals:
    void piece_chosen(const QString& piece);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    /// px for a metre.
    [[nodiscard]] double scale(int width) const;
    [[nodiscard]] double top_of(std::size_t sheet) const;
    [[nodiscard]] const SheetPiece* piece_at(const QPointF& at) const;
    [[nodiscard]] std::vector<const SheetPiece*> all() const;

    part::KitRoll roll_;
    std::vector<double> used_;  ///< m of each length of the roll
    double longest_ = 0;        ///< of them
    Hatch hatch_;
    const Ink& ink_;
    Wording wording_;
    QString chosen_;
};

}  // namespace jig::app
