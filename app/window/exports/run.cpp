// Sheets, tables and charts of the whole job as files.
#include "app/charts/charts.hpp"
#include "app/print/sheets.hpp"
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"

namespace jig::app {
namespace {

template <QPageSize::PageSizeId page>
QString sheets_pdf(const Outgoing& out, Progress& progress) {
    progress.report(0.1, "drawing the sheets");
    print_sheets(out.job, out.findings, out.path, {page, out.wording});
    return "Printed: " + out.path;
}

QString materials(const Outgoing& out, Progress&) {
    needed(out.findings.run, "run");
    write_atomically(materials_csv(out.findings), out.path.toStdString());
    return written(out.path);
}

QString days(const Outgoing& out, Progress&) {
    needed(out.findings.run, "run");
    write_atomically(days_csv(out.findings), out.path.toStdString());
    return written(out.path);
}

QString complete(const Job&, const Findings& f) {
    return sheets_missing(f);
}

template <Stage stage>
QString charts_svg(const Outgoing& out, Progress&) {
    write_charts_svg(out.job, out.findings, stage, out.path, out.wording);
    return written(out.path);
}

template <Stage stage>
QString chart_there(const Job& job, const Findings& f) {
    return plots_of(job, f, stage, {}).empty() ? QString("this stage has no figures yet") : QString();
}

}  // namespace

std::vector<Export> exports_of_run() {
    return {
        {"print-a4", Stage::run, "Write all sheets as PDF, A4…", "PDF (*.pdf)", ".pdf", complete, false,
         sheets_pdf<QPageSize::A4>},
        {"print-letter", Stage::run, "Write all sheets as PDF, Letter…", "PDF (*.pdf)", ".pdf", complete,
         false, sheets_pdf<QPageSize::Letter>},
        {"x-materials", Stage::run, "Export the materials as CSV…", "CSV (*.csv)", ".csv", complete, false,
         materials},
        {"x-days", Stage::run, "Export the day plan as CSV…", "CSV (*.csv)", ".csv", complete, false, days},
        {"x-chart-run", Stage::run, "Export the charts of days and cost as SVG…", "SVG (*.svg)", ".svg",
         chart_there<Stage::run>, false, charts_svg<Stage::run>},
        {"x-chart-bag", Stage::bag, "Export the charts of pump-down and drop test as SVG…", "SVG (*.svg)",
         ".svg", chart_there<Stage::bag>, false, charts_svg<Stage::bag>},
        {"x-chart-heat", Stage::heat, "Export the chart of sizes as SVG…", "SVG (*.svg)", ".svg",
         chart_there<Stage::heat>, false, charts_svg<Stage::heat>},
        {"x-chart-log", Stage::log, "Export the chart of masses as SVG…", "SVG (*.svg)", ".svg",
         chart_there<Stage::log>, false, charts_svg<Stage::log>},
    };
}

}  // namespace jig::app
