#include <catch2/catch.hpp>

#include "core/base/slate.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/back/trial.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::small_job;
using fixtures::worked_out;

TEST_CASE("all demo jobs are worked out whole and stop nowhere") {
    for (const char* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        INFO(name);
        const auto f = worked_out(fixtures::demo(name), Depth::fine);
        REQUIRE(f.trial);
        CHECK(f.trial->fine);
        CHECK(f.complete());
        for (const auto& c : f.calls) {
            INFO(c.headline);
            CHECK(c.severity != Severity::stop);
            CHECK_FALSE(c.why.empty());
        }
        for (std::size_t s = 0; s < kStages.size(); ++s) {
            CHECK_FALSE(f.figures(static_cast<Stage>(s)).empty());
            for (const auto& figure : f.figures(static_cast<Stage>(s))) {
                INFO(figure.key);
                CHECK(std::isfinite(figure.value));
                CHECK_FALSE(figure.reason.empty());
            }
            CHECK_FALSE(card_line(fixtures::demo(name), f, static_cast<Stage>(s), {}).empty());
        }
    }
}

namespace {

Findings worked_on(JobBoard& board, const Job& job, Depth depth = Depth::stages) {
    return board.work_out(board.lay(job, fixtures::shared_shop()), depth, quiet);
}

}  // namespace

TEST_CASE("an edit renews what reads it and nothing else") {
    JobBoard board;
    const auto job = small_job();
    const auto before = worked_on(board, job);
    auto next = job;
    next.shell.layers.push_back({LayerKind::ply, "glass cloth 600 twill", 0, 0});
    auto f = worked_on(board, next);
    CHECK(f.shape == before.shape);
    CHECK(f.split == before.split);
    CHECK(f.plug == before.plug);
    CHECK(f.edge == before.edge);
    CHECK(f.part == before.part);
    CHECK(f.shell != before.shell);
    CHECK(f.back != before.back);
    CHECK(f.run != before.run);
    next = job;
    next.brief.customer = "somebody else";
    f = worked_on(board, next);
    CHECK(f.brief == before.brief);
    CHECK(f.run == before.run);
    // One more pull is counted, and cuts no plug anew.
    next = job;
    next.brief.pulls += 1;
    f = worked_on(board, next);
    CHECK(f.brief != before.brief);
    CHECK(f.run != before.run);
    CHECK(f.split == before.split);
    CHECK(f.plug == before.plug);
    CHECK(f.shell == before.shell);
    next = job;
    next.shape.tray.depth += 0.01;
    CHECK(worked_on(board, next).split != before.split);
}

TEST_CASE("a choice that decides nothing stops at the stage that reads it") {
    JobBoard board;
    auto job = small_job();
    const auto before = worked_on(board, job);
    // A foil's chord is none of a tray's business, the heat of an envelope none of a bare plug's, and a pitch
    // none of a shell's without doublers under the ribs.
    job.shape.foil.thickness *= 1.1;
    auto f = worked_on(board, job);
    CHECK(f.split == before.split);
    CHECK(f.run == before.run);
    job.heat.shell_gel = kelvin(31);
    f = worked_on(board, job);
    CHECK(f.plug == before.plug);
    CHECK(f.edge == before.edge);
    job.back.pitch *= 0.9;
    CHECK(worked_on(board, job).shell == f.shell);
    job.plug.in_envelope = true;
    const auto bagged = worked_on(board, job);
    job.heat.shell_gel = kelvin(40);
    CHECK(worked_on(board, job).plug != bagged.plug);
    auto& zone = job.shell.zones.emplace_back();
    zone.kind = ZoneKind::under_ribs;
    zone.layers = {{LayerKind::ply, "glass cloth 600 twill", 0, 0}};
    const auto doubled = worked_on(board, job);
    job.back.pitch *= 0.8;
    CHECK(worked_on(board, job).shell != doubled.shell);
}

TEST_CASE("undo is answered from what is remembered, and steps of a drag do not push it out") {
    JobBoard board;
    const auto job = small_job();
    const auto before = worked_on(board, job, Depth::quick);
    REQUIRE(before.trial);
    auto next = job;
    for (int i = 1; i <= 40; ++i) {
        next.shape.tray.depth = job.shape.tray.depth + 0.0005 * i;
        board.work_out(board.lay(next, fixtures::shared_shop(), true), Depth::stages, quiet);
    }
    const auto moved = worked_on(board, next);
    CHECK(moved.shape != before.shape);
    std::vector<Ran> ran;
    const auto back = board.work_out(board.lay(job, fixtures::shared_shop()), Depth::quick, quiet, 0, &ran);
    CHECK(ran.empty());
    CHECK(back.shape == before.shape);
    CHECK(back.trial == before.trial);
    CHECK(findings_to_json(back) == findings_to_json(before));
}

TEST_CASE("one core and two find the same") {
    const auto job = small_job();
    JobBoard one, two;
    const auto a = one.work_out(one.lay(job, fixtures::shared_shop()), Depth::quick, quiet, 1);
    const auto b = two.work_out(two.lay(job, fixtures::shared_shop()), Depth::quick, quiet, 2);
    CHECK(findings_to_json(a) == findings_to_json(b));
}

