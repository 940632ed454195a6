#include "app/slip/record_table.hpp"

#include <algorithm>
#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QDropEvent>
#include <QHeaderView>
#include <QKeyEvent>
#include <QStyledItemDelegate>

#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

/// A list of choices for columns that have one, a plain field elsewhere.
class ChoiceDelegate : public QStyledItemDelegate {
  public:
    ChoiceDelegate(const std::vector<RecordColumn>& columns, QObject* parent)
        : QStyledItemDelegate(parent), columns_(columns) {}
    QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem& option,
                          const QModelIndex& index) const override {
        const auto& column = columns_[static_cast<std::size_t>(index.column())];
        const auto choices = column.options ? column.options(index.row()) : QStringList();
        if (choices.isEmpty()) return QStyledItemDelegate::createEditor(parent, option, index);
        auto* box = new QComboBox(parent);
        box->addItems(choices);
        box->view()->setMinimumWidth(260);
        connect(box, &QComboBox::activated, this, [this, box] {
            auto* self = const_cast<ChoiceDelegate*>(this);
            emit self->commitData(box);
            emit self->closeEditor(box);
        });
        return box;
    }
    void setEditorData(QWidget* editor, const QModelIndex& index) const override {
        if (auto* box = qobject_cast<QComboBox*>(editor)) {
            box->setCurrentText(index.data().toString());
            box->showPopup();
        } else {
            QStyledItemDelegate::setEditorData(editor, index);
        }
    }
    void setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const override {
        if (auto* box = qobject_cast<QComboBox*>(editor))
            model->setData(index, box->currentText());
        else
            QStyledItemDelegate::setModelData(editor, model, index);
    }

  private:
    const std::vector<RecordColumn>& columns_;
};

}  // namespace

int row_height(int least) {
    return std::max(least, QFontMetrics(word_font()).height() + 5);
}

RecordTable::RecordTable(std::vector<RecordColumn> columns, bool by_hand, QWidget* parent)
    : QTableWidget(parent), columns_(std::move(columns)) {
    setColumnCount(static_cast<int>(columns_.size()));
    QStringList titles;
    for (const auto& c : columns_) titles << c.title;
    setHorizontalHeaderLabels(titles);
    setItemDelegate(new ChoiceDelegate(columns_, this));
    verticalHeader()->setVisible(true);
    verticalHeader()->setMinimumSectionSize(16);
    verticalHeader()->setDefaultSectionSize(row_height(24));
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    horizontalHeader()->setHighlightSections(false);
    horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    setSelectionBehavior(SelectRows);
    setSelectionMode(ContiguousSelection);
    setWordWrap(false);
    setTextElideMode(Qt::ElideRight);
    if (by_hand) {
        setDragDropMode(InternalMove);
        setDragDropOverwriteMode(false);
        setDropIndicatorShown(true);
    }
    connect(this, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
        if (filling_) return;
        committing_ = true;
        emit typed(item->row(), item->column(), item->text());
        committing_ = false;
    });
}

void RecordTable::show_rows(const QList<QStringList>& rows, const QList<QString>& tips) {
    filling_ = true;
    // A cell that is being typed into keeps what stands in it, whatever results arrive.
    const auto typing = state() == EditingState && !committing_ ? currentIndex() : QModelIndex();
    if (rowCount() != rows.size()) setRowCount(static_cast<int>(rows.size()));
    for (int r = 0; r < rows.size(); ++r) {
        if (verticalHeaderItem(r) == nullptr)
            setVerticalHeaderItem(r, new QTableWidgetItem(QString::number(r + 1)));
        for (int c = 0; c < columnCount(); ++c) {
            const auto& column = columns_[static_cast<std::size_t>(c)];
            auto* cell = item(r, c);
            if (cell == nullptr) {
                cell = new QTableWidgetItem();
                if (column.figure) {
                    cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                    cell->setFont(figure_font(9.5));
                }
                setItem(r, c, cell);
            }
            auto flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsDragEnabled;
            if (can_be_typed(r, c)) flags |= Qt::ItemIsEditable;
            if (cell->flags() != flags) cell->setFlags(flags);
            if (typing.isValid() && typing.row() == r && typing.column() == c) continue;
            const auto text = rows[r].value(c), tip = r < tips.size() ? tips[r] : text;
            if (cell->text() != text) cell->setText(text);
            if (cell->toolTip() != tip) cell->setToolTip(tip);
        }
    }
    filling_ = false;
}

bool RecordTable::can_be_typed(int row, int column) const {
    const auto& of = columns_[static_cast<std::size_t>(column)];
    return of.editable && !(of.silent && of.silent(row));
}

QModelIndex RecordTable::moveCursor(CursorAction action, Qt::KeyboardModifiers with) {
    if (action != MoveNext && action != MovePrevious) return QTableWidget::moveCursor(action, with);
    // Tab walks the cells that can be typed into, and out of the table at its ends.
    const int columns = columnCount(), cells = columns * rowCount();
    if (cells == 0) return {};
    const int step = action == MoveNext ? 1 : -1;
    const auto now = currentIndex();
    int at = now.isValid() ? now.row() * columns + now.column() : (step > 0 ? -1 : cells);
    for (at += step; at >= 0 && at < cells; at += step) {
        if (can_be_typed(at / columns, at % columns) && !isColumnHidden(at % columns))
            return model()->index(at / columns, at % columns);
    }
    return {};
}

QString RecordTable::as_text() const {
    QStringList lines, head;
    for (const auto& c : columns_) head << c.title;
    lines << head.join('\t');
    for (int r = 0; r < rowCount(); ++r) {
        QStringList cells;
        for (int c = 0; c < columnCount(); ++c) cells << item(r, c)->text();
        lines << cells.join('\t');
    }
    return lines.join('\n') + '\n';
}

void RecordTable::dropEvent(QDropEvent* event) {
    const int from = currentRow();
    const auto index = indexAt(event->position().toPoint());
    int to = index.isValid() ? index.row() : rowCount();
    if (index.isValid() && event->position().y() > visualRect(index).center().y()) ++to;
    // The view must not move items itself: the owner shows the new order.
    event->setDropAction(Qt::IgnoreAction);
    event->accept();
    if (to > from) --to;
    if (from >= 0 && to != from) emit moved(from, to);
}

void RecordTable::keyPressEvent(QKeyEvent* event) {
    if (event->matches(QKeySequence::Copy)) {
        QApplication::clipboard()->setText(as_text());
        return;
    }
    if (event->matches(QKeySequence::Paste)) {
        QList<QStringList> rows;
        for (const auto& line : QApplication::clipboard()->text().split('\n', Qt::SkipEmptyParts))
            rows << line.split('\t');
        if (!rows.isEmpty() && rows.front().value(0) == columns_.front().title) rows.removeFirst();
        if (!rows.isEmpty()) emit pasted(rows);
        return;
    }
    const int row = currentRow();
    if (event->modifiers() == Qt::AltModifier &&
        (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) && row >= 0) {
        const int to = row + (event->key() == Qt::Key_Up ? -1 : 1);
        if (to >= 0 && to < rowCount()) emit moved(row, to);
        return;
    }
    if (event->key() == Qt::Key_Delete && row >= 0 && state() != EditingState) {
        emit remove_wanted(row);
        return;
    }
    QTableWidget::keyPressEvent(event);
}

}  // namespace jig::app
