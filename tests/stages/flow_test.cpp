// Infusion: hoses on a face, the resin's way by laws known in closed form, plans and pots.
#include <map>
#include <random>

#include "core/base/units.hpp"
#include "core/science/drape/net.hpp"
#include "core/stages/bag/front.hpp"
#include "tests/stages/resin_strip.hpp"

using namespace jig;
using namespace fixtures::resin;
using bag::fit_fronts;
using bag::flow_asked;
using bag::FlowGround;
using bag::SeenFront;
using fixtures::call;
using fixtures::shop;
using fixtures::worked_out;

TEST_CASE("hoses at two ends of a strip fill it by the line law, however it is turned") {
    const auto face = strip(1, 0.2, 60);
    const auto f = follow(plain(), face);
    REQUIRE(f.filling.fill);
    CHECK(*f.filling.fill == Approx(line_time(1)).epsilon(0.01));
    CHECK(f.filling.taken == Approx(f.filling.held + f.filling.bled).epsilon(1e-9));
    CHECK(f.filling.held == Approx(0.2 * kDeep * kPhi * plain().density).epsilon(1e-4));
    CHECK(f.ports[0].length == Approx(0.2));
    CHECK(f.drive == Approx(kDrop));
    CHECK_FALSE(f.gel);
    // Turned in space together with its frame, and moved.
    const Eigen::AngleAxisd turn(0.8, Point(1, 2, -1).normalized());
    auto moved = *face;
    for (auto& p : moved.points) p = turn * p + Point(0.4, -3, 1.5);
    const Frame turned{turn * Point::UnitX(), turn * Point::UnitY(), turn * Point::UnitZ()};
    const auto g = follow(plain(), std::make_shared<const TriangleMesh>(moved), turned);
    CHECK(*g.filling.fill == Approx(*f.filling.fill).epsilon(1e-6));
    CHECK(g.ports[0].length == Approx(f.ports[0].length));
}

TEST_CASE("where the medium ends before the vent, two resistances stand in series") {
    auto asked = plain();
    asked.medium.K1 = asked.medium.K2 = asked.medium.Kz = 30 * kK;
    asked.medium.thickness = 0.001;
    asked.medium.porosity = 0.8;
    asked.infusion.medium = true;
    asked.infusion.brake = 0.3;
    const double C1 = kK * kDeep + 30 * kK * 0.001, H1 = kPhi * kDeep + 0.8 * 0.001, C2 = kK * kDeep,
                 H2 = kPhi * kDeep, L1 = 0.7, L2 = 0.3;
    const double first = kMu * H1 * L1 * L1 / (2 * C1 * kDrop),
                 second = kMu * H2 * (L1 * L2 / C1 + L2 * L2 / (2 * C2)) / kDrop;
    const auto f = follow(asked, strip(1, 0.2, 100));
    REQUIRE(f.filling.fill);
    CHECK(*f.filling.fill == Approx(first + second).epsilon(0.01));
    // What is behind catches up sooner where the medium has ended, by what it carried.
    CHECK(f.brake == Approx(f.lag.length * C2 / C1));
    // A brake longer than the strip is no medium at all.
    asked.infusion.brake = 2;
    CHECK(*follow(asked, strip(1, 0.2, 60)).filling.fill == Approx(line_time(1)).epsilon(0.01));
}

