#include "app/charts/chart_view.hpp"

#include <algorithm>
#include <cmath>
#include <QAccessible>
#include <QApplication>
#include <QBoxLayout>
#include <QClipboard>
#include <QGridLayout>
#include <QKeyEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QSplitter>
#include <utility>

namespace jig::app {

PlotView::PlotView(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("plot");
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(150);
}

void PlotView::show_plot(Plot plot, const Ink& ink, const Wording& wording) {
    if (held_) {
        plot.x = plot_.x;
        plot.y = plot_.y;
    }
    if (plot != plot_) read_.reset();
    if (plot.key != plot_.key || plot.grips.size() != plot_.grips.size()) chosen_.reset();
    plot_ = std::move(plot);
    ink_ = &ink;
    wording_ = wording;
    setAccessibleName(plot_.title);
    update();
}

QRectF PlotView::paper() const {
    return QRectF(rect()).adjusted(4, 4, -4, -4);
}

void PlotView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), ink_->paper);
    paint_plot(p, paper(), plot_, *ink_, wording_, read_);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(ink_->ink, 1.4));
    p.setBrush(ink_->sheet);
    for (std::size_t i = 0; i < plot_.grips.size(); ++i) {
        p.setBrush(chosen_ == i ? ink_->tape : ink_->sheet);
        p.drawRect(QRectF(on_screen(plot_.grips[i].at) - QPointF(4, 4), QSizeF(8, 8)));
    }
    if (held_) {
        p.setBrush(ink_->tape);
        const auto area = plot_area(paper(), plot_);
        auto at = on_screen(held_at_);
        at = {std::clamp(at.x(), area.left(), area.right()), std::clamp(at.y(), area.top(), area.bottom())};
        p.drawRect(QRectF(at - QPointF(5, 5), QSizeF(10, 10)));
    }
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 2));
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

void PlotView::read_at(std::optional<double> x) {
    if (x == read_) return;
    read_ = x;
    update();
    if (!x) return;
    tell(reading_of(plot_, *x, wording_));
}

void PlotView::tell(const QString& words) {
    setAccessibleDescription(words);
    QAccessibleEvent told(this, QAccessible::DescriptionChanged);
    QAccessible::updateAccessibility(&told);
}

std::optional<std::size_t> PlotView::grip_near(const QPointF& at) const {
    constexpr double kNear = 12;  // px, half of what a hand hits
    std::optional<std::size_t> out;
    double least = kNear;
    for (std::size_t i = 0; i < plot_.grips.size(); ++i) {
        const double away = QLineF(on_screen(plot_.grips[i].at), at).length();
        if (away >= least) continue;
        least = away;
        out = i;
    }
    return out;
}

void PlotView::mousePressEvent(QMouseEvent* event) {
    const auto grip = grip_near(event->position());
    if (event->button() != Qt::LeftButton || !grip) return QWidget::mousePressEvent(event);
    held_ = grip;
    held_at_ = plot_.grips[*grip].at;
    moved_ = by_key_ = false;
    read_at({});
    update();
}

void PlotView::let_go() {
    const auto grip = *std::exchange(held_, std::nullopt);
    update();
    if (moved_) emit drawn(plot_.key, grip, held_at_, true);
}

void PlotView::choose_grip() {
    if (plot_.grips.empty()) return;
    // Another is not drawn on from where the last one was.
    if (held_ && by_key_) let_go();
    chosen_ = chosen_ ? (*chosen_ + 1) % plot_.grips.size() : 0;
    read_at({});
    tell(plot_.grips[*chosen_].words);
    update();
}

void PlotView::step_grip(const QPointF& steps) {
    if (held_ && !by_key_) return;
    const auto& grip = plot_.grips[*chosen_];
    if (!held_) held_at_ = grip.at;
    held_ = chosen_;
    moved_ = by_key_ = true;
    held_at_ += QPointF(steps.x() * grip.step.x(), steps.y() * grip.step.y());
    tell(QString("%1: %2, %3")
             .arg(grip.words, shown(plot_.x.kind, held_at_.x(), wording_),
                  shown(plot_.y.kind, held_at_.y(), wording_)));
    update();
    emit drawn(plot_.key, *held_, held_at_, false);
}

void PlotView::mouseReleaseEvent(QMouseEvent* event) {
    if (!held_ || event->button() != Qt::LeftButton) return QWidget::mouseReleaseEvent(event);
    let_go();
}

/// A key that is held is one drag, which ends when it is let go.
void PlotView::keyReleaseEvent(QKeyEvent* event) {
    if (held_ && by_key_ && !event->isAutoRepeat()) let_go();
    QWidget::keyReleaseEvent(event);
}

void PlotView::focusOutEvent(QFocusEvent* event) {
    if (held_ && by_key_) let_go();
    QWidget::focusOutEvent(event);
}

