// Shapes that nobody planned for, taken through all stages: what holds for every face whatever its form.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/part/kit.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::worked_out;
using shapes::sheet;

namespace {

/// The dome's job, infused and with a core, over another face.
Job over(const TriangleMesh& face) {
    auto job = fixtures::demo("radar-dome");
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "odd.stl";
    job.shape.unit = FileUnit::mm;
    job.attachments = {{"odd.stl", std::make_shared<const std::string>(write_stl_binary(face))}};
    return job;
}

TriangleMesh tube(double top) {
    std::vector<std::pair<double, double>> profile;
    for (int i = 0; i <= 30; ++i) profile.emplace_back(0.1 + (top - 0.1) * i / 30, 0.9 * i / 30);
    return shapes::turned(profile, 48, false, false);
}

TriangleMesh bowl() {
    std::vector<std::pair<double, double>> profile;
    for (int i = 1; i <= 20; ++i)
        profile.emplace_back(0.3 * std::sin(0.075 * i), 0.3 * (1 - std::cos(0.075 * i)));
    return shapes::turned(profile, 48, true, false);
}

TriangleMesh beside(const TriangleMesh& a, TriangleMesh b, const Point& by) {
    auto out = a;
    const auto shift = static_cast<std::uint32_t>(a.points.size());
    for (const auto& p : b.points) out.points.push_back(p + by);
    for (const auto& t : b.triangles) out.triangles.push_back({t[0] + shift, t[1] + shift, t[2] + shift});
    return out;
}

/// Figures are numbers, words are words, and what is counted twice agrees.
void sound(const Job& job, const Findings& f) {
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        for (const auto& figure : f.figures(static_cast<Stage>(s))) {
            INFO(kStages[s].key << " " << figure.key);
            CHECK(std::isfinite(figure.value));
        }
    }
    for (const auto& c : f.calls) {
        const auto text = worded(c.headline + " " + c.why, {UnitSystem::metric, "¤"});
        INFO(text);
        CHECK(text.find("nan") == std::string::npos);
        CHECK(text.find("inf ") == std::string::npos);
        CHECK(text.find("0.00 m²") == std::string::npos);
        CHECK(text.find("100 % of the preform") == std::string::npos);
    }
    if (!f.part || !f.part->draped || f.part->draped->nets.empty()) return;
    const auto& draped = *f.part->draped;
    for (const auto& net : draped.nets) {
        INFO("net at " << degrees(net.angle));
        CHECK(net.drape.covered <= draped.area * (1 + 1e-6));
        CHECK(net.drape.covered > 0.9 * draped.area);
        // Threads are as long flat as on the face: shear alone makes cloth larger, to 1 / cos of it.
        CHECK(net.drape.flat_area > 0.97 * net.drape.covered);
        CHECK(net.drape.flat_area < 1.35 * net.drape.covered);
    }
    const auto kit = part::kit(job.part, draped, f.edge->tool->frame, fixtures::shop(), 0, 0.025, quiet);
    double laid = 0;
    for (const auto& p : kit.pieces) laid += p.of.zone < 0 && p.of.layer == 0 ? p.area : 0;
    CHECK(laid > 0.97 * draped.area);
    CHECK(laid < 1.5 * draped.area);
    if (!f.flow || !f.flow->runs) return;
    const auto& fill = f.flow->filling;
    CHECK(fill.taken == Approx(fill.held + fill.bled).epsilon(1e-6));
    CHECK(fill.filled <= 1 + 1e-9);
    // Full, or a call that says why not.
    CHECK((fill.fill || call(f, "dry") != nullptr || call(f, "gels_first") != nullptr ||
           call(f, "never_full") != nullptr));
}

}  // namespace

