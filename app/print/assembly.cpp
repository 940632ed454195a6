#include <cmath>
#include <QBuffer>
#include <QPainterPath>

#include "app/print/page.hpp"
#include "app/print/paper.hpp"
#include "app/print/sheets.hpp"

namespace jig::app {

void print_assembly(const Job& job, const std::vector<CutPiece>& pieces, const plug::Findings& plug,
                    const QString& path, const SheetOptions& options) {
    const OnPaper paper;
    QByteArray bytes;
    // First pass counts the pages, the second writes their number.
    for (int pass = 0, pages = 1; pass < 2; ++pass) {
        bytes.clear();
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        set_up(writer, QPageSize(options.page), kSheetMargin, QString::fromStdString(job.brief.job),
               kSheetDots);
        SheetPen pen(writer, job, options, pages);
        pen.heading("Assembly of the plug");
        pen.paragraph(
            "From the foot up, top faces up, arrows to the front. In the finished stack the short lines at "
            "the front edges climb in one slope: a line out of it is a piece out of order or turned.");
        for (const auto& plan : plug.plans) {
            if (plan.slabs.pin_groups > 1)
                pen.paragraph(QString("Pins come in %1 sets; neighbouring sets share a slab.")
                                  .arg(plan.slabs.pin_groups));
        }
        // All to one scale, three beside each other.
        double widest = 0, tallest = 0;
        for (const auto& piece : pieces) {
            const Point2 size = high_corner(piece.outline) - low_corner(piece.outline);
            widest = std::max(widest, size.x());
            tallest = std::max(tallest, size.y());
        }
        constexpr int kAcross = 3;
        const double cell = pen.width() / kAcross, scale = (cell - 16) / std::max(1e-9, widest),
                     high = std::min(300.0, tallest * scale + 64);
        QRectF row;
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            if (i % kAcross == 0) row = pen.room(high);
            const auto& piece = pieces[i];
            const Point2 low = low_corner(piece.outline), size = high_corner(piece.outline) - low;
            const double fit = std::min(scale, (high - 64) / std::max(1e-9, size.y()));
            const QPointF corner(row.left() + static_cast<double>(i % kAcross) * cell + 4, row.top() + 2);
            auto& p = pen.painter();
            const auto at = [&](const Point2& q) {
                return corner + QPointF((q.x() - low.x()) * fit, (size.y() - (q.y() - low.y())) * fit);
            };
            p.setBrush(hatch_ground(Hatch::ply_wood, pen.ink()));
            QPainterPath shape;
            for (const auto& loop : piece.outline) {
                QPolygonF line;
                for (const auto& q : loop) line << at(q);
                line << line.front();
                shape.addPolygon(line);
            }
            p.setPen(QPen(pen.ink().ink, 0.6));
            p.drawPath(shape);
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(pen.ink().petrol, 0.8));
            for (const auto& line : piece.engraved) {
                QPolygonF open;
                for (const auto& q : line) open << at(q);
                p.drawPolyline(open);
            }
            p.setPen(pen.ink().ink);
            p.setFont(word_font(8));
            p.drawText(QRectF(corner.x(), corner.y() + size.y() * fit + 4, cell - 12, 54),
                       Qt::AlignLeft | Qt::TextWordWrap,
                       QString::fromStdString(worded(piece.words, options.wording)) +
                           (piece.inside >= 0 ? QString(", cut out of %1")
                                                    .arg(QString::fromStdString(
                                                        pieces[static_cast<std::size_t>(piece.inside)].name))
                                              : QString()));
        }
        pages = pen.pages();
    }
    write_bytes(bytes, path);
}

}  // namespace jig::app