TEST_CASE("where a zone is laid otherwise resin runs as two resistances in series, or side by side") {
    auto asked = plain();
    const auto face = strip(1, 0.2, 100);
    part::Draped draped;
    draped.face = face;
    draped.area = 0.2;
    auto thick = asked.preform[0].flow;
    thick.K1 = thick.K2 = 3 * kK;
    thick.thickness = 2 * kDeep;
    asked.preform.push_back({{0, 0}, thick, true});
    part::Zone half;
    half.place = ZonePlace::inside;
    half.way = ZoneWay::instead;
    half.line = {{-0.5, -0.2}, {0.1, -0.2}, {0.1, 0.2}, {-0.5, 0.2}};
    half.layers = {{LayerKind::ply, "felt", 0, 0}};
    asked.stack.zones = {half};
    const double C1 = 6 * kK * kDeep, H1 = 2 * kPhi * kDeep, C2 = kK * kDeep, H2 = kPhi * kDeep, L1 = 0.6,
                 L2 = 0.4;
    const auto series = follow(asked, face, kFlat, draped);
    REQUIRE(series.filling.fill);
    CHECK(*series.filling.fill ==
          Approx(kMu * (H1 * L1 * L1 / (2 * C1) + H2 * (L1 * L2 / C1 + L2 * L2 / (2 * C2))) / kDrop)
              .epsilon(0.015));
    CHECK(series.filling.held == Approx(asked.density * 0.2 * (L1 * H1 + L2 * H2)).epsilon(0.01));
    // On top of the stack both carry, each its own.
    asked.stack.zones[0].way = ZoneWay::adds;
    const auto added = follow(asked, face, kFlat, draped);
    const double C = C1 + C2, H = H1 + H2;
    CHECK(*added.filling.fill ==
          Approx(kMu * (H * L1 * L1 / (2 * C) + H2 * (L1 * L2 / C + L2 * L2 / (2 * C2))) / kDrop)
              .epsilon(0.015));
    // A zone that lies beside the strip is none.
    for (auto& s : asked.stack.zones[0].line) s.along += 5;
    CHECK(*follow(asked, face, kFlat, draped).filling.fill == Approx(line_time(1)).epsilon(0.01));
}

TEST_CASE("a core without holes is told wherever it comes to lie between plies, also by a zone alone") {
    auto job = infused();
    bore(job, 0);
    const Layer ply{LayerKind::ply, "glass cloth 200 plain", 0, 0},
        core{LayerKind::core, "PVC foam 75, 5 mm", 0, 0};
    const auto shut = [&](std::vector<Layer> layers, std::vector<part::Zone> zones) {
        job.part.layers = std::move(layers);
        job.part.zones = std::move(zones);
        const auto f = worked_out(job);
        REQUIRE(f.flow);
        return call(f, "shut_core") != nullptr;
    };
    part::Zone rim;
    rim.width = 0.03;
    CHECK_FALSE(shut({ply, ply}, {}));
    CHECK(shut({ply, core, ply}, {}));
    // Core on the tool, or on top of all, parts nothing; a zone's ply on it does.
    CHECK_FALSE(shut({ply, core}, {}));
    rim.layers = {ply};
    CHECK(shut({ply, core}, {rim}));
    rim.layers = {core, ply};
    CHECK(shut({ply, ply}, {rim}));
    rim.way = ZoneWay::instead;
    CHECK_FALSE(shut({ply, ply}, {rim}));
}

TEST_CASE("cloth that lets more through along its roll is followed as its net lies") {
    auto asked = plain();
    asked.preform[0].flow.K2 = kK / 4;
    const auto face = strip(1, 0.2, 60);
    CHECK(*follow(asked, face).filling.fill == Approx(line_time(1)).epsilon(0.01));
    asked.preform[0].flow.angle = kPi / 2;
    CHECK(*follow(asked, face).filling.fill == Approx(line_time(1, kK / 4)).epsilon(0.01));
    // Laid at 0, but with a net whose threads run across the strip.
    asked.preform[0].flow.angle = 0;
    part::Draped draped;
    draped.face = face;
    DrapeRules rules;
    rules.seed = Point::Zero();
    rules.warp = Point::UnitY();
    rules.cell = 0.02;
    draped.nets.push_back({0, {{}}, "cloth", 0.9, {}, drape(*face, topology_of(*face), rules, quiet)});
    CHECK(*follow(asked, face, kFlat, draped).filling.fill == Approx(line_time(1, kK / 4)).epsilon(0.01));
    // A net of a woven cloth stands for the same cloth turned by a quarter.
    asked.preform[0].flow.angle = kPi / 2;
    CHECK(*follow(asked, face, kFlat, draped).filling.fill == Approx(line_time(1)).epsilon(0.01));
}

