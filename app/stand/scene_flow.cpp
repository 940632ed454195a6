// The resin's way over the part on the stand.
#include <algorithm>
#include <cmath>

#include "app/stand/bands.hpp"
#include "app/stand/scene_parts.hpp"
#include "core/stages/bag/front.hpp"

namespace jig::app {
namespace {

/// Bands from the first wet to the last.
constexpr std::size_t kBands = 7;

void add_hoses(Scene& s, const Job& job, const bag::Flow& flow, const bag::FlowGround& ground,
               const Upright& up, double lift, const Ink& k) {
    const auto& mesh = *flow.face;
    const auto raised = [&](const Point& p) -> Point { return up(p) + Point(0, 0, lift); };
    // While one is dragged it is where the job has it, not where it was worked out.
    const bool own = infusion_shown(job).plan == InfusionPlan::own;
    const auto& ports = infusion_shown(job).ports;
    int feeds = 0, vents = 0;
    for (std::size_t i = 0; i < (own ? ports.size() : flow.ports.size()); ++i) {
        const auto& port = own ? ports[i] : flow.ports[i].port;
        const bool feed = port.use == PortUse::feed;
        const auto name = feed ? QString("feed %1").arg(++feeds) : QString("vent %1").arg(++vents);
        const auto kind = feed ? Fitting::feed : Fitting::port;
        // As high as the face is there.
        const auto at = [&](double along, double across) -> Point {
            const auto near = ground.nearest({along, across});
            const Point2 off = Point2(along, across) - ground.seen(near);
            return mesh.points[near] + off.x() * flow.frame.u + off.y() * flow.frame.v;
        };
        const auto placed =
            std::find_if(flow.ports.begin(), flow.ports.end(), [&](const auto& p) { return p.port == port; });
        SceneLine line;
        line.colour = feed ? k.petrol : k.clay;
        line.width = 3.4;
        line.dashed = !feed;
        if (placed != flow.ports.end() && port.has_ends()) {
            for (const auto& way : placed->ways) {
                if (!line.points.empty()) s.lines.push_back(line);
                line.points.clear();
                for (const auto& p : bag::straightened(way, ground)) line.points.push_back(raised(p));
            }
        } else if (placed != flow.ports.end() && port.kind == PortKind::rim) {
            for (const auto p : placed->points) line.points.push_back(raised(mesh.points[p]));
            const bool whole = port.kind == PortKind::rim && port.along == port.to_along;
            if (whole && !line.points.empty()) line.points.push_back(line.points.front());
        }
        const int number = 2 * static_cast<int>(i);
        Point label = at(port.along, port.across);
        if (port.kind == PortKind::rim) {
            if (placed != flow.ports.end()) label = placed->at;
            s.marks.push_back({raised(label), kind, -1, false});
        } else {
            s.marks.push_back({raised(label), kind, number, true});
        }
        if (port.has_ends()) {
            const Point end = at(port.to_along, port.to_across);
            s.marks.push_back({raised(end), kind, number + 1, true});
            if (line.points.empty()) line.points = {raised(label), raised(end)};
            label = (label + end) / 2;
            if (placed != flow.ports.end()) label = placed->at;
        }
        if (!line.points.empty()) s.lines.push_back(std::move(line));
        // Clear of the mark.
        s.labels.push_back({raised(label) + Point(0, 0, 22 * lift), name});
    }
}

}  // namespace

void add_flow_thickness(Scene& s, const bag::Flow& flow, const Upright& up, const Ink& k, double share) {
    const auto& mesh = *flow.face;
    const auto& left = *flow.thickness;
    const bool full = share < 0.5;
    const auto& thick = full ? left.settled.thick_begin : left.settled.thick;
    // Steps of 1, 2, 5 or 10 % and so on: some eight of them.
    double step = 0.01;
    for (const double s1 : {0.02, 0.05, 0.1, 0.2, 0.5, 1.0}) step = (left.full - 1) / step > 8 ? s1 : step;
    const int grades = std::max(1, static_cast<int>(std::ceil((left.full - 1) / step - 1e-9)));
    const double lift = 0.002 * std::sqrt(flow.area);
    const auto first = s.corners.size();
    std::vector<std::vector<std::pair<Point, Point>>> lines(static_cast<std::size_t>(grades));
    for (std::size_t face = 0; face < mesh.triangles.size(); ++face) {
        const Point own = up(mesh.area_vector2(face).normalized());
        std::vector<Spot> spots;
        for (const auto i : mesh.triangles[face]) spots.push_back({up(mesh.points[i]), own, thick[i] - 1});
        for (int grade = 0; grade < grades; ++grade) {
            const double low = grade * step;
            auto part = spots;
            if (grade > 0) part = kept(part, low, true);
            if (grade + 1 < grades) part = kept(part, low + step, false);
            for (std::size_t c = 2; c < part.size(); ++c)
                add_triangle(s, {part[0].at, part[c - 1].at, part[c].at}, {own, own, own},
                             ramp(k, 0.1 + 0.7 * grade / grades), Pattern::plain);
            if (grade == 0) continue;
            std::vector<Point> ends;
            for (std::size_t c = 0; c < 3; ++c) {
                const auto &a = spots[c], &b = spots[(c + 1) % 3];
                if ((a.value < low) != (b.value < low)) ends.push_back(between(a, b, low).at + lift * own);
            }
            if (ends.size() == 2) lines[static_cast<std::size_t>(grade)].emplace_back(ends[0], ends[1]);
        }
    }
    s.surfaces.push_back({first, s.corners.size(), Point::Zero()});
    for (std::size_t grade = 1; grade < lines.size(); ++grade) {
        const auto chains = chained(lines[grade], 1e-6 * std::sqrt(std::max(flow.area, 1e-12)));
        const std::vector<Point>* longest = nullptr;
        for (const auto& chain : chains) {
            s.lines.push_back({chain, k.ink, 1.0, false});
            if (longest == nullptr || chain.size() > longest->size()) longest = &chain;
        }
        if (longest != nullptr)
            s.labels.push_back({(*longest)[longest->size() / 3] + Point(0, 0, 3 * lift),
                                QString("+%1 %").arg(std::lround(100 * step * static_cast<double>(grade)))});
    }
    s.has_cut = false;
    s.comes_apart = true;
    s.slider = "settles";
    s.legend =
        QString("plies thicker than under the full vacuum, %1: at most by %2 %; slide from full to gelled")
            .arg(full ? "as it is full" : "as it gels")
            .arg(100 * ((full ? left.full : left.end) - 1), 0, 'f', 1);
}

void add_flow(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k, const Wording& w,
              double share) {
    const auto& flow = *f.flow;
    const auto& mesh = *flow.face;
    const auto& arrival = flow.filling.arrival;
    double last = 0;
    for (const auto& a : arrival) last = std::max(last, a.value_or(0));
    const double now = share * last, lift = 0.002 * std::sqrt(flow.area);
    const auto times = bag::front_times(flow, kBands);
    std::vector<Point> normals(mesh.points.size(), Point::Zero());
    for (std::size_t face = 0; face < mesh.triangles.size(); ++face) {
        for (const auto i : mesh.triangles[face]) normals[i] += mesh.area_vector2(face);
    }
    const auto dry = k.paper.lightness() > 128 ? k.paper.darker(106) : k.paper.lighter(170);
    const auto first = s.corners.size();
    double wet = 0, whole = 0;
    for (std::size_t face = 0; face < mesh.triangles.size(); ++face) {
        const Point own = mesh.area_vector2(face).normalized();
        const auto& t = mesh.triangles[face];
        const double area = mesh.area_vector2(face).norm() / 2;
        whole += area;
        const auto corner = [&](std::size_t c) {
            const auto i = t[c];
            const Point soft = normals[i].normalized();
            return Spot{up(mesh.points[i]), up(soft.dot(own) > 0.8 ? soft : own), arrival[i].value_or(0)};
        };
        const std::vector<Spot> spots{corner(0), corner(1), corner(2)};
        const auto draw = [&](const std::vector<Spot>& part, const QColor& colour, Pattern pattern) {
            for (std::size_t c = 2; c < part.size(); ++c)
                add_triangle(s, {part[0].at, part[c - 1].at, part[c].at},
                             {part[0].normal, part[c - 1].normal, part[c].normal}, colour, pattern);
        };
        if (!arrival[t[0]] || !arrival[t[1]] || !arrival[t[2]]) {
            // What no resin comes to is told by more than its colour.
            draw(spots, k.locks, Pattern::crosses);
            continue;
        }
        for (const auto i : t) wet += *arrival[i] <= now ? area / 3 : 0;
        for (std::size_t band = 0; band <= times.size(); ++band) {
            auto part = spots;
            if (band > 0) part = kept(part, times[band - 1], true);
            if (band < times.size()) part = kept(part, times[band], false);
            if (part.size() < 3) continue;
            const auto colour =
                ramp(k, 0.18 + 0.5 * static_cast<double>(band) / static_cast<double>(times.size() + 1));
            draw(kept(part, now, false), colour, Pattern::plain);
            draw(kept(part, now, true), dry, Pattern::plain);
        }
    }
    s.surfaces.push_back({first, s.corners.size(), Point::Zero()});
    const auto lines = [&](double time, const QColor& colour, double width) {
        std::size_t longest = 0;
        Point at = Point::Zero();
        for (const auto& line : bag::front_at(flow, time)) {
            add_line(s, line, up, Point(0, 0, lift), colour, width);
            if (line.size() <= longest) continue;
            longest = line.size();
            at = line[line.size() / 3];
        }
        if (longest > 0)
            s.labels.push_back(
                {up(at) + Point(0, 0, 3 * lift), QString::fromStdString(show(Kind::duration, time, w))});
    };
    for (const double time : times) lines(time, k.faint, 1.0);
    for (const auto& d : flow.filling.dry)
        s.labels.push_back({up(d.at) + Point(0, 0, 6 * lift),
                            QString("stays dry, ") + QString::fromStdString(show(Kind::area, d.area, w))});
    if (flow.filling.last && flow.filling.fill)
        s.labels.push_back({up(mesh.points[*flow.filling.last]) - Point(0, 0, 20 * lift), "full last"});
    const bag::FlowGround ground(mesh, flow.frame);
    int seen = kSeenMarks;
    for (const auto& mark : infusion_shown(job).seen) {
        const auto near = ground.nearest({mark.along, mark.across});
        const Point2 off = Point2(mark.along, mark.across) - ground.seen(near);
        const Point p =
            up(mesh.points[near] + off.x() * flow.frame.u + off.y() * flow.frame.v) + Point(0, 0, lift);
        const double arm = 6 * lift;
        s.marks.push_back({p, Fitting::bush, seen++, true});
        s.lines.push_back({{p - Point(arm, arm, 0), p + Point(arm, arm, 0)}, k.clay, 2.0, false});
        s.lines.push_back({{p - Point(arm, -arm, 0), p + Point(arm, -arm, 0)}, k.clay, 2.0, false});
        s.labels.push_back({p + Point(0, 0, 3 * lift),
                            "seen at " + QString::fromStdString(show(Kind::duration, mark.after, w))});
    }
    if (share < 0.999) lines(now, k.ink, 3.0);
    add_hoses(s, job, flow, ground, up, lift, k);
    s.has_cut = false;
    s.comes_apart = true;
    s.slider = "front";
    s.legend = QString(
                   "resin after %1: %2 % of the face; lines with the time that it comes; petrol: feeds; "
                   "dashed: vents; "
                   "drag squares, rings and crosses")
                   .arg(QString::fromStdString(show(Kind::duration, now, w)))
                   .arg(std::lround(100 * wet / std::max(whole, 1e-12)));
    if (!flow.filling.dry.empty()) s.legend += "; crossed: stays dry";
}

}  // namespace jig::app
