// What resin's pressure leaves of a preform, against consolidation in closed form and by finite differences.
#include "core/science/flow/settle.hpp"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

constexpr double kLength = 0.6, kWidth = 0.1, kPlyK = 2e-10, kPlyDeep = 0.004, kGives = 0.1, kRoom = 101325;

TriangleMesh settling_strip(std::uint32_t n) {
    return shapes::plate(kLength, kWidth, n, n / 6);
}

std::vector<FaceFlow> preform(const TriangleMesh& mesh, double gives = kGives) {
    FlowLayer cloth;
    cloth.K1 = cloth.K2 = kPlyK;
    cloth.thickness = kPlyDeep;
    cloth.gives = gives;
    return face_flows(mesh, {cloth}, Point::UnitX());
}

std::vector<std::uint32_t> right_end(const TriangleMesh& mesh) {
    std::vector<std::uint32_t> out;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
        if (mesh.points[i].x() > kLength - 1e-9) out.push_back(i);
    }
    return out;
}

SettleRules rules(double flow_time) {
    SettleRules out;
    out.room = kRoom;
    out.flow_time = flow_time;
    return out;
}

SettledPlies settled(const TriangleMesh& mesh, const std::vector<double>& start, const SettleRules& r,
                     bool vented = true, double gives = kGives) {
    return settle(mesh, preform(mesh, gives), start, std::vector<char>(mesh.points.size(), 1),
                  vented ? right_end(mesh) : std::vector<std::uint32_t>{}, r, quiet);
}

/// m³ over in a settling_strip whose resin has a pressure along x, by the midpoint rule.
template <class Pressure>
double over(const Pressure& pressure) {
    double sum = 0;
    for (int i = 0; i < 4000; ++i) {
        const double load = std::max(kRoom - pressure(kLength * (i + 0.5) / 4000), 3000.0);
        sum += kLength * kWidth * kPlyDeep * (std::pow(load / kRoom, -kGives) - 1) / 4000;
    }
    return sum;
}

}  // namespace

TEST_CASE("a ply is as thick as its load lets it be") {
    auto r = rules(0);
    r.vacuum = 1325;
    CHECK(thickened(0.1, 1325, r) == Approx(1));
    CHECK(thickened(0.1, 51325, r) == Approx(std::pow(2, 0.1)));
    CHECK(thickened(0.1, 91325, r) == Approx(std::pow(10, 0.1)));
    CHECK(thickened(0, 91325, r) == 1);
    // Resin at the room's own pressure leaves the bag's own weight and no infinity.
    CHECK(thickened(0.1, kRoom, r) == Approx(std::pow(100.0 / 3, 0.1)));
    CHECK(thickened(0.1, 2 * kRoom, r) == thickened(0.1, kRoom, r));
}

TEST_CASE("a small overpressure drains by Terzaghi's series") {
    // Storage b·h/load per Pa: D = K·load/b in flow time, drained at one end and shut at the other.
    const double small = 200, D = kPlyK * kRoom / kGives;
    for (const double Tv : {0.05, 0.3, 1.0}) {
        const double flow_time = Tv * kLength * kLength / D;
        const auto at = [&](double x) {
            double sum = 0;
            for (int n = 0; n < 60; ++n) {
                const double M = kPi * (2 * n + 1) / 2;
                sum += 2 / M * std::sin(M * (kLength - x) / kLength) * std::exp(-M * M * Tv);
            }
            return small * sum;
        };
        for (const std::uint32_t n : {12u, 24u, 48u}) {
            const auto mesh = settling_strip(n);
            const auto s = settled(mesh, std::vector<double>(mesh.points.size(), small), rules(flow_time));
            double off = 0;
            for (std::size_t i = 0; i < mesh.points.size(); ++i)
                off = std::max(off, std::abs(s.pressure[i] - at(mesh.points[i].x())) / small);
            CHECK(off < (n == 48 ? 0.006 : 0.03));
            // What is left over is what the pressures say is.
            CHECK(s.over - s.drawn == Approx(over(at)).epsilon(0.05));
        }
    }
}

