#include "app/window/exports.hpp"

#include <QDir>
#include <QFileInfo>

#include "app/print/sheets.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/sweep.hpp"
#include "core/science/nest/cut_sheets.hpp"
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

/// The flat pieces of every plug of the job.
std::vector<CutPiece> plug_pieces(const Outgoing& out, bool templates = false) {
    std::vector<CutPiece> all;
    for (const auto& plan : needed(out.findings.plug, "plug").plans) {
        const auto base = static_cast<int>(all.size());
        for (auto& piece : plug::cut_pieces(plan, out.job.plug, templates)) {
            if (piece.inside >= 0) piece.inside += base;
            all.push_back(std::move(piece));
        }
    }
    if (all.empty())
        throw InputError("plug",
                         templates ? "only a skeleton has templates" : "this route cuts no flat pieces",
                         templates ? "take the skeleton, or print the section"
                                   : "take slabs or a skeleton, or export the plug as a mesh");
    return all;
}

QString slabs_pdf(const Outgoing& out, Progress& progress) {
    print_full_size(pieces_at_full_size(plug_pieces(out), out.wording), "The plug's pieces at full size",
                    out.path, progress);
    return written(out.path);
}

QString assembly(const Outgoing& out, Progress& progress) {
    progress.report(0.1, "drawing the assembly");
    print_assembly(out.job, plug_pieces(out), needed(out.findings.plug, "plug"), out.path,
                   {QPageSize::A4, out.wording});
    return written(out.path);
}

/// Where numbered files went: the folder and the first and last name.
QString went_to(const QString& path, std::size_t count, const QString& ending) {
    const QFileInfo named(path);
    const auto name = [&](std::size_t i) {
        return QString("%1-%2.%3").arg(named.completeBaseName()).arg(i).arg(ending);
    };
    return count == 1 ? QString("%1 in %2").arg(name(1), named.absolutePath())
                      : QString("%1 to %2 in %3").arg(name(1), name(count), named.absolutePath());
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
    return QString("Boards written as DXF and SVG: %1").arg(went_to(out.path, sheets.sheets.size(), "dxf"));
}

/// Numbered meshes in the format of `path`'s ending.
QString write_meshes(const std::vector<TriangleMesh>& meshes, const char* what, const QString& path,
                     Progress& progress) {
    const auto ending = QFileInfo(path).suffix();
    for (std::size_t i = 0; i < meshes.size(); ++i) {
        progress.report(static_cast<double>(i) / static_cast<double>(meshes.size()), "writing meshes");
        const auto name = (numbered(path, i) + "." + ending).toStdString();
        write_atomically(write_mesh(meshes[i], name), name);
    }
    return QString("%1 %2 written: %3").arg(meshes.size()).arg(what, went_to(path, meshes.size(), ending));
}

QString boards_mesh(const Outgoing& out, Progress& progress) {
    const auto& stock = need(out.shop.boards, out.job.split.board, "parting board");
    std::vector<TriangleMesh> plates;
    for (const auto& board : boards_of(out)) {
        // The release face looks to the first piece; the board's thickness lies behind it.
        auto behind = board.surface;
        turn_over(behind);
        plates.push_back(plated(behind, stock.thickness));
    }
    return write_meshes(plates, "boards", out.path, progress);
}

QString boards_step(const Outgoing& out, Progress&) {
    const auto& boards = boards_of(out);
    if (boards.front().developed) {
        std::vector<Line> edges;
        for (const auto& board : boards) {
            for (const auto& rim : rim_loops(board.surface, topology_of(board.surface))) {
                auto& line = edges.emplace_back();
                for (const auto i : rim) line.push_back(board.surface.points[i]);
                line.push_back(line.front());
            }
        }
        write_atomically(write_step_wires(edges), out.path.toStdString());
        return written(out.path);
    }
    const auto& c = out.job.split;
    const auto frame =
        frame_across(Point(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]).normalized());
    const double height = frame.w.dot(Point(c.plane_at[0], c.plane_at[1], c.plane_at[2]));
    std::vector<std::vector<Line>> faces;
    for (const auto& board : boards) {
        auto& face = faces.emplace_back();
        for (const auto& loop : split::drilled(board)) {
            auto& line = face.emplace_back();
            for (const auto& p : loop) line.push_back(frame.lift(p, height));
            line.push_back(line.front());
        }
    }
    write_atomically(write_step_faces(faces), out.path.toStdString());
    return written(out.path);
}

