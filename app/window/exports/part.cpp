// The part's plies cut flat as files.
#include <fmt/format.h>
#include <QFileInfo>

#include "app/print/full_size.hpp"
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/stages/part/kit.hpp"
#include "core/stages/part/panels.hpp"
#include "core/stages/part/trial.hpp"

namespace jig::app {
namespace {

part::Kit kit_of(const Outgoing& out, Progress& progress) {
    const auto& part = needed(out.findings.part, "part");
    const auto& cut = out.job.part.kit;
    return part::kit(out.job.part, *part.draped, needed(out.findings.edge, "edge").tool->frame, out.shop,
                     cut.trim, cut.lap, progress);
}

/// Beside the others, by its material.
QString path_of(const Outgoing& out, const std::string& material) {
    const QFileInfo named(out.path);
    QString cloth = QString::fromStdString(material);
    for (auto& c : cloth) {
        if (!c.isLetterOrNumber()) c = '-';
    }
    return named.path() + "/" + named.completeBaseName() + "-" + cloth + "." + named.suffix();
}

QString kit_dxf(const Outgoing& out, Progress& progress) {
    const auto kit = kit_of(out, progress);
    QStringList said;
    for (const auto& roll : kit.rolls) {
        write_sheets(roll.sheets, path_of(out, roll.material), progress);
        said << QString("%1 of %2")
                    .arg(QString::fromStdString(show(Kind::length, roll.metres, out.wording)),
                         QString::fromStdString(roll.material));
    }
    return QString("%1 pieces are written as DXF and SVG, %2 larger all round: %3")
        .arg(kit.pieces.size())
        .arg(QString::fromStdString(show(Kind::length, out.job.part.kit.trim, out.wording)), said.join(", "));
}

QString kit_pdf(const Outgoing& out, Progress& progress) {
    std::vector<CutPiece> pieces;
    for (const auto& p : kit_of(out, progress).pieces) {
        CutPiece cut;
        cut.name = p.name;
        cut.outline = p.outline;
        cut.words = p.material + fmt::format(", laid at {:.0f}°", degrees(p.angle));
        pieces.push_back(std::move(cut));
    }
    print_full_size(pieces_at_full_size(pieces, out.wording), "Plies of the part at full size", out.path,
                    out.tiles, progress);
    return written(out.path);
}

QString panels_dxf(const Outgoing& out, Progress& progress) {
    const auto& panels = needed(out.findings.core_panels, "part");
    QStringList said;
    for (const auto& stock : panels.stocks) {
        write_sheets(stock.sheets, path_of(out, stock.material), progress);
        said << QString("%1 of %2")
                    .arg(stock.sheets.sheets.size())
                    .arg(QString::fromStdString(stock.material));
    }
    return QString("%1 panels are written as DXF and SVG, seen from the tool: sheets, %2")
        .arg(panels.panels.size())
        .arg(said.join(", "));
}

QString panels_pdf(const Outgoing& out, Progress& progress) {
    std::vector<CutPiece> pieces;
    for (const auto& p : needed(out.findings.core_panels, "part").panels) {
        CutPiece cut;
        cut.name = p.name;
        cut.outline = p.outline;
        cut.engraved = p.arrow;
        cut.words = p.material + ", seen from the tool";
        pieces.push_back(std::move(cut));
    }
    print_full_size(pieces_at_full_size(pieces, out.wording), "Panels of core at full size", out.path,
                    out.tiles, progress);
    return written(out.path);
}

QString inserts_dxf(const Outgoing& out, Progress& progress) {
    const auto& tool = *needed(out.findings.edge, "edge").tool;
    write_sheets(part::insert_template(out.job.part, needed(out.findings.part, "part").inserts.front(), tool),
                 out.path, progress);
    return "The template is written as DXF and SVG, as it is seen along the pull";
}

QString inserts_there(const Job& job, const Findings& f) {
    if (job.part.inserts.empty()) return "the part has no inserts";
    return f.part && f.edge && f.edge->tool ? QString() : "the part has no face to bore a template for";
}

QString panels_there(const Job&, const Findings& f) {
    return f.core_panels ? QString() : "no core of this part is cut into panels so far";
}

QString cloth_there(const Job& job, const Findings& f) {
    if (!f.part) return "the part has no figures yet";
    if (!f.part->draped->face) return "there is no face that plies could lie on";
    const auto layers = part::all_layers(job.part);
    const bool plies =
        std::any_of(layers.begin(), layers.end(), [](const Layer& l) { return l.kind == LayerKind::ply; });
    return plies ? QString() : QString("this part has no ply");
}

QString loads_csv(const Outgoing& out, Progress&) {
    write_atomically(trial_table(needed(out.findings.part_trial, "part")), out.path.toStdString());
    return written(out.path);
}

QString loads_there(const Job& job, const Findings& f) {
    if (job.part.duty.loads.empty()) return "the part has nothing to carry so far";
    return f.part_trial ? QString() : "the part has not been tried out yet";
}

}  // namespace

std::vector<Export> exports_of_part() {
    return {
        {"x-kit", Stage::part, "Export the flat patterns of the plies as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         cloth_there, true, kit_dxf},
        {"x-kit-pdf", Stage::part, "Export the flat patterns of the plies at full size as PDF…", kFullSize,
         ".pdf", cloth_there, false, kit_pdf},
        {"x-core", Stage::part, "Export the panels of the core as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         panels_there, true, panels_dxf},
        {"x-core-pdf", Stage::part, "Export the panels of the core at full size as PDF…", kFullSize, ".pdf",
         panels_there, false, panels_pdf},
        {"x-inserts", Stage::part, "Export the template of the inserts as DXF and SVG…", "DXF (*.dxf)",
         ".dxf", inserts_there, true, inserts_dxf},
        {"x-loads", Stage::part, "Export what the part carries as CSV…", "CSV (*.csv)", ".csv", loads_there,
         false, loads_csv},
    };
}

}  // namespace jig::app
