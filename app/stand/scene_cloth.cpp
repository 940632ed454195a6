// The part's cloth on the stand.
#include <algorithm>
#include <cmath>
#include <map>

#include "app/stand/scene_parts.hpp"
#include "core/stages/bag/ports.hpp"
#include "core/stages/part/panels.hpp"

namespace jig::app {
namespace {

/// Where the maker starts it, and a handle on its warp: as the job has them, while they are dragged too.
void add_start(Scene& s, const part::DrapeStart& start, const part::ClothNet& net, const TriangleMesh& mesh,
               const Frame& frame, const Upright& up, const Ink& k, double lift) {
    const bag::FlowGround ground(mesh, frame);
    const auto on_face = [&](const Point2& seen) -> Point {
        return up(mesh.points[ground.nearest(seen)]) + Point(0, 0, 2 * lift);
    };
    const Point2 from(start.along, start.across);
    const double turn = start.turn + net.angle, reach = 0.35 * ground.half().norm();
    const Point2 way(std::cos(turn), std::sin(turn));
    const Point seed = on_face(from), warp = on_face(from + reach * way);
    s.lines.push_back({{seed, warp}, k.petrol, 2.8, false});
    s.marks.push_back({seed, Fitting::feed, kClothMarks, true});
    s.marks.push_back({warp, Fitting::bush, kClothMarks + 1, true});
}

}  // namespace

void add_cloth(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
               const Wording& w) {
    const auto& draped = *f.part->draped;
    const auto& net = *draped.worst();
    const auto& mesh = *draped.face;
    const auto shear_of = [&](std::size_t face) -> std::optional<double> {
        const auto corners = on_cloth(net.drape, mesh, face);
        if (!corners) return {};
        double sum = 0;
        for (const auto i : *corners) sum += net.drape.points[i].shear / 3;
        return sum;
    };
    const auto& marks = f.part->marked->marks;
    const auto sprung = [&](std::size_t face) {
        const auto& cores = f.part->cores->cores;
        return std::any_of(cores.begin(), cores.end(),
                           [&](const auto& c) { return face < c.is_tight.size() && c.is_tight[face] != 0; });
    };
    bool springs = false;
    const auto first = s.corners.size();
    add_shape(s, mesh, up, 0, 0, [&](std::size_t face, QColor& colour, Pattern& pattern) {
        const auto shear = shear_of(face);
        colour = k.slides;
        if (!shear) {
            colour = k.faint;
            pattern = Pattern::dots;
        } else if (*shear > net.lock) {
            colour = k.locks;
            pattern = Pattern::crosses;
        } else if (*shear > 0.6 * net.lock) {
            colour = k.drags;
        }
        if (pattern == Pattern::plain && sprung(face)) {
            pattern = Pattern::hatch;
            springs = true;
        }
        if (face < marks.size() && marks[face] != 0) colour = in_zone(colour, k);
        return true;
    });
    add_zone_brushes(s, first, k);
    // Corners that are bridged lie on the shape's own faces.
    const auto& bridged = f.part->corners.faces;
    bool any = false;
    if (f.shape && bridged.size() == f.shape->mesh.triangles.size())
        add_shape(s, f.shape->mesh, up, 0, 0.0005, [&](std::size_t face, QColor& colour, Pattern& pattern) {
            colour = k.drags;
            pattern = Pattern::dots;
            any = any || bridged[face];
            return bridged[face] != 0;
        });
    // Every few threads, so that they can be told apart.
    std::map<int, std::map<int, const DrapeNode*>> along, across;
    for (const auto& node : net.drape.nodes) {
        if (node.outside) continue;
        if (node.j % 3 == 0) along[node.j][node.i] = &node;
        if (node.i % 3 == 0) across[node.i][node.j] = &node;
    }
    const double lift = 0.002 * s.bounds.diagonal();
    const auto draw = [&](const auto& threads, double width) {
        for (const auto& [number, thread] : threads) {
            SceneLine line;
            line.colour = k.ink;
            line.width = number == 0 ? 2.2 : width;
            int last = 0;
            for (const auto& [at, node] : thread) {
                if (!line.points.empty() && at != last + 1) {
                    if (line.points.size() > 1) s.lines.push_back(line);
                    line.points.clear();
                }
                const auto& t = mesh.triangles[node->face];
                const Point n =
                    (mesh.points[t[1]] - mesh.points[t[0]]).cross(mesh.points[t[2]] - mesh.points[t[0]]);
                line.points.push_back(up(node->at + lift * n.normalized()));
                last = at;
            }
            if (line.points.size() > 1) s.lines.push_back(std::move(line));
        }
    };
    draw(along, 0.8);
    draw(across, 0.8);
    for (const auto& [a, b, normal] : net.drape.meets)
        s.lines.push_back({{up(a + lift * normal), up(b + lift * normal)}, k.clay, 2.2, true});
    // Where it truly does: from a rim's notch it is moved in.
    const Point& seed = net.drape.nodes.empty() ? draped.seed : net.drape.nodes.front().at;
    if ((seed - draped.seed).norm() > draped.cell)
        s.labels.push_back({up(seed) + Point(0, 0, 4 * lift), "starts here"});
    if (net.drape.locked > 0)
        s.labels.push_back({up(net.drape.most_at) + Point(0, 0, 4 * lift), "most sheared"});
    s.legend =
        QString(
            "cloth laid at %1: every third thread; sand: past six tenths of locking, crossed: it locks at %2")
            .arg(QString("%1°").arg(std::lround(degrees(net.angle))),
                 QString::fromStdString(show(Kind::angle, net.lock, w)));
    if (f.edge && f.edge->tool) {
        add_start(s, job.part.drape, net, mesh, f.edge->tool->frame, up, k, lift);
        s.legend += "; drag the square where it starts, the ring on its warp";
    }
    if (!net.drape.meets.empty()) s.legend += "; dashed: it meets itself";
    if (springs) s.legend += "; hatched: its core does not bend so far";
    if (any) s.legend += "; dotted: corners so tight that cloth bridges them";
}

void add_core_panels(Scene& s, const part::CorePanels& panels, const Upright& up, const Ink& k) {
    const double lift = 0.003 * s.bounds.diagonal();
    for (const auto& [a, b, normal] : panels.seams)
        s.lines.push_back({{up(a + lift * normal), up(b + lift * normal)}, k.clay, 2.2, true});
    // Where there are many, every name would lie over the next.
    constexpr std::size_t kMostNames = 24;
    if (panels.panels.size() <= kMostNames && panels.panels.size() > 1) {
        for (const auto& p : panels.panels)
            s.labels.push_back({up(p.middle + 2 * lift * p.normal), QString::fromStdString(p.name)});
    }
    if (!panels.seams.empty()) s.legend += "; dashed: joints between panels of core";
}

}  // namespace jig::app
