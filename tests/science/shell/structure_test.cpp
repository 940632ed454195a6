// Bars, ties, several skins and buckling: what a whole tool is built from.
#include <catch2/catch.hpp>
#include <functional>
#include <limits>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/shell/system.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using namespace jig::shell_fe;

namespace {

Progress quiet;

Laminate plate(double E, double nu, double h, double alpha = 0, double density = 1000) {
    const std::vector<StackPly> one{{isotropic(E, nu, density, alpha), 0, h}};
    return laminate(one);
}

/// Points on a grid of n × m cells laid into space, appended to a mesh; returns the first new point.
std::uint32_t sheet(TriangleMesh& mesh, int n, int m, const std::function<Point(double, double)>& place,
                    bool round = false) {
    const auto first = static_cast<std::uint32_t>(mesh.points.size());
    const int across = round ? n : n + 1;
    for (int j = 0; j <= m; ++j) {
        for (int i = 0; i < across; ++i)
            mesh.points.push_back(place(static_cast<double>(i) / n, static_cast<double>(j) / m));
    }
    const auto at = [&](int i, int j) { return first + static_cast<std::uint32_t>(j * across + i % across); };
    for (int j = 0; j < m; ++j) {
        for (int i = 0; i < n; ++i) {
            mesh.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            mesh.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    return first;
}

/// A scrap of shell that touches nothing, so that a structure of bars has a mesh at all.
void add_scrap(Model& model) {
    const auto i = static_cast<std::uint32_t>(model.mesh.points.size());
    for (const auto& p : {Point(9, 9, 9), Point(10, 9, 9), Point(9, 10, 9)}) model.mesh.points.push_back(p);
    model.mesh.triangles.push_back({i, i + 1, i + 2});
    model.skins = {{plate(1e9, 0.3, 0.01), Point::UnitX()}};
}

constexpr std::array<bool, 6> kAll{true, true, true, true, true, true};

}  // namespace

TEST_CASE("a bar bends, stretches and twists as books say, whichever way it points") {
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), shapes::odd_rotation()}) {
        Model model;
        const double L = 2;
        for (int i = 0; i < 2; ++i) model.mesh.points.push_back(turn * Point(L * i, 0, 0));
        Bar bar{0, 1};
        bar.stretch = 4e6;
        bar.bend_up = 900;
        bar.bend_across = 250;
        bar.twist = 120;
        bar.alpha = 12e-6;
        bar.mass = 3;
        bar.up = turn * Point(0, 0, 1);
        model.bars = {bar};
        add_scrap(model);
        const System s(model, {{{}, kAll, {0}}, {{}, kAll, {2, 3, 4}}}, quiet);
        const auto push = [&](const Point& force) {
            Loads l;
            l.nodes = {{1, turn * force}};
            return Point(turn.transpose() * s.solve(l).displacement(1));
        };
        CHECK(push({0, 0, 100}).z() == Approx(100 * L * L * L / (3 * 900)));
        CHECK(push({0, 100, 0}).y() == Approx(100 * L * L * L / (3 * 250)));
        CHECK(push({1000, 0, 0}).x() == Approx(1000 * L / 4e6));
        Loads warm;
        warm.warming = 50;
        CHECK((turn.transpose() * s.solve(warm).displacement(1)).x() == Approx(12e-6 * 50 * L));
        Loads weight;
        weight.gravity = turn * Point(0, 0, -10);
        // Half its mass is put on either end.
        CHECK((turn.transpose() * s.solve(weight).displacement(1)).z() ==
              Approx(-3 * L / 2 * 10 * L * L * L / (3 * 900)));
        CHECK(s.mass() == Approx(3 * L + 0.5 * 0.01 * 1000));
        CHECK((turn.transpose() * s.solve(weight).reactions).z() == Approx(s.mass() * 10).epsilon(1e-9));
    }
    Model bad;
    bad.mesh.points = {Point::Zero(), Point::Zero()};
    bad.bars = {{0, 1, 1, 1, 1, 1}};
    add_scrap(bad);
    CHECK_THROWS_AS(System(bad, {{{}, kAll, {0, 2, 3, 4}}}, quiet), InputError);
}

