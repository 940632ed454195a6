// The plug by every route: what is cut, what it takes, and whether it will stand it.
#include <catch2/catch.hpp>

#include "core/science/machine/scallop.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/plug/hazards.hpp"
#include "core/stages/plug/mould.hpp"
#include "core/stages/plug/sheets.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/plug_bodies.hpp"

using namespace jig;
using namespace fixtures;

TEST_CASE("a block is parted for the router, glued from boards, and finished by the cheapest step") {
    auto job = by(Route::block);
    job.brief.router_x = 0.5;
    job.brief.router_y = 0.3;
    job.brief.router_z = 0.1;
    const auto f = worked_out(job);
    const auto& b = plan(f).block;
    const auto& c = job.plug.block;
    const Point size = f.shape->measures.size;
    double volume = 0;
    for (const auto& part : b.parts) {
        const Point s = part.high - part.low;
        CHECK(std::max(s.x(), s.y()) <= 0.5 + 1e-9);
        CHECK(std::min(s.x(), s.y()) <= 0.3 + 1e-9);
        CHECK(s.z() <= 0.1 + 1e-9);
        volume += s.prod();
        for (const auto& d : part.dowels) {
            // Each lies in a face of its part.
            const bool u = std::abs(d.x() - part.high.x()) < 1e-9, v = std::abs(d.y() - part.high.y()) < 1e-9,
                       w = std::abs(d.z() - part.high.z()) < 1e-9;
            CHECK((u || v || w));
        }
    }
    CHECK(volume ==
          Approx((size.x() + 2 * c.allowance) * (size.y() + 2 * c.allowance) * (size.z() + c.allowance)));
    CHECK(b.removed == Approx(volume - f.shape->measures.volume));
    CHECK(b.bought > volume);
    // No step of the curve costs less than the one that was chosen.
    double least = 1e30;
    for (const auto& choice : b.curve) least = std::min(least, choice.machine + choice.hands);
    for (const auto& choice : b.curve) {
        if (choice.step == Approx(b.step)) CHECK(choice.machine + choice.hands == Approx(least));
    }
    CHECK(b.scallop == Approx(scallop_height(b.step, c.cutter)));
    job.plug.block.step = 0.0005;
    const auto fine = worked_out(job);
    CHECK(plan(fine).block.step == Approx(0.0005));
    CHECK(plan(fine).block.machine > b.machine);
    CHECK(plan(fine).block.by_hand < b.by_hand);
    job.brief.router_x = 0;
    REQUIRE(call(worked_out(job), "obstacle") != nullptr);
    const auto other = patched(job, call(worked_out(job), "obstacle")->fix->patch);
    CHECK(other.plug.route == Route::slabs);
}

TEST_CASE("a cutter that does not reach is called, and the offered stick-out reaches") {
    auto job = by(Route::block);
    job.plug.block.stick_out = 0.03;
    const auto f = worked_out(job);
    REQUIRE(call(f, "deep_block") != nullptr);
    const auto longer = patched(job, call(f, "deep_block")->fix->patch);
    CHECK(longer.plug.block.stick_out > 0.1);
    CHECK(call(worked_out(longer), "deep_block") == nullptr);
    job.plug.block.cutter = 0.1;
    job.shape.tray.recess = true;
    CHECK(call(worked_out(job), "tight") != nullptr);
}

