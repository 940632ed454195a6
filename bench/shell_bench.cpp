// A whole shell solve against CHOLMOD's own analysing, factoring and solving of the same matrix size and
// pattern, as it comes: with its four threads, which we hold down to the cores (OMP_DYNAMIC=true does so for
// both).
#include <benchmark/benchmark.h>

#include <cmath>

#include "bench/reference.hpp"
#include "core/job/job_file.hpp"
#include "core/job/trial.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/science/shell/system.hpp"
#include "core/shop/stack_figures.hpp"
#include "core/stages/part/trial.hpp"

using namespace jig;

namespace {

/// A wavy plate of about that many freedoms.
TriangleMesh wavy(std::size_t freedoms) {
    const auto n = static_cast<std::uint32_t>(std::sqrt(static_cast<double>(freedoms) / 6.0));
    TriangleMesh mesh;
    for (std::uint32_t j = 0; j < n; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const double x = static_cast<double>(i) / n, y = static_cast<double>(j) / n;
            mesh.points.emplace_back(x, y, 0.05 * std::sin(7 * x) * std::cos(5 * y));
        }
    }
    for (std::uint32_t j = 0; j + 1 < n; ++j) {
        for (std::uint32_t i = 0; i + 1 < n; ++i) {
            const auto a = j * n + i;
            mesh.triangles.push_back({a, a + 1, a + n + 1});
            mesh.triangles.push_back({a, a + n + 1, a + n});
        }
    }
    return mesh;
}

void shell_against_cholmod(benchmark::State& state) {
    const auto mesh = wavy(static_cast<std::size_t>(state.range(0)));
    const std::vector<StackPly> ply{{isotropic(20e9, 0.3, 1900, 1e-5), 0, 0.005}};
    const auto l = laminate(ply);
    const std::vector<shell_fe::Support> clamp{
        {{{-1, -1, -1}, {1e-9, 2, 1}}, {true, true, true, true, true, true}}};
    Progress quiet;
    shell_fe::Loads load;
    load.pressure = 1000;
    const auto whole = [&](std::size_t loads) {
        const shell_fe::System s(mesh, l, Point::UnitX(), clamp, quiet);
        std::vector<shell_fe::Loads> cases;
        for (std::size_t i = 0; i < loads; ++i) {
            load.pressure = 1000 + static_cast<double>(i);
            cases.push_back(load);
        }
        benchmark::DoNotOptimize(s.solve(cases).front().largest);
        return s.seconds();
    };
    for (auto _ : state) whole(1);
    const double ours = bench::fastest(3, [&] { whole(1); });
    const double eight = bench::fastest(3, [&] { whole(8); });
    const double reference = bench::bare_cholmod(mesh, l, clamp.front());
    state.counters["times_bare_CHOLMOD"] = ours / reference;
    // How the whole solve grows from size to size: time ~ freedoms^exponent.
    static double last_freedoms = 0, last_seconds = 0;
    const auto freedoms = static_cast<double>(state.range(0));
    if (last_seconds > 0 && freedoms > last_freedoms)
        state.counters["growth_exponent"] =
            std::log(ours / last_seconds) / std::log(freedoms / last_freedoms);
    last_freedoms = freedoms;
    last_seconds = ours;
    state.counters["eight_loads_times_one"] = eight / ours;
}
BENCHMARK(shell_against_cholmod)
    ->Arg(20000)
    ->Arg(60000)
    ->Arg(200000)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);

/// The demo job's whole quick trial, its face's mesh with it, against one bare assembling, factoring and
/// solving of its structure.
void tool_quick_trial(benchmark::State& state) {
    const auto shop = load_shop(JIG_SOURCE_DATA "/library");
    const auto job = load_job(JIG_SOURCE_DATA "/demo/cello-case.json");
    Progress quiet;
    const auto findings = evaluate(job, shop, quiet, Depth::stages);
    std::shared_ptr<const back::Trial> trial;
    const auto once = [&] { trial = try_tool(job, findings, shop, Fineness::quick, nullptr, quiet); };
    once();
    for (auto _ : state) once();
    const double whole = bench::fastest(3, once);
    const auto in = tool_inputs(job, findings, shop);
    const auto face = back::even_face(*findings.edge->tool, trial->edge, quiet);
    const auto tool = back::build_tool(in, face, quiet);
    const double bare = bench::fastest(3, [&] {
        const shell_fe::System s(tool.model, {{{}, {true, true, true, true, true, true}, tool.feet}}, quiet);
        shell_fe::Loads weight;
        weight.gravity = {0, 0, kGravity};
        benchmark::DoNotOptimize(s.solve(weight).largest);
    });
    state.counters["seconds"] = whole;
    state.counters["load_cases"] = static_cast<double>(trial->cases.size());
    state.counters["times_one_bare_solve"] = whole / bare;
}
BENCHMARK(tool_quick_trial)->Unit(benchmark::kMillisecond)->Iterations(1);

/// A part on trial under three loads, a rim zone in it, beside one plain assembling, factoring and solving of
/// its mesh. Buckling is looked for as well, on this mesh as on the coarse one of a job.
void part_on_trial(benchmark::State& state) {
    const auto trial_of = [](std::size_t triangles, bool plain) {
        const auto mesh = bench::dome(triangles);
        const Frame frame{Point::UnitX(), Point::UnitY(), Point::UnitZ()};
        static const auto shop = load_shop(std::string(JIG_SOURCE_DATA) + "/library");
        part::DutyAsked asked;
        asked.stack = part::start();
        part::Zone rim;
        rim.way = ZoneWay::for_core;
        asked.stack.zones = {rim};
        asked.duty.hold = PartHold::pinned;
        asked.duty.loads.resize(3);
        asked.duty.loads[0].pressure = 1000;
        asked.duty.loads[1].weight = 1;
        asked.duty.loads[2].pushes = {{}};
        Progress quiet;
        if (!plain) {
            part::Draped draped;
            draped.face = std::make_shared<const TriangleMesh>(mesh);
            benchmark::DoNotOptimize(part::try_out(asked, mesh, frame, draped, shop, nullptr, quiet).mass);
            return;
        }
        const auto stack = sum_stack(asked.stack.layers, need(shop.resins, asked.stack.resin, "bench"),
                                     asked.stack.how, shop, "bench");
        shell_fe::Support rest;
        rest.fix = {true, true, true, false, false, false};
        rest.points = rim_loops(mesh, topology_of(mesh)).front();
        const shell_fe::System system(mesh, stack.laminate, Point::UnitX(), {rest}, quiet);
        std::vector<shell_fe::Loads> loads(3);
        for (auto& l : loads) l.pressure = 1000;
        benchmark::DoNotOptimize(system.solve(loads).front().largest);
    };
    const auto n = static_cast<std::size_t>(state.range(0));
    for (auto _ : state) trial_of(n, false);
    const double here = bench::fastest(2, [&] { trial_of(n, false); });
    state.counters["times_plain_solve"] = here / bench::fastest(2, [&] { trial_of(n, true); });
    state.counters["growth_exponent"] = std::log2(here / bench::fastest(2, [&] { trial_of(n / 2, false); }));
}
BENCHMARK(part_on_trial)->Arg(2800)->Arg(14000)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace
