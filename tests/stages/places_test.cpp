// Calls that have a place say where it is, in the part's own axes, however the part lies.
#include <catch2/catch.hpp>

#include "core/stages/heat/folds.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::call;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

/// m from a place to the nearest point of a mesh.
double off(const Point& at, const TriangleMesh& mesh) {
    double out = 1e300;
    for (const auto& p : mesh.points) out = std::min(out, (p - at).norm());
    return out;
}

}  // namespace

TEST_CASE("what locks is flagged on a face that locks") {
    auto job = small_job();
    job.split.mode = PullMode::given;
    job.split.pull = {1, 0, 0};
    const auto f = worked_out(job);
    const auto* locks = call(f, "locks");
    REQUIRE(locks != nullptr);
    REQUIRE(locks->at);
    const auto& mesh = f.shape->mesh;
    double area = 0;
    bool on_it = false;
    for (std::size_t i = 0; i < mesh.triangles.size(); ++i) {
        if (f.split->map.faces[i] != Release::locks) continue;
        area = std::max(area, mesh.area_vector2(i).norm());
        on_it = on_it || (mesh.centre(i) - *locks->at).norm() < 1e-12;
    }
    CHECK(area > 0);
    CHECK(on_it);
    // Drawn upwards nothing does, and what is said of the whole has no place.
    job.split.pull = {0, 0, 1};
    const auto frees = worked_out(job);
    CHECK(call(frees, "locks") == nullptr);
    REQUIRE(call(frees, "frees") != nullptr);
    CHECK_FALSE(call(frees, "frees")->at);
}

TEST_CASE("a film that bridges is flagged where it stands off furthest") {
    auto job = bagged();
    const auto whole = worked_out(job);
    job.bag.sheet_length = 0.985 * whole.bag->film.longest_along;
    job.bag.sheet_width = whole.bag->film.longest_across;
    const auto f = worked_out(job);
    const auto* bridges = call(f, "bridges");
    REQUIRE(bridges != nullptr);
    REQUIRE(bridges->at);
    CHECK(*bridges->at == f.bag->bridge->at);
    CHECK(off(*bridges->at, f.edge->tool->rimmed.mesh) < 2 * job.shape.tray.facet);
    // As JSON each call has its place, or none.
    const auto json = calls_to_json(f.calls);
    REQUIRE(json.size() == f.calls.size());
    for (std::size_t i = 0; i < f.calls.size(); ++i) {
        REQUIRE(json[i].contains("at_m") == f.calls[i].at.has_value());
        if (f.calls[i].at) CHECK(json[i]["at_m"][2].get<double>() == f.calls[i].at->z());
    }
}

TEST_CASE("inserts are flagged one by one where they are") {
    auto job = bagged();
    auto& all = job.part.inserts;
    all.resize(2);
    all[0].name = "hinge";
    all[1].name = "latch";
    const auto apart = worked_out(job);
    const auto half = apart.shape->measures.size.x() / 2;
    all[0].along = half - 0.0005;
    all[1].along = -half + 0.2;
    const auto f = worked_out(job);
    const auto* edge = call(f, "insert_edge");
    REQUIRE(edge != nullptr);
    REQUIRE(edge->at);
    CHECK(*edge->at == f.part->inserts[0][0].place.at);
}

TEST_CASE("a fold that springs is flagged on it") {
    auto job = bagged();
    job.brief.tolerance = 1e-6;
    const auto f = worked_out(job);
    const auto* springs = call(f, "springs");
    REQUIRE(springs != nullptr);
    REQUIRE(springs->at);
    const auto& use = f.heat->folds;
    CHECK(*springs->at == (*use.on.folds)[*use.worst()].at);
}
