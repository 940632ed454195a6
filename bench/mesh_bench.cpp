// STL, release and slices against CGAL, bare Embree and the time to touch the bytes.
#include <benchmark/benchmark.h>

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <memory>

#include "bench/reference.hpp"
#include "core/science/mesh/draft.hpp"
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

}  // namespace
