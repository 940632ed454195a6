// What the tool and its parts take: one list for plan, ledgers and bill of materials.
#include <catch2/catch.hpp>

#include "core/base/units.hpp"
#include "core/job/tables.hpp"
#include "core/science/nest/roll.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::shop;
using fixtures::worked_out;

namespace {

double hours_of(const Findings& f, Ledger ledger) {
    return f.run->ledgers[static_cast<std::size_t>(ledger)].hours;
}

/// Hours of hands that are booked.
double booked(const Findings& f) {
    double sum = 0;
    for (const auto& b : f.run->plan.bookings) sum += (b.to - b.from) / 3600 * f.run->tasks[b.task].people;
    return sum;
}

const run::Material* bought(const Findings& f, Ledger ledger, Stage stage, const std::string& what) {
    for (const auto& m : f.run->materials) {
        if (m.ledger == ledger && m.stage == stage && m.what == what) return &m;
    }
    return nullptr;
}

/// Walks over the bookings on its own: every wait kept, no window missed but those that are told, nothing
/// booked outside of the shift, in the order of the tasks.
void walk(const Findings& f, const Job& job) {
    const auto& plan = f.run->plan;
    double free = 0, due = 1e300;
    std::size_t last = 0;
    for (std::size_t i = 0; i < plan.bookings.size(); ++i) {
        const auto& b = plan.bookings[i];
        CHECK(b.task >= last);
        const bool first = i == 0 || b.task != last;
        if (first) {
            CHECK(b.from >= free - 1);
            const bool told = std::find(plan.missed.begin(), plan.missed.end(), last) != plan.missed.end();
            CHECK((b.from <= due + 1 || told));
        }
        last = b.task;
        const double start = std::fmod(b.from - job.run.start + 10 * 86400.0, 86400.0);
        CHECK(start + (b.to - b.from) <= job.brief.shift + 1);
        const auto& task = f.run->tasks[b.task];
        free = b.to + task.wait;
        due = task.no_later > 0 ? free + task.no_later : 1e300;
    }
}

}  // namespace

TEST_CASE("hours in the plan are the hours in the ledgers, on every demo and on changed jobs") {
    std::vector<Job> jobs;
    for (const char* name : {"cello-case", "radar-dome", "pavilion-petal", "cello-case-whole"})
        jobs.push_back(fixtures::demo(name));
    const auto changed = [&](auto&& change) {
        auto job = fixtures::small_job();
        change(job);
        jobs.push_back(std::move(job));
    };
    for (const auto kind : {BackKind::none, BackKind::egg_crate, BackKind::foam_blocks, BackKind::tubes,
                            BackKind::frame, BackKind::sandwich})
        changed([&](Job& j) { j.back.kind = kind; });
    for (const auto grade : {Grade::structural, Grade::paintable, Grade::clear, Grade::gloss})
        changed([&](Job& j) { j.brief.grade = grade; });
    for (const auto how : {LayUp::hand, LayUp::bagged, LayUp::infused})
        changed([&](Job& j) { j.part.how = how; });
    for (const int people : {1, 3, 7}) changed([&](Job& j) { j.brief.people = people; });
    for (const auto school : {School::mat_polyester, School::carbon_epoxy, School::tooling_prepreg})
        changed([&](Job& j) { j.shell = shell::start_from(school); });
    changed([](Job& j) { j.brief.process = Process::squeeze; });
    changed([](Job& j) {
        j.run.start = 22 * 3600;  // at night
        j.brief.shift = 8 * 3600;
    });
    changed([](Job& j) {
        j.split.together = Together::several;
        j.split.parts = 3;
    });
    REQUIRE(jobs.size() >= 24);
    for (const auto& job : jobs) {
        const auto f = worked_out(job);
        REQUIRE(f.run);
        INFO(file_word(job.back.kind) << " " << file_word(job.brief.grade) << " " << job.brief.people);
        CHECK(booked(f) ==
              Approx(hours_of(f, Ledger::once) + f.split->parts() * hours_of(f, Ledger::each)).epsilon(1e-3));
        walk(f, job);
        for (const auto& task : f.run->tasks)
            CHECK((task.work >= 300 || task.wait > 0 || &task == &f.run->tasks.back()));
    }
}

