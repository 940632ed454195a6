// Builds of a part: kept and taken over again, set side by side, and one in another cloth that is as stiff.
#include <catch2/catch.hpp>

#include <set>
#include "core/base/slate.hpp"
#include "core/job/builds.hpp"
#include "core/job/job_file.hpp"
#include "core/stages/part/as_stiff.hpp"
#include "core/stages/part/trial.hpp"

#include "tests/job/fixtures.hpp"

using namespace jig;
using namespace fixtures;
using part::Build;

namespace {

Layer ply(const std::string& cloth, double angle = 0) {
    Layer l;
    l.material = cloth;
    l.angle = angle;
    return l;
}

Layer core(const std::string& name) {
    Layer l;
    l.kind = LayerKind::core;
    l.material = name;
    return l;
}

Build build_with(std::vector<Layer> layers) {
    Build b;
    b.name = "it";
    b.resin = "epoxy, room temperature slow";
    b.layers = std::move(layers);
    return b;
}

/// The smaller of D*11 and D*22, N·m.
double stiffness(const Build& b) {
    const auto sum = sum_stack(b.layers, need(shop().resins, b.resin, "test"), b.how, shop(), "test");
    return std::min(sum.laminate.D_free(0, 0), sum.laminate.D_free(1, 1));
}

}  // namespace

TEST_CASE("a build that is kept makes the same part again, and leaves the rest alone") {
    const auto job = demo("pavilion-petal");
    auto b = part::build_of(job.part, "now");
    CHECK(part::is_made_as(job.part, b));
    auto other = job.part;
    other.resin = "polyester, general";
    other.layers.resize(1);
    other.zones.clear();
    other.target_mass = 3;
    CHECK_FALSE(part::is_made_as(other, b));
    const auto back = part::made_as(other, b);
    CHECK(part::is_made_as(back, b));
    CHECK(back.target_mass == 3);
    CHECK(back.duty == job.part.duty);
    CHECK(back.builds == job.part.builds);
    // Another name is the same build still.
    b.name = "glass";
    CHECK(part::is_made_as(job.part, b));
    CHECK(part::in_short(build_with({ply("glass cloth 200 plain")})) ==
          "1 ply in epoxy, room temperature slow, by hand under a bag");
}

TEST_CASE("builds are kept under names of their own, eight at most, none without a layer") {
    std::vector<Build> kept;
    const auto one = build_with({ply("glass cloth 200 plain")});
    part::keep(kept, one);
    CHECK(kept.back().name == "it");
    part::keep(kept, one);
    CHECK(kept.back().name == "build A");
    auto nameless = one;
    nameless.name.clear();
    part::keep(kept, nameless);
    CHECK(kept.back().name == "build B");
    CHECK_THROWS_AS(part::keep(kept, build_with({})), InputError);
    while (kept.size() < part::kMostBuilds) part::keep(kept, one);
    CHECK_THROWS_AS(part::keep(kept, one), InputError);
    std::set<std::string> names;
    for (const auto& b : kept) names.insert(b.name);
    CHECK(names.size() == part::kMostBuilds);
    auto job = demo("radar-dome");
    job.part.builds.assign(part::kMostBuilds + 1, one);
    JobBoard board;
    CHECK_THROWS_AS(builds_side_by_side(board, job, shared_shop(), quiet), InputError);
}

TEST_CASE("as stiff: the plies that were there come back, one fewer would bend more") {
    for (const char* cloth : {"carbon cloth 200 twill", "glass cloth 390 twill", "glass mat 450"}) {
        for (const bool cored : {false, true}) {
            INFO(cloth << (cored ? ", cored" : ""));
            std::vector<Layer> layers{ply(cloth), ply(cloth, kPi / 4), ply(cloth)};
            if (cored) layers.push_back(core("PVC foam 75, 5 mm"));
            layers.insert(layers.end(), {ply(cloth), ply(cloth, kPi / 4), ply(cloth)});
            const auto like = build_with(layers);
            const auto found = part::as_stiff(like, cloth, shop());
            CHECK(found.wanted == Approx(stiffness(like)));
            CHECK(found.found >= found.wanted);
            CHECK(found.found == Approx(stiffness(found.build)));
            CHECK(found.plies == 6);
            CHECK(found.build.name == "as stiff as it");
            // What is cored keeps its core, half the plies on either side.
            const auto at = std::find_if(found.build.layers.begin(), found.build.layers.end(),
                                         [](const Layer& l) { return l.kind == LayerKind::core; });
            CHECK((at != found.build.layers.end()) == cored);
            if (cored) CHECK(at - found.build.layers.begin() == 3);
        }
    }
}

TEST_CASE("as stiff in solid plies of one kind: their count goes with the cube root of the stiffness") {
    // Isotropic mat: D = E·h³/12(1 − ν²), and a mat twice as heavy is twice as thick.
    std::vector<Layer> layers(12, ply("glass mat 300"));
    const auto like = build_with(layers);
    const auto found = part::as_stiff(like, "glass mat 600", shop());
    CHECK(found.plies == 6);
    CHECK(found.stack.laminate.thickness ==
          Approx(sum_stack(layers, need(shop().resins, like.resin, "test"), like.how, shop(), "test")
                     .laminate.thickness)
              .epsilon(0.02));
    // Carbon for glass: E goes up, thickness by its cube root down, and so does the mass.
    const auto glass = build_with(std::vector<Layer>(10, ply("glass cloth 300 twill")));
    const auto carbon = part::as_stiff(glass, "carbon cloth 200 twill", shop());
    const auto of_glass =
        sum_stack(glass.layers, need(shop().resins, glass.resin, "test"), glass.how, shop(), "test");
    CHECK(carbon.stack.areal_mass() < 0.75 * of_glass.areal_mass());
    CHECK(carbon.stack.laminate.thickness < of_glass.laminate.thickness);
    const auto before = [&](int plies) {
        std::vector<Layer> fewer;
        for (int i = 0; i < plies; ++i) fewer.push_back(carbon.build.layers[static_cast<std::size_t>(i)]);
        return stiffness(build_with(fewer));
    };
    CHECK(before(carbon.plies - 1) < carbon.wanted);
}

