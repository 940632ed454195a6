// Feet that push and do not pull, and a bag that presses alike from every side.
#include <catch2/catch.hpp>

#include "core/job/trial.hpp"
#include "core/stages/back/stance.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/stages/flat_tool.hpp"

using namespace jig;
using namespace fixtures;

namespace {

std::uint32_t nearest(const std::vector<Point>& points, const std::vector<std::uint32_t>& among, double x,
                      double y) {
    return *std::min_element(among.begin(), among.end(), [&](std::uint32_t a, std::uint32_t b) {
        return (points[a].head<2>() - Point2(x, y)).norm() < (points[b].head<2>() - Point2(x, y)).norm();
    });
}

}  // namespace

TEST_CASE(
    "a strip on three pairs of feet lifts its far end where a continuous beam would have to pull there") {
    FlatTool strip(1.2, 0.08);
    strip.back.feet.along = 3;
    const auto even = back::even_face(strip.face, 0.02, quiet);
    const auto in = strip.inputs();
    const back::Bench bench(in, even, quiet);
    const auto& feet = bench.tool().feet;
    REQUIRE(feet.size() == 6);
    const back::OnFeet stance(bench, feet, quiet);
    const auto& l = strip.laminate();
    // A narrow strip: nothing keeps it from bending across.
    const double EI = l.bending.Ex * std::pow(l.thickness, 3) / 12 * strip.width,
                 weight = stance.system().mass() * kGravity;
    // Own weight: 3/16, 10/16 and 3/16 of it on the pairs (two equal spans under an even load).
    const auto rest = stance.standing(1);
    CHECK(rest.lifted == 0);
    CHECK(rest.solution.reactions.z() == Approx(-weight).epsilon(1e-6));
    double ends = 0, middle = 0;
    for (const auto& [foot, force] : rest.solution.held) {
        CHECK(force.z() < 0);
        (std::abs(bench.points()[foot].x() - 0.58) < 0.1 ? middle : ends) -= force.z();
    }
    CHECK(middle == Approx(0.625 * weight).epsilon(0.03));
    CHECK(ends == Approx(0.375 * weight).epsilon(0.03));
    // A push in the middle of the first span lifts the far feet once 3/32 of it passes their 3/16 of the
    // weight.
    const auto a = nearest(bench.points(), bench.rim(), 0.28, -0.02),
               b = nearest(bench.points(), bench.rim(), 0.28, 0.06);
    const auto push = [&](double force) {
        shell_fe::Loads loads;
        loads.nodes = {{a, force / 2 * Point::UnitZ()}, {b, force / 2 * Point::UnitZ()}};
        return loads;
    };
    CHECK(stance.pushed({push(1.8 * weight)}).front().lifted == 0);
    CHECK(stance.pushed({push(2.3 * weight)}).front().lifted == 2);
    // While all stand, it is the held tool's answer; hard pushed, that of a beam on the first span alone.
    const auto small = stance.pushed({push(weight)}).front();
    const auto held = stance.held({push(weight)}).front();
    CHECK((small.solution.freedoms - held.freedoms).norm() < 1e-9 * held.freedoms.norm());
    const double hard = 200 * weight;
    const auto lifted = stance.pushed({push(hard)}).front();
    CHECK(lifted.solution.displacement(a).z() == Approx(hard * std::pow(0.6, 3) / (48 * EI)).epsilon(0.08));
    CHECK(lifted.solution.reactions.z() == Approx(-hard).epsilon(1e-6));
    // Pushed outside all feet it tips, and says so.
    auto inset = strip;
    inset.back.feet.inset = 0.4;
    const auto short_in = inset.inputs();
    const back::Bench narrow(short_in, even, quiet);
    const back::OnFeet wobbly(narrow, narrow.tool().feet, quiet);
    shell_fe::Loads end;
    end.nodes = {{nearest(narrow.points(), narrow.rim(), -0.02, 0.02), 50 * weight * Point::UnitZ()}};
    CHECK(wobbly.pushed({end}).front().tips);
}

