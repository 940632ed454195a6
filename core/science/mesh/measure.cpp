#include "core/science/mesh/measure.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <map>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/bodies.hpp"

namespace jig {
namespace {

constexpr double kSharpFold = 0.7;  // rad; a mesh that means a curve turns less from face to face

/// The normal at a face's corner `k`, by the opening angles of the faces that meet there without a sharp fold
/// between them and this one: a strip beside a crease keeps its own bend.
Point smooth_normal(const TriangleMesh& mesh, const Topology& topology, const Bends& bends, std::size_t face,
                    std::size_t k) {
    const auto point = mesh.triangles[face][k];
    Point sum = Point::Zero();
    const auto add = [&](std::size_t f, std::size_t c) {
        const Point p = mesh.points[point];
        const Point a = (mesh.corner(f, static_cast<int>((c + 1) % 3)) - p).normalized(),
                    b = (mesh.corner(f, static_cast<int>((c + 2) % 3)) - p).normalized();
        const Point n = mesh.area_vector2(f).normalized();
        if (n.allFinite()) sum += std::atan2(a.cross(b).norm(), a.dot(b)) * n;
    };
    add(face, k);
    // Round the point one way until a fold, a rim or the start, then the other way.
    for (const std::size_t side : {std::size_t{0}, std::size_t{2}}) {
        std::size_t f = face, c = k;
        for (int guard = 0; guard < 64; ++guard) {
            const auto edge = (c + side) % 3;  // from the point, or to it
            const auto g = topology.across[f][edge];
            if (g == kNoFace || std::abs(static_cast<double>(bends.fold[f][edge])) > kSharpFold) break;
            if (g == face) return sum.normalized();
            const auto& t = mesh.triangles[g];
            const auto at = t[0] == point ? 0U : t[1] == point ? 1U : 2U;
            if (t[at] != point) break;
            add(g, at);
            f = g;
            c = at;
        }
    }
    return sum.normalized();
}

/// m² of each surface that hangs together by its points, largest first.
std::vector<double> body_areas(const TriangleMesh& mesh) {
    const auto body = body_of_points(mesh);
    std::map<std::uint32_t, double> areas;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        areas[body[mesh.triangles[f][0]]] += mesh.area_vector2(f).norm() / 2;
    std::vector<double> out;
    for (const auto& [at, area] : areas) out.push_back(area);
    std::sort(out.begin(), out.end(), std::greater<>());
    return out;
}

}  // namespace

Measures measure(const TriangleMesh& mesh, const Topology& topology) {
    Measures out;
    const auto box = bounds_of(mesh);
    out.size = box.size();
    out.closed = topology.closed();
    out.bodies = body_areas(mesh);
    Point area_moment = Point::Zero(), moment = Point::Zero();
    const Point origin =
        (box.low + box.high) / 2;  // near the shape, so that far-away shapes keep their digits
    const auto wedge = [&](const Point& a, const Point& b, const Point& c) {
        const double v = (a - origin).dot((b - origin).cross(c - origin)) / 6;
        out.volume += v;
        moment += v * (a + b + c + origin) / 4;
    };
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const double area = mesh.area_vector2(f).norm() / 2;
        out.area += area;
        area_moment += area * mesh.centre(f);
        wedge(mesh.corner(f, 0), mesh.corner(f, 1), mesh.corner(f, 2));
    }
    if (topology.rim_edges != 0) {
        for (const auto& loop : rim_loops(mesh, topology)) {
            ++out.rims;
            Point middle = Point::Zero();
            for (const auto i : loop) middle += mesh.points[i] / static_cast<double>(loop.size());
            for (std::size_t i = 0; i < loop.size(); ++i) {
                wedge(mesh.points[loop[(i + 1) % loop.size()]], mesh.points[loop[i]], middle);
            }
        }
    }
    const bool solid = std::abs(out.volume) > 1e-9 * std::pow(box.diagonal(), 3);
    out.centroid = solid ? Point(moment / out.volume) : Point(area_moment / out.area);
    out.volume = std::abs(out.volume);
    return out;
}

