#include "core/science/mesh/triangle_mesh.hpp"

#include <limits>

namespace jig {

Bounds bounds_of(const TriangleMesh& mesh) {
    if (mesh.empty()) return {};
    Bounds box;
    box.low = Point::Constant(std::numeric_limits<double>::infinity());
    box.high = -box.low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            box.low = box.low.cwiseMin(mesh.points[i]);
            box.high = box.high.cwiseMax(mesh.points[i]);
        }
    }
    return box;
}

void turn_over(TriangleMesh& mesh) {
    for (auto& t : mesh.triangles) std::swap(t[1], t[2]);
}

Frame frame_across(const Point& axis) {
    const Point w = axis.normalized();
    // Where the axis is close to z the plan keeps the shape's own x and y, so sheets read like the job.
    const Point seed = std::abs(w.z()) > 0.9 ? Point::UnitX() : Point::UnitZ();
    const Point v0 = w.cross(seed).normalized();
    if (std::abs(w.z()) > 0.9) return {v0.cross(w), v0, w};
    return {v0, w.cross(v0), w};
}

}  // namespace jig