/// The stop that is nearest to the pointer; or where it draws a grip to.
void PlotView::mouseMoveEvent(QMouseEvent* event) {
    if (held_ && !by_key_) {
        // Past the axes too: what is drawn longer than all there is has room nowhere else.
        held_at_ = place_at(paper(), plot_, event->position());
        moved_ = true;
        update();
        emit drawn(plot_.key, *held_, held_at_, false);
        return;
    }
    const auto grip = grip_near(event->position());
    setCursor(grip ? Qt::SizeAllCursor : Qt::ArrowCursor);
    setToolTip(grip ? plot_.grips[*grip].words + ": drag it, or choose it by N and move it by the arrows"
                    : QString());
    const auto area = plot_area(paper(), plot_);
    const auto stops = stops_of(plot_);
    if (stops.empty() || !area.adjusted(-4, -4, 4, 4).contains(event->position())) return read_at({});
    const bool named = !plot_.x.places.empty();
    const double low = named ? -0.5 : plot_.x.low,
                 high = named ? static_cast<double>(plot_.x.places.size()) - 0.5 : plot_.x.high;
    const double x = low + (event->position().x() - area.left()) / area.width() * (high - low);
    read_at(*std::min_element(stops.begin(), stops.end(),
                              [&](double a, double b) { return std::abs(a - x) < std::abs(b - x); }));
}

void PlotView::leaveEvent(QEvent*) {
    if (!hasFocus()) read_at({});
}

/// What goes out of sight is let go of: nobody would tell where its button came up.
void PlotView::hideEvent(QHideEvent* event) {
    if (held_) {
        held_.reset();
        emit dropped();
    }
    QWidget::hideEvent(event);
}

void PlotView::walk(int by) {
    const auto stops = stops_of(plot_);
    if (stops.empty()) return;
    const int last = static_cast<int>(stops.size()) - 1;
    if (!read_) return read_at(by > 0 ? stops.front() : stops.back());
    const int now = static_cast<int>(std::lower_bound(stops.begin(), stops.end(), *read_) - stops.begin());
    read_at(stops[static_cast<std::size_t>(std::clamp(now + by, 0, last))]);
}

void PlotView::keyPressEvent(QKeyEvent* event) {
    const int step = event->modifiers() & Qt::ShiftModifier ? 10 : 1, far = 1 << 20;
    if (event->matches(QKeySequence::Copy)) {
        auto* both = new QMimeData;
        both->setText(text_of(plot_, wording_));
        both->setImageData(grab().toImage());
        return QApplication::clipboard()->setMimeData(both);
    }
    switch (event->key()) {
        case Qt::Key_N:
            if (plot_.grips.empty()) break;
            return choose_grip();
        case Qt::Key_Right:
            return chosen_ ? step_grip({1.0 * step, 0}) : walk(step);
        case Qt::Key_Left:
            return chosen_ ? step_grip({-1.0 * step, 0}) : walk(-step);
        case Qt::Key_Up:
            if (!chosen_) break;
            return step_grip({0, 1.0 * step});
        case Qt::Key_Down:
            if (!chosen_) break;
            return step_grip({0, -1.0 * step});
        case Qt::Key_Home:
            return walk(read_ ? -far : 1);
        case Qt::Key_End:
            return walk(read_ ? far : -1);
        case Qt::Key_Escape:
            if (held_) {
                held_.reset();
                update();
                return emit dropped();
            }
            if (chosen_) {
                chosen_.reset();
                return update();
            }
            if (read_) return read_at({});
            break;
        default:
            break;
    }
    QWidget::keyPressEvent(event);
}

ChartView::ChartView(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("chart");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 12, 14, 8);
    auto* both = new QSplitter(Qt::Vertical, this);
    both->setChildrenCollapsible(false);
    days_ = new DaysView(both);
    auto* plots = new QWidget(both);
    grid_ = new QGridLayout(plots);
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setSpacing(12);
    plot_ = new PlotView(plots);
    grid_->addWidget(plot_, 0, 0);
    both->addWidget(days_);
    both->addWidget(plots);
    both->setStretchFactor(0, 3);
    both->setStretchFactor(1, 2);
    column->addWidget(both);
    setFocusProxy(plot_);
    connect(days_, &DaysView::stage_wanted, this, &ChartView::stage_wanted);
}

void ChartView::show_chart(const Job& job, const Findings& f, Stage stage, const Ink& ink,
                           const Wording& wording) {
    ink_ = &ink;
    auto plots = plots_of(job, f, stage, wording);
    days_->setVisible(stage == Stage::run && f.run);
    plot_->setVisible(!plots.empty());
    if (f.run && stage == Stage::run) days_->show_days(*f.run, ink, wording);
    std::erase_if(plots, [](const Plot& p) { return p.aside; });
    // Heat's cures stand beside the sizes, two by two.
    std::vector<Plot> beside;
    if (stage == Stage::heat && plots.size() > 1)
        beside.assign(std::make_move_iterator(plots.begin() + 1), std::make_move_iterator(plots.end()));
    for (std::size_t i = 0; i < std::max(beside.size(), more_.size()); ++i) {
        if (i == more_.size()) {
            more_.push_back(new PlotView(plot_->parentWidget()));
            more_.back()->setObjectName("plot-" + QString::number(i + 1));
            connect(more_.back(), &PlotView::drawn, this, &ChartView::drawn);
            connect(more_.back(), &PlotView::dropped, this, &ChartView::dropped);
            grid_->addWidget(more_.back(), static_cast<int>(i + 1) / 2, static_cast<int>(i + 1) % 2);
        }
        more_[i]->setVisible(i < beside.size());
        if (i < beside.size()) more_[i]->show_plot(std::move(beside[i]), ink, wording);
    }
    if (!plots.empty()) plot_->show_plot(std::move(plots.front()), ink, wording);
    update();
}

void ChartView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), ink_->paper);
    if (plot_->isVisibleTo(this)) return;
    p.setFont(word_font(10.5));
    p.setPen(ink_->faint);
    p.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap,
               "Nothing to draw yet: see the calls of the stages before this one.");
}

}  // namespace jig::app
