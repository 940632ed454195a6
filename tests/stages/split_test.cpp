// The split in pieces through the job: figures, calls, boards and what the later stages make of it.
#include <catch2/catch.hpp>

#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using namespace jig::split;
using fixtures::call;
using fixtures::worked_out;

namespace {

/// A closed ball as the shape, by turning half a circle.
Job ball() {
    Job job;
    job.shape.kind = ShapeKind::turned;
    job.shape.turned.facet = 0.02;
    job.shape.turned.profile.clear();
    for (int i = 0; i <= 16; ++i)
        job.shape.turned.profile.push_back({std::max(0.0, 0.3 * std::cos(kPi * (i / 16.0 - 0.5))),
                                            0.3 + 0.3 * std::sin(kPi * (i / 16.0 - 0.5))});
    job.shape.turned.profile.front()[0] = job.shape.turned.profile.back()[0] = 0;
    return job;
}

}  // namespace

TEST_CASE("a closed ball is stopped in one piece and freed by the plane that its call offers") {
    const auto job = ball();
    const auto one = worked_out(job);
    REQUIRE(call(one, "locks") != nullptr);
    CHECK(call(one, "locks")->severity == Severity::stop);
    REQUIRE(call(one, "closed") != nullptr);
    const auto halves = patched(job, call(one, "locks")->fix->patch);
    CHECK(halves.split.way == SplitWay::plane);
    const auto two = worked_out(halves);
    REQUIRE(two.split->set.pieces.size() == 2);
    CHECK(two.split->map.locks < 5e-3 * two.split->moulded_area);
    CHECK(call(two, "closed") == nullptr);
    CHECK(call(two, "closed_part") != nullptr);
    CHECK(two.complete());
    CHECK(value_of(two.figures(Stage::split), "seam") == Approx(2 * kPi * 0.3).epsilon(0.01));
    // The mouth of each half is the great circle, its depth the radius.
    for (const auto& p : two.split->facts) {
        CHECK(p.mouth == Approx(0.6).epsilon(0.03));
        CHECK(p.depth == Approx(0.3).epsilon(0.05));
        CHECK(p.way.turn > 0);
    }
    // Flanges run along both sides of the seam, and bolts with them.
    CHECK(two.edge->seam_area == Approx(2 * two.split->set.seam_length * two.edge->width));
    CHECK(two.edge->bolts ==
          static_cast<int>(std::ceil(two.split->set.seam_length / halves.edge.bolt_pitch)));
}

TEST_CASE("pieces are searched for, named, and more are offered where some lock") {
    auto job = ball();
    job.split.way = SplitWay::search;
    job.split.pieces = 1;
    job.split.names = {"lid"};
    const auto one = worked_out(job);
    CHECK(one.split->facts.front().name == "lid");
    REQUIRE(call(one, "locks") != nullptr);
    const auto more = patched(job, call(one, "locks")->fix->patch);
    CHECK(more.split.pieces == 2);
    const auto two = worked_out(more);
    CHECK(call(two, "locks") == nullptr);
    CHECK(two.split->facts[0].name == "lid");
    CHECK(two.split->facts[1].name == "piece 2");
    CHECK(two.complete());
}

TEST_CASE("a plane that misses the part stops the stage with words and keeps the rest") {
    auto job = ball();
    job.split.way = SplitWay::plane;
    job.split.plane_at = {0, 0, 3};
    const auto f = worked_out(job);
    CHECK_FALSE(f.split);
    CHECK(f.shape);
    CHECK_THAT(call(f, "input")->headline, Catch::Contains("misses"));
}

TEST_CASE("the drag angle follows the surface where that is chosen") {
    auto job = fixtures::small_job();
    job.split.drag_rule = DragRule::surface;
    double last = 0;
    for (const auto grade : {Grade::structural, Grade::paintable, Grade::clear, Grade::gloss}) {
        job.brief.grade = grade;
        const auto f = worked_out(job);
        CHECK(f.split->drag_angle > last);
        last = f.split->drag_angle;
    }
    // A grade alone makes the split anew only where it decides the angle.
    Evaluated before{job, worked_out(job)};
    job.brief.grade = Grade::structural;
    CHECK(worked_out(job, &before).split != before.findings.split);
    job.split.drag_rule = DragRule::given;
    before = {job, worked_out(job)};
    job.brief.grade = Grade::gloss;
    CHECK(worked_out(job, &before).split == before.findings.split);
}

