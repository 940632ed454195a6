#include "app/window/job_card.hpp"

#include <cmath>

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace jig::app {
namespace {

constexpr int kMarkRoom = 34;  ///< pixels at the left that the mark has for itself

}  // namespace

JobCard::JobCard(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("job-card");
    setAccessibleName("Job card: the thirteen stages");
    setFocusPolicy(Qt::StrongFocus);
    setFixedWidth(192);
}

void JobCard::show_job(const Job& job, const Findings& f, const std::set<Stage>& looked_at,
                       const std::set<Stage>& settled, bool stale, const Wording& wording) {
    stale_ = stale;
    settled_ = settled;
    setFixedWidth(static_cast<int>(192 * std::sqrt(text_scale())));
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        lines_[s] = QString::fromStdString(card_line(job, f, stage, wording));
        auto state = settled.count(stage) != 0     ? State::settled
                     : looked_at.count(stage) != 0 ? State::seen
                                                   : State::unseen;
        for (const auto& call : f.calls) {
            if (call.stage != stage) continue;
            if (call.severity == Severity::stop)
                state = State::stop;
            else if (call.severity == Severity::caution && state != State::stop)
                state = State::caution;
        }
        states_[s] = state;
    }
    name_it();
    update();
}

QString JobCard::mark_of(Stage stage) const {
    const auto state = states_[static_cast<std::size_t>(stage)];
    const QString tick = settled_.count(stage) != 0 ? ", settled" : "";
    switch (state) {
        case State::unseen:
            return "not looked at";
        case State::seen:
            return "looked at";
        case State::settled:
            return "settled";
        case State::caution:
            return "caution" + tick;
        case State::stop:
            return "stop" + tick;
    }
    return {};
}

void JobCard::name_it() {
    const auto s = static_cast<std::size_t>(stage_);
    setAccessibleName(QString("Job card, stage %1 of %2: %3, %4, %5")
                          .arg(s + 1)
                          .arg(kStages.size())
                          .arg(kStages[s].said, lines_[s], mark_of(stage_)));
}

/// Each line tells its whole text and its mark on hover.
bool JobCard::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        for (std::size_t s = 0; s < kStages.size(); ++s) {
            const auto stage = static_cast<Stage>(s);
            if (!row(stage).contains(help->pos())) continue;
            QToolTip::showText(help->globalPos(),
                               QString("%1: %2\n%3; a click on the mark settles it or opens it again")
                                   .arg(kStages[s].said, lines_[s], mark_of(stage)),
                               this, row(stage));
            return true;
        }
    }
    return QWidget::event(event);
}

void JobCard::set_ink(const Ink& ink) {
    ink_ = &ink;
    update();
}

void JobCard::set_stage(Stage stage) {
    stage_ = stage;
    auto& state = states_[static_cast<std::size_t>(stage)];
    if (state == State::unseen) state = State::seen;
    name_it();
    update();
}

QRect JobCard::row(Stage stage) const {
    const int top = 8, tall = std::min(60, (height() - 16) / static_cast<int>(kStages.size()));
    return {0, top + tall * static_cast<int>(stage), width(), tall};
}

