#include "app/window/job_card.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

namespace jig::app {

JobCard::JobCard(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("job-card");
    setAccessibleName("Job card: the thirteen stages");
    setFocusPolicy(Qt::StrongFocus);
    setFixedWidth(192);
}

void JobCard::show_job(const Job& job, const Findings& f, const std::set<Stage>& looked_at, bool stale,
                       const Wording& wording) {
    stale_ = stale;
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        lines_[s] = QString::fromStdString(card_line(job, f, stage, wording));
        auto state = looked_at.count(stage) != 0 ? State::settled : State::unseen;
        for (const auto& call : f.calls) {
            if (call.stage != stage) continue;
            if (call.severity == Severity::stop)
                state = State::stop;
            else if (call.severity == Severity::caution && state != State::stop)
                state = State::caution;
        }
        states_[s] = state;
    }
    update();
}

void JobCard::set_ink(const Ink& ink) {
    ink_ = &ink;
    update();
}

void JobCard::set_stage(Stage stage) {
    stage_ = stage;
    auto& state = states_[static_cast<std::size_t>(stage)];
    if (state == State::unseen) state = State::settled;
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
        case State::settled:
            p.setPen(QPen(ink_->moss, 2));
            p.setBrush(Qt::NoBrush);
            p.drawPolyline(QPolygonF({c + QPointF(-5, 0), c + QPointF(-1.5, 4), c + QPointF(5, -5)}));
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
        const int half = r.height() / 2;
        p.setPen(ink_->ink);
        p.setFont(word_font(12, true));
        p.drawText(QRect(r.left() + 36, r.top() + 4, r.width() - 42, half - 2),
                   Qt::AlignLeft | Qt::AlignVCenter, kStages[s].said);
        p.setPen(stale_ ? ink_->faint : ink_->ink);
        p.setFont(figure_font(9.5));
        const QRect line(r.left() + 36, r.top() + half, r.width() - 42, half - 4);
        p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(lines_[s], Qt::ElideRight, line.width()));
        p.setPen(ink_->rule);
        if (s + 1 < kStages.size()) p.drawLine(r.left() + 12, r.bottom(), r.right() - 12, r.bottom());
    }
    if (hasFocus()) {
        p.setPen(QPen(ink_->tape, 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(row(stage_).adjusted(5, 2, -3, -3));
    }
}

void JobCard::mousePressEvent(QMouseEvent* event) {
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        if (row(static_cast<Stage>(s)).contains(event->position().toPoint()))
            emit stage_wanted(static_cast<Stage>(s));
    }
}

void JobCard::keyPressEvent(QKeyEvent* event) {
    const int now = static_cast<int>(stage_), last = static_cast<int>(kStages.size()) - 1;
    if (event->key() == Qt::Key_Up)
        emit stage_wanted(static_cast<Stage>(std::max(0, now - 1)));
    else if (event->key() == Qt::Key_Down)
        emit stage_wanted(static_cast<Stage>(std::min(last, now + 1)));
    else
        QWidget::keyPressEvent(event);
}

}  // namespace jig::app
