#include "app/charts/days.hpp"

#include <algorithm>
#include <cmath>
#include <QAccessible>
#include <QApplication>
#include <QClipboard>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QScrollBar>
#include <QToolTip>

#include "core/base/times.hpp"

namespace jig::app {
namespace {

double head_height() {
    return 20 * text_scale();
}

/// Rows below this are not legible.
double least_line() {
    return 20 * text_scale();
}

double hours_of(const DayRow& row) {
    double sum = 0;
    for (const auto& bar : row.bars) sum += bar.to - bar.from;
    return sum;
}

Stage stage_of(const std::string& key) {
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        if (key == kStages[s].key) return static_cast<Stage>(s);
    }
    return Stage::run;
}

}  // namespace

std::vector<DayRow> day_rows(const run::Findings& run, const Wording& w) {
    std::vector<DayRow> rows;
    std::vector<std::size_t> row_of;
    for (const auto& t : run.tasks) {
        auto name = QString::fromStdString(worded(t.name, w));
        if (const auto on = name.indexOf(", on the "); t.stage == "release" && on >= 0)
            name = "release " + name.mid(on + 2);
        else if (t.name.find(", pass ") != std::string::npos)
            name = name.left(name.indexOf(", pass "));
        else if (t.name.find(", grit ") != std::string::npos)
            name = name.left(name.indexOf(", grit "));
        if (rows.empty() || rows.back().name != name)
            rows.push_back({name, stage_of(t.stage), t.people, {}, {}});
        rows.back().people = std::max(rows.back().people, t.people);
        row_of.push_back(rows.size() - 1);
        const auto number = row_of.size() - 1;
        if (number >= run.looks.size()) continue;
        for (const auto& look : run.looks[number]) {
            const auto words = QString::fromStdString(worded(look, w));
            if (!rows.back().looks.contains(words)) rows.back().looks << words;
        }
    }
    // A task's wait begins when the last of its stretches ends.
    std::vector<double> end(run.tasks.size(), 0);
    for (const auto& b : run.plan.bookings) end[b.task] = std::max(end[b.task], b.to);
    for (const auto& b : run.plan.bookings)
        rows[row_of[b.task]].bars.push_back({b.from, b.to, b.to == end[b.task] ? run.tasks[b.task].wait : 0});
    return rows;
}

QString words_of(const DayRow& row, const Wording& w) {
    if (row.bars.empty()) return row.name;
    return QString("%1: %2 to %3, %4%5")
        .arg(row.name, QString::fromStdString(clock_words(row.bars.front().from)),
             QString::fromStdString(clock_words(row.bars.back().to)),
             QString::fromStdString(show(Kind::hours, hours_of(row), w)),
             (row.people > 1 ? QString(" for %1").arg(row.people) : QString()) +
                 (row.looks.isEmpty() ? QString() : ". Before going on: " + row.looks.join("; ")));
}

QString text_of(const std::vector<DayRow>& rows, const Wording& w) {
    QString out = "work\tfrom\tto\thours\thands\tthen wait\n";
    for (const auto& row : rows) {
        for (const auto& bar : row.bars)
            out += QStringList{row.name,
                               QString::fromStdString(clock_words(bar.from)),
                               QString::fromStdString(clock_words(bar.to)),
                               QString::fromStdString(show_for_edit(Kind::hours, bar.to - bar.from, w)),
                               QString::number(row.people),
                               bar.wait > 0 ? QString::fromStdString(show(Kind::duration, bar.wait, w))
                                            : QString()}
                       .join("\t") +
                   "\n";
    }
    return out;
}

void paint_days(QPainter& p, const QRectF& where, const std::vector<DayRow>& rows, int days, const Ink& k,
                double line, double scrolled, int lit) {
    p.save();
    const double names = std::min(300.0 * text_scale(), where.width() * 0.40), head = head_height();
    const QRectF area(where.left() + names, where.top() + head, where.width() - names - 8,
                      where.height() - head);
    const auto x = [&](double s) { return area.left() + s / kDay / std::max(1, days) * area.width(); };
    p.setFont(figure_font(8.5));
    const double day_wide = area.width() / std::max(1, days);
    const int every =
        std::max(1, static_cast<int>(std::ceil(p.fontMetrics().horizontalAdvance("000") / day_wide)));
    for (int d = 0; d < days; ++d) {
        const QRectF day(x(d * kDay), area.top(), day_wide, area.height());
        p.fillRect(day, d % 2 ? k.paper : k.sheet);
        p.setPen(k.rule);
        p.drawLine(day.topLeft(), day.bottomLeft());
        p.setPen(k.faint);
        if (d % every == 0)
            p.drawText(QRectF(day.left(), where.top(), std::max(day_wide, day_wide * every), head),
                       every > 1 ? Qt::AlignLeft | Qt::AlignVCenter : Qt::AlignCenter,
                       QString::number(d + 1));
    }
    p.setFont(word_font(9.5));
    p.drawText(QRectF(where.left(), where.top(), names - 8, head), Qt::AlignVCenter | Qt::AlignRight, "day");
    p.setClipRect(QRectF(where.left(), area.top(), where.width(), area.height()));
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const double y = area.top() + line * static_cast<double>(r) - scrolled;
        if (y + line < area.top() || y > area.bottom()) continue;
        if (static_cast<int>(r) == lit) {
            auto glow = k.tape;
            glow.setAlpha(70);
            p.fillRect(QRectF(where.left(), y, where.width() - 8, line), glow);
        }
        p.setPen(k.rule);
        p.drawLine(QPointF(where.left(), y + line), QPointF(area.right(), y + line));
        p.setPen(k.ink);
        p.drawText(QRectF(where.left(), y, names - 8, line), Qt::AlignVCenter | Qt::AlignLeft,
                   p.fontMetrics().elidedText(rows[r].name, Qt::ElideRight, static_cast<int>(names) - 10));
        for (const auto& bar : rows[r].bars) {
            if (bar.wait > 0) {
                p.setPen(QPen(k.tape.darker(115), 1.6));
                p.drawLine(QPointF(x(bar.to), y + line / 2), QPointF(x(bar.to + bar.wait), y + line / 2));
            }
            p.fillRect(
                QRectF(x(bar.from), y + line * 0.2, std::max(2.0, x(bar.to) - x(bar.from)), line * 0.6),
                k.petrol);
        }
    }
    p.restore();
}

