// Inserts on faces that are known, by hand: where they lie, what shears and what bears.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/error.hpp"
#include "core/job/evaluate.hpp"
#include "core/science/fasten/hard_point.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/part/inserts.hpp"
#include "core/stages/part/kit.hpp"
#include "core/stages/part/trial.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::shop;
using fixtures::worked_out;
using part::Insert;

namespace {

/// Glass on both sides of 10 mm of foam, the inner skin of two plies.
part::Choices bolted_part() {
    part::Choices c;
    const Layer ply{LayerKind::ply, "glass cloth 300 twill", 0, 0};
    c.layers = {ply, {LayerKind::core, "PVC foam 75, 10 mm", 0, 0}, ply, ply};
    return c;
}

Insert at(double along, double across) {
    Insert out;
    out.along = along;
    out.across = across;
    return out;
}

struct Lying {
    part::Draped draped;
    Frame frame{Point::UnitX(), Point::UnitY(), Point::UnitZ()};
    part::Choices part = bolted_part();

    Lying() {
        auto plate =
            shapes::sheet(20, 16, [](double u, double v) { return Point(u - 0.5, 0.8 * v - 0.4, 0); });
        draped.area = shapes::area_of(plate);
        draped.face = std::make_shared<const TriangleMesh>(std::move(plate));
    }
    [[nodiscard]] std::vector<part::InsertFit> fits() const {
        edge::ToolFace tool;
        tool.frame = frame;
        const auto marked = part::regions(part::zones_asked(part), tool.frame, draped, quiet);
        const auto& resin = need(shop().resins, part.resin, "test");
        std::map<std::uint32_t, StackSum> known;
        return part::insert_fits(
            part, part::insert_places(part::inserts_asked(part), frame, draped), marked,
            [&](std::uint32_t zones) -> const StackSum& {
                return known[zones] =
                           sum_stack(part::layers_under(part, zones), resin, part.how, shop(), "test");
            },
            shop());
    }
};

}  // namespace

TEST_CASE("a hard point shears its core, bears on its skin, and both together by the sum of squares") {
    CHECK(pull_out(0.03, 0.01, 1e6) == Approx(kPi * 300));
    CHECK(bearing_load(0.006, 0.002, 200e6) == Approx(2400));
    CHECK(hard_point_holds(100, 300, 0, 0) == Approx(3));
    CHECK(hard_point_holds(0, 0, 500, 2000) == Approx(4));
    CHECK(hard_point_holds(300, 500, 400, 500) == Approx(1));
    CHECK(std::isinf(hard_point_holds(0, 100, 0, 100)));
    CHECK(hard_point_holds(1, 0, 0, 100) == 0);
}

TEST_CASE("what an insert bears by hand: core by its girth, skins by what leans on them") {
    Lying on;
    auto potted = at(0.1, 0.05);
    potted.size = 0.04;
    potted.pull = 200;
    potted.push = 300;
    auto block = potted;
    block.kind = InsertKind::block;
    block.along = -0.3;
    on.part.inserts = {potted, block};
    const auto fits = on.fits();
    REQUIRE(fits.size() == 2);
    const auto& foam = need(shop().cores, "PVC foam 75, 10 mm", "test");
    const auto& resin = need(shop().resins, on.part.resin, "test");
    const double ply = lay_up({on.part.layers[0]}, resin, on.part.how, shop(), "test")[0].ply.thickness;
    const double bearing = part::bearing_of(need(shop().reinforcements, "glass cloth 300 twill", "test"));
    for (const auto& fit : fits) {
        CHECK_FALSE(fit.place.beside);
        CHECK(fit.core == 0.01);
        CHECK(fit.pull_borne == Approx(kPi * 0.04 * 0.01 * foam.shear_strength));
    }
    // The potting leans on the two plies at the bag's side, over all its width; the block's bolt on all
    // three.
    CHECK(fits[0].skin == Approx(2 * ply));
    CHECK(fits[0].push_borne == Approx(0.04 * 2 * ply * bearing));
    CHECK(fits[1].skin == Approx(3 * ply));
    CHECK(fits[1].push_borne == Approx(0.006 * 3 * ply * bearing));
    CHECK(fits[0].holds == Approx(1 / std::hypot(200 / fits[0].pull_borne, 300 / fits[0].push_borne)));
    CHECK((fits[0].place.at - Point(0.1, 0.05, 0)).norm() < 1e-12);
    CHECK(fits[0].place.rim == Approx(0.35));
    CHECK(fits[1].place.rim == Approx(0.2));
    // Its paste: the bore less the insert of twice its bolt, in the core alone.
    const auto paste = part::fill_of(potted, fits[0], shop());
    CHECK(paste.paste == Approx(kPi / 4 * 0.01 * (0.04 * 0.04 - 0.012 * 0.012)));
    CHECK(paste.mass == Approx(paste.paste * (700 - foam.density)));
    CHECK(paste.block == 0);
    // A block is as thick as the core: 10 mm of boards of 9 mm are two, of 50 mm one.
    const auto sawn = [&](const char* board) {
        block.block = board;
        return part::fill_of(block, fits[1], shop());
    };
    CHECK(sawn("PU board 700, 50 mm").paste == 0);
    CHECK(sawn("PU board 700, 50 mm").block == Approx(0.0016));
    CHECK(sawn("birch plywood 9 mm").block == Approx(2 * 0.0016));
    CHECK(sawn("birch plywood 9 mm").mass == Approx(kPi / 4 * 0.0016 * 0.01 * (680 - foam.density)));
    CHECK_THROWS_AS(sawn("oak that nobody has"), InputError);
    // Where there is no core nothing takes its place.
    auto plain = fits[1];
    plain.core = 0;
    CHECK(part::fill_of(block, plain, shop()).mass == 0);
}