TEST_CASE("the ledger of one job, added up by hand") {
    auto job = fixtures::small_job();
    job.back.kind = BackKind::none;
    job.part.how = LayUp::bagged;
    job.part.gel_temperature = kelvin(23);
    job.brief.people = 2;
    job.brief.grade = Grade::paintable;
    const auto f = worked_out(job);
    REQUIRE(f.run);
    const auto rate = [](const char* name) { return need(shop().rates, name, "test").value; };
    const auto set_up = [](const char* name) { return need(shop().rates, name, "test").set_up; };
    // One part: its plies and cores, the bag over part and flange, pull, rim and finish.
    const double area = f.part->area;
    double plies = 0, cores = 0, coats = 0;
    for (const auto& l : job.part.layers) {
        plies += l.kind == LayerKind::ply;
        cores += l.kind == LayerKind::core;
        coats += l.kind == LayerKind::surface_coat || l.kind == LayerKind::coupling;
    }
    // The finished mould takes its share of what a grade asks for over a structural part.
    const double bare = set_up("finishing structural") + rate("finishing structural") * area,
                 full = set_up("finishing paintable") + rate("finishing paintable") * area;
    const double finish = full - rate("paint kept out of part") * (full - bare);
    const double by_hand =
        plies * rate("laying ply") * area + cores * (set_up("laying core") + rate("laying core") * area) +
        coats * (set_up("coating") + rate("coating") * area) + rate("bagging") * (area + f.edge->area) +
        rate("setting up bag") + rate("demould part") + rate("trimming") * f.edge->rim_length + finish +
        f.release->work_each / 3600;
    CHECK(hours_of(f, Ledger::each) == Approx(by_hand));
    // Its film and tape.
    const auto& film = need(shop().consumables, "bag film", "test");
    const auto* line = bought(f, Ledger::each, Stage::bag, "bag film");
    REQUIRE(line != nullptr);
    // Two of it lie side by side on three metres, either way; the shorter side goes along the roll.
    REQUIRE(f.bag->film.length > 1.0);
    REQUIRE(f.bag->film.length < 1.5);
    CHECK(line->amount == Approx(std::max(f.bag->film.length * f.bag->film.width * (1 + film.waste),
                                          f.bag->film.width / 2 * film.width)));
    CHECK(line->cost == Approx(line->amount * film.price));
    // Discs of all grits are one line.
    int discs = 0;
    for (const auto& m : f.run->materials) discs += m.stage == Stage::plug && m.what == "grit discs";
    CHECK(discs == 1);
}

TEST_CASE("cloth is bought by lengths off its roll") {
    auto job = fixtures::small_job();
    for (auto& p : job.shape.tray.outline) p = {p[0] * 2.0 / 0.6, p[1] * 1.6 / 0.4};
    job.shape.tray.facet = 0.08;
    job.part.layers = {{LayerKind::ply, "glass cloth 200 plain", 0, 0},
                       {LayerKind::ply, "glass cloth 200 plain", 0, 0}};
    job.part.how = LayUp::hand;
    const auto f = worked_out(job);
    REQUIRE(f.run);
    const auto& roll = need(shop().reinforcements, "glass cloth 200 plain", "test");
    const double longest = f.split->size.maxCoeff();
    const auto cut = cut_off_roll(longest, std::max(f.split->section_width, f.part->area / longest), 0,
                                  roll.roll_width, 0.03);
    CHECK(cut.strips >= 2);
    const auto* line = bought(f, Ledger::each, Stage::part, roll.name);
    REQUIRE(line != nullptr);
    CHECK(line->amount / roll.roll_width >=
          Approx(std::max(2 * cut.metres, 2 * f.part->area * (1 + job.part.waste) / roll.roll_width)));
    CHECK_THAT(line->note, Catch::Contains(std::to_string(2 * cut.strips) + " lengths"));
}

