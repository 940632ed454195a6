// The flange: its surface, its fittings, its joint, its template.
#include <catch2/catch.hpp>
#include <Eigen/Dense>

#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/edge/findings.hpp"
#include "core/stages/edge/flange.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using namespace fixtures;

namespace {

/// Half way between two built-in ends of a beam on an elastic bed, by finite differences: EI·w'''' + k·w = q.
double by_differences(double q, double k, double EI, double L) {
    // Both halves of the joint part: w is the whole opening, EI that of one flange, so half of it counts.
    const double bend = EI / 2;
    constexpr int n = 200;
    const double h = L / n;
    Eigen::MatrixXd A = Eigen::MatrixXd::Zero(n - 1, n - 1);
    Eigen::VectorXd b = Eigen::VectorXd::Constant(n - 1, q);
    const double c = bend / std::pow(h, 4);
    for (int i = 0; i < n - 1; ++i) {
        const auto add = [&](int j, double v) {
            // Built-in: the point beyond an end mirrors the one before it.
            if (j == -2) j = 0;
            if (j == n) j = n - 2;
            if (j >= 0 && j < n - 1) A(i, j) += c * v;
        };
        add(i - 2, 1);
        add(i - 1, -4);
        add(i, 6);
        add(i + 1, -4);
        add(i + 2, 1);
        A(i, i) += k;
    }
    const Eigen::VectorXd w = A.lu().solve(b);
    return w[n / 2 - 1];
}

Loop ring(double radius) {
    Loop out;
    for (int i = 0; i < 120; ++i)
        out.emplace_back(radius * std::cos(2 * kPi * i / 120), radius * std::sin(2 * kPi * i / 120));
    return out;
}

}  // namespace

TEST_CASE("a joint opens between its bolts as a beam on its seal does") {
    for (const double k : {1e5, 2e6, 5e7}) {
        for (const double L : {0.08, 0.15, 0.4})
            CHECK(edge::gap_between_bolts(2000, k, 9, L) ==
                  Approx(by_differences(2000, k, 9, L)).epsilon(2e-3));
    }
    // Hardly any seal: qL⁴/384 of half the bending stiffness. Far apart: the seal is squeezed out.
    CHECK(edge::gap_between_bolts(2000, 1, 9, 0.15) ==
          Approx(2000 * std::pow(0.15, 4) / (384 * 4.5)).epsilon(1e-4));
    CHECK(edge::gap_between_bolts(2000, 2e6, 9, 5) == Approx(2000 / 2e6).epsilon(1e-3));
    edge::Choices c;
    c.seal.gap = 1e-4;
    const auto j = edge::joint_of(c, 150, 0.06, 1000);
    REQUIRE(j.pitch_for_gap > 0);
    CHECK(edge::gap_between_bolts(j.load, c.seal.stiffness, j.bending, j.pitch_for_gap) ==
          Approx(1e-4).epsilon(1e-6));
    CHECK(j.load == Approx(c.seal.stiffness * c.seal.squeeze + 1000));
}