TEST_CASE("what was finished before a stop is kept") {
    JobBoard board;
    const auto job = small_job();
    const auto sheet = board.lay(job, fixtures::shared_shop());
    // Stopped as soon as the shape is done: the search for a pull reports next.
    Progress progress([&](double, std::string_view doing) {
        if (doing.find("pull") != std::string_view::npos) throw Cancelled{};
    });
    CHECK_THROWS_AS(board.work_out(sheet, Depth::stages, progress, 1), Cancelled);
    std::vector<Ran> again, fresh;
    board.work_out(sheet, Depth::stages, quiet, 1, &again);
    JobBoard other;
    other.work_out(other.lay(job, fixtures::shared_shop()), Depth::stages, quiet, 1, &fresh);
    CHECK(again.size() < fresh.size());
}

TEST_CASE("a tool that cannot stand is a stop, whoever asks, and shows no older figures") {
    auto job = small_job();
    JobBoard board;
    CHECK(worked_on(board, job, Depth::quick).trial);
    job.back.kind = BackKind::tubes;
    job.back.across = false;  // no crossing bears the tool
    const auto f = worked_on(board, job, Depth::fine);
    CHECK_FALSE(f.trial);
    REQUIRE(call(f, "input") != nullptr);
    CHECK(call(f, "input")->stage == Stage::back);
    CHECK(call(f, "input")->severity == Severity::stop);
    for (const auto& figure : f.figures(Stage::back)) CHECK(figure.key != "tips");
}

TEST_CASE("a fault in one stage becomes a stop and leaves the others standing") {
    auto job = small_job();
    job.shell.resin = "moonshine";
    auto f = worked_out(job);
    CHECK_FALSE(f.shell);
    CHECK_FALSE(f.run);
    CHECK(f.plug);
    CHECK(f.part);
    REQUIRE(call(f, "input") != nullptr);
    CHECK(call(f, "input")->stage == Stage::shell);
    CHECK_THAT(call(f, "input")->headline, Catch::Contains("moonshine"));
    job = small_job();
    job.shape.tray.edge_radius = 0.5;
    job.shape.tray.depth = 1;
    f = worked_out(job);
    CHECK_FALSE(f.shape);
    CHECK(f.brief);
    CHECK(call(f, "input")->stage == Stage::shape);
}

TEST_CASE("a mesh of the maker's own goes the whole way") {
    auto job = small_job();
    const auto body = shapes::frustum(0.3, 0.2, radians(5), 90);
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "frustum.stl";
    job.attachments = {{"frustum.stl", std::make_shared<const std::string>(write_stl_binary(body))}};
    const auto f = worked_out(job);
    REQUIRE(f.complete());
    // The foot stays open: wall and top are moulded, nothing locks, the rim is the foot's circle.
    const double top = 0.3 - 0.2 * std::tan(radians(5));
    const double wall = kPi * (0.3 + top) * std::hypot(0.2, 0.3 - top);
    CHECK(f.split->moulded_area == Approx(wall + kPi * top * top).epsilon(2e-3));
    CHECK(f.split->map.locks == Approx(0).margin(1e-9));
    CHECK(perimeter(f.split->rim) == Approx(2 * kPi * 0.3).epsilon(2e-3));
    CHECK(f.edge->area == Approx(kPi * (std::pow(0.3 + job.edge.width(), 2) - 0.09)).epsilon(5e-3));
    job.attachments.clear();
    CHECK_THAT(call(worked_out(job), "input")->headline, Catch::Contains("no mesh file"));
}

TEST_CASE("cancelling leaves at once") {
    Progress progress;
    progress.stop();
    CHECK_THROWS_AS(evaluate(small_job(), fixtures::shop(), progress), Cancelled);
}

TEST_CASE("every fix that a call offers is a job, and mends its call") {
    auto job = small_job();
    job.plug.board = "PU foam 35, 50 mm";
    job.plug.barrier = Barrier::none;
    job.edge.tape_land = 0.012;
    job.edge.trim = 0.002;
    job.release.system = "paste wax";
    job.brief.top_temperature = kelvin(95);
    job.back.bag = BagKind::envelope;
    job.back.pitch = 0.6;
    job.part.how = LayUp::hand;
    job.shell.layers = {{LayerKind::surface_coat, "epoxy surface coat", 0, 0},
                        {LayerKind::ply, "glass cloth 600 twill", 0, 0}};
    const auto f = worked_out(job);
    int fixes = 0;
    for (const auto& c : f.calls) {
        if (!c.fix) continue;
        ++fixes;
        INFO(c.key);
        const auto mended = patched(job, c.fix->patch);
        CHECK_FALSE(mended == job);
        const auto after = worked_out(mended);
        const auto* still = call(after, c.key);
        CHECK((still == nullptr || still->headline != c.headline));
    }
    for (const char* key :
         {"porous", "tape_land", "trim", "too_hot", "envelope", "person", "process", "print_through"}) {
        INFO(key);
        CHECK(call(f, key) != nullptr);
    }
    CHECK(fixes >= 8);
}
