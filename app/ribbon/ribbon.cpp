#include "app/ribbon/ribbon.hpp"

#include <cmath>
#include <QAccessible>
#include <QMouseEvent>
#include <QPainterPath>
#include <QToolButton>
#include <QToolTip>

#include "app/charts/plot.hpp"

namespace jig::app {
namespace {

constexpr double kNames = 238;  // px at the right for the list of layers

struct Fit {
    double scale, x0, y0;
    QRectF drawing;
    [[nodiscard]] QPointF operator()(const Point2& p) const {
        return {x0 + p.x() * scale, y0 - p.y() * scale};
    }
    [[nodiscard]] Point2 back(const QPointF& q) const { return {(q.x() - x0) / scale, (y0 - q.y()) / scale}; }
};

Fit fit(const Section2& s, const QRectF& where, double scale) {
    const QRectF room = where.adjusted(10, 8, -kNames * scale - 10, -8);
    const double sx = room.width() / (s.high_x - s.low_x), sy = room.height() / (s.high_y - s.low_y);
    const double k = std::min(sx, sy);
    return {k, room.center().x() - k * (s.low_x + s.high_x) / 2,
            room.center().y() + k * (s.low_y + s.high_y) / 2,
            QRectF(room.center().x() - k * (s.high_x - s.low_x) / 2,
                   room.center().y() - k * (s.high_y - s.low_y) / 2, k * (s.high_x - s.low_x),
                   k * (s.high_y - s.low_y))};
}

QPainterPath path_of(const Loops& loops, const Fit& at) {
    QPainterPath path;
    path.setFillRule(Qt::WindingFill);
    for (const auto& loop : loops) {
        QPolygonF poly;
        for (const auto& p : loop) poly << at(p);
        path.addPolygon(poly);
        path.closeSubpath();
    }
    return path;
}

}  // namespace

void paint_section(QPainter& p, const QRectF& where, const Section2& s, const Ink& k, const Wording& w,
                   int lit, double scale) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setClipRect(where);
    if (s.empty()) {
        p.setFont(word_font(10));
        p.setPen(k.faint);
        p.drawText(where, Qt::AlignCenter,
                   "No section yet: the shape, split, edge and shell have to be worked out first.");
        p.restore();
        return;
    }
    const auto at = fit(s, where, scale);
    p.save();
    p.setClipRect(at.drawing);
    const auto outline = [&](const QPainterPath& path, std::size_t i) {
        const bool on = static_cast<int>(i) == lit;
        p.setPen(QPen(on ? k.tape.darker(120) : k.ink, (on ? 2.2 : 0.7) * scale));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
    };
    // Outermost first: each inner body covers the ones outside it. The back lies behind everything.
    for (std::size_t i = s.layers.size(); i-- > 0;) {
        const auto& layer = s.layers[i];
        if (layer.line_only) continue;
        const auto path = path_of(layer.outline, at);
        p.setPen(Qt::NoPen);
        p.setBrush(hatch_brush(layer.hatch, k, scale));
        p.drawPath(path);
        outline(path, i);
    }
    for (std::size_t i = 0; i < s.layers.size(); ++i) {
        const auto& layer = s.layers[i];
        const bool bag = layer.hatch == Hatch::bag;
        if (!layer.line_only && !bag) continue;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(bag ? k.petrol : k.tape, (static_cast<int>(i) == lit ? 3.0 : 1.8) * scale,
                      bag ? Qt::DashLine : Qt::SolidLine));
        p.drawPath(path_of(layer.outline, at));
    }
    p.restore();
    double shell = 0;
    for (const auto& l : s.layers) shell += l.stage == Stage::shell ? l.thickness : 0;
    // Tape land as yellow blocks on the flange's board.
    for (const auto& [a, b] : s.tape) {
        const auto q = at({a, s.foot}), r = at({b, s.foot});
        p.fillRect(QRectF(q.x(), q.y() - 2.5 * scale, r.x() - q.x(), 5 * scale), k.tape);
    }
    // Names, innermost at the bottom as they lie.
    p.setFont(word_font(9));
    const double line = p.fontMetrics().height() * 0.94;
    const double names_x = where.right() - kNames * scale;
    const auto room = static_cast<std::size_t>(std::max(1.0, (where.height() - 26 * scale) / line));
    // Neighbours of one kind share a line and are counted.
    std::vector<std::size_t> shown;
    std::vector<int> times;
    for (std::size_t i = s.layers.size(); i-- > 0;) {
        if (!shown.empty() && s.layers[shown.back()].name == s.layers[i].name) {
            ++times.back();
            shown.back() = i;
            continue;
        }
        shown.push_back(i);
        times.push_back(1);
    }
    const std::size_t skip = shown.size() > room ? shown.size() - room + 1 : 0;
    double y = where.top() + 6 * scale;
    for (std::size_t n = 0; n < shown.size(); ++n) {
        const auto i = shown[n];
        // Where the ribbon is low, like neighbours are counted instead of named.
        if (skip != 0 && n >= room / 2 && n < room / 2 + skip) {
            if (n == room / 2) {
                p.setPen(k.faint);
                p.drawText(QRectF(names_x + 22 * scale, y, kNames * scale - 28 * scale, line),
                           Qt::AlignVCenter, QString("… %1 layers more").arg(skip));
                y += line;
            }
            continue;
        }
        const auto& layer = s.layers[i];
        const QRectF swatch(names_x, y + 2 * scale, 16 * scale, line - 4 * scale);
        p.setPen(QPen(static_cast<int>(i) == lit ? k.tape.darker(120) : k.rule, scale));
        p.setBrush(hatch_brush(layer.hatch, k, scale));
        p.drawRect(swatch);
        p.setPen(k.ink);
        const auto size = layer.thickness > 0
                              ? QString::fromStdString(jig::show(Kind::thickness, layer.thickness, w))
                              : QString();
        const double size_width = size.isEmpty() ? 0 : p.fontMetrics().horizontalAdvance(size) + 6 * scale;
        const QRectF name(names_x + 22 * scale, y, kNames * scale - 30 * scale - size_width, line);
        p.drawText(name, Qt::AlignVCenter,
                   p.fontMetrics().elidedText(
                       times[n] > 1 ? QString("%1 × %2").arg(times[n]).arg(layer.name) : layer.name,
                       Qt::ElideRight, static_cast<int>(name.width())));
        p.drawText(QRectF(where.right() - size_width - 8 * scale, y, size_width, line),
                   Qt::AlignVCenter | Qt::AlignRight, size);
        y += line;
    }
    p.setPen(k.faint);
    const auto foot =
        QString("%1 %2, thickness × %3")
            .arg(s.part_in_tool ? "part in the tool, part" : "shell",
                 QString::fromStdString(jig::show(Kind::thickness, s.part_in_tool ? s.part : shell, w)),
                 QString::number(s.stretch, 'f', s.stretch < 10 ? 1 : 0));
    p.drawText(QRectF(names_x, where.bottom() - line - 4 * scale, kNames * scale - 8 * scale, line),
               Qt::AlignVCenter, foot);
    // Scale bar of a length that is round in the maker's unit, lower left.
    const auto lengths = ticks_of({{}, Kind::length, 0, 140 * scale / at.scale, {}}, 3, w);
    const double bar = lengths.empty() ? 0 : std::round(1e6 * lengths.back()) / 1e6;  // no 99.9999 mm
    const QPointF from(where.left() + 12 * scale, where.bottom() - 10 * scale);
    p.setPen(QPen(k.ink, 1.2 * scale));
    p.drawLine(from, from + QPointF(bar * at.scale, 0));
    p.drawLine(from + QPointF(0, -4 * scale), from + QPointF(0, 4 * scale));
    p.drawLine(from + QPointF(bar * at.scale, -4 * scale), from + QPointF(bar * at.scale, 4 * scale));
    const double tall = p.fontMetrics().height();
    p.drawText(QRectF(from.x(), from.y() - 5 * scale - tall, 240 * scale, tall), Qt::AlignLeft,
               QString::fromStdString(jig::show(Kind::length, bar, w)));
    p.restore();
}