TEST_CASE("a squeeze mould buys no bag, and a mould in halves lays the second after the first") {
    auto job = fixtures::small_job();
    job.part.how = LayUp::bagged;
    CHECK(bought(worked_out(job), Ledger::each, Stage::bag, "bag film") != nullptr);
    job.brief.process = Process::squeeze;
    CHECK(bought(worked_out(job), Ledger::each, Stage::bag, "bag film") == nullptr);
    const auto whole = worked_out(fixtures::demo("cello-case-whole"));
    REQUIRE(whole.run);
    double first = 0, second = 0;
    for (const auto& b : whole.run->plan.bookings) {
        const auto& task = whole.run->tasks[b.task];
        if (task.name.find("lay up the shell, piece 1 of 2") != std::string::npos) first = b.to + task.wait;
        if (task.name.find("piece 2 of 2") != std::string::npos && second == 0) second = b.from;
    }
    CHECK(first > 0);
    CHECK(second >= first);
    CHECK(bought(whole, Ledger::once, Stage::edge, fixtures::demo("cello-case-whole").split.board) !=
          nullptr);
}

TEST_CASE("setting up keeps a small job from taking no time") {
    auto job = fixtures::small_job();
    for (auto& p : job.shape.tray.outline) p = {p[0] * 0.08 / 0.6, p[1] * 0.06 / 0.4};
    job.shape.tray.crown = 0.001;
    job.shape.tray.depth = 0.02;
    job.shape.tray.edge_radius = 0.004;
    job.shape.tray.facet = 0.004;
    const auto f = worked_out(job);
    REQUIRE(f.plug);
    double sanding = 0, spraying = 0;
    for (const auto& step : f.plug->finish) {
        if (step.what.find("sand through") == 0) sanding += step.hours;
        if (step.product == "plug top coat") spraying += step.hours;
    }
    CHECK(sanding >= need(shop().rates, "sanding paintable", "test").set_up);
    CHECK(spraying >= need(shop().rates, "priming", "test").set_up);
}

TEST_CASE("what is post-cured is booked for as long as it takes, and its oven paid") {
    auto job = fixtures::small_job();
    job.shell.cure_temperature = kelvin(80);
    job.heat.room = kelvin(20);
    const auto f = worked_out(job);
    const auto* oven = bought(f, Ledger::once, Stage::heat, "oven, hours");
    REQUIRE(oven != nullptr);
    // 60 K up and 60 K down at 10 K/h, and 8 h at the top.
    CHECK(oven->amount == Approx((12 + 8) * 3600));
    job.shell.cure_temperature = kelvin(20);
    CHECK(bought(worked_out(job), Ledger::once, Stage::heat, "oven, hours") == nullptr);
}

namespace {

double hours_at(const Findings& f, Ledger ledger, Stage stage, const std::string& what) {
    double sum = 0;
    for (const auto& h : f.run->hours) {
        if (h.ledger == ledger && h.stage == stage && h.what == what) sum += h.hours;
    }
    return sum;
}

/// Where a task whose name holds these words comes in the plan; -1 for nowhere.
int place_of(const Findings& f, const std::string& words) {
    for (std::size_t i = 0; i < f.run->tasks.size(); ++i) {
        if (f.run->tasks[i].name.find(words) != std::string::npos) return static_cast<int>(i);
    }
    return -1;
}

double hours(const char* rate, double amount) {
    return need(shop().rates, rate, "test").hours(amount);
}

}  // namespace

