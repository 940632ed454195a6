#include "app/theme/pennant.hpp"

namespace jig::app {

void paint_pennant(QPainter& p, const QPointF& at, int number, Severity severity, const Ink& ink) {
    const double w = kPennant.width(), h = kPennant.height(), tail = 5;
    QPolygonF shape{at, at + QPointF(w, 0)};
    if (severity == Severity::stop)
        shape << at + QPointF(w + tail, h / 2);
    else if (severity == Severity::caution)
        shape << at + QPointF(w + tail, 0) << at + QPointF(w, h / 2) << at + QPointF(w + tail, h);
    shape << at + QPointF(w, h) << at + QPointF(0, h);
    const auto colour = severity == Severity::note ? ink.petrol : severity_colour(severity, ink);
    p.setPen(QPen(colour, 1.4));
    p.setBrush(ink.sheet);
    p.drawPolygon(shape);
    p.setFont(figure_font(9));
    p.setPen(ink.ink);
    p.drawText(QRectF(at, kPennant), Qt::AlignCenter, QString::number(number));
}

}  // namespace jig::app
