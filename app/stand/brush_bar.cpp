#include "app/stand/brush_bar.hpp"

#include <algorithm>
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
        return x.name == y.name && x.paint == y.paint && x.colour == y.colour && x.zone == y.zone;
    });
}

/// Whether a brush that was in hand goes on as another: its zone may have another name, have been begun by
/// its first stroke, or not be begun any more.
bool stays(const Brush& held, const Brush& other) {
    if (held.paint != other.paint) return false;
    return held.paint == Paint::given ? held.name == other.name
                                      : !held.zone || !other.zone || held.zone == other.zone;
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
    const auto in_hand = brush();
    // Directions may have changed though the words have not.
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
    const auto kept = std::find_if(brushes_.begin(), brushes_.end(),
                                   [&](const Brush& b) { return in_hand && stays(*in_hand, b); });
    group_->button(kept == brushes_.end() ? kTurn : 1 + static_cast<int>(kept - brushes_.begin()))
        ->setChecked(true);
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
