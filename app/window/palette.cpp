#include "app/window/palette.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>

#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

/// Every typed piece must occur; names that start with it come first. Negative: no match.
int rank(const QString& name, const QStringList& pieces) {
    int score = 0;
    for (const auto& piece : pieces) {
        const auto at = name.indexOf(piece, 0, Qt::CaseInsensitive);
        if (at < 0) return -1;
        score += at == 0 ? 0 : name[at - 1].isLetter() ? 8 : 3;
    }
    return score * 100 + static_cast<int>(name.size());
}

}  // namespace

Palette::Palette(std::vector<Findable> all, const QString& hint, int most, QWidget* parent)
    : QFrame(parent, Qt::Popup), all_(std::move(all)), most_(most) {
    setObjectName("editor");
    setAttribute(Qt::WA_DeleteOnClose);
    auto* box = new QVBoxLayout(this);
    field_ = new QLineEdit(this);
    field_->setObjectName("palette-field");
    field_->setPlaceholderText(hint);
    field_->setAccessibleName(hint);
    list_ = new QListWidget(this);
    list_->setObjectName("palette-list");
    list_->setFocusPolicy(Qt::NoFocus);
    box->addWidget(field_);
    box->addWidget(list_);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textChanged, this, &Palette::filter);
    connect(field_, &QLineEdit::returnPressed, this, &Palette::take);
    connect(list_, &QListWidget::itemClicked, this, &Palette::take);
    filter({});
}

void Palette::open() {
    const int wide = std::min(parentWidget()->width() - 40, static_cast<int>(560 * text_scale()));
    resize(wide, std::min(parentWidget()->height() - 80, 440));
    move(parentWidget()->mapToGlobal(QPoint((parentWidget()->width() - wide) / 2, 44)));
    show();
    field_->setFocus();
}

void Palette::filter(const QString& text) {
    std::vector<std::pair<int, std::size_t>> found;
    const auto pieces = text.split(' ', Qt::SkipEmptyParts);
    for (std::size_t i = 0; i < all_.size(); ++i) {
        const int r = rank(all_[i].name, pieces);
        if (r >= 0) found.emplace_back(pieces.isEmpty() ? static_cast<int>(i) : r, i);
    }
    std::sort(found.begin(), found.end());
    list_->clear();
    shown_.clear();
    for (const auto& [r, i] : found) {
        if (static_cast<int>(shown_.size()) >= most_) break;
        shown_.push_back(i);
        list_->addItem(all_[i].name + "    · " + all_[i].kind);
        list_->item(list_->count() - 1)->setToolTip(all_[i].name);
    }
    if (shown_.empty()) list_->addItem("nothing of that name");
    list_->setCurrentRow(0);
}

void Palette::take() {
    const int row = list_->currentRow();
    if (row < 0 || row >= static_cast<int>(shown_.size())) return;
    const auto go = all_[shown_[static_cast<std::size_t>(row)]].go;
    close();
    go();
}

bool Palette::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            const int n = std::max(1, list_->count());
            list_->setCurrentRow((list_->currentRow() + (key == Qt::Key_Down ? 1 : n - 1)) % n);
            return true;
        }
    }
    return QFrame::eventFilter(watched, event);
}

}  // namespace jig::app
