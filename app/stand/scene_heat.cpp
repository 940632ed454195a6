// Heat on the stand: thermocouples as flags on the shape, and the oven with what it is off by.
#include <algorithm>

#include "app/stand/scene_parts.hpp"
#include "core/stages/heat/sensors.hpp"

namespace jig::app {
namespace {

/// rad; what a fold closes by less than is shown as nought.
constexpr double kStays = 1e-4;

/// The oven round what stands on the stand, its door on the left.
struct OvenRound {
    Point low, size;
    [[nodiscard]] Point at(double x, double y, double z) const {
        // Its left is seen from the door.
        return low + Point(x * size.x(), (1 - y) * size.y(), z * size.z());
    }
    [[nodiscard]] Point at(const heat::OvenSpot& s) const { return at(s.x, s.y, s.z); }
};

void add_oven(Scene& s, const OvenRound& oven, const heat::Oven& choices, const Ink& k, const Wording& w) {
    for (const double z : {0.0, 1.0}) {
        s.lines.push_back(
            {{oven.at(0, 0, z), oven.at(1, 0, z), oven.at(1, 1, z), oven.at(0, 1, z), oven.at(0, 0, z)},
             k.faint,
             1,
             true});
    }
    for (const double x : {0.0, 1.0}) {
        for (const double y : {0.0, 1.0})
            s.lines.push_back({{oven.at(x, y, 0), oven.at(x, y, 1)}, k.faint, 1, false});
    }
    // A door is crossed.
    s.lines.push_back({{oven.at(0, 0, 0), oven.at(0, 1, 1)}, k.faint, 1, true});
    s.lines.push_back({{oven.at(0, 1, 0), oven.at(0, 0, 1)}, k.faint, 1, true});
    s.labels.push_back({oven.at(0, 0.5, 1), "door"});
    for (const auto& spot : choices.map) {
        const auto off = QString::fromStdString(show(Kind::warming, std::abs(spot.off), w));
        s.labels.push_back({oven.at(spot), spot.off > 0 ? "+" + off : spot.off < 0 ? "−" + off : off});
    }
}

/// Faces of the shown mesh on which that doubler or zone lies; none where it cannot be told, which is
/// anywhere.
std::vector<char> lies_on(const Job& job, const Findings& f, CureOf cure, std::size_t of,
                          const TriangleMesh& mesh) {
    if (heat::of_part(cure) || of >= job.shell.zones.size()) return {};
    const auto& zone = job.shell.zones[of];
    if (zone.kind == ZoneKind::painted) return shell::painted_faces(zone, mesh);
    if (zone.kind == ZoneKind::corners && f.shell) return f.shell->corners.faces;
    return {};
}

/// Where of the part's zones it lies well inside, in the part's own axes.
std::optional<Point> zone_middle(const Findings& f, std::size_t region) {
    if (!f.part || region >= f.part->regions.size() || !f.part->marked) return {};
    const auto& middles = f.part->marked->middles;
    for (std::size_t z = 0; z < middles.size(); ++z) {
        if ((f.part->regions[region].zones >> z & 1u) != 0 && middles[z]) return middles[z];
    }
    return {};
}

}  // namespace

void add_thermocouples(Scene& s, const Job& job, const Findings& f, const TriangleMesh& mesh,
                       const Upright& up, double raise, const Ink& k, const Wording& w) {
    const auto* run = f.heat ? f.heat->cures->find(job.heat.shows) : nullptr;
    if (run == nullptr || mesh.triangles.empty()) return;
    const Point span = s.bounds.high - s.bounds.low, middle = (s.bounds.low + s.bounds.high) / 2;
    OvenRound oven{Point::Zero(), Point(job.brief.oven_x, job.brief.oven_y, job.brief.oven_z)};
    oven.low = Point(middle.x() - oven.size.x() / 2, middle.y() - oven.size.y() / 2, s.bounds.low.z());
    const bool mapped = !job.heat.oven.map.empty();
    if (mapped) add_oven(s, oven, job.heat.oven, k, w);
    const auto* cool = heat::coolest(job.heat.oven);
    const auto* warm = heat::warmest(job.heat.oven);
    int number = 0;
    for (const auto& sensor : heat::sensors_of(*run, job.heat)) {
        ++number;
        const auto* spot = sensor.end < 0 ? cool : sensor.end > 0 ? warm : nullptr;
        if (sensor.in_air) {
            if (spot == nullptr) continue;
            s.labels.push_back(
                {oven.at(*spot) + Point(0, 0, 0.06 * span.norm()), QString("%1 in the air").arg(number)});
            continue;
        }
        const auto on = sensor.of ? lies_on(job, f, run->of, *sensor.of, mesh) : std::vector<char>();
        // Where nothing says where along it, in its middle, and two not in one place.
        const Point toward =
            spot != nullptr ? oven.at(*spot) : middle + Point((number - 1) * 0.2 * span.x(), 0, span.z());
        Point at = Point::Zero();
        double least = 1e30;
        if (const auto inside =
                heat::of_part(run->of) && sensor.of ? zone_middle(f, *sensor.of) : std::nullopt) {
            at = up(*inside);
        } else {
            for (std::size_t face = 0; face < mesh.triangles.size(); ++face) {
                if (face < on.size() && !on[face]) continue;
                const Point p = up(mesh.centre(face)) + Point(0, 0, raise);
                const double off = (p - toward).squaredNorm();
                if (off >= least) continue;
                least = off;
                at = p;
            }
            if (least > 1e29) continue;
        }
        const Point tip = at + Point(0, 0, 0.16 * span.norm());
        s.lines.push_back({{at, tip}, k.ink, 2, false});
        const auto what = QString::fromStdString(sensor.for_what);
        s.labels.push_back({tip, QString("%1 %2").arg(number).arg(what.left(what.indexOf(':')))});
    }
    if (number > 0)
        s.legend += QString("; flags: thermocouples, numbered as Heat lists them") +
                    (mapped ? "; round it the oven, its door crossed, and its map" : "");
    if (!mapped) return;
    s.aside = s.bounds;
    s.aside->low = s.aside->low.cwiseMin(oven.low);
    s.aside->high = s.aside->high.cwiseMax(oven.low + oven.size);
}

void add_folds(Scene& s, const heat::FoldsUse& use, const Upright& up, const Ink& k, const QColor& plain,
               const Wording& w) {
    const auto& face = *use.on.face;
    std::vector<char> folds(face.triangles.size(), 0), worst(face.triangles.size(), 0);
    for (std::size_t i = 0; i < use.all.size(); ++i) {
        for (const auto f : (*use.on.folds)[i].faces) (use.worst() == i ? worst : folds)[f] = 1;
    }
    add_shape(s, face, up, 0, 0, [&](std::size_t f, QColor& colour, Pattern& pattern) {
        colour = worst[f] ? k.clay : folds[f] ? k.petrol : plain;
        pattern = worst[f] ? Pattern::crosses : folds[f] ? Pattern::hatch : Pattern::plain;
        return true;
    });
    const double off = 0.05 * (s.bounds.high - s.bounds.low).norm();
    for (std::size_t i = 0; i < use.all.size(); ++i) {
        const auto& fold = (*use.on.folds)[i];
        // A leader that stands off the face, so that the number does not lie on the hatch.
        const Point at = up(fold.at), tip = at + Point(0, 0, off);
        s.lines.push_back({{at, tip}, k.ink, 1, false});
        const auto angle = [&](double of) { return QString::fromStdString(show(Kind::angle, of, w)); };
        const double closes = use.all[i].closes;
        s.labels.push_back({tip, QString("%1: %2 %3")
                                     .arg(i + 1)
                                     .arg(angle(fold.turn), std::abs(closes) < kStays ? "stays"
                                                            : closes > 0 ? "closes " + angle(closes)
                                                                         : "opens " + angle(-closes))});
    }
    s.legend =
        "the part's face; hatched: its folds, numbered as Heat lists them; crossed: the one whose flank "
        "moves furthest";
}

}  // namespace jig::app
