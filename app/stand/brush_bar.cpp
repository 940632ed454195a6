#include "app/stand/brush_bar.hpp"

#include <QBoxLayout>
#include <QButtonGroup>
#include <QPainter>
#include <QSlider>
#include <QToolButton>

namespace jig::app {
namespace {

constexpr int kTurn = 0;  // number of the button that only turns the stand; brushes follow it

QIcon swatch(const QColor& colour) {
    QPixmap dot(12, 12);
    dot.fill(Qt::transparent);
    QPainter p(&dot);
    p.setRenderHint(QPainter::Antialiasing);
    p.setBrush(colour);
    p.setPen(Qt::NoPen);
    p.drawEllipse(QRectF(1, 1, 10, 10));
    return QIcon(dot);
}

bool same(const std::vector<Brush>& a, const std::vector<Brush>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const Brush& x, const Brush& y) {
        return x.name == y.name && x.paint == y.paint && x.colour == y.colour;
    });
}

}  // namespace

BrushBar::BrushBar(QWidget* parent) : QWidget(parent) {
    setObjectName("brushes");
    row_ = new QHBoxLayout(this);
    row_->setContentsMargins(0, 0, 0, 0);
    row_->setSpacing(4);
    group_ = new QButtonGroup(this);
    width_ = new QSlider(Qt::Horizontal, this);
    width_->setObjectName("brush-width");
    width_->setAccessibleName("Width of the brush");
    width_->setToolTip("Width of the brush");
    width_->setRange(1, 40);
    width_->setValue(10);
    width_->setFixedWidth(80);
    row_->addWidget(width_);
    connect(group_, &QButtonGroup::idClicked, this, [this] {
        width_->setVisible(brush().has_value());
        adjustSize();
        emit brush_changed();
    });
    connect(width_, &QSlider::valueChanged, this, &BrushBar::brush_changed);
}

void BrushBar::show_brushes(const std::vector<Brush>& brushes, double size) {
    size_ = size;
    setVisible(!brushes.empty());
    const bool unchanged = same(brushes, brushes_);
    // Directions may have changed though the words have not.
    const auto held = std::max(kTurn, group_->checkedId());
    brushes_ = brushes;
    if (unchanged) return;
    for (auto* old : group_->buttons()) {
        group_->removeButton(old);
        old->hide();
        old->deleteLater();
    }
    const auto add = [&](int id, const QString& name, const QIcon& icon, const QString& tip) {
        auto* b = new QToolButton(this);
        b->setObjectName("brush");
        b->setCheckable(true);
        b->setText(name);
        b->setIcon(icon);
        b->setToolButtonStyle(icon.isNull() ? Qt::ToolButtonTextOnly : Qt::ToolButtonTextBesideIcon);
        b->setToolTip(tip);
        group_->addButton(b, id);
        row_->insertWidget(id, b);
        // Shown at once, so that the row's size counts it.
        b->show();
    };
    add(kTurn, "turn", QIcon(), "The left button turns the stand (Esc)");
    for (std::size_t i = 0; i < brushes_.size(); ++i)
        add(static_cast<int>(i) + 1, brushes_[i].name, swatch(brushes_[i].colour),
            "Paint it on the surface with the left button; the right one still shifts the stand. By keys: B "
            "takes it, the arrows lead it, Space paints");
    auto* checked = group_->button(held <= static_cast<int>(brushes_.size()) ? held : kTurn);
    checked->setChecked(true);
    width_->setVisible(brush().has_value());
    adjustSize();
}

std::optional<Brush> BrushBar::brush() const {
    const int id = group_->checkedId();
    if (isHidden() || id <= kTurn) return std::nullopt;
    return brushes_[static_cast<std::size_t>(id - 1)];
}

double BrushBar::reach() const {
    return size_ * width_->value() / 200.0;
}

bool BrushBar::take_next() {
    if (isHidden() || brushes_.empty()) return false;
    const int next = (group_->checkedId() + 1) % (static_cast<int>(brushes_.size()) + 1);
    group_->button(next)->click();
    return true;
}

void BrushBar::widen(int steps) {
    width_->setValue(width_->value() + steps);
}

void BrushBar::put_away() {
    if (auto* turn = group_->button(kTurn)) turn->click();
}

}  // namespace jig::app
