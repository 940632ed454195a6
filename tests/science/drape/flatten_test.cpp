// Pieces laid flat against what is known of them: cylinders and cones are developed; on a sphere the best
// flat map of a cap solves an equation along its radius alone, which is integrated here.
#include <catch2/catch.hpp>
#include <cmath>
#include <Eigen/LU>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/drape/flatten.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::sheet;

namespace {

double apart(const Flattened& f, std::size_t a, std::size_t b) {
    return (f.flat[a] - f.flat[b]).norm();
}

/// A cap of a sphere of radius 1 out to the angle `reach` about z, rings of like points.
TriangleMesh flat_cap(double reach, std::uint32_t rings) {
    const std::uint32_t around = 6 * rings;
    TriangleMesh out;
    out.points.emplace_back(0, 0, 1);
    for (std::uint32_t r = 1; r <= rings; ++r) {
        const double s = reach * r / rings;
        for (std::uint32_t i = 0; i < around; ++i) {
            const double a = 2 * kPi * (i + 0.5 * (r % 2)) / around;
            out.points.emplace_back(std::sin(s) * std::cos(a), std::sin(s) * std::sin(a), std::cos(s));
        }
    }
    const auto at = [&](std::uint32_t r, std::uint32_t i) { return 1 + (r - 1) * around + i % around; };
    for (std::uint32_t i = 0; i < around; ++i) out.triangles.push_back({0, at(1, i), at(1, i + 1)});
    for (std::uint32_t r = 1; r < rings; ++r) {
        for (std::uint32_t i = 0; i < around; ++i) {
            const auto shift = r % 2;  // the ring that lies half a step ahead
            out.triangles.push_back({at(r, i), at(r + 1, i + shift), at(r, i + 1)});
            out.triangles.push_back({at(r, i + 1), at(r + 1, i + shift), at(r + 1, i + shift + 1)});
        }
    }
    for (auto& t : out.triangles) {
        const Point n = (out.points[t[1]] - out.points[t[0]]).cross(out.points[t[2]] - out.points[t[0]]);
        if (n.dot(out.points[t[0]]) < 0) std::swap(t[1], t[2]);
    }
    return out;
}

/// f(s) that makes ∫ ((f' − 1)² + (f/sin s − 1)²)·sin s ds least with f(0) = 0: linear elements, so that
/// nothing of the program is in it.
std::vector<double> best_radii(double reach, int n) {
    const double h = reach / n;
    Eigen::MatrixXd m = Eigen::MatrixXd::Zero(n + 1, n + 1);
    Eigen::VectorXd b = Eigen::VectorXd::Zero(n + 1);
    for (int e = 0; e < n; ++e) {
        for (const double g : {0.5 - std::sqrt(1.0 / 12), 0.5 + std::sqrt(1.0 / 12)}) {
            const double w = std::sin((e + g) * h), share = h / 2;
            const double value[2] = {1 - g, g}, slope[2] = {-1 / h, 1 / h};
            for (int i = 0; i < 2; ++i) {
                b[e + i] += share * (slope[i] * w + value[i]);
                for (int j = 0; j < 2; ++j)
                    m(e + i, e + j) += share * (slope[i] * slope[j] * w + value[i] * value[j] / w);
            }
        }
    }
    m.row(0).setZero();
    m(0, 0) = 1;
    b[0] = 0;
    const Eigen::VectorXd x = m.partialPivLu().solve(b);
    return {x.data(), x.data() + x.size()};
}

}  // namespace

TEST_CASE("a cylinder and a cone are developed without stretch, however they are turned") {
    // Facets along the axis are themselves developed exactly.
    const double r = 0.3, turn = 2.4, high = 0.5;
    auto tube = sheet(40, 10, [&](double u, double v) {
        return Point(r * std::cos(turn * u), r * std::sin(turn * u), high * v);
    });
    const double chord = 40 * 2 * r * std::sin(turn / 80);
    auto cone = sheet(60, 8, [&](double u, double v) {
        const double s = 0.4 + 0.5 * v, half = radians(25), a = 3 * u;
        return Point(s * std::sin(half) * std::cos(a), s * std::sin(half) * std::sin(a), -s * std::cos(half));
    });
    for (const bool turned : {false, true}) {
        const Eigen::Matrix3d by = turned ? shapes::odd_rotation() : Eigen::Matrix3d::Identity();
        const auto flat = flatten(shapes::rotated(tube, by), quiet);
        CHECK(flat.most < 1e-5);
        CHECK_FALSE(flat.folded);
        CHECK(apart(flat, 0, 40) == Approx(chord).epsilon(1e-5));
        CHECK(apart(flat, 0, 10 * 41 + 40) == Approx(std::hypot(chord, high)).epsilon(1e-5));
        const auto fan = flatten(shapes::rotated(cone, by), quiet);
        CHECK(fan.most < 2e-4);
        // Its development turns by 3·sin 25°: the chord of its outer edge.
        CHECK(apart(fan, 8 * 61, 8 * 61 + 60) ==
              Approx(2 * 0.9 * std::sin(3 * std::sin(radians(25)) / 2)).epsilon(1e-3));
        CHECK(apart(fan, 0, 8 * 61) == Approx(0.5).epsilon(1e-3));
    }
}

