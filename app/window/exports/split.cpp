// Pieces, seams and parting boards as files.
#include "app/print/full_size.hpp"
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig::app {
namespace {

const std::vector<split::Board>& boards_of(const Outgoing& out) {
    const auto& boards = needed(out.findings.split, "split").boards;
    if (boards.empty())
        throw InputError("split", "a mould in one piece has no parting board", "split it first");
    return boards;
}

QString boards_pdf(const Outgoing& out, Progress& progress) {
    print_full_size(boards_at_full_size(boards_of(out), out.wording), "Parting boards at full size", out.path,
                    out.tiles, progress);
    return written(out.path);
}

QString boards_on_stock(const Outgoing& out, Progress& progress) {
    const auto sheets = split::boards_on_sheets(boards_of(out));
    write_sheets(sheets, out.path, progress);
    return QString("Boards written as DXF and SVG: %1").arg(went_to(out.path, sheets.sheets.size(), "dxf"));
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

QString in_pieces(const Job&, const Findings& f) {
    return f.split && !f.split->one_piece() ? QString() : "the mould is one piece";
}

QString with_boards(const Job&, const Findings& f) {
    return f.split && !f.split->boards.empty() ? QString() : "a mould in one piece has no parting board";
}

}  // namespace

std::vector<Export> exports_of_split() {
    return {
        {"x-pieces", Stage::split, "Export the mould pieces as meshes…", "Meshes (*.stl *.obj *.ply)", ".stl",
         in_pieces, true, pieces},
        {"x-seams", Stage::split, "Export the seams as STEP…", "STEP (*.step)", ".step", in_pieces, false,
         seams_step},
        {"x-surfaces", Stage::split, "Export the split surfaces as meshes…", "Meshes (*.stl *.obj *.ply)",
         ".stl", with_boards, true, split_surfaces},
        {"x-boards-pdf", Stage::split, "Export the parting boards at full size as PDF…", kFullSize, ".pdf",
         with_boards, false, boards_pdf},
        {"x-boards-mesh", Stage::split, "Export the parting boards as meshes…", "Meshes (*.stl *.obj *.ply)",
         ".stl", with_boards, true, boards_mesh},
        {"x-boards-step", Stage::split, "Export the parting boards' faces as STEP…", "STEP (*.step)", ".step",
         with_boards, false, boards_step},
        {"x-boards-dxf", Stage::split, "Export the parting boards as DXF and SVG…", "DXF (*.dxf)", ".dxf",
         with_boards, true, boards_on_stock},
    };
}

}  // namespace jig::app