TEST_CASE("resin that bore nearly all of the load drains as fine differences do") {
    // From a feed at nearly the room's pressure down to the vent, explicitly on 120 cells.
    constexpr int kCells = 120;
    const double dx = kLength / kCells, flow_time = 0.15 * kLength * kLength / (kPlyK * kRoom / kGives);
    const auto start = [](double x) { return 0.95 * kRoom * (1 - x / kLength); };
    std::vector<double> p(kCells);
    for (int i = 0; i < kCells; ++i) p[static_cast<std::size_t>(i)] = start((i + 0.5) * dx);
    const double dt = 0.2 * dx * dx / (kPlyK * kRoom / kGives);
    double t = 0;
    while (t < flow_time) {
        const double step = std::min(dt, flow_time - t);
        std::vector<double> flux(kCells + 1, 0);
        for (int i = 1; i < kCells; ++i)
            flux[static_cast<std::size_t>(i)] =
                kPlyK * (p[static_cast<std::size_t>(i - 1)] - p[static_cast<std::size_t>(i)]) / dx;
        flux[kCells] = kPlyK * p[kCells - 1] / (dx / 2);
        for (std::size_t i = 0; i < kCells; ++i) {
            // Stored per depth: (load/room)^−b, turned back into a pressure.
            const double stored =
                std::pow((kRoom - p[i]) / kRoom, -kGives) - step * (flux[i + 1] - flux[i]) / dx;
            p[i] = kRoom - kRoom * std::pow(stored, -1 / kGives);
        }
        t += step;
    }
    const auto mesh = settling_strip(48);
    std::vector<double> begin;
    for (const auto& at : mesh.points) begin.push_back(start(at.x()));
    const auto s = settled(mesh, begin, rules(flow_time));
    CHECK(s.over == Approx(over(start)).epsilon(0.01));
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        const double x = mesh.points[i].x();
        if (x > kLength - dx) continue;
        const auto cell = std::min<std::size_t>(static_cast<std::size_t>(x / dx), kCells - 1);
        CHECK(s.pressure[i] == Approx(p[cell]).margin(0.02 * kRoom));
        CHECK(s.thick_begin[i] == Approx(std::pow(1 - 0.95 * (1 - x / kLength), -kGives)));
    }
    CHECK(s.drawn > 0);
    CHECK(s.drawn < s.over);
}

TEST_CASE("with its vents shut too the preform evens out and keeps its resin") {
    const auto mesh = settling_strip(24);
    std::vector<double> begin;
    for (const auto& at : mesh.points) begin.push_back(0.9 * kRoom * (1 - at.x() / kLength));
    const auto s = settled(mesh, begin, rules(1e9), false);
    CHECK(s.drawn == Approx(0).margin(1e-6 * s.over));
    const double even = s.pressure.front();
    for (const double p : s.pressure) CHECK(p == Approx(even).epsilon(1e-3));
    // The pressure at which the same resin lies over everywhere alike.
    const double thick = 1 + s.over / (kLength * kWidth * kPlyDeep);
    CHECK(even == Approx(kRoom - kRoom * std::pow(thick, -1 / kGives)).epsilon(1e-3));
}

TEST_CASE("what does not give keeps its thickness, gravity leaves the foot thicker, turning is nothing") {
    const auto mesh = settling_strip(24);
    const std::vector<double> begin(mesh.points.size(), 5e4);
    for (const bool vented : {true, false}) {
        const auto stiff = settled(mesh, begin, rules(1e7), vented, 0);
        CHECK(stiff.over == 0);
        CHECK(stiff.drawn == 0);
        for (std::size_t i = 0; i < begin.size(); ++i) {
            CHECK(stiff.thick[i] == 1);
            CHECK(std::isfinite(stiff.pressure[i]));
        }
    }
    auto r = rules(1e9);
    r.gravity = -9.80665 * Point::UnitX();
    const auto hung = settled(mesh, begin, r);
    for (std::size_t i = 0; i < begin.size(); ++i)
        CHECK(hung.pressure[i] == Approx(1100 * 9.80665 * (kLength - mesh.points[i].x())).margin(20));
    CHECK(hung.thick.front() > 1.005);
    const Eigen::Matrix3d turn = Eigen::AngleAxisd(1.1, Point(3, -1, 2).normalized()).toRotationMatrix();
    auto turned = mesh;
    for (auto& p : turned.points) p = turn * p;
    auto vents = right_end(mesh);
    FlowLayer cloth;
    cloth.K1 = cloth.K2 = kPlyK;
    cloth.thickness = kPlyDeep;
    cloth.gives = kGives;
    r.gravity = turn * r.gravity;
    const auto again = settle(turned, face_flows(turned, {cloth}, turn * Point::UnitX()), begin,
                              std::vector<char>(begin.size(), 1), vents, r, quiet);
    CHECK(again.drawn == Approx(hung.drawn).epsilon(1e-6));
    // What stayed dry is left out, and no time leaves all as it is.
    std::vector<char> wet(begin.size(), 1);
    for (std::size_t i = 0; i < wet.size(); ++i) wet[i] = mesh.points[i].x() < 0.3 ? 1 : 0;
    const auto half = settle(mesh, preform(mesh), begin, wet, vents, rules(1e6), quiet);
    CHECK(half.drawn == Approx(0).margin(1e-9 * half.over));
    CHECK(half.thick.back() == 1);
    const auto still = settled(mesh, begin, rules(0));
    CHECK(still.pressure == begin);
    CHECK(still.drawn == 0);
}
