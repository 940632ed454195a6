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

namespace jig::app {

PlotView::PlotView(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("plot");
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(150);
}

void PlotView::show_plot(Plot plot, const Ink& ink, const Wording& wording) {
    if (plot != plot_) read_.reset();
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
    setAccessibleDescription(reading_of(plot_, *x, wording_));
    QAccessibleEvent told(this, QAccessible::DescriptionChanged);
    QAccessible::updateAccessibility(&told);
}

/// The stop that is nearest to the pointer.
void PlotView::mouseMoveEvent(QMouseEvent* event) {
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
        case Qt::Key_Right:
            return walk(step);
        case Qt::Key_Left:
            return walk(-step);
        case Qt::Key_Home:
            return walk(read_ ? -far : 1);
        case Qt::Key_End:
            return walk(read_ ? far : -1);
        case Qt::Key_Escape:
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
