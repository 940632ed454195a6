#include "app/charts/charts.hpp"

#include <algorithm>
#include <cmath>

namespace jig::app {
namespace {

QString shown(Kind kind, double v, const Wording& w) {
    return QString::fromStdString(show(kind, v, w));
}

/// A round step that makes at most `most` ticks over `range`.
double tick_step(double range, int most) {
    const double rough = range / std::max(1, most),
                 size = std::pow(10, std::floor(std::log10(std::max(1e-12, rough))));
    for (const double m : {1.0, 2.0, 5.0, 10.0}) {
        if (m * size >= rough) return m * size;
    }
    return 10 * size;
}

void heading(QPainter& p, const QRectF& where, const QString& text, const Ink& k) {
    p.setFont(word_font(11, true));
    p.setPen(k.ink);
    p.drawText(where, Qt::AlignLeft | Qt::AlignTop, text);
}

}  // namespace

void paint_days(QPainter& p, const QRectF& where, const run::Findings& run, const Ink& k, const Wording& w) {
    heading(p, where, QString("Day plan: %1 days to the first part").arg(run.plan.days), k);
    const double names = std::min(300.0, where.width() * 0.40);
    const QRectF area(where.left() + names, where.top() + 40, where.width() - names - 8, where.height() - 44);
    // Release coats of one go share a row, and so do passes of a coat and grits that follow each other.
    std::vector<QString> rows;
    std::vector<int> row_of(run.tasks.size());
    QString last;
    for (std::size_t i = 0; i < run.tasks.size(); ++i) {
        const auto& t = run.tasks[i];
        auto name = QString::fromStdString(worded(t.name, w));
        if (const auto on = name.indexOf(", on the "); t.stage == "release" && on >= 0)
            name = "release " + name.mid(on + 2);
        else if (t.name.find(", pass ") != std::string::npos)
            name = name.left(name.indexOf(", pass "));
        else if (t.name.find(", grit ") != std::string::npos)
            name = name.left(name.indexOf(", grit "));
        if (name != last || rows.empty()) rows.push_back(name);
        last = name;
        row_of[i] = static_cast<int>(rows.size()) - 1;
    }
    const double days = std::max(1, run.plan.days), line = area.height() / static_cast<double>(rows.size());
    const auto x = [&](double s) { return area.left() + s / 86400 / days * area.width(); };
    for (int d = 0; d < run.plan.days; ++d) {
        const QRectF day(x(d * 86400.0), area.top(), area.width() / days, area.height());
        p.fillRect(day, d % 2 ? k.paper : k.sheet);
        p.setPen(k.rule);
        p.drawLine(day.topLeft(), day.bottomLeft());
        p.setPen(k.faint);
        p.setFont(figure_font(8.5));
        if (days <= 24 || d % 5 == 0)
            p.drawText(QRectF(day.left(), where.top() + 22, day.width(), 16), Qt::AlignCenter,
                       QString::number(d + 1));
    }
    p.setFont(word_font(std::clamp(line * 0.55, 6.5, 10.0)));
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const double y = area.top() + line * static_cast<double>(r);
        p.setPen(k.rule);
        p.drawLine(QPointF(where.left(), y + line), QPointF(area.right(), y + line));
        p.setPen(k.ink);
        p.drawText(QRectF(where.left(), y, names - 8, line), Qt::AlignVCenter | Qt::AlignLeft,
                   p.fontMetrics().elidedText(rows[r], Qt::ElideRight, static_cast<int>(names) - 10));
    }
    for (const auto& b : run.plan.bookings) {
        const double y = area.top() + line * row_of[b.task] + line / 2, wait = run.tasks[b.task].wait;
        if (wait > 0) {
            p.setPen(QPen(k.tape.darker(115), 1.6));
            p.drawLine(QPointF(x(b.to), y), QPointF(x(b.to + wait), y));
        }
        p.fillRect(QRectF(x(b.from), y - line * 0.30, std::max(2.0, x(b.to) - x(b.from)), line * 0.6),
                   k.petrol);
    }
}