TEST_CASE("a pot under the rim takes its height off what drives the resin") {
    auto asked = plain();
    asked.infusion.below = 2;
    const double head = asked.density * 9.80665 * 2;
    const auto f = follow(asked, strip(1, 0.2, 60));
    CHECK(f.drive == Approx(kDrop - head));
    CHECK(*f.filling.fill == Approx(line_time(1) * kDrop / (kDrop - head)).epsilon(0.01));
    // On a slope fed from its foot, with the pot level with its top: t = φμ/(Kρgs)·(−x − (Δp/ρgs)·ln(1 −
    // ρgsx/Δp)), where the whole slope's head is behind the feed, too.
    asked.infusion.below = 0;
    asked.vacuum = 1e5 - 2e4;
    const double steep = kPi / 3, s = std::sin(steep), fall = asked.density * 9.80665 * s;
    auto slope = *strip(1, 0.2, 80);
    for (auto& p : slope.points) p = Point(p.x() * std::cos(steep), p.y(), p.x() * s);
    // In its mould the part lies upside down: what is high along the pull is the foot.
    asked.infusion.ports = {at_end(PortUse::feed, std::cos(steep) / 2),
                            at_end(PortUse::vent, -std::cos(steep) / 2)};
    const double push = 2e4 + fall;
    const double known = kPhi * kMu / (kK * fall) * (-1 - push / fall * std::log(1 - fall / push));
    const auto g = follow(asked, std::make_shared<const TriangleMesh>(slope));
    CHECK(*g.filling.fill == Approx(known).epsilon(0.01));
    CHECK(g.rise == Approx(fall));
}

TEST_CASE("resin races along a rim that cloth does not fill, and a feed that shuts gives no more") {
    const auto face = strip(1, 0.2, 60);
    const FlowGround ground(*face, kFlat);
    auto asked = plain();
    const auto even = follow(asked, face);
    asked.infusion.race = 30;
    const auto raced = follow(asked, face);
    const auto at = [&](const Flow& f, double y) { return *f.filling.arrival[ground.nearest({0, y})]; };
    CHECK(at(even, 0.1) == Approx(at(even, 0)).epsilon(0.02));
    CHECK(at(raced, 0.1) < 0.8 * at(raced, 0));
    CHECK(at(raced, 0) < at(even, 0));
    // Shut after a quarter of the line's time, half of the strip is full and stays so.
    asked.infusion.race = 1;
    asked.infusion.ports[0].shuts = line_time(1) / 4;
    const auto shut = follow(asked, face);
    CHECK_FALSE(shut.filling.fill);
    CHECK(shut.filling.filled == Approx(0.5).epsilon(0.02));
    REQUIRE(shut.filling.feeds[0].shut);
    CHECK(*shut.filling.feeds[0].shut == Approx(line_time(1) / 4).epsilon(1e-6));
}

TEST_CASE("fronts that were marked give the permeability back, with a spread that covers as it says") {
    const auto face = strip(1, 0.2, 40);
    auto asked = plain();
    const auto known = follow(asked, face);
    const FlowGround ground(*face, kFlat);
    const std::array<double, 6> places{-0.3, -0.2, -0.1, 0.0, 0.15, 0.3};
    const auto mark = [&](double x, double times) {
        return SeenFront{x, 0, *known.filling.arrival[ground.nearest({x, 0})] / times};
    };
    for (const double x : places) asked.infusion.seen.push_back(mark(x, 1.4));
    auto f = follow(asked, face);
    REQUIRE(f.fit);
    CHECK(f.fit->lets == Approx(1.4).epsilon(1e-6));
    CHECK(*f.fit->spread == Approx(1).epsilon(1e-6));
    CHECK(f.fit->marks == 6);
    // Said of the library's figure, whatever is used now.
    asked.infusion.lets = 1.4;
    asked.infusion.seen = {mark(0, 1)};
    f = follow(asked, face);
    CHECK(f.fit->lets == Approx(1.4));
    CHECK_FALSE(f.fit->spread);
    // A hose of its own is no part of what the preform lets through.
    auto hosed = plain();
    hosed.infusion.hose = 4;
    hosed.infusion.bore = 0.005;
    auto tighter = hosed;
    for (double FlowLayer::*K : {&FlowLayer::K1, &FlowLayer::K2, &FlowLayer::Kz})
        tighter.preform[0].flow.*K *= 0.4;
    const auto real = follow(tighter, face);
    for (const double x : places)
        hosed.infusion.seen.push_back({x, 0, *real.filling.arrival[ground.nearest({x, 0})]});
    f = follow(hosed, face);
    CHECK(f.fit->lets == Approx(0.4).epsilon(0.03));
    // Clocks and marks are out by a tenth, 200 times over: the band holds the truth 19 times in 20.
    std::mt19937 dice(7);
    std::normal_distribution<double> noise(0, 0.1);
    asked.infusion.lets = 1;
    int covered = 0;
    for (int draw = 0; draw < 200; ++draw) {
        asked.infusion.seen.clear();
        for (const double x : places) asked.infusion.seen.push_back(mark(x, 1.4 * std::exp(noise(dice))));
        const auto fit = fit_fronts(asked.infusion, known, {asked.resin, 0}, asked.density);
        REQUIRE(fit);
        covered += fit->lets / *fit->spread <= 1.4 && 1.4 <= fit->lets * *fit->spread;
    }
    CHECK(covered >= 180);
    CHECK(covered <= 199);
}

