// Tool and part under their loads on the stand.
#include <algorithm>
#include <cmath>
#include <functional>

#include "app/stand/bands.hpp"
#include "app/stand/scene_parts.hpp"

namespace jig::app {
namespace {

constexpr int kGrades = 8;

/// A surface bent by what moves its points, drawn with its displacements.
struct Bending {
    const TriangleMesh& mesh;
    const std::vector<Eigen::Vector3f>& field;  ///< m, by point
    std::function<bool(std::size_t)> flat;      ///< faces that stand as plates, in a grain of their own
    std::function<Point(const Point&)> stand;   ///< how it stands on the stand
    double exaggeration = 1;

    std::vector<Spot> spots{};
    double most = 0, times = 0, size = 0;

    void measure() {
        for (const auto& u : field) most = std::max(most, static_cast<double>(u.norm()));
        size = bounds_of(mesh).diagonal();
        times = most > 0 ? 0.16 * exaggeration * size / most : 0;
    }
    void add_to(Scene& s, const Ink& k, const Wording& w);
    /// How many times larger it is drawn, and its lines, as the legend says them.
    [[nodiscard]] QString drawn(const Wording& w) const {
        return QString("drawn %1 times larger; lines every %2")
            .arg(times < 10 ? times : std::round(times / 10) * 10, 0, 'f', times < 10 ? 1 : 0)
            .arg(QString::fromStdString(show(Kind::thickness, most / kGrades, w)));
    }
};

void Bending::add_to(Scene& s, const Ink& k, const Wording& w) {
    measure();
    spots.resize(mesh.points.size());
    std::vector<Point> normals(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (const auto i : mesh.triangles[f]) normals[i] += mesh.area_vector2(f);
    }
    s.bounds.low = Point::Constant(1e30);
    s.bounds.high = -s.bounds.low;
    for (std::size_t i = 0; i < spots.size(); ++i) {
        const Point u = field[i].cast<double>();
        spots[i] = {stand(mesh.points[i] + times * u), stand(normals[i].normalized()), u.norm()};
        s.bounds.low = s.bounds.low.cwiseMin(stand(mesh.points[i]));
        s.bounds.high = s.bounds.high.cwiseMax(stand(mesh.points[i]));
    }
    std::array<std::vector<std::pair<Point, Point>>, kGrades> lines;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point own = stand(mesh.area_vector2(f).normalized());
        std::vector<Spot> face;
        for (const auto i : mesh.triangles[f]) {
            auto spot = spots[i];
            if (flat(f) || spot.normal.dot(own) < 0.8) spot.normal = own;
            face.push_back(spot);
        }
        for (int step = 0; step < kGrades; ++step) {
            const double low = most * step / kGrades, high = most * (step + 1) / kGrades;
            auto part = face;
            if (step > 0) part = kept(part, low, true);
            if (step + 1 < kGrades) part = kept(part, high, false);
            const auto colour = ramp(k, (step + 0.5) / kGrades);
            for (std::size_t c = 2; c < part.size(); ++c)
                add_triangle(s, {part[0].at, part[c - 1].at, part[c].at},
                             {part[0].normal, part[c - 1].normal, part[c].normal}, colour,
                             flat(f) ? Pattern::grain : Pattern::plain);
            if (step == 0) continue;
            // The contour is where the lower bound cuts the face.
            std::vector<Point> ends;
            for (std::size_t c = 0; c < 3; ++c) {
                const auto &a = face[c], &b = face[(c + 1) % 3];
                if ((a.value < low) != (b.value < low)) ends.push_back(between(a, b, low).at + 0.0008 * own);
            }
            if (ends.size() == 2) lines[static_cast<std::size_t>(step)].emplace_back(ends[0], ends[1]);
        }
    }
    // A figure on every second line, where it is easiest to see: high up, and away from the others.
    std::vector<Point> taken;
    for (std::size_t step = 1; step < kGrades; ++step) {
        for (const auto& chain : chained(lines[step], 1e-5 * size)) {
            s.lines.push_back({chain, k.ink, 1.0, false});
        }
        if (step % 2 != 0 || lines[step].empty()) continue;
        const std::pair<Point, Point>* best = nullptr;
        double score = -1e30;
        for (const auto& line : lines[step]) {
            double clear = 1e30;
            for (const auto& p : taken) clear = std::min(clear, (p - line.first).norm());
            const double value = line.first.z() - 0.3 * line.first.y() + 0.5 * std::min(clear, 0.2 * size);
            if (value > score) {
                score = value;
                best = &line;
            }
        }
        // Lines that crowd together share the figure of one.
        if (std::any_of(taken.begin(), taken.end(),
                        [&](const Point& p) { return (p - best->first).norm() < 0.07 * size; }))
            continue;
        taken.push_back(best->first);
        s.labels.push_back(
            {best->first,
             QString::fromStdString(show(Kind::thickness, most * static_cast<double>(step) / kGrades, w))});
    }
}

}  // namespace

