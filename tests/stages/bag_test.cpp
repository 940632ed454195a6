// The part's bag: film, tape, pump and leak.
#include <catch2/catch.hpp>

#include <set>

#include "core/science/mesh/cut.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::call;
using fixtures::worked_out;

namespace {

const Figure* figure(const Findings& f, const char* key) {
    for (const auto& one : f.bag->figures) {
        if (one.key == key) return &one;
    }
    return nullptr;
}

double bought(const Findings& f, const std::string& what) {
    for (const auto& m : f.run->materials) {
        if (m.stage == Stage::bag && m.what == what) return m.amount;
    }
    return 0;
}

}  // namespace

TEST_CASE("the film covers the tray's floor, walls and lands") {
    auto job = bagged();
    job.shape.tray.draft = 0.1;
    job.shape.tray.edge_radius = 0;
    job.shape.tray.crown = 0;
    job.shape.tray.recess = false;
    job.bag.ease = 0;
    const auto f = worked_out(job);
    REQUIRE(f.bag);
    REQUIRE(f.bag->measured);
    const auto& size = f.shape->measures.size;
    const double land = job.edge.trim + job.edge.channel + job.edge.tape_land, depth = f.bag->film.depth;
    // Two walls that lean by the draft: each adds its slant, less what it covers seen from above.
    const double wall = depth / std::cos(0.1) - depth * std::tan(0.1);
    CHECK(f.bag->film.length == Approx(size.x() + 2 * wall + 2 * land).epsilon(0.01));
    CHECK(f.bag->film.width == Approx(size.y() + 2 * wall + 2 * land).epsilon(0.01));
    CHECK(bought(f, "bag film") == Approx(f.bag->film.area() * 1.1));
    // The land, the pleats, and 0.3 m each for a hose and a gauge.
    CHECK(bought(f, "sealant tape") == Approx((f.bag->film.tape + 0.6) * 1.15));
    job.bag.hoses = 3;
    CHECK(bought(worked_out(job), "sealant tape") == Approx((f.bag->film.tape + 1.2) * 1.15));
    // An infusion's come out as its plan has them: three lines and a vent, and the gauge.
    auto infused = job;
    infused.part.how = LayUp::infused;
    infused.bag.infusion.lines = 3;
    CHECK(worked_out(infused).bag->tape == Approx(f.bag->film.tape + 1.5));
    // A film that is wider than its roll is joined along its length.
    auto shop = fixtures::shop();
    for (auto& c : shop.consumables) {
        if (c.name == "bag film") c.width = 0.55 * f.bag->film.width;
    }
    const auto joined = evaluate(job, shop, quiet, Depth::stages);
    REQUIRE(joined.bag->film.joins == 1);
    CHECK(joined.bag->tape == Approx(f.bag->film.tape + 1.2 + f.bag->film.length));
}

TEST_CASE("two bags take twice the film and tape, and an hour more") {
    auto job = bagged();
    const auto one = worked_out(job);
    job.bag.second = true;
    const auto two = worked_out(job);
    CHECK(bought(two, "bag film") == Approx(2 * bought(one, "bag film")));
    CHECK(bought(two, "sealant tape") == Approx(2 * bought(one, "sealant tape")));
    CHECK(bought(two, "peel ply") == Approx(bought(one, "peel ply")));
    CHECK(two.run->ledgers[0].hours > one.run->ledgers[0].hours);
}

TEST_CASE("what is laid under the film is what is bought") {
    auto job = bagged();
    const auto f = worked_out(job);
    CHECK(bought(f, "perforated film") > 0);
    CHECK(bought(f, "breather") > 0);
    job.bag.film = ReleaseFilm::solid;
    job.bag.peel_ply = false;
    job.part.how = LayUp::infused;
    const auto g = worked_out(job);
    CHECK(bought(g, "perforated film") == 0);
    CHECK(bought(g, "release film") > 0);
    CHECK(bought(g, "peel ply") == 0);
    CHECK(bought(g, "breather") == 0);
    CHECK(bought(g, "flow medium") > 0);
    CHECK(bought(g, "spiral feed line") > 0);
}

