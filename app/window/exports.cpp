#include "app/window/exports.hpp"

#include <QFileInfo>

#include "app/print/sheets.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/nest/slab_sheets.hpp"
#include "core/stages/shape/starter_meshes.hpp"

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
    print_full_size(slabs_at_full_size(needed(out.findings.plug, "plug"), out.wording), "Slabs at full size",
                    out.path, progress);
    return written(out.path);
}

/// "NAME-1", "NAME-2" beside each other in the folder of `path`, without its ending.
QString numbered(const QString& path, std::size_t i) {
    return QString("%1/%2-%3").arg(QFileInfo(path).path(), QFileInfo(path).completeBaseName()).arg(i + 1);
}

void write_sheets(const SheetSet& sheets, const QString& path, Progress& progress) {
    for (std::size_t i = 0; i < sheets.sheets.size(); ++i) {
        progress.report(static_cast<double>(i) / static_cast<double>(sheets.sheets.size()), "writing sheets");
        const auto name = numbered(path, i);
        write_sheet_dxf(sheets, i, (name + ".dxf").toStdString());
        write_atomically(sheet_svg(sheets, i), (name + ".svg").toStdString());
    }
}

const std::vector<split::Board>& boards_of(const Outgoing& out) {
    const auto& boards = needed(out.findings.split, "split").boards;
    if (boards.empty())
        throw InputError("split", "a mould in one piece has no parting board", "split it first");
    return boards;
}

QString boards_pdf(const Outgoing& out, Progress& progress) {
    print_full_size(boards_at_full_size(boards_of(out), out.wording), "Parting boards at full size", out.path,
                    progress);
    return written(out.path);
}

QString boards_on_stock(const Outgoing& out, Progress& progress) {
    const auto sheets = split::boards_on_sheets(boards_of(out));
    write_sheets(sheets, out.path, progress);
    return QString("%1 boards written as DXF and SVG").arg(sheets.sheets.size());
}

QString pieces(const Outgoing& out, Progress& progress) {
    const auto& split = needed(out.findings.split, "split");
    if (split.one_piece())
        throw InputError("split", "the mould is one piece", "split it first, or export the shape");
    const auto ending = QFileInfo(out.path).suffix();
    for (std::size_t i = 0; i < split.set.pieces.size(); ++i) {
        progress.report(static_cast<double>(i) / static_cast<double>(split.set.pieces.size()),
                        "writing pieces");
        const auto path = (numbered(out.path, i) + "." + ending).toStdString();
        write_atomically(write_mesh(split.set.pieces[i].mesh, path), path);
    }
    return QString("%1 pieces written").arg(split.set.pieces.size());
}

QString seams_step(const Outgoing& out, Progress&) {
    const auto& split = needed(out.findings.split, "split");
    if (split.one_piece())
        throw InputError("split", "the mould is one piece and has no seam", "split it first");
    write_atomically(write_step_wires(split.set.seams), out.path.toStdString());
    return written(out.path);
}

/// A turned profile leaves as the faces that it is, everything else as its facets.
QString turned_step(const Outgoing& out, Progress&) {
    if (out.job.shape.kind != ShapeKind::turned)
        throw InputError("shape", "only a turned shape is known exactly enough for STEP",
                         "export this one as STL, OBJ or PLY");
    write_atomically(write_step_turned(shape::turned_profile(out.job.shape.turned)), out.path.toStdString());
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
    write_sheets(sheets, out.path, progress);
    return QString("%1 sheets written%2")
        .arg(sheets.sheets.size())
        .arg(sheets.too_large.empty()
                 ? QString()
                 : QString(", %1 slabs are larger than a sheet").arg(sheets.too_large.size()));
}

QString shape_mesh(const Outgoing& out, Progress&) {
    const auto path = out.path.toStdString();
    write_atomically(write_mesh(needed(out.findings.shape, "shape").mesh, path), path);
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
        {"x-stl", "Export the shape as a mesh…", "Meshes (*.stl *.obj *.ply)", ".stl", shape_mesh},
        {"x-step", "Export the turned shape as STEP…", "STEP (*.step)", ".step", turned_step},
        {"x-pieces", "Export the mould pieces as meshes…", "Meshes (*.stl *.obj *.ply)", ".stl", pieces},
        {"x-seams", "Export the seams as STEP…", "STEP (*.step)", ".step", seams_step},
        {"x-boards-pdf", "Export the parting boards at full size as PDF…", "PDF (*.pdf)", ".pdf", boards_pdf},
        {"x-boards-dxf", "Export the parting boards as DXF and SVG…", "DXF (*.dxf)", ".dxf", boards_on_stock},
    };
    return all;
}

}  // namespace jig::app