TEST_CASE("a tie gives way by its own stiffness, along and about, and no further") {
    Model model;
    model.mesh.points = {Point::Zero(), Point::Zero()};
    add_scrap(model);
    Tie tie{0, 1, Point(1e5, 2e5, 4e5).asDiagonal(), 50 * Eigen::Matrix3d::Identity()};
    model.ties = {tie};
    const System s(model, {{{}, kAll, {0}}, {{}, kAll, {2, 3, 4}}}, quiet);
    Loads l;
    l.nodes = {{1, {10, 20, 40}}};
    const auto u = s.solve(l);
    CHECK((u.displacement(1) - Point::Constant(1e-4)).norm() < 1e-12);
    CHECK((u.reactions + Point(10, 20, 40)).norm() < 1e-9);
    // Without a hold on its turning the point is no freedom at all, not a loose one.
    model.ties.front().turning.setZero();
    CHECK(System(model, {{{}, kAll, {0}}, {{}, kAll, {2, 3, 4}}}, quiet).freedoms() == 3);
}

TEST_CASE("a plate with a rib bends as the T that both make") {
    // Narrow and without cross contraction, so that beam theory is exact: section by parallel axes.
    const double L = 2, b = 0.1, h = 0.006, H = 0.08, t = 0.012, q = 500;
    const double Ep = 15e9, Er = 8e9;
    std::vector<double> wrong;
    for (const int n : {8, 16, 32}) {
        Model model;
        sheet(model.mesh, n, 4, [&](double u, double v) { return Point(L * u, b * (v - 0.5), 0); });
        model.skin.assign(model.mesh.triangles.size(), 0);
        // The rib's first row is the plate's middle row: welded point by point.
        const auto rib = sheet(model.mesh, n, 4, [&](double u, double v) { return Point(L * u, 0, -H * v); });
        const auto middle = static_cast<std::uint32_t>(2 * (n + 1));
        for (auto& tri : model.mesh.triangles) {
            for (auto& i : tri) {
                if (i >= rib && i < rib + static_cast<std::uint32_t>(n) + 1) i = middle + (i - rib);
            }
        }
        model.skin.resize(model.mesh.triangles.size(), 1);
        model.skins = {{plate(Ep, 0, h), Point::UnitX()}, {plate(Er, 0, t), Point::UnitX()}};
        std::vector<std::uint32_t> left, right;
        for (std::uint32_t j = 0; j <= 4; ++j) {
            left.push_back(j * static_cast<std::uint32_t>(n + 1));
            right.push_back(j * static_cast<std::uint32_t>(n + 1) + static_cast<std::uint32_t>(n));
        }
        const System s(model,
                       {{{}, {false, false, true, false, false, false}, left},
                        {{}, {false, false, true, false, false, false}, right},
                        {{}, {true, true, true, true, false, true}, {left[2]}},
                        {{}, {false, true, true, false, false, false}, {right[2]}}},
                       quiet);
        Loads l;
        std::vector<float> p(model.mesh.triangles.size(), 0.0f);
        for (std::size_t f = 0; f < p.size(); ++f) p[f] = model.skin[f] == 0 ? static_cast<float>(q) : 0.0f;
        l.pressures = p;
        const auto u = s.solve(l);
        CHECK(u.reactions.z() == Approx(q * L * b).epsilon(1e-5));
        const double Ap = Ep * b * h, Ar = Er * t * H, down = H / 2;
        const double axis = Ar * down / (Ap + Ar);
        const double EI = Ap * axis * axis + Ep * b * h * h * h / 12 + Er * t * H * H * H / 12 +
                          Ar * (down - axis) * (down - axis);
        // Shear goes through the rib; the plate adds little.
        const double GA = 5.0 / 6 * Er / 2 * t * H;
        const double beam = 5 * q * b * std::pow(L, 4) / (384 * EI) + q * b * L * L / (8 * GA);
        wrong.push_back(std::abs(-u.displacement(middle + static_cast<std::uint32_t>(n / 2)).z() / beam - 1));
    }
    CHECK(wrong.back() < 0.01);
    CHECK(wrong.back() < wrong.front());
}

