// Flange, section, back and trial as files.
#include "app/print/full_size.hpp"
#include "app/print/sheets.hpp"
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"

namespace jig::app {
namespace {

SheetSet drilling(const Outgoing& out) {
    return edge::drilling_sheet(out.job.edge, needed(out.findings.edge, "edge"), out.shop);
}

QString drilling_dxf(const Outgoing& out, Progress& progress) {
    write_sheets(drilling(out), out.path, progress);
    return "The drilling template is written as DXF and SVG: " + went_to(out.path, 1, "dxf");
}

QString drilling_pdf(const Outgoing& out, Progress& progress) {
    const auto set = drilling(out);
    FullSize page{{}, "drilling template of the flange", {}};
    for (const auto& piece : set.sheets.front().pieces) {
        page.outline.insert(page.outline.end(), piece.loops.begin(), piece.loops.end());
        page.engraved.insert(page.engraved.end(), piece.engraved.begin(), piece.engraved.end());
        if (piece.loops.empty()) page.labels.emplace_back(piece.mark, QString::fromStdString(piece.name));
    }
    print_full_size({page}, "Drilling template at full size", out.path, out.tiles, progress);
    return written(out.path);
}

QString section(const Outgoing& out, Progress&) {
    write_section_svg(out.job, out.findings, out.stage, out.path, out.wording);
    return written(out.path);
}

const back::Crate& crate_of(const Outgoing& out) {
    const auto& crate = needed(out.findings.back, "back").crate;
    if (!crate || crate->ribs.empty())
        throw InputError("back", "this back has no ribs to cut", "take an egg-crate or foam blocks");
    return *crate;
}

QString ribs_on_sheets(const Outgoing& out, Progress& progress) {
    crate_of(out);  // says what there is instead where there are no ribs
    const auto& sheets = needed(out.findings.rib_sheets, "back");
    if (sheets.sheets.empty())
        throw InputError("back", "no rib goes onto one sheet of this stock", "choose larger stock");
    write_sheets(sheets, out.path, progress);
    return said_of(sheets, out);
}

QString ribs_pdf(const Outgoing& out, Progress& progress) {
    print_full_size(pieces_at_full_size(back::cut_pieces(crate_of(out)), out.wording),
                    "The back's ribs at full size", out.path, out.tiles, progress);
    return written(out.path);
}

/// The tool tried out on the fine mesh as a table.
QString trial_csv(const Outgoing& out, Progress&) {
    write_atomically(trial_table(needed(out.findings.trial, "back")), out.path.toStdString());
    return written(out.path);
}

QString edge_there(const Job&, const Findings& f) {
    return f.edge ? QString() : "the edge has no figures yet";
}

QString crate(const Job&, const Findings& f) {
    if (!f.back) return "the back has no figures yet";
    return f.back->crate && !f.back->crate->ribs.empty() ? QString() : "this back has no ribs";
}

QString tried(const Job&, const Findings& f) {
    return f.trial ? QString() : "the tool has not been tried out yet";
}

}  // namespace

std::vector<Export> exports_of_tool() {
    return {
        {"x-drilling-dxf", Stage::edge, "Export the flange's drilling template as DXF and SVG…",
         "DXF (*.dxf)", ".dxf", edge_there, true, drilling_dxf},
        {"x-drilling-pdf", Stage::edge, "Export the flange's drilling template at full size as PDF…",
         kFullSize, ".pdf", edge_there, false, drilling_pdf},
        {"x-section", Stage::shell, "Export the section as SVG…", "SVG (*.svg)", ".svg", shape_there, false,
         section},
        {"x-ribs-dxf", Stage::back, "Export the back's ribs on sheets as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         crate, true, ribs_on_sheets},
        {"x-ribs-pdf", Stage::back, "Export the back's ribs at full size as PDF…", kFullSize, ".pdf", crate,
         false, ribs_pdf},
        {"x-trial", Stage::back, "Export the tool's trial as CSV…", "CSV (*.csv)", ".csv", tried, false,
         trial_csv},
    };
}

}  // namespace jig::app
