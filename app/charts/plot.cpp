#include "app/charts/plot.hpp"

#include <algorithm>
#include <cmath>

namespace jig::app {
namespace {

const QColor& colour_of(Tone tone, const Ink& k) {
    switch (tone) {
        case Tone::petrol:
            return k.petrol;
        case Tone::ink:
            return k.ink;
        case Tone::faint:
            return k.faint;
        case Tone::tape:
            return k.tape;
        case Tone::moss:
            return k.moss;
        case Tone::clay:
            return k.clay;
    }
    return k.ink;
}

/// A round step that makes at most `most` ticks over `range`.
double tick_step(double range, int most) {
    const double rough = range / std::max(1, most),
                 size = std::pow(10, std::floor(std::log10(std::max(1e-12, rough))));
    for (const double m : {1.0, 2.0, 5.0, 10.0}) {
        if (m * size >= rough * (1 - 1e-9)) return m * size;
    }
    return 10 * size;
}

double in_shown_unit(Kind kind, double v, const Wording& w) {
    if (kind == Kind::count) return v;  // an axis of them may begin between two
    return QString::fromStdString(show_for_edit(kind, v, w)).toDouble();
}

/// The bare number that stands beside a tick, in the unit that the axis names.
QString tick_words(const Axis& axis, double v, double step, const Wording& w) {
    double number = in_shown_unit(axis.kind, v, w);
    if (std::abs(number) < 1e-9 * std::max(1.0, std::abs(step))) number = 0;
    const int places =
        std::clamp(static_cast<int>(std::ceil(-std::log10(std::max(step, 1e-9)) - 1e-9)), 0, 6);
    return QString::number(number, 'f', places);
}

QString name_of(const Axis& axis, const Wording& w) {
    const auto unit = QString::fromStdString(unit_sign(axis.kind, w));
    return unit.isEmpty() ? axis.name : axis.name + ", " + unit;
}

QString value_words(const Axis& axis, double v, const Wording& w) {
    if (axis.places.empty()) return shown(axis.kind, v, w);
    const auto place =
        static_cast<std::size_t>(std::clamp(std::lround(v), 0L, static_cast<long>(axis.places.size()) - 1));
    return axis.places[place];
}

}  // namespace

QString shown(Kind kind, double value, const Wording& wording) {
    return QString::fromStdString(show(kind, value, wording));
}

QString hundredths(double angle) {
    return QString::number(degrees(angle), 'f', 2) + "°";
}

std::vector<double> ticks_of(const Axis& axis, int most, const Wording& w) {
    std::vector<double> out;
    if (!axis.places.empty()) {
        for (std::size_t i = 0; i < axis.places.size(); ++i) out.push_back(static_cast<double>(i));
        return out;
    }
    if (!(axis.high > axis.low)) return out;
    // Units are straight lines in SI, so two values tell all of one.
    const double low = in_shown_unit(axis.kind, axis.low, w), high = in_shown_unit(axis.kind, axis.high, w);
    if (!(high > low)) return out;
    double step = tick_step(high - low, most);
    if (axis.kind == Kind::count) step = std::max(1.0, std::round(step));
    for (double v = std::ceil(low / step - 1e-9) * step; v <= high + 1e-9 * step; v += step)
        out.push_back(axis.low + (v - low) / (high - low) * (axis.high - axis.low));
    return out;
}

std::vector<double> stops_of(const Plot& plot) {
    std::vector<double> out;
    for (const auto& line : plot.lines) {
        for (const auto& p : line.points) out.push_back(p.x());
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

std::optional<double> value_at(const PlotLine& line, double x) {
    const auto after =
        std::find_if(line.points.begin(), line.points.end(), [&](const QPointF& p) { return p.x() >= x; });
    if (after == line.points.end()) return {};
    if (after->x() == x) return after->y();
    if (after == line.points.begin()) return {};
    const auto& a = *(after - 1);
    return a.y() + (x - a.x()) / (after->x() - a.x()) * (after->y() - a.y());
}

QString reading_of(const Plot& plot, double x, const Wording& w) {
    QStringList said;
    for (const auto& line : plot.lines) {
        if (const auto y = value_at(line, x))
            said << QString("%1 %2").arg(line.name, shown(plot.y.kind, *y, w));
    }
    const auto place = value_words(plot.x, x, w);
    return QString("%1: %2").arg(plot.x.places.empty() ? plot.x.name + " " + place : place, said.join(", "));
}

QString text_of(const Plot& plot, const Wording& w) {
    QStringList rows{name_of(plot.x, w)};
    for (const auto& line : plot.lines) {
        const auto unit = QString::fromStdString(unit_sign(plot.y.kind, w));
        rows.front() += "\t" + line.name + (unit.isEmpty() ? "" : ", " + unit);
    }
    for (const double x : stops_of(plot)) {
        auto row = plot.x.places.empty() ? QString::fromStdString(show_for_edit(plot.x.kind, x, w))
                                         : value_words(plot.x, x, w);
        for (const auto& line : plot.lines) {
            const auto y = value_at(line, x);
            row += "\t" + (y ? QString::fromStdString(show_for_edit(plot.y.kind, *y, w)) : QString());
        }
        rows << row;
    }
    return rows.join("\n") + "\n";
}

QRectF plot_area(const QRectF& where, const Plot& plot) {
    const double line = text_scale() * 16;
    // Title, the y axis' name and the legend above; places take as many lines of words below as they need.
    double below = 2.4 * line;
    const double left = 62 * text_scale(), right = 14;
    if (!plot.x.places.empty()) {
        const QFontMetricsF metrics(word_font(9.5));
        const double wide = (where.width() - left - right) / static_cast<double>(plot.x.places.size()) - 4;
        below = 3.4 * line;
        for (const auto& place : plot.x.places)
            below = std::max(below, line + metrics
                                               .boundingRect(QRectF(0, 0, wide, 1000),
                                                             Qt::AlignHCenter | Qt::TextWordWrap, place)
                                               .height());
    }
    return where.adjusted(left, 3.2 * line, -right, -std::min(below, 0.6 * where.height()));
}

namespace {

/// The stretch of x that is drawn.
std::pair<double, double> stretch_of(const Plot& plot) {
    if (plot.x.places.empty()) return {plot.x.low, plot.x.high};
    return {-0.5, static_cast<double>(plot.x.places.size()) - 0.5};
}

}  // namespace

QPointF drawn_at(const QRectF& where, const Plot& plot, const QPointF& at) {
    const auto area = plot_area(where, plot);
    const auto [low, high] = stretch_of(plot);
    return {area.left() + (at.x() - low) / (high - low) * area.width(),
            area.bottom() - (at.y() - plot.y.low) / (plot.y.high - plot.y.low) * area.height()};
}

QPointF place_at(const QRectF& where, const Plot& plot, const QPointF& drawn) {
    const auto area = plot_area(where, plot);
    const auto [low, high] = stretch_of(plot);
    return {low + (drawn.x() - area.left()) / area.width() * (high - low),
            plot.y.low + (area.bottom() - drawn.y()) / area.height() * (plot.y.high - plot.y.low)};
}

void paint_plot(QPainter& p, const QRectF& where, const Plot& plot, const Ink& k, const Wording& w,
                std::optional<double> read) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const double row = text_scale() * 16;
    p.setFont(word_font(11, true));
    p.setPen(k.ink);
    p.drawText(where, Qt::AlignLeft | Qt::AlignTop, plot.title);
    if (plot.lines.empty()) {
        p.setFont(word_font(10.5));
        p.setPen(k.faint);
        p.drawText(where, Qt::AlignCenter | Qt::TextWordWrap, plot.nothing);
        p.restore();
        return;
    }
    const auto area = plot_area(where, plot);
    const bool named = !plot.x.places.empty();
    const auto [low_x, high_x] = stretch_of(plot);
    const auto at = [&](double x, double y) { return drawn_at(where, plot, {x, y}); };
    p.setFont(word_font(9.5));
    p.setPen(k.faint);
    p.drawText(QRectF(where.left(), where.top() + 1.9 * row, area.width(), 1.2 * row),
               Qt::AlignLeft | Qt::AlignVCenter, name_of(plot.y, w));
    for (const auto& band : plot.bands) {
        auto colour = k.moss;
        colour.setAlpha(44);
        const QRectF stretch(at(low_x, band.high), at(high_x, band.low));
        p.fillRect(stretch.intersected(area), colour);
    }
    // Axes with figures; the lines behind them are as fine as hairlines.
    p.setFont(figure_font(8.5));
    const auto y_ticks = ticks_of(plot.y, std::clamp(static_cast<int>(area.height() / (2.2 * row)), 2, 8), w);
    const double y_step = y_ticks.size() > 1 ? in_shown_unit(plot.y.kind, y_ticks[1], w) -
                                                   in_shown_unit(plot.y.kind, y_ticks[0], w)
                                             : 1;
    for (const double v : y_ticks) {
        p.setPen(k.rule);
        p.drawLine(at(low_x, v), at(high_x, v));
        p.setPen(k.faint);
        p.drawText(QRectF(where.left(), at(low_x, v).y() - row / 2, area.left() - where.left() - 6, row),
                   Qt::AlignRight | Qt::AlignVCenter, tick_words(plot.y, v, y_step, w));
    }
    const auto x_ticks = ticks_of(plot.x, std::clamp(static_cast<int>(area.width() / (5 * row)), 2, 12), w);
    const double x_step = x_ticks.size() > 1 ? in_shown_unit(plot.x.kind, x_ticks[1], w) -
                                                   in_shown_unit(plot.x.kind, x_ticks[0], w)
                                             : 1;
    for (const double v : x_ticks) {
        const auto foot = at(v, plot.y.low);
        p.setPen(k.rule);
        p.drawLine(foot, foot + QPointF(0, 4));
        p.setPen(k.faint);
        const double wide = area.width() / static_cast<double>(x_ticks.size());
        if (named) p.setFont(word_font(9.5));
        p.drawText(QRectF(foot.x() - wide / 2 + 2, foot.y() + 6, wide - 4,
                          named ? where.bottom() - foot.y() - 6 : row),
                   Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap,
                   named ? value_words(plot.x, v, w) : tick_words(plot.x, v, x_step, w));
    }
    p.setFont(word_font(9.5));
    if (!named)
        p.drawText(QRectF(area.left(), where.bottom() - 1.15 * row, area.width(), 1.15 * row),
                   Qt::AlignRight | Qt::AlignVCenter, name_of(plot.x, w));
    p.setPen(k.ink);
    p.drawLine(area.bottomLeft(), area.bottomRight());
    if (plot.y.low < 0 && plot.y.high > 0) p.drawLine(at(low_x, 0), at(high_x, 0));

    p.save();
    p.setClipRect(area.adjusted(-6, -6, 6, 6));
    for (const auto& line : plot.lines) {
        QPolygonF path;
        for (const auto& q : line.points) path << at(q.x(), q.y());
        const auto& colour = colour_of(line.tone, k);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(colour, line.dashed ? 1.4 : 2.0, line.dashed ? Qt::DashLine : Qt::SolidLine));
        p.drawPolyline(path);
        if (!line.marks) continue;
        p.setPen(k.ink);
        p.setBrush(colour);
        for (const auto& q : path) p.drawEllipse(q, 4.5, 4.5);
    }
    p.restore();
    // Names of the lines stand in the order drawn, each behind a stroke of its own.
    double x = where.right() - 8;
    for (const auto& band : plot.bands) {
        const double wide = p.fontMetrics().horizontalAdvance(band.name);
        p.setPen(k.ink);
        p.drawText(QRectF(x - wide, where.top() + 1.9 * row, wide + 2, 1.2 * row), Qt::AlignVCenter,
                   band.name);
        auto colour = k.moss;
        colour.setAlpha(88);
        p.fillRect(QRectF(x - wide - 26, where.top() + 2.5 * row - 4, 20, 8), colour);
        x -= wide + 42;
    }
    for (auto line = plot.lines.rbegin(); line != plot.lines.rend() && plot.lines.size() > 1; ++line) {
        const double wide = p.fontMetrics().horizontalAdvance(line->name);
        p.setPen(k.ink);
        p.drawText(QRectF(x - wide, where.top() + 1.9 * row, wide + 2, 1.2 * row), Qt::AlignVCenter,
                   line->name);
        p.setPen(QPen(colour_of(line->tone, k), 2, line->dashed ? Qt::DashLine : Qt::SolidLine));
        p.drawLine(QPointF(x - wide - 26, where.top() + 2.5 * row),
                   QPointF(x - wide - 6, where.top() + 2.5 * row));
        x -= wide + 42;
    }
    p.setFont(word_font(10, true));
    for (const auto& note : plot.notes) {
        const auto mark = at(note.at.x(), note.at.y());
        p.setPen(k.ink);
        p.setBrush(k.tape);
        p.drawEllipse(mark, 4.5, 4.5);
        // Above a peak and below a hollow, so that the line does not run through the words.
        double around = note.at.y();
        int others = 0;
        for (const auto& line : plot.lines) {
            for (std::size_t i = 0; i < line.points.size(); ++i) {
                if (line.points[i] != note.at) continue;
                if (i > 0) around += line.points[i - 1].y(), ++others;
                if (i + 1 < line.points.size()) around += line.points[i + 1].y(), ++others;
            }
        }
        bool below = others > 0 && note.at.y() < (around - note.at.y()) / others;
        // Not where there is no room for them, or they would be pushed back onto the line.
        const double high = 7 + 1.1 * row;
        if (below && mark.y() + high > area.bottom()) below = false;
        if (!below && mark.y() - high < area.top()) below = mark.y() + high <= area.bottom();
        const double wide = p.fontMetrics().horizontalAdvance(note.words) + 6;
        QRectF words(mark.x() - wide / 2, below ? mark.y() + 7 : mark.y() - 7 - 1.1 * row, wide, 1.1 * row);
        words.moveLeft(std::clamp(words.left(), area.left(), std::max(area.left(), where.right() - wide)));
        words.moveTop(std::clamp(words.top(), area.top(), area.bottom() - words.height()));
        p.drawText(words, Qt::AlignCenter, note.words);
    }
    if (read) {
        const double here = at(*read, 0).x();
        p.setPen(QPen(k.ink, 1));
        p.drawLine(QPointF(here, area.top()), QPointF(here, area.bottom()));
        for (const auto& line : plot.lines) {
            const auto y = value_at(line, *read);
            if (!y) continue;
            p.setBrush(k.paper);
            p.drawEllipse(at(*read, *y), 3.5, 3.5);
        }
        const auto words = reading_of(plot, *read, w);
        p.setFont(word_font(10));
        const QSizeF size(p.fontMetrics().horizontalAdvance(words) + 12, 1.5 * row);
        const QRectF box(
            QPointF(std::clamp(here + 8, where.left(), std::max(where.left(), where.right() - size.width())),
                    area.top() + 2),
            size);
        p.setPen(k.rule);
        p.setBrush(k.sheet);
        p.drawRect(box);
        p.setPen(k.ink);
        p.drawText(box, Qt::AlignCenter, words);
    }
    p.restore();
}

}  // namespace jig::app