DaysView::DaysView(QWidget* parent) : QAbstractScrollArea(parent), ink_(&app::ink(Light::day)) {
    setObjectName("days");
    setAccessibleName("Day plan");
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
}

void DaysView::show_days(const run::Findings& run, const Ink& ink, const Wording& wording) {
    rows_ = day_rows(run, wording);
    days_ = run.plan.days;
    title_ = days_ == 1 ? QString("Day plan: 1 day to the first part")
                        : QString("Day plan: %1 days to the first part").arg(days_);
    ink_ = &ink;
    wording_ = wording;
    lit_ = std::min(lit_, static_cast<int>(rows_.size()) - 1);
    renew_bar();
    viewport()->update();
}

double DaysView::line() const {
    const double room = viewport()->height() - 24 * text_scale() - head_height();
    const double even = rows_.empty() ? 0 : room / static_cast<double>(rows_.size());
    return std::clamp(even, least_line(), 1.5 * least_line());
}

void DaysView::renew_bar() {
    const double room = viewport()->height() - 24 * text_scale() - head_height();
    const double all = line() * static_cast<double>(rows_.size());
    verticalScrollBar()->setRange(0, static_cast<int>(std::ceil(std::max(0.0, all - room))));
    verticalScrollBar()->setPageStep(static_cast<int>(std::max(1.0, room)));
    verticalScrollBar()->setSingleStep(static_cast<int>(line()));
}

void DaysView::resizeEvent(QResizeEvent*) {
    renew_bar();
}

void DaysView::paintEvent(QPaintEvent*) {
    QPainter p(viewport());
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(viewport()->rect(), ink_->paper);
    p.setFont(word_font(11, true));
    p.setPen(ink_->ink);
    p.drawText(viewport()->rect(), Qt::AlignLeft | Qt::AlignTop, title_);
    paint_days(p, QRectF(viewport()->rect()).adjusted(0, 24 * text_scale(), 0, 0), rows_, days_, *ink_,
               line(), verticalScrollBar()->value(), lit_);
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 2));
        p.drawRect(viewport()->rect().adjusted(1, 1, -1, -1));
    }
}

int DaysView::row_at(double y) const {
    const double into = y - 24 * text_scale() - head_height() + verticalScrollBar()->value();
    const int row = static_cast<int>(std::floor(into / line()));
    return y > 24 * text_scale() + head_height() && row >= 0 && row < static_cast<int>(rows_.size()) ? row
                                                                                                     : -1;
}

void DaysView::light_up(int row) {
    lit_ = row;
    viewport()->update();
    if (row < 0) return;
    const double top = line() * row;
    auto* bar = verticalScrollBar();
    if (top < bar->value()) bar->setValue(static_cast<int>(top));
    if (top + line() > bar->value() + bar->pageStep())
        bar->setValue(static_cast<int>(std::ceil(top + line() - bar->pageStep())));
    setAccessibleDescription(words_of(rows_[static_cast<std::size_t>(row)], wording_));
    QAccessibleEvent told(this, QAccessible::DescriptionChanged);
    QAccessible::updateAccessibility(&told);
}

void DaysView::mouseMoveEvent(QMouseEvent* event) {
    const int row = row_at(event->position().y());
    if (row >= 0)
        QToolTip::showText(event->globalPosition().toPoint(),
                           words_of(rows_[static_cast<std::size_t>(row)], wording_), this);
    else
        QToolTip::hideText();
}

void DaysView::mousePressEvent(QMouseEvent* event) {
    light_up(row_at(event->position().y()));
}

void DaysView::mouseDoubleClickEvent(QMouseEvent* event) {
    const int row = row_at(event->position().y());
    if (row >= 0) emit stage_wanted(rows_[static_cast<std::size_t>(row)].stage);
}

/// Up and Down walk the rows, Enter goes to where one is decided, Ctrl+C copies the plan.
void DaysView::keyPressEvent(QKeyEvent* event) {
    const int last = static_cast<int>(rows_.size()) - 1;
    if (event->matches(QKeySequence::Copy))
        return QApplication::clipboard()->setText(text_of(rows_, wording_));
    switch (event->key()) {
        case Qt::Key_Down:
            return light_up(std::min(lit_ + 1, last));
        case Qt::Key_Up:
            return light_up(last < 0 ? -1 : std::max(lit_ - 1, 0));
        case Qt::Key_Home:
            return light_up(last < 0 ? -1 : 0);
        case Qt::Key_End:
            return light_up(last);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (lit_ >= 0) emit stage_wanted(rows_[static_cast<std::size_t>(lit_)].stage);
            return;
        default:
            break;
    }
    QAbstractScrollArea::keyPressEvent(event);
}

}  // namespace jig::app
