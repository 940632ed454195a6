#include "app/stand/scene_parts.hpp"

#include <cmath>

#include "core/base/error.hpp"
#include "core/science/mesh/triangulate.hpp"

namespace jig::app {

void add_triangle(Scene& s, const std::array<Point, 3>& at, const std::array<Point, 3>& normals,
                  const QColor& colour, Pattern pattern) {
    const auto put = [&](const Point& p, const Point& n) {
        s.corners.push_back({static_cast<float>(p.x()), static_cast<float>(p.y()), static_cast<float>(p.z()),
                             static_cast<float>(n.x()), static_cast<float>(n.y()), static_cast<float>(n.z()),
                             colour.redF(), colour.greenF(), colour.blueF(), static_cast<float>(pattern)});
    };
    for (std::size_t k = 0; k < 3; ++k) put(at[k], normals[k]);
}

void add_quad(Scene& s, const Point& a, const Point& b, const Point& c, const Point& d, const QColor& colour,
              Pattern pattern) {
    const Point n = (b - a).cross(c - a).normalized();
    add_triangle(s, {a, b, c}, {n, n, n}, colour, pattern);
    add_triangle(s, {a, c, d}, {n, n, n}, colour, pattern);
}

void add_flat(Scene& s, const Loops& outlines, double z, const QColor& colour, Pattern pattern) {
    add_flat(s, outlines, {Point::UnitX(), Point::UnitY(), Point::UnitZ()}, z,
             {{Point::UnitX(), Point::UnitY(), Point::UnitZ()}}, colour, pattern);
}

void add_flat(Scene& s, const Loops& outlines, const Frame& plane, double height, const Upright& up,
              const QColor& colour, Pattern pattern) {
    if (outlines.empty()) return;
    const double spacing = (high_corner(outlines) - low_corner(outlines)).maxCoeff() / 4;
    add_draped(
        s, outlines, plane, [height](const Point2&) { return height; }, spacing, up, colour, pattern);
}

void add_draped(Scene& s, const Loops& outlines, const Frame& plane,
                const std::function<double(const Point2&)>& height, double spacing, const Upright& up,
                const QColor& colour, Pattern pattern) {
    Loops thin;
    for (const auto& loop : outlines) thin.push_back(simplified(loop, 0.0002));
    // Two outlines closer than the thinning may cross; as they came they do not, but for slivers.
    thin = tidied(thin, 5e-5);
    if (thin.empty()) return;
    FlatMesh flat;
    try {
        flat = filled(thin, spacing);
    } catch (const InputError&) {
        flat = filled(tidied(outlines, 5e-5), spacing);
    }
    std::vector<Point> places;
    for (const auto& p : flat.points) places.push_back(up(plane.lift(p, height(p))));
    const Point facing = up(plane.w);
    for (const auto& t : flat.triangles) {
        const Point &a = places[t[0]], &b = places[t[1]], &c = places[t[2]];
        Point n = (b - a).cross(c - a);
        n = n.norm() > 1e-14 ? Point(n.normalized()) : facing;
        if (n.dot(facing) < 0) n = -n;
        add_triangle(s, {a, b, c}, {n, n, n}, colour, pattern);
    }
}

void add_line(Scene& s, const Line& line, const Upright& up, const Point& move, const QColor& colour,
              double width, bool dashed) {
    SceneLine out;
    for (const auto& p : line) out.points.push_back(up(p) + move);
    out.colour = colour;
    out.width = width;
    out.dashed = dashed;
    s.lines.push_back(std::move(out));
}

void add_arrow(Scene& s, const Point& from, const Point& way, const QString& text, const Ink& k) {
    const Point tip = from + way;
    const Point side =
        way.cross(std::abs(way.normalized().z()) > 0.9 ? Point::UnitX() : Point::UnitZ()).normalized() *
        way.norm() / 10;
    s.lines.push_back({{from, tip}, k.petrol, 2.0, false});
    s.lines.push_back({{tip + side - way / 6, tip, tip - side - way / 6}, k.petrol, 2.0, false});
    s.labels.push_back({tip, text});
}

}  // namespace jig::app
