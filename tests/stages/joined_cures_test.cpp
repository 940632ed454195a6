// The cures of what is joined: a back on its shell, a part to its mate, and a part by itself after its pull.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/job/job.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/heat/life.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/stages/cure_runs.hpp"

using namespace jig;
using fixtures::bought;
using fixtures::call;
using fixtures::cure_of;
using fixtures::shop;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

std::vector<std::string> names_of(const Wall& wall) {
    std::vector<std::string> out;
    for (const auto& l : wall.layers) out.push_back(l.name);
    return out;
}

/// How far a layer of that name had come before the cure, and how far after, in that place.
std::pair<double, double> cured(const Wall& wall, const WallHistory& h, const std::string& name) {
    for (const auto& gel : h.gels) {
        if (wall.layers[gel.layer].name == name) return {wall.layers[gel.layer].cure, gel.cure};
    }
    FAIL(name << " does not react there");
    return {};
}

/// When all of a layer of that name has gelled.
double gelled(const Wall& wall, const WallHistory& h, const std::string& name) {
    for (const auto& gel : h.gels) {
        if (wall.layers[gel.layer].name == name && gel.all) return *gel.all;
    }
    FAIL(name << " has not gelled");
    return 0;
}

const heat::CurePlace& joint_of(const heat::CureRun& run) {
    for (const auto& p : run.places) {
        if (p.of == heat::kAtJoint) return p;
    }
    FAIL("nothing is joined there");
    return run.places.front();
}

Job hard_back() {
    auto job = small_job();
    job.back.joint.bond = Bond::hard;
    return job;
}

Job beaded() {
    auto job = small_job();
    job.part.joint.kind = JointKind::bead;
    return job;
}

double wait_of(const Findings& f, const std::string& what) {
    for (const auto& t : f.run->tasks) {
        if (t.name.find(what) != std::string::npos) return t.wait;
    }
    FAIL("nobody is to " << what);
    return 0;
}

}  // namespace

TEST_CASE("a back cures where it is joined: in paste, under tabs, under a skin, or not at all") {
    auto job = hard_back();
    auto f = worked_out(job);
    const auto& bond = need(shop().bonds, job.back.joint.paste, "test");
    const auto& hard = cure_of(f, CureOf::with_back);
    CHECK(hard.usual);
    // In the room for as long as its entry says, on the plug.
    CHECK(hard.seconds == Approx(bond.hardens).epsilon(0.02));
    CHECK(hard.wall.layers.front().name.find("plug") == 0);
    CHECK(hard.wall.layers.back().name == "shell, laminate");
    const auto& rib = joint_of(hard);
    CHECK(rib.name == "under a rib");
    CHECK(rib.wall.layers.size() == hard.wall.layers.size() + 1);
    CHECK(rib.wall.layers.back().name == bond.name);
    const double gap = job.back.joint.gap;
    // By hand: flanks, and two fins to each side of it, over the board's thickness.
    const auto& board = need(shop().boards, job.back.board, "test");
    double beside = 0;
    for (std::size_t i = 1; i < hard.wall.layers.size(); ++i)
        beside += hard.wall.layers[i].conductivity * hard.wall.layers[i].thickness;
    const double h = job.heat.transfer, t = board.thickness, k = board.conductivity;
    CHECK(rib.wall.layers.back().thickness == Approx(gap * t / (gap + t)));
    CHECK(*rib.wall.sides[1].transfer ==
          Approx((2 * h * gap + 2 * std::sqrt(h * beside) + std::sqrt(2 * h * k * t)) / t));
    // It warms itself a little: somewhat sooner than a thin bead's gel time.
    CHECK(gelled(rib.wall, rib.history, bond.name) < 1.02 * bond.gel_time);
    CHECK(gelled(rib.wall, rib.history, bond.name) > 0.5 * bond.gel_time);
    CHECK_FALSE(call(f, "runs_hot"));
    CHECK_FALSE(call(f, "plug_cooked"));
    CHECK(wait_of(f, "bond the back") == Approx(hard.seconds));

    job.back.joint.bond = Bond::soft;
    f = worked_out(job);
    const auto& tabs = cure_of(f, CureOf::with_back);
    CHECK(joint_of(tabs).wall.layers.back().name == "tab, laminate");
    CHECK(*joint_of(tabs).wall.sides[1].transfer == job.heat.transfer);
    CHECK(tabs.seconds == Approx(f.shell->resin.demould_time).epsilon(0.02));
    CHECK(wait_of(f, "bond the back") == Approx(tabs.seconds));

    job.back.joint.bond = Bond::floating;
    CHECK(worked_out(job).heat->cures->find(CureOf::with_back) == nullptr);
    job.back.kind = BackKind::none;
    CHECK(worked_out(job).heat->cures->find(CureOf::with_back) == nullptr);

    job.back.kind = BackKind::sandwich;
    f = worked_out(job);
    const auto skin = names_of(cure_of(f, CureOf::with_back).wall);
    CHECK(skin.back() == "inner skin, laminate");
    CHECK(skin[skin.size() - 2] == job.back.sandwich.core);

    job.back.kind = BackKind::foam_blocks;
    job.back.joint.bond = Bond::hard;
    f = worked_out(job);
    std::vector<std::string> places;
    for (const auto& p : cure_of(f, CureOf::with_back).places) places.push_back(p.name);
    CHECK(places == std::vector<std::string>{"under a block", "under the wrap"});
    job.back.kind = BackKind::tubes;
    f = worked_out(job);
    CHECK(joint_of(cure_of(f, CureOf::with_back)).name == "under a tube");
}

