#include "app/window/walk.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QTimer>

#include "app/theme/ink.hpp"

namespace jig::app {

Walk::Walk(std::vector<WalkStep> steps, QWidget* parent) : QFrame(parent), steps_(std::move(steps)) {
    setObjectName("editor");
    setAccessibleName("The first walk");
    setAttribute(Qt::WA_DeleteOnClose);
    setFixedWidth(static_cast<int>(330 * text_scale()));
    auto* box = new QVBoxLayout(this);
    count_ = new QLabel(this);
    count_->setFont(word_font(9.5));
    text_ = new QLabel(this);
    text_->setObjectName("walk-text");
    text_->setFont(word_font(11));
    text_->setWordWrap(true);
    box->addWidget(count_);
    box->addWidget(text_);
    auto* row = new QHBoxLayout();
    box->addLayout(row);
    back_ = new QPushButton("Back", this);
    next_ = new QPushButton(this);
    next_->setObjectName("walk-next");
    auto* leave = new QPushButton("Leave the walk", this);
    leave->setObjectName("walk-leave");
    row->addWidget(back_);
    row->addWidget(next_);
    row->addStretch();
    row->addWidget(leave);
    connect(back_, &QPushButton::clicked, this, [this] { go(-1); });
    connect(next_, &QPushButton::clicked, this, [this] { go(1); });
    connect(leave, &QPushButton::clicked, this, &QWidget::close);
    // What the note is about is ringed; the ring lets every click through.
    ring_ = new QFrame(parent);
    ring_->setAttribute(Qt::WA_TransparentForMouseEvents);
    ring_->setStyleSheet("background: transparent; border: 3px solid #E2B13C; border-radius: 3px;");
    connect(this, &QObject::destroyed, ring_.data(), &QObject::deleteLater);
    parent->installEventFilter(this);
}

void Walk::begin() {
    at_ = 0;
    go(0);
}

void Walk::go(int by) {
    if (by > 0 && at_ + 1 == steps_.size()) {
        close();
        return;
    }
    at_ = static_cast<std::size_t>(
        std::clamp<int>(static_cast<int>(at_) + by, 0, static_cast<int>(steps_.size()) - 1));
    const auto& step = steps_[at_];
    count_->setText(QString("Note %1 of %2").arg(at_ + 1).arg(steps_.size()));
    text_->setText(step.said);
    back_->setEnabled(at_ > 0);
    next_->setText(at_ + 1 == steps_.size() ? "Done" : "Next");
    emit stage_wanted(step.stage);
    // The stage lays itself out first.
    QTimer::singleShot(0, this, [this] { stand_beside(); });
}

void Walk::stand_beside() {
    adjustSize();
    auto* home = parentWidget();
    const auto* target = steps_[at_].beside ? steps_[at_].beside() : nullptr;
    QRect at(home->rect().center(), QSize(1, 1));
    if (target != nullptr && target->isVisible())
        at = QRect(target->mapTo(home, QPoint(0, 0)), target->size()).intersected(home->rect());
    ring_->setVisible(target != nullptr && target->isVisible());
    ring_->setGeometry(at.adjusted(-3, -3, 3, 3));
    ring_->raise();
    // To the right where there is room, else to the left, else below.
    int x = at.right() + 12, y = at.top();
    if (x + width() > home->width()) x = at.left() - 12 - width();
    if (x < 0) {
        x = std::clamp(at.left(), 8, std::max(8, home->width() - width() - 8));
        y = at.bottom() + 12;
    }
    move(x, std::clamp(y, 8, std::max(8, home->height() - height() - 8)));
    show();
    raise();
    next_->setFocus();
}

void Walk::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape)
        close();
    else
        QFrame::keyPressEvent(event);
}

bool Walk::eventFilter(QObject* watched, QEvent* event) {
    if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible())
        QTimer::singleShot(0, this, [this] { stand_beside(); });
    return QFrame::eventFilter(watched, event);
}

}  // namespace jig::app