void paint_cost(QPainter& p, const QRectF& where, const run::Findings& run, const Ink& k, const Wording& w) {
    const int made = run.made;
    heading(p, where, "Cost of one part against the number made", k);
    const QRectF area(where.left() + 62, where.top() + 30, where.width() - 90, where.height() - 62);
    const int most = std::max(20, 2 * made);
    const double top = std::min(run.cost_per_part(1),
                                4 * run.cost_per_part(std::max(1, made)) + run.ledgers[0].total()),
                 step = tick_step(top, 5);
    const auto at = [&](double n, double cost) {
        return QPointF(area.left() + (n - 1) / (most - 1) * area.width(),
                       area.bottom() - cost / top * area.height());
    };
    p.setFont(figure_font(8.5));
    for (double v = 0; v <= top; v += step) {
        p.setPen(k.rule);
        p.drawLine(at(1, v), at(most, v));
        p.setPen(k.faint);
        p.drawText(QRectF(where.left(), at(1, v).y() - 8, 56, 16), Qt::AlignRight | Qt::AlignVCenter,
                   shown(Kind::money, v, w));
    }
    const double n_step = tick_step(most, 8);
    for (double n = n_step; n <= most; n += n_step)
        p.drawText(QRectF(at(n, 0).x() - 20, area.bottom() + 4, 40, 14), Qt::AlignCenter,
                   QString::number(n, 'f', 0));
    p.setFont(word_font(9.5));
    p.drawText(QRectF(area.left(), area.bottom() + 16, area.width(), 16), Qt::AlignRight, "parts made");
    p.save();
    p.setClipRect(area.adjusted(-1, -1, 1, 1));
    const double each = run.ledgers[0].total();
    p.setPen(QPen(k.faint, 1.2, Qt::DashLine));
    p.drawLine(at(1, each), at(most, each));
    QPolygonF curve;
    for (int n = 1; n <= most; ++n) curve << at(n, run.cost_per_part(n));
    p.setPen(QPen(k.petrol, 2.2));
    p.drawPolyline(curve);
    p.setPen(QPen(k.tape, 1.4));
    p.drawLine(at(made, 0), at(made, top));
    p.restore();
    p.setPen(k.faint);
    p.drawText(QRectF(at(most, each).x() - 260, at(most, each).y() + 3, 256, 16), Qt::AlignRight,
               "each part alone " + shown(Kind::money, each, w));
    p.setPen(k.ink);
    p.setBrush(k.tape);
    const auto mark = at(made, run.cost_per_part(made));
    p.drawEllipse(mark, 4.5, 4.5);
    p.setFont(word_font(10, true));
    p.drawText(QRectF(mark.x() + 8, mark.y() - 24, 260, 18), Qt::AlignLeft,
               QString("%1 parts: %2 each").arg(made).arg(shown(Kind::money, run.cost_per_part(made), w)));
}

void paint_growth(QPainter& p, const QRectF& where, const heat::Findings& heat, double tolerance,
                  const Ink& k, const Wording& w) {
    heading(p, where, "Size over " + shown(Kind::length, heat.length, w) + ", from plug to part", k);
    const auto& c = heat.chain;
    const std::array<std::tuple<const char*, double, double>, 5> steps{
        {{"plug in the room", c.room, 0.0},
         {"plug where the shell gels", c.shell_gel, heat.sizes.plug_hot},
         {"tool in the room", c.room, heat.sizes.tool_room},
         {"tool where the part gels", c.part_gel, heat.sizes.tool_hot},
         {"part in the room", c.room, heat.sizes.part_room}}};
    double reach = tolerance;
    for (const auto& s : steps) reach = std::max(reach, std::abs(std::get<2>(s)) * heat.length);
    reach *= 1.25;
    const QRectF area(where.left() + 20, where.top() + 40, where.width() - 40, where.height() - 100);
    const auto y = [&](double d) { return area.center().y() - d / reach * area.height() / 2; };
    auto band = k.moss;
    band.setAlpha(40);
    p.fillRect(QRectF(area.left(), y(tolerance), area.width(), y(-tolerance) - y(tolerance)), band);
    p.setPen(QPen(k.ink, 1));
    p.drawLine(QPointF(area.left(), y(0)), QPointF(area.right(), y(0)));
    p.setFont(word_font(9.5));
    p.setPen(k.faint);
    p.drawText(QRectF(area.right() - 304, y(0) - 18, 300, 16), Qt::AlignRight, "the drawing");
    p.drawText(QRectF(area.left() + 4, y(tolerance) - 17, 300, 16), Qt::AlignLeft,
               "tolerance ±" + shown(Kind::thickness, tolerance, w));
    QPolygonF path;
    for (std::size_t i = 0; i < steps.size(); ++i)
        path << QPointF(area.left() + area.width() * (static_cast<double>(i) + 0.5) / 5,
                        y(std::get<2>(steps[i]) * heat.length));
    p.setPen(QPen(k.petrol, 2));
    p.drawPolyline(path);
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const auto& [name, kelvins, size] = steps[i];
        const double d = size * heat.length;
        const auto at = path[static_cast<qsizetype>(i)];
        p.setPen(k.ink);
        p.setBrush(i == 4 ? k.tape : k.petrol);
        p.drawEllipse(at, 5, 5);
        p.setFont(figure_font(10));
        p.drawText(QRectF(at.x() - 60, at.y() + (d < 0 ? 8 : -26), 120, 18), Qt::AlignCenter,
                   (d > 0 ? "+" : "") + shown(Kind::thickness, d, w));
        p.setFont(word_font(9.5));
        const QRectF foot(area.left() + area.width() * static_cast<double>(i) / 5, area.bottom() + 12,
                          area.width() / 5, 40);
        p.drawText(foot, Qt::AlignHCenter | Qt::TextWordWrap,
                   QString("%1\n%2").arg(name, shown(Kind::temperature, kelvins, w)));
    }
}

