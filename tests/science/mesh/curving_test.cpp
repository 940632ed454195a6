// Curvatures of faces whose own are known in closed form.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/curving.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::sheet;

namespace {

Curving middle_of(const TriangleMesh& mesh, double reach, std::size_t at) {
    return curvings(mesh, topology_of(mesh), reach, quiet).at(at);
}

}  // namespace

TEST_CASE("a tube, a ball, a saddle and a plane bend as they are made") {
    const std::uint32_t n = 40;
    const std::size_t middle = n / 2 * (n + 1) + n / 2;
    const double r = 0.25;
    struct Case {
        const char* name;
        TriangleMesh mesh;
        double most, least;
    };
    const auto tube =
        sheet(n, n, [&](double u, double v) { return Point(r * std::cos(u), r * std::sin(u), 0.3 * v); });
    const auto ball = sheet(n, n, [&](double u, double v) {
        const double a = u - 0.5, b = v - 0.5;
        return Point(r * std::cos(b) * std::cos(a), r * std::cos(b) * std::sin(a), r * std::sin(b));
    });
    // z = x·y / R: ±1/R in its middle.
    const auto saddle = sheet(n, n, [](double u, double v) {
        const double x = 0.2 * (u - 0.5), y = 0.2 * (v - 0.5);
        return Point(x, y, 2 * x * y);
    });
    const auto plane = sheet(n, n, [](double u, double v) { return Point(u, v, 0.3 * u); });
    for (const auto& c : {Case{"tube", tube, -1 / r, 0}, Case{"ball", ball, -1 / r, -1 / r},
                          Case{"saddle", saddle, 2, -2}, Case{"plane", plane, 0, 0}}) {
        for (const double scale : {1.0, 40.0}) {
            auto mesh = shapes::rotated(c.mesh, shapes::odd_rotation());
            for (auto& p : mesh.points) p = scale * p + Point(1, 2, 3);
            INFO(c.name << " times " << scale);
            const auto k = middle_of(mesh, 0.04 * scale, middle);
            CHECK(std::abs(k.most) * scale == Approx(std::abs(c.most)).epsilon(0.02).margin(1e-6));
            CHECK(std::abs(k.least) * scale == Approx(std::abs(c.least)).epsilon(0.02).margin(0.02));
            if (c.most < 0) CHECK(k.most < 0);
            turn_over(mesh);
            if (c.most < 0) CHECK(middle_of(mesh, 0.04 * scale, middle).most > 0);
        }
    }
    const auto k = middle_of(tube, 0.04, middle);
    // A tube bends round itself, not along.
    CHECK(std::abs(k.along.z()) < 0.01);
}

TEST_CASE("facets and noise are evened out, and a corner comes out as tight as the reach") {
    const std::uint32_t n = 60;
    // A tube of 40 facets a turn, each cut in strips: the reach spans facets.
    const auto tube = sheet(n, n, [](double u, double v) {
        const double facet = 2 * kPi / 40, a = 1.5 * u, base = std::floor(a / facet) * facet;
        const double share = (a - base) / facet;
        const Point2 p(std::cos(base), std::sin(base)), q(std::cos(base + facet), std::sin(base + facet));
        const Point2 at = p + share * (q - p);
        return Point(at.x(), at.y(), v);
    });
    const auto k = curvings(tube, topology_of(tube), 0.3, quiet);
    double least = 1e9, most = 0;
    for (std::uint32_t j = 20; j <= 40; ++j) {
        for (std::uint32_t i = 20; i <= 40; ++i) {
            least = std::min(least, std::abs(k[j * (n + 1) + i].most));
            most = std::max(most, std::abs(k[j * (n + 1) + i].most));
        }
    }
    CHECK(least > 0.85);
    CHECK(most < 1.15);
    auto rough = tube;
    for (std::size_t i = 0; i < rough.points.size(); ++i)
        rough.points[i] *= 1 + 1e-4 * std::sin(12.9898 * static_cast<double>(i * i % 1013));
    const auto noisy = curvings(rough, topology_of(rough), 0.3, quiet)[30 * (n + 1) + 30];
    CHECK(std::abs(noisy.most) == Approx(1).epsilon(0.15));
    // A square edge: about as tight as it is looked at.
    const auto edge =
        sheet(n, n, [](double u, double v) { return u < 0.5 ? Point(0, v, 0.5 - u) : Point(u - 0.5, v, 0); });
    for (const double reach : {0.1, 0.2}) {
        const auto bend = middle_of(edge, reach, 30 * (n + 1) + 30);
        CHECK(1 / std::abs(bend.most) > 0.3 * reach);
        CHECK(1 / std::abs(bend.most) < 2 * reach);
    }
}

TEST_CASE("what has no curvature to speak of is none, and nothing is divided by nought") {
    TriangleMesh one;
    one.points = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {5, 5, 5}};
    one.triangles = {{0, 1, 2}};
    for (const auto& k : curvings(one, topology_of(one), 0.1, quiet)) {
        CHECK(std::abs(k.most) < 1e-6);
        CHECK(std::abs(k.least) < 1e-6);
    }
    CHECK(curvings({}, {}, 0.1, quiet).empty());
}
