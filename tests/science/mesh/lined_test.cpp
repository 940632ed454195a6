// Even triangles, and edges that run along planes.
#include "core/science/mesh/lined.hpp"

#include <catch2/catch.hpp>
#include <set>

#include "core/base/error.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/relieve.hpp"
#include "core/science/mesh/remesh.hpp"
#include "core/science/mesh/triangulate.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

double area_of(const TriangleMesh& mesh, const std::vector<int>& patch, int which) {
    double out = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        out += patch[f] == which ? mesh.area_vector2(f).norm() / 2 : 0;
    return out;
}

/// A closed can: side patch 0, ends patch 1.
TriangleMesh can(std::vector<int>& patch) {
    const auto mesh = shapes::turned({{0.3, 0}, {0.3, 0.4}}, 60);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        patch.push_back(std::abs(mesh.area_vector2(f).normalized().z()) > 0.5 ? 1 : 0);
    return mesh;
}

}  // namespace

TEST_CASE("edges that run back along others are tidied away before they are filled") {
    // A spike along an edge, its end a micrometre on the wrong side of it: the line crosses itself there.
    const Loops spiked{
        {{0, 0}, {1, 0}, {1, 0.3}, {0.8, 0.2}, {0.2, 0.2 + 2e-6}, {0.6, 0.2 - 1e-6}, {0, 0.3}}};
    CHECK_THROWS_AS(filled(spiked, 0.1), InputError);
    const auto tidy = tidied(spiked, 5e-5);
    double area = 0;
    const auto flat = filled(tidy, 0.1);
    for (const auto& t : flat.triangles) {
        const Point2 u = flat.points[t[1]] - flat.points[t[0]], v = flat.points[t[2]] - flat.points[t[0]];
        area += std::abs(u.x() * v.y() - u.y() * v.x()) / 2;
    }
    CHECK(area == Approx(net_area(tidy)));
    // What lies beneath the spike by hand: (0, 0) … (1, 0.3), (0.8, 0.2), (0.6, 0.2), (0, 0.3).
    CHECK(area == Approx(0.2 + 0.2 * 0.1 / 2 + 0.6 * 0.1 / 2).epsilon(1e-3));
    // A hole stays a hole.
    const Loops ring{rectangle(0, 0, 1, 1), {{0.2, 0.2}, {0.2, 0.8}, {0.8, 0.8}, {0.8, 0.2}}};
    CHECK(net_area(tidied(ring, 5e-5)) == Approx(1 - 0.36));
}

TEST_CASE("even triangles keep the surface, its patches and its folds") {
    std::vector<int> patch;
    const auto mesh = can(patch);
    const auto even = remeshed(mesh, patch, 0.05, quiet);
    CHECK(topology_of(even.mesh).closed());
    for (const int which : {0, 1})
        CHECK(area_of(even.mesh, even.patch, which) == Approx(area_of(mesh, patch, which)).epsilon(0.01));
    CHECK(measure(even.mesh, topology_of(even.mesh)).volume ==
          Approx(measure(mesh, topology_of(mesh)).volume).epsilon(0.01));
    // Most edges are about as long as was asked.
    std::size_t good = 0, all = 0;
    for (std::size_t f = 0; f < even.mesh.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) {
            const double l = (even.mesh.corner(f, (k + 1) % 3) - even.mesh.corner(f, k)).norm();
            ++all;
            good += l > 0.6 * 0.05 && l < 1.5 * 0.05;
        }
    }
    CHECK(static_cast<double>(good) > 0.9 * static_cast<double>(all));
    // Each fold's points stay on it.
    for (const auto& p : even.mesh.points) CHECK((p.z() > -1e-9 && p.z() < 0.4 + 1e-9));
    auto torn = mesh;
    torn.triangles.push_back(torn.triangles.front());
    auto more = patch;
    more.push_back(0);
    CHECK_THROWS_AS(remeshed(torn, more, 0.05, quiet), InputError);
}

TEST_CASE("no edge crosses a plane that the mesh was lined up with, and the surface stays whole") {
    std::vector<int> patch;
    const auto mesh = can(patch);
    const auto even = remeshed(mesh, patch, 0.05, quiet);
    const std::array<PlaneSet, 2> sets{PlaneSet{Point::UnitX(), {-0.21, 0.013, 0.2}},
                                       PlaneSet{Point::UnitY(), {-0.1, 0.15}}};
    const auto lined = lined_up(even.mesh, even.patch, sets);
    CHECK(topology_of(lined.mesh).closed());
    for (const int which : {0, 1})
        CHECK(area_of(lined.mesh, lined.patch, which) ==
              Approx(area_of(even.mesh, even.patch, which)).epsilon(0.02));
    for (std::size_t s = 0; s < 2; ++s) {
        for (std::size_t p = 0; p < sets[s].at.size(); ++p) {
            std::size_t on = 0;
            for (std::size_t i = 0; i < lined.mesh.points.size(); ++i) {
                if (lined.on[s][i] != static_cast<int>(p)) continue;
                ++on;
                CHECK(sets[s].normal.dot(lined.mesh.points[i]) == Approx(sets[s].at[p]).margin(1e-6));
            }
            CHECK(on > 10);
            for (std::size_t f = 0; f < lined.mesh.triangles.size(); ++f) {
                bool above = false, below = false;
                for (int k = 0; k < 3; ++k) {
                    const double d = sets[s].normal.dot(lined.mesh.corner(f, k)) - sets[s].at[p];
                    above |= d > 1e-6;
                    below |= d < -1e-6;
                }
                CHECK_FALSE((above && below));
            }
        }
    }
    // A plane across the can cuts one closed line, whose shortest way from left to right is half of it.
    const auto chains = chains_on(lined, 0, 1, Point::UnitY());
    REQUIRE(chains.size() == 1);
    for (std::size_t i = 1; i < chains[0].size(); ++i)
        CHECK((lined.mesh.points[chains[0][i]] - lined.mesh.points[chains[0][i - 1]]).norm() > 0);
    const double y0 = lined.mesh.points[chains[0].front()].y(), y1 = lined.mesh.points[chains[0].back()].y();
    CHECK(y1 - y0 == Approx(2 * std::sqrt(0.09 - 0.013 * 0.013)).epsilon(0.02));
}