TEST_CASE("what cannot be as stiff says so") {
    const auto like =
        build_with({ply("glass cloth 200 plain"), core("PVC foam 75, 5 mm"), ply("glass cloth 200 plain")});
    CHECK_THROWS_AS(part::as_stiff(build_with({}), "glass mat 300", shop()), InputError);
    CHECK_THROWS_AS(part::as_stiff(like, "paper", shop()), InputError);
    auto thick = build_with(std::vector<Layer>(90, ply("glass mat 600")));
    CHECK_THROWS_AS(part::as_stiff(thick, "glass tissue 30", shop()), InputError);
    // A core alone is bent by less than one ply.
    CHECK(part::as_stiff(build_with({core("PVC foam 75, 5 mm")}), "glass mat 300", shop()).plies == 1);
}

TEST_CASE("builds side by side are what the job is when it is made so") {
    auto job = demo("pavilion-petal");
    JobBoard board;
    const auto plans = builds_side_by_side(board, job, shared_shop(), quiet);
    REQUIRE(plans.size() == job.part.builds.size());
    int now = 0;
    for (std::size_t i = 0; i < plans.size(); ++i) {
        const auto& plan = plans[i];
        INFO(plan.build.name);
        now += plan.now ? 1 : 0;
        CHECK(plan.obstacle.empty());
        CHECK(plan.untried.empty());
        auto made = job;
        made.part = part::made_as(job.part, job.part.builds[i]);
        const auto f = worked_out(made, Depth::quick);
        REQUIRE(f.run);
        CHECK(value_of(plan.sums, "mass") == Approx(f.part->mass));
        CHECK(value_of(plan.sums, "cost") == Approx(f.run->ledgers[0].total()));
        CHECK(value_of(plan.sums, "hours") == Approx(f.run->ledgers[0].hours * 3600));
        CHECK(value_of(plan.sums, "days") == Approx(f.run->plan.days));
        CHECK(value_of(plan.sums, "size") == Approx(f.heat->part_error));
        REQUIRE(f.part_trial);
        double gives = 0;
        for (const auto& load : f.part_trial->loads) gives = std::max(gives, load.moves);
        CHECK(value_of(plan.sums, "gives") == Approx(gives));
    }
    CHECK(now == 1);
    // By hand: 15 mm of foam between carbon is lighter and bends less; 8 plies of glass are heavier.
    CHECK(value_of(plans[1].sums, "gives") < value_of(plans[0].sums, "gives"));
    CHECK(value_of(plans[1].sums, "mass") < value_of(plans[0].sums, "mass"));
    CHECK(value_of(plans[2].sums, "mass") > value_of(plans[0].sums, "mass"));
    // Changed, the part stands before those that are kept; without a load nothing is said of bending.
    job.part.layers.pop_back();
    job.part.duty.loads.clear();
    job.part.builds.resize(1);
    const auto two = builds_side_by_side(board, job, shared_shop(), quiet);
    REQUIRE(two.size() == 2);
    CHECK(two[0].now);
    CHECK(two[0].build.name == "as it is now");
    CHECK_FALSE(two[1].now);
    CHECK(value_of(two[0].sums, "gives") == 0);
    CHECK(two[0].untried.empty());
}

TEST_CASE("a build that cannot be made says why, and stands beside the others") {
    auto job = demo("radar-dome");
    auto bad = part::build_of(job.part, "bad");
    bad.resin = "no such resin";
    job.part.builds = {bad};
    JobBoard board;
    const auto plans = builds_side_by_side(board, job, shared_shop(), quiet);
    REQUIRE(plans.size() == 2);
    CHECK(plans[0].obstacle.empty());
    CHECK(plans[0].sums.size() > 5);
    CHECK(plans[1].sums.empty());
    CHECK(plans[1].obstacle.find("no such resin") != std::string::npos);
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(builds_side_by_side(board, job, shared_shop(), stopped), Cancelled);
}

TEST_CASE("kept builds come back from a file, and change nothing that is worked out") {
    const Folder folder;
    auto job = demo("radar-dome");
    const auto before = worked_out(job);
    part::keep(job.part.builds, part::build_of(job.part, "wet, by hand"));
    job.part.builds.back().how = LayUp::hand;
    save_job(job, folder / "kept.jigshell");
    const auto back = load_job(folder / "kept.jigshell");
    CHECK(back.part.builds == job.part.builds);
    const auto after = worked_out(back);
    CHECK(after.part->mass == before.part->mass);
    CHECK(after.calls.size() == before.calls.size());
    JobBoard board;
    board.work_out(board.lay(demo("radar-dome"), shared_shop()), Depth::stages, quiet);
    std::vector<Ran> ran;
    board.work_out(board.lay(back, shared_shop()), Depth::stages, quiet, 1, &ran);
    // Only what reads the part's own choices runs again, and what comes of it is the same.
    CHECK(ran.size() < 20);
}
