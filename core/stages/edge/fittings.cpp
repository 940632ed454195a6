#include <algorithm>
#include <cmath>
#include <limits>

#include "core/stages/edge/findings.hpp"
#include "core/stages/edge/flange.hpp"

namespace jig::edge {
namespace {

/// Half the length along which a fitting wants the line to run straight, m.
constexpr double kClear = 0.03;
/// Typical: a jacking screw wants a draw of this depth, m, and an air port serves so much flat, m².
constexpr double kJackDepth = 0.15;
constexpr double kBushHole = 0.0105, kJackHole = 0.0085;

/// The line's own length up to each corner, starting where it is furthest along the first axis.
struct Way {
    std::vector<Point2> points;
    std::vector<double> from;
    double length = 0;

    explicit Way(const Loop& line) {
        if (line.empty()) return;
        const auto start = std::max_element(line.begin(), line.end(), [](const Point2& a, const Point2& b) {
            return a.x() < b.x() - 1e-9 || (a.x() < b.x() + 1e-9 && std::abs(a.y()) > std::abs(b.y()));
        });
        points.assign(start, line.end());
        points.insert(points.end(), line.begin(), start);
        points.push_back(points.front());
        for (std::size_t i = 0; i < points.size(); ++i) {
            if (i > 0) length += (points[i] - points[i - 1]).norm();
            from.push_back(length);
        }
    }
    [[nodiscard]] Point2 at(double way, Point2* along = nullptr) const {
        if (points.size() < 2 || !(length > 0)) return Point2::Zero();
        way -= std::floor(way / length) * length;
        auto i = static_cast<std::size_t>(std::upper_bound(from.begin(), from.end(), way) - from.begin());
        i = std::clamp<std::size_t>(i, 1, points.size() - 1);
        const double step = from[i] - from[i - 1];
        if (along != nullptr) *along = (points[i] - points[i - 1]).normalized();
        return points[i - 1] + (points[i] - points[i - 1]) * (step > 0 ? (way - from[i - 1]) / step : 0);
    }
    /// How far the line turns within `kClear` of a place, rad.
    [[nodiscard]] double turn(double way) const {
        const Point2 a = at(way - kClear), b = at(way), c = at(way + kClear);
        const Point2 p = b - a, q = c - b;
        return std::abs(std::atan2(p.x() * q.y() - p.y() * q.x(), p.dot(q)));
    }
    /// The nearest place that is clear of corners, within `reach`.
    [[nodiscard]] double clear(double way, double reach) const {
        const double step = kClear / 6;
        for (int i = 0; i <= static_cast<int>(reach / step); ++i) {
            const double off = i * step;
            for (const double to : {way + off, way - off}) {
                if (turn(to) < kCorner) return to;
            }
        }
        return way;
    }
};

}  // namespace

Fit fit_at(const Loop& line, Fitting kind, double at) {
    const Way way(line);
    Point2 along = Point2::UnitY();
    Fit out{kind, at, way.at(at * way.length, &along), {}, -1};
    out.outward = {along.y(), -along.x()};
    return out;
}

double share_near(const Loop& line, const Point2& place) {
    const Way way(line);
    double best = 0, least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 1; i < way.points.size(); ++i) {
        const Point2 &a = way.points[i - 1], &b = way.points[i];
        const double t =
            std::clamp((place - a).dot(b - a) / std::max(1e-30, (b - a).squaredNorm()), 0.0, 1.0);
        const double d = (a + t * (b - a) - place).squaredNorm();
        if (d < least) {
            least = d;
            best = way.from[i - 1] + t * (way.from[i] - way.from[i - 1]);
        }
    }
    return way.length > 0 ? std::min(1.0, best / way.length) : 0;
}

double snapped(const Loop& line, double at, double pitch) {
    const Way way(line);
    if (!(way.length > 0)) return at;
    const double count = std::max(1.0, std::round(way.length / (pitch / 4)));
    const double to = way.clear(std::round(at * count) / count * way.length, pitch / 2) / way.length;
    return to - std::floor(to);
}

std::vector<Placed> by_rule(const Choices& c, const Findings& f, const brief::Making& brief, bool bolted,
                            double depth) {
    std::vector<Placed> out;
    const Way way(f.fitting_line);
    if (!(way.length > 0)) return out;
    const auto put = [&](Fitting kind, double share, double reach) {
        const double to = way.clear(share * way.length, reach) / way.length;
        out.push_back({kind, to - std::floor(to)});
    };
    const auto round = [&](Fitting kind, int count, double first) {
        for (int i = 0; i < count; ++i)
            put(kind, first + static_cast<double>(i) / count, way.length / count / 3);
    };
    if (bolted) {
        round(Fitting::bolt, std::max(4, static_cast<int>(std::ceil(way.length / c.bolt_pitch))), 0);
        // Far apart, and not opposite each other, so that the halves go together one way only. They stand
        // between two bolts.
        const double half = 0.5 * c.bolt_pitch / way.length;
        put(Fitting::dowel, half, 0);
        put(Fitting::dowel, 0.5 - c.bolt_pitch / way.length + half, 0);
    }
    round(Fitting::wedge, std::max(2, static_cast<int>(std::lround(way.length / c.wedge_pitch))), 0.06);
    if (depth > kJackDepth) round(Fitting::jack, 4, 0.125);
    if (brief.process == Process::infusion && c.channel > 0) round(Fitting::feed, 2, 0.25);
    return out;
}

double hole_of(Fitting kind, const Choices& c, const Library& shop) {
    switch (kind) {
        case Fitting::bolt:
            // Clearance of the medium series for its thread.
            return 1.125 * need(shop.fasteners, c.bolt, "edge bolt").diameter;
        case Fitting::dowel:
            return need(shop.fasteners, c.dowel, "edge dowel").diameter;
        case Fitting::bush:
            return kBushHole;
        case Fitting::jack:
            return kJackHole;
        default:
            return 0;
    }
}

Loops drilling_template(const Choices& c, const Findings& f, const Library& shop) {
    Loops out = f.outline;
    for (auto rim : f.rims) {
        if (signed_area(rim) > 0) std::reverse(rim.begin(), rim.end());
        out.push_back(std::move(rim));
    }
    for (const auto& fit : f.fits) {
        const double hole = hole_of(fit.kind, c, shop);
        if (hole <= 0) continue;
        auto& loop = out.emplace_back();
        constexpr int kSides = 24;
        for (int i = 0; i < kSides; ++i) {
            const double a = -2 * kPi * i / kSides;
            loop.push_back(fit.place + hole / 2 * Point2(std::cos(a), std::sin(a)));
        }
    }
    return out;
}

SheetSet drilling_sheet(const Choices& c, const Findings& f, const Library& shop) {
    // Every place, though air ports are bored through the shell itself.
    std::vector<TemplateMark> marks;
    for (const auto& fit : f.fits) marks.push_back({std::string(said(fit.kind)), fit.place, 0.006});
    return template_sheet("flange", drilling_template(c, f, shop), marks);
}

}  // namespace jig::edge