TEST_CASE("laid open there is no bag, no figure of it and no call") {
    auto job = bagged();
    job.part.how = LayUp::hand;
    job.bag.wanted = 90000;
    const auto by_hand = worked_out(job);
    REQUIRE(by_hand.bag);
    CHECK_FALSE(by_hand.bag->closed);
    CHECK(bought(by_hand, "bag film") == 0);
    CHECK(by_hand.bag->figures.size() == 1);
    for (const auto& c : by_hand.calls) CHECK(c.stage != Stage::bag);
}

TEST_CASE("the pump's time is volume and speed in closed form, with the leak that the drop test found") {
    auto job = bagged();
    job.bag.drop = {2000, 2600, 600};
    job.bag.wanted = 5000;
    const auto f = worked_out(job);
    const auto& b = *f.bag;
    CHECK(b.tested);
    CHECK(b.leak_rise == Approx(1));
    const double V = b.pump.volume, S = job.brief.pump, end = 300 + V * 1 / S;
    CHECK(b.reached == Approx(end));
    CHECK(*b.down == Approx(V / S * std::log((101325 - end) / (5000 - end))));
    REQUIRE(figure(f, "rise") != nullptr);
    CHECK(figure(f, "rise")->value == Approx(600));
    // Breather, peel ply, 2 m of 10 mm hose and the trap.
    CHECK(V == Approx(f.part->area * (0.003 + 0.0001) + 2 * 0.7853981634e-4 + 0.005));
}

TEST_CASE("less presses on it high up") {
    auto job = bagged();
    const auto low = worked_out(job);
    job.bag.altitude = 3000;
    const auto high = worked_out(job);
    CHECK(high.bag->force < low.bag->force);
    CHECK(low.bag->force / (101325 - 5000) == Approx(high.bag->force / (70108 - 5000)).epsilon(1e-3));
}

TEST_CASE("calls of the bag come with what provokes them, and their fixes mend them") {
    struct Rule {
        const char* key;
        Severity severity;
        bool fixed;
        void (*provoke)(Job&);
    };
    const auto calm = worked_out(bagged());
    for (const Rule& rule : {
             Rule{"no_vacuum", Severity::stop, true,
                  [](Job& j) {
                      j.bag.altitude = 3000;
                      j.bag.wanted = 75000;
                  }},
             Rule{"pump_short", Severity::caution, true, [](Job& j) { j.bag.wanted = 200; }},
             Rule{"pump_short", Severity::stop, true,
                  [](Job& j) {
                      j.part.how = LayUp::infused;
                      j.bag.wanted = 200;
                  }},
             Rule{"slow_pump", Severity::caution, false,
                  [](Job& j) {
                      j.bag.trap = 1;
                      j.brief.pump = 0.5 / 3600;
                      j.bag.rise = 0.6;
                  }},
             Rule{"boils", Severity::caution, true,
                  [](Job& j) {
                      j.part.resin = "vinyl ester";
                      j.bag.wanted = 800;
                      j.bag.ultimate = 50;
                      j.bag.rise = 60;
                  }},
             Rule{"leaks", Severity::caution, false,
                  [](Job& j) {
                      j.bag.drop = {2000, 9000, 600};
                  }},
             Rule{"leaks", Severity::stop, false,
                  [](Job& j) {
                      j.part.how = LayUp::infused;
                      j.bag.drop = {2000, 3000, 600};
                  }},
             Rule{"fell", Severity::caution, false,
                  [](Job& j) {
                      j.bag.drop = {5000, 2000, 600};
                  }},
             Rule{"small_trap", Severity::caution, true,
                  [](Job& j) {
                      j.part.how = LayUp::infused;
                      j.bag.trap = 1e-5;
                  }},
             Rule{"tight_film", Severity::caution, true, [](Job& j) { j.bag.ease = 0; }},
             Rule{"joined", Severity::note, false,
                  [](Job& j) {
                      for (auto& p : j.shape.tray.outline) p = {10 * p[0], 10 * p[1]};
                      j.shape.tray.facet = 0.2;
                  }},
             Rule{"bonds", Severity::stop, true,
                  [](Job& j) {
                      j.bag.peel_ply = false;
                      j.bag.film = ReleaseFilm::none;
                  }},
             Rule{"no_peel", Severity::note, true,
                  [](Job& j) {
                      j.bag.peel_ply = false;
                      j.part.joint.kind = JointKind::returned;
                  }},
             Rule{"no_breather", Severity::caution, true, [](Job& j) { j.bag.breather = false; }},
             Rule{"film_short", Severity::stop, true,
                  [](Job& j) { j.bag.sheet_length = j.bag.sheet_width = 0.2; }},
             Rule{"no_bleed", Severity::note, true, [](Job& j) { j.bag.film = ReleaseFilm::solid; }},
         }) {
        INFO(rule.key);
        CHECK(call(calm, rule.key) == nullptr);
        auto job = bagged();
        rule.provoke(job);
        const auto f = worked_out(job);
        const auto* c = call(f, rule.key);
        REQUIRE(c != nullptr);
        CHECK(c->stage == Stage::bag);
        CHECK(c->severity == rule.severity);
        CHECK(c->fix.has_value() == rule.fixed);
        if (c->fix) CHECK(call(worked_out(patched(job, c->fix->patch)), rule.key) == nullptr);
    }
    // The quiet job says one thing only: that the bag has not been tested.
    for (const auto& c : calm.calls) {
        if (c.stage == Stage::bag) CHECK(c.key == "untested");
    }
    auto tested = bagged();
    tested.bag.drop = {2000, 2500, 600};
    CHECK(call(worked_out(tested), "untested") == nullptr);
}

