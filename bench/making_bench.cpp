// Cure against a bare tridiagonal solve, cloth against a nearest-point query a crossing, a filling against
// CHOLMOD once over the whole face.
#include <benchmark/benchmark.h>
#include <cholmod.h>

#include <cmath>
#include <Eigen/SparseCholesky>

#include "bench/reference.hpp"
#include "core/science/drape/flatten.hpp"
#include "core/science/drape/net.hpp"
#include "core/science/drape/score.hpp"
#include "core/science/flow/fill.hpp"
#include "core/science/flow/network.hpp"
#include "core/science/flow/settle.hpp"
#include "core/science/heat/cure_fit.hpp"
#include "core/science/heat/oven.hpp"
#include "core/science/heat/wall.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/stages/heat/fastest.hpp"
#include "core/stages/heat/one_go.hpp"

using namespace jig;

namespace {

void a_day_of_one_wall(benchmark::State& state) {
    Wall wall;
    wall.start = 293.15;
    WallLayer foam{"foam", 0.05, 0.034, 32, 1450, {}, 0, 0};
    WallLayer shell{
        "shell", 0.006, 0.3, 1700, 1100, kinetics_by_gel(CureFamily::epoxy, 293.15, 25200, 398, 20), 600, 0};
    wall.layers = {foam, shell};
    const auto course = course_of({{false, 323.15, 10.0 / 3600, 0, {}}, {true, 0, 0, 14 * 3600, {}}}, 293.15);
    wall.sides = {WallSide{8.0, steady(293.15)}, WallSide{12.0, course}};
    WallRules rules;
    rules.end = 86400;
    rules.cells = 60;
    Progress quiet;
    int steps = 0;
    const auto run = [&] { steps = warm(wall, rules, quiet).steps; };
    for (auto _ : state) run();
    // As many solves of sixty rows as there were steps.
    const std::size_t n = 60;
    std::vector<double> lower(n, -1), diagonal(n, 3), upper(n, -1), x(n, 1), up(n), pivot(n);
    const auto bare = [&] {
        for (int s = 0; s < steps; ++s) {
            pivot[0] = 1 / diagonal[0];
            x[0] = pivot[0];
            for (std::size_t i = 1; i < n; ++i) {
                up[i - 1] = upper[i - 1] * pivot[i - 1];
                pivot[i] = 1 / (diagonal[i] - lower[i] * up[i - 1]);
                x[i] = (1 - lower[i] * x[i - 1]) * pivot[i];
            }
            for (std::size_t i = n - 1; i-- > 0;) x[i] -= up[i] * x[i + 1];
            benchmark::DoNotOptimize(x.data());
        }
    };
    state.counters["steps"] = steps;
    state.counters["times_bare_solves"] = bench::fastest(5, run) / bench::fastest(5, bare);
}
BENCHMARK(a_day_of_one_wall)->Unit(benchmark::kMillisecond);

/// What an oven gives to three walls of a cure, beside working one of them out: it goes with every edit.
void heat_of_an_oven(benchmark::State& state) {
    Wall wall;
    wall.layers = {{"laminate", 0.006, 0.3, 1700, 1100,
                    kinetics_by_gel(CureFamily::epoxy, 293.15, 25200, 398, 20), 600, 0}};
    const auto course = course_of({{false, 353.15, 10.0 / 3600, 0, {}},
                                   {true, 0, 0, 8 * 3600, {}},
                                   {false, 293.15, 10.0 / 3600, 0, {}}},
                                  293.15);
    wall.sides = {WallSide{12.0, course}, WallSide{12.0, course}};
    WallRules rules;
    rules.end = course.end();
    rules.cells = 41;
    Progress quiet;
    const auto h = warm(wall, rules, quiet);
    HeatTaken taken{2, h.times, {}};
    for (std::size_t t = 0; t < h.times.size(); ++t)
        taken.flux.push_back(12 * (course.at(h.times[t]) - h.places.front().T[t]));
    const std::vector<HeatTaken> all(3, taken);
    const OvenBox box{11.2, 2.4, 0.6, 10000, 2.0 / 3600, 48000};
    const auto heat = [&] { benchmark::DoNotOptimize(oven_heat(box, course, 293.15, all).heater); };
    for (auto _ : state) heat();
    const auto one = [&] { benchmark::DoNotOptimize(warm(wall, rules, quiet).peak); };
    state.counters["share_of_one_wall"] = bench::fastest(5, heat) / bench::fastest(5, one);
}
BENCHMARK(heat_of_an_oven)->Unit(benchmark::kMicrosecond);

/// The soonest programme, beside as many runs of one programme as it tries.
void soonest_programme(benchmark::State& state) {
    heat::CureRun run;
    run.of = CureOf::part;
    const WallSide air{15, steady(293.15)};
    run.wall = {{{"laminate", 0.001 * static_cast<double>(state.range(0)), 0.35, 1800, 1000,
                  kinetics_by_gel(CureFamily::epoxy, 293.15, 25200, 398, 20), 600, 0}},
                {air, air},
                293.15};
    Progress quiet;
    const std::vector<heat::Leg> legs{{333.15, 30.0 / 3600, 8 * 3600}};
    run = heat::through(run, legs, 5, quiet);
    heat::CureBounds bounds;
    bounds.cure = 0.9;
    bounds.air = 363.15;
    bounds.climbs = 30.0 / 3600;
    int tried = 0;
    const auto find = [&] { tried = heat::fastest(run, bounds, 7 * 86400, quiet).tried; };
    for (auto _ : state) find();
    const auto one = [&] { benchmark::DoNotOptimize(heat::through(run, legs, 5, quiet).seconds); };
    state.counters["tried"] = tried;
    state.counters["times_one_programme_each"] = bench::fastest(2, find) / (bench::fastest(3, one) * tried);
}
BENCHMARK(soonest_programme)->Arg(5)->Arg(20)->Unit(benchmark::kMillisecond);

/// How hot plies become by their thickness, beside as many thicknesses run in full as one programme is.
void exotherm_by_thickness(benchmark::State& state) {
    const WallSide air{12, steady(293.15)};
    LaidAtOnce laid;
    laid.wall = {{{"board", 0.1, 0.13, 740, 1700, {}, 0, 0},
                  {"plies", 0.004, 0.35, 1800, 1000,
                   kinetics_by_gel(CureFamily::epoxy, 293.15, 7200, 340, 20), 600, 0}},
                 {air, air},
                 293.15};
    laid.layers = {1};
    laid.programme = {{true, 0, 0, 24 * 3600, {}}};
    laid.follow = {false, true};
    Progress quiet;
    const auto at = heat::thicknesses();
    HeatLimits limits;
    limits.laid = 323.15;
    std::size_t runs = 0;
    const auto curve = [&] {
        const auto peaks = peaks_at(laid, at, quiet);
        benchmark::DoNotOptimize(thickest(laid, peaks, limits, quiet));
        runs = peaks.size();
    };
    for (auto _ : state) curve();
    const auto full = [&] {
        for (const double t : at) {
            auto wall = laid.wall;
            wall.layers[1].thickness = t;
            benchmark::DoNotOptimize(
                run_programme(std::move(wall), laid.programme, laid.follow, {}, 0, quiet).history.peak);
        }
    };
    state.counters["thicknesses"] = static_cast<double>(runs);
    state.counters["times_full_programmes"] = bench::fastest(5, curve) / bench::fastest(2, full);
}
BENCHMARK(exotherm_by_thickness)->Unit(benchmark::kMillisecond);

/// So many crossings over a dome, begun beside the hole at its top.
DrapeRules cloth_on(const TriangleMesh& dome, std::int64_t crossings) {
    double area = 0;
    for (std::size_t f = 0; f < dome.triangles.size(); ++f) area += dome.area_vector2(f).norm() / 2;
    const auto bounds = bounds_of(dome);
    DrapeRules rules;
    rules.seed = Point(0.2 * bounds.high.x(), 0, bounds.high.z());
    rules.cell = std::sqrt(area / static_cast<double>(crossings));
    return rules;
}

void cloth_over_a_dome(benchmark::State& state) {
    const auto mesh = bench::dome(200000);
    const auto topology = topology_of(mesh);
    const auto rules = cloth_on(mesh, state.range(0));
    Progress quiet;
    Drape out;
    const auto run = [&] { out = drape(mesh, topology, rules, quiet); };
    for (auto _ : state) run();
    const NearestFace tree(mesh);
    const auto queries = [&] {
        std::size_t sum = 0;
        for (const auto& node : out.nodes) sum += tree.at(node.at);
        benchmark::DoNotOptimize(sum);
    };
    state.counters["nodes"] = static_cast<double>(out.nodes.size());
    state.counters["times_queries"] = bench::fastest(3, run) / bench::fastest(3, queries);
}
BENCHMARK(cloth_over_a_dome)->Arg(10000)->Arg(40000)->Unit(benchmark::kMillisecond);

/// Four darts cut into a dome and its net laid on either side of them, beside the same net uncut.
void darts_in_a_dome(benchmark::State& state) {
    const auto mesh = bench::dome(50000);
    const auto topology = topology_of(mesh);
    const auto rules = cloth_on(mesh, state.range(0));
    const Frame above{Point::UnitX(), Point::UnitY(), Point::UnitZ()};
    const double reach = bounds_of(mesh).high.x();
    std::vector<SeenLine> lines;
    for (const double a : {0.8, 2.4, 4.0, 5.6})
        lines.push_back(
            {reach * Point2(std::cos(a), std::sin(a)) * 0.6, reach * Point2(std::cos(a), std::sin(a)) * 1.2});
    Progress quiet;
    const auto cut = [&] {
        auto scores = scored_for_net(mesh, above, lines, rules.cell);
        ClothCuts cuts{above, lines, {}};
        for (const auto& edges : scores.edges)
            cuts.edges.insert(cuts.edges.end(), edges.begin(), edges.end());
        benchmark::DoNotOptimize(drape(scores.mesh, cuts, rules, quiet).covered);
    };
    for (auto _ : state) cut();
    const auto whole = [&] { benchmark::DoNotOptimize(drape(mesh, topology, rules, quiet).covered); };
    state.counters["times_uncut"] = bench::fastest(3, cut) / bench::fastest(3, whole);
}
BENCHMARK(darts_in_a_dome)->Arg(2500)->Arg(10000)->Unit(benchmark::kMillisecond);

TriangleMesh plate(std::uint32_t n) {
    TriangleMesh out;
    for (std::uint32_t j = 0; j <= n; ++j) {
        for (std::uint32_t i = 0; i <= n; ++i)
            out.points.emplace_back(static_cast<double>(i) / n, static_cast<double>(j) / n, 0);
    }
    for (std::uint32_t j = 0; j < n; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = j * (n + 1) + i;
            out.triangles.push_back({a, a + 1, a + n + 2});
            out.triangles.push_back({a, a + n + 2, a + n + 1});
        }
    }
    return out;
}

