#include "core/science/mesh/measure.hpp"

#include <cmath>
#include <Eigen/Dense>

namespace jig {
namespace {

constexpr double kSharpFold = 0.7;  // rad; a mesh that means a curve turns less from face to face

/// Smallest inside radius by per-face curvature from the turning of vertex normals (Rusinkiewicz 2004), and
/// zero where the mesh folds inwards sharply.
void find_inside_radius(const TriangleMesh& mesh, const Topology& topology, Measures& out) {
    std::vector<Point> normal(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point n = mesh.area_vector2(f).normalized();
        for (int k = 0; k < 3; ++k) {
            const Point a = (mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k)).normalized();
            const Point b = (mesh.corner(f, (k + 2) % 3) - mesh.corner(f, k)).normalized();
            const double opening = std::atan2(a.cross(b).norm(), a.dot(b));
            normal[mesh.triangles[f][static_cast<std::size_t>(k)]] += opening * n;
        }
    }
    for (auto& n : normal) n.normalize();
    double sharpest = 0;
    const double weakest = 0.05 / std::max(1e-12, bounds_of(mesh).diagonal());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        bool creased = false;
        for (int k = 0; k < 3; ++k) {
            const double fold = fold_at(mesh, topology, f, k);
            creased |= std::abs(fold) > kSharpFold;
            if (fold > kSharpFold) {
                out.smallest_inside_radius = 0;
                out.smallest_radius_at = mesh.corner(f, k);
                return;
            }
        }
        if (creased) continue;
        const Point n = mesh.area_vector2(f).normalized();
        const auto frame = frame_across(n);
        // Least squares for the second fundamental form (e f; f g): dn = II * edge, over the three edges.
        Eigen::Matrix<double, 6, 3> rows = Eigen::Matrix<double, 6, 3>::Zero();
        Eigen::Matrix<double, 6, 1> turning;
        for (int k = 0; k < 3; ++k) {
            const Point edge = mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k);
            const auto& t = mesh.triangles[f];
            const Point dn =
                normal[t[static_cast<std::size_t>((k + 1) % 3)]] - normal[t[static_cast<std::size_t>(k)]];
            const Point2 e = frame.flat(edge), d = frame.flat(dn);
            rows.row(2 * k) << e.x(), e.y(), 0;
            rows.row(2 * k + 1) << 0, e.x(), e.y();
            turning.segment<2>(2 * k) = d;
        }
        const Eigen::Vector3d form = rows.colPivHouseholderQr().solve(turning);
        const double mean = (form[0] + form[2]) / 2;
        const double spread = std::hypot((form[0] - form[2]) / 2, form[1]);
        const double hollow = -(mean - spread);  // outward normals close up over a hollow
        if (hollow > std::max(sharpest, weakest)) {
            sharpest = hollow;
            out.smallest_inside_radius = 1 / hollow;
            out.smallest_radius_at = mesh.centre(f);
        }
    }
}

}  // namespace

Measures measure(const TriangleMesh& mesh, const Topology& topology) {
    Measures out;
    const auto box = bounds_of(mesh);
    out.size = box.size();
    out.closed = topology.closed();
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
    find_inside_radius(mesh, topology, out);
    return out;
}

}  // namespace jig
