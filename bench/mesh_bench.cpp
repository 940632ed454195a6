// STL, release and slices against CGAL, bare Embree and the time to touch the bytes.
#include <benchmark/benchmark.h>

#include <cmath>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <memory>

#include "bench/reference.hpp"
#include "core/science/mesh/curving.hpp"
#include "core/science/mesh/draft.hpp"
#include "core/science/mesh/folds.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/stl.hpp"

using namespace jig;
using bench::dome;

namespace {

void read_stl_against_cgal(benchmark::State& state) {
    const auto path = (std::filesystem::temp_directory_path() / "jigshell-bench.stl").string();
    const auto mesh = dome(static_cast<std::size_t>(state.range(0)));
    const bool text = state.range(1) != 0;
    std::ofstream(path, std::ios::binary) << (text ? write_stl_text(mesh, "dome") : write_stl_binary(mesh));
    Progress quiet;
    for (auto _ : state)
        benchmark::DoNotOptimize(read_stl(read_file(path), path, 1e-3, quiet).triangles.size());
    const double ours = bench::fastest(
        3, [&] { benchmark::DoNotOptimize(read_stl(read_file(path), path, 1e-3, quiet).triangles.size()); });
    const double bytes = bench::fastest(3, [&] { benchmark::DoNotOptimize(read_file(path).size()); });
    const double cgal = bench::fastest(1, [&] { benchmark::DoNotOptimize(bench::cgal_read_stl(path)); });
    state.counters["times_faster_than_CGAL"] = cgal / ours;
    state.counters["times_reading_the_bytes"] = ours / bytes;
    std::filesystem::remove(path);
}
BENCHMARK(read_stl_against_cgal)
    ->Args({500000, 0})
    ->Args({500000, 1})
    ->Unit(benchmark::kMillisecond)
    ->Iterations(3);

void release_against_bare_embree(benchmark::State& state) {
    const auto mesh = dome(static_cast<std::size_t>(state.range(0)));
    const RayMesh rays(mesh);
    const Point pull = Point(0.05, 0.02, 1).normalized();
    DraftRules rules;
    rules.samples = 0;  // one ray a face, as the reference
    Progress quiet;
    for (auto _ : state) benchmark::DoNotOptimize(draft(mesh, rays, pull, rules, quiet).slides);
    const double ours =
        bench::fastest(5, [&] { benchmark::DoNotOptimize(draft(mesh, rays, pull, rules, quiet).slides); });
    state.counters["times_bare_Embree"] = ours / bench::bare_embree(mesh, pull);
}
BENCHMARK(release_against_bare_embree)->Arg(200000)->Arg(1000000)->Unit(benchmark::kMillisecond);

void slices_against_cgal(benchmark::State& state) {
    const auto mesh = dome(500000);
    const auto frame = frame_across(Point::UnitZ());
    std::vector<double> heights;
    for (int i = 1; i < 40; ++i) heights.push_back(0.5 * i / 40.0 + 1e-5);
    Progress quiet;
    const auto all = [&] {
        benchmark::DoNotOptimize(sections(mesh, topology_of(mesh), frame, heights, quiet).size());
    };
    for (auto _ : state) all();
    const double ours = bench::fastest(3, all);
    double prepared = 0;
    std::unique_ptr<bench::CgalSlicer> cgal;
    prepared = bench::fastest(1, [&] { cgal = std::make_unique<bench::CgalSlicer>(mesh); });
    const double cuts = bench::fastest(2, [&] {
        for (const double h : heights) benchmark::DoNotOptimize(cgal->cut(h));
    });
    const auto topology = topology_of(mesh);
    const double ours_prepared = bench::fastest(
        3, [&] { benchmark::DoNotOptimize(sections(mesh, topology, frame, heights, quiet).size()); });
    state.counters["times_faster_than_CGAL"] = (prepared + cuts) / ours;
    state.counters["cuts_alone_times_faster"] = cuts / ours_prepared;
}
BENCHMARK(slices_against_cgal)->Unit(benchmark::kMillisecond);

/// 150 whole slabs, outlines united and exact, against CGAL's bare cuts at as many heights.
void slabs_against_cgal(benchmark::State& state) {
    const auto mesh = dome(1000000);
    const auto topology = topology_of(mesh);
    double low = 1e9, high = -1e9;
    for (const auto& p : mesh.points) {
        low = std::min(low, p.z());
        high = std::max(high, p.z());
    }
    const double thickness = (high - low) / 150;
    Progress quiet;
    const auto all = [&] {
        benchmark::DoNotOptimize(slabs(mesh, topology, Point::UnitZ(), thickness, quiet).volume);
    };
    for (auto _ : state) all();
    const double ours = bench::fastest(3, all);
    // Both start from points and triangles: ours prepares its neighbours, CGAL its edges and search tree.
    const double prepared = bench::fastest(1, [&] { benchmark::DoNotOptimize(topology_of(mesh).rim_edges); });
    std::unique_ptr<bench::CgalSlicer> cgal;
    const double cgal_prepared = bench::fastest(1, [&] { cgal = std::make_unique<bench::CgalSlicer>(mesh); });
    const double cuts = bench::fastest(1, [&] {
        for (int i = 0; i < 150; ++i) benchmark::DoNotOptimize(cgal->cut(low + (i + 0.5) * thickness));
    });
    state.counters["times_faster_than_CGAL"] = (cgal_prepared + cuts) / (prepared + ours);
    state.counters["cuts_alone_times_faster"] = cuts / ours;
}
BENCHMARK(slabs_against_cgal)->Unit(benchmark::kMillisecond)->Iterations(2);

/// A hat's profile drawn out, of `side` squares either way.
TriangleMesh hat(std::uint32_t side) {
    TriangleMesh mesh;
    for (std::uint32_t i = 0; i <= side; ++i) {
        for (std::uint32_t j = 0; j <= side; ++j) {
            const double x = static_cast<double>(i) / side, y = static_cast<double>(j) / side;
            mesh.points.emplace_back(x, y, 0.1 * std::tanh((0.25 - std::abs(x - 0.5)) / 0.03));
        }
    }
    for (std::uint32_t i = 0; i < side; ++i) {
        for (std::uint32_t j = 0; j < side; ++j) {
            const auto at = i * (side + 1) + j;
            mesh.triangles.push_back({at, at + side + 1, at + side + 2});
            mesh.triangles.push_back({at, at + side + 2, at + 1});
        }
    }
    return mesh;
}

/// Folds of a face, beside the bends that they are read off.
void folds_of_a_face(benchmark::State& state) {
    const auto side = static_cast<std::uint32_t>(state.range(0));
    const auto whole = hat(side), half = hat(side / 2);
    const auto topology = topology_of(whole), topology_half = topology_of(half);
    Progress quiet;
    const FoldRules rules;
    for (auto _ : state) benchmark::DoNotOptimize(folds(whole, topology, rules, quiet).size());
    const double ours =
        bench::fastest(2, [&] { benchmark::DoNotOptimize(folds(whole, topology, rules, quiet).size()); });
    const double of_half =
        bench::fastest(2, [&] { benchmark::DoNotOptimize(folds(half, topology_half, rules, quiet).size()); });
    const double bends = bench::fastest(
        2, [&] { benchmark::DoNotOptimize(curvings(whole, topology, rules.reach, quiet).size()); });
    state.counters["folds"] = static_cast<double>(folds(whole, topology, rules, quiet).size());
    state.counters["times_its_bends"] = ours / bends;
    state.counters["growth_exponent"] = std::log2(ours / of_half) / 2;
}
BENCHMARK(folds_of_a_face)->Arg(100)->Arg(400)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace
