// A part that is laid in goes: what belongs to which, what each asks, how each goes on from what lies there.
#include <catch2/catch.hpp>

#include "core/shop/cure.hpp"
#include "core/stages/part/goes.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/stages/cure_runs.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::bought;
using fixtures::call;
using fixtures::cure_of;
using fixtures::shop;
using fixtures::worked_out;

namespace {

const std::string kGlass = "glass cloth 280 twill", kFoam = "PVC foam 75, 5 mm",
                  kComb = "aramid honeycomb 48, 6 mm";

Layer ply() {
    return {LayerKind::ply, kGlass, 0, 0};
}
Layer core(const std::string& of) {
    return {LayerKind::core, of, 0, 0};
}

/// Two plies, a core and two plies, under a bag.
Job sandwich(const std::string& of = kFoam) {
    auto job = bagged();
    job.part.layers = {ply(), ply(), core(of), ply(), ply()};
    return job;
}

/// The same with goes that end behind these layers.
Job parted_behind(Job job, const std::vector<std::size_t>& ends) {
    for (const auto i : ends) job.part.layers.at(i).hardens = true;
    return job;
}

Job mended(const Job& job, const Call& call) {
    auto json = job_to_json(job);
    json.merge_patch(call.fix.value().patch);
    return job_from_json(json, "test");
}

std::vector<std::string> whats(const std::vector<part::Go>& goes) {
    std::vector<std::string> out;
    for (const auto& go : goes) out.push_back(go.what);
    return out;
}

/// Places of the tasks that say so, in the order of the plan; what takes but a moment is said with what
/// follows it.
std::vector<std::size_t> tasks(const Findings& f, const std::string& name) {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < f.run->tasks.size(); ++i) {
        if (f.run->tasks[i].name.find(name) != std::string::npos) out.push_back(i);
    }
    return out;
}

/// Hours of each part that the ledger has at that rate.
double hours_at(const Findings& f, const std::string& rate) {
    double sum = 0;
    for (const auto& h : f.run->hours) sum += h.ledger == Ledger::each && h.what == rate ? h.hours : 0;
    return sum;
}

/// J/m² that the resin of its common wall sets free.
double set_free(const heat::CureRun& run) {
    return run.cured.history.reaction;
}

}  // namespace

TEST_CASE("layers belong to goes by what hardens before them, a zone's by what they lie on") {
    auto c = sandwich().part;
    CHECK(part::goes_of(c) == 1);
    CHECK(part::said_goes(c) == std::vector<std::string>{"outer skin and core and inner skin"});
    c.layers[1].hardens = true;
    CHECK(part::said_goes(c) == std::vector<std::string>{"outer skin", "core and inner skin"});
    c.layers[2].hardens = true;
    CHECK(part::said_goes(c) == std::vector<std::string>{"outer skin", "core", "inner skin"});
    // Nothing comes after the last.
    c.layers[4].hardens = true;
    CHECK(part::goes_of(c) == 3);
    // A skin in two goes is told by its layers.
    c.layers[0].hardens = true;
    CHECK(part::said_goes(c) == std::vector<std::string>{"outer skin", "layer 2", "core", "inner skin"});
    c.layers[0].hardens = false;

    c.zones = {{"on top", ZonePlace::rim, ZoneWay::adds, 0.05, {}, {}, {ply()}},
               {"no core", ZonePlace::rim, ZoneWay::for_core, 0.05, {}, {}, {ply(), ply()}},
               {"own", ZonePlace::rim, ZoneWay::instead, 0.05, {}, {}, {ply(), ply(), ply()}}};
    c.zones[2].layers[1].hardens = true;
    for (std::size_t i = 0; i < 5; ++i) CHECK(part::go_of(c, {-1, i}) == (i < 2 ? 0 : i < 3 ? 1 : 2));
    CHECK(part::go_of(c, {0, 0}) == 2);
    CHECK(part::go_of(c, {1, 0}) == 1);
    CHECK(part::go_of(c, {1, 1}) == 1);
    CHECK(part::go_of(c, {2, 0}) == 0);
    CHECK(part::go_of(c, {2, 1}) == 0);
    CHECK(part::go_of(c, {2, 2}) == 1);
    // Wherever zones lie over one another, goes never fall from layer to layer.
    for (std::uint32_t zones = 0; zones < 8; ++zones) {
        std::size_t last = 0;
        for (const auto& [layer, source] : part::sources_under(c, zones)) {
            CHECK(part::go_of(c, source) >= last);
            last = part::go_of(c, source);
        }
    }
    // Resin that is drawn in fills all of it, and a coat gels by itself.
    c.how = LayUp::infused;
    CHECK(part::goes_of(c) == 1);
    CHECK(part::go_of(c, {-1, 4}) == 0);
    auto coated = sandwich().part;
    coated.layers.insert(coated.layers.begin(), {LayerKind::surface_coat, "epoxy surface coat", 0, 0});
    coated.layers[0].hardens = true;
    CHECK(part::goes_of(coated) == 1);
}

TEST_CASE("what a go asks is its own layers' share, and all of them ask what one would") {
    const auto whole = worked_out(sandwich());
    const auto f = worked_out(parted_behind(sandwich(), {1, 2}));
    REQUIRE(f.part);
    CHECK(whats(f.part->goes) == std::vector<std::string>{"outer skin", "core", "inner skin"});
    CHECK(f.part->mass == whole.part->mass);
    const double area = f.part->area, people = 2;
    CHECK(f.part->goes[0].laying == Approx(2 * area * shop().rate("laying ply") * 3600 / people));
    CHECK(f.part->goes[1].laying == Approx(area * shop().rate("laying core") * 3600 / people));
    const auto& laid = f.part->stack.laid;
    CHECK(f.part->goes[2].wet == Approx(laid[3].ply.thickness + laid[4].ply.thickness));
    CHECK(f.part->goes[1].wet == 0);
    double laying = 0, resin = 0, wet = 0;
    for (const auto& go : f.part->goes) {
        laying += go.laying;
        resin += go.resin;
        wet += go.wet;
    }
    const auto& at_once = whole.part->goes.front();
    CHECK(laying == Approx(at_once.laying).epsilon(1e-12));
    CHECK(wet == Approx(at_once.wet).epsilon(1e-12));
    // Three bags keep three times what one does, and that alone is more.
    const auto kept = [](const Findings& from) {
        double out = 0;
        for (const auto& l : from.part->resin_account.lines) {
            for (const auto& k : from.part->resin_account.asked.keepers.all)
                out += k.key == l.key ? l.mass : 0;
        }
        return out;
    };
    REQUIRE(kept(whole) > 0);
    CHECK(kept(f) == Approx(3 * kept(whole)));
    CHECK(resin - at_once.resin == Approx(2 * kept(whole)).epsilon(1e-9));
    int pots = 0;
    for (const auto& go : f.part->goes) pots += go.pots;
    CHECK(f.part->pots == pots);
}

TEST_CASE("a go cures what it lays, and each layer goes on from what the goes before have left") {
    const auto job = parted_behind(sandwich(), {1, 2});
    const auto f = worked_out(job);
    const auto &first = cure_of(f, CureOf::part_first), &next = cure_of(f, CureOf::part_next),
               &last = cure_of(f, CureOf::part);
    CHECK(heat::of_part(CureOf::part_first));
    // The tool, the skin; then the core on it; then the other skin.
    const auto tool = first.wall.layers.size() - 1;
    CHECK(first.wall.layers.back().name == "part, laminate");
    CHECK(next.wall.layers.size() == tool + 2);
    CHECK(next.wall.layers.back().name == kFoam);
    CHECK(last.wall.layers.size() == tool + 3);
    CHECK(first.wall.layers.back().cure == 0);
    const auto came_to = [](const heat::CureRun& run, std::size_t layer) {
        for (const auto& gel : run.cured.history.gels) {
            if (gel.layer == layer) return gel.cure;
        }
        FAIL("no such layer reacts");
        return 0.0;
    };
    CHECK(next.wall.layers[tool].cure == came_to(first, tool));
    CHECK(last.wall.layers[tool].cure == came_to(next, tool));
    CHECK(came_to(last, tool) >= came_to(first, tool));
    CHECK(last.wall.layers.back().cure == 0);
    CHECK(first.usual);
    CHECK(first.seconds == Approx(f.part->resin.demould_time).epsilon(0.05));

    // In all it sets as much heat free as the same plies at once, by how far they come.
    auto hot = job;
    hot.heat.part_first = hot.heat.part_next = hot.heat.part = {{kelvin(60), 30.0 / 3600, 10 * 3600}};
    auto once = hot;
    for (auto& l : once.part.layers) l.hardens = false;
    const auto in_goes = worked_out(hot), whole = worked_out(once);
    const auto& all = cure_of(whole, CureOf::part);
    CHECK(whole.heat->cures->find(CureOf::part_first) == nullptr);
    const double sum = set_free(cure_of(in_goes, CureOf::part_first)) +
                       set_free(cure_of(in_goes, CureOf::part_next)) +
                       set_free(cure_of(in_goes, CureOf::part));
    CHECK(sum == Approx(set_free(all)).epsilon(0.03));
    // Fewer plies at once are no hotter.
    for (const auto of : {CureOf::part_first, CureOf::part_next, CureOf::part})
        CHECK(cure_of(in_goes, of).cured.history.peak <= all.cured.history.peak + 0.1);
    // What warms three times pays three times.
    CHECK(bought(in_goes, Ledger::each, "oven, hours") ==
          Approx(cure_of(in_goes, CureOf::part_first).seconds + cure_of(in_goes, CureOf::part_next).seconds +
                 cure_of(in_goes, CureOf::part).seconds));
}

TEST_CASE("what beds a core on a hard skin cures with it, and a hold too short for that is called") {
    auto job = sandwich();
    job.part.layers = part::skin_first(job.part.layers);
    const auto f = worked_out(job);
    const auto& run = cure_of(f, CureOf::part);
    std::optional<std::size_t> bed;
    for (std::size_t i = 0; i < run.wall.layers.size(); ++i) {
        if (run.wall.layers[i].name == "coupling coat") bed = i;
    }
    REQUIRE(bed);
    CHECK(run.wall.layers[*bed].cure == 0);
    bool gelled = false;
    for (const auto& gel : run.cured.history.gels) gelled = gelled || (gel.layer == *bed && gel.all);
    CHECK(gelled);
    CHECK_FALSE(call(f, "not_gelled"));
    job.heat.part = {{job.heat.room, 0.01, 600}};
    CHECK(call(worked_out(job), "not_gelled"));
}

TEST_CASE("of many goes those between share a programme, are charged each, and the hottest is shown") {
    auto job = bagged();
    job.part.layers.assign(12, ply());
    job = parted_behind(job, {0, 6, 8, 9});
    job.heat.part_next = {{kelvin(50), 30.0 / 3600, 3 * 3600}};
    const auto f = worked_out(job);
    REQUIRE(f.part->goes.size() == 5);
    const auto& next = cure_of(f, CureOf::part_next);
    CHECK(next.times == 3);
    // The one that lays six plies; what lay there before is a layer of its own.
    CHECK(next.wall.layers.back().thickness ==
          Approx(6 * f.part->stack.laid.front().ply.thickness).epsilon(1e-9));
    CHECK(bought(f, Ledger::each, "oven, hours") == Approx(3 * next.seconds));
    // The thickest of them is what Heat's curve marks.
    CHECK(f.heat->part_go.laid == Approx(6 * f.part->stack.laid.front().ply.thickness).epsilon(1e-9));
}

TEST_CASE("each go is laid, closed, cured and keyed; its bag is bought each time") {
    const auto whole = worked_out(sandwich());
    auto job = parted_behind(sandwich(), {1, 2});
    auto f = worked_out(job);
    const auto lay = tasks(f, "lay up the first part"), bag = tasks(f, "bag it and find the leaks"),
               key = tasks(f, "key it for");
    REQUIRE(lay.size() == 3);
    REQUIRE(bag.size() == 3);
    REQUIRE(key.size() == 2);
    for (std::size_t go = 0; go < 3; ++go) {
        CHECK(lay[go] < bag[go]);
        CHECK(f.run->tasks[bag[go]].wait == Approx(cure_of(f, heat::cure_of_go(go, 3)).seconds));
        if (go > 0) CHECK((bag[go - 1] < key[go - 1] && key[go - 1] <= lay[go]));
    }
    CHECK(f.run->tasks[lay[1]].name.find("lay up the first part, go 2 of 3: core") != std::string::npos);
    for (const std::string what : {"bag film", "peel ply", "sealant tape", "breather", "vacuum hose"}) {
        INFO(what);
        REQUIRE(bought(whole, Ledger::each, what) > 0);
        CHECK(bought(f, Ledger::each, what) == Approx(3 * bought(whole, Ledger::each, what)));
    }
    // Peel ply leaves it rough; without it is abraded, a quarter of what sanding a plug takes.
    const Lists<Rate> rates(shop());
    CHECK(hours_at(whole, "keying") == 0);
    CHECK(hours_at(f, "keying") == Approx(2 * rates.hours("keying", f.part->area)));
    CHECK(hours_at(f, "bagging") == Approx(3 * hours_at(whole, "bagging")));
    CHECK(hours_at(f, "laying ply") == Approx(hours_at(whole, "laying ply")));
    const double sanded = hours_at(f, "sanding structural");
    job.bag.peel_ply = false;
    f = worked_out(job);
    CHECK(hours_at(f, "keying") == 0);
    CHECK(hours_at(f, "sanding structural") - sanded ==
          Approx(2 * rates.hours("sanding structural", f.part->area) / 4));
    // By hand nothing is closed: the lay-up itself waits.
    job.part.how = LayUp::hand;
    job.brief.process = Process::wet;
    f = worked_out(job);
    REQUIRE(tasks(f, "lay up the first part").size() == 3);
    CHECK(tasks(f, "bag it").empty());
    CHECK(f.run->tasks[tasks(f, "lay up the first part").front()].wait ==
          Approx(cure_of(f, CureOf::part_first).seconds));
    // Two hard faces close once.
    job.brief.process = Process::squeeze;
    f = worked_out(job);
    CHECK(tasks(f, "close the squeeze mould").size() <= 1);
}

TEST_CASE("calls for goes come with what provokes them, and what they offer mends it") {
    SECTION("too thick at once") {
        auto job = bagged();
        job.part.layers.assign(60, ply());
        const auto f = worked_out(job);
        const auto* hot = call(f, "exotherm");
        REQUIRE(hot != nullptr);
        REQUIRE(hot->fix);
        const auto after = worked_out(mended(job, *hot));
        CHECK(after.part->goes.size() > 1);
        CHECK_FALSE(call(after, "exotherm"));
        CHECK(after.part->stack.laminate.thickness == f.part->stack.laminate.thickness);
        for (const auto& go : after.part->goes) CHECK(go.wet <= f.heat->part_go.most.value_or(1) + 1e-9);
    }
    SECTION("too long at once") {
        auto job = bagged();
        job.part.layers.assign(40, ply());
        job.part.how = LayUp::hand;
        job.brief.process = Process::wet;
        job.brief.people = 1;
        const auto f = worked_out(job);
        // By hand: forty plies at the rate of one, against the gel time.
        const double one = f.part->area * shop().rate("laying ply") * 3600;
        REQUIRE(40 * one > f.part->working.gel);
        REQUIRE(one < f.part->working.gel);
        const auto* slow = call(f, "working_time");
        REQUIRE(slow != nullptr);
        REQUIRE(slow->fix);
        const auto after = worked_out(mended(job, *slow));
        CHECK_FALSE(call(after, "working_time"));
        const double each = std::floor(f.part->working.gel / one);
        CHECK(static_cast<double>(after.part->goes.size()) == std::ceil(40 / each));
    }
    SECTION("a core on a hard skin") {
        const auto job = parted_behind(sandwich(), {1});
        const auto f = worked_out(job);
        const auto* dry = call(f, "unbedded");
        REQUIRE(dry != nullptr);
        const auto bedded = mended(job, *dry);
        CHECK(bedded.part.layers[2].kind == LayerKind::coupling);
        const auto then = worked_out(bedded);
        CHECK_FALSE(call(then, "unbedded"));
        const auto* shut = call(then, "shut_under");
        REQUIRE(shut != nullptr);
        CHECK_FALSE(call(worked_out(mended(bedded, *shut)), "shut_under"));
        // By hand, on a wet skin, or with a ply between, nothing is said.
        auto open = bedded;
        open.part.how = LayUp::hand;
        CHECK_FALSE(call(worked_out(open), "shut_under"));
        CHECK_FALSE(call(worked_out(parted_behind(sandwich(), {0})), "unbedded"));
        CHECK_FALSE(call(worked_out(sandwich()), "unbedded"));
        // A mat that fills is wet itself.
        CHECK_FALSE(call(worked_out(parted_behind(sandwich("bulking mat 2 mm"), {1})), "unbedded"));
    }
    SECTION("honeycomb prints through a wet skin") {
        const auto job = sandwich(kComb);
        const auto f = worked_out(job);
        const auto* prints = call(f, "prints");
        REQUIRE(prints != nullptr);
        const auto first = mended(job, *prints);
        CHECK(whats(worked_out(first).part->goes) ==
              std::vector<std::string>{"outer skin", "core and inner skin"});
        for (const auto* key : {"prints", "unbedded", "shut_under"})
            CHECK_FALSE(call(worked_out(first), key));
        CHECK_FALSE(call(worked_out(sandwich()), "prints"));
    }
    SECTION("an infusion knows no goes") {
        auto job = parted_behind(sandwich(), {1});
        job.part.how = LayUp::infused;
        job.brief.process = Process::infusion;
        const auto f = worked_out(job);
        CHECK(f.part->goes.size() == 1);
        const auto* filled = call(f, "filled_at_once");
        REQUIRE(filled != nullptr);
        CHECK_FALSE(call(worked_out(mended(job, *filled)), "filled_at_once"));
    }
}

