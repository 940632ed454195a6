#include "app/slip/sheet_head.hpp"

#include <QLabel>
#include <QPushButton>

#include "app/theme/ink.hpp"

namespace jig::app {

QVBoxLayout* page_with_head(QWidget* page, const SheetHead& head) {
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(14, 10, 10, 10);
    auto* row = new QHBoxLayout();
    auto* name = new QLabel(head.name, page);
    name->setFont(word_font(12, true));
    auto* close = new QPushButton("Back to the stand", page);
    close->setObjectName(head.key + "-close");
    QObject::connect(close, &QPushButton::clicked, page, head.close);
    row->addWidget(name);
    row->addStretch();
    row->addWidget(close);
    box->addLayout(row);
    if (head.old.isEmpty()) return box;
    auto* told = new QHBoxLayout();
    auto* words = new QLabel(head.old, page);
    words->setObjectName(head.key + "-old");
    auto* renew = new QPushButton(head.renew_words, page);
    renew->setObjectName(head.key + "-renew");
    QObject::connect(renew, &QPushButton::clicked, page, head.renew);
    told->addWidget(words);
    told->addWidget(renew);
    told->addStretch();
    box->addLayout(told);
    return box;
}

}  // namespace jig::app
