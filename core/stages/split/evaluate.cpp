#include <fmt/format.h>

#include <limits>

#include "core/science/mesh/slice.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::split {
namespace {

/// The largest closed edge of the moulded faces, seen along the pull; where there is none (a ball), the
/// widest of 64 sections across the pull.
Loop find_rim(const shape::Findings& shape, const Findings& f, Progress& progress) {
    TriangleMesh moulded;
    moulded.points = shape.mesh.points;
    for (std::size_t i = 0; i < shape.mesh.triangles.size(); ++i) {
        if (f.map.faces[i] != Release::open) moulded.triangles.push_back(shape.mesh.triangles[i]);
    }
    const auto topology = topology_of(moulded);
    Loop best;
    for (const auto& loop : rim_loops(moulded, topology)) {
        Loop flat;
        for (const auto i : loop) flat.push_back(f.frame.flat(moulded.points[i]));
        if (std::abs(signed_area(flat)) > std::abs(signed_area(best))) best = flat;
    }
    const double seen = std::abs(signed_area(best));
    if (seen < 0.2 * f.map.projected) {
        std::vector<double> heights;
        for (int i = 0; i < 64; ++i) heights.push_back(f.foot + f.map.depth * (i + 0.5) / 64);
        double widest = 0;
        for (const auto& section : sections(shape.mesh, shape.topology, f.frame, heights, progress)) {
            for (const auto& loop : section.loops) {
                if (signed_area(loop) > widest) {
                    widest = signed_area(loop);
                    best = loop;
                }
            }
        }
    }
    if (signed_area(best) < 0) std::reverse(best.begin(), best.end());
    return best;
}

/// Developed width and second moment (per unit thickness) of the skin in sections across its longest side.
void measure_sections(const shape::Findings& shape, Findings& f, Progress& progress) {
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : shape.mesh.points) {
        low = low.cwiseMin(f.frame.flat(p));
        high = high.cwiseMax(f.frame.flat(p));
    }
    const bool along_u = (high - low).x() >= (high - low).y();
    const Point axis = along_u ? f.frame.u : f.frame.v;
    const Frame across{f.frame.w, axis.cross(f.frame.w), axis};
    const double from = along_u ? low.x() : low.y(),
                 reach = along_u ? high.x() - low.x() : high.y() - low.y();
    std::vector<double> stations;
    for (int i = 0; i < 5; ++i) stations.push_back(from + reach * (0.3 + 0.1 * i));
    for (const auto& cut : sections(shape.mesh, shape.topology, across, stations, progress)) {
        double length = 0, first = 0, second = 0;
        const auto walk = [&](const Loop& line, bool closed) {
            for (std::size_t i = 0; i + (closed ? 0 : 1) < line.size(); ++i) {
                const auto &a = line[i], &b = line[(i + 1) % line.size()];
                const double ds = (b - a).norm();
                length += ds;
                first += ds * (a.x() + b.x()) / 2;
                second += ds * (a.x() * a.x() + a.x() * b.x() + b.x() * b.x()) / 3;
            }
        };
        for (const auto& loop : cut.loops) walk(loop, true);
        for (const auto& line : cut.open_lines) walk(line, false);
        if (length <= 0) continue;
        f.section_width += length / 5;
        f.section_second += (second - first * first / length) / 5;
    }
}

}  // namespace

Findings evaluate(const Choices& c, const shape::Findings& shape, Progress& progress) {
    Findings out;
    DraftRules rules;
    rules.drag_angle = c.drag_angle;
    rules.foot_open = c.foot_open;
    if (c.mode == PullMode::best) {
        out.candidates = best_pulls(shape.mesh, *shape.rays, rules, 3, progress);
        out.pull = out.candidates.front().direction;
    } else {
        out.pull = {c.pull[0], c.pull[1], c.pull[2]};
        if (!(out.pull.norm() > 1e-9))
            throw InputError("split", "the pull has no length", "give a direction such as 0, 0, 1");
        out.pull.normalize();
    }
    out.frame = frame_across(out.pull);
    out.map = draft(shape.mesh, *shape.rays, out.pull, rules, progress);
    out.moulded_area = out.map.area - out.map.open;
    out.foot = std::numeric_limits<double>::infinity();
    for (const auto& t : shape.mesh.triangles) {
        for (const auto i : t) out.foot = std::min(out.foot, out.pull.dot(shape.mesh.points[i]));
    }
    out.rim = find_rim(shape, out, progress);
    measure_sections(shape, out, progress);
    const auto& m = out.map;
    const auto share = [&](double a) {
        return fmt::format("{:.1f} % of the moulded area",
                           out.moulded_area > 0 ? 100 * a / out.moulded_area : 0);
    };
    out.figures = {
        {"slides", "slides", Kind::area, m.slides,
         share(m.slides) + ": more draft than the drag angle and nothing stands over it"},
        {"drags", "drags", Kind::area, m.drags,
         share(m.drags) + ": draft between 0 and " + quantity(Kind::angle, c.drag_angle)},
        {"locks", "locks", Kind::area, m.locks, share(m.locks) + ": turned away from the pull, or overhung"},
        {"overhung", "of that, overhung", Kind::area, m.shadowed,
         "rays from the face along the pull meet the shape"},
        {"min_draft", "worst draft", Kind::angle, m.min_draft, "asin of normal · pull at the worst face"},
        {"moulded", "moulded area", Kind::area, out.moulded_area,
         "all faces less " + quantity(Kind::area, m.open) + " of open foot"},
        {"projected", "seen along the pull", Kind::area, m.projected,
         "sum of A·sin(draft) over faces that nothing stands over"},
        {"draw", "depth of draw", Kind::length, m.depth, "extent along the pull"}};
    return out;
}

}  // namespace jig::split