TEST_CASE("no layer's hours are lost, wherever a coat comes between") {
    auto job = fixtures::small_job();
    const Layer coat{LayerKind::surface_coat, "epoxy surface coat", 0, 0},
        ply{LayerKind::ply, "glass cloth 600 twill", 0, 0};
    const auto passes = need(shop().surface_coats, coat.material, "test").passes;
    for (const auto& layers :
         {std::vector<Layer>{coat, ply, ply}, std::vector<Layer>{ply, ply, coat},
          std::vector<Layer>{ply, coat, ply}, std::vector<Layer>{coat}, std::vector<Layer>{ply}}) {
        job.shell.layers = layers;
        const auto f = worked_out(job);
        REQUIRE(f.run);
        double plies = 0, coats = 0;
        for (const auto& l : layers) (l.kind == LayerKind::ply ? plies : coats) += 1;
        CHECK(hours_at(f, Ledger::once, Stage::shell, "laying ply") ==
              Approx(plies * hours("laying ply", f.shell->area)));
        CHECK(hours_at(f, Ledger::once, Stage::shell, "coating") ==
              Approx(coats * passes * hours("coating", f.shell->area)));
        walk(f, job);
        // What came last cures before the mould is taken off.
        const auto off = static_cast<std::size_t>(place_of(f, "take the mould off"));
        double cured = 0;
        for (std::size_t i = 0; i < off; ++i) {
            if (f.run->tasks[i].stage == "shell") cured = f.run->tasks[i].wait;
        }
        CHECK(cured == f.shell->resin.demould_time);
    }
}

TEST_CASE("doublers and debulks take their hours, by area and by number") {
    auto job = fixtures::small_job();
    const auto plain = worked_out(job);
    auto& zone = job.shell.zones.emplace_back();
    zone.kind = ZoneKind::flange;
    zone.layers.assign(3, {LayerKind::ply, "glass cloth 600 twill", 0, 0});
    const auto doubled = worked_out(job);
    REQUIRE(doubled.shell->zones.size() == plain.shell->zones.size() + 1);
    CHECK(hours_at(doubled, Ledger::once, Stage::shell, "laying ply") -
              hours_at(plain, Ledger::once, Stage::shell, "laying ply") ==
          Approx(hours("laying ply", 3 * doubled.shell->zones.back().area)));
    job = fixtures::small_job();
    job.shell = shell::start_from(School::tooling_prepreg);
    const auto pressed = worked_out(job);
    int debulks = 0;
    for (const auto& step : pressed.shell->order) debulks += step.kind == shell::LayStep::Kind::debulk;
    CHECK(debulks > 0);
    CHECK(hours_at(pressed, Ledger::once, Stage::shell, "debulk") == Approx(hours("debulk", debulks)));
    // It is bagged, which a shell laid by hand is not.
    CHECK(hours_at(pressed, Ledger::once, Stage::shell, "setting up bag") ==
          Approx(hours("setting up bag", 1)));
    CHECK(bought(plain, Ledger::once, Stage::shell, "bag film") == nullptr);
    CHECK(bought(pressed, Ledger::once, Stage::shell, "bag film") != nullptr);
}

