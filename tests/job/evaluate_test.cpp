#include <catch2/catch.hpp>

#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::small_job;
using fixtures::worked_out;

TEST_CASE("all demo jobs are worked out whole and stop nowhere") {
    for (const char* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        INFO(name);
        const auto f = worked_out(fixtures::demo(name));
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

TEST_CASE("an edit renews what reads it and nothing else") {
    const auto job = small_job();
    const Evaluated before{job, worked_out(job)};
    auto next = job;
    next.shell.layers.push_back({LayerKind::ply, "glass cloth 600 twill", 0, 0});
    auto f = worked_out(next, &before);
    CHECK(f.shape == before.findings.shape);
    CHECK(f.split == before.findings.split);
    CHECK(f.plug == before.findings.plug);
    CHECK(f.part == before.findings.part);
    CHECK(f.shell != before.findings.shell);
    CHECK(f.back != before.findings.back);
    CHECK(f.run != before.findings.run);
    next = job;
    next.brief.customer = "somebody else";
    f = worked_out(next, &before);
    CHECK(f.run == before.findings.run);
    next = job;
    next.shape.tray.depth += 0.01;
    CHECK(worked_out(next, &before).split != before.findings.split);
    // What is taken over is what a fresh run finds.
    next.brief.pulls += 5;
    const auto fresh = worked_out(next), kept = worked_out(next, &before);
    CHECK(findings_to_json(fresh) == findings_to_json(kept));
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
    CHECK_THROWS_AS(evaluate(small_job(), fixtures::shop(), nullptr, progress), Cancelled);
}

TEST_CASE("every fix that a call offers is a job, and mends its call") {
    auto job = small_job();
    job.plug.board = "PU foam 35, 50 mm";
    job.plug.barrier = Barrier::none;
    job.edge.tape_land = 0.012;
    job.edge.trim = 0.002;
    job.release.mask_land = false;
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
    for (const char* key : {"porous", "tape_land", "trim", "land", "too_hot", "envelope", "person", "process",
                            "print_through"}) {
        INFO(key);
        CHECK(call(f, key) != nullptr);
    }
    CHECK(fixes >= 8);
}
