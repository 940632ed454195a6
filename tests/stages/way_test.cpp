// What closes the part: a film round its face, an envelope, a tube, or a bag that is used again.
#include <catch2/catch.hpp>

#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::call;
using fixtures::worked_out;

namespace {

/// A tool without a back, so that a film goes round it.
Job bare() {
    auto job = bagged();
    job.back.kind = BackKind::none;
    job.back.bag = BagKind::envelope;
    return job;
}

double bought(const Findings& f, const std::string& what) {
    double sum = 0;
    for (const auto& m : f.run->materials) {
        if (m.stage == Stage::bag && m.what == what) sum += m.amount;
    }
    return sum;
}

double hours(const Findings& f, const std::string& rate) {
    double sum = 0;
    for (const auto& line : f.run->hours) {
        if (line.stage == Stage::bag && line.what == rate) sum += line.hours;
    }
    return sum;
}

}  // namespace

TEST_CASE("an envelope is cut by the way round face and back, with its seams") {
    auto job = bare();
    job.bag.way = BagWay::envelope;
    const auto f = worked_out(job);
    REQUIRE(f.bag);
    const auto& k = f.bag->wrap;
    REQUIRE(k.sheets > 0);
    const double wall = f.shell->stack.laminate.thickness;
    // The tool's own face, rim to rim, twice, and its edge twice.
    const auto& mesh = f.edge->tool->rimmed.mesh;
    const auto t = topology_of(mesh);
    const auto face = film_over(mesh, t, f.bag->frame, {0, {}, true, 0, 0, 0}, quiet);
    CHECK(k.round.along == Approx(2 * face.longest_along + 2 * wall));
    CHECK(k.round.across == Approx(2 * face.longest_across + 2 * wall));
    const double land = job.edge.tape_land;
    CHECK(k.length == Approx(k.round.along / 2 * 1.1 + 2 * land));
    // One sheet, folded, where the roll is wide enough for it.
    const double open = k.round.across * 1.1 + 2 * land, roll = 3;
    REQUIRE(std::min(open, k.length) <= roll);
    CHECK(k.sheets == 1);
    CHECK(k.width == Approx(open));
    CHECK(k.seam == Approx(k.length + open - 2 * land));
    CHECK(f.bag->film_area == Approx(k.length * k.width));
    CHECK(f.bag->tape == Approx(k.seam + 0.6));
    CHECK(f.bag->film.pleats.empty());
    // With what goes round the hose and the gauge.
    CHECK(bought(f, "sealant tape") == Approx((k.seam + 0.6) * 1.15));
    CHECK(call(f, "drawn_in") == nullptr);
    CHECK(call(f, "tried_otherwise") == nullptr);
    // The sheet has its fold and three seams.
    const auto set = bag::closing_sheet(*f.bag, land);
    REQUIRE(set.sheets.size() == 1);
    int seams = 0, folds = 0;
    for (const auto& piece : set.sheets[0].pieces) {
        folds += piece.name == "fold";
        seams += piece.name == "seam";
    }
    CHECK(folds == 1);
    CHECK(seams == 4);
}

TEST_CASE("where no roll is wide enough two sheets are joined all round") {
    const Round round{4.0, 3.4, {}};
    bag::Choices c;
    c.way = BagWay::envelope;
    c.ease = 0.1;
    Consumable film;
    film.width = 1.5;
    const auto k = bag::wrap_of(c, round, {}, 0.03, film);
    CHECK(k.sheets == 2);
    CHECK(k.length == Approx(2.2 + 0.06));
    CHECK(k.width == Approx(1.87 + 0.06));
    CHECK(k.seam == Approx(2 * (2.26 + 1.93 - 0.06)));
    CHECK(k.area() == Approx(2 * 2.26 * 1.93));
    CHECK(k.joins == 1);
}

TEST_CASE("a tube has to be as wide as half the way round") {
    auto job = bare();
    job.bag.way = BagWay::tube;
    job.bag.tube = 5;
    const auto wide = worked_out(job);
    const auto& k = wide.bag->wrap;
    CHECK(k.wanted == Approx(k.round.across / 2 * 1.1));
    CHECK(k.seam == Approx(2 * 5.0));
    CHECK(wide.bag->film_area == Approx(2 * k.length * 5));
    CHECK(call(wide, "tube_narrow") == nullptr);
    job.bag.tube = std::floor(900 * k.wanted) / 1000;
    const auto narrow = worked_out(job);
    const auto* said = call(narrow, "tube_narrow");
    REQUIRE(said != nullptr);
    CHECK(said->severity == Severity::stop);
    // Its way out is one.
    auto mended = job_to_json(job);
    mended.merge_patch(said->fix->patch);
    CHECK(call(worked_out(job_from_json(mended, "test")), "tube_narrow") == nullptr);
}