TEST_CASE("a long fin takes away what its formula says") {
    // k·t·θ'' = h·θ on a plate that is cooled on one face, 1 at its root, in small steps from a far end.
    const double h = 12, k = 0.4, t = 0.006, length = 0.3;
    constexpr int kSteps = 30000;
    const double dx = length / kSteps;
    double theta = 1e-9, slope = 0;
    for (int i = 0; i < kSteps; ++i) {
        slope += h / (k * t) * theta * dx;
        theta += slope * dx;
    }
    CHECK(k * t * slope / theta == Approx(std::sqrt(h * k * t)).epsilon(1e-3));
}

TEST_CASE("a mould that is cut has no shell that a back cures on") {
    auto job = hard_back();
    job.plug.route = Route::direct;
    const auto f = worked_out(job);
    REQUIRE(f.heat);
    CHECK(f.heat->cures->find(CureOf::with_back) == nullptr);
    CHECK(wait_of(f, "bond the back") == 16 * 3600.0);
}

TEST_CASE("the post-cure goes on from what the back's joint has come to, and counts its Tg") {
    auto job = hard_back();
    const auto f = worked_out(job);
    const auto& on = cure_of(f, CureOf::with_back);
    const auto& post = cure_of(f, CureOf::post_cure);
    const auto& name = job.back.joint.paste;
    const auto [fresh, stood] = cured(joint_of(on).wall, joint_of(on).history, name);
    CHECK(fresh == 0);
    const auto& rib = joint_of(post);
    CHECK(rib.name == "under a rib");
    const auto [from, to] = cured(rib.wall, rib.history, name);
    CHECK(from == Approx(stood));
    CHECK(to > from);
    // So has the shell, which stood as long.
    const auto [shell_from, shell_to] = cured(post.wall, post.cured.history, "shell, laminate");
    CHECK(shell_from == Approx(cured(on.wall, on.cured.history, "shell, laminate").second));
    CHECK(shell_to >= shell_from);
    REQUIRE(post.Tg_of(name));
    CHECK(*post.Tg_of(name) > *on.Tg_of(name));
    CHECK(*post.Tg <= *post.Tg_of(name));
    CHECK(f.heat->Tg == *post.Tg);
    // Softer than its post-cure, it lets go of the rib, which has its own call; the shell hangs on none of
    // it.
    CHECK(post.Tg_of(name) < post.highest_air);
    CHECK(call(f, "back_hot"));
    CHECK_FALSE(call(f, "sags"));
    // By DiBenedetto of the least of its cure, whichever place of it that is.
    const auto k = kinetics_of(need(shop().bonds, name, "test"));
    CHECK(*post.Tg_of(name) == Approx(k.glass->at(to)).margin(0.2));
}