/// A panel of a gentle bowl laid flat, beside its equations factored once and solved so often that every
/// round could use them up.
void a_panel_laid_flat(benchmark::State& state) {
    auto mesh = plate(static_cast<std::uint32_t>(state.range(0)));
    for (auto& p : mesh.points) p.z() = 0.15 * (p - Point(0.5, 0.5, 0)).squaredNorm();
    Progress quiet;
    const auto run = [&] { benchmark::DoNotOptimize(flatten(mesh, quiet).most); };
    for (auto _ : state) run();
    const auto n = static_cast<Eigen::Index>(mesh.points.size());
    std::vector<Eigen::Triplet<double>> triplets;
    for (const auto& t : mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto i = static_cast<int>(t[k]), j = static_cast<int>(t[(k + 1) % 3]);
            triplets.emplace_back(i, i, 1);
            triplets.emplace_back(j, j, 1);
            triplets.emplace_back(i, j, -1);
            triplets.emplace_back(j, i, -1);
        }
    }
    Eigen::SparseMatrix<double> matrix(n, n);
    matrix.setFromTriplets(triplets.begin(), triplets.end());
    matrix.coeffRef(0, 0) += 1;
    const Eigen::MatrixXd right = Eigen::MatrixXd::Random(n, 2);
    const auto bare = [&] {
        const Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver(matrix);
        for (int i = 0; i < 200; ++i) benchmark::DoNotOptimize(Eigen::MatrixXd(solver.solve(right)).norm());
    };
    state.counters["times_bare_solves"] = bench::fastest(3, run) / bench::fastest(3, bare);
    state.SetComplexityN(n);
}
BENCHMARK(a_panel_laid_flat)->Arg(20)->Arg(40)->Arg(80)->Unit(benchmark::kMillisecond)->Complexity();