TEST_CASE("the parting board of a plane is the part's outline grown by stand-off and width") {
    Choices c;
    c.stand_off = 0.002;
    c.board_width = 0.08;
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 120);
    Progress quiet;
    const auto boards = plane_boards(mesh, topology_of(mesh), {0, 0, 0.25}, {0, 0, 1}, c, quiet);
    REQUIRE(boards.size() == 1);
    CHECK(boards[0].outline.size() == 2);
    CHECK(boards[0].area == Approx(kPi * (0.382 * 0.382 - 0.302 * 0.302)).epsilon(2e-3));
    CHECK(boards[0].length == Approx(2 * kPi * 0.302).epsilon(2e-3));
    // A ring gets two: outside it and in its hole.
    const auto ring = shapes::torus(0.3, 0.1, 64);
    const auto two = plane_boards(ring, topology_of(ring), {0, 0, 0}, {0, 0, 1}, c, quiet);
    REQUIRE(two.size() == 2);
    CHECK(std::min(two[0].area, two[1].area) == Approx(kPi * (0.198 * 0.198 - 0.118 * 0.118)).epsilon(5e-3));
}

TEST_CASE("a strip is laid flat with every edge as long as it was") {
    // A quarter of a cone's rim: near circle of radius 0.3, far one of 0.4, 0.1 higher.
    Line near, far;
    for (int i = 0; i <= 40; ++i) {
        const double a = kPi / 2 * i / 40;
        near.emplace_back(0.3 * std::cos(a), 0.3 * std::sin(a), 0);
        far.emplace_back(0.4 * std::cos(a), 0.4 * std::sin(a), 0.1);
    }
    const auto flat = unrolled(near, far);
    REQUIRE(flat.size() == 82);
    // A cone's strip is a sector of a ring: radii r·√2 with the slope of 45°.
    CHECK(std::abs(signed_area(flat)) ==
          Approx(kPi / 4 / std::sqrt(2.0) * (0.4 * 0.4 - 0.3 * 0.3) * 2).epsilon(2e-3));
    CHECK((flat[1] - flat[0]).norm() == Approx((near[1] - near[0]).norm()));
    CHECK((flat[0] - flat[81]).norm() == Approx(0.1 * std::sqrt(2.0)));
    CHECK(unrolled({{0, 0, 0}}, {{1, 0, 0}}).empty());
    Choices c;
    CHECK(clay_volume(2, c, 0.012) == Approx(2 * (0.001 * 0.012 + (1 - kPi / 4) * 36e-6)));
}

TEST_CASE("pieces that cannot part are told, with what holds them and how far they come") {
    auto job = ball();
    job.split.way = SplitWay::plane;
    // A plane far off the widest line leaves the larger side locked.
    job.split.plane_at = {0, 0, 0.5};
    const auto f = worked_out(job);
    REQUIRE(f.split);
    REQUIRE(call(f, "locks") != nullptr);
    REQUIRE(call(f, "widest") != nullptr);
    const auto mended = worked_out(patched(job, call(f, "widest")->fix->patch));
    CHECK(mended.split->map.locks < 0.1 * f.split->map.locks);
}

TEST_CASE("a board's cut file reads back as drawn") {
    Choices c;
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 120);
    Progress quiet;
    const auto boards = plane_boards(mesh, topology_of(mesh), {0, 0, 0.25}, {0, 0, 1}, c, quiet);
    const auto sheets = boards_on_sheets(boards);
    REQUIRE(sheets.sheets.size() == 1);
    fixtures::Folder folder;
    write_sheet_dxf(sheets, 0, folder / "board.dxf");
    // The largest outline in it is the sheet: the board's own size and 20 mm all round.
    const double side = 2 * (0.3 + c.stand_off + c.board_width) + 0.04;
    const auto back = read_outline(read_file(folder / "board.dxf"), "board.dxf", 1);
    CHECK(signed_area(back) == Approx(side * side).epsilon(2e-3));
    CHECK(read_file(folder / "board.dxf").find("100 mm") != std::string::npos);
}
