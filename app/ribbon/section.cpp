#include "app/ribbon/section.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/science/mesh/nearest_face.hpp"

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
        case LayerKind::wall:
            return l.layer.solid && l.layer.solid->metal ? Hatch::metal : Hatch::board;
        case LayerKind::ply:
            break;
    }
    if (l.name.find("mat") != std::string::npos || l.name.find("tissue") != std::string::npos)
        return Hatch::mat;
    return l.fibre < 0.35 ? Hatch::cloth_light : Hatch::cloth_heavy;
}

/// The cut's outline of the solid under the tool face, in (across, along the pull) coordinates.
struct Cut {
    Loops body;
    Frame plane;
    double height = 0;         ///< along the plane's normal
    double low = 0, high = 0;  ///< of the whole shape, across
    double foot = 0;
    [[nodiscard]] Point lifted(const Point2& p) const { return plane.lift(p, height); }
};
Cut cut_of(const Job& job, const Findings& f, const Piece* piece) {
    Cut out;
    // A piece of a mould is shown on its own seam.
    const bool one = piece == nullptr;
    const auto frame = one ? f.split->frame : edge::frame_of(*piece);
    const auto& mesh = one ? f.shape->mesh : piece->mesh;
    out.foot = f.split->foot;
    if (!one) {
        out.foot = 1e30;
        for (const auto& p : mesh.points) out.foot = std::min(out.foot, frame.w.dot(p));
    }
    Point2 a = Point2::Constant(1e30), b = -a;
    for (const auto& p : mesh.points) {
        a = a.cwiseMin(frame.flat(p));
        b = b.cwiseMax(frame.flat(p));
    }
    const bool long_u = (b - a).x() >= (b - a).y();
    const bool normal_u = (job.cut.across == CutAlong::length) == long_u;
    out.plane = normal_u ? Frame{frame.v, frame.w, frame.u} : Frame{-frame.u, frame.w, frame.v};
    const double from = normal_u ? a.x() : a.y(), reach = normal_u ? (b - a).x() : (b - a).y();
    out.height = from + reach * std::clamp(job.cut.at, 0.003, 0.997);
    const std::array<double, 1> height{out.height};
    Progress quiet;
    const auto cut =
        sections(mesh, one ? f.shape->topology : topology_of(mesh), out.plane, height, quiet).front();
    Loops loops = cut.loops;
    for (auto line : cut.open_lines) {
        if (line.size() < 2) continue;
        // Down to the foot at both ends, so that the plug is solid under the skin.
        line.emplace_back(line.back().x(), out.foot);
        line.emplace_back(line.front().x(), out.foot);
        loops.push_back(std::move(line));
    }
    for (auto& loop : loops) {
        if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
    }
    out.low = normal_u ? a.y() : -b.x();
    out.high = normal_u ? b.y() : -a.x();
    out.body = united(loops);
    return out;
}

/// For each set of the part's zones that the cut goes through, what lies within `depth` m behind the face
/// there; nothing where the part has no zones, and all is the common stack.
std::map<std::uint32_t, Loops> zones_at_cut(const Cut& cut, const Findings& f, double depth) {
    std::map<std::uint32_t, Loops> out;
    const auto& face = f.part->draped->face;
    const auto& marks = f.part->marked->marks;
    if (!face || face->empty() || std::all_of(marks.begin(), marks.end(), [](auto m) { return m == 0; }))
        return out;
    const NearestFace nearest(*face);
    const Point2 size = high_corner(cut.body) - low_corner(cut.body);
    const double step = size.norm() / 300;
    for (const auto& loop : cut.body) {
        // Close enough together for borders to be seen where they are.
        Loop line;
        for (std::size_t i = 0; i < loop.size(); ++i) {
            const Point2 &a = loop[i], &b = loop[(i + 1) % loop.size()];
            const int n = std::max(1, static_cast<int>(std::ceil((b - a).norm() / step)));
            for (int k = 0; k < n; ++k) line.push_back(a + (b - a) * k / n);
        }
        const auto at = [&](std::size_t i) -> const Point2& { return line[i % line.size()]; };
        const auto into = [&](std::size_t i) -> Point2 {
            const Point2 way = at(i + 1) - at(i + line.size() - 1);
            return way.norm() > 0 ? Point2(Point2(-way.y(), way.x()).normalized()) : Point2::Zero();
        };
        for (std::size_t i = 0; i < line.size(); ++i) {
            const auto under = nearest.at(cut.lifted((at(i) + at(i + 1)) / 2));
            Loop behind{at(i), at(i + 1), at(i + 1) + depth * into(i + 1), at(i) + depth * into(i)};
            if (signed_area(behind) < 0) std::reverse(behind.begin(), behind.end());
            out[under < marks.size() ? marks[under] : 0].push_back(std::move(behind));
        }
    }
    for (auto& [zones, loops] : out) loops = united(loops);
    return out;
}

/// Of a mould in pieces the one that the stand shows; none for a mould in one.
const Piece* piece_shown(const Job& job, const Findings& f, Stage stage) {
    if (f.split->one_piece()) return nullptr;
    return &f.split->set.pieces[stage_of_tool(stage) ? edge::chosen_piece(job.edge.piece, *f.split) : 0];
}