TEST_CASE("a skeleton's ribs lie under the skin and their slots meet") {
    plug::Choices c;
    c.route = Route::skeleton;
    c.skeleton.pitch = 0.15;
    c.skeleton.skin = 0.01;
    c.skeleton.keels = 2;
    c.skeleton.clearance = 0;
    const auto body = body_of(shapes::box({-0.5, -0.2, 0}, {1.0, 0.4, 0.3}));
    const auto ply = board_of(0.012);
    const auto s = plug::skeleton_plan(c, body, ply, quiet);
    REQUIRE(s.stations.size() == 7);
    REQUIRE(s.keels.size() == 2);
    // A station is the box less the skin all round, less two slots half its height.
    const double station = (0.4 - 0.02) * (0.3 - 0.02), slot = 0.012 * 0.14;
    for (const auto& rib : s.stations)
        CHECK(net_area(rib.outline) == Approx(station - 2 * slot).epsilon(1e-3));
    for (const auto& rib : s.keels)
        CHECK(net_area(rib.outline) == Approx(0.98 * 0.28 - 7 * slot).epsilon(1e-3));
    // Put together, station and keel share the crossing without meeting: above it the keel, below it the
    // station.
    const double across = -0.2 + 0.4 / 3;
    for (const auto& station_rib : s.stations) {
        const Point at = station_rib.plane.w * station_rib.at + Point(0, across, 0);
        const Point2 in_station = station_rib.plane.flat(at + Point(0, 0, 0.25));
        CHECK_FALSE(holds(station_rib.outline, in_station));
        CHECK(holds(station_rib.outline, station_rib.plane.flat(at + Point(0, 0, 0.05))));
        bool met = false;
        for (const auto& keel : s.keels) {
            if (std::abs(keel.plane.w.dot(at) - keel.at) > 1e-6) continue;
            met = true;
            CHECK(holds(keel.outline, keel.plane.flat(at + Point(0, 0, 0.25))));
            CHECK_FALSE(holds(keel.outline, keel.plane.flat(at + Point(0, 0, 0.05))));
        }
        CHECK(met);
    }
    CHECK(s.fill + s.skin + s.ply_area * 0.012 == Approx(body.volume).epsilon(1e-6));
    // A template's inner edge is the section itself.
    REQUIRE(s.templates.size() == 7);
    const auto whole = s.templates.front().outline;
    const Point2 size = high_corner(whole) - low_corner(whole);
    CHECK(net_area(whole) == Approx(size.x() * size.y() - 0.4 * 0.3).epsilon(1e-6));
    plug::Plan made;
    made.route = Route::skeleton;
    made.skeleton = s;
    CHECK(plug::cut_pieces(made, c, 1).size() == 9);
    CHECK(plug::cut_pieces(made, c, 1, true).size() == 7);
}

TEST_CASE("printed tiles, foam and splash follow from volume and area") {
    auto job = by(Route::tiles);
    job.plug.tiles.room = {0.2, 0.2, 0.2};
    auto f = worked_out(job);
    REQUIRE(f.plug);
    const auto& t = plan(f).tiles;
    CHECK(t.tiles.size() >= 6);
    double volume = 0;
    for (const auto& tile : t.tiles) volume += tile.volume;
    // Play round the keys takes a little.
    CHECK(volume == Approx(f.shape->measures.volume).epsilon(1e-3));
    const auto& filament = need(shop().filaments, job.plug.tiles.filament, "test");
    CHECK(plan(f).mass < volume * filament.density);
    CHECK(plan(f).mass > job.plug.tiles.infill * volume * filament.density);
    const double hours = value_of(plan(f).figures, "printing");
    job.plug.tiles.printers = 2;
    CHECK(value_of(plan(worked_out(job)).figures, "printing") == Approx(hours / 2));
    job.plug.tiles.room = {0.001, 0.2, 0.2};
    f = worked_out(job);
    CHECK_FALSE(f.plug);
    CHECK_THAT(call(f, "input")->headline, Catch::Contains("room"));
    const auto foam = worked_out(by(Route::foam));
    const auto& board = need(shop().boards, by(Route::foam).plug.foam.board, "test");
    const auto& cloth = need(shop().reinforcements, by(Route::foam).plug.foam.cloth, "test");
    CHECK(plan(foam).mass == Approx(foam.shape->measures.volume * board.density +
                                    2 * 2 * cloth.areal_mass * foam.split->moulded_area));
    auto splash = by(Route::splash);
    const auto once = worked_out(splash);
    CHECK(value_of(plan(once).figures, "shrink") == Approx(0.002 * once.split->size.x()));
    CHECK(sum(plan(once), "accuracy").value > sum(plan(foam), "accuracy").value);
    CHECK(once.complete());
}

TEST_CASE("an existing part needs one, and its holes are blanked") {
    auto job = by(Route::existing);
    REQUIRE(call(worked_out(job), "obstacle") != nullptr);
    job.shape.kind = ShapeKind::copied;
    job.shape.copying.holes = 3;
    const auto f = worked_out(job);
    CHECK(call(f, "obstacle") == nullptr);
    CHECK(value_of(plan(f).figures, "holes") == 3);
    double blanking = 0;
    for (const auto& w : plan(f).works) blanking += w.what.find("blank") != std::string::npos ? w.hours : 0;
    CHECK(blanking == Approx(3 * shop().rate("blanking holes")));
}

