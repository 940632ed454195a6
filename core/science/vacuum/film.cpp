#include "core/science/vacuum/film.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

#include "core/base/error.hpp"
#include "core/science/mesh/slice.hpp"

namespace jig {
namespace {

constexpr int kStations = 61;

double developed(const Section& cut) {
    double sum = 0;
    for (const auto& loop : cut.loops) sum += perimeter(loop);
    for (const auto& line : cut.open_lines) {
        for (std::size_t i = 1; i < line.size(); ++i) sum += (line[i] - line[i - 1]).norm();
    }
    return sum;
}

struct Girth {
    double deepest = 0, longest = 0;
};

/// Of sections across `axis`: through the deepest places (`depth` m off the rim's height), and the longest of
/// all.
Girth girth(const TriangleMesh& mesh, const Topology& topology, const Point& axis, const Point& up,
            double rim, double depth, const std::vector<double>& at, Progress& progress) {
    const Frame across{up, axis.cross(up), axis};
    Girth out;
    for (const auto& cut : sections(mesh, topology, across, at, progress)) {
        const double length = developed(cut);
        double reached = 0;
        const auto look = [&](const Loop& line) {
            for (const auto& p : line) reached = std::max(reached, std::abs(p.x() - rim));
        };
        for (const auto& loop : cut.loops) look(loop);
        for (const auto& line : cut.open_lines) look(line);
        out.longest = std::max(out.longest, length);
        if (reached >= 0.995 * depth) out.deepest = std::max(out.deepest, length);
    }
    return out;
}

/// Seen along the pull, the places that lie no less deep than all round them, deepest first; as many as are
/// worth a section.
std::vector<Point2> deep_places(const TriangleMesh& mesh, const Frame& frame, double rim) {
    std::vector<char> rank(mesh.points.size(), 0);
    const auto depth = [&](std::uint32_t i) { return std::abs(frame.w.dot(mesh.points[i]) - rim); };
    for (const auto& t : mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = t[k], b = t[(k + 1) % 3];
            if (depth(a) < depth(b)) rank[a] = 2;
            if (depth(b) < depth(a)) rank[b] = 2;
            if (rank[a] == 0) rank[a] = 1;
            if (rank[b] == 0) rank[b] = 1;
        }
    }
    std::vector<std::uint32_t> deep;
    for (std::uint32_t i = 0; i < rank.size(); ++i) {
        if (rank[i] == 1) deep.push_back(i);
    }
    constexpr std::size_t kMost = 24;
    const auto count = std::min(kMost, deep.size());
    std::partial_sort(deep.begin(), deep.begin() + static_cast<std::ptrdiff_t>(count), deep.end(),
                      [&](std::uint32_t a, std::uint32_t b) { return depth(a) > depth(b); });
    std::vector<Point2> out;
    for (std::size_t i = 0; i < count; ++i) out.push_back(frame.flat(mesh.points[deep[i]]));
    return out;
}

/// The rim that the film is stuck round: the longest, seen along the pull, anticlockwise.
struct Rim {
    std::vector<Point> line;
    Loop flat;
    double height = 0;  ///< m along the pull, mean
};
Rim rim_of(const TriangleMesh& mesh, const Topology& topology, const Frame& frame) {
    const auto loops = rim_loops(mesh, topology);
    if (loops.empty())
        throw InputError("mesh", "the surface has no rim that a film could be stuck to",
                         "leave its foot open: the film lies inside, and its tape round the opening");
    Rim out;
    for (const auto i : loops.front()) out.line.push_back(mesh.points[i]);
    for (const auto& p : out.line) out.flat.push_back(frame.flat(p));
    if (signed_area(out.flat) < 0) {
        std::reverse(out.line.begin(), out.line.end());
        std::reverse(out.flat.begin(), out.flat.end());
    }
    double length = 0;
    for (std::size_t i = 0; i < out.line.size(); ++i) {
        const auto &a = out.line[i], &b = out.line[(i + 1) % out.line.size()];
        const double step = (b - a).norm();
        out.height += step * frame.w.dot(a + b) / 2;
        length += step;
    }
    if (length > 0) out.height /= length;
    return out;
}

/// rad by which an outline turns to the left at each of its points; 0 where it turns right.
std::vector<double> turns_of(const Loop& line) {
    const auto n = line.size();
    std::vector<double> out(n);
    for (std::size_t k = 0; k < n; ++k) {
        const Point2 a = line[k] - line[(k + n - 1) % n], b = line[(k + 1) % n] - line[k];
        out[k] = std::max(0.0, std::atan2(a.x() * b.y() - a.y() * b.x(), a.dot(b)));
    }
    return out;
}

/// How much more film than land there is at each point of the land: what it turns × how deep it is behind it.
std::vector<double> excess(const Loop& land, const TriangleMesh& mesh, const Frame& frame, double rim) {
    const auto n = land.size();
    std::vector<double> depth(n, 0);
    // The deepest place behind each point of the land; a few thousand places are as good as all.
    const auto step = std::max<std::size_t>(1, mesh.points.size() / 3000);
    for (std::size_t i = 0; i < mesh.points.size(); i += step) {
        const auto p = frame.flat(mesh.points[i]);
        std::size_t nearest = 0;
        for (std::size_t k = 1; k < n; ++k) {
            if ((land[k] - p).squaredNorm() < (land[nearest] - p).squaredNorm()) nearest = k;
        }
        depth[nearest] = std::max(depth[nearest], std::abs(frame.w.dot(mesh.points[i]) - rim));
    }
    auto out = turns_of(land);
    for (std::size_t k = 0; k < n; ++k)
        out[k] *= std::max({depth[k], depth[(k + 1) % n], depth[(k + n - 1) % n]});
    return out;
}

/// Corners: places where the land turns by more than 45° within 3 % of its length.
int corners_of(const std::vector<double>& turns, const std::vector<double>& at, double length) {
    int count = 0;
    const auto n = turns.size();
    for (std::size_t k = 0; k < n;) {
        double sum = 0;
        std::size_t j = k;
        while (j < n && at[j] - at[k] <= 0.03 * length) sum += turns[j++];
        if (sum > std::numbers::pi / 4) {
            ++count;
            k = j;
        } else {
            ++k;
        }
    }
    return count;
}

/// The rim grown to the middle of the land, anticlockwise, begun behind its longest straight: no corner lies
/// across its first point.
Loop middle_line(const Loop& rim, double reach) {
    Loop out = rim;
    if (reach != 0) {
        out.clear();
        for (const auto& loop : offset({rim}, reach, true)) {
            if (std::abs(signed_area(loop)) > std::abs(signed_area(out))) out = loop;
        }
        if (out.size() < 3)
            throw InputError("land", "it is wider than the mould's own rim", "make it narrower");
    }
    if (signed_area(out) < 0) std::reverse(out.begin(), out.end());
    std::size_t first = 0;
    double longest = 0;
    for (std::size_t k = 0; k < out.size(); ++k) {
        const auto next = (k + 1) % out.size();
        const double step = (out[next] - out[k]).norm();
        if (step <= longest) continue;
        longest = step;
        first = next;
    }
    std::rotate(out.begin(), out.begin() + static_cast<std::ptrdiff_t>(first), out.end());
    return out;
}

}  // namespace

Frame lengthwise(const TriangleMesh& mesh, const Topology& topology, const Frame& frame) {
    Loop points;
    const auto rims = rim_loops(mesh, topology);
    if (rims.empty()) {
        for (const auto& p : mesh.points) points.push_back(frame.flat(p));
    } else {
        for (const auto i : rims.front()) points.push_back(frame.flat(mesh.points[i]));
    }
    const auto size_at = [&](double a) {
        const Point2 u(std::cos(a), std::sin(a)), v(-u.y(), u.x());
        Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
        for (const auto& p : points) {
            const Point2 q(u.dot(p), v.dot(p));
            low = low.cwiseMin(q);
            high = high.cwiseMax(q);
        }
        return Point2(high - low);
    };
    // The narrowest box: by half degrees, then ever finer about the best.
    double best = std::numeric_limits<double>::infinity(), angle = 0, step = std::numbers::pi / 360;
    const auto search = [&](double from, int count) {
        for (int k = 0; k < count; ++k) {
            const double area = size_at(from + k * step).prod();
            if (area >= best * (1 - 1e-9)) continue;
            best = area;
            angle = from + k * step;
        }
    };
    search(0, 180);
    for (int finer = 0; finer < 3; ++finer) {
        step /= 10;
        search(angle - 10 * step, 21);
    }
    const auto size = size_at(angle);
    if (size.x() < size.y()) angle += std::numbers::pi / 2;
    const Point u = frame.u * std::cos(angle) + frame.v * std::sin(angle);
    return {u, frame.w.cross(u), frame.w};
}

Film film_over(const TriangleMesh& mesh, const Topology& topology, const Frame& frame, const FilmRules& rules,
               Progress& progress) {
    Film out;
    const auto rim = rim_of(mesh, topology, frame);
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const auto& p = mesh.points[i];
            low = low.cwiseMin(frame.flat(p));
            high = high.cwiseMax(frame.flat(p));
            const double d = std::abs(frame.w.dot(p) - rim.height);
            out.depth = std::max(out.depth, d);
        }
    }
    progress.report(0.2, "measuring the film's girths");
    const auto deep = deep_places(mesh, frame, rim.height);
    const auto stations = [&](double from, double to, int way) {
        std::vector<double> at;
        for (const auto& p : deep)
            at.push_back(std::clamp(p[way], from + 1e-6 * (to - from), to - 1e-6 * (to - from)));
        for (int i = 0; i < kStations; ++i) at.push_back(from + (to - from) * (i + 0.5) / kStations);
        std::sort(at.begin(), at.end());
        return at;
    };
    const auto across = girth(mesh, topology, frame.u, frame.w, rim.height, out.depth,
                              stations(low.x(), high.x(), 0), progress);
    const auto along = girth(mesh, topology, frame.v, frame.w, rim.height, out.depth,
                             stations(low.y(), high.y(), 1), progress);
    out.along = along.deepest + 2 * rules.land;
    out.across = across.deepest + 2 * rules.land;
    out.longest_along = along.longest + 2 * rules.land;
    out.longest_across = across.longest + 2 * rules.land;
    out.length = (rules.longest ? out.longest_along : out.along) * (1 + rules.ease);
    out.width = (rules.longest ? out.longest_across : out.across) * (1 + rules.ease);
    if (rules.roll > 0)
        out.joins = std::max(0, static_cast<int>(std::ceil(out.width / rules.roll - 1e-9)) - 1);

    progress.report(0.7, "placing the pleats");
    const auto middle = middle_line(rim.flat, rules.middle.value_or(rules.land / 2));
    // It lies as high as the rim beside it.
    for (const auto& q : middle) {
        std::size_t nearest = 0;
        for (std::size_t k = 1; k < rim.flat.size(); ++k) {
            if ((rim.flat[k] - q).squaredNorm() < (rim.flat[nearest] - q).squaredNorm()) nearest = k;
        }
        out.land.push_back(frame.lift(q, frame.w.dot(rim.line[nearest])));
    }
    std::vector<double> at;
    for (std::size_t k = 0; k < middle.size(); ++k) {
        at.push_back(out.land_length);
        out.land_length += (out.land[(k + 1) % middle.size()] - out.land[k]).norm();
    }
    out.slack = 2 * (out.length + out.width) - out.land_length;
    out.tape = out.land_length + std::max(0.0, out.slack);
    // What a flat mould's film has over its land lies past the land and is cut off.
    const double size = (high - low).norm();
    if (out.slack <= 1e-9 || rules.pleat <= 0 || out.depth <= 1e-4 * size) return out;

    auto weight = excess(middle, mesh, frame, rim.height);
    const double whole = std::accumulate(weight.begin(), weight.end(), 0.0);
    const int corners = corners_of(turns_of(middle), at, out.land_length);
    int count = static_cast<int>(std::ceil(out.slack / (2 * rules.pleat) - 1e-9));
    if (corners > 0) count = corners * std::max(1, (count + corners - 1) / corners);
    count = std::clamp(count, 1, 500);
    double passed = 0;
    int next = 0;
    for (std::size_t k = 0; k < weight.size() && next < count; ++k) {
        passed += weight[k];
        while (next < count && (next + 0.5) / count * whole <= passed + 1e-12 * whole) {
            out.pleats.push_back({at[k], out.slack / (2 * count)});
            ++next;
        }
    }
    while (next++ < count) out.pleats.push_back({at.back(), out.slack / (2 * count)});
    return out;
}

}  // namespace jig
