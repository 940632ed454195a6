// The part's zones on the stand: their borders as bold lines on the face, each with its name and thickness.
#include "app/stand/scene_parts.hpp"

namespace jig::app {

void add_zones(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
               const Wording& w) {
    const auto& marked = *f.part->marked;
    if (marked.borders.size() != job.part.zones.size()) return;
    const double lift = 0.004 * s.bounds.diagonal();
    for (std::size_t z = 0; z < marked.borders.size(); ++z) {
        for (const auto& [a, b, normal] : marked.borders[z])
            s.lines.push_back({{up(a + lift * normal), up(b + lift * normal)}, k.petrol, 3.0, false});
        if (!marked.middles[z]) continue;
        double thickness = 0;
        for (const auto& r : f.part->regions) {
            if ((r.zones >> z & 1u) != 0 && (thickness == 0 || r.zones == 1u << z))
                thickness = r.stack.laminate.thickness;
        }
        s.labels.push_back(
            {up(*marked.middles[z]) + Point(0, 0, lift),
             QString("%1: %2").arg(QString::fromStdString(job.part.zones[z].name),
                                   QString::fromStdString(show(Kind::thickness, thickness, w)))});
    }
    if (!marked.regions.empty()) s.legend += "; tinted: zones";
}

void add_inserts(Scene& s, const Job& job, const Findings& f, const Upright& up) {
    const auto& fits = f.part->inserts.front();
    const double lift = 0.004 * s.bounds.diagonal();
    for (std::size_t i = 0; i < std::min(fits.size(), job.part.inserts.size()); ++i) {
        const auto& insert = job.part.inserts[i];
        if (!part::lies_on(insert.piece, f.part->draped->piece)) continue;
        Point at = fits[i].place.at;
        // While it is dragged it is where the job has it, not where it was worked out.
        if (f.edge && f.edge->tool) {
            const auto& frame = f.edge->tool->frame;
            const Point2 off = Point2(insert.along, insert.across) - fits[i].asked;
            at += off.x() * frame.u + off.y() * frame.v;
        }
        s.marks.push_back({up(at) + Point(0, 0, lift), Fitting::bush, static_cast<int>(i), true,
                           QString::fromStdString(insert.name)});
    }
}

QColor in_zone(const QColor& colour, const Ink& k) {
    const auto between = [](float a, float b) { return a + 0.35f * (b - a); };
    return QColor::fromRgbF(between(colour.redF(), k.petrol.redF()),
                            between(colour.greenF(), k.petrol.greenF()),
                            between(colour.blueF(), k.petrol.blueF()));
}

void add_zone_brushes(Scene& s, const Job& job, std::size_t first_corner, const Ink& k) {
    s.surfaces.push_back({first_corner, s.corners.size(), Point::Zero()});
    std::vector<std::pair<std::size_t, QString>> painted;
    for (std::size_t z = 0; z < job.part.zones.size(); ++z) {
        const auto& zone = job.part.zones[z];
        if (zone.place == ZonePlace::painted) painted.emplace_back(z, QString::fromStdString(zone.name));
    }
    add_paint_brushes(s, painted, "zone", k);
}

void add_paint_brushes(Scene& s, const std::vector<std::pair<std::size_t, QString>>& painted,
                       const QString& to_begin, const Ink& k) {
    for (const auto& [zone, name] : painted)
        s.brushes.push_back({name, Paint::show, Point::UnitZ(), k.petrol, zone});
    if (painted.empty()) s.brushes.push_back({to_begin, Paint::show, Point::UnitZ(), k.petrol});
    s.brushes.push_back({"none here", Paint::plain, Point::UnitZ(), k.faint});
}

}  // namespace jig::app