TEST_CASE("an insert takes the stack of the zone that it lies in, and a zone can lie round it") {
    Lying on;
    on.part.inserts = {at(0, 0), at(0.45, 0)};
    on.part.inserts[1].pull = 100;
    part::Zone rim;
    rim.way = ZoneWay::for_core;
    rim.width = 0.1;
    on.part.zones = {rim};
    auto fits = on.fits();
    CHECK(fits[0].core == 0.01);
    CHECK(fits[1].core == 0);
    CHECK_FALSE(fits[1].pull_known);
    part::Zone round = rim;
    round.place = ZonePlace::inserts;
    round.way = ZoneWay::adds;
    round.width = 0.06;
    round.layers = {on.part.layers[0]};
    on.part.zones = {round};
    edge::ToolFace tool;
    tool.frame = on.frame;
    const auto marked = part::regions(part::zones_asked(on.part), tool.frame, on.draped, quiet);
    // A disc of 60 mm, and one that the rim at 50 mm cuts off: its segment of half angle acos(5/6).
    const double segment = 0.06 * 0.06 * (std::acos(5.0 / 6) - 5.0 / 6 * std::sqrt(11.0) / 6);
    CHECK(marked.area_of(0) == Approx(2 * kPi * 0.0036 - segment).epsilon(0.02));
    const auto before = fits[0].skin;
    fits = on.fits();
    CHECK(fits[0].skin == Approx(1.5 * before));
    // Moved, the zone goes along; without inserts it lies nowhere.
    on.part.inserts = {at(0.2, 0.1)};
    CHECK(part::zones_asked(on.part).inserts == std::vector<std::pair<part::Spot, int>>{{{0.2, 0.1}, 0}});
    on.part.inserts.clear();
    CHECK(part::regions(part::zones_asked(on.part), tool.frame, on.draped, quiet).area_of(0) == 0);
}

TEST_CASE("whatever lays zones out knows where the inserts are that one goes round") {
    Lying on;
    on.part.inserts = {at(0.1, 0.05), at(-0.2, 0)};
    part::Zone round;
    round.place = ZonePlace::inserts;
    round.width = 0.06;
    round.layers = {on.part.layers[0]};
    on.part.zones = {round};
    on.part.how = LayUp::infused;
    on.part.resin = "epoxy, infusion";
    on.part.duty.loads = {{}};
    const auto places = part::zones_asked(on.part);
    REQUIRE(places.inserts.size() == 2);
    CHECK(part::zones_asked(part::kit_asked(on.part)) == places);
    CHECK(part::zones_asked(part::core_asked(on.part).stack) == places);
    CHECK(part::zones_asked(part::duty_asked(on.part).stack) == places);
    const auto flow = bag::flow_asked({}, on.part, {}, 293, shop());
    REQUIRE(flow.infused);
    CHECK(part::zones_asked(flow.stack) == places);
    // Where no zone goes round them, an insert that is moved asks for no other cloth, core or resin.
    on.part.zones[0].place = ZonePlace::rim;
    const auto kit = part::kit_asked(on.part);
    const auto core = part::core_asked(on.part);
    const auto resin = bag::flow_asked({}, on.part, {}, 293, shop());
    on.part.inserts[0].along += 0.1;
    CHECK(part::kit_asked(on.part) == kit);
    CHECK(part::core_asked(on.part) == core);
    CHECK(bag::flow_asked({}, on.part, {}, 293, shop()) == resin);
    // Loads bend the part otherwise, wherever its zones lie; what pulls on an insert they do not know.
    const auto duty = part::duty_asked(on.part);
    on.part.inserts[0].pull = 300;
    on.part.inserts[0].name = "handle";
    CHECK(part::duty_asked(on.part) == duty);
    on.part.inserts[0].along += 0.1;
    CHECK_FALSE(part::duty_asked(on.part) == duty);
}