TEST_CASE("permeability and race are found together from marks of both") {
    const auto face = strip(1, 0.2, 24);
    auto truth = plain();
    truth.infusion.race = 20;
    for (auto& sheet : truth.preform) {
        for (double FlowLayer::*K : {&FlowLayer::K1, &FlowLayer::K2, &FlowLayer::Kz}) sheet.flow.*K *= 0.6;
    }
    const auto known = bag::flow(truth, face, kFlat, {}, false, quiet);
    const FlowGround ground(*face, kFlat);
    auto asked = plain();
    for (const double x : {-0.3, -0.1, 0.1, 0.3}) {
        for (const double y : {-0.1, -0.05, 0.0, 0.1})
            asked.infusion.seen.push_back({x, y, *known.filling.arrival[ground.nearest({x, y})]});
    }
    const auto found = bag::seek_race(asked, face, kFlat, {}, quiet);
    CHECK(found.race == Approx(20).epsilon(0.1));
    CHECK(found.fit.lets == Approx(0.6).epsilon(0.02));
    CHECK(found.fit.off < 1.02);
    CHECK(found.off_before > 1.2);
    // Without a race none is found, whatever is typed.
    truth.infusion.race = 1;
    const auto even = bag::flow(truth, face, kFlat, {}, false, quiet);
    asked.infusion.race = 5;
    for (auto& m : asked.infusion.seen) m.after = *even.filling.arrival[ground.nearest({m.along, m.across})];
    const auto none = bag::seek_race(asked, face, kFlat, {}, quiet);
    CHECK(none.race == Approx(1));
    CHECK(none.fit.lets == Approx(0.6).epsilon(1e-3));
    // It is offered as one step, with both.
    const auto calls = bag::flow_calls(even, asked.infusion, {part::Choices{}, 100, 1, &none});
    const auto said =
        std::find_if(calls.begin(), calls.end(), [](const Call& c) { return c.key == "fronts_race"; });
    REQUIRE(said != calls.end());
    CHECK(said->fix->patch["bag"]["infusion"]["race"] == 1);
    CHECK(said->fix->patch["bag"]["infusion"]["lets"].get<double>() == Approx(0.6).epsilon(1e-2));
    asked.infusion.seen.resize(2);
    CHECK_THROWS_AS(bag::seek_race(asked, face, kFlat, {}, quiet), InputError);
    CHECK_THROWS_AS(bag::seek_race({}, face, kFlat, {}, quiet), InputError);
}

