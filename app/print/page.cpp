#include "app/print/page.hpp"

#include <cmath>
#include <QDate>

#include "core/stages/cautions.hpp"

namespace jig::app {

SheetPen::SheetPen(QPagedPaintDevice& device, const Job& job, const SheetOptions& options, int pages)
    : device_(device),
      job_(job),
      options_(options),
      ink_(app::ink(Light::day)),
      painter_(&device),
      of_(pages) {
    page_rect_ = QRectF(QPointF(0, 0), QSizeF(device.width(), device.height()));
    body_ = page_rect_.adjusted(0, 34, 0, -34);
    y_ = body_.top();
    head_and_foot();
}

void SheetPen::head_and_foot() {
    auto& p = painter_;
    p.setPen(ink_.petrol);
    p.setFont(word_font(10, true));
    p.drawText(QRectF(0, 0, page_rect_.width() * 0.7, 16), Qt::AlignLeft,
               QString::fromStdString(job_.brief.job));
    p.setPen(ink_.faint);
    p.setFont(word_font(9));
    p.drawText(QRectF(0, 0, page_rect_.width(), 16), Qt::AlignRight,
               QString("%1   revision %2   %3   page %4 of %5")
                   .arg(QString::fromStdString(job_.brief.customer))
                   .arg(job_.brief.revision)
                   .arg(QDate::currentDate().toString(Qt::ISODate))
                   .arg(page_)
                   .arg(of_));
    p.setPen(QPen(ink_.petrol, 1));
    p.drawLine(QPointF(0, 20), QPointF(page_rect_.width(), 20));
    p.setPen(QPen(ink_.rule, 0.6));
    p.drawLine(QPointF(0, page_rect_.height() - 20), QPointF(page_rect_.width(), page_rect_.height() - 20));
    p.setPen(ink_.faint);
    p.drawText(QRectF(0, page_rect_.height() - 15, page_rect_.width(), 14), Qt::AlignLeft,
               QString::fromUtf8(kDeferral));
}

void SheetPen::new_page() {
    device_.newPage();
    ++page_;
    y_ = body_.top();
    head_and_foot();
}

void SheetPen::need(double height) {
    if (y_ + height > body_.bottom() && y_ > body_.top() + 1) new_page();
}

QRectF SheetPen::room(double height) {
    need(height);
    const QRectF out(0, y_, body_.width(), height);
    y_ += height;
    return out;
}

void SheetPen::heading(const QString& text, double with) {
    need(28 + with);
    y_ += 6;
    painter_.setFont(word_font(13, true));
    painter_.setPen(ink_.ink);
    painter_.drawText(room(22), Qt::AlignLeft | Qt::AlignVCenter, text);
}

void SheetPen::paragraph(const QString& text, double points, bool strong, const QColor& colour) {
    painter_.setFont(word_font(points, strong));
    const auto box = painter_.boundingRect(QRectF(0, 0, body_.width(), 4000), Qt::TextWordWrap, text);
    const auto at = room(box.height() + 3);
    painter_.setPen(colour.isValid() ? colour : ink_.ink);
    painter_.setFont(word_font(points, strong));
    painter_.drawText(at, Qt::TextWordWrap, text);
}

void SheetPen::table(const QStringList& titles, const QList<QStringList>& rows,
                     const std::vector<double>& shares, const std::vector<bool>& right) {
    const auto line = [&](const QStringList& cells, bool head) {
        const auto font = [&](std::size_t c) {
            return head ? word_font(9, true) : right[c] ? figure_font(9) : word_font(9.5);
        };
        double tall = 14;
        for (std::size_t c = 0; c < shares.size(); ++c) {
            painter_.setFont(font(c));
            tall =
                std::max(tall, painter_.boundingRect(QRectF(0, 0, shares[c] * body_.width() - 6, 4000),
                                                     Qt::TextWordWrap, cells.value(static_cast<qsizetype>(c)))
                                       .height() +
                                   3);
        }
        const int before = page_;
        const auto at = room(tall);
        if (page_ != before && !head) return false;
        double x = 0;
        for (std::size_t c = 0; c < shares.size(); ++c) {
            const double wide = shares[c] * body_.width();
            painter_.setFont(font(c));
            painter_.setPen(head ? ink_.faint : ink_.ink);
            if (cells.value(static_cast<qsizetype>(c)) == kBox) {
                painter_.setBrush(Qt::NoBrush);
                painter_.drawRect(QRectF(x + 2, at.center().y() - 4.5, 9, 9));
                x += wide;
                continue;
            }
            painter_.drawText(QRectF(x, at.top(), wide - 6, tall),
                              static_cast<int>(right[c] ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter |
                                  Qt::TextWordWrap,
                              cells.value(static_cast<qsizetype>(c)));
            x += wide;
        }
        painter_.setPen(QPen(head ? ink_.ink : ink_.rule, head ? 0.8 : 0.4));
        painter_.drawLine(at.bottomLeft(), at.bottomRight());
        return true;
    };
    line(titles, true);
    for (const auto& row : rows) {
        if (line(row, false)) continue;
        // The row went over to a fresh page: its titles first.
        y_ = body_.top();
        line(titles, true);
        line(row, false);
    }
    y_ += 4;
}

}  // namespace jig::app