TEST_CASE("faces of any form go through all stages with figures that hold") {
    const std::vector<std::pair<const char*, TriangleMesh>> faces{
        {"plate", sheet(8, 5, [](double u, double v) { return Point(0.8 * u, 0.5 * v, 0); })},
        {"saddle", sheet(40, 30,
                         [](double u, double v) {
                             const double x = 2 * u - 1, y = 2 * v - 1;
                             return Point(0.4 * x, 0.3 * y, 0.12 * (x * x - y * y));
                         })},
        {"half a pipe", sheet(20, 24,
                              [](double u, double v) {
                                  return Point(1.2 * u, 0.2 * std::cos(kPi * v), 0.2 * std::sin(kPi * v));
                              })},
        {"bowl", bowl()},
        {"tube", tube(0.11)},
        {"stump", tube(0.2)}};
    for (const auto& [name, face] : faces) {
        INFO(name);
        const auto job = over(face);
        const auto f = worked_out(job);
        sound(job, f);
        CHECK(call(f, "bodies") == nullptr);
        const bool closes = std::string(name) == "tube" || std::string(name) == "stump";
        CHECK((call(f, "cloth_meets") != nullptr) == closes);
    }
}

TEST_CASE("a plate that is fed all round is full where its vent is, not all but there") {
    // Its vent covers several points of the mesh, of which those in its midst have none to be fed by.
    const auto f =
        worked_out(over(sheet(8, 5, [](double u, double v) { return Point(0.8 * u, 0.5 * v, 0); })));
    REQUIRE(f.flow);
    REQUIRE(f.flow->filling.fill);
    CHECK(*f.flow->filling.fill < 300);
    CHECK(call(f, "gels_first") == nullptr);
}

TEST_CASE("a face that winds over itself has no flange, and no area of it is less than nothing") {
    for (const double turns : {0.3, 1.6, 2.2}) {
        INFO(turns << " turns");
        const auto winding = sheet(60, 10, [&](double u, double v) {
            const double a = 2 * kPi * turns * u, r = 0.1 + 0.4 * v;
            return Point(r * std::cos(a), r * std::sin(a), 0.5 * u);
        });
        const auto job = over(winding);
        const auto f = worked_out(job);
        sound(job, f);
        CHECK(f.edge->area >= 0);
        for (const auto& figure : f.figures(Stage::shell)) {
            if (figure.kind == Kind::area) CHECK(figure.value >= 0);
        }
        if (turns > 1) CHECK(call(f, "no_flange") != nullptr);
    }
}

TEST_CASE("surfaces that do not touch are told, whatever their order and size") {
    const auto one = bowl();
    auto small = bowl();
    for (auto& p : small.points) p *= 0.1;
    for (const auto& [face, expected] :
         {std::pair(beside(one, one, Point(0.9, 0, 0)), 2),
          std::pair(beside(small, one, Point(0.9, 0, 0)), 2),
          std::pair(beside(beside(small, one, Point(0.9, 0, 0)), small, Point(0, 0.9, 0)), 3)}) {
        const auto f = worked_out(over(face));
        const auto* said = call(f, "bodies");
        REQUIRE(said != nullptr);
        CHECK(said->stage == Stage::shape);
        CHECK(said->headline.find(std::to_string(expected) + " surfaces") != std::string::npos);
        CHECK(f.shape->measures.bodies.size() == static_cast<std::size_t>(expected));
        CHECK(f.shape->measures.bodies.front() == Approx(shapes::area_of(one)).epsilon(0.01));
    }
    // Two that share a single point hang together.
    auto touching = beside(one, one, Point(0, 0, 0));
    const auto tip = *std::max_element(one.points.begin(), one.points.end(),
                                       [](const Point& a, const Point& b) { return a.x() < b.x(); });
    for (std::size_t i = one.points.size(); i < touching.points.size(); ++i)
        touching.points[i] =
            Point(2 * tip.x() - touching.points[i].x(), touching.points[i].y(), touching.points[i].z());
    const auto clean = repaired(touching, quiet);
    CHECK(measure(clean.mesh, clean.topology).bodies.size() == 1);
}