TEST_CASE("splinters beside the lines are taken away, and lines, patches and surface stay") {
    constexpr double kWanted = 15 * kPi / 180;
    std::vector<int> patch;
    const auto mesh = can(patch);
    const auto even = remeshed(mesh, patch, 0.05, quiet);
    // A flat plate turned in space, and the can; planes aslant of the triangles and close together.
    std::vector<int> flat_patch;
    const auto r = shapes::odd_rotation();
    TriangleMesh sheet;
    const auto flat = filled({rectangle(0, 0, 1.2, 0.8)}, 0.05);
    for (const auto& p : flat.points) sheet.points.push_back(r * Point(p.x(), p.y(), 0));
    sheet.triangles = flat.triangles;
    flat_patch.assign(sheet.triangles.size(), 0);
    const auto plate = remeshed(sheet, flat_patch, 0.05, quiet);
    struct Body {
        const char* name;
        TriangleMesh mesh;
        std::vector<int> patch;
        std::array<PlaneSet, 2> sets;
    };
    for (const Body& body : {Body{"can",
                                  even.mesh,
                                  even.patch,
                                  {PlaneSet{Point::UnitX(), {-0.21, 0.013, 0.033, 0.2}},
                                   PlaneSet{Point::UnitY(), {-0.1, 0.15}}}},
                             Body{"plate",
                                  plate.mesh,
                                  plate.patch,
                                  {PlaneSet{r * Point(0.8, 0.6, 0), {0.21, 0.4, 0.6, 0.81}},
                                   PlaneSet{r * Point(-0.6, 0.8, 0), {-0.2, 0.05, 0.31}}}}}) {
        INFO(body.name);
        const auto rough = lined_up(body.mesh, body.patch, body.sets);
        auto lined = rough;
        relieve(lined, kWanted);
        CHECK(lined.patch.size() == lined.mesh.triangles.size());
        const auto t = topology_of(lined.mesh), was = topology_of(rough.mesh);
        CHECK(t.crowded_edges == 0);
        CHECK(t.turned_edges == 0);
        CHECK((t.rim_edges == 0) == (was.rim_edges == 0));
        for (const int which : {0, 1})
            CHECK(area_of(lined.mesh, lined.patch, which) ==
                  Approx(area_of(rough.mesh, rough.patch, which)).epsilon(2e-3).margin(1e-12));
        std::size_t before = 0, left = 0;
        for (std::size_t f = 0; f < rough.mesh.triangles.size(); ++f)
            before += least_angle(rough.mesh, f) < kWanted;
        for (std::size_t f = 0; f < lined.mesh.triangles.size(); ++f) {
            if (least_angle(lined.mesh, f) >= kWanted) continue;
            ++left;
            // What is left lies between lines that meet there: two of its corners or more are on some.
            int bound = 0;
            const auto outline = outline_edges(lined.mesh, lined.patch);
            for (const auto i : lined.mesh.triangles[f]) {
                const bool rim = std::any_of(outline.begin(), outline.end(),
                                             [&](const auto& e) { return e.first == i || e.second == i; });
                bound += rim || lined.on[0][i] >= 0 || lined.on[1][i] >= 0;
            }
            CHECK(bound >= 2);
        }
        CHECK(before >= 5);
        CHECK(left * 10 <= lined.mesh.triangles.size() / 10);
        CHECK(2 * left <= before);
        for (std::size_t s = 0; s < 2; ++s) {
            for (std::size_t p = 0; p < body.sets[s].at.size(); ++p) {
                const auto way = body.sets[1 - s].normal;
                const auto old = chains_on(rough, static_cast<int>(s), static_cast<int>(p), way);
                const auto now = chains_on(lined, static_cast<int>(s), static_cast<int>(p), way);
                REQUIRE(now.size() == old.size());
                // Each rib's line begins and ends where it did.
                for (std::size_t i = 0; i < now.size(); ++i) {
                    CHECK((lined.mesh.points[now[i].front()] - rough.mesh.points[old[i].front()]).norm() <
                          0.05);
                    CHECK((lined.mesh.points[now[i].back()] - rough.mesh.points[old[i].back()]).norm() <
                          0.05);
                }
                for (std::size_t f = 0; f < lined.mesh.triangles.size(); ++f) {
                    bool above = false, below = false;
                    for (int k = 0; k < 3; ++k) {
                        const double d =
                            body.sets[s].normal.dot(lined.mesh.corner(f, k)) - body.sets[s].at[p];
                        above |= d > 1e-6;
                        below |= d < -1e-6;
                    }
                    CHECK_FALSE((above && below));
                }
            }
        }
    }
}

TEST_CASE("slivers are left out, and scraps that hung on by them") {
    Lined lined;
    lined.mesh.points = {{0, 0, 0},      {1, 0, 0}, {1, 1, 0}, {0, 1, 0},
                         {0.5, 1e-4, 0}, {3, 0, 0}, {4, 0, 0}, {3, 1, 0}};
    // Two good faces, a sliver along their lower side, and a face that stands alone.
    lined.mesh.triangles = {{0, 1, 2}, {0, 2, 3}, {0, 1, 4}, {5, 6, 7}};
    lined.patch = {0, 1, 0, 0};
    CHECK(is_sliver(lined.mesh, 2, 3e-3));
    CHECK_FALSE(is_sliver(lined.mesh, 0, 3e-3));
    drop_slivers(lined, 3e-3);
    REQUIRE(lined.mesh.triangles.size() == 2);
    CHECK(lined.patch == std::vector<int>{0, 1});
}

TEST_CASE("an upright line meets an outline between its lowest and its highest crossing") {
    const Loops ring{rectangle(0, 0, 4, 3), {{1, 1}, {1, 2}, {3, 2}, {3, 1}}};
    double low = 0, high = 0;
    REQUIRE(upright_span(ring, 2, low, high));
    CHECK(low == 0);
    CHECK(high == 3);
    CHECK_FALSE(upright_span(ring, 5, low, high));
    CHECK(net_area(ring) == Approx(10));
}