SectionRoom usual_room(Stage stage) {
    switch (stage) {
        case Stage::brief:
        case Stage::shape:
        case Stage::split:
            return SectionRoom::handle;
        case Stage::heat:
        case Stage::run:
        case Stage::log:
            return SectionRoom::away;
        default:
            return SectionRoom::open;
    }
}

Ribbon::Ribbon(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("ribbon");
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName("Section at the cut");
    fold_ = new QToolButton(this);
    fold_->setObjectName("fold-section");
    fold_->setFocusPolicy(Qt::TabFocus);
    connect(fold_, &QToolButton::clicked, this, &Ribbon::fold_wanted);
    set_room(room_);
}

void Ribbon::set_room(SectionRoom room) {
    room_ = room;
    setVisible(room != SectionRoom::away);
    const bool open = room == SectionRoom::open;
    const int handle = static_cast<int>(26 * std::max(1.0, text_scale()));
    setMinimumHeight(open ? 150 : handle);
    setMaximumHeight(open ? QWIDGETSIZE_MAX : handle);
    fold_->setText(open ? "fold" : "Section at the cut: open it");
    fold_->setAccessibleName(open ? "Fold the section" : "Open the section");
    fold_->setToolTip(open ? "Fold the section (F4)" : "Open the section (F4)");
    setFocusPolicy(open ? Qt::StrongFocus : Qt::NoFocus);
    lit_ = -1;
    resizeEvent(nullptr);
    update();
}

