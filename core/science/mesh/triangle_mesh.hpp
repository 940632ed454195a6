// The surface that everything is measured on.
#pragma once

#include <array>
#include <cstdint>
#include <Eigen/Core>
#include <Eigen/Geometry>
#include <vector>

namespace jig {

using Point = Eigen::Vector3d;  ///< metres, or a direction
using Point2 = Eigen::Vector2d;
using Triangle = std::array<std::uint32_t, 3>;  ///< anticlockwise seen from outside

struct TriangleMesh {
    std::vector<Point> points;
    std::vector<Triangle> triangles;

    [[nodiscard]] bool empty() const { return triangles.empty(); }
    [[nodiscard]] const Point& corner(std::size_t face, int k) const {
        return points[triangles[face][static_cast<std::size_t>(k)]];
    }
    /// Outward normal with the length of twice the face's area, m².
    [[nodiscard]] Point area_vector2(std::size_t face) const {
        return (corner(face, 1) - corner(face, 0)).cross(corner(face, 2) - corner(face, 0));
    }
    [[nodiscard]] Point centre(std::size_t face) const {
        return (corner(face, 0) + corner(face, 1) + corner(face, 2)) / 3.0;
    }
    bool operator==(const TriangleMesh&) const = default;
};

struct Bounds {
    Point low = Point::Zero(), high = Point::Zero();
    [[nodiscard]] Point size() const { return high - low; }
    [[nodiscard]] double diagonal() const { return size().norm(); }
    bool operator==(const Bounds&) const = default;
};

/// Box round all points that a triangle uses.
Bounds bounds_of(const TriangleMesh& mesh);

/// The same surface seen from its other side: every face turned over.
void turn_over(TriangleMesh& mesh);

/// Two unit directions that span the plane across `axis` (unit), right-handed with it.
struct Frame {
    Point u, v, w;
    [[nodiscard]] Point2 flat(const Point& p) const { return {u.dot(p), v.dot(p)}; }
    [[nodiscard]] Point lift(const Point2& q, double height) const {
        return u * q.x() + v * q.y() + w * height;
    }
    bool operator==(const Frame&) const = default;
};
Frame frame_across(const Point& axis);

}  // namespace jig