TEST_CASE("strains come back from the solution in the laminate's own directions") {
    Model model;
    sheet(model.mesh, 3, 2, [](double u, double v) { return Point(0.3 * u, 0.2 * v, 0); });
    const auto l = plate(10e9, 0.3, 0.004);
    model.skins = {{l, Point(1, 1, 0)}};
    const System s(model,
                   {{{{0, -1, -1}, {0, 1, 1}}, {true, false, true, false, true, true}},
                    {{{0, 0, 0}, {0, 0, 0}}, {true, true, true, true, true, true}}},
                   quiet);
    Loads pull;
    pull.lines = {{{8000, 0, 0}, {{0.3, -1, -1}, {0.3, 1, 1}}}};
    const auto u = s.solve(pull);
    const double e = 8000 / (10e9 * 0.004);
    for (std::size_t f = 0; f < model.mesh.triangles.size(); ++f) {
        // Turned by 45°: both directions take the mean, the shear the difference.
        const auto strain = s.strain(f, u);
        CHECK(strain.middle[0] == Approx(e * (1 - 0.3) / 2));
        CHECK(strain.middle[1] == Approx(e * (1 - 0.3) / 2));
        CHECK(strain.middle[2] == Approx(-e * 1.3));
        CHECK(strain.curvature.norm() < 1e-9);
    }
}

TEST_CASE("a column of plate buckles at Euler's load, a plate pressed one way at 4π²D/b²") {
    const double E = 10e9, h = 0.01;
    {
        const double L = 1, b = 0.05;
        Model model;
        sheet(model.mesh, 20, 2, [&](double u, double v) { return Point(L * u, b * v, 0); });
        model.skins = {{plate(E, 0, h), Point::UnitX()}};
        const System s(model,
                       {{{{0, -1, -1}, {0, 1, 1}}, {true, false, true, true, false, true}},
                        {{{L, -1, -1}, {L, 1, 1}}, {false, false, true, true, false, true}},
                        {{{0, 0, 0}, {0, 0, 0}}, {true, true, true, false, false, false}}},
                       quiet);
        Loads push;
        push.lines = {{{-1, 0, 0}, {{L, -1, -1}, {L, 1, 1}}}};
        const auto found = s.buckling(s.solve(push), 0, quiet);
        CHECK(found.factor == Approx(kPi * kPi * E * h * h * h / 12 / (L * L)).epsilon(0.01));
        // Pulled it does not buckle.
        push.lines.front().force = {1, 0, 0};
        const auto pulled = s.buckling(s.solve(push), 0, quiet);
        CHECK((pulled.factor == 0 || pulled.factor > 100 * found.factor));
    }
    std::vector<double> wrong;
    for (const int n : {6, 12, 24}) {
        const double a = 1;
        Model model;
        sheet(model.mesh, n, n, [&](double u, double v) { return Point(a * u, a * v, 0); });
        model.skins = {{plate(E, 0.3, h), Point::UnitX()}};
        const auto edge = [&](const Point& low, const Point& high) {
            return Support{{low, high}, {false, false, true, false, false, false}};
        };
        const System s(model,
                       {edge({0, -1, -1}, {0, 2, 1}),
                        edge({a, -1, -1}, {a, 2, 1}),
                        edge({-1, 0, -1}, {2, 0, 1}),
                        edge({-1, a, -1}, {2, a, 1}),
                        {{{0, -1, -1}, {0, 2, 1}}, {true, false, true, false, false, false}},
                        {{{0, 0, 0}, {0, 0, 0}}, {true, true, true, false, false, false}}},
                       quiet);
        Loads push;
        push.lines = {{{-1, 0, 0}, {{a, -1, -1}, {a, 2, 1}}}};
        const double D = E * h * h * h / (12 * (1 - 0.09));
        wrong.push_back(
            std::abs(s.buckling(s.solve(push), 0, quiet).factor / (4 * kPi * kPi * D / (a * a)) - 1));
    }
    CHECK(wrong.back() < 0.02);
    CHECK(wrong.back() < wrong.front());
}