/// What divides the mould, from the part itself outwards: the boards' faces without their stand-off.
QString split_surfaces(const Outgoing& out, Progress& progress) {
    const auto& split = needed(out.findings.split, "split");
    static_cast<void>(boards_of(out));
    auto close = out.job.split;
    close.stand_off = 0;
    std::vector<TriangleMesh> surfaces;
    for (auto& board : split::parting_boards(out.findings.shape->mesh, out.findings.shape->topology,
                                             split.set, close, 0, progress))
        surfaces.push_back(std::move(board.surface));
    return write_meshes(surfaces, "surfaces", out.path, progress);
}

QString pieces(const Outgoing& out, Progress& progress) {
    const auto& split = needed(out.findings.split, "split");
    if (split.one_piece())
        throw InputError("split", "the mould is one piece", "split it first, or export the shape");
    std::vector<TriangleMesh> meshes;
    for (const auto& piece : split.set.pieces) meshes.push_back(piece.mesh);
    return write_meshes(meshes, "pieces", out.path, progress);
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

SheetSet laid_out(const Outgoing& out, bool templates, Progress& progress) {
    const auto pieces = plug_pieces(out, templates);
    const auto& plan = needed(out.findings.plug, "plug").plans.front();
    auto sheets = lay_onto_sheets(pieces, plug::sheet_rules(plan, out.job.plug, out.shop), progress);
    if (sheets.sheets.empty())
        throw InputError("plug", "no piece goes onto one sheet of this stock", "choose larger stock");
    return sheets;
}

QString said_of(const SheetSet& sheets, const Outgoing& out) {
    const auto& wording = out.wording;
    auto message = QString("%1 sheets written, %2 % of them used: %3")
                       .arg(sheets.sheets.size())
                       .arg(100 * sheets.yield, 0, 'f', 0)
                       .arg(went_to(out.path, sheets.sheets.size(), "dxf"));
    if (!sheets.too_large.empty())
        message += QString("; larger than a sheet: %1").arg(sheets.too_large.size());
    if (!sheets.offcuts.empty()) {
        const auto& best = *std::max_element(
            sheets.offcuts.begin(), sheets.offcuts.end(),
            [](const Offcut& a, const Offcut& b) { return a.length * a.width < b.length * b.width; });
        message += QString("; largest offcut %1 × %2")
                       .arg(QString::fromStdString(show(Kind::length, best.length, wording)),
                            QString::fromStdString(show(Kind::length, best.width, wording)));
    }
    return message;
}

QString slabs_on_sheets(const Outgoing& out, Progress& progress) {
    const auto sheets = laid_out(out, false, progress);
    write_sheets(sheets, out.path, progress);
    return said_of(sheets, out);
}

QString sheets_at_full_size(const Outgoing& out, Progress& progress) {
    const auto sheets = laid_out(out, false, progress);
    std::vector<FullSize> pages;
    for (std::size_t i = 0; i < sheets.sheets.size(); ++i) {
        const double l = sheets.rules.length, w = sheets.rules.width;
        FullSize page{{{{0, 0}, {l, 0}, {l, w}, {0, w}}},
                      QString("sheet %1 of %2").arg(i + 1).arg(sheets.sheets.size()),
                      {}};
        for (const auto& piece : sheets.sheets[i].pieces) {
            page.outline.insert(page.outline.end(), piece.loops.begin(), piece.loops.end());
            page.engraved.insert(page.engraved.end(), piece.engraved.begin(), piece.engraved.end());
        }
        pages.push_back(std::move(page));
    }
    print_full_size(pages, "Cutting sheets at full size", out.path, progress);
    return written(out.path);
}

QString templates_on_sheets(const Outgoing& out, Progress& progress) {
    const auto sheets = laid_out(out, true, progress);
    write_sheets(sheets, out.path, progress);
    return said_of(sheets, out);
}

const back::Crate& crate_of(const Outgoing& out) {
    const auto& crate = needed(out.findings.back, "back").crate;
    if (!crate || crate->ribs.empty())
        throw InputError("back", "this back has no ribs to cut", "take an egg-crate or foam blocks");
    return *crate;
}

QString ribs_on_sheets(const Outgoing& out, Progress& progress) {
    const auto sheets =
        lay_onto_sheets(back::cut_pieces(crate_of(out)), back::sheet_rules(out.job.back, out.shop), progress);
    if (sheets.sheets.empty())
        throw InputError("back", "no rib goes onto one sheet of this stock", "choose larger stock");
    write_sheets(sheets, out.path, progress);
    return said_of(sheets, out);
}

QString ribs_pdf(const Outgoing& out, Progress& progress) {
    print_full_size(pieces_at_full_size(back::cut_pieces(crate_of(out)), out.wording),
                    "The back's ribs at full size", out.path, progress);
    return written(out.path);
}

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
    print_full_size({page}, "Drilling template at full size", out.path, progress);
    return written(out.path);
}

/// The tool tried out on the fine mesh as a table.
QString trial_csv(const Outgoing& out, Progress&) {
    write_atomically(trial_table(needed(out.findings.trial, "back")), out.path.toStdString());
    return written(out.path);
}

QString stack_as_mesh(const Outgoing& out, Progress&) {
    const auto& plan = needed(out.findings.plug, "plug").plans.front();
    if (plan.route != Route::slabs)
        throw InputError("plug", "it is no stack of slabs", "take that route first");
    const auto path = out.path.toStdString();
    write_atomically(write_mesh(stack_mesh(plan.slabs.stack), path), path);
    return written(out.path);
}

QString tiles_as_meshes(const Outgoing& out, Progress& progress) {
    const auto& plan = needed(out.findings.plug, "plug").plans.front();
    if (plan.tiles.tiles.empty())
        throw InputError("plug", "it is not made of tiles", "take printed tiles first");
    const auto ending = QFileInfo(out.path).suffix();
    double done = 0;
    for (const auto& tile : plan.tiles.tiles) {
        progress.report(done++ / static_cast<double>(plan.tiles.tiles.size()), "writing tiles");
        const auto name = QString("%1/%2-%3.%4")
                              .arg(QFileInfo(out.path).path(), QFileInfo(out.path).completeBaseName(),
                                   QString::fromStdString(tile.name()), ending)
                              .toStdString();
        write_atomically(write_mesh(tile.mesh, name), name);
    }
    return QString("%1 tiles written").arg(plan.tiles.tiles.size());
}

/// The plug as the machine cuts it: smaller by the coats, scaled for what heat and shrinkage do after.
QString plug_as_cut(const Outgoing& out, Progress&) {
    const auto& shape = needed(out.findings.shape, "shape");
    const auto& split = needed(out.findings.split, "split");
    const auto path = out.path.toStdString();
    write_atomically(write_mesh(plug::compensated(split::mould_mesh(shape, split), out.job.plug.build_up,
                                                  out.job.heat.plug_scale),
                                path),
                     path);
    return QString("Written: %1, %2 under size and scaled to %3")
        .arg(out.path, QString::fromStdString(show(Kind::thickness, out.job.plug.build_up, out.wording)),
             QString::fromStdString(show(Kind::scale, out.job.heat.plug_scale, out.wording)));
}

