#include "app/ribbon/section.hpp"

#include <algorithm>
#include <cmath>

namespace jig::app {
namespace {

constexpr double kBoard = 0.018;         // m of the flange board under the plug
constexpr double kSeenThickness = 0.09;  // share of the window's height that the shell is stretched to

Hatch hatch_of(const LaidLayer& l) {
    switch (l.layer.kind) {
        case LayerKind::surface_coat:
            return Hatch::coat;
        case LayerKind::coupling:
            return Hatch::coupling;
        case LayerKind::core:
            return Hatch::core;
        case LayerKind::ply:
            break;
    }
    if (l.name.find("mat") != std::string::npos || l.name.find("tissue") != std::string::npos)
        return Hatch::mat;
    return l.fibre < 0.35 ? Hatch::cloth_light : Hatch::cloth_heavy;
}

/// The cut's outline of the solid under the tool face, in (across, along the pull) coordinates.
Loops cut_outline(const Job& job, const Findings& f, const Piece* piece, double& low, double& high,
                  double& foot) {
    // A piece of a mould is shown on its own seam.
    const bool one = piece == nullptr;
    const auto frame = one ? f.split->frame : frame_across(piece->direction.normalized());
    const auto& mesh = one ? f.shape->mesh : piece->mesh;
    foot = f.split->foot;
    if (!one) {
        foot = 1e30;
        for (const auto& p : mesh.points) foot = std::min(foot, frame.w.dot(p));
    }
    Point2 a = Point2::Constant(1e30), b = -a;
    for (const auto& p : mesh.points) {
        a = a.cwiseMin(frame.flat(p));
        b = b.cwiseMax(frame.flat(p));
    }
    const bool long_u = (b - a).x() >= (b - a).y();
    const bool normal_u = (job.cut.across == CutAlong::length) == long_u;
    const Frame plane = normal_u ? Frame{frame.v, frame.w, frame.u} : Frame{-frame.u, frame.w, frame.v};
    const double from = normal_u ? a.x() : a.y(), reach = normal_u ? (b - a).x() : (b - a).y();
    const std::array<double, 1> height{from + reach * std::clamp(job.cut.at, 0.003, 0.997)};
    Progress quiet;
    const auto cut =
        sections(mesh, one ? f.shape->topology : topology_of(mesh), plane, height, quiet).front();
    Loops loops = cut.loops;
    for (auto line : cut.open_lines) {
        if (line.size() < 2) continue;
        // Down to the foot at both ends, so that the plug is solid under the skin.
        line.emplace_back(line.back().x(), foot);
        line.emplace_back(line.front().x(), foot);
        loops.push_back(std::move(line));
    }
    for (auto& loop : loops) {
        if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
    }
    low = normal_u ? a.y() : -b.x();
    high = normal_u ? b.y() : -a.x();
    return united(loops);
}

/// Of a mould in pieces the one that the stand shows; none for a mould in one.
const Piece* piece_shown(const Job& job, const Findings& f, Stage stage) {
    if (f.split->one_piece()) return nullptr;
    return &f.split->set.pieces[stage_of_tool(stage) ? edge::chosen_piece(job.edge, *f.split) : 0];
}

/// What lies on the last ply, from the part out.
QString bag_name(const Job& job) {
    QStringList names;
    if (job.bag.peel_ply) names << "peel ply";
    if (job.bag.film != ReleaseFilm::none)
        names << (job.bag.film == ReleaseFilm::perforated ? "perforated film" : "release film");
    if (job.part.how != LayUp::infused) names << "breather";
    if (job.part.how == LayUp::infused && job.bag.infusion.medium) names << "flow medium";
    names << "bag";
    if (job.bag.second) names << "second bag";
    return names.join(", ");
}

Loop box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

}  // namespace

Section2 section_at_cut(const Job& job, const Findings& f, Stage stage) {
    Section2 out;
    if (!f.shape || !f.split || !f.shell || !f.edge || !f.plug) return out;
    double low = 0, high = 0;
    const auto* piece = piece_shown(job, f, stage);
    const auto body = cut_outline(job, f, piece, low, high, out.foot);
    if (body.empty()) return out;
    const double left = low_corner(body).x(), right = high_corner(body).x();
    const double wide = f.edge->width;
    const bool in_tool = stage == Stage::part || stage == Stage::release || stage == Stage::bag ||
                         stage == Stage::heat || stage == Stage::log;
    out.part_in_tool = in_tool && f.part;
    const double depth = piece == nullptr ? f.split->map.depth : piece->map.depth;
    // A sandwich back is more layers of the same shell.
    auto laid = f.shell->stack.laid;
    const auto own = laid.size();
    if (job.back.kind == BackKind::sandwich && f.back)
        laid.insert(laid.end(), f.back->sandwich.laid.begin(), f.back->sandwich.laid.end());
    double shell = 0;
    for (const auto& l : laid) shell += l.ply.thickness;
    out.stretch =
        std::clamp(kSeenThickness * std::max(high - low + 2 * wide, 2.2 * depth) / 2.2 / shell, 1.0, 40.0);
    const double drawn = shell * out.stretch;
    out.low_x = low - wide - 0.02;
    out.high_x = high + wide + 0.02;
    out.low_y = out.foot - kBoard;
    out.high_y =
        out.foot + depth + drawn + (!job.back.has_plates() || out.part_in_tool ? 0.01 : job.back.height);
    auto solid = body;
    solid.push_back(box(left - wide, out.foot - 10 * kBoard, right + wide, out.foot));
    solid = united(solid);
    const auto trimmed = [&](const Loops& loops) {
        // Layers end at the flange's outer edge and lie on its board.
        return taken_off(
            loops, {box(left - 100, -1000, left - wide, 1000), box(right + wide, -1000, right + 100, 1000)});
    };
    if (out.part_in_tool) {
        // Seen from the tool: shell outside the face, part inside it, bag last.
        double at = 0;
        std::vector<SectionLayer> inner;
        // Past the trim the part ends and the bag lies on the flange.
        const Loops flange =
            taken_off(solid, {box(left - job.edge.trim, -1000, right + job.edge.trim, 1000)});
        const auto inside = [&](double depth_in) {
            auto loops = offset(solid, -depth_in);
            loops.insert(loops.end(), flange.begin(), flange.end());
            return trimmed(united(loops));
        };
        inner.push_back({"release", Hatch::release, 0, Stage::release, solid, true});
        const double total = f.part->stack.laminate.thickness;
        const double stretch = std::min(out.stretch, 0.35 * std::min(depth, right - left) / total);
        for (const auto& l : f.part->stack.laid) {
            SectionLayer layer{
                QString::fromStdString(l.name), hatch_of(l), l.ply.thickness, Stage::part, inside(at), false};
            at += l.ply.thickness * stretch;
            inner.push_back(std::move(layer));
        }
        const bool closed = f.bag && f.bag->closed;
        inner.push_back({closed ? bag_name(job) : "air", Hatch::bag, 0, closed ? Stage::bag : Stage::part,
                         inside(at), false});
        // Painted from the outside in, so the innermost must be first.
        std::reverse(inner.begin(), inner.end());
        for (auto& l : inner) out.layers.push_back(std::move(l));
    } else {
        out.layers.push_back({QString::fromStdString("plug: " + f.plug->board.name),
                              f.plug->board.density < 200 ? Hatch::foam : Hatch::board, 0, Stage::plug, solid,
                              false});
        out.layers.push_back({"release", Hatch::release, 0, Stage::release, solid, true});
    }
    double at = 0;
    for (std::size_t i = 0; i < laid.size(); ++i) {
        const auto& l = laid[i];
        at += l.ply.thickness * out.stretch;
        out.layers.push_back({QString::fromStdString(l.name), hatch_of(l), l.ply.thickness,
                              i < own ? Stage::shell : Stage::back, trimmed(offset(solid, at)), false});
    }
    if (job.back.has_plates() && !out.part_in_tool) {
        const double top = out.foot + depth + drawn + job.back.height;
        out.layers.push_back({job.back.kind == BackKind::egg_crate ? "rib" : "wrapped foam",
                              job.back.kind == BackKind::egg_crate ? Hatch::ply_wood : Hatch::foam,
                              0,
                              Stage::back,
                              {box(left - 0.4 * wide, out.foot + drawn, right + 0.4 * wide, top)},
                              false});
    }
    const double a = job.edge.trim + job.edge.channel, b = a + job.edge.tape_land;
    out.tape = {{left - b, left - a}, {right + a, right + b}};
    return out;
}

}  // namespace jig::app
