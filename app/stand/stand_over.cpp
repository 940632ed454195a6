// What lies over the stand's surfaces: lines, dimensions, captions, handles, fittings and the brush.
#include <algorithm>
#include <cmath>

#include <QPainter>

#include "app/stand/dimensions.hpp"
#include "app/stand/stand.hpp"

namespace jig::app {

void Stand::paint_brush(QPainter& p) const {
    const auto brush = brushes_->brush();
    if (!brush) return;
    const auto m = camera_.matrix(size());
    // A touch is drawn as the ball that it is, seen from here.
    const auto ball = [&](const Point& at) {
        const double step = brushes_->reach();
        const Point right(std::cos(camera_.yaw), std::sin(camera_.yaw), 0);
        const auto middle = Camera::project(m, at, size());
        const double r = QLineF(middle, Camera::project(m, at + step * right, size())).length();
        p.drawEllipse(middle, r, r);
    };
    auto wash = brush->colour;
    wash.setAlpha(90);
    p.setPen(Qt::NoPen);
    p.setBrush(wash);
    for (const auto& touch : stroke_) ball(touch.shown);
    if (const auto under = touched(scene_, camera_, size(), mouse_)) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 1.4));
        ball(under->shown);
    } else if (led_ && hasFocus()) {
        // Beside the thing there is nothing to paint, but keys must lead it back from somewhere.
        p.setPen(QPen(ink_->ink, 1.4));
        p.drawLine(mouse_ - QPointF(6, 0), mouse_ + QPointF(6, 0));
        p.drawLine(mouse_ - QPointF(0, 6), mouse_ + QPointF(0, 6));
    }
}

/// Each kind has a shape of its own, so that none is told by colour alone.
void Stand::paint_marks(QPainter& p) const {
    const auto m = camera_.matrix(size());
    for (const auto& mark : scene_.marks) {
        const auto c = Camera::project(m, mark.at, size());
        // Behind the thing itself they are only hinted at. While it turns there is no time to ask.
        p.setOpacity(!turning_ && hidden(scene_, camera_, mark.at) ? 0.25 : 1);
        p.setPen(QPen(ink_->ink, 1.4));
        p.setBrush(mark.number >= 0 && mark.number == mark_ ? ink_->tape : ink_->sheet);
        switch (mark.kind) {
            case Fitting::bolt:
                p.drawEllipse(c, 4, 4);
                break;
            case Fitting::dowel:
                p.setBrush(ink_->ink);
                p.drawEllipse(c, 4, 4);
                break;
            case Fitting::bush:
                p.drawEllipse(c, 5, 5);
                p.drawPoint(c);
                break;
            case Fitting::wedge:
                p.drawPolygon(QPolygonF({c + QPointF(-5, 4), c + QPointF(5, 4), c + QPointF(5, -4)}));
                break;
            case Fitting::jack:
                p.drawEllipse(c, 5, 5);
                p.drawLine(c - QPointF(5, 0), c + QPointF(5, 0));
                p.drawLine(c - QPointF(0, 5), c + QPointF(0, 5));
                break;
            case Fitting::port:
                p.drawEllipse(c, 6, 6);
                p.drawEllipse(c, 3, 3);
                break;
            case Fitting::feed:
                p.drawRect(QRectF(c - QPointF(4, 4), QSizeF(8, 8)));
                break;
        }
        if (!mark.caption.isEmpty()) {
            p.setFont(figure_font(9));
            const QPointF at = c + QPointF(7, 12);
            auto ground = ink_->paper;
            ground.setAlpha(225);
            p.fillRect(
                QRectF(p.fontMetrics().boundingRect(mark.caption)).translated(at).adjusted(-3, 0, 3, 0),
                ground);
            p.drawText(at, mark.caption);
        }
    }
    p.setOpacity(1);
}