TEST_CASE("what lies under and in a back that is bonded warm is judged by that heat") {
    auto job = hard_back();
    job.heat.with_back = {{kelvin(110), 20.0 / 3600, 4 * 3600}};
    const auto f = worked_out(job);
    const auto* back = call(f, "back_hot");
    REQUIRE(back != nullptr);
    CHECK(back->headline.find("the back is bonded on") != std::string::npos);
    const auto* plug = call(f, "plug_cooked");
    const auto& run = cure_of(f, CureOf::with_back);
    double under = run.cured.history.hottest.front().T;
    for (const auto& p : run.places) under = std::max(under, p.history.hottest.front().T);
    CHECK((plug != nullptr) == (under > f.plug->board.top_temperature + 0.5));
    CHECK(bought(f, Ledger::once, "oven, hours") ==
          Approx(run.seconds + cure_of(f, CureOf::post_cure).seconds));
}

TEST_CASE("parts that are joined cure with their adhesive: its clock, its heat and its goods") {
    auto job = beaded();
    auto f = worked_out(job);
    const auto& bond = need(shop().bonds, job.part.joint.adhesive, "test");
    const auto& run = cure_of(f, CureOf::joined);
    CHECK(run.free);
    CHECK(run.seconds == Approx(bond.hardens).epsilon(0.02));
    CHECK(gelled(run.wall, run.cured.history, bond.name) == Approx(bond.gel_time).epsilon(0.1));
    // Alike to both sides of the adhesive, without a core.
    const auto names = names_of(run.wall);
    REQUIRE(names.size() % 2 == 1);
    for (std::size_t i = 0; i < names.size(); ++i) CHECK(names[i] == names[names.size() - 1 - i]);
    CHECK(names[names.size() / 2] == bond.name);
    CHECK(run.wall.layers[names.size() / 2].thickness == Approx(job.part.joint.gap));
    CHECK(std::count(names.begin(), names.end(), "part, laminate") == 2);
    // They go on from the cure in the tool.
    CHECK(
        cured(run.wall, run.cured.history, "part, laminate").first ==
        Approx(cured(cure_of(f, CureOf::part).wall, cure_of(f, CureOf::part).cured.history, "part, laminate")
                   .second)
            .epsilon(0.02));
    CHECK(bought(f, Ledger::each, bond.name) == Approx(1.1 * f.part->joint.adhesive));
    CHECK(wait_of(f, "join the first part") == Approx(run.seconds));
    CHECK(value_of(f.heat->figures, "joint_Tg") == *run.Tg_of(bond.name));
    // Fresh adhesive is under no Tg to speak of: the clamps hold it, and nobody says that it sags.
    CHECK_FALSE(call(f, "sags"));

    // One that sets warm has the oven, and comes to more than it would in the room.
    job.part.joint.adhesive = "structural adhesive, warm cure";
    f = worked_out(job);
    const auto& warm = cure_of(f, CureOf::joined);
    CHECK(warm.highest_air == Approx(need(shop().bonds, job.part.joint.adhesive, "test").hardens_at));
    CHECK(bought(f, Ledger::each, "oven, hours") == Approx(warm.seconds));
    // In the room it has not gelled when the night is over, and the call knows for how long to hold it.
    job.heat.joined = {{job.heat.room, 0.01, 6 * 3600}};
    f = worked_out(job);
    const auto* raw = call(f, "not_gelled");
    REQUIRE(raw != nullptr);
    CHECK(raw->headline.find("warm cure") != std::string::npos);
    CHECK(raw->headline.find("parts joined") != std::string::npos);
    REQUIRE(raw->fix);
    auto json = job_to_json(job);
    json.merge_patch(raw->fix->patch);
    CHECK_FALSE(call(worked_out(job_from_json(json, "test")), "not_gelled"));

    job.part.joint.adhesive = "sticky stuff";
    CHECK_THROWS_WITH(heat::cure_joined(heat::conditions_of(job.heat), {}, {}, {{warm}}, job.brief, *f.shell,
                                        job.part, *f.part, shop(), quiet),
                      Catch::Contains("sticky stuff"));
    // What gives no gel time hardens by its own clock, not by ours.
    job.part.joint.adhesive = "elastic adhesive bead";
    f = worked_out(job);
    CHECK(f.heat->cures->find(CureOf::joined) == nullptr);
    CHECK(bought(f, Ledger::each, "elastic adhesive bead") == Approx(1.1 * f.part->joint.length));
    CHECK(wait_of(f, "join the first part") == need(shop().bonds, "elastic adhesive bead", "test").hardens);
}