TEST_CASE("of a mould in pieces every piece has its share of film and tape") {
    const auto f = worked_out(fixtures::demo("cello-case-whole"));
    REQUIRE(f.bag);
    REQUIRE(f.bag->measured);
    CHECK(f.bag->film_area > 1.5 * f.bag->film.area());
    CHECK(f.bag->tape > 1.5 * f.bag->film.tape);
}

TEST_CASE("Bag's land is Edge's, and its slack is that of the sheet it shows") {
    const auto f = worked_out(bagged());
    REQUIRE(f.bag->measured);
    CHECK(f.bag->film.land_length == Approx(f.edge->tape_land_length).epsilon(2e-3));
    CHECK(figure(f, "slack")->value ==
          Approx(2 * (figure(f, "sheet_length")->value + figure(f, "sheet_width")->value) -
                 f.bag->film.land_length));
}

TEST_CASE("of several parts in one mould the film covers all of them and the flange between") {
    auto job = bagged();
    const auto one = worked_out(job);
    job.split.together = Together::several;
    job.split.parts = 2;
    job.split.between = 0.1;
    const auto two = worked_out(job);
    REQUIRE(two.bag->measured);
    const auto& film = two.bag->film;
    CHECK(film.land_length == Approx(two.edge->tape_land_length).epsilon(0.02));
    // Wider than the mould with its two lands, and than twice the area that lies under it by its ease alone.
    CHECK(std::min(film.length, film.width) > 0.9 * std::min(one.bag->film.length, one.bag->film.width));
    CHECK(film.area() > 2 * two.part->area + 0.5 * two.edge->area);
    CHECK(film.area() > 1.7 * one.bag->film.area());
}

TEST_CASE("what the pump does not reach has a call and no time") {
    auto job = bagged();
    job.bag.wanted = 200;
    const auto f = worked_out(job);
    CHECK(figure(f, "down") == nullptr);
    CHECK(call(f, "pump_short") != nullptr);
}

