// How full the nester lays sheets: against the bound by area and against rows of boxes.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <polyclipping/clipper.hpp>

#include "bench/reference.hpp"
#include "core/job/evaluate.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/shop/shop.hpp"

using namespace jig;

namespace {

/// Sheets that rows of bounding boxes take, tallest first, as a shop lays them by eye.
int rows_of_boxes(const std::vector<CutPiece>& pieces, const SheetRules& rules) {
    std::vector<Point2> boxes;
    for (const auto& piece : pieces) {
        if (piece.inside >= 0) continue;
        Point2 size = high_corner(piece.outline) - low_corner(piece.outline);
        if (size.x() < size.y()) std::swap(size.x(), size.y());
        boxes.push_back(size + Point2::Constant(rules.kerf));
    }
    std::sort(boxes.begin(), boxes.end(), [](const Point2& a, const Point2& b) { return a.y() > b.y(); });
    const double length = rules.length - 2 * rules.margin, width = rules.width - 2 * rules.margin;
    int sheets = 1;
    double x = 0, y = 0, row = 0;
    for (const auto& box : boxes) {
        if (x + box.x() > length) {
            y += row;
            x = row = 0;
        }
        if (y + box.y() > width) {
            ++sheets;
            x = y = row = 0;
        }
        x += box.x();
        row = std::max(row, box.y());
    }
    return sheets;
}

/// The slabs of a demo, half as large, in thin sheets: enough pieces to nest.
void nesting_against_rows(benchmark::State& state, const char* name) {
    const auto shop = load_shop(std::string(JIG_SOURCE_DATA) + "/library");
    auto job = load_job(std::string(JIG_SOURCE_DATA) + "/demo/" + name + ".json");
    job.plug.route = Route::slabs;
    job.plug.board = "MDF 18 mm";
    job.shape.place.scale = 0.6;
    Progress quiet;
    const auto findings = evaluate(job, shop, quiet, Depth::stages);
    const auto& plan = findings.plug->plans.front();
    const auto pieces = plug::cut_pieces(plan, job.plug, 1);
    const auto rules = plug::sheet_rules(plan, job.plug, shop);
    SheetSet sheets;
    for (auto _ : state) sheets = lay_onto_sheets(pieces, rules, quiet);
    double area = 0;
    for (const auto& piece : pieces) area += net_area(piece.outline);
    state.counters["sheets"] = static_cast<double>(sheets.sheets.size());
    state.counters["area_bound"] = std::ceil(area / (rules.length * rules.width));
    state.counters["rows_of_boxes"] = rows_of_boxes(pieces, rules);
    state.counters["yield"] = sheets.yield;
}
BENCHMARK_CAPTURE(nesting_against_rows, cello_case, "cello-case")
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);
BENCHMARK_CAPTURE(nesting_against_rows, radar_dome, "radar-dome")
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);
BENCHMARK_CAPTURE(nesting_against_rows, pavilion_petal, "pavilion-petal")
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);

/// All routes of the demo against the one that the job takes.
void seven_routes(benchmark::State& state) {
    const auto shop = load_shop(std::string(JIG_SOURCE_DATA) + "/library");
    const auto job = load_job(std::string(JIG_SOURCE_DATA) + "/demo/cello-case.json");
    Progress quiet;
    const auto f = evaluate(job, shop, quiet, Depth::stages);
    for (auto _ : state)
        benchmark::DoNotOptimize(
            plug::side_by_side(job.plug, job.shape, *f.shape, *f.split, {}, job.brief, 1, shop, quiet)
                .size());
}
BENCHMARK(seven_routes)->Unit(benchmark::kMillisecond);

/// A mould let into its block against the closing and measuring of that block alone, on a face of `n`²
/// places.
void a_mould_let_in(benchmark::State& state) {
    const auto shop = load_shop(std::string(JIG_SOURCE_DATA) + "/library");
    const auto n = static_cast<std::uint32_t>(state.range(0));
    TriangleMesh bowl;
    for (std::uint32_t j = 0; j <= n; ++j) {
        for (std::uint32_t i = 0; i <= n; ++i) {
            const double x = 2.0 * i / n - 1, y = 2.0 * j / n - 1;
            bowl.points.emplace_back(x, y, 0.3 * (1 - x * x) * (1 - y * y));
        }
    }
    for (std::uint32_t j = 0; j < n; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = j * (n + 1) + i;
            bowl.triangles.push_back({a, a + 1, a + n + 2});
            bowl.triangles.push_back({a, a + n + 2, a + n + 1});
        }
    }
    const auto frame = frame_across(Point::UnitZ());
    Progress quiet;
    const plug::Choices choices;
    double let = 0, closed = 0;
    for (auto _ : state) {
        const auto start = std::chrono::steady_clock::now();
        const auto piece = plug::let_in(choices, "mould", bowl, frame, 4, shop, quiet);
        const auto between = std::chrono::steady_clock::now();
        const auto solid = plug::solid_of(piece.body).mesh;
        benchmark::DoNotOptimize(measure(solid, topology_of(solid)).volume);
        const auto end = std::chrono::steady_clock::now();
        let += std::chrono::duration<double>(between - start).count();
        closed += std::chrono::duration<double>(end - between).count();
    }
    state.counters["triangles"] = 2.0 * n * n;
    state.counters["times_its_closing"] = let / closed;
}
BENCHMARK(a_mould_let_in)->Arg(100)->Arg(316)->Unit(benchmark::kMillisecond);

/// A mesh laid flat and its outline, against Clipper with every triangle by itself.
void outline_of_a_flat_mesh(benchmark::State& state) {
    const auto n = static_cast<int>(state.range(0));
    const auto at = [](int i, int j) { return Point2(0.002 * i, 0.002 * j); };
    Loops loops;
    for (int i = 0; i < n; ++i) {
        for (int j = 0; j < n; ++j) {
            loops.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            loops.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    namespace clip = ClipperLib;
    clip::Paths paths;
    for (const auto& loop : loops) {
        auto& path = paths.emplace_back();
        for (const auto& p : loop) path.emplace_back(std::llround(1e6 * p.x()), std::llround(1e6 * p.y()));
    }
    const auto ours = [&] { benchmark::DoNotOptimize(united(loops).size()); };
    const double bare = bench::fastest(1, [&] {
        clip::Clipper clipper;
        clipper.AddPaths(paths, clip::ptSubject, true);
        clip::Paths out;
        clipper.Execute(clip::ctUnion, out, clip::pftNonZero, clip::pftNonZero);
        benchmark::DoNotOptimize(out.size());
    });
    for (auto _ : state) ours();
    state.counters["triangles"] = 2.0 * n * n;
    state.counters["times_Clipper"] = bench::fastest(3, ours) / bare;
}
BENCHMARK(outline_of_a_flat_mesh)->Arg(20)->Arg(60)->Unit(benchmark::kMillisecond);

}  // namespace
