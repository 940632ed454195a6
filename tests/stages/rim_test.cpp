// Hoses, gauge and pleats on the land of a film; trap and gauge as equipment.
#include "core/stages/bag/rim.hpp"

#include <catch2/catch.hpp>

#include "core/science/mesh/cut.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using bag::OnRim;
using fixtures::bagged;
using fixtures::call;
using fixtures::worked_out;

namespace {

constexpr auto kHose = RimThing::hose, kGauge = RimThing::gauge, kPleat = RimThing::pleat;

/// A film whose land is a rectangle in the plane, from the middle of a long side.
Film land_of(double l, double w, std::vector<double> pleats = {}) {
    Film film;
    film.land = {{0, 0, 0}, {l / 2, 0, 0}, {l / 2, w, 0}, {-l / 2, w, 0}, {-l / 2, 0, 0}};
    film.land_length = 2 * (l + w);
    film.depth = 0.1;
    for (const double at : pleats) film.pleats.push_back({at, 0.05});
    return film;
}

std::vector<bag::Standing> of(const bag::Rim& rim, RimThing what) {
    std::vector<bag::Standing> out;
    for (const auto& s : rim.things) {
        if (s.what == what) out.push_back(s);
    }
    return out;
}

double round(double a, double b, double length) {
    const double d = std::abs(a - b) * length;
    return std::min(d, length - d);
}

}  // namespace

TEST_CASE("by the rules hoses are spread evenly, near to all of the rim and clear of pleats") {
    bag::Choices c;
    c.hoses = 1;
    // Of a long rim one hose is nearest to all of it in the middle of a long side.
    const auto one = bag::rim_of(c, land_of(2, 0.5), true);
    REQUIRE(of(one, kHose).size() == 1);
    CHECK(std::abs(of(one, kHose)[0].place.x()) < 0.06);
    CHECK(one.length == Approx(5));
    c.hoses = 4;
    const auto four = bag::rim_of(c, land_of(2, 0.5), true);
    const auto hoses = of(four, kHose);
    REQUIRE(hoses.size() == 4);
    for (std::size_t i = 1; i < 4; ++i)
        CHECK(hoses[i].at - hoses[i - 1].at - std::floor(hoses[i].at - hoses[i - 1].at) == Approx(0.25));
    // Pleats where they would stand: they give way.
    c.hoses = 1;
    const auto pleated = bag::rim_of(c, land_of(2, 0.5, {0, 0.02, 2.5, 4.98}), true);
    CHECK(of(pleated, kHose)[0].off >= pleated.clear - 1e-9);
    // The gauge reads what reaches the far end.
    for (const int n : {1, 2, 3, 7}) {
        c.hoses = n;
        const auto rim = bag::rim_of(c, land_of(2, 0.5), true);
        REQUIRE(of(rim, kGauge).size() == 1);
        CHECK(of(rim, kGauge)[0].off == Approx(5.0 / n / 2).margin(5.0 / 240 + 1e-9));
    }
}

TEST_CASE("each kind stands where the maker has it, those that he has not by the rules") {
    bag::Choices c;
    c.hoses = 3;
    c.placed = {{kGauge, 0.4}, {kHose, 0.25}, {kHose, 0.75}};
    CHECK(c.hoses_out() == 2);
    const auto rim = bag::rim_of(c, land_of(2, 0.5, {1.0, 3.5}), true);
    const auto hoses = of(rim, kHose), gauges = of(rim, kGauge), pleats = of(rim, kPleat);
    REQUIRE(hoses.size() == 2);
    CHECK(hoses[0].at == 0.25);
    // A quarter of the way from the middle of a long side: 1.25 m, up the short side.
    CHECK((hoses[0].place - Point(1, 0.25, 0)).norm() < 1e-12);
    REQUIRE(gauges.size() == 1);
    CHECK(gauges[0].off == Approx(0.15 * 5));
    REQUIRE(pleats.size() == 2);
    CHECK(pleats[1].height == 0.05);
    // Where vents of an infusion take the hoses' place there is none, and the gauge still stands.
    const auto infused = bag::rim_of(c, land_of(2, 0.5), false);
    CHECK(of(infused, kHose).empty());
    CHECK(of(infused, kGauge).size() == 1);
    // One is taken up to be moved: all of its kind become the maker's, and it is found again.
    const auto own = bag::with_own(c, rim, kPleat);
    REQUIRE(own.size() == 5);
    for (std::size_t i = 0; i < rim.things.size(); ++i) {
        if (c.placed_of(rim.things[i].what) == 0 && rim.things[i].what != kPleat) continue;
        const auto at = bag::place_in_list(own, rim, i);
        REQUIRE(at < own.size());
        CHECK(own[at].what == rim.things[i].what);
        CHECK(own[at].at == Approx(rim.things[i].at));
    }
}