TEST_CASE("a film round a back of ribs would be drawn in between them") {
    auto job = bagged();
    job.back.kind = BackKind::egg_crate;
    job.back.bag = BagKind::surface;
    job.bag.way = BagWay::envelope;
    const auto f = worked_out(job);
    const auto& k = f.bag->wrap;
    CHECK(f.bag->behind.gap == Approx(f.back->span));
    CHECK(k.bends == Approx(radius_of_span(f.back->span, job.bag.ease)));
    // 1800 N/m by the library against the pressure on it.
    CHECK(f.bag->gives == Approx(1800 / (f.bag->room - f.bag->reached)));
    const auto* in = call(f, "drawn_in");
    REQUIRE(in != nullptr);
    CHECK(in->severity == Severity::stop);
    REQUIRE(call(f, "tried_otherwise") != nullptr);
    auto mended = job_to_json(job);
    mended.merge_patch(in->fix->patch);
    const auto after = worked_out(job_from_json(mended, "test"));
    CHECK(call(after, "drawn_in") == nullptr);
    CHECK(call(after, "tried_otherwise") == nullptr);
    CHECK(after.bag->wrap.sheets == 0);
    // Its box goes down to the back's underside.
    CHECK(k.round.across > 2 * (f.edge->tool->high.z() - f.edge->tool->low.z() + job.back.height));
}

TEST_CASE("a bag that is used again takes no tape, pays by its life and is closed sooner") {
    const auto film = worked_out(bare());
    auto job = bare();
    job.bag.way = BagWay::reusable;
    const auto f = worked_out(job);
    CHECK(f.bag->tape == 0);
    CHECK(bought(f, "sealant tape") == 0);
    CHECK(f.bag->film.pleats.empty());
    const double whole = f.part->area + f.edge->area;
    CHECK(f.bag->film_area == Approx(whole));
    // 150 pulls by the library, a tenth wasted when it is made.
    CHECK(bought(f, "reusable bag") == Approx(whole / 150 * 1.1));
    CHECK(hours(f, "bagging") == 0);
    CHECK(hours(f, "closing a reusable bag") == Approx(0.25 * whole));
    CHECK(hours(film, "bagging") == Approx(0.6 * whole));
    // Nothing about it depends on ease or on a second film.
    job.bag.ease = 0.4;
    job.bag.second = true;
    const auto same = worked_out(job);
    CHECK(same.bag->film_area == f.bag->film_area);
    CHECK(hours(same, "closing a reusable bag") == Approx(hours(f, "closing a reusable bag")));
}

TEST_CASE("what goes round the tool knows the back only where it goes round it") {
    auto job = bagged();
    const auto first = worked_out(job);
    CHECK(first.bag->behind == bag::ToolBehind{});
    job.bag.way = BagWay::envelope;
    const auto around = worked_out(job);
    job.back.height += 0.1;
    const auto taller = worked_out(job);
    CHECK(taller.bag->wrap.round.across == Approx(around.bag->wrap.round.across + 0.2));
}

TEST_CASE("a pump that was seen to rest tells the leak, and the leak how much it runs") {
    auto job = bagged();
    job.bag.switching = {true, 5000, 8000, 300};
    const auto f = worked_out(job);
    const auto& b = *f.bag;
    CHECK(b.tested);
    CHECK(b.leak_rise == Approx(3000.0 / 300));
    const double Q = b.pump.volume * 10, S = job.brief.pump, end = job.bag.ultimate + Q / S;
    CHECK(b.reached == Approx(end));
    REQUIRE(b.cycle);
    // Drawn down from 8000 to 5000 Pa, then 300 s of rest, by hand.
    const double on = b.pump.volume / S * std::log((8000 - end) / (5000 - end));
    CHECK(b.cycle->duty() == Approx(on / (on + 300)));
    CHECK(call(f, "untested") == nullptr);
    // A test with the valve shut outranks it.
    job.bag.drop = {2000, 2600, 600};
    CHECK(worked_out(job).bag->leak_rise == Approx(1));
}

TEST_CASE("a pump that never gets down to where it stops is told so, and offered where it would") {
    auto job = bagged();
    job.bag.switching = {true, 200, 5000, 0};
    const auto f = worked_out(job);
    CHECK_FALSE(f.bag->cycle);
    const auto* never = call(f, "never_rests");
    REQUIRE(never != nullptr);
    auto mended = job_to_json(job);
    mended.merge_patch(never->fix->patch);
    const auto after = worked_out(job_from_json(mended, "test"));
    CHECK(call(after, "never_rests") == nullptr);
    CHECK(after.bag->cycle);
    // The wrong way round there is no cycle, and no leak to read off it.
    job.bag.switching = {true, 8000, 5000, 300};
    const auto turned = worked_out(job);
    CHECK(call(turned, "never_rests") != nullptr);
    CHECK_FALSE(turned.bag->tested);
    // Nor does a bag ever rise past the room, so that the pump would start again.
    job.bag.switching = {true, 5000, 105000, 0};
    CHECK(call(worked_out(job), "never_rests") != nullptr);
}

