#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "core/science/mesh/opening.hpp"
#include "core/science/mesh/widest.hpp"
#include "core/stages/split/show.hpp"

namespace jig::split {
namespace {

/// The widest circle that goes into any opening of a piece, seen along its pull.
double mouth_of(const Piece& piece) {
    const auto frame = frame_across(piece.direction);
    const auto topology = topology_of(piece.mesh);
    double widest = 0;
    for (const auto& rim : rim_loops(piece.mesh, topology)) {
        Loop flat;
        for (const auto i : rim) flat.push_back(frame.flat(piece.mesh.points[i]));
        if (signed_area(flat) < 0) std::reverse(flat.begin(), flat.end());
        widest = std::max(widest, widest_circle(flat));
    }
    return widest;
}

/// Puts the parts that one mould makes beside each other.
void lay_out(const Choices& c, const shape::Findings& shape, Findings& out) {
    const Point full = shape.measures.size;
    out.size = {std::max(full.x(), full.y()), std::min(full.x(), full.y())};
    out.rims = out.joined = {out.rim};
    out.places = {PartPlace{}};
    if (c.together == Together::alone || c.way != SplitWay::one || out.rim.size() < 3) return;
    out.places = lay_parts({out.rim}, c);
    out.rims.clear();
    for (const auto& place : out.places) out.rims.push_back(placed(out.rim, place));
    out.joined = joined_outline(out.rims, c.between);
    out.stood = stand_parts(shape.mesh, out.frame, out.places);
    const Point2 reach = high_corner(out.joined) - low_corner(out.joined);
    out.size = {reach.maxCoeff(), reach.minCoeff()};
}

/// Divides the mould and judges every piece: its faces, its way out, its opening, its boards.
void divide(const Choices& c, const shape::Findings& shape, double hole, Findings& out, Progress& progress) {
    const Point at(c.plane_at[0], c.plane_at[1], c.plane_at[2]),
        normal(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]);
    if (c.way == SplitWay::plane) {
        out.set = pieces_by_plane(shape.mesh, *shape.rays, at, normal, out.drag_angle, progress);
    } else {
        PieceRules rules;
        rules.count = c.pieces;
        rules.drag_angle = out.drag_angle;
        rules.show = out.show;
        rules.painted = painted(c);
        out.set = find_pieces(shape.mesh, *shape.rays, rules, progress);
    }
    out.boards = parting_boards(shape.mesh, shape.topology, out.set, c, hole, progress);
    out.seam_on_show = length_on_show(shape.mesh, out.show, out.set.seams);
    const auto ways = ways_out(out.set, *shape.rays, c.backing, progress);
    for (std::size_t i = 0; i < out.set.pieces.size(); ++i) {
        const auto& piece = out.set.pieces[i];
        PieceFacts facts;
        facts.name = i < c.names.size() && !c.names[i].empty() ? c.names[i] : fmt::format("piece {}", i + 1);
        facts.way = ways[i];
        facts.mouth = mouth_of(piece);
        facts.depth = piece.map.depth;
        if (!out.show.empty()) facts.show = show_faces(piece.mesh, out.pull, c);
        out.facts.push_back(std::move(facts));
    }
    // The whole mould's sums are the pieces' sums, each along its own pull; what each face does stands in the
    // pieces' own maps, since their faces are not the part's.
    out.pull = out.set.pieces.front().direction;
    auto& m = out.map;
    m = DraftMap{};
    m.faces.assign(shape.mesh.triangles.size(), Release::slides);
    m.shadow.assign(shape.mesh.triangles.size(), 0);
    m.min_draft = std::numeric_limits<double>::infinity();
    for (const auto& piece : out.set.pieces) {
        m.area += piece.map.area;
        m.slides += piece.map.slides;
        m.drags += piece.map.drags;
        m.locks += piece.map.locks;
        m.shadowed += piece.map.shadowed;
        m.projected += piece.map.projected;
        m.min_draft = std::min(m.min_draft, piece.map.min_draft);
        m.depth = std::max(m.depth, piece.map.depth);
    }
}

}  // namespace

double drag_angle_for(Grade grade) {
    switch (grade) {
        case Grade::structural:
            return radians(1);
        case Grade::paintable:
            return radians(1.5);
        case Grade::clear:
            return radians(2);
        case Grade::gloss:
            break;
    }
    return radians(3);
}

const TriangleMesh& mould_mesh(const shape::Findings& shape, const Findings& split) {
    return split.stood ? split.stood->mesh : shape.mesh;
}

const Topology& mould_topology(const shape::Findings& shape, const Findings& split) {
    return split.stood ? split.stood->topology : shape.topology;
}

Asked asked(const Choices& c, const brief::Of<brief::Wanted, brief::Series>& brief, const Library& shop) {
    return {c.drag_rule == DragRule::surface ? drag_angle_for(brief.grade) : c.drag_angle,
            c.together == Together::alone ? 0 : brief.pulls,
            need(shop.fasteners, c.dowel, "split dowel").diameter,
            need(shop.boards, c.board, "parting board").thickness};
}

Findings evaluate(const Choices& c, const shape::Findings& shape, const Asked& asked, Progress& progress) {
    Findings out;
    out.drag_angle = asked.drag_angle;
    DraftRules rules;
    rules.drag_angle = out.drag_angle;
    rules.foot_open = c.foot_open;
    if (c.way == SplitWay::plane) {
        out.pull = Point(c.plane_normal[0], c.plane_normal[1], c.plane_normal[2]);
    } else if (c.mode == PullMode::best) {
        out.candidates = best_pulls(shape.mesh, *shape.rays, rules, 3, progress);
        out.pull = out.candidates.front().direction;
    } else {
        out.pull = {c.pull[0], c.pull[1], c.pull[2]};
        if (!(out.pull.norm() > 1e-9))
            throw InputError("split", "the pull has no length", "give a direction such as 0, 0, 1");
        out.pull.normalize();
    }
    if (c.way == SplitWay::one) {
        out.map = draft(shape.mesh, *shape.rays, out.pull, rules, progress);
    } else {
        out.show = show_faces(shape.mesh, out.pull, c);
        divide(c, shape, asked.dowel, out, progress);
    }
    out.frame = frame_across(out.pull);
    out.zero_lines = zero_draft_lines(shape.mesh, shape.topology, out.pull);
    out.moulded_area = out.map.area - out.map.open;
    out.foot = std::numeric_limits<double>::infinity();
    for (const auto& t : shape.mesh.triangles) {
        for (const auto i : t) out.foot = std::min(out.foot, out.pull.dot(shape.mesh.points[i]));
    }
    out.rim = rim_seen(shape.mesh, shape.topology, out.map, out.frame, out.foot, progress);
    out.mouth = widest_circle(out.rim);
    lay_out(c, shape, out);
    if (!out.one_piece() || out.map.locks > 1e-4 * out.moulded_area)
        out.widest = widest_height(shape.mesh, shape.topology, out.pull, progress);
    const auto skin = skin_sections(shape.mesh, shape.topology, out.frame, progress);
    out.section_width = skin.width;
    out.section_second = skin.second;
    add_figures(c, asked, out);
    return out;
}

}  // namespace jig::split