void Ribbon::resizeEvent(QResizeEvent*) {
    const int tall = std::max(24, fold_->sizeHint().height());
    const int wide = std::max(tall, fold_->sizeHint().width());
    fold_->setGeometry(1, 1, wide, std::min(tall, std::max(24, height() - 2)));
}

void Ribbon::show_section(Section2 section, const Wording& wording) {
    section_ = std::move(section);
    wording_ = wording;
    lit_ = -1;
    update();
}

void Ribbon::set_ink(const Ink& ink) {
    ink_ = &ink;
    update();
}

int Ribbon::layer_at(const QPointF& point) const {
    if (section_.empty() || room_ != SectionRoom::open) return -1;
    const auto at = fit(section_, rect(), 1);
    if (!at.drawing.contains(point)) return -1;
    for (std::size_t i = 0; i < section_.layers.size(); ++i) {
        if (!section_.layers[i].line_only && path_of(section_.layers[i].outline, at).contains(point))
            return static_cast<int>(i);
    }
    return -1;
}

QString Ribbon::words_of(int layer) const {
    const auto& l = section_.layers[static_cast<std::size_t>(layer)];
    return l.thickness > 0
               ? l.name + ", " + QString::fromStdString(jig::show(Kind::thickness, l.thickness, wording_))
               : l.name;
}

void Ribbon::light_up(int layer) {
    lit_ = layer;
    update();
    if (layer < 0) return;
    setAccessibleDescription(
        QString("%1 of %2: %3").arg(layer + 1).arg(section_.layers.size()).arg(words_of(layer)));
    QAccessibleEvent told(this, QAccessible::DescriptionChanged);
    QAccessible::updateAccessibility(&told);
}

void Ribbon::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), ink_->sheet);
    p.setPen(ink_->rule);
    p.drawLine(rect().topLeft(), rect().topRight());
    if (room_ != SectionRoom::open) return;
    paint_section(p, rect(), section_, *ink_, wording_, lit_);
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 2));
        p.drawRect(rect().adjusted(3, 3, -3, -3));
    }
}

void Ribbon::mouseMoveEvent(QMouseEvent* event) {
    const int now = layer_at(event->position());
    if (now != lit_) light_up(now);
    if (lit_ >= 0)
        QToolTip::showText(event->globalPosition().toPoint(), words_of(lit_), this);
    else
        QToolTip::hideText();
}

void Ribbon::mousePressEvent(QMouseEvent* event) {
    if (room_ == SectionRoom::handle) return emit fold_wanted();
    const int hit = layer_at(event->position());
    if (hit >= 0) emit stage_wanted(section_.layers[static_cast<std::size_t>(hit)].stage);
}

/// Arrows walk the layers as they lie, Enter goes to where the lit one is decided.
void Ribbon::keyPressEvent(QKeyEvent* event) {
    const int last = static_cast<int>(section_.layers.size()) - 1;
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Right:
            if (last >= 0) light_up(std::min(lit_ + 1, last));
            return;
        case Qt::Key_Down:
        case Qt::Key_Left:
            if (last >= 0) light_up(lit_ < 0 ? last : std::max(lit_ - 1, 0));
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (lit_ >= 0) emit stage_wanted(section_.layers[static_cast<std::size_t>(lit_)].stage);
            return;
        case Qt::Key_Escape:
            if (lit_ >= 0) return light_up(-1);
            break;
        default:
            break;
    }
    QWidget::keyPressEvent(event);
}

void Ribbon::leaveEvent(QEvent*) {
    if (hasFocus()) return;
    lit_ = -1;
    update();
}

}  // namespace jig::app
