// Bars, ties and several skins: what a whole tool is built from.
#include <catch2/catch.hpp>
#include <functional>
#include <limits>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "tests/quiet.hpp"
#include "tests/science/shell/sheets.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace jig::shell_fe {
using namespace fixtures;

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

}  // namespace jig::shell_fe
