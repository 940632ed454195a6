#include "app/window/offer.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QFileInfo>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

namespace jig::app {
namespace {

QString said(const Leftover& left) {
    return QString("%1, at %2, kept %3%4")
        .arg(left.job, name_of(left.stage).said, left.kept.toString("d MMM, HH:mm"),
             left.origin.isEmpty() ? QString(", never saved")
                                   : QString(", of %1").arg(QFileInfo(left.origin).fileName()));
}

}  // namespace

Offer::Offer(QWidget* parent) : QWidget(parent) {
    setObjectName("offer");
    auto* line = new QHBoxLayout(this);
    line->setContentsMargins(12, 6, 12, 6);
    auto* words = new QLabel("Jig Shell ended without saving.\nThis was kept:", this);
    list_ = new QListWidget(this);
    list_->setObjectName("leftovers");
    list_->setAccessibleName("Work that was kept");
    auto* take = new QPushButton("Take it up", this);
    take->setObjectName("take-up");
    drop_ = new QPushButton("Throw it away", this);
    drop_->setObjectName("throw-away");
    auto* later = new QPushButton("Later", this);
    later->setObjectName("later");
    line->addWidget(words);
    line->addWidget(list_, 1);
    for (auto* button : {take, drop_, later}) line->addWidget(button);
    connect(take, &QPushButton::clicked, this, [this] {
        if (const auto* left = chosen()) emit take_up_wanted(Leftover(*left));
    });
    // Thrown away is gone: it takes a second press.
    connect(drop_, &QPushButton::clicked, this, [this] {
        const auto* left = chosen();
        if (left == nullptr) return;
        if (drop_->text() == "Throw it away") {
            drop_->setText("Really: it is gone then");
            return;
        }
        Recovery::throw_away(*left);
        look_into(recovery_);
    });
    connect(list_, &QListWidget::currentRowChanged, this, [this] { drop_->setText("Throw it away"); });
    connect(later, &QPushButton::clicked, this, &QWidget::hide);
    hide();
}

const Leftover* Offer::chosen() const {
    const int row = list_->currentRow();
    return row >= 0 && row < leftovers_.size() ? &leftovers_[row] : nullptr;
}

bool Offer::look_into(const QString& recovery) {
    recovery_ = recovery;
    leftovers_ = Recovery::leftovers(recovery);
    list_->clear();
    for (const auto& left : leftovers_) list_->addItem(said(left));
    list_->setCurrentRow(0);
    drop_->setText("Throw it away");
    const auto rows = std::clamp<int>(static_cast<int>(leftovers_.size()), 1, 4);
    list_->setFixedHeight(rows * std::max(24, list_->sizeHintForRow(0)) + 8);
    setVisible(!leftovers_.isEmpty());
    return !leftovers_.isEmpty();
}

}  // namespace jig::app
