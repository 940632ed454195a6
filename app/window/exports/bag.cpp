// The bag's film and the hoses of an infusion as files.
#include "app/print/full_size.hpp"
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/stages/bag/front.hpp"

namespace jig::app {
namespace {

QString film_dxf(const Outgoing& out, Progress& progress) {
    const auto& bag = needed(out.findings.bag, "bag");
    if (!bag.measured)
        throw InputError("bag", "there is no face to measure a film on",
                         "mend the stops on the job card first");
    write_sheets(bag::closing_sheet(bag, out.job.edge.tape_land), out.path, progress);
    return (bag.wrap.sheets > 0
                ? QString("The film is written as DXF and SVG, its seams marked: ")
                : QString("The film's sheet is written as DXF and SVG, each pleat marked: ")) +
           went_to(out.path, 1, "dxf");
}

SheetSet front(const Outgoing& out) {
    return bag::front_sheet(needed(out.findings.flow, "bag"), out.wording);
}

QString front_dxf(const Outgoing& out, Progress& progress) {
    write_sheets(front(out), out.path, progress);
    return "Hoses and the front's lines are written as DXF and SVG: " + went_to(out.path, 1, "dxf");
}

QString front_pdf(const Outgoing& out, Progress& progress) {
    const auto set = front(out);
    FullSize page{{}, "hoses and the front of the resin", {}};
    for (const auto& piece : set.sheets.front().pieces) {
        // The rims have no name: they are what is drawn round.
        auto& lines = piece.name.empty() ? page.outline : page.engraved;
        lines.insert(lines.end(), piece.engraved.begin(), piece.engraved.end());
        if (!piece.name.empty()) page.labels.emplace_back(piece.mark, QString::fromStdString(piece.name));
    }
    print_full_size({page}, "Hoses and front at full size", out.path, out.tiles, progress);
    return written(out.path);
}

QString hoses_csv(const Outgoing& out, Progress&) {
    write_atomically(bag::opening_table(needed(out.findings.flow, "bag"), out.wording),
                     out.path.toStdString());
    return written(out.path);
}

QString layers_csv(const Outgoing& out, Progress&) {
    write_atomically(layer_table(needed(out.findings.bag, "bag").layers), out.path.toStdString());
    return written(out.path);
}

QString bag_there(const Job&, const Findings& f) {
    return f.bag && f.bag->closed ? QString() : "the part has no bag";
}

QString film_there(const Job&, const Findings& f) {
    return f.bag && f.bag->measured ? QString() : "no film is measured for this job";
}

QString flow_there(const Job& job, const Findings& f) {
    if (!infuses(job, infused_shown(job))) return "neither the part nor the shell is infused";
    return f.flow ? QString() : "the resin has not been followed";
}

}  // namespace

std::vector<Export> exports_of_bag() {
    return {
        {"x-film", Stage::bag, "Export the bag's film sheet as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         film_there, true, film_dxf},
        {"x-layers", Stage::bag, "Export the bag's layers as they are cut as CSV…", "CSV (*.csv)", ".csv",
         bag_there, false, layers_csv},
        {"x-front-dxf", Stage::bag, "Export hoses and front as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         flow_there, true, front_dxf},
        {"x-front-pdf", Stage::bag, "Export hoses and front at full size as PDF…", kFullSize, ".pdf",
         flow_there, false, front_pdf},
        {"x-hoses", Stage::bag, "Export the table of hoses as CSV…", "CSV (*.csv)", ".csv", flow_there, false,
         hoses_csv},
    };
}

}  // namespace jig::app
