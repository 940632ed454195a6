#include "core/stages/bag/front.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jig::bag {

std::vector<Line> front_at(const Flow& f, double time) {
    const auto& mesh = *f.face;
    const auto& arrival = f.filling.arrival;
    std::vector<std::pair<Point, Point>> segments;
    for (const auto& t : mesh.triangles) {
        std::vector<Point> ends;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = t[k], b = t[(k + 1) % 3];
            // What stays dry is never reached, so that a front ends before it.
            if (!arrival[a] || !arrival[b] || (*arrival[a] <= time) == (*arrival[b] <= time)) continue;
            const double share = (time - *arrival[a]) / (*arrival[b] - *arrival[a]);
            ends.push_back(mesh.points[a] + share * (mesh.points[b] - mesh.points[a]));
        }
        if (ends.size() == 2) segments.emplace_back(ends[0], ends[1]);
    }
    return chained(segments, 1e-6 * std::sqrt(std::max(f.area, 1e-12)));
}

std::vector<double> front_times(const Flow& f, std::size_t most) {
    double last = f.filling.fill.value_or(0);
    for (const auto& a : f.filling.arrival) last = std::max(last, a.value_or(0));
    if (!(last > 0) || most == 0) return {};
    static constexpr std::array kSteps{1.0,   2.0,   5.0,    10.0,   15.0,   30.0,    60.0,    120.0,  300.0,
                                       600.0, 900.0, 1800.0, 3600.0, 7200.0, 10800.0, 21600.0, 43200.0};
    double step = kSteps.back();
    for (const double s : kSteps) {
        if (last / s <= static_cast<double>(most) + 0.5) {
            step = s;
            break;
        }
    }
    std::vector<double> out;
    for (double t = step; t < last && out.size() < most; t += step) out.push_back(t);
    if (out.empty()) out.push_back(last / 2);
    return out;
}

SheetSet front_sheet(const Flow& f, const Wording& wording) {
    constexpr double kMargin = 0.03;
    const auto& mesh = *f.face;
    Point2 low = Point2::Constant(1e300), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(f.frame.flat(mesh.points[i]));
            high = high.cwiseMax(f.frame.flat(mesh.points[i]));
        }
    }
    const Point2 off = Point2::Constant(kMargin) - low;
    const auto flat = [&](const Point& p) -> Point2 { return f.frame.flat(p) + off; };
    const auto flattened = [&](const auto& line) {
        Loop out;
        for (const auto& p : line) out.push_back(flat(p));
        return out;
    };
    const FlowGround ground(mesh, f.frame);
    SheetSet out;
    out.rules.length = high.x() - low.x() + 2 * kMargin;
    out.rules.width = high.y() - low.y() + 2 * kMargin;
    auto& sheet = out.sheets.emplace_back();
    for (const auto& loop : rim_loops(mesh, topology_of(mesh))) {
        Loop rim;
        for (const auto i : loop) rim.push_back(flat(mesh.points[i]));
        sheet.pieces.push_back({"", {}, {std::move(rim)}, Point2::Zero()});
        auto& line = sheet.pieces.back().engraved.front();
        line.push_back(line.front());
        sheet.pieces.back().mark = line.front();
    }
    for (const auto& p : f.ports) {
        SheetPiece piece{p.name, {}, {}, flat(p.at)};
        for (const auto& way : p.ways) piece.engraved.push_back(flattened(straightened(way, ground)));
        Loop line;
        for (const auto i : p.points) line.push_back(flat(mesh.points[i]));
        if (p.port.kind == PortKind::place) {
            const Point2 c = flat(p.at);
            line = {c + Point2(-0.01, 0), c + Point2(0, 0.01), c + Point2(0.01, 0), c + Point2(0, -0.01),
                    c + Point2(-0.01, 0)};
        }
        if (p.ways.empty()) piece.engraved.push_back(std::move(line));
        sheet.pieces.push_back(std::move(piece));
    }
    for (const double time : front_times(f, 8)) {
        const auto lines = front_at(f, time);
        if (lines.empty()) continue;
        const auto& longest = *std::max_element(
            lines.begin(), lines.end(), [](const Line& a, const Line& b) { return a.size() < b.size(); });
        SheetPiece piece{show(Kind::duration, time, wording), {}, {}, flat(longest[longest.size() / 2])};
        for (const auto& line : lines) piece.engraved.push_back(flattened(line));
        sheet.pieces.push_back(std::move(piece));
    }
    return out;
}

std::string pot_table(const Flow& f, const Wording& wording) {
    std::string out = "pot,resin,hardener,mixed,drawn from,empty,mixed at\n";
    const auto time = [&](double s) {
        return (s < 0 ? "before by " : "") + show(Kind::duration, std::abs(s), wording);
    };
    for (std::size_t i = 0; i < f.pots.size(); ++i) {
        const auto& p = f.pots[i];
        out += fmt::format("{},{},{},{},{},{},\n", i + 1, show(Kind::mass, p.mass - p.hardener, wording),
                           show(Kind::mass, p.hardener, wording), time(p.mixed), time(p.from), time(p.till));
    }
    return out;
}

std::string opening_table(const Flow& f, const Wording& wording) {
    std::string out = "hose,along,across,line,opens,after,grams,opened at,drawn\n";
    const FlowGround ground(*f.face, f.frame);
    const auto length = [&](double m) { return show(Kind::length, m, wording); };
    for (std::size_t i = 0; i < f.ports.size(); ++i) {
        const auto& p = f.ports[i];
        const Point2 at = ground.seen(p.at);
        const bool feed = i < f.filling.feeds.size();
        std::string opens = feed ? std::string(said(p.port.opens)) : "", after, grams;
        if (feed) {
            const auto& given = f.filling.feeds[i];
            after = given.opened ? show(Kind::duration, *given.opened, wording) : "never";
            grams = show(Kind::mass, given.mass, wording);
        } else {
            const auto& wet = f.filling.vents[i - f.filling.feeds.size()];
            after = wet ? "resin comes after " + show(Kind::duration, *wet, wording) : "no resin comes";
        }
        out += fmt::format("{},{},{},{},{},{},{},,\n", p.name, length(at.x()), length(at.y()),
                           p.length > 0 ? length(p.length) : "", opens, after, grams);
    }
    return out;
}

}  // namespace jig::bag
