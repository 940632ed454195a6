// The cures of a tool's life as programmes: what they do through their walls, and what is said of them.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/shop/cure.hpp"
#include "core/stages/part/kit.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::call;
using fixtures::shop;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

const heat::CureRun& run_of(const Findings& f, CureOf of) {
    const auto* run = f.heat->cures->find(of);
    REQUIRE(run != nullptr);
    return *run;
}

double oven_hours(const Findings& f, Ledger ledger) {
    double sum = 0;
    for (const auto& m : f.run->materials) {
        if (m.ledger == ledger && m.what == "oven, hours") sum += m.amount;
    }
    return sum;
}

}  // namespace

TEST_CASE("without legs of the maker's own, cures are the usual ones of resin and rates") {
    auto job = small_job();
    const auto f = worked_out(job);
    REQUIRE(f.heat);
    const auto& plug = run_of(f, CureOf::on_plug);
    CHECK(plug.usual);
    // Held in the room, it takes the resin's own time to demould.
    CHECK(plug.seconds == Approx(f.shell->resin.demould_time).epsilon(0.02));
    CHECK(plug.cured.air.corners.front().T == Approx(job.heat.room));
    const auto& post = run_of(f, CureOf::post_cure);
    const double rise = job.shell.cure_temperature - job.heat.room;
    const double ramp = need(shop().rates, "post-cure ramp", "test").value / 3600,
                 hold = need(shop().rates, "post-cure hold", "test").value * 3600;
    // Up, the wait for the slowest place, held, and down.
    CHECK(post.seconds >= 2 * rise / ramp + hold - 1);
    CHECK(post.seconds < 2 * rise / ramp + hold + 2 * 3600);
    CHECK(post.highest_air == Approx(job.shell.cure_temperature));
    CHECK(post.cure > plug.cure);
    CHECK(*post.Tg > *plug.Tg);
    for (const auto& run : f.heat->cures->runs) {
        const auto& h = run.cured.history;
        CHECK(std::abs(h.in + h.reaction - h.held - h.lost) < 1e-6 * (h.in + h.reaction));
        CHECK(run.cured.waited);
    }
}

TEST_CASE("hours of the oven in the ledger are those of the programmes") {
    auto job = small_job();
    job.heat.part = {{kelvin(60), 20.0 / 3600, 4 * 3600}};
    const auto f = worked_out(job);
    CHECK(oven_hours(f, Ledger::once) == Approx(run_of(f, CureOf::post_cure).seconds));
    CHECK(oven_hours(f, Ledger::each) == Approx(run_of(f, CureOf::part).seconds));
    // In the room nobody books an oven.
    job.heat.part = {{job.heat.room, 20.0 / 3600, 24 * 3600}};
    CHECK(oven_hours(worked_out(job), Ledger::each) == 0);
}

TEST_CASE("a longer hold never lowers Tg, a hotter one is never cured less, and kelvins count") {
    auto job = small_job();
    double before = 0;
    for (const double hours : {1.0, 3.0, 8.0, 20.0}) {
        job.heat.post_cure = {{kelvin(70), 15.0 / 3600, hours * 3600}};
        const double Tg = *run_of(worked_out(job), CureOf::post_cure).Tg;
        CHECK(Tg >= before - 1e-6);
        before = Tg;
    }
    before = 0;
    for (const double to : {40.0, 55.0, 70.0, 90.0}) {
        job.heat.post_cure = {{kelvin(to), 15.0 / 3600, 8 * 3600}};
        const double cure = run_of(worked_out(job), CureOf::post_cure).cure;
        CHECK(cure >= before - 1e-6);
        before = cure;
    }
}

TEST_CASE("a hold's clock waits for the slowest place") {
    auto job = small_job();
    job.heat.post_cure = {{kelvin(80), 1.0, 3600}};
    job.heat.transfer = 30;
    job.heat.within = 2;
    const auto quick = run_of(worked_out(job), CureOf::post_cure).cured.air;
    job.heat.transfer = 6;
    const auto slow = run_of(worked_out(job), CureOf::post_cure).cured.air;
    REQUIRE(quick.corners.size() >= 3);
    const auto held = [](const Course& air) { return air.corners[2].time - air.corners[1].time; };
    CHECK(held(quick) > 3600);
    // A thin wall comes near by e^(−t·2h/m·c): a fifth of the air takes up to five times as long, its own
    // heat helping.
    const double ratio = (held(slow) - 3600) / (held(quick) - 3600);
    CHECK(ratio > 2.5);
    CHECK(ratio < 5.2);
}

TEST_CASE("standing free too hot too soon sags, and the rate that is offered does not") {
    auto job = small_job();
    job.heat.post_cure = {{kelvin(110), 300.0 / 3600, 4 * 3600}};
    auto f = worked_out(job);
    REQUIRE(call(f, "sags"));
    const auto& run = run_of(f, CureOf::post_cure);
    CHECK(run.over_Tg > 0);
    REQUIRE(run.safe_rate);
    job.heat.post_cure[0].rate = *run.safe_rate;
    f = worked_out(job);
    CHECK_FALSE(call(f, "sags"));
    CHECK(run_of(f, CureOf::post_cure).over_Tg <= -heat::kStandingMargin + 0.3);
    // Half as fast again is too fast.
    job.heat.post_cure[0].rate = 1.6 * *run.safe_rate;
    CHECK(call(worked_out(job), "sags"));
}

