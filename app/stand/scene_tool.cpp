// The flange with its fittings, and the back, on the stand.
#include <algorithm>
#include <cmath>

#include "app/stand/scene_parts.hpp"

namespace jig::app {

void add_flange(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
                const QColor& plain, double raise) {
    if (!f.edge || !f.split) return;
    const auto tape_outer = offset(f.split->joined, job.edge.trim + job.edge.channel + job.edge.tape_land,
                                   job.edge.corner == FlangeCorner::round);
    if (job.edge.lie == FlangeLie::following && f.edge->tool && f.split->one_piece()) {
        // On the real shape: faces of the flange, told apart by where their middle lies.
        const auto& tool = *f.edge->tool;
        const auto& mesh = tool.rimmed.mesh;
        for (std::size_t i = 0; i < mesh.triangles.size(); ++i) {
            if (tool.rimmed.patch[i] != 1) continue;
            const auto flat = tool.frame.flat(mesh.centre(i));
            const bool tape = holds(tape_outer, flat) && !holds(f.edge->tape_inner, flat);
            std::array<Point, 3> p, n;
            for (int c = 0; c < 3; ++c) {
                p[static_cast<std::size_t>(c)] = up(mesh.corner(i, c)) + Point(0, 0, raise);
                n[static_cast<std::size_t>(c)] = up(mesh.area_vector2(i).normalized());
            }
            add_triangle(s, p, n, tape ? k.tape : plain, Pattern::plain);
        }
        return;
    }
    const double z = f.split->foot + raise;
    add_flat(s, taken_off(f.edge->tape_inner, f.split->rims), z, plain, Pattern::plain);
    add_flat(s, taken_off(tape_outer, f.edge->tape_inner), z, k.tape, Pattern::plain);
    add_flat(s, taken_off(f.edge->outline, tape_outer), z, plain, Pattern::plain);
}

void add_fittings(Scene& s, const Job& job, const Findings& f) {
    if (!f.edge || !f.split) return;
    const double z = f.split->foot;
    // Heights of the flange where it follows the rim; the nearest rim point tells.
    const auto place = [&](const Point2& p) {
        double height = z;
        if (job.edge.lie == FlangeLie::following && f.edge->tool) {
            const auto& tool = *f.edge->tool;
            double nearest = 1e30;
            for (std::size_t i = 0; i < tool.rimmed.mesh.triangles.size(); ++i) {
                if (tool.rimmed.patch[i] != 1) continue;
                const Point c = tool.rimmed.mesh.centre(i);
                const double d = (tool.frame.flat(c) - p).squaredNorm();
                if (d < nearest) {
                    nearest = d;
                    height = tool.frame.w.dot(c);
                }
            }
        }
        return Point(p.x(), p.y(), height);
    };
    for (const auto& fit : f.edge->fits) {
        auto at = place(fit.place);
        // Ports in the face sit where it is deepest.
        if (fit.number < 0) at.z() = s.bounds.high.z();
        s.marks.push_back({at, fit.kind, fit.number});
    }
    constexpr int kSteps = 400;
    for (int i = 0; i < kSteps; ++i)
        s.mark_way.push_back(
            place(edge::fit_at(f.edge->fitting_line, Fitting::bolt, static_cast<double>(i) / kSteps).place));
}

void add_back(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k) {
    if (!f.back || !f.split) return;
    if (f.back->crate) {
        const bool foam = job.back.kind == BackKind::foam_blocks;
        const auto colour = hatch_ground(foam ? Hatch::foam : Hatch::ply_wood, k);
        for (const auto& rib : f.back->crate->ribs) {
            const bool across = std::abs(rib.plane.w.dot(up.frame.u)) > 0.5;
            add_flat(s, rib.outline, rib.plane, rib.at, up, across ? colour : colour.darker(106),
                     Pattern::grain);
            for (const auto& loop : rib.outline) {
                SceneLine edge;
                for (const auto& q : simplified(loop, 0.0008))
                    edge.points.push_back(up(rib.plane.lift(q, rib.at)));
                edge.points.push_back(edge.points.front());
                edge.colour = k.faint;
                s.lines.push_back(std::move(edge));
            }
        }
        s.bounds.high.z() = std::max(s.bounds.high.z(), f.back->crate->level);
        s.legend = "the tool as it lies on the plug; turned over, it stands on its feet";
        return;
    }
    if (job.back.has_bars() && f.trial && !f.trial->bars.empty()) {
        for (const auto& [a, b] : f.trial->bars) {
            const Point &p = f.trial->mesh.points[a], &q = f.trial->mesh.points[b];
            s.lines.push_back({{p, q}, k.ink, 3.0, false});
            s.bounds.high.z() = std::max({s.bounds.high.z(), p.z(), q.z()});
        }
        s.legend = "tubes as they stand on the shell; turned over, the tool stands on them";
        return;
    }
    s.legend = job.back.kind == BackKind::sandwich ? "core and an inner skin go over the back of this shell"
                                                   : "the shell alone";
}

}  // namespace jig::app