TEST_CASE("every back is built of what it is bought for") {
    auto job = fixtures::small_job();
    job.back.kind = BackKind::egg_crate;
    auto f = worked_out(job);
    REQUIRE(f.back->crate);
    CHECK(hours_at(f, Ledger::once, Stage::back, "cutting ribs") ==
          Approx(hours("cutting ribs", f.back->crate->cut_length)));
    CHECK(hours_at(f, Ledger::once, Stage::back, "fitting ribs") ==
          Approx(hours("fitting ribs", f.back->ribs)));
    CHECK(hours_at(f, Ledger::once, Stage::back, "bonding ribs") ==
          Approx(hours("bonding ribs", f.back->bond_length)));
    const auto& board = need(shop().boards, job.back.board, "test");
    CHECK(bought(f, Ledger::once, Stage::back, board.name)->amount ==
          std::ceil(f.back->rib_area / (0.7 * board.sheet_length * board.sheet_width)));
    job.back.kind = BackKind::frame;
    f = worked_out(job);
    CHECK(hours_at(f, Ledger::once, Stage::back, "welding a frame") ==
          Approx(hours("welding a frame", 2.0 * f.back->legs)));
    CHECK(bought(f, Ledger::once, Stage::back, "levelling foot M12")->amount ==
          job.back.feet.along * job.back.feet.across);
    CHECK(place_of(f, "weld the back") > place_of(f, "lay up the shell"));
    job.back.kind = BackKind::tubes;
    CHECK(bought(worked_out(job), Ledger::once, Stage::back, "levelling foot M12") == nullptr);
    job.back.kind = BackKind::sandwich;
    f = worked_out(job);
    CHECK(hours_at(f, Ledger::once, Stage::back, "laying core") ==
          Approx(hours("laying core", f.back->sandwich_area)));
    CHECK(bought(f, Ledger::once, Stage::back, job.back.sandwich.core) != nullptr);
    job.back.kind = BackKind::none;
    f = worked_out(job);
    for (const auto& h : f.run->hours) CHECK(h.stage != Stage::back);
    for (const auto& m : f.run->materials) CHECK(m.stage != Stage::back);
}

TEST_CASE("steps come in the order in which a tool is made, and touching up after the pull") {
    const auto f = worked_out(fixtures::small_job());
    const std::array order{"draw and plan",
                           "set up the flange boards",
                           "on the plug",
                           "lay up the shell",
                           "take the mould off",
                           "drill the flange",
                           "wet-sand",
                           "on the mould",
                           "lay up the first part",
                           "pull and trim",
                           "finish the first part"};
    for (std::size_t i = 1; i < order.size(); ++i) {
        INFO(order[i]);
        REQUIRE(place_of(f, order[i]) >= 0);
        CHECK(place_of(f, order[i - 1]) < place_of(f, order[i]));
    }
    CHECK(place_of(f, "touch the release up") >= place_of(f, "finish the first part"));
}

TEST_CASE("what finishing takes is one figure, on the sheet of routes and in the ledgers") {
    for (const auto grade : {Grade::structural, Grade::paintable, Grade::clear, Grade::gloss}) {
        auto job = fixtures::small_job();
        job.brief.grade = grade;
        const auto f = worked_out(job);
        const auto of = plug::finish_hours(grade, f.part->area, shop());
        CHECK(hours_at(f, Ledger::each, Stage::part, "finishing") == Approx(of.part));
        const auto tool = plug::finish_hours(grade, f.plug->sanding_area, shop());
        double sanding = 0;
        for (const auto& step : f.plug->finish)
            sanding += step.what.find("sand through") == 0 ? step.hours : 0;
        CHECK(sanding + hours_at(f, Ledger::once, Stage::run, "finishing the mould") == Approx(tool.tool));
    }
}

TEST_CASE("several parts of one pull share what the pull takes") {
    auto one = fixtures::small_job(), three = one;
    three.split.together = Together::several;
    three.split.parts = 3;
    const auto a = worked_out(one), b = worked_out(three);
    REQUIRE(b.split->parts() == 3);
    const auto hose = [](const Findings& f) { return bought(f, Ledger::each, Stage::bag, "vacuum hose"); };
    REQUIRE(hose(a) != nullptr);
    CHECK(hose(b)->amount == Approx(hose(a)->amount / 3));
    CHECK(hours_at(b, Ledger::each, Stage::bag, "setting up bag") ==
          Approx(hours_at(a, Ledger::each, Stage::bag, "setting up bag") / 3));
}

namespace {

/// What is to be seen after the tasks whose name has `words` in it.
std::vector<std::string> looks_after(const Findings& f, const std::string& words) {
    std::vector<std::string> out;
    for (std::size_t t = 0; t < f.run->tasks.size(); ++t) {
        if (f.run->tasks[t].name.find(words) == std::string::npos) continue;
        for (const auto& look : f.run->looks[t]) out.push_back(worded(look));
    }
    return out;
}

int count_of(const std::vector<std::string>& looks, const std::string& words) {
    return static_cast<int>(std::count_if(looks.begin(), looks.end(), [&](const std::string& l) {
        return l.find(words) != std::string::npos;
    }));
}

}  // namespace