TEST_CASE("a box's pleats are marked at the corners of its film, wherever its rim begins") {
    // An open trough 1.2 × 0.5 × 0.2: a film 1.6 × 0.9, a pleat of 0.2 at each corner.
    const auto whole = shapes::box({0, 0, 0}, {1.2, 0.5, 0.2});
    std::vector<std::uint32_t> keep;
    for (std::size_t f = 0; f < whole.triangles.size(); ++f) {
        if (whole.area_vector2(f).normalized().z() > -0.5) keep.push_back(static_cast<std::uint32_t>(f));
    }
    const auto mesh = some_faces(whole, keep);
    const auto topology = topology_of(mesh);
    const auto frame = lengthwise(mesh, topology, frame_across(Point::UnitZ()));
    auto film = film_over(mesh, topology, frame, {0, {}, false, 0, 0, 0.5}, quiet);
    REQUIRE(film.pleats.size() == 4);
    const auto set = bag::film_sheet(film, frame);
    REQUIRE(set.sheets.size() == 1);
    const auto& pieces = set.sheets.front().pieces;
    REQUIRE(pieces.size() == 5);
    CHECK(net_area(pieces[0].loops) == Approx(1.6 * 0.9));
    std::set<std::pair<bool, bool>> corners;
    for (std::size_t i = 1; i < pieces.size(); ++i) {
        const Point2 at = pieces[i].engraved.front().front();
        INFO(at.x() << " " << at.y());
        CHECK(std::min(at.x(), 1.6 - at.x()) < 1e-3);
        CHECK(std::min(at.y(), 0.9 - at.y()) < 1e-3);
        corners.insert({at.x() > 0.8, at.y() > 0.45});
    }
    CHECK(corners.size() == 4);
}

TEST_CASE("a pump of the shop's library draws by its own speed and limit, and the brief's counts no more") {
    auto job = bagged();
    job.bag.pump = "dry pump, 8 m³/h";
    const auto& pump = need(fixtures::shop().pumps, job.bag.pump, "test");
    job.bag.wanted = 20000;
    auto f = worked_out(job);
    REQUIRE(f.bag);
    CHECK(f.bag->pump.speed == pump.speed);
    CHECK(f.bag->pump.ultimate == pump.ultimate);
    const double end = pump.ultimate + f.bag->pump.leak / pump.speed;
    CHECK(f.bag->reached == Approx(end));
    REQUIRE(f.bag->down);
    CHECK(*f.bag->down ==
          Approx(f.bag->pump.volume / pump.speed * std::log((f.bag->room - end) / (job.bag.wanted - end))));
    job.brief.pump *= 5;
    CHECK(worked_out(job).bag->down == f.bag->down);
    // What it cannot reach is said as of any pump.
    job.bag.wanted = 5000;
    CHECK_FALSE(worked_out(job).bag->down);
    // Two ports take two hoses; the way out of a third is taken.
    job.bag.hoses = 2;
    CHECK(call(worked_out(job), "ports") == nullptr);
    job.bag.hoses = 3;
    f = worked_out(job);
    const auto* ports = call(f, "ports");
    REQUIRE(ports != nullptr);
    REQUIRE(ports->fix);
    CHECK(patched(job, ports->fix->patch).bag.hoses == 2);
    job.bag.pump.clear();
    CHECK(call(worked_out(job), "ports") == nullptr);
    job.bag.pump = "no such pump";
    f = worked_out(job);
    CHECK_FALSE(f.bag);
    CHECK(call(f, "input") != nullptr);
}

TEST_CASE("oil takes up styrene, and no other pump nor resin is warned of it") {
    auto job = bagged();
    job.bag.pump = "oil pump, 16 m³/h";
    CHECK(call(worked_out(job), "oil") == nullptr);
    job.part.resin = "polyester, general";
    CHECK(call(worked_out(job), "oil") != nullptr);
    job.bag.pump = "dry pump, 8 m³/h";
    CHECK(call(worked_out(job), "oil") == nullptr);
}

TEST_CASE("a shut bag is passed by the shop's mark for its process, unless the job has its own") {
    auto job = bagged();
    auto marks = fixtures::shop();
    for (auto& m : marks.pass_marks) {
        if (m.name == "bagged") m.rise = 1200;
    }
    const auto allowed = [&] { return evaluate(job, marks, quiet, Depth::stages).bag->allowed; };
    CHECK(allowed() == Approx(1200.0 / 600));
    job.bag.rise = 700;
    CHECK(allowed() == Approx(700.0 / 600));
    // Every process that has a bag has a mark.
    for (const auto how : {LayUp::bagged, LayUp::infused, LayUp::prepreg})
        CHECK(find(fixtures::shop().pass_marks, file_word(how)) != nullptr);
}