TEST_CASE("a cylinder in an envelope bag buckles where Donnell's shell does") {
    // Brush & Almroth 1975, art. 5.5: lateral pressure, simple ends, one half wave along and n round.
    const double R = 1, L = 1, t = 0.02, E = 10e9, nu = 0.3;
    const double lambda = kPi * R / L;
    double closed = std::numeric_limits<double>::infinity();
    int waves = 0;
    for (int n = 2; n < 20; ++n) {
        const double s = lambda * lambda + n * n, n2 = static_cast<double>(n) * n;
        const double p =
            E * t / R *
            (s * s * (t / R) * (t / R) / (12 * (1 - nu * nu) * n2) + std::pow(lambda, 4) / (n2 * s * s));
        if (p < closed) {
            closed = p;
            waves = n;
        }
    }
    CHECK(waves == 7);
    std::vector<double> wrong;
    for (const int n : {36, 72}) {
        Model model;
        sheet(
            model.mesh, n, n / 4,
            [&](double u, double v) {
                return Point(R * std::cos(2 * kPi * u), R * std::sin(2 * kPi * u), L * v);
            },
            true);
        model.skins = {{plate(E, nu, t), Point::UnitZ()}};
        const System s(model,
                       {{{{-9, -9, 0}, {9, 9, 0}}, {true, true, false, false, false, false}},
                        {{{-9, -9, L}, {9, 9, L}}, {true, true, false, false, false, false}},
                        {{{R, 0, 0}, {R, 0, 0}}, {true, true, true, false, false, false}}},
                       quiet);
        Loads bag;
        bag.pressure = 1;
        wrong.push_back(std::abs(s.buckling(s.solve(bag), 0, quiet).factor / closed - 1));
    }
    // The ends' own bending, which Donnell's membrane leaves out, and pressure that keeps its direction cost
    // some.
    CHECK(wrong.back() < 0.08);
    CHECK(wrong.back() < wrong.front());
}

TEST_CASE("buckling is found beside any tension, and what is not found is not called safe") {
    // A square plate pressed one way and pulled half as hard the other: λ·(m² − n²/2) = π²D/a²·(m² + n²)²,
    // least for m = 2, n = 1 (Timoshenko & Gere 1961, art. 9.3).
    const double E = 10e9, h = 0.01, a = 1, D = E * h * h * h / (12 * (1 - 0.09));
    const auto edge = [&](const Point& low, const Point& high) {
        return Support{{low, high}, {false, false, true, false, false, false}};
    };
    const std::vector<Support> simple{edge({0, -1, -1}, {0, 2, 1}),
                                      edge({a, -1, -1}, {a, 2, 1}),
                                      edge({-1, 0, -1}, {2, 0, 1}),
                                      edge({-1, a, -1}, {2, a, 1}),
                                      {{{0, -1, -1}, {0, 2, 1}}, {true, false, true, false, false, false}},
                                      {{{-1, 0, -1}, {2, 0, 1}}, {false, true, true, false, false, false}}};
    Model model;
    sheet(model.mesh, 20, 20, [&](double u, double v) { return Point(a * u, a * v, 0); });
    model.skins = {{plate(E, 0.3, h), Point::UnitX()}};
    Loads load;
    load.lines = {{{-1, 0, 0}, {{a, -1, -1}, {a, 2, 1}}}, {{0, 0.5, 0}, {{-1, a, -1}, {2, a, 1}}}};
    const System s(model, simple, quiet);
    const auto found = s.buckling(s.solve(load), 0, quiet);
    const double closed = kPi * kPi * D / (a * a) * 25 / 3.5;
    CHECK(found.factor == Approx(closed).epsilon(0.02));
    CHECK(found.none_below < found.factor);
    CHECK(found.none_below > 0.99 * found.factor);
    // A second plate beside it under a thousand times the pull hides nothing, wherever it lies.
    auto both = model;
    sheet(both.mesh, 8, 8, [&](double u, double v) { return Point(a * u, 3 + a * v, 0); });
    auto held = simple;
    held.push_back({{{0, 2.9, -1}, {0, 5, 1}}, {true, true, true, true, true, true}});
    auto pulled = load;
    pulled.lines.push_back({{1000, 0, 0}, {{a, 2.9, -1}, {a, 5, 1}}});
    const System two(both, held, quiet);
    CHECK(two.buckling(two.solve(pulled), 0, quiet).factor == Approx(found.factor).epsilon(0.01));
    // Pulled both ways: looked for as far as asked, and said so.
    load.lines[0].force = {1, 0, 0};
    const auto safe = s.buckling(s.solve(load), 0, quiet, 1e7);
    CHECK(safe.factor == 0);
    CHECK(safe.none_below == 1e7);
    // The factor is past what was looked through: not found, and safe only so far.
    load.lines[0].force = {-1, 0, 0};
    const auto near = s.buckling(s.solve(load), 0, quiet, 0.5 * closed);
    CHECK(near.factor == 0);
    CHECK(near.none_below <= 0.5 * closed);
}