TEST_CASE("the usual ways mark a stack, and what parts it stands in its file") {
    const std::vector<Layer> plain{ply(), ply(), core(kFoam), ply()};
    const auto first = part::skin_first(plain);
    REQUIRE(first.size() == 5);
    CHECK(first[1].hardens);
    CHECK(first[2].kind == LayerKind::coupling);
    CHECK_FALSE(first[3].hardens);
    const auto each = part::one_by_one(first);
    CHECK(each.size() == 5);
    CHECK(each[3].hardens);
    CHECK(part::one_by_one(part::at_once(each)) == each);
    CHECK(part::at_once(part::skin_first(plain)).size() == 5);
    // Without a core, or with nothing under it, there is no skin to harden first.
    CHECK(part::skin_first({ply(), ply()}) == std::vector<Layer>{ply(), ply()});
    CHECK(part::one_by_one({core(kFoam), ply()}).front().hardens);
    CHECK(part::one_by_one({ply(), core(kFoam)}).back().hardens == false);

    auto job = sandwich();
    job.part.layers = each;
    const auto back = job_from_json(job_to_json(job), "test");
    CHECK(back.part.layers == each);
    // A file from before says nothing of it.
    auto json = job_to_json(job);
    for (auto& l : json["part"]["layers"]) l.erase("hardens");
    CHECK(part::goes_of(job_from_json(json, "test").part) == 1);
}

TEST_CASE("a shell's layer that is to harden ends the day") {
    auto job = fixtures::small_job();
    const auto before = worked_out(job);
    std::size_t at = 0;
    while (job.shell.layers[at].kind != LayerKind::ply) ++at;
    job.shell.layers[at].hardens = true;
    const auto f = worked_out(job);
    REQUIRE(f.shell);
    const auto& ends = f.shell->day_ends;
    CHECK(std::find(ends.begin(), ends.end(), at) != ends.end());
    CHECK(f.shell->days >= before.shell->days);
    bool said = false;
    for (const auto& step : f.shell->order) said = said || step.note == "you have it harden before the next";
    CHECK(said);
}

TEST_CASE("a warm room shortens what can be laid before it gels, in pots that do not last") {
    const auto& resin = need(shop().resins, "epoxy, room temperature slow", "test");
    // By the library at its own room, a kilogram at a time.
    CHECK(working(resin, kShopRoom, kPotOfLife).gel == Approx(resin.gel_time).epsilon(1e-9));
    CHECK(working(resin, kShopRoom, kPotOfLife).pot == Approx(resin.pot_life).epsilon(1e-9));
    // A thin layer by small steps at one heat.
    const auto k = kinetics_of(resin);
    const auto gelled = [&](double T) {
        double cure = 0, t = 0;
        for (; cure < k.gel; t += 2) cure += 2 * cure_rate(k, T, cure).rate;
        return t;
    };
    for (const double T : {kelvin(12), kelvin(26), kelvin(33)})
        CHECK(working(resin, T, 1).gel ==
              Approx(resin.gel_time * gelled(T) / gelled(kShopRoom)).epsilon(5e-3));
    double gel = 1e9, pot = 1e9;
    for (const double T : {kelvin(8), kelvin(15), kelvin(20), kelvin(28), kelvin(38)}) {
        const auto now = working(resin, T, 1);
        CHECK(now.gel < gel);
        CHECK(now.pot < pot);
        CHECK(now.pot > working(resin, T, 4).pot);
        gel = now.gel;
        pot = now.pot;
    }
    // A prepreg waits for its own heat.
    const auto& prepreg = need(shop().resins, "prepreg resin, low cure", "test");
    CHECK(working(prepreg, kelvin(35), 1).gel == prepreg.gel_time);

    auto job = sandwich();
    const auto cool = worked_out(job);
    job.heat.room = kelvin(35);
    const auto warm = worked_out(job);
    CHECK(cool.part->working.gel == Approx(cool.part->resin.gel_time).epsilon(1e-9));
    CHECK(warm.part->working.gel < 0.6 * cool.part->working.gel);
    CHECK(warm.shell->working.gel < 0.8 * cool.shell->working.gel);
    CHECK(warm.part->pots >= cool.part->pots);
    CHECK(value_of(warm.part->figures, "pot_peak") > value_of(cool.part->figures, "pot_peak"));
    // As it is laid nothing else has changed.
    CHECK(warm.part->goes.front().laying == cool.part->goes.front().laying);
}
