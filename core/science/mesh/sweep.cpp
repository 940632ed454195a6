#include "core/science/mesh/sweep.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/science/mesh/sample.hpp"

namespace jig {
namespace {

constexpr double kInward = 2e-4;  // of the diagonal: rays start that far inside their own body

/// Rays from the faces of `from` along `way` against `target`; what they meet adds to `clash`.
void cast(const TriangleMesh& from, const RayMesh& target, const Point& way, double samples, double inward,
          Clash& clash, Progress& progress) {
    double total = 0;
    for (std::size_t f = 0; f < from.triangles.size(); ++f) total += from.area_vector2(f).norm() / 2;
    for (std::size_t f = 0; f < from.triangles.size(); ++f) {
        if ((f & 0xfffU) == 0) progress.check();
        const Point twice = from.area_vector2(f);
        const double area = twice.norm() / 2;
        if (area == 0) continue;
        const Point n = twice / (2 * area);
        const double ahead = n.dot(way);
        // Faces that look back or stand along the way cannot be the first to meet anything.
        if (ahead < 0.01) continue;
        const auto count = 1 + static_cast<std::size_t>(samples * area / total);
        for (std::size_t i = 0; i < count; ++i) {
            const Point at = spread_point(from, f, i, count) - inward * n;
            if (const auto hit = target.first(at, way)) {
                clash.area += ahead * area / static_cast<double>(count);
                clash.travel = std::min(clash.travel, std::max(0.0, hit->distance - inward));
            }
        }
    }
}

/// Mean outward direction of the faces round each point.
std::vector<Point> outward(const TriangleMesh& mesh) {
    std::vector<Point> normal(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (const auto i : mesh.triangles[f]) normal[i] += mesh.area_vector2(f);
    }
    for (auto& n : normal) n = n.norm() > 0 ? Point(n.normalized()) : Point(Point::UnitZ());
    return normal;
}

/// The body between a surface and its points moved by `step`, with walls along its rims.
TriangleMesh body_of(const TriangleMesh& surface, const std::vector<Point>& step) {
    TriangleMesh out = surface;
    const auto n = surface.points.size();
    for (std::size_t i = 0; i < n; ++i) out.points.push_back(surface.points[i] + step[i]);
    // Seen from inside the body the surface looks the other way.
    turn_over(out);
    const auto up = [&](std::uint32_t i) { return static_cast<std::uint32_t>(i + n); };
    for (const auto& t : surface.triangles) out.triangles.push_back({up(t[0]), up(t[1]), up(t[2])});
    const auto topology = topology_of(surface);
    for (std::size_t f = 0; f < surface.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto a = surface.triangles[f][k], b = surface.triangles[f][(k + 1) % 3];
            out.triangles.push_back({a, b, up(b)});
            out.triangles.push_back({a, up(b), up(a)});
        }
    }
    return out;
}

}  // namespace

TriangleMesh thickened(const TriangleMesh& piece, const RayMesh& part, double thickness) {
    auto step = outward(piece);
    const double off = 1e-5 * bounds_of(piece).diagonal();
    for (std::size_t i = 0; i < step.size(); ++i) {
        double reach = thickness;
        if (const auto hit = part.first(piece.points[i] + off * step[i], step[i]))
            reach = std::min(reach, hit->distance / 3);
        step[i] *= reach;
    }
    return body_of(piece, step);
}

TriangleMesh plated(const TriangleMesh& surface, double thickness) {
    auto step = outward(surface);
    for (auto& s : step) s *= thickness;
    return body_of(surface, step);
}

Clash slide_out(const TriangleMesh& moving, const TriangleMesh& fixed, const Point& direction, double samples,
                Progress& progress) {
    Clash ahead, back;
    ahead.travel = back.travel = std::numeric_limits<double>::infinity();
    const double inward = kInward * std::max(bounds_of(moving).diagonal(), bounds_of(fixed).diagonal());
    cast(moving, RayMesh(fixed), direction, samples, inward, ahead, progress);
    cast(fixed, RayMesh(moving), -direction, samples, inward, back, progress);
    Clash out{std::max(ahead.area, back.area), std::min(ahead.travel, back.travel)};
    if (out.area == 0) out.travel = 0;
    return out;
}

std::vector<WayOut> ways_out(const PieceSet& set, const RayMesh& part, double thickness, Progress& progress) {
    const auto n = set.pieces.size();
    std::vector<TriangleMesh> bodies;
    double area = 0;
    for (const auto& p : set.pieces) {
        bodies.push_back(thickened(p.mesh, part, thickness));
        area += p.map.area;
    }
    // Every pair once; taking pieces off only leaves pairs out.
    std::vector<std::vector<Clash>> pair(n, std::vector<Clash>(n));
    for (std::size_t i = 0; i < n; ++i) {
        for (std::size_t k = 0; k < n; ++k) {
            progress.report(static_cast<double>(i * n + k) / static_cast<double>(n * n),
                            "sliding the pieces out");
            if (i != k) pair[i][k] = slide_out(bodies[i], bodies[k], set.pieces[i].direction, 4000, progress);
        }
    }
    const double rub = 2e-3 * area;
    std::vector<WayOut> out(n);
    std::vector<char> off(n, 0);
    for (std::size_t i = 0; i < n; ++i) out[i].piece = i;
    const auto judge = [&](std::size_t i) {
        out[i].clash = 0;
        out[i].blocked_by = -1;
        double worst = rub;
        for (std::size_t k = 0; k < n; ++k) {
            if (k == i || off[k]) continue;
            out[i].clash += pair[i][k].area;
            if (pair[i][k].area > worst) {
                worst = pair[i][k].area;
                out[i].blocked_by = static_cast<int>(k);
                out[i].travel = pair[i][k].travel;
            }
        }
        return out[i].blocked_by < 0;
    };
    for (int turn = 1; turn <= static_cast<int>(n); ++turn) {
        std::size_t next = n;
        for (std::size_t i = 0; i < n && next == n; ++i) {
            if (!off[i] && judge(i)) next = i;
        }
        if (next == n) break;
        out[next].turn = turn;
        off[next] = 1;
    }
    return out;
}

}  // namespace jig