void Stand::paint_over(QPainter& p) const {
    p.setRenderHint(QPainter::Antialiasing);
    const auto m = camera_.matrix(size());
    const auto at = [&](const Point& q) { return Camera::project(m, q, size()); };
    // OpenGL draws lines itself, behind what hides them.
    for (const auto& line : opengl_ ? std::vector<SceneLine>() : scene_.lines) {
        QPolygonF path;
        for (const auto& q : line.points) path << at(q);
        p.setPen(QPen(line.colour, line.width, line.dashed ? Qt::DashLine : Qt::SolidLine));
        p.drawPolyline(path);
    }
    p.setFont(figure_font(9.5));
    std::vector<QRectF> taken;
    const auto tag = [&](const QPointF& where, const QString& text) {
        QRectF box(QPointF(0, 0),
                   QSizeF(p.fontMetrics().horizontalAdvance(text) + 8, p.fontMetrics().height()));
        box.moveCenter(where);
        // What would lie over another is left out: turning the stand brings it back.
        if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& r) { return r.intersects(box); }))
            return;
        taken.push_back(box);
        auto ground = ink_->paper;
        ground.setAlpha(225);
        p.fillRect(box, ground);
        p.setPen(ink_->ink);
        p.drawText(box, Qt::AlignCenter, text);
    };
    for (const auto& d : dimensions_in(scene_, camera_, size())) {
        const QPointF a = d.line.p1(), b = d.line.p2();
        p.setPen(QPen(ink_->faint, 1));
        p.drawLine(d.line);
        for (const auto& leader : d.leaders) p.drawLine(leader);
        // End ticks at 45° to the line, as on a draughted sheet.
        const QPointF unit = (b - a) / d.line.length(), tick(unit.x() - unit.y(), unit.y() + unit.x());
        p.setPen(QPen(ink_->ink, 1.4));
        p.drawLine(a - 4 * tick, a + 4 * tick);
        p.drawLine(b - 4 * tick, b + 4 * tick);
        tag((a + b) / 2, d.text);
    }
    // The last to be put down say most: arrows after contours.
    for (auto label = scene_.labels.rbegin(); label != scene_.labels.rend(); ++label)
        tag(at(label->at), label->text);
    // A plane that can be drawn along, and the handle that it is drawn by.
    const auto drawable = [&](const QPolygonF& frame, const QPointF& grip, const QColor& colour,
                              const QColor& edge, int alpha, const char* word) {
        auto wash = colour;
        wash.setAlpha(alpha);
        p.setBrush(wash);
        p.setPen(QPen(colour, 1.4, Qt::DashLine));
        p.drawPolygon(frame);
        p.setPen(QPen(edge, 1.4, edge == colour ? Qt::DashLine : Qt::SolidLine));
        p.setBrush(colour);
        p.drawEllipse(grip, 7, 7);
        p.setPen(ink_->ink);
        p.drawText(QRectF(grip.x() - 60, grip.y() - 26, 120, 16), Qt::AlignCenter, word);
    };
    if (scene_.has_cut) {
        const auto &lo = scene_.bounds.low, &hi = scene_.bounds.high;
        const int axis = scene_.cut_normal.x() > 0.5 ? 0 : 1, other = 1 - axis;
        const double pad = 0.04 * scene_.bounds.diagonal();
        const auto corner = [&](double across, double z) {
            Point q = scene_.cut_origin;
            q[other] = across;
            q.z() = z;
            return at(q);
        };
        QPolygonF frame;
        frame << corner(lo[other] - pad, lo.z()) << corner(hi[other] + pad, lo.z())
              << corner(hi[other] + pad, hi.z() + pad) << corner(lo[other] - pad, hi.z() + pad);
        drawable(frame, handle(), ink_->tape, ink_->tape.darker(130), 26, "cut");
    }
    if (scene_.has_plane) {
        QPolygonF frame;
        for (const auto& q : scene_.plane) frame << at(q);
        drawable(frame, plane_handle(), ink_->petrol, ink_->petrol, 22, "split");
    }
    paint_marks(p);
    paint_flags(p);
    paint_brush(p);
    if (!scene_.legend.isEmpty()) {
        // On its own ground, in as many lines as it takes.
        p.setFont(word_font(9.5));
        const QRectF room(12, 0, width() - 24, height() - 6);
        auto box = p.boundingRect(room, Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, scene_.legend);
        auto ground = ink_->paper;
        ground.setAlpha(225);
        p.fillRect(box.adjusted(-4, -2, 4, 2), ground);
        p.setPen(ink_->faint);
        p.drawText(room, Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, scene_.legend);
    }
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 2));
        p.drawRect(rect().adjusted(3, 3, -3, -3));
    }
    if (!opengl_) {
        p.setFont(word_font(9.5));
        p.setPen(ink_->clay);
        p.drawText(QRectF(12, 8, width() - 24, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   "No OpenGL here: the stand is drawn plainly and turns more slowly.");
    }
}

}  // namespace jig::app
