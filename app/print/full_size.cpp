#include "app/print/full_size.hpp"

#include <algorithm>
#include <cmath>
#include <memory>
#include <QBuffer>
#include <QPainter>

#include "app/print/paper.hpp"
#include "app/theme/ink.hpp"
#include "core/base/error.hpp"

namespace jig::app {
namespace {

constexpr double kPad = 15;    ///< mm of paper round an outline
constexpr double kMargin = 8;  ///< mm that a usual printer cannot reach
constexpr double kFoot = 14;   ///< mm for words and check bar under a tile
constexpr double kCross = 3;   ///< mm, half a cross

/// An outline on its sheet of paper: millimetres from the upper left corner, y down.
class Drawing {
  public:
    explicit Drawing(const FullSize& one)
        : one_(one), low_(low_corner(one.outline) * 1000), size_(high_corner(one.outline) * 1000 - low_) {}

    [[nodiscard]] QSizeF size() const { return {size_.x() + 2 * kPad, size_.y() + 2 * kPad}; }
    [[nodiscard]] QPointF at(const Point2& q) const {
        return {q.x() * 1000 - low_.x() + kPad, size_.y() - (q.y() * 1000 - low_.y()) + kPad};
    }
    [[nodiscard]] QPolygonF line(const Loop& loop) const {
        QPolygonF out;
        for (const auto& q : loop) out << at(q);
        return out;
    }

    void paint(QPainter& p, const Ink& k) const {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(k.ink, 0.3));
        for (const auto& loop : one_.outline) p.drawPolygon(line(loop));
        p.setPen(QPen(k.petrol, 0.3));
        for (const auto& open : one_.engraved) p.drawPolyline(line(open));
        auto small = word_font(10);
        small.setPixelSize(4);
        p.setFont(small);
        for (const auto& [where, words] : one_.labels) p.drawText(at(where), words);
        // The frame's own axes, the same on every sheet, so that a stack goes together true.
        const auto origin = at({0, 0});
        p.setPen(QPen(k.petrol, 0.2));
        p.drawLine(origin - QPointF(8, 0), origin + QPointF(8, 0));
        p.drawLine(origin - QPointF(0, 8), origin + QPointF(0, 8));
    }

    /// Whether a line of the outline or of what is on it passes through a rectangle.
    [[nodiscard]] bool touches(const QRectF& where) const {
        const auto crosses = [&](const QPolygonF& path, bool closed) {
            const auto n = path.size();
            for (qsizetype i = 0; i < (closed ? n : n - 1); ++i) {
                if (passes(path[i], path[(i + 1) % n], where)) return true;
            }
            return false;
        };
        return std::any_of(one_.outline.begin(), one_.outline.end(),
                           [&](const Loop& loop) { return crosses(line(loop), true); }) ||
               std::any_of(one_.engraved.begin(), one_.engraved.end(),
                           [&](const Loop& loop) { return crosses(line(loop), false); });
    }

  private:
    /// Clips the stretch a–b against the rectangle's four sides (Liang and Barsky 1984).
    static bool passes(const QPointF& a, const QPointF& b, const QRectF& r) {
        double from = 0, to = 1;
        const QPointF d = b - a;
        const std::array<std::pair<double, double>, 4> sides{{{-d.x(), a.x() - r.left()},
                                                              {d.x(), r.right() - a.x()},
                                                              {-d.y(), a.y() - r.top()},
                                                              {d.y(), r.bottom() - a.y()}}};
        for (const auto& [along, room] : sides) {
            if (along == 0) {
                if (room < 0) return false;
                continue;
            }
            if (along < 0)
                from = std::max(from, room / along);
            else
                to = std::min(to, room / along);
        }
        return from <= to;
    }

    const FullSize& one_;
    Point2 low_, size_;
};

void check_bar(QPainter& p, const Ink& k, const QPointF& at) {
    p.setPen(QPen(k.ink, 0.5));
    p.drawLine(at, at + QPointF(100, 0));
    for (const double x : {0.0, 100.0}) p.drawLine(at + QPointF(x, -3), at + QPointF(x, 3));
    auto font = word_font(10);
    font.setPixelSize(4);
    p.setFont(font);
    p.drawText(at + QPointF(103, 1.5), "100 mm: measure before cutting");
}

/// Writes pages of any size after each other; the painter is set up in millimetres of each.
class Pages {
  public:
    Pages(QIODevice& into, QString title) : writer_(&into), title_(std::move(title)) {}

    QPainter& next(const QPageSize& page) {
        if (!painter_) {
            set_up(writer_, page, 0, title_, 1200);
            painter_ = std::make_unique<QPainter>(&writer_);
        } else {
            writer_.setPageSize(page);
            writer_.newPage();
        }
        painter_->resetTransform();
        painter_->setClipping(false);
        const double mm = writer_.resolution() / 25.4;
        painter_->scale(mm, mm);
        return *painter_;
    }