TEST_CASE("bars take part in buckling: Euler's columns, hinged, built in below, pulled, and turned") {
    const double L = 2, EI = 5000;
    const int n = 12;
    const auto column = [&](bool built_in, double push, const Eigen::Matrix3d& turn) {
        Model model;
        for (int i = 0; i <= n; ++i) model.mesh.points.push_back(turn * Point(L * i / n, 0, 0));
        for (std::uint32_t i = 0; i < n; ++i) {
            Bar bar{i, i + 1};
            bar.stretch = 1e8;
            bar.bend_up = EI;
            bar.bend_across = 4 * EI;
            bar.twist = EI;
            bar.up = turn * Point::UnitZ();
            model.bars.push_back(bar);
        }
        add_scrap(model);
        const auto scrap = static_cast<std::uint32_t>(n + 1);
        std::vector<Support> held{{{}, kAll, {scrap, scrap + 1, scrap + 2}}};
        if (built_in) {
            held.push_back({{}, kAll, {0}});
        } else {
            // Turned columns are only built in: their hinges are not along the axes.
            held.push_back({{}, {true, true, true, true, false, false}, {0}});
            held.push_back({{}, {false, true, true, false, false, false}, {n}});
        }
        const System s(model, held, quiet);
        Loads loads;
        loads.nodes = {{n, turn * Point(-push, 0, 0)}};
        return s.buckling(s.solve(loads), 0, quiet, 1e9).factor;
    };
    const Eigen::Matrix3d straight = Eigen::Matrix3d::Identity();
    CHECK(column(false, 1, straight) == Approx(kPi * kPi * EI / (L * L)).epsilon(1e-3));
    CHECK(column(true, 1, straight) == Approx(kPi * kPi * EI / (4 * L * L)).epsilon(1e-3));
    CHECK(column(true, 1, shapes::odd_rotation()) == Approx(kPi * kPi * EI / (4 * L * L)).epsilon(1e-3));
    CHECK(column(true, 3, straight) == Approx(kPi * kPi * EI / (12 * L * L)).epsilon(1e-3));
    CHECK(column(false, -1, straight) == 0);
}

TEST_CASE("whatever supports leave free is refused and named, each part that hangs together by itself") {
    const auto refused = [&](const Model& model, const std::vector<Support>& held) -> std::string {
        try {
            const System s(model, held, quiet);
        } catch (const InputError& e) {
            return e.problem();
        }
        return {};
    };
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), shapes::odd_rotation()}) {
        for (const double size : {0.001, 1.0, 1000.0}) {
            Model model;
            sheet(model.mesh, 6, 6,
                  [&](double u, double v) -> Point { return turn * (size * Point(u, v, 0)); });
            model.skins = {{plate(10e9, 0.3, 0.01 * size), turn * Point::UnitX()}};
            const auto last = static_cast<std::uint32_t>(model.mesh.points.size()) - 1;
            // Three points all ways hold it; two leave it to turn about the line between them.
            CHECK(refused(model, {{{}, {true, true, true, false, false, false}, {0, 6, last}}}).empty());
            CHECK(
                refused(model, {{{}, {true, true, true, false, false, false}, {0, 6}}}).find("turn about") !=
                std::string::npos);
            CHECK(refused(model, {{{}, {true, true, true, false, false, false}, {0}}}).find("turn about") !=
                  std::string::npos);
            // Rotations alone never hold a shift.
            CHECK(
                refused(model, {{{}, {false, false, false, true, true, true}, {0, 6, last}}}).find("shift") !=
                std::string::npos);
        }
    }
    // Held across itself only, it slides: the direction is named.
    Model flat;
    sheet(flat.mesh, 6, 6, [](double u, double v) { return Point(u, v, 0); });
    flat.skins = {{plate(10e9, 0.3, 0.01), Point::UnitX()}};
    const Bounds all{{-9, -9, -9}, {9, 9, 9}};
    CHECK(refused(flat, {{all, {false, false, true, false, false, false}}}).find("shift along") !=
          std::string::npos);
    CHECK(refused(flat, {{all, {true, false, true, false, false, false}}}).find("shift along (0, 1, 0)") !=
          std::string::npos);
    // A second plate that nothing holds, and one that a tie holds.
    auto two = flat;
    const auto other = sheet(two.mesh, 3, 3, [](double u, double v) { return Point(u, v, 2); });
    const Support low{{{-1, -1, -1}, {2, 2, 1}}, kAll};
    CHECK(refused(two, {low}).find("one of 2 parts") != std::string::npos);
    for (std::uint32_t i = 0; i < 3; ++i) {
        Tie tie;
        tie.a = i * 3;
        tie.b = other + (i == 2 ? 15 : i * 3);
        tie.stiffness = 1e6 * Eigen::Matrix3d::Identity();
        two.ties.push_back(tie);
    }
    CHECK(refused(two, {low}).empty());
}

