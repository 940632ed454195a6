#include "app/slip/flow_layout.hpp"

#include <QLabel>

namespace jig::app {

FlowLayout::FlowLayout(QWidget* parent, int space, int lead) : QLayout(parent), space_(space), lead_(lead) {
    setContentsMargins(0, 0, 0, 0);
}

FlowLayout::~FlowLayout() {
    while (auto* item = takeAt(0)) delete item;
}

QSize FlowLayout::minimumSize() const {
    QSize size;
    for (const auto* item : items_) size = size.expandedTo(item->minimumSize());
    return size;
}

void FlowLayout::setGeometry(const QRect& where) {
    QLayout::setGeometry(where);
    arrange(where, true);
}

int FlowLayout::arrange(const QRect& where, bool move) const {
    int x = where.x(), y = where.y(), line = 0;
    for (auto* item : items_) {
        auto size = item->sizeHint();
        if (size.width() > where.width()) {
            size.setWidth(where.width());
            if (item->hasHeightForWidth()) size.setHeight(item->heightForWidth(where.width()));
        }
        // A comma or full stop stays with the word before it.
        const auto* label = qobject_cast<QLabel*>(item->widget());
        const bool closing =
            label != nullptr && !label->text().isEmpty() && QString(".,;:").contains(label->text().front());
        if (closing) x -= space_;
        if (!closing && x + size.width() > where.right() + 1 && x > where.x()) {
            x = where.x();
            y += line + lead_;
            line = 0;
        }
        if (move) item->setGeometry(QRect(QPoint(x, y), size));
        x += size.width() + space_;
        line = std::max(line, size.height());
    }
    return y + line - where.y();
}

}  // namespace jig::app