TEST_CASE("the outside of a piece looks up when it lies flat") {
    const auto tube =
        sheet(20, 5, [](double u, double v) { return Point(0.3 * std::cos(u), 0.3 * std::sin(u), 0.4 * v); });
    const auto flat = flatten(tube, quiet);
    for (const auto& t : tube.triangles) {
        const Point2 a = flat.flat[t[1]] - flat.flat[t[0]], b = flat.flat[t[2]] - flat.flat[t[0]];
        CHECK(a.x() * b.y() - a.y() * b.x() > 0);
    }
}

TEST_CASE("a cap of a sphere lies flat as its radius alone says") {
    for (const double reach : {0.3, 0.7}) {
        const std::uint32_t rings = 24;
        const auto mesh = flat_cap(reach, rings);
        const auto flat = flatten(mesh, quiet);
        const auto radii = best_radii(reach, 2400);
        CHECK_FALSE(flat.folded);
        const std::uint32_t around = 6 * rings;
        for (const std::uint32_t r : {rings / 2, rings}) {
            double mean = 0;
            for (std::uint32_t i = 0; i < around; ++i)
                mean += apart(flat, 0, 1 + (r - 1) * around + i) / around;
            INFO("out to " << reach << ", ring " << r);
            const double known = radii[static_cast<std::size_t>(2400 * r / rings)];
            CHECK(mean == Approx(known).epsilon(0.002));
        }
        // Round its rim it is drawn in or let out by f/sin s − 1.
        const double rim = std::abs(radii.back() / std::sin(reach) - 1);
        CHECK(flat.most > 0.6 * rim);
        CHECK(flat.most < 1.3 * std::max(rim, std::abs(radii[1] / (reach / 2400) - 1)));
    }
}

TEST_CASE("stretch does not depend on size, and grows as the square of a cap's") {
    const auto small = flat_cap(0.2, 12);
    auto scaled = small;
    for (auto& p : scaled.points) p = 1e-3 * p + Point(5, -3, 2);
    const auto a = flatten(small, quiet), b = flatten(scaled, quiet), c = flatten(flat_cap(0.4, 24), quiet);
    CHECK(b.usual == Approx(a.usual).epsilon(1e-3));
    CHECK(c.usual / a.usual == Approx(4).epsilon(0.08));
}

TEST_CASE("odd pieces are laid flat or refused in words") {
    CHECK_THROWS_AS(flatten(TriangleMesh{}, quiet), InputError);
    TriangleMesh line;
    line.points = {{0, 0, 0}, {1, 0, 0}, {2, 0, 0}};
    line.triangles = {{0, 1, 2}};
    CHECK_THROWS_AS(flatten(line, quiet), InputError);
    // Two faces apart from each other, and a ball: no one face with a rim.
    TriangleMesh two;
    two.points = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {3, 0, 0}, {4, 0, 0}, {3, 1, 0}};
    two.triangles = {{0, 1, 2}, {3, 4, 5}};
    CHECK_THROWS_WITH(flatten(two, quiet), Catch::Contains("one face"));
    CHECK_THROWS_WITH(flatten(shapes::sphere(1, 12), quiet), Catch::Contains("rim"));
    // One face; a point that no face uses; a face without area among others.
    TriangleMesh one;
    one.points = {{0, 0, 0}, {1, 0, 1}, {9, 9, 9}, {0, 1, 0}, {0.5, 0, 0.5}};
    one.triangles = {{0, 1, 3}, {0, 4, 1}};
    const auto flat = flatten(one, quiet);
    CHECK(flat.most < 1e-9);
    CHECK(apart(flat, 0, 1) == Approx(std::sqrt(2.0)));
    // A ring has a rim more than one, and lies as it lay.
    auto ring = shapes::sheet(8, 8, [](double u, double v) { return Point(u, v, 0); });
    std::erase_if(ring.triangles, [&](const Triangle& t) {
        const Point at = (ring.points[t[0]] + ring.points[t[1]] + ring.points[t[2]]) / 3;
        return (at - Point(0.5, 0.5, 0)).norm() < 0.2;
    });
    CHECK(flatten(ring, quiet).most < 1e-6);
    // A cone all round does not lie flat in one piece, and says by how much it does not.
    const auto round = sheet(48, 6, [](double u, double v) {
        const double s = 0.5 + 0.5 * v;
        return Point(s * std::cos(2 * kPi * u), s * std::sin(2 * kPi * u), s);
    });
    auto closed = round;
    for (auto& t : closed.triangles) {
        for (auto& p : t) p = p % 49 == 48 ? p - 48 : p;
    }
    CHECK(flatten(round, quiet).most < 2e-4);
    CHECK(flatten(closed, quiet).most > 0.1);
}
