// The searches for pulls and pieces against one occlusion pass of the same mesh through bare Embree.
#include <benchmark/benchmark.h>

#include <cmath>

#include "bench/reference.hpp"
#include "core/science/mesh/pull.hpp"
#include "core/science/mesh/sweep.hpp"

using namespace jig;

namespace {

constexpr double kTurn = 6.283185307179586;

/// A ring with a wavy tube, two triangles a cell.
TriangleMesh ring(std::size_t triangles) {
    const auto n = static_cast<std::uint32_t>(std::sqrt(static_cast<double>(triangles) / 2));
    TriangleMesh m;
    for (std::uint32_t i = 0; i < n; ++i) {
        for (std::uint32_t k = 0; k < n; ++k) {
            const double a = kTurn * i / n, b = kTurn * k / n, tube = 0.1 * (1 + 0.03 * std::cos(7 * a)),
                         r = 0.3 + tube * std::cos(b);
            m.points.emplace_back(r * std::cos(a), r * std::sin(a), tube * std::sin(b));
        }
    }
    for (std::uint32_t i = 0; i < n; ++i) {
        for (std::uint32_t k = 0; k < n; ++k) {
            const auto a = i * n + k, b = ((i + 1) % n) * n + k, c = ((i + 1) % n) * n + (k + 1) % n,
                       d = i * n + (k + 1) % n;
            m.triangles.push_back({a, b, c});
            m.triangles.push_back({a, c, d});
        }
    }
    return m;
}

void pull_search_over_the_sphere(benchmark::State& state) {
    const auto mesh = ring(200000);
    const RayMesh rays(mesh);
    DraftRules rules;
    Progress quiet;
    const auto search = [&] { benchmark::DoNotOptimize(best_pulls(mesh, rays, rules, 3, quiet).size()); };
    for (auto _ : state) search();
    state.counters["times_one_Embree_pass"] =
        bench::fastest(3, search) / bench::bare_embree(mesh, Point::UnitZ());
}
BENCHMARK(pull_search_over_the_sphere)->Unit(benchmark::kMillisecond);

void split_into_two(benchmark::State& state) {
    const auto mesh = ring(200000);
    const RayMesh rays(mesh);
    PieceRules rules;
    rules.count = 2;
    Progress quiet;
    const auto search = [&] {
        benchmark::DoNotOptimize(find_pieces(mesh, rays, rules, quiet).pieces.size());
    };
    for (auto _ : state) search();
    const double seconds = bench::fastest(2, search);
    state.counters["seconds"] = seconds;
    state.counters["times_one_Embree_pass"] = seconds / bench::bare_embree(mesh, Point::UnitZ());
}
BENCHMARK(split_into_two)->Unit(benchmark::kMillisecond);

void split_by_a_plane(benchmark::State& state) {
    const auto mesh = ring(200000);
    const RayMesh rays(mesh);
    Progress quiet;
    const auto cut = [&] {
        benchmark::DoNotOptimize(
            pieces_by_plane(mesh, rays, {0, 0, 0}, {0, 0, 1}, 0.0175, quiet).pieces.size());
    };
    for (auto _ : state) cut();
    state.counters["times_one_Embree_pass"] =
        bench::fastest(3, cut) / bench::bare_embree(mesh, Point::UnitZ());
}
BENCHMARK(split_by_a_plane)->Unit(benchmark::kMillisecond);

void sliding_two_pieces_out(benchmark::State& state) {
    const auto mesh = ring(200000);
    const RayMesh rays(mesh);
    PieceRules rules;
    rules.count = 2;
    Progress quiet;
    const auto set = find_pieces(mesh, rays, rules, quiet);
    const auto slide = [&] { benchmark::DoNotOptimize(ways_out(set, rays, 0.01, quiet).size()); };
    for (auto _ : state) slide();
    state.counters["times_one_Embree_pass"] =
        bench::fastest(2, slide) / bench::bare_embree(mesh, Point::UnitZ());
}
BENCHMARK(sliding_two_pieces_out)->Unit(benchmark::kMillisecond);

/// A ring with so deep a ripple that a third of its faces lock whatever the pulls are.
TriangleMesh rippled(std::size_t triangles) {
    auto m = ring(triangles);
    for (auto& p : m.points) {
        const double a = std::atan2(p.y(), p.x()), r = std::hypot(p.x(), p.y()),
                     b = std::atan2(p.z(), r - 0.3);
        const double tube = 0.1 * (1 + 0.25 * std::cos(40 * a) * std::cos(12 * b)),
                     to = 0.3 + tube * std::cos(b);
        p = {to * std::cos(a), to * std::sin(a), tube * std::sin(b)};
    }
    return m;
}

/// How a split grows once faces lock: time ~ triangles^exponent from size to size.
void split_of_a_half_locked_body(benchmark::State& state) {
    const auto mesh = rippled(static_cast<std::size_t>(state.range(0)));
    const RayMesh rays(mesh);
    PieceRules rules;
    rules.count = 3;
    Progress quiet;
    const auto search = [&] {
        benchmark::DoNotOptimize(find_pieces(mesh, rays, rules, quiet).pieces.size());
    };
    for (auto _ : state) search();
    const double seconds = bench::fastest(2, search);
    static double last_seconds = 0, last_size = 0;
    const auto size = static_cast<double>(mesh.triangles.size());
    if (last_seconds > 0)
        state.counters["exponent"] = std::log(seconds / last_seconds) / std::log(size / last_size);
    last_seconds = seconds;
    last_size = size;
    state.counters["seconds"] = seconds;
    state.counters["times_one_Embree_pass"] = seconds / bench::bare_embree(mesh, Point::UnitZ());
}
BENCHMARK(split_of_a_half_locked_body)
    ->Arg(30000)
    ->Arg(100000)
    ->Arg(300000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);

}  // namespace