TEST_CASE("boxes do not fatten with their size, junctions are no rims, and odd meshes are said") {
    Model model;
    // Three plates meet along x = 0.
    sheet(model.mesh, 4, 4, [](double u, double v) { return Point(u, v, 0); });
    const auto line = [&](int j) { return static_cast<std::uint32_t>(j * 5); };
    for (const auto& way : {Point(-1, 0, 0), Point(0, 0, 1)}) {
        std::vector<std::vector<std::uint32_t>> rows(5);
        for (int j = 0; j < 5; ++j) {
            rows[static_cast<std::size_t>(j)].push_back(line(j));
            for (int i = 1; i <= 4; ++i) {
                rows[static_cast<std::size_t>(j)].push_back(
                    static_cast<std::uint32_t>(model.mesh.points.size()));
                model.mesh.points.push_back(Point(0, j / 4.0, 0) + i / 4.0 * way);
            }
        }
        for (std::size_t j = 0; j < 4; ++j) {
            for (std::size_t i = 0; i < 4; ++i) {
                model.mesh.triangles.push_back({rows[j][i], rows[j][i + 1], rows[j + 1][i + 1]});
                model.mesh.triangles.push_back({rows[j][i], rows[j + 1][i + 1], rows[j + 1][i]});
            }
        }
    }
    model.skins = {{plate(10e9, 0.3, 0.01), Point(1, 1, 1)}};
    const Support far_edge{{{1, -1, -1}, {1, 2, 1}}, kAll};
    const System s(model, {far_edge}, quiet);
    Loads loads;
    loads.lines = {{{0, 0, -10}, {{-0.1, -1, -0.1}, {0.1, 2, 0.1}}}};
    // The plates' outer edges end there too, but no edge of a rim lies in the box whole.
    CHECK_THROWS_AS(s.solve(loads), InputError);
    loads.lines = {{{0, 0, -10}, {{-1.1, -1, -0.1}, {-0.9, 2, 0.1}}}};
    CHECK(s.solve(loads).reactions.z() == Approx(10));
    // A box a million metres wide ends where it says: 0.1 mm short of the plate it holds nothing.
    CHECK_THROWS_AS(System(model, {{{{-1e6, -1e6, -1e6}, {-1.0001, 1e6, 1e6}}, kAll}}, quiet), InputError);
    CHECK_NOTHROW(System(model, {{{{-1e6, -1e6, -1e6}, {-0.9999, 1e6, 1e6}}, kAll}}, quiet));
    CHECK(s.notes().empty());
    CHECK(s.solve(std::vector<Loads>{}).empty());
    auto odd = model;
    std::swap(odd.mesh.triangles[3][0], odd.mesh.triangles[3][1]);
    odd.mesh.points.push_back(odd.mesh.points[12]);
    odd.mesh.triangles[20][0] = static_cast<std::uint32_t>(odd.mesh.points.size()) - 1;
    const auto said = System(odd, {far_edge}, quiet).notes();
    CHECK(std::any_of(said.begin(), said.end(),
                      [](const auto& n) { return n.find("opposite ways") != std::string::npos; }));
}