TEST_CASE("seven routes stand side by side, each sum with its reason, and the chosen one is what Run books") {
    const auto job = small_job();
    const auto f = worked_out(job);
    const auto plans =
        plug::side_by_side(job.plug, job.shape, *f.shape, *f.split, {}, job.brief, 1, shop(), quiet);
    // The eighth does without a plug and has tests of its own.
    REQUIRE(plans.size() == 8);
    for (const auto& p : plans) {
        if (p.route == Route::direct) continue;
        INFO(said(p.route));
        for (const auto* key : {"hours", "days", "cost", "mass", "accuracy", "surface", "heat", "moulds"}) {
            CHECK(sum(p, key).value > 0);
            CHECK_FALSE(sum(p, key).reason.empty());
        }
        // The sums are the plan's own.
        CHECK(sum(p, "hours").value == Approx(p.hours() * 3600));
        CHECK(sum(p, "cost").value == Approx(p.cost() + p.hours() * shop().rate("labour")));
    }
    CHECK(sum(plans[0], "accuracy").value < sum(plans[1], "accuracy").value);
    const auto& slabs_plan = plans[1];
    CHECK(slabs_plan.hours() == Approx(plan(f).hours()));
    double booked = 0, bought = 0;
    for (const auto& h : f.run->hours) booked += h.stage == Stage::plug ? h.hours : 0;
    for (const auto& m : f.run->materials) bought += m.stage == Stage::plug ? m.cost : 0;
    CHECK(booked == Approx(plan(f).hours()));
    // The mould's discs are bought with the plug's.
    double discs = 0;
    for (const auto& n : plan(f).needs) {
        if (n.what == "grit discs") discs += n.amount;
    }
    const double price = need(shop().consumables, "grit discs", "test").price;
    CHECK(bought == Approx(plan(f).cost() + std::ceil(discs / 2) * price));
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(
        plug::side_by_side(job.plug, job.shape, *f.shape, *f.split, {}, job.brief, 1, shop(), stopped),
        Cancelled);
}

TEST_CASE(
    "the surface schedule grows with the grade and its sanding is the shop's rate with its setting up") {
    double last = 0;
    for (const auto grade : {Grade::structural, Grade::paintable, Grade::clear, Grade::gloss}) {
        const auto steps = plug::surface_schedule(grade, Barrier::epoxy, 2.0, shop());
        double sanding = 0, all = 0;
        int grit = 0;
        for (const auto& s : steps) {
            all += s.hours;
            if (s.what.rfind("sand through", 0) != 0) continue;
            sanding += s.hours;
            const int now = std::stoi(s.what.substr(s.what.find("grit") + 5));
            CHECK(now > grit);
            grit = now;
        }
        CHECK(sanding ==
              Approx(need(shop().rates, "sanding " + std::string(file_word(grade)), "test").hours(2.0)));
        CHECK(all > last);
        last = all;
        CHECK(steps.front().what.find("epoxy") != std::string::npos);
        CHECK(plug::surface_schedule(grade, Barrier::none, 2.0, shop()).size() == steps.size() - 1);
    }
    // Break-even by hand: the tool's extra hours over what it saves on each part.
    const auto h = plug::finish_hours(Grade::gloss, 3.0, shop());
    CHECK(h.tool + h.break_even * h.part == Approx(h.bare_tool + h.break_even * h.bare_part));
    CHECK(h.break_even > 1);
    // Setting up tells on a small area; on a large one it is the rates alone.
    const auto of = [](const char* name) { return shop().rate(name); };
    const double large =
        1.5 * (of("sanding gloss") - of("sanding structural")) /
        (of("paint kept out of part") * (of("finishing gloss") - of("finishing structural")));
    CHECK(plug::finish_hours(Grade::gloss, 1e6, shop()).break_even == Approx(large));
    CHECK(h.break_even != Approx(large).epsilon(1e-3));
    CHECK(plug::finish_hours(Grade::structural, 3.0, shop()).break_even == 0);
}

