// One chart as values: drawn on screen and paper alike, read at a place, copied as text.
#pragma once

#include <optional>
#include <QPainter>
#include <QPointF>
#include <QString>
#include <vector>

#include "app/theme/ink.hpp"
#include "core/base/units.hpp"

namespace jig::app {

/// A figure as it is said.
[[nodiscard]] QString shown(Kind kind, double value, const Wording& wording);

/// An angle where the little that it differs by counts.
[[nodiscard]] QString hundredths(double angle);

/// The inks a chart speaks in; a line's name and dash tell it apart without them.
enum class Tone { petrol, ink, faint, tape, moss, clay };

/// An axis in SI. With `places` it has names instead of figures: place i stands at i.
struct Axis {
    QString name;
    Kind kind = Kind::count;
    double low = 0, high = 1;
    std::vector<QString> places;
    bool operator==(const Axis&) const = default;
};

struct PlotLine {
    QString name;
    std::vector<QPointF> points;  ///< SI, x never falls
    Tone tone = Tone::petrol;
    bool dashed = false, marks = false;
    bool operator==(const PlotLine&) const = default;
};

/// A stretch of y that is meant, such as a tolerance.
struct PlotBand {
    double low = 0, high = 0;
    QString name;
    bool operator==(const PlotBand&) const = default;
};

/// A point that the chart is about, with its words.
struct PlotNote {
    QPointF at;
    QString words;
    bool operator==(const PlotNote&) const = default;
};

/// A corner of a chart that hands may draw elsewhere.
struct PlotGrip {
    QPointF at;     ///< SI
    QString words;  ///< what it is
    QPointF step;   ///< the least that counts, SI: what a key moves it by
    bool operator==(const PlotGrip&) const = default;
};

struct Plot {
    QString title;
    Axis x, y;
    std::vector<PlotLine> lines;
    std::vector<PlotBand> bands;
    std::vector<PlotNote> notes;
    QString nothing;     ///< said in place of the lines where there are none
    bool aside = false;  ///< stands in the slip with the words that it is about, not on the stand
    std::vector<PlotGrip> grips = {};
    QString key = {};  ///< whose they are
    bool operator==(const Plot&) const = default;
};

/// Round values along an axis, `most` at most, round in the unit that is shown.
std::vector<double> ticks_of(const Axis& axis, int most, const Wording& wording);

/// Every x at which a line has a point, rising, each once.
std::vector<double> stops_of(const Plot& plot);

/// A line's y between its points; none beyond them.
std::optional<double> value_at(const PlotLine& line, double x);

/// What is read at x: the place, then each line's name and value.
QString reading_of(const Plot& plot, double x, const Wording& wording);

/// The table behind the lines, tab between cells, headings with units first; a row for each stop.
QString text_of(const Plot& plot, const Wording& wording);

/// Where the lines are drawn within `where`, axes and title outside of it.
QRectF plot_area(const QRectF& where, const Plot& plot);

/// Where a place of it is drawn within `where`, and what place that is.
QPointF drawn_at(const QRectF& where, const Plot& plot, const QPointF& at);
QPointF place_at(const QRectF& where, const Plot& plot, const QPointF& drawn);

/// Draws the chart; `read` sets a hairline with the values there.
void paint_plot(QPainter& painter, const QRectF& where, const Plot& plot, const Ink& ink,
                const Wording& wording, std::optional<double> read = {});

}  // namespace jig::app