  private:
    QPdfWriter writer_;
    QString title_;
    std::unique_ptr<QPainter> painter_;
};

void paint_whole(Pages& pages, const FullSize& one, const Ink& k) {
    const Drawing drawing(one);
    const QPageSize page(QSizeF(std::max(150.0, drawing.size().width()), drawing.size().height() + 20),
                         QPageSize::Millimeter, {}, QPageSize::ExactMatch);
    auto& p = pages.next(page);
    drawing.paint(p, k);
    auto font = word_font(10);
    font.setPixelSize(6);
    p.setFont(font);
    p.setPen(k.ink);
    const double foot = drawing.size().height() + 6;
    p.drawText(QPointF(kPad, foot), one.words);
    check_bar(p, k, {kPad, foot + 6});
}

/// Crosses where pages meet: both that meet there carry them.
void crosses(QPainter& p, const Ink& k, const Tiling& tiles) {
    p.setPen(QPen(k.petrol, 0.2));
    for (int r = 0; r <= tiles.rows; ++r) {
        for (int c = 0; c <= tiles.columns; ++c) {
            const QPointF at(c * tiles.step.width() + kOverlap / 2, r * tiles.step.height() + kOverlap / 2);
            p.drawLine(at - QPointF(kCross, 0), at + QPointF(kCross, 0));
            p.drawLine(at - QPointF(0, kCross), at + QPointF(0, kCross));
        }
    }
}

void paint_tiles(Pages& pages, const FullSize& one, const Ink& k, QPageSize::PageSizeId size,
                 Progress& progress) {
    const Drawing drawing(one);
    bool across = false;
    const auto tiles = tiling(drawing.size(), QPageSize(size), across);
    const auto upright = QPageSize(size).size(QPageSize::Millimeter);
    const QPageSize page(across ? upright.transposed() : upright, QPageSize::Millimeter, {},
                         QPageSize::ExactMatch);
    for (int r = 0; r < tiles.rows; ++r) {
        for (int c = 0; c < tiles.columns; ++c) {
            const QRectF seen(QPointF(c * tiles.step.width(), r * tiles.step.height()), tiles.seen);
            if (!drawing.touches(seen)) continue;
            progress.check();
            auto& p = pages.next(page);
            p.save();
            p.translate(QPointF(kMargin, kMargin) - seen.topLeft());
            p.setClipRect(seen);
            drawing.paint(p, k);
            crosses(p, k, tiles);
            p.restore();
            p.setPen(QPen(k.rule, 0.2, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            p.drawRect(QRectF(QPointF(kMargin, kMargin), tiles.seen));
            // Where this page lies among the others.
            const double foot = kMargin + tiles.seen.height() + 2, cell = std::min(4.0, 11.0 / tiles.rows);
            p.setPen(QPen(k.ink, 0.2));
            for (int y = 0; y < tiles.rows; ++y) {
                for (int x = 0; x < tiles.columns; ++x) {
                    p.setBrush(x == c && y == r ? QBrush(k.tape) : QBrush(Qt::NoBrush));
                    p.drawRect(QRectF(kMargin + x * cell, foot + y * cell, cell, cell));
                }
            }
            p.setBrush(Qt::NoBrush);
            auto font = word_font(10);
            font.setPixelSize(4);
            p.setFont(font);
            const double words = kMargin + tiles.columns * cell + 4;
            p.drawText(QRectF(words, foot - 1, page.size(QPageSize::Millimeter).width() - words - kMargin, 6),
                       Qt::AlignLeft | Qt::AlignVCenter | Qt::TextSingleLine,
                       p.fontMetrics().elidedText(
                           QString("row %1 of %2, column %3 of %4: %5")
                               .arg(r + 1)
                               .arg(tiles.rows)
                               .arg(c + 1)
                               .arg(tiles.columns)
                               .arg(one.words),
                           Qt::ElideRight,
                           static_cast<int>(page.size(QPageSize::Millimeter).width() - words - kMargin)));
            check_bar(p, k, {words, foot + 9});
        }
    }
}

}  // namespace

std::vector<FullSize> pieces_at_full_size(const std::vector<CutPiece>& pieces, const Wording& wording) {
    std::vector<FullSize> out;
    for (const auto& piece : pieces)
        out.push_back({piece.outline, QString::fromStdString(worded(piece.words, wording)), piece.engraved});
    return out;
}

std::vector<FullSize> boards_at_full_size(const std::vector<split::Board>& boards, const Wording& wording) {
    std::vector<FullSize> out;
    for (const auto& board : boards) {
        out.push_back({split::drilled(board),
                       QString("parting %1 of %2, %3 along the plug%4")
                           .arg(QString::fromStdString(board.name))
                           .arg(boards.size())
                           .arg(QString::fromStdString(show(Kind::length, board.length, wording)),
                                board.developed ? QString(", laid flat") : QString())});
    }
    return out;
}

Tiling tiling(const QSizeF& drawing, const QPageSize& page, bool& across) {
    const auto laid = [&](QSizeF paper) {
        Tiling out;
        out.seen = {paper.width() - 2 * kMargin, paper.height() - 2 * kMargin - kFoot};
        out.step = out.seen - QSizeF(kOverlap, kOverlap);
        const auto pages = [](double all, double step) {
            return std::max(1, static_cast<int>(std::ceil((all - kOverlap) / step - 1e-9)));
        };
        out.columns = pages(drawing.width(), out.step.width());
        out.rows = pages(drawing.height(), out.step.height());
        return out;
    };
    const auto size = page.size(QPageSize::Millimeter);
    const auto upright = laid(size), turned = laid(size.transposed());
    across = turned.columns * turned.rows < upright.columns * upright.rows;
    return across ? turned : upright;
}

void print_full_size(const std::vector<FullSize>& outlines, const QString& title, const QString& path,
                     std::optional<QPageSize::PageSizeId> tiles, Progress& progress) {
    if (outlines.empty())
        throw InputError("print", "there is no outline to print", "mend the stops on the job card first");
    const OnPaper paper;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        Pages pages(buffer, title);
        const auto& k = ink(Light::day);
        double done = 0;
        for (const auto& one : outlines) {
            progress.report(done++ / static_cast<double>(outlines.size()), "drawing at full size");
            if (tiles)
                paint_tiles(pages, one, k, *tiles, progress);
            else
                paint_whole(pages, one, k);
        }
    }
    write_bytes(bytes, path);
}

}  // namespace jig::app
