// A film's girths, read off flat sections, against exact shortest ways over the same mesh (CGAL's, after Xin
// and Wang 2009): a section is a way on the face, so it is never the shorter of the two.
#include <CGAL/Simple_cartesian.h>
#include <CGAL/Surface_mesh.h>
#include <CGAL/Surface_mesh_shortest_path.h>

#include <catch2/catch.hpp>

#include <numbers>

#include "core/science/vacuum/film.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

using Kernel = CGAL::Simple_cartesian<double>;
using Surface = CGAL::Surface_mesh<Kernel::Point_3>;
using Shortest = CGAL::Surface_mesh_shortest_path<CGAL::Surface_mesh_shortest_path_traits<Kernel, Surface>>;

/// m over the face from the point nearest to `a` to the one nearest to `b`.
double over_face(const TriangleMesh& mesh, const Point& a, const Point& b) {
    Surface s;
    std::vector<Surface::Vertex_index> at;
    for (const auto& p : mesh.points) at.push_back(s.add_vertex({p.x(), p.y(), p.z()}));
    for (const auto& t : mesh.triangles) s.add_face(at[t[0]], at[t[1]], at[t[2]]);
    const auto nearest = [&](const Point& p) {
        std::size_t best = 0;
        for (std::size_t i = 1; i < mesh.points.size(); ++i) {
            if ((mesh.points[i] - p).norm() < (mesh.points[best] - p).norm()) best = i;
        }
        return at[best];
    };
    Shortest ways(s);
    ways.add_source_point(nearest(a));
    return ways.shortest_distance_to_source_points(nearest(b)).first;
}

Film over(const TriangleMesh& mesh) {
    const auto t = topology_of(mesh);
    return film_over(mesh, t, lengthwise(mesh, t, frame_across(Point::UnitZ())), {0, {}, true, 0, 0, 0.5},
                     quiet);
}

/// z over a rectangle, `n` cells each way, its middle in the origin.
TriangleMesh sheet(double l, double w, int n, const std::function<double(double, double)>& z) {
    TriangleMesh m;
    const auto k = static_cast<std::uint32_t>(n + 1);
    for (int i = 0; i <= n; ++i) {
        for (int j = 0; j <= n; ++j) {
            const double x = l * (i / static_cast<double>(n) - 0.5),
                         y = w * (j / static_cast<double>(n) - 0.5);
            m.points.emplace_back(x, y, z(x, y));
        }
    }
    for (std::uint32_t i = 0; i + 1 < k; ++i) {
        for (std::uint32_t j = 0; j + 1 < k; ++j)
            shapes::quad(m, i * k + j, (i + 1) * k + j, (i + 1) * k + j + 1, i * k + j + 1);
    }
    return m;
}

}  // namespace

TEST_CASE("a trough's film is the exact way through its bottom") {
    const double r = 0.3;
    // An arc of half a turn, by its angle, so that both rims lie level.
    auto mesh = sheet(1, 1, 24, [](double, double) { return 0.0; });
    for (auto& p : mesh.points) {
        const double a = std::numbers::pi * p.y();
        p = Point(p.x(), r * std::sin(a), -r * std::cos(a));
    }
    const double exact = over_face(mesh, {0, -r, 0}, {0, r, 0});
    CHECK(exact == Approx(std::numbers::pi * r).epsilon(1e-3));
    const auto f = over(mesh);
    CHECK(std::min(f.longest_along, f.longest_across) == Approx(exact).epsilon(1e-9));
}

TEST_CASE("a bowl's film is the exact way over its pole") {
    const auto bowl = parted(shapes::sphere(0.25, 32), Point(0, 0, 0), Point::UnitZ()).above;
    const double exact = over_face(bowl, {-0.25, 0, 0}, {0.25, 0, 0});
    CHECK(exact == Approx(std::numbers::pi * 0.25).epsilon(3e-3));
    const auto f = over(bowl);
    CHECK(f.longest_along == Approx(exact).epsilon(3e-3));
    CHECK(f.longest_across >= exact * (1 - 3e-3));
}

TEST_CASE(
    "over a shell that curves both ways a section is hardly longer than the exact way, and never shorter") {
    const auto shell = sheet(1.2, 0.8, 24, [](double x, double y) { return 0.25 * x * x + 0.4 * y * y; });
    double longest = 0;
    for (const double x : {-0.5, -0.3, 0.0, 0.2, 0.4}) {
        const double z = 0.25 * x * x + 0.4 * 0.16;
        const double exact = over_face(shell, {x, -0.4, z}, {x, 0.4, z});
        // ∫ √(1 + (0.8 y)²) dy over the section itself.
        const double u = 0.8 * 0.4, section = 0.4 * std::sqrt(1 + u * u) + std::asinh(u) / 0.8;
        CHECK(exact <= section * (1 + 1e-6));
        CHECK(section <= exact * 1.01);
        longest = std::max(longest, exact);
    }
    const auto f = over(shell);
    CHECK(f.longest_across >= longest * (1 - 1e-6));
    CHECK(f.longest_across <= longest * 1.01);
    // A saddle as well.
    const auto saddle = sheet(1.0, 1.0, 24, [](double x, double y) { return 0.3 * (x * x - y * y); });
    const double through = over_face(saddle, {0, -0.5, -0.075}, {0, 0.5, -0.075});
    const auto g = over(saddle);
    CHECK(g.longest_across >= through * (1 - 1e-6));
    CHECK(g.longest_across <= through * 1.01);
}