TEST_CASE("each thing that is wrong with an insert is called, and what is offered mends it") {
    Lying on;
    auto& list = on.part.inserts;
    const auto called = [&](const char* key) -> std::optional<Call> {
        for (const auto& c : part::insert_calls(on.part, {on.fits()})) {
            if (c.key == key) return c;
        }
        return {};
    };
    list = {at(0, 0)};
    list[0].pull = 200;
    CHECK(part::insert_calls(on.part, {on.fits()}).empty());
    // Twice what is wanted is asked for; half again as much load is too much, a tenth of it a stop.
    list[0].pull = 0.7 * on.fits()[0].pull_borne;
    auto weak = called("insert_weak");
    REQUIRE(weak);
    CHECK(weak->severity == Severity::caution);
    REQUIRE(weak->fix);
    Job job;
    job.part = on.part;
    list = patched(job, weak->fix->patch).part.inserts;
    CHECK_FALSE(called("insert_weak"));
    CHECK(on.fits()[0].holds == Approx(on.part.duty.factor).epsilon(0.05));
    list[0].pull = 2 * on.fits()[0].pull_borne;
    CHECK(called("insert_weak")->severity == Severity::stop);
    // So wide a potting is none: nothing is offered.
    list[0].pull = 20 * on.fits()[0].pull_borne;
    CHECK_FALSE(called("insert_weak")->fix);
    list = {at(2, 0)};
    CHECK(called("insert_nowhere"));
    list = {at(0.48, 0)};
    CHECK(called("insert_edge"));
    list = {at(0, 0), at(0.05, 0)};
    CHECK(called("insert_crowded"));
    list = {at(0, 0), at(0.2, 0)};
    CHECK_FALSE(called("insert_crowded"));
    on.part.layers.erase(on.part.layers.begin() + 1);
    list = {at(0, 0)};
    list[0].pull = 10;
    CHECK(called("insert_unknown"));
    list.assign(part::kMostInserts + 1, at(0, 0));
    CHECK_THROWS_AS(part::insert_places(part::inserts_asked(on.part), on.frame, on.draped), InputError);
}

TEST_CASE("inserts of a demo are bought, bored for, drawn on a template, and weigh") {
    auto job = fixtures::demo("cello-case");
    const auto plain = worked_out(job);
    job.part.inserts = {at(0, 0), at(0.2, 0.05)};
    job.part.inserts[0].name = "handle ahead";
    job.part.inserts[0].pull = 250;
    const auto f = worked_out(job);
    REQUIRE(f.part->inserts.size() == 1);
    REQUIRE(f.part->inserts[0].size() == 2);
    CHECK(f.part->potting > 0);
    const auto has = [](const Findings& of, const char* what) {
        for (const auto& m : of.run->materials) {
            if (m.what == what) return m.amount;
        }
        return 0.0;
    };
    const auto heavier = std::find_if(f.part->figures.begin(), f.part->figures.end(),
                                      [](const Figure& figure) { return figure.key == "inserts_mass"; });
    REQUIRE(heavier != f.part->figures.end());
    CHECK(heavier->value > 0);
    CHECK(f.part->mass - plain.part->mass == Approx(heavier->value));
    auto blocks = job;
    for (auto& insert : blocks.part.inserts) {
        insert.kind = InsertKind::block;
        insert.block = "birch plywood 12 mm";
    }
    const auto sawn = worked_out(blocks);
    CHECK(sawn.part->potting == 0);
    CHECK(has(sawn, "birch plywood 12 mm, for blocks") > 0);
    CHECK(has(f, "birch plywood 12 mm, for blocks") == 0);
    blocks.part.inserts[1].block = "oak that nobody has";
    const auto missing = worked_out(blocks);
    CHECK(missing.part == nullptr);
    CHECK(has(plain, "threaded insert") == 0);
    CHECK(has(f, "threaded insert") >= 2);
    const auto sheets = part::insert_template(job.part, f.part->inserts[0], *f.edge->tool);
    REQUIRE(sheets.sheets.size() == 1);
    const auto& drawn = sheets.sheets[0].pieces;
    REQUIRE(drawn.size() == 3);
    CHECK(drawn[1].name == "handle ahead");
    // Two bores in the rim's outline, as far apart as the inserts are.
    REQUIRE(drawn[0].loops.size() >= 3);
    const Loops one{drawn[0].loops[drawn[0].loops.size() - 2]}, two{drawn[0].loops.back()};
    const Point2 between = (low_corner(two) + high_corner(two) - low_corner(one) - high_corner(one)) / 2;
    CHECK(between.norm() == Approx(std::hypot(0.2, 0.05)).epsilon(1e-6));
    CHECK(high_corner(one).x() - low_corner(one).x() == Approx(0.006).epsilon(0.01));
}