TEST_CASE("past lift-off a strip does not pull the joint shut") {
    const double EI = 9, L = 0.4;
    const auto bare = [&](double q) { return q * std::pow(L, 4) / (192 * EI); };
    // While the strip still pushes everywhere, both say the same.
    CHECK(edge::gap_past_lift_off(100, 1e5, 0.02, EI, L) ==
          Approx(edge::gap_between_bolts(1e5 * 0.02 + 100, 1e5, EI, L)).epsilon(1e-9));
    // A stiff strip squeezed by a hair lets go at once: what is left is the opening on the bare flanges.
    const double open = edge::gap_past_lift_off(2000, 5e7, 1e-6, EI, L);
    CHECK(open == Approx(bare(2000)).epsilon(0.05));
    CHECK(edge::gap_between_bolts(5e7 * 1e-6 + 2000, 5e7, EI, L) <
          0.1 * open);  // what a pulling bed would say
    // Between: finite differences from bolt to bolt, the strip pushing where it is still squeezed.
    const double k = 2e6, s = 4e-4, q = 1500, stiff = 200;
    constexpr int n = 120;
    const double c4 = stiff / 2 / std::pow(L / n, 4);
    Eigen::VectorXd w = Eigen::VectorXd::Zero(n + 1);
    for (int round = 0; round < 50; ++round) {
        Eigen::MatrixXd A = Eigen::MatrixXd::Identity(n + 1, n + 1);
        Eigen::VectorXd f = Eigen::VectorXd::Zero(n + 1);
        for (int i = 1; i < n; ++i) {
            A.row(i).setZero();
            // Built in: the place beyond a bolt mirrors the one before it.
            const std::array<double, 5> share{1, -4, 6, -4, 1};
            for (int j = 0; j < 5; ++j) {
                const int at = i + j - 2;
                A(i, at < 0 ? 1 : at > n ? n - 1 : at) += share[static_cast<std::size_t>(j)] * c4;
            }
            const bool pushes = w[i] < s;
            if (pushes) A(i, i) += k;
            f[i] = q + (pushes ? k * s : 0);
        }
        w = A.fullPivLu().solve(f);
    }
    CHECK(w[n / 2] > 1.5 * s);
    CHECK(edge::gap_past_lift_off(q, k, s, stiff, L) == Approx(w[n / 2]).epsilon(0.02));
    CHECK(edge::gap_between_bolts(q + k * s, k, stiff, L) < 0.9 * w[n / 2]);
}

TEST_CASE("sides take more grip each on its own") {
    edge::Sides more;
    more.ahead = 0.1;
    more.right = 0.05;
    const auto out = edge::stretched({ring(0.5)}, more);
    CHECK(high_corner(out).x() == Approx(0.6).margin(1e-6));
    CHECK(low_corner(out).x() == Approx(-0.5).margin(1e-6));
    CHECK(high_corner(out).y() == Approx(0.5).margin(1e-3));
    CHECK(low_corner(out).y() == Approx(-0.55).margin(1e-3));
    CHECK(net_area(out) > net_area({ring(0.5)}) + 0.9 * 0.1);
}

TEST_CASE("a flange is welded to the rim and lies flat or follows it") {
    // A dome whose rim leans: the heights of its rim run from 0 to 0.1.
    auto dome = shapes::turned({{0.5, 0}, {0.45, 0.1}, {0.3, 0.2}}, 60, false, true);
    for (auto& p : dome.points) p.z() += 0.1 * (p.x() + 0.5) * (1 - p.z() / 0.2);
    const Frame frame{Point::UnitX(), Point::UnitY(), Point::UnitZ()};
    for (const auto lie : {FlangeLie::flat, FlangeLie::following}) {
        const auto r = edge::rimmed(dome, frame, {ring(0.58)}, lie, -0.02, 0.02, 0.03);
        const auto topology = topology_of(r.mesh);
        CHECK(topology.crowded_edges == 0);
        CHECK(topology.turned_edges == 0);
        const auto rims = rim_loops(r.mesh, topology);
        REQUIRE(rims.size() == 1);
        for (const auto i : rims.front()) {
            const auto& p = r.mesh.points[i];
            CHECK(p.head<2>().norm() == Approx(0.58).epsilon(0.01));
            if (lie == FlangeLie::flat)
                CHECK(p.z() == Approx(-0.02).margin(1e-9));
            else
                CHECK(p.z() == Approx(0.1 * (0.5 * p.x() / 0.58 + 0.5)).margin(0.006));
        }
        CHECK(r.flange_area > kPi * (0.58 * 0.58 - 0.25) * 0.98);
    }
    CHECK_THROWS_AS(edge::rimmed(dome, frame, {ring(0.4)}, FlangeLie::flat, 0, 0.02, 0.03), InputError);
    CHECK_THROWS_AS(
        edge::rimmed(shapes::box({0, 0, 0}, {1, 1, 1}), frame, {ring(3)}, FlangeLie::flat, 0, 0.02, 0.03),
        InputError);
}