TEST_CASE("how far a face reaches from its hoses goes over the face, not through the air") {
    // Two walls 0.3 m high with 0.4 m between them, open at the ends, hose in the middle of one rim.
    const auto tray = shapes::open_box(1.0, 0.4, 0.3);
    bag::Rim rim;
    rim.things.push_back({kHose, 0, {0.5, 0, 0}, 0, 0});
    bag::reach_over(rim, tray, fixtures::kLevel);
    // Corner to corner of its own points only: the way is at least the straight one, unfolded.
    CHECK(rim.far >= std::hypot(0.5, 0.4) - 1e-9);
    // Over a bowl the far side of the rim is half its girth away, over the deepest place or round the rim
    // alike; edges of triangles are a tenth longer at most.
    for (const double r : {0.3, 3.0}) {
        const auto bowl = parted(shapes::sphere(r, 64), Point(0, 0, 0), Point::UnitZ()).above;
        bag::Rim over;
        over.things.push_back({kHose, 0, {r, 0, 0}, 0, 0});
        bag::reach_over(over, bowl, fixtures::kLevel);
        CHECK(over.far > 0.98 * kPi * r);
        CHECK(over.far < 1.1 * kPi * r);
        CHECK(over.far_at.x() < -0.9 * r);
        // A second one across from the first halves the way.
        over.things.push_back({kHose, 0.5, {-r, 0, 0}, 0, 0});
        over.far = 0;
        bag::reach_over(over, bowl, fixtures::kLevel);
        CHECK(over.far < 1.12 * kPi * r / 2);
        CHECK(over.far > 0.98 * kPi * r / 2);
    }
    bag::Rim none;
    bag::reach_over(none, tray, fixtures::kLevel);
    CHECK(none.far == 0);
}

TEST_CASE("calls of the rim come with what provokes them, show the place, and their fixes mend them") {
    const auto calm = worked_out(bagged());
    REQUIRE(calm.bag);
    const auto& rim = calm.bag->rim;
    REQUIRE_FALSE(of(rim, kPleat).empty());
    const auto pleat = of(rim, kPleat)[0];
    struct Rule {
        const char* key;
        std::function<void(Job&)> provoke;
    };
    for (const Rule& rule :
         {Rule{"hose_in_pleat",
               [&](Job& j) {
                   j.bag.placed = {{kHose, pleat.at}};
               }},
          Rule{"gauge_near",
               [&](Job& j) {
                   j.bag.placed = {{kHose, 0.5}, {kGauge, 0.51}};
               }},
          Rule{"pleat_tall",
               [&](Job& j) {
                   j.bag.placed = {{kPleat, pleat.at}};
               }},
          Rule{"no_pleat_here",
               [&](Job& j) {
                   for (const auto& p : of(rim, kPleat)) {
                       if (round(p.at, pleat.at, rim.length) > 0.02 * rim.length)
                           j.bag.placed.push_back({kPleat, p.at});
                   }
                   // Shallow, so that no fold reaches far.
                   j.shape.tray.depth = 0.04;
                   j.shape.tray.edge_radius = 0.01;
                   j.shape.tray.recess = false;
               }},
          Rule{"hose_room",
               [&](Job& j) {
                   j.edge.trim = 0.005;
                   j.edge.channel = 0.002;
                   j.bag.bore = 0.012;
               }},
          Rule{"far_from_hose", [&](Job& j) {
                   j.shape.tray.outline = {{-1.3, -0.2}, {1.3, -0.2}, {1.3, 0.2}, {-1.3, 0.2}};
                   j.bag.hoses = 1;
               }}}) {
        INFO(rule.key);
        auto job = bagged();
        rule.provoke(job);
        auto f = worked_out(job);
        const auto* c = call(f, rule.key);
        REQUIRE(c != nullptr);
        CHECK(c->stage == Stage::bag);
        REQUIRE(c->at);
        REQUIRE(c->fix);
        // As often as it takes: each adds one more.
        for (int i = 0; i < 12 && c != nullptr; ++i) {
            job = patched(job, c->fix->patch);
            f = worked_out(job);
            c = call(f, rule.key);
        }
        CHECK(c == nullptr);
    }
}

