// The face as it stands with its release: its state, and the way that each coat is laid.
#include "app/stand/scene_parts.hpp"
#include "core/stages/release/strips.hpp"
#include "core/stages/release/strokes.hpp"

namespace jig::app {
namespace {

void add_strokes(Scene& s, const TriangleMesh& mesh, const Upright& up, const Findings& f, const Ink& k) {
    if (!f.release) return;
    Progress unhurried;
    const auto strokes = release::strokes_of(f.release->plan, mesh, up.frame, unhurried);
    const double size = (s.bounds.high - s.bounds.low).norm(), lift = 0.004 * size, head = 0.03 * size;
    int number = 0;
    for (const auto& stroke : strokes) {
        SceneLine line;
        line.colour = k.petrol;
        line.width = 2.4;
        // Told apart by more than their place.
        line.dashed = number++ % 2 == 1;
        for (const auto& p : stroke.way) line.points.push_back(up(p) + Point(0, 0, lift));
        const Point tip = line.points.back();
        Point back = line.points[line.points.size() - 2] - tip;
        // A short last step says little of where it comes from.
        for (std::size_t i = line.points.size(); i-- > 0 && back.norm() < head;) back = line.points[i] - tip;
        if (back.norm() > 0) {
            back.normalize();
            Point aside = back.cross(Point::UnitZ());
            if (aside.norm() < 1e-3) aside = back.cross(Point::UnitX());
            aside.normalize();
            s.lines.push_back({{tip + head * (back + 0.5 * aside), tip, tip + head * (back - 0.5 * aside)},
                               k.petrol,
                               2.4,
                               false});
        }
        QStringList coats;
        for (const int c : stroke.coats) coats << QString::number(c);
        s.labels.push_back({line.points[line.points.size() / 4] + Point(0, 0, 2 * lift),
                            (coats.size() == 1 ? "coat " : "coats ") + coats.join(", ")});
        s.lines.push_back(std::move(line));
    }
    if (!strokes.empty()) s.legend += "    arrows: which way each coat is laid";
}

/// Of a face that is released off a roll: its strips, edge to edge.
bool add_strips(Scene& s, const TriangleMesh& mesh, const Upright& up, const Findings& f, const Ink& k) {
    if (!f.release) return false;
    const release::Face* rolled = nullptr;
    for (const auto& face : f.release->faces) {
        const bool by_roll = face.system.kind == ReleaseKind::sheet || face.system.kind == ReleaseKind::tape;
        // Plug and mould are the same face; the mould's own comes first.
        if (by_roll && !face.system.first_use.empty() &&
            (face.of == release::FaceOf::mould || (face.of == release::FaceOf::plug && rolled == nullptr)))
            rolled = &face;
    }
    if (rolled == nullptr) return false;
    const auto& coat = rolled->system.first_use.front();
    Progress unhurried;
    const auto strips =
        release::strips_over(mesh, up.frame, std::max(1e-3, coat.width - coat.lap), unhurried);
    const double lift = 0.003 * (s.bounds.high - s.bounds.low).norm();
    for (const auto& way : strips.ways) {
        SceneLine line;
        line.colour = k.petrol;
        line.width = 1.4;
        for (const auto& p : way) line.points.push_back(up(p) + Point(0, 0, lift));
        s.lines.push_back(std::move(line));
    }
    s.legend += "    lines: middles of the " + QString::fromStdString(coat.product) + "'s strips on the " +
                QString::fromStdString(rolled->name);
    return rolled->of == release::FaceOf::mould;
}

}  // namespace

void add_released(Scene& s, const TriangleMesh& mesh, const Upright& up, const Job& job, const Findings& f,
                  const Ink& k) {
    QColor colour = k.slides;
    Pattern pattern = Pattern::plain;
    QString state = "not noted yet";
    if (f.log && !job.log.entries.empty()) {
        for (const auto& face : f.log->faces) {
            if (face.of != release::FaceOf::mould) continue;
            const auto standing =
                release::state_after(face.system, face.history, face.events, release::kAfterAll);
            state = QString::fromStdString(face.name + " " + release::words_of(standing));
            switch (standing.standing) {
                case release::Standing::bare:
                case release::Standing::coating:
                    pattern = Pattern::dots;
                    break;
                case release::Standing::worn:
                case release::Standing::repaired:
                case release::Standing::wrong:
                    pattern = Pattern::crosses;
                    break;
                case release::Standing::curing:
                case release::Standing::ready:
                    break;
            }
            if (pattern != Pattern::plain) break;
        }
    }
    if (pattern == Pattern::dots) colour = k.paper.darker(108);
    add_shape(s, mesh, up, 0, 0, [&](std::size_t, QColor& c, Pattern& p) {
        c = colour;
        p = pattern;
        return true;
    });
    s.legend = state +
               (pattern == Pattern::plain  ? "    sage: released"
                : pattern == Pattern::dots ? "    dotted: coats missing"
                                           : "    crossed: touch up first") +
               "    yellow: tape land, masked and kept clear";
    if (!add_strips(s, mesh, up, f, k)) add_strokes(s, mesh, up, f, k);
}

}  // namespace jig::app