void JobCard::paint_mark(QPainter& p, const QRectF& at, State state) const {
    const auto c = at.center();
    switch (state) {
        case State::unseen:
            p.setPen(QPen(ink_->faint, 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(c, 4.5, 4.5);
            break;
        case State::seen:
            p.setPen(QPen(ink_->faint, 1.4));
            p.setBrush(Qt::NoBrush);
            p.drawPolyline(QPolygonF({c + QPointF(-4, 0), c + QPointF(-1, 3.5), c + QPointF(4, -4)}));
            break;
        case State::settled:
            p.setPen(Qt::NoPen);
            p.setBrush(ink_->moss);
            p.drawEllipse(c, 8, 8);
            p.setPen(QPen(ink_->sheet, 2));
            p.setBrush(Qt::NoBrush);
            p.drawPolyline(QPolygonF({c + QPointF(-4, 0), c + QPointF(-1, 3.5), c + QPointF(4, -3.5)}));
            break;
        case State::caution:
            p.setPen(Qt::NoPen);
            p.setBrush(ink_->clay);
            p.drawPolygon(QPolygonF({c + QPointF(-6, 5), c + QPointF(6, 5), c + QPointF(6, -5)}));
            break;
        case State::stop:
            p.fillRect(QRectF(c.x() - 6, c.y() - 2.5, 12, 5), ink_->oxide);
            break;
    }
}

void JobCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), ink_->sheet);
    p.setPen(ink_->rule);
    p.drawLine(rect().topRight(), rect().bottomRight());
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        const QRect r = row(stage);
        if (stage == stage_) {
            p.fillRect(r.adjusted(0, 1, -1, -1), ink_->paper);
            p.fillRect(QRect(r.left(), r.top() + 1, 4, r.height() - 2), ink_->tape);
        }
        paint_mark(p, QRectF(r.left() + 10, r.top(), 20, r.height()), states_[s]);
        // Settled in spite of a call: the tick stands behind the line.
        if (settled_.count(stage) != 0 && states_[s] != State::settled)
            paint_mark(p, QRectF(r.right() - 24, r.top(), 20, r.height()), State::settled);
        const QRect room = r.adjusted(36, 2, -6, -3);
        const QFontMetrics name(word_font(12, true)), figure(figure_font(9.5));
        // Two lines where there is room for two; else the figure goes on behind the name.
        const bool two = name.height() + figure.height() <= room.height() + 6;
        const int upper =
            two ? room.height() * name.height() / (name.height() + figure.height()) : room.height();
        const int wide = std::min(name.horizontalAdvance(kStages[s].said), room.width());
        p.setPen(ink_->ink);
        p.setFont(word_font(12, true));
        p.drawText(QRect(room.topLeft(), QSize(room.width(), upper)), Qt::AlignLeft | Qt::AlignVCenter,
                   name.elidedText(kStages[s].said, Qt::ElideRight, room.width()));
        p.setPen(stale_ ? ink_->faint : ink_->ink);
        p.setFont(figure_font(9.5));
        const QRect line = two ? room.adjusted(0, upper, 0, 0) : room.adjusted(wide + 10, 0, 0, 0);
        if (line.width() > 30)
            p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
                       figure.elidedText(lines_[s], Qt::ElideRight, line.width()));
        p.setPen(ink_->rule);
        if (s + 1 < kStages.size()) p.drawLine(r.left() + 12, r.bottom(), r.right() - 12, r.bottom());
    }
    if (hasFocus()) {
        p.setPen(QPen(ink_->ink, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(row(stage_).adjusted(7, 3, -4, -4));
    }
}

void JobCard::mousePressEvent(QMouseEvent* event) {
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        if (!row(stage).contains(event->position().toPoint())) continue;
        const bool again = event->position().x() < kMarkRoom && stage == stage_;
        emit stage_wanted(stage);
        if (again) emit settle_wanted(stage);
    }
}

void JobCard::keyPressEvent(QKeyEvent* event) {
    const int now = static_cast<int>(stage_), last = static_cast<int>(kStages.size()) - 1;
    if (event->key() == Qt::Key_Up)
        emit stage_wanted(static_cast<Stage>(std::max(0, now - 1)));
    else if (event->key() == Qt::Key_Down)
        emit stage_wanted(static_cast<Stage>(std::min(last, now + 1)));
    else if (event->key() == Qt::Key_Home)
        emit stage_wanted(Stage::brief);
    else if (event->key() == Qt::Key_End)
        emit stage_wanted(static_cast<Stage>(last));
    else if (event->key() == Qt::Key_Space)
        emit settle_wanted(stage_);
    else
        QWidget::keyPressEvent(event);
}

}  // namespace jig::app