TEST_CASE("what must be seen before going on stands with its step, in plan, report and table") {
    auto job = fixtures::bagged();
    job.shell.how = LayUp::bagged;
    job.bag.rise = 3000;
    const auto f = worked_out(job);
    REQUIRE(f.run->looks.size() == f.run->tasks.size());
    // The maker's own mark, in words of either system.
    const auto bag = looks_after(f, "bag it and find the leaks");
    CHECK(count_of(bag, "30.0 mbar at most") == 1);
    CHECK(count_of(bag, "hold for ten minutes") == 1);
    CHECK(count_of(bag, "clamped") == 0);
    const auto shell = looks_after(f, "bag the shell");
    CHECK(count_of(shell, "the shop's mark") == 1);
    // The last of each face's coats alone, and of the plug before the shell is laid.
    CHECK(count_of(looks_after(f, "on the plug"), "tape comes off clean") == 1);
    // The gate is asked before the first that is laid on the plug, a coat or a ply, and before the part.
    CHECK(count_of(looks_after(f, "lay up the first part"), "the release gate says go") == 1);
    const auto first = std::find_if(f.run->tasks.begin(), f.run->tasks.end(),
                                    [](const Task& t) { return t.stage == "shell"; });
    REQUIRE(first != f.run->tasks.end());
    const auto at = static_cast<std::size_t>(first - f.run->tasks.begin());
    CHECK(count_of(f.run->looks[at], "the release gate says go") == 1);
    int asked = 0;
    for (const auto& looks : f.run->looks) asked += count_of(looks, "the release gate says go");
    CHECK(asked == 2);
    CHECK_FALSE(looks_after(f, "take the mould off").empty());
    // None is lost where a moment's work is done with what follows it.
    int whole = 0, clean = 0;
    for (const auto& looks : f.run->looks) whole += static_cast<int>(looks.size());
    for (const auto& looks : f.run->looks) clean += count_of(looks, "tape comes off clean");
    CHECK(clean >= 3);  // plug, mould and touching up
    // The report and the table say each once, where its task ends.
    int told = 0;
    const auto report = findings_to_json(f);
    for (const auto& day : report["run"]["plan"]) told += static_cast<int>(day["looks"].size());
    CHECK(told == whole);
    const auto table = days_csv(f);
    int in_table = 0;
    for (std::size_t i = 0; (i = table.find("tape comes off clean", i)) != std::string::npos; ++i) ++in_table;
    CHECK(in_table == clean);
}

TEST_CASE("an infusion's looks stand before its hoses are opened and before they are shut") {
    auto job = fixtures::small_job();
    job.part.how = job.shell.how = LayUp::infused;
    job.part.resin = job.shell.resin = "epoxy, infusion";
    for (auto& l : job.part.layers) l.cut.hole = 0.003;
    const auto f = worked_out(job);
    for (const auto* bagging : {"bag it and find the leaks", "bag the shell"}) {
        INFO(bagging);
        CHECK(count_of(looks_after(f, bagging), "every hose is clamped") == 1);
        CHECK(count_of(looks_after(f, bagging), "no more bubbles") == 0);
    }
    for (const auto* filling : {"let the resin in, hose by hose", "let the resin into the shell"}) {
        INFO(filling);
        CHECK(count_of(looks_after(f, filling), "no more bubbles") == 1);
        CHECK(count_of(looks_after(f, filling), "no feed draws air") == 1);
    }
    // A squeezed part has no bag to look at.
    job = fixtures::small_job();
    job.brief.process = Process::squeeze;
    const auto squeezed = worked_out(job);
    CHECK(looks_after(squeezed, "bag it").empty());
    CHECK(count_of(looks_after(squeezed, "close the squeeze mould"), "three rounds") == 1);
}