/// Seconds of the whole face's system once through CHOLMOD, one point held.
double whole_system(const FlowNetwork& net) {
    cholmod_common c;
    cholmod_start(&c);
    c.print = 0;
    const auto n = net.count();
    cholmod_triplet* list = cholmod_allocate_triplet(n, n, n + net.to.size(), -1, CHOLMOD_REAL, &c);
    const auto put = [&](std::size_t i, std::size_t j, double v) {
        static_cast<int*>(list->i)[list->nnz] = static_cast<int>(i);
        static_cast<int*>(list->j)[list->nnz] = static_cast<int>(j);
        static_cast<double*>(list->x)[list->nnz++] = v;
    };
    for (std::size_t i = 0; i < n; ++i) {
        double sum = i == 0 ? 1e-6 : 0;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            sum += net.conducts[e];
            if (net.to[e] < i) put(i, net.to[e], -net.conducts[e]);
        }
        put(i, i, sum * (1 + 1e-9));
    }
    cholmod_sparse* matrix = cholmod_triplet_to_sparse(list, list->nnz, &c);
    cholmod_dense* right = cholmod_ones(n, 1, CHOLMOD_REAL, &c);
    const double out = bench::fastest(3, [&] {
        cholmod_factor* factor = cholmod_analyze(matrix, &c);
        cholmod_factorize(matrix, factor, &c);
        cholmod_dense* x = cholmod_solve(CHOLMOD_A, factor, right, &c);
        cholmod_free_dense(&x, &c);
        cholmod_free_factor(&factor, &c);
    });
    cholmod_free_dense(&right, &c);
    cholmod_free_sparse(&matrix, &c);
    cholmod_free_triplet(&list, &c);
    cholmod_finish(&c);
    return out;
}

