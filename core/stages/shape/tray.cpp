#include "core/stages/shape/tray.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <limits>

#include "core/base/units.hpp"
#include "core/science/mesh/triangulate.hpp"
#include "core/stages/shape/facets.hpp"

namespace jig::shape {
namespace {

/// Inward unit normals of an anticlockwise loop.
std::vector<Point2> inward(const Loop& loop) {
    std::vector<Point2> out(loop.size());
    for (std::size_t i = 0; i < loop.size(); ++i) {
        const Point2 along = loop[(i + 1) % loop.size()] - loop[(i + loop.size() - 1) % loop.size()];
        out[i] = Point2(-along.y(), along.x()).normalized();
    }
    return out;
}

struct Ring {
    double inset, height;
};

/// The profile from mouth to crown: wall, edge arc, and the recess' rim and wall where there is one.
std::vector<Ring> profile(const Tray& t) {
    std::vector<Ring> out;
    const double lean = std::tan(t.draft), turn = kPi / 2 - t.draft;
    const double edge = std::min(t.edge_radius, 0.98 * t.depth);
    // The arc leaves the wall at its draft and meets the crown level.
    const double arc_rise = edge * (1 - std::sin(t.draft)), wall = t.depth - arc_rise;
    const int wall_steps = std::max(1, static_cast<int>(std::ceil(wall / t.facet)));
    for (int i = 0; i <= wall_steps; ++i)
        out.push_back({lean * wall * i / wall_steps, wall * i / wall_steps});
    const double foot = lean * wall;
    const int arc_steps =
        edge > 0 ? std::clamp(static_cast<int>(std::ceil(edge * turn / (0.5 * t.facet))), 4, 40) : 0;
    for (int i = 1; i <= arc_steps; ++i) {
        const double a = t.draft + turn * i / arc_steps;
        out.push_back({foot + edge * (std::cos(t.draft) - std::cos(a)),
                       wall + edge * (std::sin(a) - std::sin(t.draft))});
    }
    if (t.recess && t.recess_depth > 0) {
        const double start = out.back().inset;
        const int rim_steps = std::max(1, static_cast<int>(std::ceil(t.recess_rim / t.facet)));
        for (int i = 1; i <= rim_steps; ++i) out.push_back({start + t.recess_rim * i / rim_steps, t.depth});
        // An even S from rim to floor, as wide as three times its depth, so that cloth follows it.
        const double width = 3 * t.recess_depth;
        const int steps = std::max(6, static_cast<int>(std::ceil(width / t.facet)));
        for (int i = 1; i <= steps; ++i) {
            const double s = static_cast<double>(i) / steps;
            out.push_back(
                {start + t.recess_rim + width * s, t.depth - t.recess_depth * (1 - std::cos(kPi * s)) / 2});
        }
    }
    return out;
}

}  // namespace

Loop smooth_outline(const std::vector<std::array<double, 2>>& points, double spacing) {
    const auto n = static_cast<Eigen::Index>(points.size());
    if (n < 3)
        throw InputError("outline", "it has fewer than three points",
                         "give at least three points round the shape");
    Eigen::MatrixX2d p(n, 2);
    for (Eigen::Index i = 0; i < n; ++i) {
        const auto& q = points[static_cast<std::size_t>(i)];
        if (!std::isfinite(q[0]) || !std::isfinite(q[1]) || std::abs(q[0]) > 100 || std::abs(q[1]) > 100) {
            throw InputError("outline", "a point lies beyond 100 m or is no number", "check the unit");
        }
        p.row(i) << q[0], q[1];
    }
    Eigen::VectorXd h(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        h[i] = (p.row((i + 1) % n) - p.row(i)).norm();
        if (h[i] < 1e-5)
            throw InputError("outline", "two neighbouring points fall together", "take one of them away");
    }
    // Tangents of the C2 periodic cubic: m[i-1]/h[i-1] + 2 m[i] (1/h[i-1] + 1/h[i]) + m[i+1]/h[i] = 3 (...).
    Eigen::MatrixXd system = Eigen::MatrixXd::Zero(n, n);
    Eigen::MatrixX2d right(n, 2);
    for (Eigen::Index i = 0; i < n; ++i) {
        const auto before = (i + n - 1) % n, after = (i + 1) % n;
        system(i, before) += 1 / h[before];
        system(i, i) += 2 / h[before] + 2 / h[i];
        system(i, after) += 1 / h[i];
        right.row(i) = 3 * ((p.row(i) - p.row(before)) / (h[before] * h[before]) +
                            (p.row(after) - p.row(i)) / (h[i] * h[i]));
    }
    const Eigen::MatrixX2d m = system.partialPivLu().solve(right);
    Loop loop;
    for (Eigen::Index i = 0; i < n; ++i) {
        const auto after = (i + 1) % n;
        const int steps = std::max(2, static_cast<int>(std::ceil(h[i] / spacing)));
        for (int k = 0; k < steps; ++k) {
            const double s = static_cast<double>(k) / steps;
            const double a = (1 + 2 * s) * (1 - s) * (1 - s), b = s * (1 - s) * (1 - s) * h[i];
            const double c = s * s * (3 - 2 * s), d = s * s * (s - 1) * h[i];
            loop.emplace_back(
                (a * p.row(i) + b * m.row(i) + c * p.row(after) + d * m.row(after)).transpose());
        }
    }
    if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
    return loop;
}

FittedOutline fitted_outline(const Loop& loop, double tolerance) {
    const Point2 middle = (low_corner({loop}) + high_corner({loop})) / 2;
    const double around = perimeter(loop);
    FittedOutline out;
    for (const std::size_t count : {12U, 24U, 48U, 96U, 200U}) {
        out.points.clear();
        // Evenly along the line, each in the middle of its share.
        double walked = 0, next = around / static_cast<double>(count) / 2;
        for (std::size_t i = 0; i < loop.size() && out.points.size() < count; ++i) {
            const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
            const double step = (b - a).norm();
            while (next <= walked + step && out.points.size() < count) {
                const Point2 p = a + (next - walked) / std::max(1e-15, step) * (b - a) - middle;
                out.points.push_back({p.x(), p.y()});
                next += around / static_cast<double>(count);
            }
            walked += step;
        }
        // How far the smooth line strays from the drawn one: from each of its points to the nearest stroke.
        out.stray = 0;
        for (const auto& p : smooth_outline(out.points, around / 1000)) {
            double nearest = std::numeric_limits<double>::infinity();
            for (std::size_t i = 0; i < loop.size(); ++i) {
                const Point2 a = loop[i] - middle, ab = loop[(i + 1) % loop.size()] - middle - a;
                const double t = std::clamp((p - a).dot(ab) / std::max(1e-30, ab.squaredNorm()), 0.0, 1.0);
                nearest = std::min(nearest, (p - a - t * ab).squaredNorm());
            }
            out.stray = std::max(out.stray, std::sqrt(nearest));
        }
        if (out.stray <= tolerance) break;
    }
    return out;
}

TriangleMesh tray_mesh(const Tray& tray, Progress& progress) {
    const auto outline = smooth_outline(tray.outline, tray.facet);
    const auto normals = inward(outline);
    const auto rings = profile(tray);
    progress.report(0.1, "drawing the tray");
    const double before_area = signed_area(outline);
    // Of the crown as many as if the wall took none of it.
    check_facets(2.0 * static_cast<double>(rings.size() * outline.size()) +
                     before_area / (std::sqrt(3.0) / 4 * tray.facet * tray.facet),
                 tray.facet);
    TriangleMesh mesh;
    Loop last;
    const auto count = outline.size();
    for (const auto& ring : rings) {
        last.clear();
        for (std::size_t i = 0; i < count; ++i) {
            last.push_back(outline[i] + ring.inset * normals[i]);
            mesh.points.emplace_back(last.back().x(), last.back().y(), ring.height);
        }
        // A parallel ring turns back on itself where the inset passes the outline's own radius.
        for (std::size_t i = 0; i < count; ++i) {
            const Point2 was = outline[(i + 1) % count] - outline[i], is = last[(i + 1) % count] - last[i];
            if (was.dot(is) <= 0) {
                throw InputError("tray",
                                 "wall, edge and recess do not fit into the outline: at its tightest bend it "
                                 "turns back on itself",
                                 "make the edge radius, the draft or the recess rim smaller, or the outline "
                                 "rounder there");
            }
        }
    }
    if (signed_area(last) <= 0.002 * before_area) {
        throw InputError("tray", "wall and edge leave no crown",
                         "make the edge radius or the draft smaller, or the tray wider");
    }
    const auto at = [&](std::size_t r, std::size_t i) {
        return static_cast<std::uint32_t>(r * count + i % count);
    };
    for (std::size_t r = 0; r + 1 < rings.size(); ++r) {
        for (std::size_t i = 0; i < count; ++i) {
            mesh.triangles.push_back({at(r, i), at(r, i + 1), at(r + 1, i + 1)});
            mesh.triangles.push_back({at(r, i), at(r + 1, i + 1), at(r + 1, i)});
        }
    }
    progress.report(0.6, "filling the crown");
    const auto top = filled(last, tray.facet);
    const double level = rings.back().height;
    // The crown rises with the distance from its edge, level in the middle.
    double deepest = 0;
    std::vector<double> clear(top.points.size(), 0);
    for (std::size_t i = count; i < top.points.size(); ++i) {
        double nearest = std::numeric_limits<double>::infinity();
        for (std::size_t k = 0; k < count; ++k)
            nearest = std::min(nearest, (top.points[i] - last[k]).squaredNorm());
        clear[i] = std::sqrt(nearest);
        deepest = std::max(deepest, clear[i]);
        if ((i & 0x3ff) == 0) progress.check();
    }
    const auto base = static_cast<std::uint32_t>(mesh.points.size() - count);
    for (std::size_t i = count; i < top.points.size(); ++i) {
        const double s = deepest > 0 ? clear[i] / deepest : 0;
        mesh.points.emplace_back(top.points[i].x(), top.points[i].y(), level + tray.crown * s * (2 - s));
    }
    for (auto t : top.triangles) {
        for (auto& i : t) i += base;
        mesh.triangles.push_back(t);
    }
    return mesh;
}

}  // namespace jig::shape
