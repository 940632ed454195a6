// The split in pieces through the job: figures, calls, boards and what the later stages make of it.
#include <catch2/catch.hpp>

#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace jig::split {
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
    // Each half has a flange of its own round the seam; the bolts hold both, and the part is trimmed once.
    const auto& e = *two.edge;
    const double out = 0.3 + e.width;
    CHECK(e.area == Approx(2 * kPi * (out * out - 0.3 * 0.3)).epsilon(0.01));
    const double bolted = 2 * kPi * (out - halves.edge.grip / 2);
    CHECK(e.bolts == static_cast<int>(std::ceil(bolted / halves.edge.bolt_pitch)));
    CHECK(e.count(Fitting::dowel) == 2);
    CHECK(e.rim_length == Approx(2 * kPi * 0.3).epsilon(0.01));
    CHECK(e.tape_land_length ==
          Approx(2 * 2 * kPi * (0.3 + halves.edge.trim + halves.edge.channel + halves.edge.tape_land / 2))
              .epsilon(0.01));
    // The run bonds a back to either half, with tabs of cloth on both sides of each rib.
    double bonding = 0;
    for (const auto& line : two.run->hours) bonding += line.what == "bonding ribs" ? line.hours : 0;
    CHECK(bonding == Approx(2 * two.back->bond_length * fixtures::shop().rate("bonding ribs")));
    const auto& tab = halves.back.joint;
    double cloth = 0;
    for (const auto& line : two.run->materials)
        cloth += line.stage == Stage::back && line.what == tab.cloth ? line.amount : 0;
    CHECK(cloth >= 2 * two.back->bond_length * 4 * tab.tab * tab.plies);
    // The other half is the same seen from the other side.
    auto turned = halves;
    turned.edge.piece = 2;
    const auto other = worked_out(turned);
    REQUIRE(other.edge->tool);
    CHECK(other.edge->area == Approx(e.area).epsilon(1e-3));
    CHECK(other.edge->tool->frame.w.dot(e.tool->frame.w) == Approx(-1));
    // A piece that did not come out gives the last that did.
    turned.edge.piece = 5;
    CHECK(edge::chosen_piece(turned.edge.piece, *other.split) == 1);
    CHECK(edge::chosen_piece(halves.edge.piece, *other.split) == 0);
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
    JobBoard board;
    const auto on_board = [&] {
        return board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet).split;
    };
    auto before = on_board();
    job.brief.grade = Grade::structural;
    CHECK(on_board() != before);
    job.split.drag_rule = DragRule::given;
    before = on_board();
    job.brief.grade = Grade::gloss;
    CHECK(on_board() == before);
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

namespace {

/// A drum with domed ends: its upright wall leaves the seam free to run anywhere on it.
Job drum() {
    Job job;
    job.shape.kind = ShapeKind::turned;
    job.shape.turned.smooth = false;
    job.shape.turned.facet = 0.02;
    job.shape.turned.profile = {{0, 0}, {0.2, 0.03}, {0.3, 0.1}};
    for (int i = 1; i <= 10; ++i) job.shape.turned.profile.push_back({0.3, 0.1 + 0.015 * i});
    job.shape.turned.profile.push_back({0.2, 0.32});
    job.shape.turned.profile.push_back({0, 0.35});
    return job;
}

}  // namespace

TEST_CASE("painted show surface drives the seam off, and faces given to a piece go to it") {
    auto job = drum();
    job.split.way = SplitWay::search;
    job.split.pieces = 2;
    const auto free = worked_out(job);
    REQUIRE(free.split->set.pieces.size() == 2);
    CHECK(free.split->show.empty());
    // A patch across the seam, painted as show surface: the seam is counted on it until it is off.
    const auto& seam = free.split->set.seams.front();
    const Point at = seam[seam.size() / 3], out = Point(at.x(), at.y(), 0).normalized();
    const std::array<double, 3> there{at.x(), at.y(), at.z()}, facing{out.x(), out.y(), out.z()};
    job.split.painted = {{Paint::show, there, facing, 0.05, {0, 0, 1}}};
    const auto shown = worked_out(job);
    CHECK(std::count(shown.split->show.begin(), shown.split->show.end(), 1) > 10);
    CHECK(value_of(shown.figures(Stage::split), "seam_on_show") < 0.02);
    const auto on_it = [&](const jig::Findings& f) {
        double length = 0;
        for (const auto& line : f.split->set.seams) {
            for (std::size_t i = 1; i < line.size(); ++i)
                length +=
                    ((line[i] + line[i - 1]) / 2 - at).norm() < 0.035 ? (line[i] - line[i - 1]).norm() : 0;
        }
        return length;
    };
    CHECK(on_it(free) > 0.05);
    CHECK(on_it(shown) < 0.5 * on_it(free));
    // The same patch given to the lower piece: its faces are among that piece's, and the upper one lost them.
    const Point low = free.split->set.pieces[1].direction;
    job.split.painted = {{Paint::given, there, facing, 0.08, {low.x(), low.y(), low.z()}}};
    const auto given = worked_out(job);
    REQUIRE(given.split->set.pieces.size() == 2);
    for (const auto& piece : given.split->set.pieces) {
        double near = 0;
        for (std::size_t f = 0; f < piece.mesh.triangles.size(); ++f)
            near += (piece.mesh.centre(f) - at).norm() < 0.05 ? piece.mesh.area_vector2(f).norm() / 2 : 0;
        if (piece.direction.dot(low) > 0.99)
            CHECK(near > 0.8 * kPi * 0.05 * 0.05);
        else
            CHECK(near < 0.1 * kPi * 0.05 * 0.05);
    }
    // Plain paint over it takes it back.
    job.split.painted.push_back({Paint::plain, there, facing, 0.09, {0, 0, 1}});
    const auto back = worked_out(job);
    CHECK(back.split->set.seam_length == Approx(free.split->set.seam_length).epsilon(1e-6));
}

TEST_CASE("paint is written with the job and read back, and a wrong stroke is refused with words") {
    auto job = ball();
    job.split.painted = {{Paint::show, {0.1, 0.2, 0.3}, {0, 1, 0}, 0.05, {0, 0, 1}},
                         {Paint::given, {0, 0, 0.3}, {1, 0, 0}, 0.02, {0, 0, -1}}};
    CHECK(job_from_json(job_to_json(job), "job") == job);
    auto json = job_to_json(job);
    json["split"]["painted"][1]["reach"] = -1;
    CHECK_THROWS_WITH(job_from_json(json, "job"), Catch::Contains("painted"));
}

TEST_CASE("the seam across show surface is called out in a plane split and its length is the seam's there") {
    auto job = ball();
    job.split.way = SplitWay::plane;
    job.split.plane_at = {0, 0, 0.3};
    job.split.painted = {{Paint::show, {0.3, 0, 0.3}, {1, 0, 0}, 0.1, {0, 0, 1}}};
    const auto f = worked_out(job);
    // A chord of 2·0.1 m on the circle of 0.3 m is an arc of 2·0.3·2·asin(0.1/0.6).
    CHECK(f.split->seam_on_show == Approx(4 * 0.3 * std::asin(0.1 / 0.6)).epsilon(0.25));
    REQUIRE(call(f, "on_show") != nullptr);
}

}  // namespace jig::split
