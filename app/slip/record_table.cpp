#include "app/slip/record_table.hpp"

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
        if (!column.options) return QStyledItemDelegate::createEditor(parent, option, index);
        auto* box = new QComboBox(parent);
        box->addItems(column.options(index.row()));
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

RecordTable::RecordTable(std::vector<RecordColumn> columns, bool by_hand, QWidget* parent)
    : QTableWidget(parent), columns_(std::move(columns)) {
    setColumnCount(static_cast<int>(columns_.size()));
    QStringList titles;
    for (const auto& c : columns_) titles << c.title;
    setHorizontalHeaderLabels(titles);
    setItemDelegate(new ChoiceDelegate(columns_, this));
    verticalHeader()->setVisible(true);
    verticalHeader()->setMinimumSectionSize(16);
    verticalHeader()->setDefaultSectionSize(24);
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    horizontalHeader()->setHighlightSections(false);
    horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    setSelectionBehavior(SelectRows);
    setSelectionMode(SingleSelection);
    setWordWrap(false);
    setTextElideMode(Qt::ElideRight);
    if (by_hand) {
        setDragDropMode(InternalMove);
        setDragDropOverwriteMode(false);
        setDropIndicatorShown(true);
    }
    connect(this, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
        if (!filling_) emit typed(item->row(), item->column(), item->text());
    });
}

void RecordTable::show_rows(const QList<QStringList>& rows, const QList<QString>& tips) {
    filling_ = true;
    const int kept = currentRow();
    setRowCount(static_cast<int>(rows.size()));
    for (int r = 0; r < rows.size(); ++r) {
        setVerticalHeaderItem(r, new QTableWidgetItem(QString::number(r + 1)));
        for (int c = 0; c < columnCount(); ++c) {
            const auto& column = columns_[static_cast<std::size_t>(c)];
            auto* item = new QTableWidgetItem(rows[r].value(c));
            auto flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsDragEnabled;
            if (column.editable) flags |= Qt::ItemIsEditable;
            item->setFlags(flags);
            if (column.figure) {
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                item->setFont(figure_font(9.5));
            }
            item->setToolTip(r < tips.size() ? tips[r] : rows[r].value(c));
            setItem(r, c, item);
        }
    }
    if (kept >= 0 && kept < rowCount()) selectRow(kept);
    filling_ = false;
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
