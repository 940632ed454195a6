// Bodies whose measures are known in closed form.
#pragma once

#include <cmath>
#include <map>

#include "core/base/units.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace shapes {

using jig::kPi;
using jig::Point;
using jig::TriangleMesh;

inline void quad(TriangleMesh& m, std::uint32_t a, std::uint32_t b, std::uint32_t c, std::uint32_t d) {
    m.triangles.push_back({a, b, c});
    m.triangles.push_back({a, c, d});
}

/// Box with one corner at `low`.
inline TriangleMesh box(const Point& low, const Point& size) {
    TriangleMesh m;
    for (int i = 0; i < 8; ++i)
        m.points.push_back(low + Point((i & 1) * size.x(), ((i >> 1) & 1) * size.y(), (i >> 2) * size.z()));
    quad(m, 0, 2, 3, 1);
    quad(m, 4, 5, 7, 6);
    quad(m, 0, 1, 5, 4);
    quad(m, 2, 6, 7, 3);
    quad(m, 0, 4, 6, 2);
    quad(m, 1, 3, 7, 5);
    return m;
}

/// Surface of revolution about z of a profile (radius, height) from foot to top, closed by flat discs.
inline TriangleMesh turned(const std::vector<std::pair<double, double>>& profile, int around,
                           bool foot = true, bool top = true) {
    TriangleMesh m;
    const auto n = static_cast<std::uint32_t>(around);
    for (const auto& [r, z] : profile) {
        for (int i = 0; i < around; ++i)
            m.points.emplace_back(r * std::cos(2 * kPi * i / around), r * std::sin(2 * kPi * i / around), z);
    }
    for (std::uint32_t k = 0; k + 1 < profile.size(); ++k) {
        for (std::uint32_t i = 0; i < n; ++i)
            quad(m, k * n + i, k * n + (i + 1) % n, (k + 1) * n + (i + 1) % n, (k + 1) * n + i);
    }
    const auto cap = [&](std::uint32_t ring, bool up, double z) {
        const auto hub = static_cast<std::uint32_t>(m.points.size());
        m.points.emplace_back(0, 0, z);
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = ring * n + i, b = ring * n + (i + 1) % n;
            if (up)
                m.triangles.push_back({hub, a, b});
            else
                m.triangles.push_back({hub, b, a});
        }
    };
    if (foot) cap(0, false, profile.front().second);
    if (top) cap(static_cast<std::uint32_t>(profile.size()) - 1, true, profile.back().second);
    return m;
}

/// Cone frustum of half angle `draft` to the axis, foot radius r.
inline TriangleMesh frustum(double r, double height, double draft, int around = 96) {
    return turned({{r, 0}, {r - height * std::tan(draft), height}}, around);
}

inline TriangleMesh sphere(double r, int rings = 48) {
    std::vector<std::pair<double, double>> profile;
    for (int i = 0; i <= rings; ++i) {
        const double a = -kPi / 2 + kPi * (i + 0.0) / rings;
        profile.emplace_back(std::max(1e-6 * r, r * std::cos(a)), r * std::sin(a));
    }
    return turned(profile, 2 * rings);
}

/// A cap of a sphere up to `angle` from its top, which is at the origin.
inline TriangleMesh cap(double radius, double angle, int rings, int around) {
    TriangleMesh out;
    out.points.emplace_back(0, 0, 0);
    for (int r = 1; r <= rings; ++r) {
        for (int a = 0; a < around; ++a) {
            const double t = angle * r / rings, p = 2 * kPi * a / around;
            out.points.emplace_back(radius * std::sin(t) * std::cos(p), radius * std::sin(t) * std::sin(p),
                                    radius * (std::cos(t) - 1));
        }
    }
    const auto at = [&](int r, int a) {
        return r == 0 ? 0u : static_cast<std::uint32_t>(1 + (r - 1) * around + a % around);
    };
    for (int a = 0; a < around; ++a) out.triangles.push_back({0, at(1, a), at(1, a + 1)});
    for (int r = 1; r < rings; ++r) {
        for (int a = 0; a < around; ++a) {
            out.triangles.push_back({at(r, a), at(r + 1, a), at(r + 1, a + 1)});
            out.triangles.push_back({at(r, a), at(r + 1, a + 1), at(r, a + 1)});
        }
    }
    return out;
}

inline TriangleMesh torus(double ring, double tube, int n = 64) {
    TriangleMesh m;
    const auto u = static_cast<std::uint32_t>(n);
    for (int i = 0; i < n; ++i) {
        for (int k = 0; k < n; ++k) {
            const double a = 2 * kPi * i / n, b = 2 * kPi * k / n, r = ring + tube * std::cos(b);
            m.points.emplace_back(r * std::cos(a), r * std::sin(a), tube * std::sin(b));
        }
    }
    for (std::uint32_t i = 0; i < u; ++i) {
        for (std::uint32_t k = 0; k < u; ++k)
            quad(m, i * u + k, ((i + 1) % u) * u + k, ((i + 1) % u) * u + (k + 1) % u, i * u + (k + 1) % u);
    }
    return m;
}

/// A block 3 wide, `length` long, with a slot 1 wide and 1 deep from the top whose mouth is narrowed by two
/// lips of width `lip` each and thickness 0.3: of the slot's floor, 2·lip·length is overhung.
inline TriangleMesh lipped_channel(double lip, double length) {
    const std::vector<std::pair<double, double>> profile{
        {0, 0}, {3, 0}, {3, 2},   {2 - lip, 2},   {2 - lip, 1.7}, {2, 1.7},
        {2, 1}, {1, 1}, {1, 1.7}, {1 + lip, 1.7}, {1 + lip, 2},   {0, 2}};
    TriangleMesh m;
    const auto n = static_cast<std::uint32_t>(profile.size());
    for (const double y : {0.0, length}) {
        for (const auto& [x, z] : profile) m.points.emplace_back(x, y, z);
    }
    for (std::uint32_t i = 0; i < n; ++i) quad(m, i, (i + 1) % n, n + (i + 1) % n, n + i);
    // Ends: the profile cut into rectangles by hand.
    const std::vector<std::array<std::uint32_t, 4>> ends{
        {0, 1, 6, 7}, {0, 7, 8, 11}, {8, 9, 10, 11}, {1, 2, 5, 6}, {2, 3, 4, 5}};
    for (const auto& e : ends) {
        quad(m, e[0], e[3], e[2], e[1]);
        quad(m, n + e[0], n + e[1], n + e[2], n + e[3]);
    }
    // Seen from outside the profile runs anticlockwise in (x, z), which is clockwise round +y: turn all
    // faces.
    for (auto& t : m.triangles) std::swap(t[1], t[2]);
    return m;
}

inline TriangleMesh rotated(TriangleMesh m, const Eigen::Matrix3d& r) {
    for (auto& p : m.points) p = r * p;
    return m;
}

inline Eigen::Matrix3d odd_rotation() {
    return (Eigen::AngleAxisd(0.7, Point(0.3, -0.5, 0.8).normalized()) *
            Eigen::AngleAxisd(1.9, Point::UnitX()))
        .toRotationMatrix();
}

/// A sheet of (n × m) cells over the unit square, its diagonals turned about.
template <class Place>
TriangleMesh sheet(std::uint32_t n, std::uint32_t m, const Place& place) {
    TriangleMesh out;
    for (std::uint32_t j = 0; j <= m; ++j) {
        for (std::uint32_t i = 0; i <= n; ++i)
            out.points.push_back(place(static_cast<double>(i) / n, static_cast<double>(j) / m));
    }
    const auto at = [&](std::uint32_t i, std::uint32_t j) { return j * (n + 1) + i; };
    for (std::uint32_t j = 0; j < m; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = at(i, j), b = at(i + 1, j), c = at(i + 1, j + 1), d = at(i, j + 1);
            if ((i + j) % 2 == 0) {
                out.triangles.push_back({a, b, c});
                out.triangles.push_back({a, c, d});
            } else {
                out.triangles.push_back({a, b, d});
                out.triangles.push_back({b, c, d});
            }
        }
    }
    return out;
}

/// A flat rectangle from the origin along x and y, its (n × m) cells all cut the same way.
inline TriangleMesh plate(double length, double width, std::uint32_t n, std::uint32_t m) {
    TriangleMesh out;
    for (std::uint32_t j = 0; j <= m; ++j) {
        for (std::uint32_t i = 0; i <= n; ++i) out.points.emplace_back(length * i / n, width * j / m, 0);
    }
    for (std::uint32_t j = 0; j < m; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = j * (n + 1) + i;
            quad(out, a, a + 1, a + n + 2, a + n + 1);
        }
    }
    return out;
}

/// A box without its floor: a mould l × w × d, its rim in the plane z = 0.
inline TriangleMesh open_box(double l, double w, double d) {
    const auto whole = box({0, 0, 0}, {l, w, d});
    std::vector<std::uint32_t> keep;
    for (std::size_t f = 0; f < whole.triangles.size(); ++f) {
        if (whole.area_vector2(f).normalized().z() > -0.5) keep.push_back(static_cast<std::uint32_t>(f));
    }
    return some_faces(whole, keep);
}

inline double area_of(const TriangleMesh& mesh) {
    double sum = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) sum += mesh.area_vector2(f).norm() / 2;
    return sum;
}

}  // namespace shapes
