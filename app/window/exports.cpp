#include "app/window/exports.hpp"

#include <QFileInfo>

#include "app/print/sheets.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/nest/slab_sheets.hpp"

namespace jig::app {
namespace {

QString written(const QString& path) {
    return "Written: " + path;
}

template <class Found>
const Found& needed(const std::shared_ptr<const Found>& found, const char* stage) {
    if (!found)
        throw InputError(stage, "this stage has no figures to export",
                         "mend the stops on the job card first");
    return *found;
}

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

QString section(const Outgoing& out, Progress&) {
    write_section_svg(out.job, out.findings, out.stage, out.path, out.wording);
    return written(out.path);
}

QString slabs_pdf(const Outgoing& out, Progress& progress) {
    progress.report(0.1, "drawing the slabs");
    print_slabs(out.findings, out.path, out.wording);
    return written(out.path);
}

QString slabs_on_sheets(const Outgoing& out, Progress& progress) {
    const auto& plug = needed(out.findings.plug, "plug");
    SheetRules rules;
    rules.length = plug.board.sheet_length;
    rules.width = plug.board.sheet_width;
    rules.margin = out.job.plug.margin;
    const auto sheets = lay_onto_sheets(plug.stack, rules, progress);
    if (sheets.sheets.empty())
        throw InputError("plug", "no slab goes onto one sheet of this stock", "choose larger stock");
    const auto base = QFileInfo(out.path).path() + "/" + QFileInfo(out.path).completeBaseName();
    for (std::size_t i = 0; i < sheets.sheets.size(); ++i) {
        const auto name = QString("%1-%2").arg(base).arg(i + 1);
        write_sheet_dxf(sheets, i, (name + ".dxf").toStdString());
        write_atomically(sheet_svg(sheets, i), (name + ".svg").toStdString());
    }
    return QString("%1 sheets written%2")
        .arg(sheets.sheets.size())
        .arg(sheets.too_large.empty()
                 ? QString()
                 : QString(", %1 slabs are larger than a sheet").arg(sheets.too_large.size()));
}

QString shape_stl(const Outgoing& out, Progress&) {
    write_atomically(write_stl_binary(needed(out.findings.shape, "shape").mesh), out.path.toStdString());
    return written(out.path);
}

}  // namespace

const std::vector<Export>& exports() {
    static const std::vector<Export> all{
        {"print-a4", "Print the sheets, A4…", "PDF (*.pdf)", ".pdf", sheets_pdf<QPageSize::A4>},
        {"print-letter", "Print the sheets, Letter…", "PDF (*.pdf)", ".pdf", sheets_pdf<QPageSize::Letter>},
        {"x-materials", "Export the materials as CSV…", "CSV (*.csv)", ".csv", materials},
        {"x-days", "Export the day plan as CSV…", "CSV (*.csv)", ".csv", days},
        {"x-section", "Export the section as SVG…", "SVG (*.svg)", ".svg", section},
        {"x-slabs-pdf", "Export the slabs at full size as PDF…", "PDF (*.pdf)", ".pdf", slabs_pdf},
        {"x-slabs-dxf", "Export the slabs on sheets as DXF and SVG…", "DXF (*.dxf)", ".dxf", slabs_on_sheets},
        {"x-stl", "Export the shape as STL…", "STL (*.stl)", ".stl", shape_stl},
    };
    return all;
}

}  // namespace jig::app
