#include "app/print/sheets.hpp"

#include <cmath>
#include <QBuffer>
#include <QSvgGenerator>

#include "app/charts/charts.hpp"
#include "app/charts/days.hpp"
#include "app/print/paper.hpp"
#include "app/print/stage_sheets.hpp"
#include "app/ribbon/ribbon.hpp"

namespace jig::app {
namespace {

int draw_once(QPagedPaintDevice& device, const Job& job, const Findings& f, const SheetOptions& options,
              int pages) {
    SheetPen pen(device, job, options, pages);
    if (options.only)
        draw_stage(pen, job, f, *options.only, options.wording);
    else
        draw_all(pen, job, f, options.wording);
    return pen.pages();
}

/// A drawing as SVG, in px.
void write_svg(const QSize& size, const QString& title, const QString& path,
               const std::function<void(QPainter&, const QRectF&)>& draw) {
    const OnPaper paper;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    QSvgGenerator svg;
    svg.setOutputDevice(&buffer);
    svg.setSize(size);
    svg.setViewBox(QRect(QPoint(0, 0), size));
    svg.setTitle(title);
    {
        QPainter p(&svg);
        const QRectF all(QPointF(0, 0), QSizeF(size));
        p.fillRect(all, ink(Light::day).sheet);
        draw(p, all);
    }
    write_bytes(bytes, path);
}

}  // namespace

void draw_sheets(QPagedPaintDevice& device, const Job& job, const Findings& f, const SheetOptions& options) {
    if (!f.complete())
        throw InputError("sheets", "the job has stages without figures",
                         "mend the stops on the job card first");
    const OnPaper paper;
    // Drawn once beside, so that each page knows how many there are.
    QByteArray bytes;
    QBuffer aside(&bytes);
    aside.open(QIODevice::WriteOnly);
    QPdfWriter counted(&aside);
    set_up(counted, QPageSize(options.page), kSheetMargin, {}, kSheetDots);
    draw_once(device, job, f, options, draw_once(counted, job, f, options, 1));
}

void print_sheets(const Job& job, const Findings& f, const QString& path, const SheetOptions& options) {
    QByteArray bytes;
    {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        set_up(writer, QPageSize(options.page), kSheetMargin, QString::fromStdString(job.brief.job),
               kSheetDots);
        draw_sheets(writer, job, f, options);
    }
    write_bytes(bytes, path);
}

void write_section_svg(const Job& job, const Findings& f, Stage stage, const QString& path,
                       const Wording& wording) {
    const auto section = section_at_cut(job, f, stage);
    if (section.empty())
        throw InputError("section", "there is no section to draw", "mend the stops on the job card first");
    write_svg(
        {1100, 360}, QString::fromStdString(job.brief.job + ", section at the cut"), path,
        [&](QPainter& p, const QRectF& all) { paint_section(p, all, section, ink(Light::day), wording); });
}

void write_charts_svg(const Job& job, const Findings& f, Stage stage, const QString& path,
                      const Wording& wording) {
    const auto plots = plots_of(job, f, stage, wording);
    if (plots.empty())
        throw InputError("chart", "there is no chart to draw", "mend the stops on the job card first");
    constexpr double kWide = 1100, kPlot = 420, kRow = 20, kHead = 30;
    const auto rows = stage == Stage::run ? day_rows(*f.run, wording) : std::vector<DayRow>{};
    const double days = rows.empty() ? 0 : kHead + kRow * static_cast<double>(rows.size() + 1);
    write_svg(
        QSize(static_cast<int>(kWide), static_cast<int>(days + kPlot * static_cast<double>(plots.size()))),
        QString::fromStdString(job.brief.job) + ", " + name_of(stage).said, path,
        [&](QPainter& p, const QRectF&) {
            const auto& k = ink(Light::day);
            if (!rows.empty())
                paint_days(p, QRectF(14, 10, kWide - 28, days - 14), rows, f.run->plan.days, k, kRow);
            double y = days;
            for (const auto& plot : plots) {
                paint_plot(p, QRectF(14, y + 8, kWide - 28, kPlot - 16), plot, k, wording);
                y += kPlot;
            }
        });
}

}  // namespace jig::app
