// STL, release and slices against CGAL, bare Embree and the time to touch the bytes.
#include <benchmark/benchmark.h>
#include <embree3/rtcore.h>

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <limits>

#include "bench/reference.hpp"
#include "core/base/parallel.hpp"
#include "core/science/mesh/draft.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/stl.hpp"

using namespace jig;

namespace {

/// A wavy dome of about n triangles, open at the foot.
TriangleMesh dome(std::size_t n) {
    const auto rings = static_cast<std::uint32_t>(std::sqrt(static_cast<double>(n) / 8)), around = 4 * rings;
    TriangleMesh m;
    for (std::uint32_t k = 0; k <= rings; ++k) {
        const double a = 1.5 * k / rings;
        for (std::uint32_t i = 0; i < around; ++i) {
            const double t = 6.283185307179586 * i / around,
                         r = 0.5 * std::cos(a) * (1 + 0.02 * std::sin(9 * t));
            m.points.emplace_back(r * std::cos(t), r * std::sin(t), 0.5 * std::sin(a));
        }
    }
    for (std::uint32_t k = 0; k < rings; ++k) {
        for (std::uint32_t i = 0; i < around; ++i) {
            const auto a = k * around + i, b = k * around + (i + 1) % around;
            m.triangles.push_back({a, b, b + around});
            m.triangles.push_back({a, b + around, a + around});
        }
    }
    return m;
}

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

/// The same rays straight through Embree's C interface: no classes, no areas, one ray a face.
double bare_embree(const TriangleMesh& mesh, const Point& pull) {
    const auto device = rtcNewDevice(nullptr);
    const auto scene = rtcNewScene(device);
    rtcSetSceneFlags(scene, RTC_SCENE_FLAG_ROBUST);
    const auto geometry = rtcNewGeometry(device, RTC_GEOMETRY_TYPE_TRIANGLE);
    auto* p = static_cast<float*>(rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_VERTEX, 0,
                                                          RTC_FORMAT_FLOAT3, 12, mesh.points.size()));
    for (const auto& q : mesh.points) {
        for (int i = 0; i < 3; ++i) *p++ = static_cast<float>(q[i]);
    }
    auto* t = static_cast<unsigned*>(rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0,
                                                             RTC_FORMAT_UINT3, 12, mesh.triangles.size()));
    for (const auto& f : mesh.triangles) {
        for (const auto i : f) *t++ = i;
    }
    rtcCommitGeometry(geometry);
    rtcAttachGeometry(scene, geometry);
    rtcReleaseGeometry(geometry);
    rtcCommitScene(scene);
    std::vector<RTCRay> rays(mesh.triangles.size());
    for (std::size_t f = 0; f < rays.size(); ++f) {
        const Point from = mesh.centre(f) + 1e-5 * (mesh.area_vector2(f).normalized() + pull);
        rays[f] = RTCRay{};
        rays[f].org_x = static_cast<float>(from.x());
        rays[f].org_y = static_cast<float>(from.y());
        rays[f].org_z = static_cast<float>(from.z());
        rays[f].dir_x = static_cast<float>(pull.x());
        rays[f].dir_y = static_cast<float>(pull.y());
        rays[f].dir_z = static_cast<float>(pull.z());
        rays[f].mask = 0xffffffffu;
    }
    const double seconds = bench::fastest(5, [&] {
        parallel_shares(rays.size(), 4096, [&](std::size_t a, std::size_t b, unsigned) {
            for (; a < b; ++a) {
                rays[a].tfar = std::numeric_limits<float>::infinity();
                RTCIntersectContext context;
                rtcInitIntersectContext(&context);
                rtcOccluded1(scene, &context, &rays[a]);
            }
        });
    });
    rtcReleaseScene(scene);
    rtcReleaseDevice(device);
    return seconds;
}

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
    state.counters["times_bare_Embree"] = ours / bare_embree(mesh, pull);
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

}  // namespace
