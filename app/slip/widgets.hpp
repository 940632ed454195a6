// Small things that the slip's parts share.
#pragma once

#include <QLabel>
#include <QLayout>
#include <QWidget>

namespace jig::app {

/// Takes everything out of a layout. Widgets go when the event that clears them has been dealt with.
inline void clear_layout(QLayout* layout) {
    while (auto* item = layout->takeAt(0)) {
        if (auto* widget = item->widget()) {
            widget->hide();
            widget->deleteLater();
        }
        if (item->layout() != nullptr) clear_layout(item->layout());
        delete item;
    }
}

inline QLabel* wrapped(const QString& text, QWidget* parent, const QFont& font) {
    auto* label = new QLabel(text, parent);
    label->setWordWrap(true);
    label->setFont(font);
    return label;
}

}  // namespace jig::app
