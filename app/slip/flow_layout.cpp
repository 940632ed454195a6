#include "app/slip/flow_layout.hpp"

#include <QFontMetrics>
#include <QPainter>
#include <QPaintEvent>

namespace jig::app {

FlowWord::FlowWord(QString text, const QFont& font) : text_(std::move(text)) {
    const QFontMetrics metrics(font);
    size_ = QSize(metrics.horizontalAdvance(text_), metrics.height());
}

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
    // A comma or full stop stays with the word before it, which leaves room for it.
    const auto stop = [&](qsizetype i) -> const FlowWord* {
        const auto* word = dynamic_cast<const FlowWord*>(items_.value(i));
        return word != nullptr && QString(".,;:").contains(word->text().front()) ? word : nullptr;
    };
    int x = where.x(), y = where.y(), line = 0;
    for (qsizetype i = 0; i < items_.size(); ++i) {
        auto* item = items_[i];
        const auto* next = stop(i + 1);
        const int after = next != nullptr ? next->sizeHint().width() : 0;
        auto size = item->sizeHint();
        if (size.width() + after > where.width()) {
            size.setWidth(where.width() - after);
            if (item->hasHeightForWidth()) size.setHeight(item->heightForWidth(size.width()));
        }
        const bool closing = stop(i) != nullptr;
        if (closing) x -= space_;
        if (!closing && x + size.width() + after > where.right() + 1 && x > where.x()) {
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

FlowLine::FlowLine(const QFont& font, QWidget* parent)
    : QWidget(parent), font_(font), flow_(new FlowLayout(this)) {}

void FlowLine::add_words(const QString& words) {
    // Word by word, so that lines break between them.
    for (const auto& word : words.split(' ', Qt::SkipEmptyParts)) flow_->addItem(new FlowWord(word, font_));
}

void FlowLine::paintEvent(QPaintEvent* event) {
    QPainter p(this);
    p.setFont(font_);
    p.setPen(palette().color(foregroundRole()));
    for (int i = 0; i < flow_->count(); ++i) {
        const auto* word = dynamic_cast<const FlowWord*>(flow_->itemAt(i));
        if (word != nullptr && word->geometry().intersects(event->rect()))
            p.drawText(word->geometry(), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextSingleLine, word->text());
    }
}

}  // namespace jig::app
