// A whole shell solve against CHOLMOD's own analysing, factoring and solving of the same matrix size and
// pattern.
#include <benchmark/benchmark.h>

#include <cmath>

#include "bench/reference.hpp"
#include "core/science/shell/system.hpp"

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
    const double ours = bench::fastest(2, [&] { whole(1); });
    const double eight = bench::fastest(2, [&] { whole(8); });
    const double reference = bench::bare_cholmod(mesh, l, clamp.front());
    state.counters["times_bare_CHOLMOD"] = ours / reference;
    state.counters["eight_loads_times_one"] = eight / ours;
}
BENCHMARK(shell_against_cholmod)
    ->Arg(20000)
    ->Arg(60000)
    ->Arg(200000)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);

}  // namespace