QString shape_mesh(const Outgoing& out, Progress&) {
    const auto path = out.path.toStdString();
    write_atomically(write_mesh(needed(out.findings.shape, "shape").mesh, path), path);
    return written(out.path);
}

QString film_dxf(const Outgoing& out, Progress& progress) {
    const auto& bag = needed(out.findings.bag, "bag");
    if (!bag.measured)
        throw InputError("bag", "there is no face to measure a film on",
                         "mend the stops on the job card first");
    write_sheets(bag::film_sheet(bag.film, bag.frame), out.path, progress);
    return "The film's sheet is written as DXF and SVG, each pleat marked: " + went_to(out.path, 1, "dxf");
}

QString complete(const Job&, const Findings& f) {
    return f.complete() ? QString() : "mend the stops on the job card first";
}

template <Route... routes>
QString plug_by(const Job& job, const Findings& f) {
    if (!f.plug) return "the plug has no figures yet";
    return ((job.plug.route == routes) || ...) ? QString() : "the plug's route makes none";
}

QString crate(const Job&, const Findings& f) {
    if (!f.back) return "the back has no figures yet";
    return f.back->crate && !f.back->crate->ribs.empty() ? QString() : "this back has no ribs";
}

QString edge_there(const Job&, const Findings& f) {
    return f.edge ? QString() : "the edge has no figures yet";
}

QString tried(const Job&, const Findings& f) {
    return f.trial ? QString() : "the tool has not been tried out yet";
}

QString shape_there(const Job&, const Findings& f) {
    return f.shape ? QString() : "the shape has no figures yet";
}

QString split_there(const Job&, const Findings& f) {
    return f.split ? QString() : "the split has no figures yet";
}

QString turned(const Job& job, const Findings&) {
    return job.shape.kind == ShapeKind::turned ? QString() : "only a turned shape is known exactly";
}

QString in_pieces(const Job&, const Findings& f) {
    return f.split && !f.split->one_piece() ? QString() : "the mould is one piece";
}

QString with_boards(const Job&, const Findings& f) {
    return f.split && !f.split->boards.empty() ? QString() : "a mould in one piece has no parting board";
}

QString film_there(const Job&, const Findings& f) {
    return f.bag && f.bag->measured ? QString() : "no film is measured for this job";
}

}  // namespace