TEST_CASE("a bag that is used again has hoses and a gauge, and no pleats whatever was placed") {
    auto job = bagged();
    job.bag.placed = {{kPleat, 0.1}, {kPleat, 0.6}};
    job.bag.way = BagWay::reusable;
    auto f = worked_out(job);
    CHECK(of(f.bag->rim, kPleat).empty());
    CHECK(of(f.bag->rim, kHose).size() == 1);
    CHECK(of(f.bag->rim, kGauge).size() == 1);
    // Round the whole tool nothing stands on a land.
    job.bag.way = BagWay::envelope;
    f = worked_out(job);
    CHECK(f.bag->rim.things.empty());
    CHECK(f.bag->rim.far == 0);
    // More than hands could set are refused, and the choices stay.
    job.bag.way = BagWay::surface;
    job.bag.placed.assign(501, {kPleat, 0.5});
    f = worked_out(job);
    CHECK_FALSE(f.bag);
}

TEST_CASE("of pleats that are all too tall the tallest is called, once") {
    auto job = bagged();
    const auto first = of(worked_out(job).bag->rim, kPleat)[0].at;
    const double other = first + 0.3 - std::floor(first + 0.3);
    job.bag.placed = {{kPleat, first}, {kPleat, other}};
    const auto f = worked_out(job);
    double tallest = 0;
    for (const auto& s : of(f.bag->rim, kPleat)) tallest = std::max(tallest, s.height);
    int called = 0;
    for (const auto& c : f.calls) {
        if (c.key != "pleat_tall") continue;
        ++called;
        CHECK_THAT(worded(c.headline), Catch::Contains(show(Kind::length, tallest)));
    }
    CHECK(called == 1);
}

TEST_CASE("a film's drawing marks the pleats that take something up") {
    auto job = bagged();
    const auto by_rule = worked_out(job);
    const auto& rim = by_rule.bag->rim;
    const double at = of(rim, kPleat)[0].at;
    job.bag.placed = {{kPleat, at}, {kPleat, at}};
    const auto f = worked_out(job);
    REQUIRE(f.bag->film.pleats.size() == 2);
    // Of two in one place one takes all.
    CHECK(f.bag->film.pleats[0].height + f.bag->film.pleats[1].height == Approx(f.bag->film.slack / 2));
    const auto sheet = bag::closing_sheet(*f.bag, job.edge.tape_land);
    CHECK(sheet.sheets.at(0).pieces.size() == 2);  // the film, and one mark
}