TEST_CASE("fittings are laid out by the rules, clear of corners, and can be the maker's own") {
    auto job = small_job();
    job.brief.process = Process::squeeze;
    job.edge.bolt_pitch = 0.12;
    const auto f = worked_out(job);
    REQUIRE(f.edge->tool);
    const double way = perimeter(f.edge->fitting_line);
    CHECK(f.edge->count(Fitting::bolt) == static_cast<int>(std::ceil(way / 0.12)));
    CHECK(f.edge->bolts == f.edge->count(Fitting::bolt));
    CHECK(f.edge->count(Fitting::dowel) == 2);
    CHECK(f.edge->count(Fitting::wedge) >= 2);
    for (const auto& fit : f.edge->fits) {
        if (fit.kind == Fitting::port) continue;
        CHECK(holds(f.edge->outer, fit.place));
        CHECK_FALSE(holds(f.split->rims, fit.place));
        CHECK_FALSE(
            holds(offset(f.split->joined, job.edge.trim + job.edge.channel + job.edge.tape_land - 1e-3),
                  fit.place));
        // Its way out leads out.
        CHECK_FALSE(holds(f.edge->outer, fit.place + 0.5 * job.edge.grip * 1.2 * fit.outward));
        CHECK(edge::share_near(f.edge->fitting_line, fit.place) == Approx(fit.at).margin(2e-3));
    }
    // Every round hole of the template, and every slot taken from the outline.
    const auto sheet = edge::drilling_template(job.edge, *f.edge, shop());
    double rims = 0, holes = 0;
    for (const auto& rim : f.split->rims) rims += std::abs(signed_area(rim));
    for (const auto& fit : f.edge->fits) {
        const double d = edge::hole_of(fit.kind, job.edge, shop());
        holes += kPi * d * d / 4;
    }
    CHECK(net_area(sheet) == Approx(net_area(f.edge->outline) - rims - holes).epsilon(2e-3));
    CHECK(net_area(f.edge->outline) < net_area(f.edge->outer));
    job.edge.by_rule = false;
    job.edge.placed = {{Fitting::bolt, 0.25}, {Fitting::bush, 0.5}};
    const auto own = worked_out(job);
    CHECK(own.edge->count(Fitting::bolt) == 1);
    CHECK(own.edge->count(Fitting::bush) == 1);
    CHECK(own.edge->count(Fitting::wedge) == 0);
    REQUIRE(call(own, "dowels") != nullptr);
    REQUIRE(call(own, "aids") != nullptr);
    CHECK(call(worked_out(patched(job, call(own, "aids")->fix->patch)), "aids") == nullptr);
    // Bought and drilled.
    bool bush = false;
    for (const auto& m : own.run->materials) bush |= m.what == "threaded bush M8" && m.amount == 1;
    CHECK(bush);
}

TEST_CASE("a fitting snaps to quarters of the pitch and keeps off corners") {
    Loop square{{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    for (double at = 0; at < 1; at += 0.013) {
        const auto to = edge::snapped(square, at, 0.2);
        const auto place = edge::fit_at(square, Fitting::bolt, to).place;
        for (const auto& corner : square) CHECK((place - corner).norm() > 0.015);
        CHECK(std::min(std::abs(to - at), 1 - std::abs(to - at)) * 4 < 0.13);
    }
}

TEST_CASE("deep flats get air ports, shallow trays none, and the width says what does not fit") {
    auto job = small_job();
    const auto deep = worked_out(job);
    CHECK(deep.edge->count(Fitting::port) >= 1);
    for (const auto& fit : deep.edge->fits) {
        if (fit.kind == Fitting::port) CHECK(holds(deep.split->rims, fit.place));
    }
    job.shape.tray.depth = 0.03;
    job.shape.tray.edge_radius = 0.02;
    CHECK(worked_out(job).edge->count(Fitting::port) == 0);
    job.edge.wedge_length = 0.09;
    const auto f = worked_out(job);
    REQUIRE(call(f, "wedge") != nullptr);
    CHECK(call(worked_out(patched(job, call(f, "wedge")->fix->patch)), "wedge") == nullptr);
    job.brief.process = Process::squeeze;
    job.edge.grip = 0.015;
    REQUIRE(call(worked_out(job), "grip") != nullptr);
}
