// The whole job on one core and on all, and what an edit and its undo cost beside the work that depends on
// it.
#include <benchmark/benchmark.h>

#include "bench/reference.hpp"
#include "core/base/slate.hpp"
#include "core/job/evaluate.hpp"
#include "core/job/job_file.hpp"
#include "core/stages/part/goes.hpp"

using namespace jig;

namespace {

struct Demo {
    std::shared_ptr<const Shop> shop =
        std::make_shared<const Shop>(load_shop(std::string(JIG_SOURCE_DATA) + "/library"));
    Job job;
    explicit Demo(const std::string& name = "cello-case")
        : job(load_job(std::string(JIG_SOURCE_DATA) + "/demo/" + name + ".json")) {}
};

/// All stages of a demo job from nothing, on one core, against all cores.
void whole_demo(benchmark::State& state, const char* name) {
    const Demo d(name);
    Progress quiet;
    const auto run = [&](unsigned threads) {
        JobBoard board;
        benchmark::DoNotOptimize(
            board.work_out(board.lay(d.job, d.shop), Depth::fine, quiet, threads).calls.size());
    };
    for (auto _ : state) run(0);
    state.counters["one_core_times_all"] =
        bench::fastest(2, [&] { run(1); }) / bench::fastest(2, [&] { run(0); });
}
BENCHMARK_CAPTURE(whole_demo, cello, "cello-case")->Unit(benchmark::kMillisecond)->Iterations(1);
BENCHMARK_CAPTURE(whole_demo, whole_cello, "cello-case-whole")->Unit(benchmark::kMillisecond)->Iterations(1);
BENCHMARK_CAPTURE(whole_demo, dome, "radar-dome")->Unit(benchmark::kMillisecond)->Iterations(1);
BENCHMARK_CAPTURE(whole_demo, petal, "pavilion-petal")->Unit(benchmark::kMillisecond)->Iterations(1);

/// An edit of the demo job on a board that knows it: its time beside the own times of the nodes that it
/// reaches, and the time of its undo. One core, so that the two can be compared.
void edit(benchmark::State& state, void (*change)(Job&, int), void (*prepare)(Job&) = nullptr) {
    Demo d;
    if (prepare != nullptr) prepare(d.job);
    Progress quiet;
    JobBoard board;
    const auto work_out = [&](const Job& job, std::vector<Ran>* ran) {
        benchmark::DoNotOptimize(
            board.work_out(board.lay(job, d.shop), Depth::stages, quiet, 1, ran).calls.size());
    };
    work_out(d.job, nullptr);
    double least = 1e30, needed = 0, undone = 1e30;
    int i = 0;
    const auto once = [&] {
        auto next = d.job;
        change(next, ++i);
        std::vector<Ran> ran;
        const double took = bench::fastest(1, [&] { work_out(next, &ran); });
        double own = 0;
        for (const auto& r : ran) own += r.seconds;
        if (took < least) {
            least = took;
            needed = own;
        }
        undone = std::min(undone, bench::fastest(1, [&] { work_out(d.job, nullptr); }));
    };
    for (auto _ : state) once();
    for (int k = 0; k < 10; ++k) once();
    state.counters["share_of_100_ms"] = least / 0.1;
    state.counters["overhead_ms"] = 1e3 * (least - needed);
    state.counters["times_what_depends_on_it"] = needed > 0 ? least / needed : 0;
    state.counters["undo_ms"] = 1e3 * undone;
}
BENCHMARK_CAPTURE(edit, ply, [](Job& job, int i) {
    job.shell.layers[4].angle += 0.01 * i;
})->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(edit, drag_angle, [](Job& job, int i) {
    job.split.drag_angle += 0.0005 * i;
})->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(edit, rib_pitch, [](Job& job, int i) {
    job.back.pitch += 0.001 * i;
})->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(edit, depth, [](Job& job, int i) {
    job.shape.tray.depth += 0.0005 * i;
})->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(edit, cut, [](Job& job, int i) {
    job.cut.at = 0.01 * (i % 90);
})->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(edit, name, [](Job& job, int i) {
    job.brief.customer = std::to_string(i);
})->Unit(benchmark::kMillisecond);

/// Every cure that there is: a back bonded hard, a part in three goes that is joined and warmed by itself.
void every_cure(Job& job) {
    job.back.joint.bond = Bond::hard;
    job.part.layers = part::one_by_one(job.part.layers);
    job.part.joint.kind = JointKind::bead;
    job.heat.part_free = {{333.15, 10.0 / 3600, 6 * 3600}};
}
BENCHMARK_CAPTURE(
    edit, first_of_every_cure,
    [](Job& job, int i) {
        job.heat.on_plug = {{303.15 + 0.5 * (i % 20), 0.003, 50000}};
    },
    every_cure)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(
    edit, last_of_every_cure, [](Job& job, int i) { job.heat.part_free[0].to += 0.5 * (i % 20); }, every_cure)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(
    edit, post_cure_alone,
    [](Job& job, int i) {
        job.heat.post_cure = {{343.15 + 0.5 * (i % 20), 0.003, 50000}};
    },
    nullptr)
    ->Unit(benchmark::kMillisecond);

/// A case in two shells with a zone on one of them, all that is measured on both.
void zone_on_a_shell(Job& job) {
    job = Demo("cello-case-whole").job;
    part::Zone zone;
    zone.piece = 2;
    zone.layers = {job.part.layers.front()};
    job.part.zones = {zone};
}
BENCHMARK_CAPTURE(
    edit, zone_of_one_piece, [](Job& job, int i) { job.part.zones[0].width += 0.0005 * (i % 50); },
    zone_on_a_shell)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(
    edit, core_of_all_pieces, [](Job& job, int i) { job.part.layers[2].thickness = 0.004 + 1e-5 * (i % 50); },
    zone_on_a_shell)
    ->Unit(benchmark::kMillisecond);

}  // namespace
