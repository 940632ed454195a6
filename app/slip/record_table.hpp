// A table of records that can be typed into, dragged into another order, copied and pasted as text.
#pragma once

#include <functional>
#include <QTableWidget>

namespace jig::app {

struct RecordColumn {
    QString title;
    bool editable = false;
    bool figure = false;  ///< set in tabular figures, to the right
    /// A list to choose from, where there is one; none of them: it is typed.
    std::function<QStringList(int row)> options;
    /// Rows in which it has nothing to say and cannot be typed into; none where it always can.
    std::function<bool(int row)> silent = {};
};

/// Pixels of a row, as the size of text asks, `least` at the usual one.
[[nodiscard]] int row_height(int least);

/// Shows `rows`; every change is asked of the owner, who answers by showing the rows anew.
class RecordTable : public QTableWidget {
    Q_OBJECT
  public:
    RecordTable(std::vector<RecordColumn> columns, bool sortable_by_hand, QWidget* parent = nullptr);
    /// Touches only what differs, and never a cell that is being typed into.
    void show_rows(const QList<QStringList>& rows, const QList<QString>& tips = {});
    /// All rows as tab-separated text with a header line.
    [[nodiscard]] QString as_text() const;

  signals:
    void typed(int row, int column, const QString& text);
    void moved(int from, int to);
    void pasted(const QList<QStringList>& rows);
    void remove_wanted(int row);

  protected:
    void dropEvent(QDropEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QModelIndex moveCursor(CursorAction action, Qt::KeyboardModifiers with) override;

  private:
    [[nodiscard]] bool can_be_typed(int row, int column) const;
    std::vector<RecordColumn> columns_;
    bool filling_ = false, committing_ = false;
};

}  // namespace jig::app