TEST_CASE("no bag is said to rise past the room") {
    auto job = bagged();
    job.bag.drop = {2000, 52000, 10};
    const auto f = worked_out(job);
    const auto* leaks = call(f, "leaks");
    REQUIRE(leaks != nullptr);
    // 5000 Pa a second: the room's in twenty.
    CHECK(leaks->headline.find("full of air") != std::string::npos);
    CHECK(value_of(f.bag->figures, "rise") == Approx(101325 / 5000.0));
    job.bag.drop.to = 2100;
    CHECK(value_of(worked_out(job).bag->figures, "rise") == Approx(6000));
}

TEST_CASE("of a mould in pieces each goes into a film of its own, by its share") {
    auto job = fixtures::demo("cello-case-whole");
    job.back.kind = BackKind::none;
    job.bag.way = BagWay::envelope;
    const auto f = worked_out(job);
    REQUIRE(f.bag);
    REQUIRE_FALSE(f.split->one_piece());
    double shown = 0;
    const auto& mesh = f.edge->tool->rimmed.mesh;
    for (std::size_t i = 0; i < mesh.triangles.size(); ++i) shown += mesh.area_vector2(i).norm() / 2;
    const double share = (f.part->area + f.edge->area) / shown;
    CHECK(share > 1.5);
    CHECK(f.bag->film_area == Approx(f.bag->wrap.area() * share));
    CHECK(f.bag->tape == Approx(f.bag->wrap.seam * share + 0.6));
    // Its layers come off their rolls for all of them.
    for (const auto& layer : f.bag->layers) {
        if (layer.cut.metres > 0) CHECK(layer.cut.metres * layer.roll * layer.beside > 0.6 * layer.area);
    }
}

TEST_CASE("lines that leak alone more than is allowed with the bag are mended first") {
    auto job = bagged();
    job.bag.alone = {2000, 2100, 600};
    const auto f = worked_out(job);
    REQUIRE(f.bag->alone);
    // Hose and trap alone, 100 Pa in ten minutes.
    const double lines = 2 * 0.7853981634e-4 + 0.005;
    CHECK(*f.bag->alone == Approx(lines * 100 / 600));
    CHECK(call(f, "system_leaks") == nullptr);
    job.bag.alone.to = 2000 + 2 * 600 * f.bag->allowed * f.bag->pump.volume / lines;
    const auto leaks = worked_out(job);
    REQUIRE(call(leaks, "system_leaks") != nullptr);
    CHECK(call(leaks, "system_leaks")->severity == Severity::caution);
}

TEST_CASE("what a pump lets rise past what is wanted, and lines that cannot be so, are said") {
    auto job = bagged();
    job.bag.wanted = 6000;
    job.bag.switching = {true, 4000, 9000, 0};
    const auto f = worked_out(job);
    const auto* high = call(f, "rests_high");
    REQUIRE(high != nullptr);
    REQUIRE(high->fix);
    auto mended = job_to_json(job);
    mended.merge_patch(high->fix->patch);
    const auto after = worked_out(job_from_json(mended, "test"));
    CHECK(call(after, "rests_high") == nullptr);
    CHECK(call(after, "never_rests") == nullptr);
    // Where it stops above what is wanted, no start helps.
    job.bag.wanted = 3000;
    CHECK_FALSE(call(worked_out(job), "rests_high")->fix);

    job = bagged();
    job.bag.alone = {2000, 1500, 600};
    CHECK(call(worked_out(job), "lines_fell") != nullptr);
    // Lines of 5 l that leak more than bag and lines together.
    job.bag.alone = {2000, 4000, 600};
    CHECK(call(worked_out(job), "lines_differ") == nullptr);
    job.bag.drop = {2000, 2010, 600};
    CHECK(call(worked_out(job), "lines_differ") != nullptr);
}

TEST_CASE("styrene is said to wear a bag that is used again, epoxy is not") {
    auto job = bagged();
    job.bag.way = BagWay::reusable;
    CHECK(call(worked_out(job), "swells") == nullptr);
    for (const auto& r : fixtures::shop().resins) {
        if (has_styrene(r.family)) job.part.resin = r.name;
    }
    CHECK(call(worked_out(job), "swells") != nullptr);
}