/// The upper end of a plate, where it is drawn.
std::vector<std::uint32_t> drawn_end(const TriangleMesh& mesh) {
    std::vector<std::uint32_t> out;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
        if (mesh.points[i].x() > 1 - 1e-9 && mesh.points[i].y() > 0.8) out.push_back(i);
    }
    return out;
}

/// Seconds of a plate's filling by `feeds` side by side along a third of one end, each through a hose that
/// `resists`.
double filling(std::uint32_t n, FlowNetwork* net, std::size_t feeds = 1, double resists = 0) {
    const auto mesh = plate(n);
    const FlowLayer layer{1e-10, 1e-10, 1e-11, 0, 0.003, 0.5, 0, {}};
    const auto faces = face_flows(mesh, {layer}, Point::UnitX());
    std::vector<Feed> fed(feeds);
    for (auto& f : fed) f.resists = resists;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
        const Point& p = mesh.points[i];
        if (p.x() < 1e-9 && p.y() < 0.3)
            fed[static_cast<std::size_t>(p.y() / 0.3 * static_cast<double>(feeds))].points.push_back(i);
    }
    Vent vent;
    vent.points = drawn_end(mesh);
    const Viscosity resin(ThickeningResin{0.2, {}}, 0);
    Progress quiet;
    if (net != nullptr) *net = network_of(mesh, faces);
    return bench::fastest(
        1, [&] { benchmark::DoNotOptimize(fill(mesh, faces, fed, {vent}, resin, {}, quiet).filled); });
}

void a_whole_filling(benchmark::State& state) {
    const auto n = static_cast<std::uint32_t>(state.range(0));
    FlowNetwork net;
    double seconds = 0;
    for (auto _ : state) seconds = filling(n, &net);
    state.counters["points"] = static_cast<double>(net.count());
    state.counters["times_cholmod"] = seconds / whole_system(net);
    state.counters["growth_exponent"] =
        std::log2(seconds / filling(n * 7 / 10, nullptr)) / (2 * std::log2(10.0 / 7));
}
BENCHMARK(a_whole_filling)->Arg(141)->Arg(245)->Unit(benchmark::kMillisecond)->Iterations(1);

/// A ring of even rows between two radii, m.
TriangleMesh ring(double inner, double outer, std::uint32_t rows) {
    TriangleMesh out;
    const auto around =
        static_cast<std::uint32_t>(std::lround(rows * kPi * (outer + inner) / (outer - inner)));
    for (std::uint32_t r = 0; r <= rows; ++r) {
        const double radius = inner + (outer - inner) * r / rows;
        for (std::uint32_t k = 0; k < around; ++k) {
            const double at = 2 * kPi * (k + 0.5 * (r % 2)) / around;
            out.points.emplace_back(radius * std::cos(at), radius * std::sin(at), 0);
        }
    }
    for (std::uint32_t r = 0; r < rows; ++r) {
        for (std::uint32_t k = 0; k < around; ++k) {
            const auto next = (k + 1) % around;
            const auto a = r * around + k, b = r * around + next, up = (r + 1) * around;
            // Every other row lies half a step on.
            const auto c = up + (r % 2 == 0 ? k : next), d = up + (r % 2 == 0 ? next : k);
            if (r % 2 == 0) {
                out.triangles.push_back({a, b, c});
                out.triangles.push_back({b, d, c});
            } else {
                out.triangles.push_back({a, b, c});
                out.triangles.push_back({a, c, d});
            }
        }
    }
    return out;
}

