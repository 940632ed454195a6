// Widgets set like words on lines, and words among them.
#pragma once

#include <QFont>
#include <QLayout>
#include <QWidget>

namespace jig::app {

/// A word that only has to be read: the line draws it, which is far less than a label for each.
class FlowWord : public QLayoutItem {
  public:
    FlowWord(QString text, const QFont& font);
    [[nodiscard]] const QString& text() const { return text_; }
    [[nodiscard]] QSize sizeHint() const override { return size_; }
    [[nodiscard]] QSize minimumSize() const override { return size_; }
    [[nodiscard]] QSize maximumSize() const override { return size_; }
    [[nodiscard]] Qt::Orientations expandingDirections() const override { return {}; }
    [[nodiscard]] bool isEmpty() const override { return false; }
    void setGeometry(const QRect& where) override { where_ = where; }
    [[nodiscard]] QRect geometry() const override { return where_; }

  private:
    QString text_;
    QSize size_;
    QRect where_;
};

class FlowLayout : public QLayout {
  public:
    explicit FlowLayout(QWidget* parent = nullptr, int space = 4, int lead = 3);
    ~FlowLayout() override;
    void addItem(QLayoutItem* item) override { items_.append(item); }
    [[nodiscard]] int count() const override { return static_cast<int>(items_.size()); }
    [[nodiscard]] QLayoutItem* itemAt(int i) const override { return items_.value(i); }
    QLayoutItem* takeAt(int i) override { return i >= 0 && i < items_.size() ? items_.takeAt(i) : nullptr; }
    [[nodiscard]] Qt::Orientations expandingDirections() const override { return {}; }
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override {
        return arrange(QRect(0, 0, width, 0), false);
    }
    [[nodiscard]] QSize sizeHint() const override { return minimumSize(); }
    [[nodiscard]] QSize minimumSize() const override;
    void setGeometry(const QRect& where) override;

  private:
    int arrange(const QRect& where, bool move) const;
    QList<QLayoutItem*> items_;
    int space_, lead_;
};

/// A line of words and widgets; a reader of screens reads it whole.
class FlowLine : public QWidget {
  public:
    FlowLine(const QFont& font, QWidget* parent);
    void add_words(const QString& words);
    void add(QWidget* widget) { flow_->addWidget(widget); }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QFont font_;
    FlowLayout* flow_;
};

}  // namespace jig::app