TEST_CASE("an envelope bag crushes soft foam, and a hollow's lid before it") {
    auto job = by(Route::slabs);
    job.plug.board = "EPS foam 20, 50 mm";
    job.plug.in_envelope = true;
    job.plug.vacuum = 90000;
    job.heat.shell_gel = kelvin(20);
    auto f = worked_out(job);
    // A third of 100 kPa for hours, cold, against 90 kPa.
    CHECK(f.plug->crush_safety == Approx(100000.0 / 3 / 90000));
    REQUIRE(call(f, "crush") != nullptr);
    CHECK(call(f, "crush")->severity == Severity::stop);
    // Warm it bears less: half at its limit.
    job.heat.shell_gel = need(shop().boards, job.plug.board, "test").top_temperature;
    CHECK(worked_out(job).plug->crush_safety == Approx(0.5 * 100000.0 / 3 / 90000));
    job.heat.shell_gel = kelvin(20);
    const auto less = patched(job, call(f, "crush")->fix->patch);
    CHECK(less.plug.vacuum == Approx(45000));
    job.plug.board = "PU board 700, 50 mm";
    f = worked_out(job);
    CHECK(call(f, "crush") == nullptr);
    CHECK(f.plug->wall_safety == 0);
    job.plug.slabs.hollow = true;
    job.plug.slabs.wall = 0.03;
    f = worked_out(job);
    CHECK(f.plug->wall_safety > 0);
    CHECK(f.plug->wall_safety < f.plug->crush_safety);
    job.plug.in_envelope = false;
    CHECK(worked_out(job).plug->crush_safety == 0);
}

TEST_CASE("resins attack what they attack") {
    using plug::Attack;
    using plug::Substance;
    CHECK(plug::attack(Substance::polystyrene, Family::polyester) == Attack::dissolves);
    CHECK(plug::attack(Substance::polystyrene, Family::vinyl_ester) == Attack::dissolves);
    CHECK(plug::attack(Substance::polystyrene, Family::epoxy) == Attack::stands);
    CHECK(plug::attack(Substance::polyurethane, Family::polyester) == Attack::stands);
    CHECK(plug::attack(Substance::clay, Family::polyester) == Attack::test);
    CHECK(plug::attack(Substance::plaster, Family::epoxy) == Attack::test);
    for (const auto& s : plug::substances()) CHECK_FALSE(std::string(s.care).empty());
    auto job = small_job();
    CHECK(call(worked_out(job), "attack") == nullptr);
    job.shell = shell::start_from(School::mat_polyester);
    CHECK(call(worked_out(job), "attack") != nullptr);
}

TEST_CASE("pieces of a mould may be taken from plugs of their own, each by its route") {
    auto job = fixtures::demo("cello-case-whole");
    job.shape.stations.facet = 0.04;
    job.plug.by_piece = true;
    job.plug.piece_routes = {Route::slabs, Route::tiles};
    const auto f = worked_out(job);
    REQUIRE(f.plug);
    REQUIRE(f.plug->plans.size() == 2);
    CHECK(f.plug->plans[0].route == Route::slabs);
    CHECK(f.plug->plans[1].route == Route::tiles);
    CHECK(f.plug->plans[0].body == "back shell");
    CHECK(f.plug->mass == Approx(f.plug->plans[0].mass + f.plug->plans[1].mass));
    CHECK(f.plug->sanding_area == Approx(f.split->moulded_area).epsilon(1e-6));
    double tiles = 0;
    for (const auto& t : f.plug->plans[1].tiles.tiles) tiles += t.volume;
    // Half of the whole body, up to the keys' play.
    CHECK(tiles == Approx(f.shape->measures.volume / 2).epsilon(0.02));
    CHECK(f.complete());
    const auto care = plug::hazards(job.plug);
    std::string all;
    for (const auto& s : care) all += s;
    CHECK_THAT(all, Catch::Contains("Hot wire") && Catch::Contains("Printing"));
}