void add_part_trial(Scene& s, const part::Trial& trial, const part::Duty& duty, std::size_t load,
                    const Ink& k, const Wording& w, double exaggeration) {
    const auto& result = trial.loads[load];
    if (result.field.size() != trial.mesh.points.size()) return;
    Bending bent{trial.mesh, result.field, [](std::size_t) { return false; },
                 [](const Point& p) { return p; }, exaggeration};
    bent.add_to(s, k, w);
    // What holds it: a stroke down from each point where it rests, a foot of three where it is bolted.
    const double arm = (duty.hold == PartHold::places ? 0.016 : 0.012) * bent.size;
    for (const auto i : result.lies.empty() ? trial.held : result.lies) {
        const Point p = bent.spots[i].at;
        if (duty.hold != PartHold::places) {
            s.lines.push_back({{p, p - Point(0, 0, arm)}, k.clay, 1.6, false});
            continue;
        }
        for (const auto& d : {Point(arm, 0, -arm), Point(-arm, 0, -arm), Point(0, arm, -arm)})
            s.lines.push_back({{p, p + d}, k.clay, 1.6, false});
    }
    for (const auto& push : trial.pushes) {
        if (push.load != load || !(push.force.norm() > 0)) continue;
        const Point way = push.force.normalized();
        add_arrow(s, push.at - 0.14 * bent.size * way, 0.13 * bent.size * way,
                  QString::fromStdString(show(Kind::force, push.force.norm(), w)), k);
    }
    s.ground = s.bounds.low.z();
    s.has_cut = false;
    s.comes_apart = true;
    s.slider = "bend";
    s.legend = QString("%1: gives %2, most at %3%4; %5")
                   .arg(QString::fromStdString(result.name),
                        QString::fromStdString(show(Kind::thickness, result.moves, w)),
                        QString::fromStdString(result.where),
                        result.lies.empty() ? QString() : QString("; its rim lies where it is marked"),
                        bent.drawn(w));
}

void add_trial(Scene& s, const back::Trial& trial, const back::CaseResult& result, const Ink& k,
               const Wording& w, double exaggeration) {
    if (result.field.size() != trial.mesh.points.size()) return;
    // On its feet the tool stands the other way up than on the plug.
    const bool over = result.kind != LoadCase::turned;
    const auto stand = [over](const Point& p) { return over ? Point(p.x(), -p.y(), -p.z()) : p; };
    Bending bent{trial.mesh, result.field,
                 [&](std::size_t f) { return trial.parts[f] == back::ToolPart::rib; }, stand, exaggeration};
    bent.add_to(s, k, w);
    const auto& spots = bent.spots;
    const double size = bent.size;
    for (const auto& [a, b] : trial.bars) s.lines.push_back({{spots[a].at, spots[b].at}, k.ink, 3.0, false});
    if (result.kind != LoadCase::turned) {
        const double arm = 0.018 * size;
        for (const auto i : trial.feet) {
            const Point p = spots[i].at;
            for (const auto& d : {Point(arm, 0, -arm), Point(-arm, 0, -arm), Point(0, arm, -arm)})
                s.lines.push_back({{p, p + d}, k.clay, 1.6, false});
        }
    }
    const Point worst = stand(result.worst);
    if (result.kind == LoadCase::leaning || result.kind == LoadCase::levering)
        add_arrow(s, worst - stand(Point(0, 0, 0.14 * size)), stand(Point(0, 0, 0.13 * size)),
                  QString::fromStdString(std::string(said(result.kind))), k);
    s.ground = s.bounds.low.z();
    s.has_cut = false;
    s.comes_apart = true;
    s.slider = "bend";
    s.legend =
        QString("%1: %2, worst %3; %4")
            .arg(QString::fromStdString(std::string(said(result.kind))),
                 result.relative ? "out of shape, its own shift and turn left off"
                                 : "moves " + QString::fromStdString(show(Kind::thickness, result.moves, w)),
                 QString::fromStdString(result.where), bent.drawn(w));
}

}  // namespace jig::app
