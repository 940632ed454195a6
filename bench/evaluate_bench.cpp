// The whole job, and what one edit costs, against the whole.
#include <benchmark/benchmark.h>

#include "bench/reference.hpp"
#include "core/job/evaluate.hpp"
#include "core/job/job_file.hpp"

using namespace jig;

namespace {

struct Demo {
    Shop shop = load_shop(std::string(JIG_SOURCE_DATA) + "/library");
    Job job = load_job(std::string(JIG_SOURCE_DATA) + "/demo/cello-case.json");
};

void whole_demo(benchmark::State& state) {
    const Demo d;
    Progress quiet;
    for (auto _ : state) benchmark::DoNotOptimize(evaluate(d.job, d.shop, nullptr, quiet).calls.size());
}
BENCHMARK(whole_demo)->Unit(benchmark::kMillisecond);

void one_ply_edit(benchmark::State& state) {
    const Demo d;
    Progress quiet;
    const Evaluated before{d.job, evaluate(d.job, d.shop, nullptr, quiet)};
    auto next = d.job;
    next.shell.layers[4].angle += 0.1;
    for (auto _ : state) benchmark::DoNotOptimize(evaluate(next, d.shop, &before, quiet).calls.size());
    const double whole = bench::fastest(
        3, [&] { benchmark::DoNotOptimize(evaluate(d.job, d.shop, nullptr, quiet).calls.size()); });
    const double edit = bench::fastest(
        5, [&] { benchmark::DoNotOptimize(evaluate(next, d.shop, &before, quiet).calls.size()); });
    state.counters["share_of_whole"] = edit / whole;
    state.counters["share_of_100_ms"] = edit / 0.1;
}
BENCHMARK(one_ply_edit)->Unit(benchmark::kMillisecond);

void one_depth_edit(benchmark::State& state) {
    const Demo d;
    Progress quiet;
    const Evaluated before{d.job, evaluate(d.job, d.shop, nullptr, quiet)};
    auto next = d.job;
    next.shape.tray.depth += 0.005;
    for (auto _ : state) benchmark::DoNotOptimize(evaluate(next, d.shop, &before, quiet).calls.size());
    const double edit = bench::fastest(
        5, [&] { benchmark::DoNotOptimize(evaluate(next, d.shop, &before, quiet).calls.size()); });
    state.counters["share_of_100_ms"] = edit / 0.1;
}
BENCHMARK(one_depth_edit)->Unit(benchmark::kMillisecond);

}  // namespace
