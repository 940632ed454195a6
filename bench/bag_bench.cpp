// The film over a face against the slicing that it stands on, pump-down against bare exponentials, splinters
// taken away against the lining up that makes them.
#include <benchmark/benchmark.h>

#include <cmath>

#include "bench/reference.hpp"
#include "core/science/mesh/lined.hpp"
#include "core/science/mesh/relieve.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/vacuum/bridging.hpp"
#include "core/science/vacuum/pump.hpp"
#include "core/science/vacuum/wrap.hpp"
#include "core/stages/bag/rim.hpp"

using namespace jig;

namespace {

/// Seconds at `n`, and the exponent by which they grow from half of it.
template <class Time>
void report(benchmark::State& state, std::int64_t n, Time&& seconds) {
    const double here = seconds(static_cast<std::size_t>(n)), half = seconds(static_cast<std::size_t>(n / 2));
    state.counters["growth_exponent"] = std::log2(here / half);
}

/// What `measures` a dome, beside the sections alone that it stands on: 61 evenly and one through each of 24
/// deep places, both ways.
template <class Measure>
void beside_slicing(benchmark::State& state, Measure&& measure) {
    const auto mesh = bench::dome(static_cast<std::size_t>(state.range(0)));
    const auto topology = topology_of(mesh);
    Progress quiet;
    for (auto _ : state) measure(mesh, topology);
    std::vector<double> at;
    const auto bounds = bounds_of(mesh);
    constexpr int kSections = 61 + 24;
    for (int i = 0; i < kSections; ++i)
        at.push_back(bounds.low.x() + (bounds.high.x() - bounds.low.x()) * (i + 0.5) / kSections);
    const auto slicing = [&] {
        for (const auto& axis : {Point(Point::UnitX()), Point(Point::UnitY())}) {
            const Frame across{Point::UnitZ(), axis.cross(Point(Point::UnitZ())), axis};
            benchmark::DoNotOptimize(sections(mesh, topology, across, at, quiet).size());
        }
    };
    state.counters["times_plain_slicing"] =
        bench::fastest(5, [&] { measure(mesh, topology); }) / bench::fastest(5, slicing);
    report(state, state.range(0), [&](std::size_t size) {
        const auto other = bench::dome(size);
        const auto edges = topology_of(other);
        return bench::fastest(5, [&] { measure(other, edges); });
    });
}

void film_over_a_dome(benchmark::State& state) {
    const Frame frame = frame_across(Point::UnitZ());
    FilmRules rules;
    rules.land = 0.03;
    Progress quiet;
    beside_slicing(state, [&](const TriangleMesh& mesh, const Topology& topology) {
        benchmark::DoNotOptimize(film_over(mesh, topology, frame, rules, quiet).length);
    });
}
BENCHMARK(film_over_a_dome)->Arg(50000)->Arg(200000)->Unit(benchmark::kMillisecond);

void film_round_a_dome(benchmark::State& state) {
    const Frame frame = frame_across(Point::UnitZ());
    Progress quiet;
    beside_slicing(state, [&](const TriangleMesh& mesh, const Topology& topology) {
        benchmark::DoNotOptimize(round_tool(mesh, topology, frame, {0.01, 0.1, true}, quiet).along);
    });
}
BENCHMARK(film_round_a_dome)->Arg(50000)->Arg(200000)->Unit(benchmark::kMillisecond);

/// Hoses, gauge and pleats on its land, and how far the face reaches from them.
void rim_of_a_film(benchmark::State& state) {
    const Frame frame = frame_across(Point::UnitZ());
    Progress quiet;
    FilmRules rules;
    rules.land = 0.03;
    bag::Choices choices;
    choices.hoses = 2;
    const auto film = film_over(bench::dome(20000), topology_of(bench::dome(20000)), frame, rules, quiet);
    beside_slicing(state, [&](const TriangleMesh& mesh, const Topology&) {
        auto rim = bag::rim_of(choices, film, true);
        bag::reach_over(rim, mesh, frame);
        benchmark::DoNotOptimize(rim.far);
    });
}
BENCHMARK(rim_of_a_film)->Arg(50000)->Arg(200000)->Unit(benchmark::kMillisecond);

/// A film that is too short, judged, against measuring what it should be.
void bridge_under_a_short_film(benchmark::State& state) {
    const auto n = static_cast<std::size_t>(state.range(0));
    const Frame frame = frame_across(Point::UnitZ());
    Progress quiet;
    FilmRules rules;
    rules.land = 0.03;
    const auto judge = [&](const TriangleMesh& mesh, const Topology& topology, const Film& film) {
        benchmark::DoNotOptimize(bridge_under(mesh, topology, frame, rules, film, quiet).has_value());
    };
    const auto short_of = [&](const TriangleMesh& mesh, const Topology& topology) {
        auto film = film_over(mesh, topology, frame, rules, quiet);
        film.width = 0.97 * film.across;
        return film;
    };
    const auto mesh = bench::dome(n);
    const auto topology = topology_of(mesh);
    const auto film = short_of(mesh, topology);
    for (auto _ : state) judge(mesh, topology, film);
    state.counters["times_measuring"] =
        bench::fastest(3, [&] { judge(mesh, topology, film); }) / bench::fastest(3, [&] {
            benchmark::DoNotOptimize(film_over(mesh, topology, frame, rules, quiet).length);
        });
    report(state, state.range(0), [&](std::size_t size) {
        const auto other = bench::dome(size);
        const auto edges = topology_of(other);
        const auto less = short_of(other, edges);
        return bench::fastest(3, [&] { judge(other, edges, less); });
    });
}
BENCHMARK(bridge_under_a_short_film)->Arg(50000)->Arg(200000)->Unit(benchmark::kMillisecond);

void pump_down_with_a_leak(benchmark::State& state) {
    const PumpDown pump{0.02, 0.0015, 100, 0.02, 101325};
    constexpr int kPoints = 100000;
    const auto ours = [&] {
        double sum = 0;
        for (int i = 0; i < kPoints; ++i) sum += pump.at(0.01 * i);
        benchmark::DoNotOptimize(sum);
    };
    const auto bare = [&] {
        double sum = 0;
        const double rate = pump.speed / pump.volume;
        for (int i = 0; i < kPoints; ++i) sum += std::exp(-rate * 0.01 * i);
        benchmark::DoNotOptimize(sum);
    };
    for (auto _ : state) ours();
    state.counters["times_bare_exp"] = bench::fastest(5, ours) / bench::fastest(5, bare);
}
BENCHMARK(pump_down_with_a_leak)->Unit(benchmark::kMicrosecond);

void splinters_taken_away(benchmark::State& state) {
    const auto lay = [](std::size_t n) {
        const auto mesh = bench::dome(n);
        const auto bounds = bounds_of(mesh);
        std::array<PlaneSet, 2> sets;
        for (int axis = 0; axis < 2; ++axis) {
            auto& set = sets[static_cast<std::size_t>(axis)];
            set.normal = axis == 0 ? Point(Point::UnitX()) : Point(Point::UnitY());
            for (int i = 1; i < 8; ++i)
                set.at.push_back(bounds.low[axis] + (bounds.high[axis] - bounds.low[axis]) * i / 8.0);
        }
        return std::pair{mesh, sets};
    };
    const auto n = static_cast<std::size_t>(state.range(0));
    const auto [mesh, sets] = lay(n);
    const std::vector<int> patch(mesh.triangles.size(), 0);
    const auto lined = lined_up(mesh, patch, sets);
    const double wanted = 0.2618;
    for (auto _ : state) {
        state.PauseTiming();
        auto copy = lined;
        state.ResumeTiming();
        relieve(copy, wanted);
        benchmark::DoNotOptimize(copy.mesh.triangles.size());
    }
    const double lining = bench::fastest(
        3, [&, m = mesh, s = sets] { benchmark::DoNotOptimize(lined_up(m, patch, s).mesh.points.size()); });
    const double relieving = bench::fastest(3, [&] {
        auto copy = lined;
        relieve(copy, wanted);
    });
    state.counters["times_lining_up"] = relieving / lining;
}
BENCHMARK(splinters_taken_away)->Arg(50000)->Arg(200000)->Unit(benchmark::kMillisecond);

}  // namespace
