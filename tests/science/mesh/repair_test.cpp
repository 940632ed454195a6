#include <algorithm>
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/repair.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

/// All measures, the inside radius with them.
Measures measured(const TriangleMesh& mesh) {
    const auto topology = topology_of(mesh);
    auto m = measure(mesh, topology);
    find_inside_radius(mesh, bends(mesh, topology), m);
    return m;
}

}  // namespace

namespace {

std::size_t mended(const Repaired& r, const std::string& what) {
    for (const auto& repair : r.repairs) {
        if (repair.what.find(what) != std::string::npos) return repair.count;
    }
    return 0;
}

}  // namespace

TEST_CASE("a sound body is left alone") {
    const auto r = repaired(shapes::torus(0.3, 0.1), quiet);
    CHECK(r.repairs.empty());
    CHECK(r.holes == 0);
}

TEST_CASE("each fault is mended and told") {
    auto soup = shapes::box({0, 0, 0}, {1, 1, 1});
    // Every triangle its own points, some of them a hair off; one face turned, one doubled, one empty.
    TriangleMesh bad;
    for (const auto& t : soup.triangles) {
        Triangle u{};
        for (std::size_t k = 0; k < 3; ++k) {
            u[k] = static_cast<std::uint32_t>(bad.points.size());
            bad.points.push_back(soup.points[t[k]] + Point(3e-7 * static_cast<double>(k), 0, 0));
        }
        bad.triangles.push_back(u);
    }
    std::swap(bad.triangles[3][0], bad.triangles[3][1]);
    bad.triangles.push_back(bad.triangles[5]);
    bad.triangles.push_back({0, 0, 1});
    const auto r = repaired(bad, quiet);
    CHECK(mended(r, "points joined") == 28);
    CHECK(mended(r, "without area") == 1);
    CHECK(mended(r, "doubled") == 1);
    CHECK(mended(r, "turned") == 1);
    CHECK(r.topology.closed());
    CHECK(measure(r.mesh, r.topology).volume == Approx(1).epsilon(1e-5));
}

TEST_CASE("a body inside out is turned, pinholes are closed and real openings stay") {
    auto ball = shapes::sphere(0.5, 60);
    for (auto& t : ball.triangles) std::swap(t[0], t[1]);
    auto r = repaired(ball, quiet);
    CHECK(mended(r, "turned") == r.mesh.triangles.size());
    CHECK(measure(r.mesh, r.topology).volume == Approx(4.0 / 3 * kPi * 0.125).epsilon(5e-3));

    auto holed = shapes::sphere(0.5, 120);
    holed.triangles.erase(holed.triangles.begin() + 9000);
    r = repaired(holed, quiet);
    CHECK(mended(r, "pinholes") == 1);
    CHECK(r.holes == 0);
    CHECK(r.topology.turned_edges == 0);

    const auto bowl = shapes::turned({{0.3, 0}, {0.2, 0.2}}, 64, false, true);
    r = repaired(bowl, quiet);
    CHECK(r.holes == 1);
    CHECK_THROWS_AS(repaired(TriangleMesh{{{0, 0, 0}, {0, 0, 0}, {0, 0, 0}}, {{0, 1, 2}}}, quiet),
                    InputError);
}

TEST_CASE("measures of known bodies") {
    const auto torus = shapes::torus(0.3, 0.1, 160);
    const auto m = measured(torus);
    CHECK(m.area == Approx(4 * kPi * kPi * 0.3 * 0.1).epsilon(1e-3));
    CHECK(m.volume == Approx(2 * kPi * kPi * 0.3 * 0.01).epsilon(2e-3));
    CHECK(m.centroid.norm() < 1e-9);
    // On its inner side a torus is hollow with the radius R - r.
    CHECK(m.smallest_inside_radius.value() == Approx(0.2).epsilon(0.02));

    const auto box = shapes::box({5, 6, 7}, {1, 2, 3});
    const auto b = measured(box);
    CHECK(b.centroid.isApprox(Point(5.5, 7, 8.5), 1e-9));
    CHECK(b.size.isApprox(Point(1, 2, 3), 1e-9));
    CHECK_FALSE(b.smallest_inside_radius.has_value());

    const auto channel = shapes::lipped_channel(0.2, 4);
    CHECK(topology_of(channel).closed());
    CHECK(measured(channel).smallest_inside_radius.value() == 0);
    // Block 3 x 2 less slot 1 x 1, plus two lips 0.2 x 0.3, over 4.
    CHECK(measure(channel, topology_of(channel)).volume == Approx((6 - 1 + 2 * 0.06) * 4).epsilon(1e-9));
}

TEST_CASE("rims run with their faces on the left, longest first") {
    const auto tube = shapes::turned({{0.3, 0}, {0.2, 0.2}}, 64, false, false);
    const auto topology = topology_of(tube);
    const auto loops = rim_loops(tube, topology);
    REQUIRE(loops.size() == 2);
    CHECK(loop_length(tube, loops[0]) == Approx(2 * kPi * 0.3).epsilon(1e-3));
    CHECK(loop_length(tube, loops[1]) == Approx(2 * kPi * 0.2).epsilon(1e-3));
}

TEST_CASE("bends and tight corners of known bodies") {
    // A torus of ring 0.3, tube 0.1: round with 10 everywhere across the tube; hollow up to 1/0.2 inside.
    const auto torus = shapes::torus(0.3, 0.1, 160);
    const auto topology = topology_of(torus);
    const auto b = bends(torus, topology);
    CHECK(static_cast<double>(*std::max_element(b.hollow.begin(), b.hollow.end())) ==
          Approx(5).epsilon(0.02));
    for (std::size_t f = 0; f < b.round.size(); f += 997)
        CHECK(static_cast<double>(b.round[f]) == Approx(10).epsilon(0.02));
    CHECK(tight_corners(torus, topology, b, 0.19, true).length == 0);
    CHECK(tight_corners(torus, topology, b, 0.25, true).length > 0.1);
    // Its mould is hollow with the tube's radius all over.
    const auto in_mould = tight_corners(torus, topology, b, 0.11, false);
    CHECK(std::all_of(in_mould.faces.begin(), in_mould.faces.end(), [](char c) { return c != 0; }));
    CHECK(tight_corners(torus, topology, b, 0.09, false).length == 0);

    // A box has twelve edges; laid into its mould each wants a square corner filled: r²(1 − π/4) a metre.
    const auto box = shapes::box({0, 0, 0}, {1, 2, 3});
    const auto edges = topology_of(box);
    const auto bb = bends(box, edges);
    CHECK(tight_corners(box, edges, bb, 0.01, true).length == 0);
    const auto corners = tight_corners(box, edges, bb, 0.01, false);
    CHECK(corners.length == Approx(24));
    CHECK(corners.filler == Approx(24 * 1e-4 * (1 - kPi / 4)));
    // The lipped channel's hollows: floor's and roof's corners, two of each, along 4 m.
    const auto channel = shapes::lipped_channel(0.3, 4);
    const auto inner = topology_of(channel);
    CHECK(tight_corners(channel, inner, bends(channel, inner), 0.01, true).length == Approx(16));
}