TEST_CASE("pots are cut from what is drawn: as large as is mixed, as old as they may be") {
    Filling f;
    f.taken = 6;
    f.intake = {{0, 0}, {600, 4}, {3600, 6}};
    FlowAsked asked;
    asked.pot_life = 1e6;
    asked.mix_ratio = 25;
    // By size: 2 kg drawn make 2.1 mixed. A kilogram lies in hoses: 1 kg at once, then 150 s a kilogram, then
    // 1 500.
    auto pots = bag::pots_in_turn(f, 1, 2.1, 300, asked);
    REQUIRE(pots.size() == 4);
    for (std::size_t i = 0; i < 3; ++i) CHECK(pots[i].mass == Approx(2.1));
    CHECK(pots[3].mass == Approx(1.05));
    CHECK(pots[0].hardener == Approx(2.1 * 25 / 125));
    CHECK(pots[0].from == 0);
    CHECK(pots[0].mixed == -300);
    CHECK(pots[0].till == Approx(150));
    CHECK(pots[1].till == Approx(450));
    CHECK(pots[2].till == Approx(600 + 1500));
    CHECK(pots[3].till == 3600);
    for (std::size_t i = 1; i < pots.size(); ++i) {
        CHECK(pots[i].from == pots[i - 1].till);
        CHECK(pots[i].mixed == Approx(pots[i].from - 300));
    }
    // By age: a life of 1 000 s leaves 700 - 300 to draw each.
    asked.pot_life = 1000;
    pots = bag::pots_in_turn(f, 0, 50, 300, asked);
    double sum = 0;
    for (const auto& p : pots) {
        CHECK(p.till - p.mixed <= 700.001);
        sum += p.mass / 1.05;
    }
    CHECK(sum == Approx(6));
    CHECK(pots.front().till == Approx(400));
    CHECK(pots.front().mass == Approx(1.05 * 4 * 400 / 600));
    // A pot that is past its life when it is opened is still told, and they end.
    CHECK(bag::pots_in_turn(f, 0, 50, 900, asked).size() == 1);
    CHECK(bag::pots_in_turn(f, 0, 0.001, 300, asked).size() == bag::kMostPots + 1);
    CHECK(bag::pots_in_turn({}, 1, 2, 300, asked).empty());
}

TEST_CASE("hoses of a job slow it as a resistance in series, and plies stay thicker where it is fed") {
    const auto face = strip(1, 0.2, 60);
    auto asked = plain();
    const double plies = kDeep * 0.2, R = hose_resists(4, 0.005);
    asked.infusion.hose = 4;
    asked.infusion.bore = 0.005;
    auto f = follow(asked, face);
    const double by_hand = kPhi * kMu / kDrop * (0.5 / kK + R * plies);
    CHECK(*f.filling.fill == Approx(by_hand).epsilon(0.01));
    CHECK(f.hoses == Approx(4 * kPi / 4 * 25e-6 * asked.density));
    // On average: what the hose takes is R·μ·V over the time that V took.
    CHECK(f.choked == Approx(R * kMu * kPhi * plies / by_hand).epsilon(0.02));
    CHECK_FALSE(f.thickness);
    // Cloth that gives: at the feed the resin has 1e5 − 0, so the least load is left of 9e4.
    asked.infusion.hose = 0;
    asked.preform[0].flow.gives = 0.1;
    asked.resin.kinetics = {};
    f = follow(asked, face);
    REQUIRE(f.thickness);
    CHECK(f.thickness->full == Approx(std::pow(3e3 / 9e4, -0.1)).epsilon(1e-3));
    CHECK(f.thickness->drawn > 0.9 * f.thickness->over);  // in a day
    CHECK(f.thickness->end < 1.01);
    // Over in the middle of a linear pressure: ∫((1 − x)^−0.1 − 1)dx = 1/9, less the clamped end.
    CHECK(f.thickness->over == Approx(asked.density * plies / 9).epsilon(0.05));
    asked.infusion.when_full = WhenFull::clamp;
    f = follow(asked, face);
    CHECK(f.thickness->drawn == Approx(0).margin(1e-4 * f.thickness->over));
    CHECK(f.thickness->end == Approx(1 + 1.0 / 9).epsilon(0.02));
}