/// What lies on the last ply and closes it, from the part out: each as deep as it can be seen, films as
/// lines. `room` is what the part leaves free, `inside` the same further in.
template <class Inside>
void add_bag(const std::vector<bag::BagLayer>& layers, double deep, const Loops& room, const Inside& inside,
             std::vector<SectionLayer>& out) {
    const auto film = [](const std::string& name) { return name.find("film") != std::string::npos; };
    const auto closes = [](const std::string& name) {
        return name.find("bag") != std::string::npos && name.find("breather") == std::string::npos;
    };
    double at = 0;
    for (const auto& l : layers) {
        const auto name = QString::fromStdString(l.name);
        const auto outline = at > 0 ? inside(at) : room;
        if (closes(l.name)) {
            out.push_back({name, Hatch::bag, 0, Stage::bag, outline, false});
            at += deep / 2;
        } else if (film(l.name)) {
            out.push_back({name, Hatch::release, 0, Stage::bag, outline, true});
        } else {
            out.push_back({name, l.name == "peel ply" ? Hatch::cloth_light : Hatch::mat, 0, Stage::bag,
                           outline, false});
            at += deep;
        }
    }
}

Loop box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

}  // namespace

Section2 section_at_cut(const Job& job, const Findings& f, Stage stage) {
    Section2 out;
    if (!f.shape || !f.split || !f.shell || !f.edge || !f.plug) return out;
    const auto* piece = piece_shown(job, f, stage);
    const auto cut = cut_of(job, f, piece);
    const auto& body = cut.body;
    const double low = cut.low, high = cut.high;
    out.foot = cut.foot;
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
    // A mould that is a block itself is drawn as thick as it is.
    const bool block = is_solid(laid.empty() ? std::vector<Layer>{} : std::vector<Layer>{laid.front().layer});
    if (block && !out.part_in_tool) out.stretch = 1;
    const double drawn = block ? shell : shell * out.stretch;
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
        double total = 0;
        for (const auto& r : f.part->regions) total = std::max(total, r.stack.laminate.thickness);
        out.part = total;
        const double stretch = std::min(out.stretch, 0.35 * std::min(depth, right - left) / total);
        const auto zones = zones_at_cut(cut, f, 1.2 * total * stretch);
        Loops air = zones.empty() ? Loops() : inside(total * stretch);
        // Each stack within its own zones; the whole of it where there are none.
        for (const auto& r : f.part->regions) {
            const auto where = zones.find(r.zones);
            if (zones.empty() ? r.zones != 0 : where == zones.end()) continue;
            const auto there = [&](const Loops& loops) {
                return zones.empty() ? loops : shared(loops, where->second);
            };
            QString zone;
            for (std::size_t z = 0; z < job.part.zones.size(); ++z) {
                if ((r.zones >> z & 1u) != 0) zone += QString::fromStdString(job.part.zones[z].name) + ": ";
            }
            double at = 0;
            for (const auto& l : r.stack.laid) {
                SectionLayer layer{zone + QString::fromStdString(l.name),
                                   hatch_of(l),
                                   l.ply.thickness,
                                   Stage::part,
                                   there(inside(at)),
                                   false};
                at += l.ply.thickness * stretch;
                inner.push_back(std::move(layer));
            }
            for (auto& loop : there(inside(at))) air.push_back(std::move(loop));
        }
        const auto room = united(air);
        if (f.bag && f.bag->closed) {
            // Deep enough to be told apart, whatever they are.
            const double deep = 0.018 * std::min(depth, right - left);
            add_bag(
                f.bag->layers, deep, room,
                [&](double in) {
                    auto loops = offset(room, -in);
                    loops.insert(loops.end(), flange.begin(), flange.end());
                    return trimmed(united(loops));
                },
                inner);
        } else {
            inner.push_back({"air", Hatch::bag, 0, Stage::part, room, false});
        }
        // Painted from the outside in, so the innermost must be first.
        std::reverse(inner.begin(), inner.end());
        for (auto& l : inner) out.layers.push_back(std::move(l));
    } else if (block) {
        out.layers.push_back({"room for the part", Hatch::bag, 0, Stage::part, solid, false});
        out.layers.push_back({"release", Hatch::release, 0, Stage::release, solid, true});
    } else {
        out.layers.push_back({QString::fromStdString("plug: " + f.plug->board.name),
                              f.plug->board.density < 200 ? Hatch::foam : Hatch::board, 0, Stage::plug, solid,
                              false});
        out.layers.push_back({"release", Hatch::release, 0, Stage::release, solid, true});
    }
    double at = 0;
    for (std::size_t i = 0; i < laid.size(); ++i) {
        const auto& l = laid[i];
        if (l.layer.kind == LayerKind::wall) {
            // Down to its flat foot, which lies uppermost here.
            auto whole = solid;
            whole.push_back(box(left - wide, out.foot, right + wide, out.foot + depth + drawn));
            out.layers.push_back({QString::fromStdString(l.name), hatch_of(l), l.ply.thickness, Stage::shell,
                                  united(whole), false});
            at += drawn;
            continue;
        }
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