TEST_CASE("the plug is cut undersize by its coats and scaled for growth") {
    const auto ball = shapes::sphere(0.3, 60);
    const auto cut = plug::compensated(ball, 0.002, 1.01);
    for (const auto& p : cut.points) CHECK(p.norm() == Approx(1.01 * 0.298).epsilon(2e-3));
    CHECK(cut.triangles == ball.triangles);
}

TEST_CASE(
    "what is cut follows the size that Heat has the plug cut at, and printed tiles leave room for coats") {
    const double scale = 1.004;
    const auto spread = [](const std::vector<CutPiece>& pieces) {
        double out = 0;
        for (const auto& piece : pieces)
            out += (high_corner(piece.outline) - low_corner(piece.outline)).sum();
        return out;
    };
    for (const auto route : {Route::slabs, Route::skeleton}) {
        auto job = by(route);
        const auto f = worked_out(job);
        const auto drawn = plug::cut_pieces(plan(f), job.plug, 1);
        const auto cut = plug::cut_pieces(plan(f), job.plug, scale);
        REQUIRE(cut.size() == drawn.size());
        REQUIRE_FALSE(cut.empty());
        CHECK(spread(cut) == Approx(scale * spread(drawn)).epsilon(1e-9));
        for (std::size_t i = 0; i < cut.size(); ++i)
            CHECK(net_area(cut[i].outline) == Approx(scale * scale * net_area(drawn[i].outline)));
        // The sheets that are bought and written are those of what is cut.
        const auto sheets = plug::cutting(f.plug->plans, job.plug, scale, shop());
        REQUIRE(sheets.stocks.size() == 1);
        CHECK(spread(sheets.stocks[0].pieces) == Approx(spread(cut)).epsilon(1e-9));
    }
    const auto slabs = worked_out(by(Route::slabs));
    const auto at_size = bounds_of(plug::stack_as_cut(plan(slabs), 1)),
               scaled = bounds_of(plug::stack_as_cut(plan(slabs), scale));
    const auto& pull = plan(slabs).slabs.stack.frame;
    const Point size = at_size.high - at_size.low, grown = scaled.high - scaled.low;
    CHECK(pull.flat(grown).cwiseAbs().x() == Approx(scale * std::abs(pull.flat(size).x())));
    CHECK(std::abs(pull.w.dot(grown)) == Approx(std::abs(pull.w.dot(size))));
    // All tiles together are as large as the plug that a router would cut.
    auto job = by(Route::tiles);
    job.plug.build_up = 0.003;
    const auto f = worked_out(job);
    const auto bodies = plug::bodies(job.plug, *f.shape, *f.split);
    REQUIRE(bodies.size() == 1);
    const auto set = plug::tiles_as_cut(plan(f), bodies[0], job.plug, scale, shop(), quiet);
    Point low = Point::Constant(1e300), high = -low;
    for (const auto& tile : set.tiles) {
        const auto box = bounds_of(tile.mesh);
        low = low.cwiseMin(box.low);
        high = high.cwiseMax(box.high);
    }
    const auto routed = bounds_of(plug::compensated(bodies[0].surface->mesh, 0.003, scale)),
               drawn = bounds_of(bodies[0].surface->mesh);
    CHECK((low - routed.low).norm() < 1e-6);
    CHECK((high - routed.high).norm() < 1e-6);
    CHECK((drawn.high - drawn.low).x() * scale - (high - low).x() == Approx(2 * 0.003 * scale).epsilon(0.1));
    double volume = 0;
    for (const auto& tile : set.tiles) volume += tile.volume;
    CHECK(volume < std::pow(scale, 3) * bodies[0].volume);
}

TEST_CASE("plug choices are written and read back, and unknown names are refused with words") {
    auto job = by(Route::tiles);
    job.plug.by_piece = true;
    job.plug.piece_routes = {Route::foam, Route::block};
    job.plug.slabs.fit = SlabFit::middle;
    job.plug.tiles.room = {0.1, 0.2, 0.3};
    CHECK(job_from_json(job_to_json(job), "job") == job);
    auto json = job_to_json(job);
    json["plug"]["route"] = "marble";
    CHECK_THROWS_WITH(job_from_json(json, "job"), Catch::Contains("marble"));
    job.plug.tiles.filament = "moonstone";
    CHECK_THAT(call(worked_out(job), "input")->headline, Catch::Contains("moonstone"));
}