/// How a radial filling closes in on its law, t = φμR²/4KΔp·(2·ln(R/r) − 1 + (r/R)²), on three meshes each
/// half as coarse as the one before: what they miss it by, and the order of that.
void a_radial_filling_closes_in(benchmark::State& state) {
    constexpr double kInner = 0.1, kOuter = 0.5, kK = 1e-10, kPhi = 0.5, kMu = 0.2, kDrop = 101325;
    const double law = kPhi * kMu * kOuter * kOuter / (4 * kK * kDrop) *
                       (2 * std::log(kOuter / kInner) - 1 + kInner * kInner / (kOuter * kOuter));
    std::vector<double> off;
    for (auto _ : state) {
        off.clear();
        for (const std::uint32_t rows : {10u, 20u, 40u}) {
            const auto mesh = ring(kInner, kOuter, rows);
            const auto faces =
                face_flows(mesh, {FlowLayer{kK, kK, kK / 10, 0, 0.003, kPhi, 0, {}}}, Point::UnitX());
            Feed feed;
            Vent vent;
            for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
                const double r = mesh.points[i].norm();
                if (r < kInner * (1 + 1e-9)) feed.points.push_back(i);
                if (r > kOuter * (1 - 1e-9)) vent.points.push_back(i);
            }
            Progress quiet;
            const auto f =
                fill(mesh, faces, {feed}, {vent}, Viscosity(ThickeningResin{kMu, {}}, 0), {}, quiet);
            off.push_back(std::abs(f.fill.value_or(0) / law - 1));
        }
    }
    state.counters["off_coarse"] = off[0];
    state.counters["off_middle"] = off[1];
    state.counters["off_fine"] = off[2];
    state.counters["order"] = std::log2(off[0] / off[2]) / 2;
}
BENCHMARK(a_radial_filling_closes_in)->Unit(benchmark::kMillisecond)->Iterations(1);

/// Beside the same without hoses: four feeds that share what they lead to, whose pressures are sought in
/// each step.
void a_filling_through_hoses(benchmark::State& state) {
    const auto n = static_cast<std::uint32_t>(state.range(0));
    const double resists = 4 / (1e-10 * 0.003);
    double seconds = 0;
    for (auto _ : state) seconds = filling(n, nullptr, 4, resists);
    state.counters["times_without"] = seconds / filling(n, nullptr, 4);
    state.counters["growth_exponent"] =
        std::log2(seconds / filling(n * 7 / 10, nullptr, 4, resists)) / (2 * std::log2(10.0 / 7));
}
BENCHMARK(a_filling_through_hoses)->Arg(71)->Arg(141)->Unit(benchmark::kMillisecond)->Iterations(1);

/// Seconds of what a full plate's pressures leave of it, an hour on.
double settling(std::uint32_t n, FlowNetwork* net) {
    const auto mesh = plate(n);
    FlowLayer layer{1e-10, 1e-10, 1e-11, 0, 0.003, 0.5, 0, {}};
    layer.gives = 0.1;
    const auto faces = face_flows(mesh, {layer}, Point::UnitX());
    std::vector<double> start;
    for (const auto& p : mesh.points) start.push_back(9e4 * (1 - p.x()));
    SettleRules rules;
    rules.flow_time = 3600 / 0.2;
    Progress quiet;
    if (net != nullptr) *net = network_of(mesh, faces);
    return bench::fastest(1, [&] {
        benchmark::DoNotOptimize(settle(mesh, faces, start, std::vector<char>(mesh.points.size(), 1),
                                        drawn_end(mesh), rules, quiet)
                                     .over);
    });
}

void a_preform_that_settles(benchmark::State& state) {
    const auto n = static_cast<std::uint32_t>(state.range(0));
    FlowNetwork net;
    double seconds = 0;
    for (auto _ : state) seconds = settling(n, &net);
    state.counters["points"] = static_cast<double>(net.count());
    state.counters["times_cholmod"] = seconds / whole_system(net);
    state.counters["growth_exponent"] =
        std::log2(seconds / settling(n * 7 / 10, nullptr)) / (2 * std::log2(10.0 / 7));
}
BENCHMARK(a_preform_that_settles)->Arg(71)->Arg(141)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace
