#include "core/science/vacuum/film.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

#include "core/base/error.hpp"
#include "core/science/vacuum/girths.hpp"

namespace jig {
namespace {

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

/// Pleats at these shares of the way, each with what of `weight`, whose sum is `whole`, lies nearest to it.
std::vector<Pleat> given_pleats(std::vector<double> shares, const std::vector<double>& weight,
                                const std::vector<double>& at, double whole, const Film& film) {
    std::sort(shares.begin(), shares.end());
    std::vector<Pleat> out;
    for (const double s : shares) out.push_back({std::clamp(s, 0.0, 1.0) * film.land_length, 0});
    if (film.slack <= 0 || whole <= 0) return out;
    for (std::size_t k = 0; k < weight.size(); ++k) {
        std::size_t nearest = 0;
        const auto away = [&](const Pleat& p) {
            const double d = std::abs(p.at - at[k]);
            return std::min(d, film.land_length - d);
        };
        for (std::size_t i = 1; i < out.size(); ++i) {
            if (away(out[i]) < away(out[nearest])) nearest = i;
        }
        out[nearest].height += film.slack / 2 * weight[k] / whole;
    }
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
    const auto rim = film_rim(mesh, topology, frame);
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const auto& p = mesh.points[i];
            low = low.cwiseMin(frame.flat(p));
            high = high.cwiseMax(frame.flat(p));
            out.depth = std::max(out.depth, std::abs(frame.w.dot(p) - rim.height));
        }
    }
    progress.report(0.2, "measuring the film's girths");
    struct Longest {
        double deepest = 0, any = 0;
    };
    const auto longest = [&](const std::vector<Girth>& girths) {
        Longest of;
        for (const auto& g : girths) {
            of.any = std::max(of.any, g.length);
            if (g.depth >= 0.995 * out.depth) of.deepest = std::max(of.deepest, g.length);
        }
        return of;
    };
    const auto across = longest(film_girths(mesh, topology, frame, frame.u, rim.height, progress));
    const auto along = longest(film_girths(mesh, topology, frame, frame.v, rim.height, progress));
    out.along = along.deepest + 2 * rules.land;
    out.across = across.deepest + 2 * rules.land;
    out.longest_along = along.any + 2 * rules.land;
    out.longest_across = across.any + 2 * rules.land;
    out.length = (rules.longest ? out.longest_along : out.along) * (1 + rules.ease);
    out.width = (rules.longest ? out.longest_across : out.across) * (1 + rules.ease);
    if (rules.sheet) {
        out.length = rules.sheet->maxCoeff();
        out.width = rules.sheet->minCoeff();
    } else if (rules.roll > 0)
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
    if (out.slack <= 1e-9 || rules.pleat <= 0 || out.depth <= 1e-4 * size) {
        out.pleats = given_pleats(rules.pleats_at, {}, at, 0, out);
        return out;
    }

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
    if (!rules.pleats_at.empty()) {
        out.ruled = std::move(out.pleats);
        out.pleats = given_pleats(rules.pleats_at, weight, at, whole, out);
    }
    return out;
}

}  // namespace jig
