// The plug's pieces, sheets, tiles and meshes as files.
#include <QFileInfo>
#include <QStringList>

#include <algorithm>

#include "app/print/full_size.hpp"
#include "app/print/sheets.hpp"
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/sweep.hpp"

namespace jig::app {
namespace {

/// The flat pieces of every plug of the job.
std::vector<CutPiece> plug_pieces(const Outgoing& out, bool templates = false) {
    std::vector<CutPiece> all;
    for (const auto& plan : needed(out.findings.plug, "plug").plans) {
        const auto base = static_cast<int>(all.size());
        for (auto& piece : plug::cut_pieces(plan, out.job.plug, out.job.heat.plug_scale, templates)) {
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
                    out.path, out.tiles, progress);
    return written(out.path);
}

QString assembly(const Outgoing& out, Progress& progress) {
    progress.report(0.1, "drawing the assembly");
    print_assembly(out.job, plug_pieces(out), needed(out.findings.plug, "plug"), out.path,
                   {QPageSize::A4, out.wording});
    return written(out.path);
}

/// The sheets that the slip counts, by stock.
const std::vector<SheetSet>& laid_out(const Outgoing& out) {
    plug_pieces(out);  // says what there is instead where nothing is cut flat
    const auto& laid = needed(out.findings.plug_sheets, "plug");
    if (std::all_of(laid.begin(), laid.end(), [](const SheetSet& s) { return s.sheets.empty(); }))
        throw InputError("plug", "no piece goes onto one sheet of this stock", "choose larger stock");
    return laid;
}

QString slabs_on_sheets(const Outgoing& out, Progress& progress) {
    const auto& laid = laid_out(out);
    QStringList said;
    for (std::size_t k = 0; k < laid.size(); ++k) {
        auto one = out;
        // Plugs of several stocks: the files of each are numbered for themselves.
        if (laid.size() > 1) one.path = numbered(out.path, k) + ".dxf";
        write_sheets(laid[k], one.path, progress);
        said += said_of(laid[k], one);
    }
    return said.join("; ");
}

QString sheets_at_full_size(const Outgoing& out, Progress& progress) {
    std::vector<FullSize> pages;
    for (const auto& stock : laid_out(out)) {
        const double l = stock.rules.length, w = stock.rules.width;
        for (std::size_t i = 0; i < stock.sheets.size(); ++i) {
            FullSize page{{{{0, 0}, {l, 0}, {l, w}, {0, w}}},
                          QString("sheet %1 of %2").arg(i + 1).arg(stock.sheets.size()),
                          {}};
            for (const auto& piece : stock.sheets[i].pieces) {
                page.outline.insert(page.outline.end(), piece.loops.begin(), piece.loops.end());
                page.engraved.insert(page.engraved.end(), piece.engraved.begin(), piece.engraved.end());
            }
            pages.push_back(std::move(page));
        }
    }
    print_full_size(pages, "Cutting sheets at full size", out.path, out.tiles, progress);
    return written(out.path);
}

QString templates_on_sheets(const Outgoing& out, Progress& progress) {
    const auto pieces = plug_pieces(out, true);
    const auto& plan = needed(out.findings.plug, "plug").plans.front();
    const auto sheets = lay_onto_sheets(pieces, plug::sheet_rules(plan, out.job.plug, out.shop), progress);
    if (sheets.sheets.empty())
        throw InputError("plug", "no template goes onto one sheet of this stock", "choose larger stock");
    write_sheets(sheets, out.path, progress);
    return said_of(sheets, out);
}

QString stack_as_mesh(const Outgoing& out, Progress&) {
    const auto& plan = needed(out.findings.plug, "plug").plans.front();
    if (plan.route != Route::slabs)
        throw InputError("plug", "it is no stack of slabs", "take that route first");
    const auto path = out.path.toStdString();
    write_atomically(write_mesh(plug::stack_as_cut(plan, out.job.heat.plug_scale), path), path);
    return written(out.path);
}

QString tiles_as_meshes(const Outgoing& out, Progress& progress) {
    const auto& plans = needed(out.findings.plug, "plug").plans;
    double done = 0, all = 0;
    std::size_t written = 0;
    for (const auto& plan : plans) all += static_cast<double>(plan.tiles.tiles.size());
    if (all <= 0) throw InputError("plug", "it is not made of tiles", "take printed tiles first");
    const auto ending = QFileInfo(out.path).suffix();
    const auto bodies =
        plug::bodies(out.job.plug, needed(out.findings.shape, "shape"), needed(out.findings.split, "split"));
    for (std::size_t i = 0; i < plans.size(); ++i) {
        const auto& plan = plans[i];
        if (plan.tiles.tiles.empty()) continue;
        const auto body = plans.size() > 1 ? QString::fromStdString(plan.body) + "-" : QString();
        // As they are cut, as whole pieces are.
        const auto set = plug::tiles_as_cut(plan, plan.mould ? plan.mould->body : bodies.at(i), out.job.plug,
                                            out.job.heat.plug_scale, out.shop, progress);
        written += set.tiles.size();
        for (const auto& tile : set.tiles) {
            progress.report(std::min(1.0, done++ / all), "writing tiles");
            const auto name = QString("%1/%2-%3%4.%5")
                                  .arg(QFileInfo(out.path).path(), QFileInfo(out.path).completeBaseName(),
                                       body, QString::fromStdString(tile.name()), ending)
                                  .toStdString();
            write_atomically(write_mesh(tile.mesh, name), name);
        }
    }
    return QString("%1 tiles written").arg(written);
}

/// Each piece of a mould that is made itself as the machine cuts it: deeper by its coats, scaled for what
/// heat does after.
QString mould_as_cut(const Outgoing& out, Progress& progress) {
    const auto& plans = needed(out.findings.plug, "plug").plans;
    const double deeper = plug::cut_deeper(out.job.plug, out.shop);
    std::vector<TriangleMesh> pieces;
    for (const auto& plan : plans) {
        if (plan.mould) pieces.push_back(plug::as_cut(*plan.mould, deeper, out.job.heat.plug_scale));
    }
    if (pieces.empty()) throw InputError("plug", "there is no mould to cut", plans.front().obstacle);
    return write_meshes(pieces, "pieces of the mould", out.path, progress) +
           QString(", %1 deeper and scaled to %2")
               .arg(QString::fromStdString(show(Kind::thickness, deeper, out.wording)),
                    QString::fromStdString(show(Kind::scale, out.job.heat.plug_scale, out.wording)));
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

template <Route... routes>
QString plug_by(const Job& job, const Findings& f) {
    if (!f.plug) return "the plug has no figures yet";
    return ((job.plug.route == routes) || ...) ? QString() : "the plug's route makes none";
}

QString plug_there(const Job& job, const Findings& f) {
    if (plug::no_plug(job.plug)) return "there is no plug: the mould itself is made";
    return f.split ? QString() : "the split has no figures yet";
}

}  // namespace

std::vector<Export> exports_of_plug() {
    return {
        {"x-slabs-pdf", Stage::plug, "Export the plug's pieces at full size as PDF…", kFullSize, ".pdf",
         plug_by<Route::slabs, Route::skeleton>, false, slabs_pdf},
        {"x-slabs-dxf", Stage::plug, "Export the plug's pieces on sheets as DXF and SVG…", "DXF (*.dxf)",
         ".dxf", plug_by<Route::slabs, Route::skeleton>, true, slabs_on_sheets},
        {"x-sheets-pdf", Stage::plug, "Export the cutting sheets at full size as PDF…", kFullSize, ".pdf",
         plug_by<Route::slabs, Route::skeleton>, false, sheets_at_full_size},
        {"x-assembly", Stage::plug, "Export the plug's assembly sheet as PDF…", "PDF (*.pdf)", ".pdf",
         plug_by<Route::slabs, Route::skeleton>, false, assembly},
        {"x-templates", Stage::plug, "Export the skeleton's templates as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         plug_by<Route::skeleton>, true, templates_on_sheets},
        {"x-stack", Stage::plug, "Export the stack of slabs as a mesh…", "Meshes (*.stl *.obj *.ply)", ".stl",
         plug_by<Route::slabs>, false, stack_as_mesh},
        {"x-tiles", Stage::plug, "Export the printed tiles as meshes…", "Meshes (*.stl *.obj *.ply)", ".stl",
         plug_by<Route::tiles, Route::direct>, true, tiles_as_meshes},
        {"x-plug", Stage::plug, "Export the plug as it is cut, undersize and scaled…",
         "Meshes (*.stl *.obj *.ply)", ".stl", plug_there, false, plug_as_cut},
        {"x-mould", Stage::plug, "Export the mould as it is cut, deeper and scaled…",
         "Meshes (*.stl *.obj *.ply)", ".stl", plug_by<Route::direct>, true, mould_as_cut},
    };
}

}  // namespace jig::app
