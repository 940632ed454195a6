#include "core/stages/part/face.hpp"

#include <cmath>

#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/remesh.hpp"

namespace jig::part {
namespace {

constexpr double kQuickPoints = 1400, kFinePoints = 7000;

}  // namespace

Evenly evenly(const TriangleMesh& face, const std::vector<int>& patch, bool fine, Progress& progress) {
    double area = 0;
    for (std::size_t f = 0; f < face.triangles.size(); ++f) area += face.area_vector2(f).norm() / 2;
    if (!(area > 0)) return {};
    // Even triangles: two a point.
    const double edge = std::sqrt(area / (fine ? kFinePoints : kQuickPoints) * 2 / std::sqrt(3.0));
    try {
        auto even = remeshed(face, patch, edge, progress);
        return {std::move(even.mesh), std::move(even.patch)};
    } catch (const InputError&) {
        auto split = refined(face, 1.5 * edge, progress);
        Evenly out{std::move(split.mesh), {}};
        for (const auto parent : split.parent) out.patch.push_back(patch[parent]);
        return out;
    }
}

Shared<TriangleMesh> even_face(const edge::ToolFace& tool, bool fine, Progress& progress) {
    const auto face = edge::moulded_face(tool);
    auto even = evenly(face, std::vector<int>(face.triangles.size(), 0), fine, progress);
    if (even.mesh.triangles.empty()) return {};
    return std::make_shared<const TriangleMesh>(std::move(even.mesh));
}

FacePlace under(const TriangleMesh& mesh, const Frame& frame, const Spot& spot) {
    Point2 low = Point2::Constant(1e300), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(frame.flat(mesh.points[i]));
            high = high.cwiseMax(frame.flat(mesh.points[i]));
        }
    }
    const Point2 wanted = (low + high) / 2 + Point2(spot.along, spot.across);
    FacePlace on, beside;
    beside.beside = true;
    double top = -1e300, near = 1e300;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        std::array<Point2, 3> seen;
        for (std::size_t k = 0; k < 3; ++k) seen[k] = frame.flat(mesh.corner(f, static_cast<int>(k)));
        const auto twice = [](const Point2& a, const Point2& b, const Point2& c) {
            return (b - a).x() * (c - a).y() - (b - a).y() * (c - a).x();
        };
        const double whole = twice(seen[0], seen[1], seen[2]);
        for (std::size_t k = 0; k < 3; ++k) {
            const double off = (seen[k] - wanted).norm();
            if (off < near) {
                near = off;
                beside.at = mesh.corner(f, static_cast<int>(k));
                beside.face = f;
            }
        }
        if (std::abs(whole) < 1e-18) continue;
        const double a = twice(wanted, seen[1], seen[2]) / whole, b = twice(seen[0], wanted, seen[2]) / whole;
        if (a < -1e-9 || b < -1e-9 || a + b > 1 + 1e-9) continue;
        const Point at = a * mesh.corner(f, 0) + b * mesh.corner(f, 1) + (1 - a - b) * mesh.corner(f, 2);
        const double height = frame.w.dot(at);
        if (height > top) {
            top = height;
            on.at = at;
            on.face = f;
        }
    }
    return top > -1e299 ? on : beside;
}

}  // namespace jig::part