Bends bends(const TriangleMesh& mesh, const Topology& topology) {
    const auto faces = mesh.triangles.size();
    Bends out;
    out.hollow.assign(faces, 0.0F);
    out.round.assign(faces, 0.0F);
    out.fold.assign(faces, {});
    parallel_shares(faces, 4096, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto f = begin; f < end; ++f) {
            for (int k = 0; k < 3; ++k)
                out.fold[f][static_cast<std::size_t>(k)] = static_cast<float>(fold_at(mesh, topology, f, k));
        }
    });
    parallel_shares(faces, 4096, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto f = begin; f < end; ++f) {
            const Point n = mesh.area_vector2(f).normalized();
            if (!n.allFinite()) continue;
            const std::array<Point, 3> normal{smooth_normal(mesh, topology, out, f, 0),
                                              smooth_normal(mesh, topology, out, f, 1),
                                              smooth_normal(mesh, topology, out, f, 2)};
            const auto frame = frame_across(n);
            // Least squares for the second fundamental form (e f; f g): dn = II * edge, over the three edges.
            Eigen::Matrix3d normal_rows = Eigen::Matrix3d::Zero();
            Eigen::Vector3d right = Eigen::Vector3d::Zero();
            for (int k = 0; k < 3; ++k) {
                const auto& t = mesh.triangles[f];
                const auto a = t[static_cast<std::size_t>(k)], b = t[static_cast<std::size_t>((k + 1) % 3)];
                const Point2 e = frame.flat(mesh.points[b] - mesh.points[a]),
                             d = frame.flat(normal[static_cast<std::size_t>((k + 1) % 3)] -
                                            normal[static_cast<std::size_t>(k)]);
                Eigen::Matrix<double, 2, 3> rows;
                rows << e.x(), e.y(), 0, 0, e.x(), e.y();
                normal_rows += rows.transpose() * rows;
                right += rows.transpose() * d;
            }
            const Eigen::Vector3d form = normal_rows.ldlt().solve(right);
            if (!form.allFinite()) continue;
            const double mean = (form[0] + form[2]) / 2,
                         spread = std::hypot((form[0] - form[2]) / 2, form[1]);
            // Outward normals close up over a hollow and spread over a round.
            out.hollow[f] = static_cast<float>(std::max(0.0, spread - mean));
            out.round[f] = static_cast<float>(std::max(0.0, spread + mean));
        }
    });
    return out;
}

void find_inside_radius(const TriangleMesh& mesh, const Bends& bends, Measures& out) {
    float sharpest = static_cast<float>(0.05 / std::max(1e-12, bounds_of(mesh).diagonal()));
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) {
            if (static_cast<double>(bends.fold[f][static_cast<std::size_t>(k)]) <= kSharpFold) continue;
            out.smallest_inside_radius = 0;
            out.smallest_radius_at = mesh.corner(f, k);
            return;
        }
        if (bends.hollow[f] <= sharpest) continue;
        sharpest = bends.hollow[f];
        out.smallest_inside_radius = 1 / static_cast<double>(sharpest);
        out.smallest_radius_at = mesh.centre(f);
    }
}

double turning_volume(const TriangleMesh& mesh) {
    const auto box = bounds_of(mesh);
    const Point middle = (box.low + box.high) / 2;
    double sum = 0;
    for (const auto& t : mesh.triangles)
        sum +=
            (mesh.points[t[0]] - middle).dot((mesh.points[t[1]] - middle).cross(mesh.points[t[2]] - middle));
    return sum;
}

bool take_true_radius(const TrueRadii& radii, bool turned, double scale, Measures& out) {
    const auto& known = turned ? radii.round : radii.hollow;
    if (!known || !out.smallest_inside_radius || *out.smallest_inside_radius <= 0) return false;
    out.smallest_inside_radius = *known * scale;
    return true;
}

TightCorners tight_corners(const TriangleMesh& mesh, const Topology& topology, const Bends& bends,
                           double radius, bool hollow) {
    TightCorners out;
    const auto faces = mesh.triangles.size();
    out.faces.assign(faces, 0);
    const auto& bend = hollow ? bends.hollow : bends.round;
    for (std::size_t f = 0; f < faces; ++f) {
        for (int k = 0; k < 3; ++k) {
            const double fold =
                (hollow ? 1 : -1) * static_cast<double>(bends.fold[f][static_cast<std::size_t>(k)]);
            const auto other = topology.across[f][static_cast<std::size_t>(k)];
            if (fold <= kSharpFold || other == kNoFace) continue;
            out.faces[f] = 1;
            if (other < f) continue;
            const double length = (mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k)).norm();
            out.length += length;
            out.filler += length * radius * radius * (std::tan(std::min(fold, 2.8) / 2) - fold / 2);
        }
        const double curvature = static_cast<double>(bend[f]);
        if (out.faces[f] || curvature * radius <= 1) continue;
        out.faces[f] = 1;
        // A strip of a quarter turn is π/2 of its radius wide.
        const double length = mesh.area_vector2(f).norm() / 2 * curvature / (kPi / 2);
        out.length += length;
        out.filler += length * (1 - kPi / 4) * (radius * radius - 1 / (curvature * curvature));
    }
    return out;
}

}  // namespace jig
