// The plug as a stack of slabs: pins, bevels, hollows, sheets.
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/plug_bodies.hpp"

using namespace jig;
using namespace fixtures;

TEST_CASE("pins go through every slab with material all round, and short sets share a slab") {
    plug::Choices c;
    for (const double draft : {5.0, 30.0}) {
        const auto body = body_of(shapes::frustum(0.4, 0.5, radians(draft)));
        const auto p = plug::slab_plan(c, body, board_of(0.05), quiet);
        REQUIRE(p.stack.slabs.size() == 10);
        CHECK(p.pin_groups == 1);
        for (std::size_t i = 0; i < p.stack.slabs.size(); ++i) {
            CHECK(p.pins[i].size() == 2);
            for (const auto& pin : p.pins[i]) {
                // The whole pin, not only its middle.
                for (int k = 0; k < 8; ++k)
                    CHECK(
                        holds(p.stack.slabs[i].outline,
                              pin + c.slabs.pin / 2 * Point2(std::cos(k * kPi / 4), std::sin(k * kPi / 4))));
            }
        }
    }
    // A leaning tower: no place is common to all its slabs, so sets follow each other.
    auto tower = shapes::box({0, 0, 0}, {0.2, 0.2, 1});
    for (auto& q : tower.points) q.x() += 0.8 * q.z();
    const auto leaning = plug::slab_plan(c, body_of(tower), board_of(0.05), quiet);
    CHECK(leaning.pin_groups > 2);
    std::size_t shared = 0;
    for (const auto& pins : leaning.pins) {
        CHECK(pins.size() >= 2);
        shared += pins.size() > 2;
    }
    CHECK(static_cast<int>(shared) == leaning.pin_groups - 1);
}

TEST_CASE("the bevel of a frustum's slabs is its half angle, and a tilted cut leaves less to sand") {
    plug::Choices c;
    const auto body = body_of(shapes::frustum(0.4, 0.4, radians(12), 180));
    const auto square = plug::slab_plan(c, body, board_of(0.05), quiet);
    for (const auto& slab : square.bevels) {
        REQUIRE(slab.size() >= 4);
        for (const auto& b : slab) CHECK(b.angle == Approx(radians(12)).margin(radians(0.3)));
    }
    c.slabs.bevel = true;
    CHECK(plug::slab_plan(c, body, board_of(0.05), quiet).to_sand < 0.5 * square.to_sand);
    // A cone's steps: half a step's triangle all round, π·(R+r)·s·t/2 summed over the slabs.
    const double t = 0.05, step = t * std::tan(radians(12));
    double steps = 0;
    for (int i = 0; i < 8; ++i) steps += kPi * (2 * (0.4 - i * step) - step) * step * t / 2;
    CHECK(square.to_sand == Approx(steps).epsilon(0.03));
    c.slabs.bevel = false;
    c.slabs.fit = SlabFit::undersize;
    const auto under = plug::slab_plan(c, body, board_of(0.05), quiet);
    CHECK(under.to_sand == 0);
    CHECK(under.to_fill == Approx(steps).epsilon(0.08));
    c.slabs.fit = SlabFit::middle;
    const auto middle = plug::slab_plan(c, body, board_of(0.05), quiet);
    CHECK(middle.to_sand == Approx(middle.to_fill));
    CHECK(middle.to_sand + middle.to_fill == Approx(steps / 2).epsilon(0.1));
}