TEST_CASE("a tool that is the jig warms with what is joined in it, before the pull") {
    auto job = beaded();
    job.brief.assembly_jig = true;
    job.heat.joined = {{job.brief.top_temperature + 12, 0.01, 4 * 3600}};
    const auto f = worked_out(job);
    const auto& run = cure_of(f, CureOf::joined);
    CHECK_FALSE(run.free);
    CHECK(run.wall.layers.front().name.find("tool") == 0);
    CHECK(run.wall.layers.back().name.find("tool") == 0);
    const auto* hot = call(f, "brief_heat");
    REQUIRE(hot != nullptr);
    std::size_t join = 0, pull = 0;
    for (std::size_t i = 0; i < f.run->tasks.size(); ++i) {
        if (f.run->tasks[i].name.find("join the first") != std::string::npos) join = i;
        if (f.run->tasks[i].name.find("pull and trim") != std::string::npos) pull = i;
    }
    CHECK(join < pull);
    job.brief.assembly_jig = false;
    CHECK_FALSE(call(worked_out(job), "brief_heat"));
}

TEST_CASE(
    "both resins of a joint are judged together: heat that the adhesive wants may be too much for the part") {
    auto job = beaded();
    job.heat.part = {{kelvin(22), 0.01, 30 * 3600}};
    job.part.joint.adhesive = "structural adhesive, warm cure";
    job.heat.joined = {{kelvin(95), 200.0 / 3600, 4 * 3600}};
    auto f = worked_out(job);
    const auto& run = cure_of(f, CureOf::joined);
    CHECK(run.over_Tg > 0);
    const auto* sags = call(f, "sags");
    REQUIRE(sags != nullptr);
    CHECK(sags->headline.find("the part") != std::string::npos);
    // Held in the tool meanwhile it may.
    job.brief.assembly_jig = true;
    CHECK_FALSE(call(worked_out(job), "sags"));
}

TEST_CASE("a part has a cure by itself where the maker gives it one, and its Tg is what that leaves") {
    auto job = small_job();
    job.heat.part = {{kelvin(25), 0.01, 24 * 3600}};
    auto f = worked_out(job);
    CHECK(f.heat->cures->find(CureOf::part_free) == nullptr);
    const double before = f.heat->part_Tg;
    job.heat.part_free = {{kelvin(50), 5.0 / 3600, 10 * 3600}};
    f = worked_out(job);
    const auto& run = cure_of(f, CureOf::part_free);
    CHECK(run.free);
    CHECK(f.heat->part_Tg == *run.Tg);
    CHECK(f.heat->part_Tg > before + 5);
    CHECK(bought(f, Ledger::each, "oven, hours") == Approx(run.seconds));
    CHECK(wait_of(f, "post-cure the first part") == Approx(run.seconds));
    // Too hot too soon it sags; the rate that is offered, where one serves, does not.
    bool mended = false;
    for (const double to : {45.0, 50.0, 55.0, 60.0, 65.0, 75.0}) {
        job.heat.part_free = {{kelvin(to), 200.0 / 3600, 4 * 3600}};
        f = worked_out(job);
        const auto* sags = call(f, "sags");
        CHECK((sags != nullptr || to < 70));
        if (sags == nullptr || !sags->fix) continue;
        auto json = job_to_json(job);
        json.merge_patch(sags->fix->patch);
        CHECK_FALSE(call(worked_out(job_from_json(json, "test")), "sags"));
        mended = true;
    }
    CHECK(mended);
    // With its joint, where it has one, at the place that says so.
    auto both = beaded();
    both.heat.part_free = {{kelvin(50), 5.0 / 3600, 10 * 3600}};
    f = worked_out(both);
    const auto& free = cure_of(f, CureOf::part_free);
    const auto at = std::find_if(free.places.begin(), free.places.end(),
                                 [](const heat::CurePlace& p) { return p.of == heat::kAtJoint; });
    REQUIRE(at != free.places.end());
    const auto& joined = cure_of(f, CureOf::joined);
    CHECK(cured(at->wall, at->history, both.part.joint.adhesive).first ==
          Approx(cured(joined.wall, joined.cured.history, both.part.joint.adhesive).second));
    CHECK(value_of(f.heat->figures, "joint_Tg") == *free.Tg_of(both.part.joint.adhesive));
}
