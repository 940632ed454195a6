#include "core/stages/back/tool.hpp"

#include <algorithm>
#include <map>

#include "core/science/mesh/remesh.hpp"
#include "core/stages/back/tool_builder.hpp"

namespace jig::back {
namespace {

/// Strains of faces with sharper corners say little.
constexpr double kLeastAngle = 15 * kPi / 180;

}  // namespace

Tool ToolBuilder::build() {
    tool_.edge = face_.edge;
    planes_ = rib_planes(c_, in_.face);
    planes_[0].normal = f_.u;
    planes_[1].normal = f_.v;
    if (c_.has_grid()) {
        lined_ = lined_up(face_.mesh, face_.patch, planes_);
        relieve(lined_, kLeastAngle);
    } else {
        lined_.mesh = face_.mesh;
        lined_.patch = face_.patch;
    }
    drop_slivers(lined_, kSliver);
    auto& model = tool_.model;
    model.mesh = lined_.mesh;
    shell_points_ = model.mesh.points.size();
    lay_shell();
    tool_.level = highest() + thickness_ + (c_.has_grid() ? c_.height : 0);
    if (c_.has_grid()) find_crossings();
    if (c_.has_plates()) stand_ribs();
    if (c_.has_bars()) stand_tubes();
    if (tool_.base.size() < 3) tool_.base.insert(tool_.base.end(), ends_.begin(), ends_.end());
    std::sort(tool_.base.begin(), tool_.base.end());
    tool_.base.erase(std::unique(tool_.base.begin(), tool_.base.end()), tool_.base.end());
    find_rim();
    find_feet();
    return std::move(tool_);
}

double ToolBuilder::highest() {
    double top = -1e30;
    for (std::size_t i = 0; i < shell_points_; ++i) top = std::max(top, f_.w.dot(points()[i]));
    return top;
}

void ToolBuilder::lay_shell() {
    auto& model = tool_.model;
    const auto zones = in_.shell.zones.size();
    std::vector<unsigned> masks(model.mesh.triangles.size(), 0);
    for (std::size_t z = 0; z < zones; ++z) mark_zone(in_.shell.zones[z], 1u << z, masks);
    std::map<unsigned, std::uint16_t> skins;
    for (std::size_t f = 0; f < masks.size(); ++f) {
        const auto known = skins.find(masks[f]);
        if (known != skins.end()) {
            model.skin.push_back(known->second);
        } else {
            auto layers = in_.shell.layers;
            for (std::size_t z = 0; z < zones; ++z) {
                if ((masks[f] >> z & 1u) != 0)
                    layers.insert(layers.end(), in_.shell.zones[z].layers.begin(),
                                  in_.shell.zones[z].layers.end());
            }
            const auto number = static_cast<std::uint16_t>(model.skins.size());
            model.skins.push_back({with_sandwich(layers, in_), f_.u});
            skins[masks[f]] = number;
            model.skin.push_back(number);
        }
        tool_.parts.push_back(lined_.patch[f] == 1 ? ToolPart::flange : ToolPart::face);
    }
    thickness_ = with_sandwich(in_.shell.layers, in_).thickness;
}

void ToolBuilder::mark_zone(const shell::Zone& zone, unsigned bit, std::vector<unsigned>& masks) {
    if (zone.layers.empty()) return;
    const auto& mesh = tool_.model.mesh;
    const auto mark = [&](std::size_t f) { masks[f] |= bit; };
    switch (zone.kind) {
        case ZoneKind::flange:
            for (std::size_t f = 0; f < masks.size(); ++f) {
                if (lined_.patch[f] == 1) mark(f);
            }
            break;
        case ZoneKind::under_ribs:
            for (std::size_t f = 0; f < masks.size() && !lined_.on[0].empty(); ++f) {
                const Point p = mesh.centre(f);
                for (const auto& set : planes_) {
                    for (const double at : set.at) {
                        if (std::abs(set.normal.dot(p) - at) < zone.width / 2) mark(f);
                    }
                }
            }
            break;
        case ZoneKind::corners: {
            std::vector<Point> tight;
            const auto& marked = in_.shell_found.corners.faces;
            for (std::size_t f = 0; f < marked.size(); ++f) {
                if (marked[f]) tight.push_back(upright(in_.face.frame, in_.corners.centre(f)));
            }
            for (std::size_t f = 0; f < masks.size() && !tight.empty(); ++f) {
                const Point p = mesh.centre(f);
                for (const auto& q : tight) {
                    if ((p - q).squaredNorm() < zone.width * zone.width / 4) {
                        mark(f);
                        break;
                    }
                }
            }
            break;
        }
        case ZoneKind::painted:
            auto standing = zone;
            for (auto& touch : standing.painted) {
                const auto dab = touch.dab();
                const Point at = upright(in_.face.frame, dab.at),
                            facing = upright(in_.face.frame, dab.facing);
                touch.at = {at.x(), at.y(), at.z()};
                touch.facing = {facing.x(), facing.y(), facing.z()};
            }
            const auto touched = shell::painted_faces(standing, mesh);
            for (std::size_t f = 0; f < touched.size(); ++f) {
                if (touched[f]) mark(f);
            }
            break;
    }
}

std::uint32_t ToolBuilder::add_point(const Point& p) {
    points().push_back(p);
    return static_cast<std::uint32_t>(points().size() - 1);
}

Laminate with_sandwich(const std::vector<Layer>& layers, const ToolInputs& in) {
    auto all = layers;
    if (in.back.kind == BackKind::sandwich) {
        const auto inner = inner_layers(in.back.sandwich);
        all.insert(all.end(), inner.begin(), inner.end());
    }
    return sum_stack(all, in.shell_found.resin, in.shell.how, in.shop, "back sandwich").laminate;
}

Point upright(const Frame& frame, const Point& p) {
    return {frame.u.dot(p), frame.v.dot(p), frame.w.dot(p)};
}

EvenFace even_face(const edge::ToolFace& face, double edge, Progress& progress) {
    auto standing = face.rimmed.mesh;
    for (auto& p : standing.points) p = upright(face.frame, p);
    auto even = remeshed(standing, face.rimmed.patch, edge, progress);
    return {std::move(even.mesh), std::move(even.patch), edge};
}

Tool build_tool(const ToolInputs& in, const EvenFace& face, Progress& progress) {
    return ToolBuilder(in, face, progress).build();
}

}  // namespace jig::back