TEST_CASE(
    "the preform is the library's, carried to its fibre share, with what the core's holes let through") {
    auto job = infused();
    job.part.layers = {{LayerKind::ply, "glass cloth 300 twill", 0, 0},
                       {LayerKind::core, "PVC foam 75, 10 mm", 0, 0},
                       {LayerKind::ply, "carbon tape 250 unidirectional", kPi / 4, 0}};
    job.part.layers[1].cut = {0.003, 0.04, Slits::both, 0.002, 0.002, 0.03, false};
    const auto asked = flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, shop());
    REQUIRE(asked.infused);
    REQUIRE(asked.preform.size() == 3);
    const auto& cloth = need(shop().reinforcements, "glass cloth 300 twill", "test");
    const double vf = 1 - asked.preform[0].flow.porosity, from = cloth.K_share;
    CHECK(asked.preform[0].flow.K1 ==
          Approx(cloth.K_along * std::pow((1 - vf) / (1 - from), 3) * std::pow(from / vf, 2)));
    CHECK(asked.preform[2].flow.K2 < asked.preform[2].flow.K1);
    CHECK(asked.preform[2].flow.angle == Approx(kPi / 4));
    // How far a ply gives is its weave's, but where the library has measured it.
    CHECK(asked.preform[0].flow.gives == 0.08);
    CHECK(asked.preform[2].flow.gives == 0.05);
    auto own = shop();
    for (auto& r : own.reinforcements) {
        if (r.name == cloth.name) r.gives = 0.21;
    }
    CHECK(flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, own).preform[0].flow.gives == 0.21);
    // By the maker's own fronts, all layers alike.
    auto more = job;
    more.bag.infusion.lets = 2.5;
    const auto freer = flow_asked(more.bag, more.part, {Process::infusion}, kShopRoom, shop());
    for (std::size_t i = 0; i < 3; ++i)
        CHECK(freer.preform[i].flow.K1 == Approx(2.5 * asked.preform[i].flow.K1));
    CHECK(freer.medium.K1 == Approx(2.5 * asked.medium.K1));
    const auto& core = asked.preform[1].flow;
    // π·3⁴/128 mm⁴ on 40 × 40 mm².
    CHECK(core.Kz == Approx(1.2425e-9).epsilon(1e-3));
    // 2⁴/12·0.37 mm⁴ every 30 mm, over 10 mm.
    CHECK(core.K1 * core.thickness == Approx(1.6444e-11).epsilon(1e-3));
    // Where slits cross they are cut once, and not again where there is a hole.
    const double open = kPi / 4 * 9e-6 / 1.6e-3;
    CHECK(core.porosity * core.thickness ==
          Approx(open * 0.01 + (1 - open) * (2 * 4e-6 / 0.03 - 0.002 * 4e-6 / 9e-4)).epsilon(1e-6));
    CHECK_FALSE(asked.shut_core);
    // Nothing bored: the skin on the tool is shut off. A core alone at the bag's side shuts nobody off.
    bore(job, 0);
    CHECK(flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, shop()).shut_core);
    // Slits right through feed it as holes do.
    job.part.layers[1].cut.slit_depth = 0.02;
    CHECK_FALSE(flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, shop()).shut_core);
    job.part.layers[1].cut.slit_depth = 0.005;
    job.part.layers.pop_back();
    CHECK_FALSE(flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, shop()).shut_core);
    // What Part cannot lay up is Part's to say.
    job.part.layers[0].material = "unheard of";
    CHECK_FALSE(flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, shop()).infused);
    job.part.layers.clear();
    CHECK_FALSE(flow_asked(job.bag, job.part, {Process::infusion}, kShopRoom, shop()).infused);
    CHECK_FALSE(flow_asked(job.bag, job.part, {Process::squeeze}, kShopRoom, shop()).infused);
}