TEST_CASE("a trap of the shop's catches by its own size and takes as many hoses as it has ports") {
    auto job = bagged();
    job.bag.catcher = "clear pot, 2 L";
    job.bag.trap = 0.03;
    auto f = worked_out(job);
    const double hoses = job.bag.hoses * job.bag.hose * kPi / 4 * job.bag.bore * job.bag.bore;
    CHECK(f.bag->pump.volume - f.bag->porous - hoses == Approx(0.002));
    job.bag.hoses = 2;
    f = worked_out(job);
    const auto* ports = call(f, "ports");
    REQUIRE(ports != nullptr);
    CHECK_THAT(ports->headline, Catch::Contains("clear pot"));
    CHECK(call(worked_out(patched(job, ports->fix->patch)), "ports") == nullptr);
    // A pump with one port draws through a trap with six.
    job.bag.pump = "small oil pump, 4 m³/h";
    job.bag.catcher = "steel pot, 25 L";
    job.bag.hoses = 5;
    CHECK(call(worked_out(job), "ports") == nullptr);
    job.bag.catcher.clear();
    CHECK(call(worked_out(job), "ports") != nullptr);
    // Placed ones are counted, and taken away by the fix.
    job.bag.placed = {{kHose, 0.1}, {kGauge, 0.3}, {kHose, 0.6}, {kHose, 0.8}};
    ports = call(f = worked_out(job), "ports");
    REQUIRE(ports != nullptr);
    const auto fewer = patched(job, ports->fix->patch);
    CHECK(fewer.bag.placed == std::vector<OnRim>{{kHose, 0.1}, {kGauge, 0.3}});
    // A trap too small for an infusion gives way to the smallest of the shop's that holds enough.
    auto infused = bagged();
    infused.part.how = LayUp::infused;
    infused.bag.trap = 1e-5;
    f = worked_out(infused);
    const auto* small = call(f, "small_trap");
    REQUIRE(small != nullptr);
    const auto larger = patched(infused, small->fix->patch);
    CHECK_FALSE(larger.bag.catcher.empty());
    CHECK(call(worked_out(larger), "small_trap") == nullptr);
    // One that the shop has not is a stop of the stage.
    job.bag.catcher = "bucket";
    f = worked_out(job);
    CHECK_FALSE(f.bag);
}

TEST_CASE("a gauge is judged by what it can tell") {
    auto job = bagged();
    // 2000 Pa in ten minutes are told by two steps of 100 Pa after a minute.
    job.bag.rise = 2000;
    job.bag.gauge = "digital gauge, absolute";
    auto f = worked_out(job);
    REQUIRE(f.bag->gauge);
    CHECK(f.bag->told_after == Approx(60));
    CHECK(call(f, "gauge_coarse") == nullptr);
    job.bag.drop = {2000, 2100, 59};
    f = worked_out(job);
    const auto* coarse = call(f, "gauge_coarse");
    REQUIRE(coarse != nullptr);
    REQUIRE(coarse->fix);
    CHECK(call(worked_out(patched(job, coarse->fix->patch)), "gauge_coarse") == nullptr);
    job.bag.drop.seconds = 60;
    CHECK(call(worked_out(job), "gauge_coarse") == nullptr);
    // By readings the time is theirs.
    job.bag.drop = {};
    job.bag.drop.readings = {{0, 2000}, {20, 2050}, {40, 2120}};
    CHECK(call(worked_out(job), "gauge_coarse") != nullptr);
    // One that counts from the room is as good as the weather.
    job.bag.drop = {};
    job.bag.gauge = "dial gauge, against the room";
    f = worked_out(job);
    const auto* weather = call(f, "gauge_weather");
    REQUIRE(weather != nullptr);
    CHECK_THAT(worded(weather->why), Catch::Contains("30"));
    f = worked_out(patched(job, weather->fix->patch));
    CHECK(call(f, "gauge_weather") == nullptr);
    CHECK(f.bag->gauge->absolute);
    job.bag.wanted = 40000;
    CHECK(call(worked_out(job), "gauge_weather") == nullptr);
    // One that does not go down to what is wanted sees nothing.
    auto shop = fixtures::shop();
    shop.gauges[0].lowest = 20000;
    job.bag.wanted = 5000;
    f = evaluate(job, shop, quiet, Depth::stages);
    const auto* blind = call(f, "gauge_blind");
    REQUIRE(blind != nullptr);
    CHECK(call(evaluate(patched(job, blind->fix->patch), shop, quiet, Depth::stages), "gauge_blind") ==
          nullptr);
    // Without one nothing is said.
    job.bag.gauge.clear();
    f = worked_out(job);
    CHECK_FALSE(f.bag->gauge);
    CHECK(f.bag->told_after == 0);
}
