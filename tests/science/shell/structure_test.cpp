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