TEST_CASE(
    "a tool turned over by the factor of its feet bends as a beam on its ends, and as by one of its own") {
    FlatTool strip(1.2, 0.08);
    strip.back.feet.along = 3;
    const auto even = back::even_face(strip.face, 0.02, quiet);
    const auto in = strip.inputs();
    const back::Bench bench(in, even, quiet);
    const auto corners = bench.rim_corners();
    const back::OnFeet stance(bench, bench.tool().feet, quiet);
    const auto turned = back::OnFeet(stance, corners, quiet).standing(-1).solution;
    // Its own weight, evenly along, between two ends: 5·w·L³/384·E·I of the whole weight.
    const auto& l = strip.laminate();
    const double EI = l.bending.Ex * std::pow(l.thickness, 3) / 12 * strip.width,
                 weight = stance.system().mass() * kGravity;
    double low = 1e9, high = -1e9;
    for (const auto i : corners) {
        low = std::min(low, bench.points()[i].x());
        high = std::max(high, bench.points()[i].x());
    }
    const auto middle = nearest(bench.points(), bench.rim(), (low + high) / 2, 0);
    CHECK(std::abs(turned.displacement(middle).z()) ==
          Approx(5 * weight * std::pow(high - low, 3) / (384 * EI)).epsilon(0.03));
    CHECK(turned.reactions.z() == Approx(weight).epsilon(1e-6));
    const auto own = back::OnFeet(bench, corners, quiet).standing(-1).solution;
    CHECK((turned.freedoms - own.freedoms).norm() < 1e-6 * own.freedoms.norm());
    // Nor does it shift or turn sideways against the corners that hold it there, on feet askew either.
    for (const auto* name : {"radar-dome", "pavilion-petal"}) {
        auto job = demo(name);
        const auto f = worked_out(job);
        const auto ins = tool_inputs(job, f, shop());
        const auto coarse_face =
            back::even_face(*f.edge->tool, back::edge_for(ins.face, ins.back, 900), quiet);
        const back::Bench real(ins, coarse_face, quiet);
        const back::OnFeet on_feet(real, real.tool().feet, quiet);
        const auto by_feet = back::OnFeet(on_feet, real.rim_corners(), quiet).standing(-1).solution;
        const auto by_rim = back::OnFeet(real, real.rim_corners(), quiet).standing(-1).solution;
        INFO(name);
        CHECK(by_rim.largest > 0);
        CHECK((by_feet.freedoms - by_rim.freedoms).norm() < 1e-5 * by_rim.freedoms.norm());
        CHECK(by_feet.largest == Approx(by_rim.largest).epsilon(1e-5));
        CHECK(by_feet.displacement(real.rim_corners().front()).head<2>().norm() < 1e-9);
    }
}

TEST_CASE("an envelope bag balances itself to nine digits, in force and in moment, over any back") {
    for (const auto* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        for (const auto kind : {BackKind::egg_crate, BackKind::none, BackKind::tubes}) {
            auto job = demo(name);
            job.back.kind = kind;
            job.back.bag = BagKind::envelope;
            job.back.pitch = std::min(job.back.pitch, 0.25);
            const auto f = worked_out(job);
            const auto in = tool_inputs(job, f, shop());
            const auto even = back::even_face(*f.edge->tool, back::edge_for(in.face, in.back, 900), quiet);
            const back::Bench bench(in, even, quiet);
            const auto bag = bench.envelope();
            const auto& mesh = bench.tool().model.mesh;
            Point force = Point::Zero(), moment = Point::Zero();
            double size = 0, turn = 0;
            const auto add = [&](const Point& at, const Point& by) {
                force += by;
                moment += at.cross(by);
                size += by.norm();
                turn += at.norm() * by.norm();
            };
            for (std::size_t t = 0; t < bag.pressures.size(); ++t)
                add(mesh.centre(t), -static_cast<double>(bag.pressures[t]) / 2 * mesh.area_vector2(t));
            for (const auto& n : bag.nodes) add(mesh.points[n.point], n.force);
            INFO(name);
            CHECK(size > 100);
            CHECK(force.norm() < 1e-9 * size);
            CHECK(moment.norm() < 1e-9 * turn);
            // So the feet bear none of it.
            const back::OnFeet stance(bench, bench.tool().feet, quiet);
            CHECK(stance.free(bag).reactions.norm() < 1e-6 * size);
        }
    }
}

TEST_CASE("warmed free of its feet a tool of one material only grows") {
    FlatTool strip(0.8, 0.2);
    strip.back.feet.along = 3;
    strip.back.feet.across = 3;
    const auto even = back::even_face(strip.face, 0.03, quiet);
    const auto in = strip.inputs();
    const back::Bench bench(in, even, quiet);
    const back::OnFeet stance(bench, bench.tool().feet, quiet);
    const auto hot = stance.free(back::Bench::heat(50));
    const auto& l = strip.laminate();
    double worst = 0;
    for (std::size_t i = 0; i < bench.points().size(); ++i)
        worst = std::max(worst, std::abs(hot.displacement(i).z()));
    CHECK(worst < 1e-9);
    const auto a = bench.tool().feet.front(), b = bench.tool().feet.back();
    const Point apart = bench.points()[b] - bench.points()[a];
    CHECK((hot.displacement(b) - hot.displacement(a)).dot(apart.normalized()) ==
          Approx(50 * l.cte[0] * apart.norm()).epsilon(1e-6));
}
