// The part's cloth on the stand.
#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "app/stand/scene_parts.hpp"
#include "core/science/mesh/nearest_face.hpp"
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

/// Every few threads of a net as lines over the face, so that they can be told apart: cell by cell, since
/// on either side of a cut a thread goes its own way.
void add_threads(Scene& s, const Drape& drape, const TriangleMesh& mesh, const Upright& up, const Ink& k,
                 double lift) {
    constexpr int kEvery = 3;
    const auto on_face = [&](std::uint32_t n) {
        const auto& node = drape.nodes[n];
        return up(node.at + lift * mesh.area_vector2(node.face).normalized());
    };
    // From each crossing to the next ones along warp and weft.
    std::map<std::uint32_t, std::vector<std::uint32_t>> along, across;
    const auto join = [&](auto& next, std::uint32_t a, std::uint32_t b) {
        if (drape.nodes[a].outside || drape.nodes[b].outside) return;
        auto& to = next[a];
        if (std::find(to.begin(), to.end(), b) == to.end()) to.push_back(b);
    };
    for (const auto& cell : drape.cells) {
        for (const auto& [a, b] : {std::pair(cell.nodes[0], cell.nodes[1]), {cell.nodes[3], cell.nodes[2]}}) {
            if (drape.nodes[a].j % kEvery == 0) join(along, a, b);
        }
        for (const auto& [a, b] : {std::pair(cell.nodes[0], cell.nodes[3]), {cell.nodes[1], cell.nodes[2]}}) {
            if (drape.nodes[a].i % kEvery == 0) join(across, a, b);
        }
    }
    for (auto* next : {&along, &across}) {
        std::set<std::uint32_t> led_to;
        for (const auto& [a, to] : *next) led_to.insert(to.begin(), to.end());
        const auto draw_from = [&](std::uint32_t a) {
            while (!(*next)[a].empty()) {
                SceneLine line;
                line.colour = k.ink;
                const auto& first = drape.nodes[a];
                line.width = (next == &along ? first.j : first.i) == 0 ? 2.2 : 0.8;
                line.points.push_back(on_face(a));
                for (auto at = a; !(*next)[at].empty();) {
                    const auto to = (*next)[at].back();
                    (*next)[at].pop_back();
                    line.points.push_back(on_face(to));
                    at = to;
                }
                s.lines.push_back(std::move(line));
            }
        };
        std::vector<std::uint32_t> starts;
        for (const auto& [a, to] : *next) starts.push_back(a);
        for (const auto a : starts) {
            if (!led_to.contains(a)) draw_from(a);
        }
        for (const auto a : starts) draw_from(a);
    }
}

/// Where it is cut before it is laid, and handles on the corners of each cut as the job has them.
void add_cuts(Scene& s, const std::vector<part::Cut>& cuts, const part::Draped& draped,
              const part::ClothNet& net, const Frame& frame, const Upright& up, const Ink& k, double lift) {
    for (const auto& cut : draped.cuts) {
        if (cut.as.aside != 0) continue;
        // Those of other plies are there, but do not part what is shown.
        const bool own = std::find(net.cuts.begin(), net.cuts.end(), cut.as) != net.cuts.end();
        for (const auto& [a, b, normal] : cut.line)
            s.lines.push_back(
                {{up(a + lift * normal), up(b + lift * normal)}, k.clay, own ? 3.2 : 1.2, false});
        if (!cut.line.empty() && cuts.size() > 1)
            s.labels.push_back({up(cut.line[cut.line.size() / 2].a) + Point(0, 0, 4 * lift),
                                QString("cut %1").arg(cut.as.cut + 1)});
    }
    const bag::FlowGround ground(*draped.face, frame);
    int number = kCutMarks;
    for (const auto& cut : cuts) {
        for (const auto& spot : cut.line) {
            const auto on = draped.face->points[ground.nearest({spot.along, spot.across})];
            s.marks.push_back({up(on) + Point(0, 0, 2 * lift), Fitting::bush, number++, true});
        }
    }
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
    add_zone_brushes(s, job, first, k);
    // Corners that are bridged lie on the shape's own faces.
    const auto& bridged = f.part->corners.faces;
    bool any = false;
    if (f.shape && bridged.size() == f.shape->mesh.triangles.size()) {
        const auto& whole = f.shape->mesh;
        // Of a mould in pieces those on the face that is shown.
        std::optional<NearestFace> nearest;
        if (draped.piece > 0) nearest.emplace(mesh);
        const auto shown = [&](std::size_t face) {
            if (!nearest) return true;
            const Point middle = whole.centre(face);
            const auto on = nearest->at(middle);
            const Point share = corner_shares(mesh, on, middle);
            constexpr double kOnIt = 1e-4;  // m
            return (share[0] * mesh.corner(on, 0) + share[1] * mesh.corner(on, 1) +
                    share[2] * mesh.corner(on, 2) - middle)
                       .norm() < kOnIt;
        };
        add_shape(s, whole, up, 0, 0.0005, [&](std::size_t face, QColor& colour, Pattern& pattern) {
            colour = k.drags;
            pattern = Pattern::dots;
            const bool here = bridged[face] != 0 && shown(face);
            any = any || here;
            return here;
        });
    }
    const double lift = 0.002 * s.bounds.diagonal();
    add_threads(s, net.drape, mesh, up, k, lift);
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
        add_cuts(s, job.part.cuts, draped, net, f.edge->tool->frame, up, k, lift);
        s.legend += "; drag the square where it starts, the ring on its warp";
    }
    if (!draped.cuts.empty()) s.legend += "; bold: cut before it is laid, drag its ends";
    if (!net.drape.meets.empty()) s.legend += "; dashed: it meets itself";
    if (springs) s.legend += "; hatched: its core does not bend so far";
    if (any) s.legend += "; dotted: corners so tight that cloth bridges them";
}

void add_core_panels(Scene& s, const part::CorePanels& panels, int piece, const Upright& up, const Ink& k) {
    const double lift = 0.003 * s.bounds.diagonal();
    bool any = false;
    for (const auto& [a, b, normal, on] : panels.seams) {
        if (!part::lies_on(on, piece)) continue;
        s.lines.push_back({{up(a + lift * normal), up(b + lift * normal)}, k.clay, 2.2, true});
        any = true;
    }
    // Where there are many, every name would lie over the next.
    constexpr std::size_t kMostNames = 24;
    if (panels.panels.size() <= kMostNames && panels.panels.size() > 1) {
        for (const auto& p : panels.panels) {
            if (part::lies_on(p.piece, piece))
                s.labels.push_back({up(p.middle + 2 * lift * p.normal), QString::fromStdString(p.name)});
        }
    }
    if (any) s.legend += "; dashed: joints between panels of core";
}

}  // namespace jig::app