void paint_log(QPainter& p, const QRectF& where, const log::Choices& log, double planned, const Ink& k,
               const Wording& w) {
    heading(p, where, "Mass of each pull", k);
    std::vector<std::pair<int, double>> weighed;
    int pulls = 0;
    for (const auto& e : log.entries) {
        if (e.kind != EntryKind::pull) continue;
        ++pulls;
        if (e.mass > 0) weighed.emplace_back(pulls, e.mass);
    }
    const QRectF area(where.left() + 70, where.top() + 40, where.width() - 100, where.height() - 90);
    if (weighed.empty()) {
        p.setFont(word_font(10.5));
        p.setPen(k.faint);
        p.drawText(where, Qt::AlignCenter,
                   "No pull has been weighed yet. \"Note a pull\" in the slip starts the record.");
        return;
    }
    double low = planned, high = planned;
    for (const auto& [n, m] : weighed) {
        low = std::min(low, m);
        high = std::max(high, m);
    }
    const double pad = std::max(0.02 * high, 0.3 * (high - low));
    low -= pad;
    high += pad;
    const auto at = [&](double n, double m) {
        return QPointF(area.left() + (n - 0.5) / std::max(6, pulls) * area.width(),
                       area.bottom() - (m - low) / (high - low) * area.height());
    };
    const double step = tick_step(high - low, 5);
    p.setFont(figure_font(9));
    for (double v = std::ceil(low / step) * step; v <= high; v += step) {
        p.setPen(k.rule);
        p.drawLine(QPointF(area.left(), at(1, v).y()), QPointF(area.right(), at(1, v).y()));
        p.setPen(k.faint);
        p.drawText(QRectF(where.left(), at(1, v).y() - 8, 62, 16), Qt::AlignRight | Qt::AlignVCenter,
                   shown(Kind::mass, v, w));
    }
    p.setPen(QPen(k.moss, 1.6, Qt::DashLine));
    p.drawLine(QPointF(area.left(), at(1, planned).y()), QPointF(area.right(), at(1, planned).y()));
    p.setFont(word_font(9.5));
    p.drawText(QRectF(area.right() - 200, at(1, planned).y() - 18, 198, 16), Qt::AlignRight,
               "plan " + shown(Kind::mass, planned, w));
    QPolygonF path;
    for (const auto& [n, m] : weighed) path << at(n, m);
    p.setPen(QPen(k.petrol, 1.6));
    p.drawPolyline(path);
    for (std::size_t i = 0; i < weighed.size(); ++i) {
        p.setPen(k.ink);
        p.setBrush(k.petrol);
        p.drawEllipse(path[static_cast<qsizetype>(i)], 5, 5);
        p.drawText(QRectF(path[static_cast<qsizetype>(i)].x() - 30, area.bottom() + 6, 60, 16),
                   Qt::AlignCenter, QString("pull %1").arg(weighed[i].first));
    }
}

bool has_chart(Stage stage) {
    return stage == Stage::run || stage == Stage::heat || stage == Stage::log;
}

void ChartView::show_chart(Job job, Findings findings, Stage stage, const Ink& ink, const Wording& wording) {
    job_ = std::move(job);
    findings_ = std::move(findings);
    stage_ = stage;
    ink_ = &ink;
    wording_ = wording;
    update();
}

void ChartView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), ink_->paper);
    const QRectF area = QRectF(rect()).adjusted(18, 14, -18, -10);
    if (stage_ == Stage::run && findings_.run) {
        const double split = area.height() * 0.62;
        paint_days(p, QRectF(area.left(), area.top(), area.width(), split - 8), *findings_.run, *ink_,
                   wording_);
        paint_cost(p, QRectF(area.left(), area.top() + split + 6, area.width(), area.height() - split - 6),
                   *findings_.run, *ink_, wording_);
    } else if (stage_ == Stage::heat && findings_.heat) {
        paint_growth(p, area, *findings_.heat, job_.brief.tolerance, *ink_, wording_);
    } else if (stage_ == Stage::log && findings_.part) {
        paint_log(p, area, job_.log, findings_.part->mass, *ink_, wording_);
    } else {
        p.setFont(word_font(10.5));
        p.setPen(ink_->faint);
        p.drawText(area, Qt::AlignCenter,
                   "Nothing to draw yet: see the calls of the stages before this one.");
    }
}

}  // namespace jig::app
