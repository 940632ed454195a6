// Smaller faces: nothing moves, neighbours stay joined.
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/refine.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

TEST_CASE("refined faces are small, closed, of the same area, and know their parents") {
    for (const auto& mesh :
         {shapes::box({0, 0, 0}, {1, 2, 3}), shapes::torus(0.3, 0.1, 24), shapes::lipped_channel(0.3, 4)}) {
        const double longest = 0.05 * bounds_of(mesh).diagonal();
        const auto fine = refined(mesh, longest, quiet);
        const auto topology = topology_of(fine.mesh);
        CHECK(topology.closed());
        CHECK(topology.turned_edges == 0);
        const auto a = measure(mesh, topology_of(mesh)), b = measure(fine.mesh, topology);
        CHECK(b.area == Approx(a.area).epsilon(1e-9));
        CHECK(b.volume == Approx(a.volume).epsilon(1e-9));
        std::vector<double> share(mesh.triangles.size(), 0);
        for (std::size_t f = 0; f < fine.mesh.triangles.size(); ++f) {
            for (int k = 0; k < 3; ++k)
                REQUIRE((fine.mesh.corner(f, k) - fine.mesh.corner(f, (k + 1) % 3)).norm() <= longest);
            share[fine.parent[f]] += fine.mesh.area_vector2(f).norm();
            // A child lies in its parent's plane, on the same side.
            CHECK(fine.mesh.area_vector2(f).normalized().dot(
                      mesh.area_vector2(fine.parent[f]).normalized()) == Approx(1));
        }
        for (std::size_t f = 0; f < share.size(); ++f) CHECK(share[f] == Approx(mesh.area_vector2(f).norm()));
    }
}

TEST_CASE("what is fine already stays, and what would grow without bound is refused") {
    const auto box = shapes::box({0, 0, 0}, {1, 1, 1});
    CHECK(refined(box, 2, quiet).mesh == box);
    CHECK_THROWS_AS(refined(box, 1e-5, quiet), InputError);
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(refined(box, 0.1, stopped), Cancelled);
}
