#include "app/stages/part/roll_view.hpp"

#include <algorithm>
#include <cmath>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include "app/slip/words.hpp"

namespace jig::app {
namespace {

constexpr int kBorder = 10, kGap = 14,
              kFoot = 20;         // px round it, between lengths, under each for its measure
constexpr double kLargest = 220;  // px for a metre, at most

QPainterPath path_of(const Loops& loops, double scale, const QPointF& from) {
    QPainterPath out;
    for (const auto& loop : loops) {
        QPolygonF ring;
        for (const auto& p : loop) ring << from + QPointF(p.x() * scale, p.y() * scale);
        out.addPolygon(ring);
        out.closeSubpath();
    }
    return out;
}

}  // namespace

RollView::RollView(const part::KitRoll& roll, Hatch hatch, const Ink& ink, const Wording& wording,
                   QWidget* parent)
    : QWidget(parent), roll_(roll), hatch_(hatch), ink_(ink), wording_(wording) {
    for (const auto& sheet : roll_.sheets.sheets) {
        double used = 0;
        for (const auto& piece : sheet.pieces) used = std::max(used, high_corner(piece.loops).x());
        used_.push_back(used);
        longest_ = std::max(longest_, used);
    }
    setObjectName("roll-" + text_of(roll.material));
    setAccessibleName(QString("Pieces on the roll of %1").arg(text_of(roll.material)));
    setFocusPolicy(Qt::StrongFocus);
    auto policy = sizePolicy();
    policy.setHorizontalPolicy(QSizePolicy::Expanding);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

double RollView::scale(int width) const {
    return longest_ > 0 ? std::min(kLargest, (width - 2 * kBorder) / longest_) : 1;
}

double RollView::top_of(std::size_t sheet) const {
    return kBorder + static_cast<double>(sheet) * (roll_.width * scale(width()) + kFoot + kGap);
}

int RollView::heightForWidth(int width) const {
    const auto lengths = static_cast<double>(used_.size());
    return 2 * kBorder + static_cast<int>(std::ceil(lengths * (roll_.width * scale(width) + kFoot + kGap)));
}

std::vector<const SheetPiece*> RollView::all() const {
    std::vector<const SheetPiece*> out;
    for (const auto& sheet : roll_.sheets.sheets) {
        for (const auto& piece : sheet.pieces) out.push_back(&piece);
    }
    return out;
}

void RollView::choose(const QString& piece) {
    if (piece == chosen_) return;
    chosen_ = piece;
    setAccessibleDescription(piece.isEmpty() ? QString() : "piece " + piece);
    update();
}

std::optional<QPointF> RollView::place_of(const QString& name) const {
    const double by = scale(width());
    for (std::size_t s = 0; s < roll_.sheets.sheets.size(); ++s) {
        for (const auto& piece : roll_.sheets.sheets[s].pieces) {
            if (text_of(piece.name) == name)
                return QPointF(kBorder + piece.mark.x() * by, top_of(s) + piece.mark.y() * by);
        }
    }
    return {};
}

const SheetPiece* RollView::piece_at(const QPointF& at) const {
    const double by = scale(width());
    for (std::size_t s = 0; s < roll_.sheets.sheets.size(); ++s) {
        for (const auto& piece : roll_.sheets.sheets[s].pieces) {
            if (path_of(piece.loops, by, {double(kBorder), top_of(s)}).contains(at)) return &piece;
        }
    }
    return nullptr;
}

void RollView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double by = scale(width());
    const auto lines = [&](const std::vector<Loop>& all, const QPointF& from) {
        for (const auto& line : all) {
            QPolygonF poly;
            for (const auto& at : line) poly << from + QPointF(at.x() * by, at.y() * by);
            p.drawPolyline(poly);
        }
    };
    for (std::size_t s = 0; s < roll_.sheets.sheets.size(); ++s) {
        const QPointF from(kBorder, top_of(s));
        const QRectF cloth(from, QSizeF(used_[s] * by, roll_.width * by));
        p.fillRect(cloth, hatch_ground(hatch_, ink_));
        p.fillRect(cloth, hatch_brush(hatch_, ink_));
        p.setPen(QPen(ink_.faint, 1));
        p.drawRect(cloth);
        // Cut off here; the roll goes on to the right.
        p.setPen(QPen(ink_.faint, 1, Qt::DashLine));
        p.drawLine(cloth.topRight() + QPointF(0, -4), cloth.bottomRight() + QPointF(0, 4));
        for (const auto& piece : roll_.sheets.sheets[s].pieces) {
            const bool chosen = text_of(piece.name) == chosen_;
            const auto path = path_of(piece.loops, by, from);
            p.fillPath(path, chosen ? ink_.tape : ink_.sheet);
            p.setPen(QPen(ink_.ink, chosen ? 2 : 1));
            p.drawPath(path);
            p.setPen(QPen(chosen ? app::ink(Light::day).ink : ink_.petrol, 1));
            lines(piece.engraved, from);
        }
        // Names last: over every arrow, on a ground of their own.
        p.setFont(figure_font(9));
        const QFontMetricsF room(p.font());
        for (const auto& piece : roll_.sheets.sheets[s].pieces) {
            const bool chosen = text_of(piece.name) == chosen_;
            const auto name = text_of(piece.name);
            auto box = room.boundingRect(name).adjusted(-3, -1, 3, 1);
            box.moveCenter(from + QPointF(piece.mark.x() * by, piece.mark.y() * by - room.height()));
            p.fillRect(box, chosen ? ink_.tape : ink_.sheet);
            p.setPen(chosen ? app::ink(Light::day).ink : ink_.ink);
            p.drawText(box, Qt::AlignCenter, name);
        }
        p.setPen(ink_.faint);
        p.drawText(QRectF(from.x(), cloth.bottom() + 2, std::max(cloth.width(), 200.0), kFoot),
                   Qt::AlignLeft | Qt::AlignVCenter,
                   QString("%1 of %2")
                       .arg(text_of(jig::show(Kind::length, used_[s], wording_)),
                            text_of(jig::show(Kind::length, roll_.width, wording_))));
    }
    if (hasFocus()) {
        p.setPen(QPen(ink_.ink, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(rect().adjusted(1, 1, -1, -1), 3, 3);
    }
}

void RollView::mousePressEvent(QMouseEvent* event) {
    if (const auto* piece = piece_at(event->position())) emit piece_chosen(text_of(piece->name));
}

void RollView::keyPressEvent(QKeyEvent* event) {
    const auto pieces = all();
    const bool on = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down,
               back = event->key() == Qt::Key_Left || event->key() == Qt::Key_Up;
    if (pieces.empty() || !(on || back)) return QWidget::keyPressEvent(event);
    const auto now = std::find_if(pieces.begin(), pieces.end(),
                                  [&](const SheetPiece* s) { return text_of(s->name) == chosen_; });
    const auto count = std::ssize(pieces);
    const auto next =
        now == pieces.end() ? (on ? 0 : count - 1) : (now - pieces.begin() + (on ? 1 : count - 1)) % count;
    emit piece_chosen(text_of(pieces[static_cast<std::size_t>(next)]->name));
}

bool RollView::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        if (const auto* piece = piece_at(help->pos()))
            QToolTip::showText(help->globalPos(), "piece " + text_of(piece->name), this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

}  // namespace jig::app