const std::vector<Export>& exports() {
    static const std::vector<Export> all{
        {"print-a4", Stage::run, "Print all sheets, A4…", "PDF (*.pdf)", ".pdf", complete, false,
         sheets_pdf<QPageSize::A4>},
        {"print-letter", Stage::run, "Print all sheets, Letter…", "PDF (*.pdf)", ".pdf", complete, false,
         sheets_pdf<QPageSize::Letter>},
        {"x-section", Stage::shell, "Export the section as SVG…", "SVG (*.svg)", ".svg", shape_there, false,
         section},
        {"x-stl", Stage::shape, "Export the shape as a mesh…", "Meshes (*.stl *.obj *.ply)", ".stl",
         shape_there, false, shape_mesh},
        {"x-step", Stage::shape, "Export the turned shape as STEP…", "STEP (*.step)", ".step", turned, false,
         turned_step},
        {"x-pieces", Stage::split, "Export the mould pieces as meshes…", "Meshes (*.stl *.obj *.ply)", ".stl",
         in_pieces, true, pieces},
        {"x-seams", Stage::split, "Export the seams as STEP…", "STEP (*.step)", ".step", in_pieces, false,
         seams_step},
        {"x-surfaces", Stage::split, "Export the split surfaces as meshes…", "Meshes (*.stl *.obj *.ply)",
         ".stl", with_boards, true, split_surfaces},
        {"x-boards-pdf", Stage::split, "Export the parting boards at full size as PDF…", "PDF (*.pdf)",
         ".pdf", with_boards, false, boards_pdf},
        {"x-boards-mesh", Stage::split, "Export the parting boards as meshes…", "Meshes (*.stl *.obj *.ply)",
         ".stl", with_boards, true, boards_mesh},
        {"x-boards-step", Stage::split, "Export the parting boards' faces as STEP…", "STEP (*.step)", ".step",
         with_boards, false, boards_step},
        {"x-boards-dxf", Stage::split, "Export the parting boards as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         with_boards, true, boards_on_stock},
        {"x-slabs-pdf", Stage::plug, "Export the plug's pieces at full size as PDF…", "PDF (*.pdf)", ".pdf",
         plug_by<Route::slabs, Route::skeleton>, false, slabs_pdf},
        {"x-slabs-dxf", Stage::plug, "Export the plug's pieces on sheets as DXF and SVG…", "DXF (*.dxf)",
         ".dxf", plug_by<Route::slabs, Route::skeleton>, true, slabs_on_sheets},
        {"x-sheets-pdf", Stage::plug, "Export the cutting sheets at full size as PDF…", "PDF (*.pdf)", ".pdf",
         plug_by<Route::slabs, Route::skeleton>, false, sheets_at_full_size},
        {"x-assembly", Stage::plug, "Export the plug's assembly sheet as PDF…", "PDF (*.pdf)", ".pdf",
         plug_by<Route::slabs, Route::skeleton>, false, assembly},
        {"x-templates", Stage::plug, "Export the skeleton's templates as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         plug_by<Route::skeleton>, true, templates_on_sheets},
        {"x-stack", Stage::plug, "Export the stack of slabs as a mesh…", "Meshes (*.stl *.obj *.ply)", ".stl",
         plug_by<Route::slabs>, false, stack_as_mesh},
        {"x-tiles", Stage::plug, "Export the printed tiles as meshes…", "Meshes (*.stl *.obj *.ply)", ".stl",
         plug_by<Route::tiles>, true, tiles_as_meshes},
        {"x-plug", Stage::plug, "Export the plug as it is cut, undersize and scaled…",
         "Meshes (*.stl *.obj *.ply)", ".stl", split_there, false, plug_as_cut},
        {"x-drilling-dxf", Stage::edge, "Export the flange's drilling template as DXF and SVG…",
         "DXF (*.dxf)", ".dxf", edge_there, true, drilling_dxf},
        {"x-drilling-pdf", Stage::edge, "Export the flange's drilling template at full size as PDF…",
         "PDF (*.pdf)", ".pdf", edge_there, false, drilling_pdf},
        {"x-ribs-dxf", Stage::back, "Export the back's ribs on sheets as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         crate, true, ribs_on_sheets},
        {"x-ribs-pdf", Stage::back, "Export the back's ribs at full size as PDF…", "PDF (*.pdf)", ".pdf",
         crate, false, ribs_pdf},
        {"x-trial", Stage::back, "Export the tool's trial as CSV…", "CSV (*.csv)", ".csv", tried, false,
         trial_csv},
        {"x-film", Stage::bag, "Export the bag's film sheet as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         film_there, true, film_dxf},
        {"x-materials", Stage::run, "Export the materials as CSV…", "CSV (*.csv)", ".csv", complete, false,
         materials},
        {"x-days", Stage::run, "Export the day plan as CSV…", "CSV (*.csv)", ".csv", complete, false, days},
    };
    return all;
}

QStringList in_the_way(const Export& what, const QString& path) {
    const QFileInfo named(path);
    if (!what.numbered) return named.exists() ? QStringList{named.fileName()} : QStringList{};
    QStringList out;
    for (const auto& file : QDir(named.path()).entryList({named.completeBaseName() + "-*"}, QDir::Files)) {
        const auto ending = QFileInfo(file).suffix();
        if (ending == named.suffix() || (named.suffix() == "dxf" && ending == "svg")) out << file;
    }
    return out;
}

}  // namespace jig::app
