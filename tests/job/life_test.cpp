// Which cures are gone through again when one thing of Heat changes, and that they come out as worked out
// afresh.
#include <catch2/catch.hpp>

#include <set>

#include "core/job/graph.hpp"
#include "core/stages/part/goes.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using namespace fixtures;

namespace {

/// Every cure that there is: a back bonded hard, a part in three goes that is joined and warmed by itself.
Job every_cure() {
    auto job = coarse("radar-dome", 0.06);
    job.back.kind = BackKind::egg_crate;
    job.back.joint.bond = Bond::hard;
    job.part.how = LayUp::hand;
    job.part.layers = part::one_by_one(job.part.layers);
    job.part.joint.kind = JointKind::bead;
    job.heat.part_free = {{333.15, 10.0 / 3600, 6 * 3600}};
    return job;
}

const std::vector<std::pair<std::size_t, std::string>>& watched() {
    static const std::vector<std::pair<std::size_t, std::string>> all{
        {JobGraph::slot<heat::ShellGo>(), "shell_go"},
        {JobGraph::slot<heat::PartGo>(), "part_go"},
        {JobGraph::slot<heat::CuredOnPlug>(), "on_plug"},
        {JobGraph::slot<heat::CuredWithBack>(), "with_back"},
        {JobGraph::slot<heat::CuredStanding>(), "post_cure"},
        {JobGraph::slot<heat::CuredInTool>(), "in_tool"},
        {JobGraph::slot<heat::CuredJoined>(), "joined"},
        {JobGraph::slot<heat::CuredFree>(), "part_free"}};
    return all;
}

/// What of the cures an edit has run anew; the findings are held against those worked out afresh.
std::set<std::string> run_anew(JobBoard& board, const Job& job) {
    std::vector<Ran> ran;
    const auto kept = board.work_out(board.lay(job, shared_shop()), Depth::stages, quiet, 1, &ran);
    CHECK(findings_to_json(kept) == findings_to_json(evaluate(job, shop(), quiet, Depth::stages)));
    std::set<std::string> out;
    for (const auto& r : ran) {
        for (const auto& [slot, name] : watched()) {
            if (r.slot == slot) out.insert(name);
        }
    }
    return out;
}

}  // namespace

TEST_CASE("a programme that changes is gone through again with what comes after it, and nothing else") {
    const auto job = every_cure();
    JobBoard board;
    using Names = std::set<std::string>;
    const auto first = run_anew(board, job);
    CHECK(first.size() == watched().size());
    const auto f = board.work_out(board.lay(job, shared_shop()), Depth::stages, quiet);
    REQUIRE(f.heat);
    std::vector<CureOf> there;
    for (const auto& run : f.heat->cures->runs) there.push_back(run.of);
    CHECK(there == std::vector{CureOf::on_plug, CureOf::with_back, CureOf::post_cure, CureOf::part_first,
                               CureOf::part_next, CureOf::part, CureOf::joined, CureOf::part_free});
    const std::vector<heat::Leg> own{{321.15, 0.004, 40000}};
    const auto changed = [&](auto&& change) {
        auto next = job;
        change(next);
        return run_anew(board, next);
    };
    CHECK(changed([&](Job& j) { j.heat.on_plug = own; }) == Names{"on_plug", "with_back", "post_cure"});
    CHECK(changed([&](Job& j) { j.heat.with_back = own; }) == Names{"with_back", "post_cure"});
    CHECK(changed([&](Job& j) { j.heat.post_cure = own; }) == Names{"post_cure"});
    for (const auto of : {CureOf::part_first, CureOf::part_next, CureOf::part})
        CHECK(changed([&](Job& j) { heat::legs_in(j.heat, of) = own; }) ==
              Names{"in_tool", "joined", "part_free"});
    CHECK(changed([&](Job& j) { j.heat.joined = own; }) == Names{"joined", "part_free"});
    CHECK(changed([&](Job& j) { j.heat.part_free = own; }) == Names{"part_free"});
    // What is only judged or shown runs none.
    CHECK(changed([](Job& j) { j.heat.Tg_margin += 2; }).empty());
    CHECK(changed([](Job& j) { j.heat.corner += 0.1; }).empty());
    CHECK(changed([](Job& j) { j.heat.stands = OnStand::folds; }).empty());
    CHECK(changed([](Job& j) { j.heat.climbs *= 1.1; }).empty());
    CHECK(changed([](Job& j) { j.heat.oven.power += 3000; }).empty());
    // How thick a day's plies may be is the shell's, and so is what that leaves of its cures.
    CHECK(changed([](Job& j) { j.heat.runs_past += 2; }).count("part_free") == 0);
    // Only the part's adhesive: its shell has nothing to do with it.
    CHECK(changed([](Job& j) { j.part.joint.gap *= 1.5; }).count("on_plug") == 0);
    // What warms all of them does run all.
    CHECK(changed([](Job& j) { j.heat.transfer = 15; }).size() == watched().size());
    CHECK(changed([](Job& j) { j.heat.oven.map = {{0.1, 0.5, 0.5, -4}, {0.9, 0.5, 0.5, 3}}; }).size() == 6);
}

TEST_CASE("what several cures lack is said once") {
    auto job = every_cure();
    auto own = std::make_shared<Shop>(shop());
    std::erase_if(own->rates, [](const Rate& r) { return r.name == "post-cure ramp"; });
    const auto f = evaluate(job, *own, quiet, Depth::stages);
    CHECK_FALSE(f.heat);
    int said = 0;
    for (const auto& c : f.calls) said += c.headline.find("post-cure ramp") != std::string::npos;
    CHECK(said == 1);
    // A map that was read in a cold oven stops the cures in a line, and nothing before them.
    job.heat.oven.map = {{0.1, 0.5, 0.5, -4}};
    job.heat.oven.mapped_at = job.heat.room + 1;
    const auto cold = worked_out(job);
    CHECK_FALSE(cold.heat);
    CHECK(cold.part);
    const auto* stop = call(cold, "input");
    REQUIRE(stop != nullptr);
    CHECK(stop->stage == Stage::heat);
    CHECK(stop->headline.find("hardly warmer") != std::string::npos);
}
