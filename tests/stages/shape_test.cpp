#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/stages/shape/facets.hpp"
#include "core/stages/shape/starter_meshes.hpp"
#include "core/stages/shape/tray.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace jig::shape {

namespace {

std::vector<std::array<double, 2>> circle(double r, int n = 16) {
    std::vector<std::array<double, 2>> out;
    for (int i = 0; i < n; ++i) out.push_back({r * std::cos(2 * kPi * i / n), r * std::sin(2 * kPi * i / n)});
    return out;
}

Tray round_tray() {
    Tray t;
    t.outline = circle(0.3);
    t.depth = 0.15;
    t.draft = radians(5);
    t.edge_radius = 0.03;
    t.crown = 0;
    t.facet = 0.008;
    return t;
}

}  // namespace

TEST_CASE("the smooth outline goes through its points and is a circle where they lie on one") {
    const auto loop = smooth_outline(circle(0.3), 0.005);
    CHECK(signed_area(loop) == Approx(kPi * 0.09).epsilon(1e-3));
    for (const auto& p : loop) CHECK(p.norm() == Approx(0.3).epsilon(1e-3));
    auto clockwise = circle(0.3);
    std::reverse(clockwise.begin(), clockwise.end());
    CHECK(signed_area(smooth_outline(clockwise, 0.01)) > 0);
    CHECK_THROWS_AS(smooth_outline({{0, 0}, {1, 0}}, 0.1), InputError);
    CHECK_THROWS_AS(smooth_outline({{0, 0}, {1, 0}, {1, 0}, {0, 1}}, 0.1), InputError);
}

TEST_CASE("a round tray is a frustum with a rounded edge") {
    const auto t = round_tray();
    const auto mesh = tray_mesh(t, quiet);
    const auto topology = topology_of(mesh);
    CHECK(topology.crowded_edges == 0);
    CHECK(topology.turned_edges == 0);
    const auto m = measure(mesh, topology);
    CHECK(m.rims == 1);
    CHECK(m.size.z() == Approx(0.15));
    // Pappus by numbers: integrate the profile's circles.
    const double rise = t.edge_radius * (1 - std::sin(t.draft)), wall = t.depth - rise;
    double volume = 0;
    const int n = 20000;
    for (int i = 0; i < n; ++i) {
        const double z = t.depth * (i + 0.5) / n;
        double r = 0.3 - z * std::tan(t.draft);
        if (z > wall) {
            const double a = std::asin((z - wall) / t.edge_radius + std::sin(t.draft));
            r = 0.3 - wall * std::tan(t.draft) - t.edge_radius * (std::cos(t.draft) - std::cos(a));
        }
        volume += kPi * r * r * t.depth / n;
    }
    CHECK(m.volume == Approx(volume).epsilon(3e-3));
}

TEST_CASE("crown and recess change the height where they should") {
    auto t = round_tray();
    t.crown = 0.02;
    CHECK(bounds_of(tray_mesh(t, quiet)).high.z() == Approx(0.17).epsilon(1e-3));
    t.crown = 0;
    t.recess = true;
    t.recess_rim = 0.04;
    t.recess_depth = 0.01;
    const auto mesh = tray_mesh(t, quiet);
    CHECK(topology_of(mesh).rim_edges == topology_of(tray_mesh(round_tray(), quiet)).rim_edges);
    double middle = 0, nearest = 1e9;
    for (const auto& p : mesh.points) {
        if (p.head<2>().norm() < nearest) {
            nearest = p.head<2>().norm();
            middle = p.z();
        }
    }
    CHECK(middle == Approx(0.14).epsilon(1e-6));
}

TEST_CASE("what does not fit into the outline is refused, not folded") {
    auto t = round_tray();
    t.edge_radius = 0.14;
    t.recess = true;
    t.recess_rim = 0.2;
    t.recess_depth = 0.01;
    CHECK_THROWS_AS(tray_mesh(t, quiet), InputError);
}

TEST_CASE("a slip of a unit is refused before it is laid out, and facets as long as is said are taken") {
    auto t = round_tray();
    for (auto& p : t.outline) p = {60 * p[0], 60 * p[1]};
    t.facet = 0.012;
    std::string said;
    try {
        tray_mesh(t, quiet);
    } catch (const InputError& e) {
        said = e.what();
    }
    CHECK_THAT(said, Catch::Contains("million facets") && Catch::Contains("or longer"));
    t.facet = 0.15;
    const auto large = tray_mesh(t, quiet);
    CHECK(static_cast<double>(large.triangles.size()) < shape::kMostFacets);
    CHECK(static_cast<double>(large.triangles.size()) > 0.05 * shape::kMostFacets);
    // Of whatever kind it is.
    Turned turned;
    turned.profile = {{20, 0}, {0, 20}};
    turned.facet = 0.002;
    CHECK_THROWS_WITH(turned_mesh(turned, quiet), Catch::Contains("million facets"));
    Stations stations;
    for (auto& s : stations.stations) s.width *= 50;
    stations.stations.back().at = 45;
    stations.facet = 0.005;
    CHECK_THROWS_WITH(stations_mesh(stations, quiet), Catch::Contains("million facets"));
}

TEST_CASE("a drawn outline becomes few points whose smooth line follows it") {
    Loop ring;
    for (int i = 0; i < 360; ++i)
        ring.emplace_back(1 + 0.3 * std::cos(radians(i)), 0.3 * std::sin(radians(i)));
    const auto fitted = fitted_outline(ring, 0.0005);
    CHECK(fitted.points.size() <= 24);
    CHECK(fitted.stray < 0.0005);
    CHECK(signed_area(smooth_outline(fitted.points, 0.005)) == Approx(kPi * 0.09).epsilon(2e-3));
    // Square corners are rounded by the smooth line, and the stray says how much.
    const auto square = fitted_outline({{0, 0}, {1, 0}, {1, 1}, {0, 1}}, 0.0005);
    CHECK(square.points.size() == 200);
    CHECK(square.stray > 0.0005);
    CHECK(square.stray < 0.01);
}

}  // namespace jig::shape