TEST_CASE("on the dome every plan of hoses lies where its name says") {
    const auto job = fixtures::demo("radar-dome");
    const auto f = worked_out(job);
    REQUIRE(f.flow);
    // The ring's vent stands at the top, and resin comes there last.
    REQUIRE(f.flow->ports.size() == 2);
    CHECK(f.flow->ports[0].length == Approx(f.edge->rim_length).epsilon(0.03));
    const FlowGround ground(*f.flow->face, f.flow->frame);
    CHECK(ground.seen(f.flow->ports[1].at).norm() < 0.05);
    CHECK(ground.seen(*f.flow->filling.last).norm() < 0.08);
    CHECK(value_of(f.figures(Stage::bag), "fill") == Approx(*f.flow->filling.fill));
    // A spine's line runs over the face: longer than it is seen along the pull, no longer than a zigzag.
    auto spine = job;
    spine.bag.infusion.plan = InfusionPlan::spine;
    spine.bag.infusion.lines = 3;
    const auto g = worked_out(spine);
    REQUIRE(g.flow);
    REQUIRE(g.flow->ports.size() == 4);
    for (std::size_t i = 0; i < 3; ++i) {
        const auto& p = g.flow->ports[i];
        const double seen = p.port.to_along - p.port.along;
        INFO(p.name);
        CHECK(p.length > seen);
        // Half a circle over its chord, and a tenth for the way from point to point.
        CHECK(p.length < 1.1 * kPi / 2 * seen);
        CHECK(p.points.size() > 8);
    }
    // The middle one at once, the others when resin comes.
    CHECK(g.flow->ports[0].port.opens == PortOpens::start);
    CHECK(*g.flow->filling.feeds[0].opened == 0);
    for (const std::size_t i : {std::size_t(1), std::size_t(2)}) {
        CHECK(g.flow->ports[i].port.opens == PortOpens::front);
        REQUIRE(g.flow->filling.feeds[i].opened);
        CHECK(*g.flow->filling.feeds[i].opened > 0);
    }
}

TEST_CASE("a hose's mirror lies across the middle, or at the other end of the middle line, or is itself") {
    Port p;
    p.along = 0.2;
    p.across = 0.1;
    const auto over = bag::mirrored(p);
    REQUIRE(over);
    CHECK(over->along == 0.2);
    CHECK(over->across == -0.1);
    CHECK(*bag::mirrored(*over) == p);
    p.across = 0;
    REQUIRE(bag::mirrored(p));
    CHECK(bag::mirrored(p)->along == -0.2);
    p.along = 0;
    CHECK_FALSE(bag::mirrored(p));
    // A line from side to side over the middle is itself, however it is told; one aslant is not.
    Port line;
    line.kind = PortKind::line;
    line.along = line.to_along = 0;
    line.across = -0.3;
    line.to_across = 0.3;
    CHECK_FALSE(bag::mirrored(line));
    line.to_along = 0.1;
    REQUIRE(bag::mirrored(line));
    CHECK(bag::mirrored(line)->across == 0.3);
    CHECK(bag::mirrored(line)->to_across == -0.3);
    CHECK(bag::mirrored(line)->to_along == 0.1);
    Port rim;
    rim.kind = PortKind::rim;
    CHECK_FALSE(bag::mirrored(rim));
    rim.along = 0.1;
    rim.to_along = 0.3;
    REQUIRE(bag::mirrored(rim));
    CHECK(bag::mirrored(rim)->along == -0.3);
    CHECK(bag::mirrored(rim)->to_along == -0.1);
}

TEST_CASE("plans are set side by side as each would fill by itself") {
    const auto job = fixtures::demo("radar-dome");
    JobBoard board;
    const auto sheet = board.lay(job, fixtures::shared_shop());
    const auto found = board.seek_layout(sheet, quiet);
    REQUIRE(found->tried.size() == 8);
    for (std::size_t i = 1; i < found->tried.size(); ++i) {
        const auto &a = found->tried[i - 1], &b = found->tried[i];
        if (a.fill && b.fill) CHECK(*a.fill <= *b.fill);
        CHECK((a.fill || !b.fill));
    }
    for (const auto& l : found->tried) {
        auto same = job;
        same.bag.infusion.plan = l.plan;
        same.bag.infusion.lines = l.lines;
        const auto f = worked_out(same);
        REQUIRE(f.flow);
        CHECK(f.flow->filling.fill == l.fill);
        CHECK(f.flow->line() == Approx(l.line));
    }
    CHECK(board.work_out(sheet, Depth::stages, quiet).layouts == found);
    auto bagged = job;
    bagged.part.how = LayUp::bagged;
    CHECK_THROWS_AS(board.seek_layout(board.lay(bagged, fixtures::shared_shop()), quiet), InputError);
}