TEST_CASE("hollows keep their wall, stay covered, and smaller slabs come out of them") {
    plug::Choices c;
    c.slabs.hollow = true;
    c.slabs.wall = 0.05;
    const auto body = body_of(shapes::frustum(0.5, 0.4, radians(35)));
    const auto p = plug::slab_plan(c, body, board_of(0.05), quiet);
    const auto solid = slabs(body.surface->mesh, body.surface->topology, Point::UnitZ(), 0.05, quiet);
    CHECK(p.stack.volume < 0.8 * solid.volume);
    int inside = 0;
    for (std::size_t i = 0; i < p.stack.slabs.size(); ++i) {
        Loops hole;
        for (const auto& loop : p.stack.slabs[i].outline) {
            if (signed_area(loop) >= 0) continue;
            hole.push_back(loop);
            std::reverse(hole.back().begin(), hole.back().end());
        }
        if (!hole.empty()) {
            // Covered by the slab above with a wall of bearing, and clear of the edge by as much.
            REQUIRE(i + 1 < p.stack.slabs.size());
            CHECK(net_area(taken_off(offset(hole, c.slabs.wall - 1e-4), solid.slabs[i + 1].outline)) < 1e-6);
            CHECK(net_area(taken_off(offset(hole, c.slabs.wall - 1e-4), solid.slabs[i].outline)) < 1e-6);
        }
        if (p.inside[i] < 0) continue;
        ++inside;
        const auto& from = p.stack.slabs[static_cast<std::size_t>(p.inside[i])];
        // What is cut from within overlaps nothing of the slab round it.
        Loops outer;
        for (const auto& loop : p.stack.slabs[i].outline) {
            if (signed_area(loop) > 0) outer.push_back(loop);
        }
        CHECK(net_area(jig::shared(outer, from.outline)) < 1e-9);
        CHECK(static_cast<std::size_t>(p.inside[i]) < i);
    }
    CHECK(inside >= 2);
    c.slabs.hollow = false;
    CHECK(p.sheets < plug::slab_plan(c, body, board_of(0.05), quiet).sheets);
}

TEST_CASE("every piece on its sheets carries pins, front and slope, and nothing overlaps") {
    auto job = by(Route::slabs);
    job.plug.board = "PU foam 35, 50 mm";  // sheets of 2 × 1 m
    job.plug.slabs.hollow = true;
    const auto f = worked_out(job);
    const auto pieces = plug::cut_pieces(plan(f), job.plug, 1);
    REQUIRE(pieces.size() >= plan(f).slabs.stack.slabs.size());
    double last = -1e9;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        CHECK(pieces[i].engraved.size() == 2);
        CHECK_THAT(worded(pieces[i].words), Catch::Contains("arrow to the front"));
        // The ticks at the front climb in one slope through the stack.
        CHECK(pieces[i].engraved[0][0].x() > last);
        last = pieces[i].engraved[0][0].x();
        // The tick starts on the outline's own edge.
        CHECK(holds(offset({pieces[i].outline.front()}, 1e-4), pieces[i].engraved[0][0]));
    }
    const auto sheets = lay_onto_sheets(pieces, plug::sheet_rules(plan(f), job.plug, shop()), quiet);
    REQUIRE_FALSE(sheets.sheets.empty());
    for (const auto& sheet : sheets.sheets) {
        for (std::size_t i = 0; i < sheet.pieces.size(); ++i) {
            for (std::size_t k = 0; k < i; ++k)
                CHECK(net_area(jig::shared(sheet.pieces[i].loops, sheet.pieces[k].loops)) < 1e-8);
        }
    }
    fixtures::Folder folder;
    write_sheet_dxf(sheets, 0, folder / "sheet.dxf");
    // Read back, the largest outline is the sheet itself.
    const auto back = read_outline(read_file(folder / "sheet.dxf"), "sheet.dxf", 1e-4);
    CHECK(signed_area(back) == Approx(sheets.rules.length * sheets.rules.width).epsilon(1e-6));
}

TEST_CASE("slabs lie along whichever way costs least, or as they are told") {
    auto job = by(Route::slabs);
    // A long low tray takes fewer, larger slabs along the pull than across.
    for (const auto way : {SlabWay::pull, SlabWay::length, SlabWay::width, SlabWay::best}) {
        job.plug.slabs.way = way;
        const auto f = worked_out(job);
        REQUIRE(f.plug);
        const Point axis = plan(f).slabs.stack.frame.w;
        if (way == SlabWay::pull || way == SlabWay::best) CHECK(std::abs(axis.z()) == Approx(1).margin(1e-6));
        if (way == SlabWay::length) CHECK(std::abs(axis.x()) == Approx(1).margin(1e-6));
        if (way == SlabWay::width) CHECK(std::abs(axis.y()) == Approx(1).margin(1e-6));
    }
}