TEST_CASE(
    "kinetics of the shop's resins gel when the library says, and set no more heat free than they hold") {
    for (const auto& r : shop().resins) {
        INFO(r.name);
        const auto k = kinetics_of(r);
        const double T = r.in_cloth ? r.gel_temperature : kShopRoom;
        const auto gel = gel_time(k, T);
        REQUIRE(gel);
        CHECK(*gel == Approx(r.gel_time).epsilon(0.05));
        if (r.family == Family::plaster) {
            CHECK_FALSE(k.glass);
            continue;
        }
        CHECK(k.glass->full == Approx(r.Tg));
        CHECK(k.heat >= 3e5);
        CHECK(k.heat <= 4.5e5);
    }
    for (const auto& c : shop().surface_coats) CHECK(gel_time(kinetics_of(c), kShopRoom));
}

TEST_CASE("schools start from stacks by one rule") {
    for (std::size_t i = 0; i < Words<School>::all.size(); ++i) {
        const auto c = shell::start_from(static_cast<School>(i));
        INFO(file_word(c.school));
        double before = 0;
        std::vector<std::pair<std::string, double>> woven;
        bool mat = false;
        bool behind_core = false;
        for (const auto& l : c.layers) {
            behind_core = behind_core || l.kind == LayerKind::core;
            if (l.kind != LayerKind::ply) continue;
            const auto& r = need(shop().reinforcements, l.material, "test");
            mat = mat || r.weave == Weave::mat;
            woven.emplace_back(l.material, l.angle);
            if (r.style == "tissue" || behind_core) continue;
            // Light first, and no leap: what lies behind does not print through.
            if (before > 0 && r.areal_mass > before) CHECK(r.areal_mass <= 2.0 * before + 1e-9);
            before = r.areal_mass;
        }
        if (!mat) {
            auto back = woven;
            std::reverse(back.begin(), back.end());
            CHECK(woven == back);
        }
        const auto sum = sum_stack(c.layers, need(shop().resins, c.resin, "test"), c.how, shop(), "test");
        CHECK(sum.laminate.thickness > 0.0025);
        CHECK(sum.laminate.thickness < 0.025);
    }
}

TEST_CASE("the shell's film is measured where the part's is, whether the part is bagged or not") {
    auto job = small_job();
    job.shell.how = LayUp::bagged;
    job.part.how = LayUp::bagged;
    const auto bagged = worked_out(job);
    const auto film = [](const Findings& f) {
        for (const auto& m : f.run->materials) {
            if (m.stage == Stage::shell && m.what == "bag film") return m.amount;
        }
        return 0.0;
    };
    const auto& stock = need(shop().consumables, "bag film", "test");
    CHECK(film(bagged) == Approx(bagged.bag->film.area() * (1 + stock.waste)));
    job.part.how = LayUp::hand;
    CHECK(film(worked_out(job)) == Approx(film(bagged)));
}

TEST_CASE("the part's cloth lies on its face, one net for each angle, and its kit goes onto the roll") {
    auto job = small_job();
    const auto f = worked_out(job);
    const auto& draped = *f.part->draped;
    REQUIRE_FALSE(draped.nets.empty());
    std::set<double> angles;
    for (const auto& l : job.part.layers) {
        if (l.kind == LayerKind::ply) angles.insert(l.angle);
    }
    CHECK(draped.nets.size() == angles.size());
    for (const auto& net : draped.nets) {
        CHECK(net.drape.covered == Approx(draped.area).epsilon(0.02));
        CHECK(net.drape.flat_area > 0.9 * net.drape.covered);
    }
    // Moved and turned, it lies otherwise.
    job.part.drape.turn = radians(20);
    job.part.drape.along = 0.05;
    const auto moved = worked_out(job);
    CHECK((moved.part->draped->seed - draped.seed).norm() > 0.02);
    CHECK(moved.part->draped->nets[0].drape.most != draped.nets[0].drape.most);
    // A stiffer cloth locks where a looser one does not.
    auto own = shop();
    for (auto& r : own.reinforcements) r.lock = radians(1);
    Progress quiet;
    const auto stiff = evaluate(job, own, quiet, Depth::stages);
    REQUIRE(stiff.part);
    CHECK(stiff.part->draped->worst()->drape.locked > 0);
    bool locks = false;
    for (const auto& c : stiff.calls) locks = locks || (c.stage == Stage::part && c.key == "cloth_locks");
    CHECK(locks);
    const auto kit = part::kit(job.part, draped, shop(), 0.02, 0.025, quiet);
    REQUIRE(kit.rolls.size() >= 1);
    double pieces = 0, rolls = 0;
    for (const auto& p : kit.pieces) pieces += p.area;
    for (const auto& r : kit.rolls) {
        rolls += r.metres * r.width;
        CHECK(r.sheets.too_large.empty());
        for (const auto& sheet : r.sheets.sheets) {
            for (std::size_t i = 0; i < sheet.pieces.size(); ++i) {
                for (const auto& loop : sheet.pieces[i].loops) {
                    for (const auto& p : loop) {
                        CHECK(p.y() > -1e-9);
                        CHECK(p.y() < r.width + 1e-9);
                    }
                }
                for (std::size_t k = i + 1; k < sheet.pieces.size(); ++k)
                    CHECK(std::abs(net_area(shared(sheet.pieces[i].loops, sheet.pieces[k].loops))) < 1e-6);
            }
        }
    }
    CHECK(pieces < rolls);
    // Every ply of it: its flat cloth and a border of the trim.
    double flat = 0;
    for (const auto& net : draped.nets) flat += net.drape.flat_area * static_cast<double>(net.layers.size());
    CHECK(pieces > flat);
    CHECK(pieces < 1.5 * flat);
    // A roll too narrow for the face parts each ply, and the laps come on top.
    for (auto& r : own.reinforcements) r.roll_width = 0.2;
    const auto narrow = part::kit(job.part, draped, own, 0.02, 0.025, quiet);
    CHECK(narrow.pieces.size() > kit.pieces.size());
    double joined = 0;
    for (const auto& p : narrow.pieces) joined += p.area;
    CHECK(joined > pieces);
}
