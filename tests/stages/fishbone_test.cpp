// One hose with lines to both sides.
#include <catch2/catch.hpp>

#include "core/stages/bag/flow.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::worked_out;

namespace {

constexpr double kCell = 0.01;

bag::Port bones(int n, double reach) {
    bag::Port p;
    p.kind = PortKind::fishbone;
    p.along = -0.4;
    p.to_along = 0.4;
    p.bones = n;
    p.reach = reach;
    return p;
}

/// A plate 1 m × 0.6 m, its middle at the origin, turned.
TriangleMesh plate_turned(const Eigen::Matrix3d& turn) {
    auto out = shapes::plate(1, 0.6, 100, 60);
    for (auto& p : out.points) p = turn * (p - Point(0.5, 0.3, 0));
    return out;
}

}  // namespace

TEST_CASE("a fishbone's lines lie square to its spine, evenly, and count as spiral line") {
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), shapes::odd_rotation()}) {
        const auto mesh = plate_turned(turn);
        const Frame frame{turn.col(0), turn.col(1), turn.col(2)};
        const bag::FlowGround ground(mesh, frame);
        const auto one = bag::placed({bones(3, 0.2)}, ground).front();
        REQUIRE(one.ways.size() == 7);
        // 0.8 m and six of 0.2 m.
        CHECK(one.length == Approx(2.0).margin(3 * kCell));
        for (std::size_t k = 1; k < one.ways.size(); ++k) {
            const auto root = ground.seen(one.ways[k].front()), tip = ground.seen(one.ways[k].back());
            CHECK(std::abs(root.y()) < 1.01 * kCell);
            CHECK(std::abs(tip.y()) == Approx(0.2).margin(1.01 * kCell));
            CHECK(tip.x() == Approx(root.x()).margin(1.01 * kCell));
            // A sixth, a half and five sixths of the way along.
            const double along = -0.4 + 0.8 * (2 * static_cast<double>((k - 1) % 3) + 1) / 6;
            CHECK(root.x() == Approx(along).margin(1.01 * kCell));
        }
        // Each point once, and every way's among them.
        auto sorted = one.points;
        std::sort(sorted.begin(), sorted.end());
        CHECK(std::adjacent_find(sorted.begin(), sorted.end()) == sorted.end());
        for (const auto& way : one.ways) {
            for (const auto i : way) CHECK(std::binary_search(sorted.begin(), sorted.end(), i));
        }
        // What would reach beyond the face ends at its rim.
        const auto wide = bag::placed({bones(2, 5)}, ground).front();
        CHECK(wide.length == Approx(0.8 + 4 * 0.3).margin(3 * kCell));
        // Without side lines it is the line.
        auto line = bones(0, 0.2);
        const auto bare = bag::placed({line}, ground).front();
        line.kind = PortKind::line;
        const auto plain = bag::placed({line}, ground).front();
        CHECK(bare.points == plain.points);
        CHECK(bare.length == plain.length);
    }
    CHECK_FALSE(bag::mirrored(bones(3, 0.2)));
    // A spine of no length has no side.
    auto none = bones(3, 0.2);
    none.to_along = none.along;
    const auto mesh = plate_turned(Eigen::Matrix3d::Identity());
    const bag::FlowGround ground(mesh, fixtures::kLevel);
    CHECK(bag::placed({none}, ground).front().ways.size() == 1);
}

TEST_CASE("a fishbone fills a wide tray sooner than its spine alone, through one hose") {
    auto job = fixtures::small_job();
    job.part.how = LayUp::infused;
    job.part.resin = "epoxy, infusion";
    for (auto& l : job.part.layers) l.cut.hole = 0.003;
    job.bag.infusion.medium = false;
    // Else the one hose is what it waits for.
    job.bag.infusion.hose = 0;
    job.bag.infusion.plan = InfusionPlan::spine;
    const auto spine = worked_out(job);
    job.bag.infusion.plan = InfusionPlan::fishbone;
    job.bag.infusion.lines = 3;
    const auto fish = worked_out(job);
    REQUIRE(spine.flow);
    REQUIRE(fish.flow);
    REQUIRE(fish.flow->ports.size() == 2);
    CHECK(fish.flow->filling.feeds.size() == 1);
    CHECK(fish.flow->line() > spine.flow->line());
    REQUIRE(fish.flow->filling.fill);
    if (spine.flow->filling.fill) CHECK(*fish.flow->filling.fill < *spine.flow->filling.fill);
    CHECK(fish.flow->filling.taken ==
          Approx(fish.flow->filling.held + fish.flow->filling.bled).epsilon(1e-6));
    // Taken as the maker's own it is the same, and goes through a file.
    auto own = job;
    own.bag.infusion = bag::with_own_ports(own.bag.infusion, *fish.flow);
    CHECK(own.bag.infusion.ports.front().bones == 3);
    own = job_from_json(job_to_json(own), "test");
    const auto again = worked_out(own);
    REQUIRE(again.flow);
    CHECK(again.flow->filling.fill == fish.flow->filling.fill);
}
