// What neighbouring points of a preform exchange: never less than nothing, and right for even fields.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/science/flow/fill.hpp"
#include "core/science/flow/ways.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

using Draw = std::mt19937;

double between(Draw& draw, double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(draw);
}

struct Sheet {
    TriangleMesh mesh;
    std::uint32_t across = 0, along = 0;
    [[nodiscard]] bool on_rim(std::uint32_t i) const {
        const auto x = i % (across + 1), y = i / (across + 1);
        return x == 0 || x == across || y == 0 || y == along;
    }
    [[nodiscard]] std::vector<std::uint32_t> side(unsigned which) const {
        std::vector<std::uint32_t> out;
        for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
            const auto x = i % (across + 1), y = i / (across + 1);
            if ((which == 0 && x == 0) || (which == 1 && x == across) || (which == 2 && y == 0) ||
                (which == 3 && y == along))
                out.push_back(i);
        }
        return out;
    }
};

/// A sheet whose points were pushed about and whose squares are parted either way, bent by `bend` m.
Sheet rough_sheet(Draw& draw, double push, double bend) {
    Sheet out;
    out.across = 8 + static_cast<std::uint32_t>(draw() % 20);
    out.along = 5 + static_cast<std::uint32_t>(draw() % 20);
    const double length = between(draw, 0.3, 2), width = between(draw, 0.2, 1.5);
    for (std::uint32_t j = 0; j <= out.along; ++j) {
        for (std::uint32_t i = 0; i <= out.across; ++i) {
            const bool rim = i == 0 || i == out.across || j == 0 || j == out.along;
            const double x = length * (i + (rim ? 0 : between(draw, -push, push))) / out.across,
                         y = width * (j + (rim ? 0 : between(draw, -push, push))) / out.along;
            out.mesh.points.emplace_back(x, y, bend * std::sin(3 * x) * std::cos(2 * y));
        }
    }
    for (std::uint32_t j = 0; j < out.along; ++j) {
        for (std::uint32_t i = 0; i < out.across; ++i) {
            const auto a = j * (out.across + 1) + i, up = a + out.across + 1;
            if (draw() % 2 == 0) {
                out.mesh.triangles.push_back({a, a + 1, up + 1});
                out.mesh.triangles.push_back({a, up + 1, up});
            } else {
                out.mesh.triangles.push_back({a, a + 1, up});
                out.mesh.triangles.push_back({a + 1, up + 1, up});
            }
        }
    }
    return out;
}

FlowLayer cloth(Draw& draw, double uneven) {
    FlowLayer out;
    out.K1 = 1e-10 * std::pow(10, between(draw, -1, 1));
    out.K2 = uneven * out.K1;
    out.angle = between(draw, 0, 3);
    out.thickness = 0.003;
    return out;
}

}  // namespace

TEST_CASE("no way conducts less than nothing, and even fields stay in balance inside, on any mesh") {
    Draw draw(11);
    for (int round = 0; round < 40; ++round) {
        INFO(round);
        const auto sheet = rough_sheet(draw, 0.3, 0);
        const auto layer = cloth(draw, between(draw, 0.15, 1));
        const auto faces = face_flows(sheet.mesh, {layer}, Point::UnitX());
        const auto ways = ways_between(sheet.mesh, faces);
        const Point slope(0.6, -0.8, 0);
        std::vector<double> net(sheet.mesh.points.size(), 0), gross(net);
        for (const auto& way : ways) {
            CHECK(way.from < way.to);
            CHECK(way.conducts >= 0);
            const double flow =
                way.conducts * slope.dot(sheet.mesh.points[way.from] - sheet.mesh.points[way.to]);
            net[way.from] += flow;
            net[way.to] -= flow;
            gross[way.from] += std::abs(flow);
            gross[way.to] += std::abs(flow);
        }
        // Beside the rim what the mesh cannot part otherwise was let go: one row of points.
        std::vector<char> beside(net.size(), 0);
        for (const auto& t : sheet.mesh.triangles) {
            if (!sheet.on_rim(t[0]) && !sheet.on_rim(t[1]) && !sheet.on_rim(t[2])) continue;
            for (const auto i : t) beside[i] = 1;
        }
        std::size_t inside = 0, uneven = 0;
        for (std::size_t i = 0; i < net.size(); ++i) {
            if (beside[i]) continue;
            ++inside;
            uneven += std::abs(net[i]) > 1e-9 * gross[i];
        }
        CHECK(inside > 0);
        CHECK(uneven == 0);
    }
}

TEST_CASE("a mesh of even triangles keeps the ways that linear triangles have") {
    // Squares parted by one diagonal, K the same both ways: along the sides K·h, along the diagonal nothing.
    TriangleMesh mesh;
    mesh.points = {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}};
    mesh.triangles = {{0, 1, 2}, {0, 2, 3}};
    FlowLayer layer;
    layer.K1 = layer.K2 = 2e-10;
    layer.thickness = 0.01;
    const auto faces = face_flows(mesh, {layer}, Point::UnitX());
    for (const auto& way : ways_between(mesh, faces)) {
        const bool diagonal = way.from == 0 && way.to == 2;
        CHECK(way.conducts == Approx(diagonal ? 0 : 1e-12).margin(1e-24));
    }
    // A kite whose long diagonal is its edge is parted across it: by hand, each of the four sides then
    // carries cot(θ)/2 of the angle across from it in both new triangles.
    mesh.points = {{-2, 0, 0}, {0, -0.5, 0}, {2, 0, 0}, {0, 0.5, 0}};
    mesh.triangles = {{0, 1, 2}, {0, 2, 3}};
    const auto kite = ways_between(mesh, face_flows(mesh, {layer}, Point::UnitX()));
    double cross = 0, side = 0;
    for (const auto& way : kite) {
        if (way.from == 1 && way.to == 3) cross = way.conducts;
        if (way.from == 0 && way.to == 1) side = way.conducts;
    }
    // In the triangle −2,0 | 0,−½ | 0,½ the angle at the tip has tan(θ/2) = ¼: cot θ = 15/8; the others ¼.
    CHECK(cross == Approx(2e-12 * (15.0 / 8 + 15.0 / 8) / 2));
    CHECK(side == Approx(2e-12 * 0.25 / 2));
}

TEST_CASE(
    "whatever the mesh, the cloth, the hoses and the weight: no resin is lost, none comes from nowhere") {
    Draw draw(5);
    for (int round = 0; round < 80; ++round) {
        INFO(round);
        const auto sheet = rough_sheet(draw, between(draw, 0, 0.35), round % 2 == 0 ? 0 : 0.2);
        auto faces = face_flows(sheet.mesh, {cloth(draw, between(draw, 0.1, 1))}, Point::UnitX());
        if (round % 3 == 0) {
            for (std::size_t f = 0; f < faces.size(); f += 2) faces[f].conducts *= 40;
        }
        const auto somewhere = [&] {
            return draw() % 2 == 0 ? sheet.side(draw() % 4)
                                   : std::vector<std::uint32_t>{
                                         static_cast<std::uint32_t>(draw() % sheet.mesh.points.size())};
        };
        std::vector<Feed> feeds(1 + draw() % 3);
        for (std::size_t f = 0; f < feeds.size(); ++f) {
            feeds[f].points = somewhere();
            feeds[f].pressure = 1e5;
            if (f > 0) feeds[f].open.time = between(draw, 0, 600);
        }
        std::vector<Vent> vents(draw() % 4);
        for (auto& vent : vents) vent = {somewhere(), draw() % 4 == 0 ? between(draw, 0, 2e4) : 1e3};
        FlowRules rules;
        rules.end = 1e7;
        if (round % 4 == 1)
            rules.gravity = {between(draw, -9, 9), between(draw, -9, 9), between(draw, -9, 0)};
        const auto f =
            fill(sheet.mesh, faces, feeds, vents, Viscosity(ThickeningResin{0.25, {}}, 0), rules, quiet);
        CHECK(f.filled > 0);
        CHECK(f.filled <= 1 + 1e-3);
        CHECK(f.taken == Approx(f.held + f.bled).epsilon(1e-9));
        CHECK(f.bled >= 0);
        // What runs off by a vent, and the last crumbs, cost no steps of their own.
        CHECK(f.steps < 2 / rules.share);
        for (const double p : f.pressure) CHECK(std::abs(p) < 1e6);
    }
}
