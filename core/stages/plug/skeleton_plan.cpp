#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/stages/plug/plan.hpp"

namespace jig::plug {
namespace {

Loops solid_section(const split::Stood& solid, const Frame& plane, double at, Progress& progress) {
    const std::array<double, 1> height{at};
    return united(sections(solid.mesh, solid.topology, plane, height, progress).front().loops);
}

}  // namespace

SkeletonPlan skeleton_plan(const Choices& c, const Body& body, const Board& ply, Progress& progress) {
    SkeletonPlan out;
    const auto& s = c.skeleton;
    const auto solid = solid_of(body);
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : solid.mesh.points) {
        low = low.cwiseMin(body.frame.flat(p));
        high = high.cwiseMax(body.frame.flat(p));
    }
    const bool along_u = (high - low).x() >= (high - low).y();
    // Planes: coordinates across and up in a station, along and up in a keel.
    const Frame& f = body.frame;
    const Frame station = along_u ? Frame{f.v, f.w, f.u} : Frame{-f.u, f.w, f.v},
                keel = along_u ? Frame{-f.u, f.w, f.v} : Frame{-f.v, f.w, -f.u};
    const double from = along_u ? low.x() : low.y(), to = along_u ? high.x() : high.y();
    const double left = along_u ? low.y() : low.x(), right = along_u ? high.y() : high.x();
    const int count = std::max(2, static_cast<int>(std::ceil((to - from) / s.pitch)));
    std::vector<double> station_at, keel_at;
    for (int i = 0; i < count; ++i) station_at.push_back(from + (to - from) * (i + 0.5) / count);
    for (int i = 0; i < s.keels; ++i) keel_at.push_back(left + (right - left) * (i + 1.0) / (s.keels + 1));
    // In a keel's plane `along` runs against the station axis, and the keel's own axis against or along v.
    const auto keel_plane_at = [&](double across) { return keel.w.dot(along_u ? f.v : f.u) * across; };
    const auto along_in_keel = [&](double along) { return keel.u.dot(along_u ? f.u : f.v) * along; };
    const auto across_in_station = [&](double across) { return station.u.dot(along_u ? f.v : f.u) * across; };
    const double half = (ply.thickness + s.clearance) / 2;
    double girth = 0;
    for (int i = 0; i < count; ++i) {
        progress.report(0.6 * i / count, "drawing stations");
        const auto at = station_at[static_cast<std::size_t>(i)];
        const auto whole = solid_section(solid, station, at, progress);
        double round = 0;
        for (const auto& loop : whole) round += perimeter(loop);
        girth = std::max(girth, round);
        Rib rib{fmt::format("station {}", i + 1), offset(whole, -s.skin), station, at};
        // A template is what stands round the shape: its edge is the surface itself.
        if (!whole.empty()) {
            const Point2 a = low_corner(whole), b = high_corner(whole);
            const double rim = std::max(0.05, 0.12 * (b - a).maxCoeff());
            Rib gauge{fmt::format("template {}", i + 1),
                      taken_off({rectangle(a.x() - rim, a.y(), b.x() + rim, b.y() + rim)}, whole), station,
                      at};
            out.templates.push_back(std::move(gauge));
        }
        if (!rib.outline.empty()) out.stations.push_back(std::move(rib));
    }
    for (int i = 0; i < s.keels; ++i) {
        progress.report(0.6 + 0.2 * i / s.keels, "drawing keels");
        const double at = keel_plane_at(keel_at[static_cast<std::size_t>(i)]);
        Rib rib{s.keels > 1 ? fmt::format("keel {}", i + 1) : std::string("keel"),
                offset(solid_section(solid, keel, at, progress), -s.skin), keel, at};
        if (!rib.outline.empty()) out.keels.push_back(std::move(rib));
    }
    // Half laps: the keel's slot comes from below, the station's from above, each to half of what both have
    // there.
    std::vector<Loops> station_slots(out.stations.size()), keel_slots(out.keels.size());
    for (std::size_t k = 0; k < out.keels.size(); ++k) {
        const double across = out.keels[k].at * keel.w.dot(along_u ? f.v : f.u);
        for (std::size_t i = 0; i < out.stations.size(); ++i) {
            const double x_station = across_in_station(across), x_keel = along_in_keel(out.stations[i].at);
            double a = 0, b = 0, p = 0, q = 0;
            if (!upright_span(out.stations[i].outline, x_station, a, b) ||
                !upright_span(out.keels[k].outline, x_keel, p, q))
                continue;
            const double middle = (std::max(a, p) + std::min(b, q)) / 2;
            station_slots[i].push_back(
                rectangle(x_station - half, middle, x_station + half, std::max(b, q) + 1));
            keel_slots[k].push_back(rectangle(x_keel - half, std::min(a, p) - 1, x_keel + half, middle));
        }
    }
    const auto finish = [&](Rib& rib, const Loops& slots) {
        if (!slots.empty()) rib.outline = taken_off(rib.outline, slots);
        out.ply_area += net_area(rib.outline);
        for (const auto& loop : rib.outline) out.cut_length += perimeter(loop);
    };
    for (std::size_t i = 0; i < out.stations.size(); ++i) finish(out.stations[i], station_slots[i]);
    for (std::size_t k = 0; k < out.keels.size(); ++k) finish(out.keels[k], keel_slots[k]);
    out.skin = std::min(body.volume, s.skin * body.area);
    out.fill = std::max(0.0, body.volume - out.skin - out.ply_area * ply.thickness);
    out.battens = std::max(2, static_cast<int>(std::ceil(0.5 * girth / s.batten)));
    out.batten_length = out.battens * 1.05 * (to - from);
    out.sheets = static_cast<int>(
        std::ceil(out.ply_area / (ply.sheet_length * ply.sheet_width * (1 - c.waste)) - 1e-9));
    progress.report(1, "skeleton drawn");
    return out;
}

}  // namespace jig::plug
