// The cures of a tool's life as programmes: what they do through their walls, and what is said of them.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/job/job.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/heat/fastest.hpp"
#include "core/stages/heat/sensors.hpp"
#include "core/stages/part/kit.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/stages/cure_runs.hpp"

using namespace jig;
using fixtures::bought;
using fixtures::call;
using fixtures::cure_of;
using fixtures::shop;
using fixtures::small_job;
using fixtures::worked_out;

TEST_CASE("without legs of the maker's own, cures are the usual ones of resin and rates") {
    auto job = small_job();
    const auto f = worked_out(job);
    REQUIRE(f.heat);
    const auto& plug = cure_of(f, CureOf::on_plug);
    CHECK(plug.usual);
    // Held in the room, it takes the resin's own time to demould.
    CHECK(plug.seconds == Approx(f.shell->resin.demould_time).epsilon(0.02));
    CHECK(plug.cured.air.corners.front().T == Approx(job.heat.room));
    const auto& post = cure_of(f, CureOf::post_cure);
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
    CHECK(bought(f, Ledger::once, "oven, hours") == Approx(cure_of(f, CureOf::post_cure).seconds));
    CHECK(bought(f, Ledger::each, "oven, hours") == Approx(cure_of(f, CureOf::part).seconds));
    // In the room nobody books an oven.
    job.heat.part = {{job.heat.room, 20.0 / 3600, 24 * 3600}};
    CHECK(bought(worked_out(job), Ledger::each, "oven, hours") == 0);
}

TEST_CASE("a longer hold never lowers Tg, a hotter one is never cured less, and kelvins count") {
    auto job = small_job();
    double before = 0;
    for (const double hours : {1.0, 3.0, 8.0, 20.0}) {
        job.heat.post_cure = {{kelvin(70), 15.0 / 3600, hours * 3600}};
        const double Tg = *cure_of(worked_out(job), CureOf::post_cure).Tg;
        CHECK(Tg >= before - 1e-6);
        before = Tg;
    }
    before = 0;
    for (const double to : {40.0, 55.0, 70.0, 90.0}) {
        job.heat.post_cure = {{kelvin(to), 15.0 / 3600, 8 * 3600}};
        const double cure = cure_of(worked_out(job), CureOf::post_cure).cure;
        CHECK(cure >= before - 1e-6);
        before = cure;
    }
}

TEST_CASE("a hold's clock waits for the slowest place") {
    auto job = small_job();
    job.heat.post_cure = {{kelvin(80), 1.0, 3600}};
    job.heat.transfer = 30;
    job.heat.within = 2;
    const auto quick = cure_of(worked_out(job), CureOf::post_cure).cured.air;
    job.heat.transfer = 6;
    const auto slow = cure_of(worked_out(job), CureOf::post_cure).cured.air;
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
    // Kept, for the findings that it is of do not stay.
    const auto run = cure_of(f, CureOf::post_cure);
    CHECK(run.over_Tg > 0);
    REQUIRE(run.safe_rate);
    job.heat.post_cure[0].rate = *run.safe_rate;
    f = worked_out(job);
    CHECK_FALSE(call(f, "sags"));
    CHECK(cure_of(f, CureOf::post_cure).over_Tg <= -heat::kStandingMargin + 0.3);
    // The usual programme of a shop that ramps as fast is slowed down by the call's own fix.
    auto own = shop();
    for (auto& r : own.rates) {
        if (r.name == "post-cure ramp") r.value = 300;
    }
    auto usual = small_job();
    usual.shell.cure_temperature = kelvin(110);
    const auto hurried = evaluate(usual, own, quiet, Depth::stages);
    const auto* said = call(hurried, "sags");
    REQUIRE(said != nullptr);
    REQUIRE(said->fix);
    auto json = job_to_json(usual);
    json.merge_patch(said->fix->patch);
    CHECK_FALSE(call(evaluate(job_from_json(json, "test"), own, quiet, Depth::stages), "sags"));
    // Half as fast again is too fast.
    job.heat.post_cure[0].rate = 1.6 * *run.safe_rate;
    CHECK(call(worked_out(job), "sags"));
}

TEST_CASE("a hold that is too short is made as long as the call says, and then all of it has gelled") {
    auto job = small_job();
    job.heat.part = {{kelvin(20), 0.01, 5400}};
    const auto f = worked_out(job);
    const auto* said = call(f, "not_gelled");
    REQUIRE(said != nullptr);
    REQUIRE(said->fix);
    auto json = job_to_json(job);
    json.merge_patch(said->fix->patch);
    const auto held = job_from_json(json, "test");
    CHECK(held.heat.part[0].hold > 5400);
    CHECK_FALSE(call(worked_out(held), "not_gelled"));
}

TEST_CASE("Tg and waits are the programmes', wherever they are told") {
    auto job = small_job();
    job.heat.post_cure = {{kelvin(70), 15.0 / 3600, 1800}};
    job.heat.on_plug = {{kelvin(30), 10.0 / 3600, 40 * 3600}};
    job.heat.part = {{kelvin(50), 20.0 / 3600, 5 * 3600}};
    const auto f = worked_out(job);
    CHECK(f.heat->Tg == *cure_of(f, CureOf::post_cure).Tg);
    CHECK(f.heat->part_Tg == *cure_of(f, CureOf::part).Tg);
    CHECK(value_of(f.heat->figures, "Tg") == f.heat->Tg);
    CHECK(f.heat->Tg_margin == Approx(f.heat->Tg - job.brief.top_temperature));
    // A shorter hold than the rule of thumb counts on leaves less.
    job.heat.post_cure[0].hold = 20 * 3600;
    CHECK(worked_out(job).heat->Tg > f.heat->Tg);
    double shell = 0, part = 0;
    for (const auto& t : f.run->tasks) {
        if (t.stage == "shell" && t.wait > 0) shell = t.wait;
        if (t.stage == "part" || t.stage == "bag") part = std::max(part, t.wait);
    }
    CHECK(shell == Approx(cure_of(f, CureOf::on_plug).seconds));
    CHECK(part == Approx(cure_of(f, CureOf::part).seconds));
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

TEST_CASE("cloth may start anywhere, also on a wall that its zero points off") {
    auto job = small_job();
    for (const auto& [along, across] :
         {std::pair{5.0, 0.0}, {-5.0, 0.0}, {0.0, 5.0}, {0.0, -5.0}, {3.0, 3.0}}) {
        for (const double turn : {0.0, kPi / 2, 0.7}) {
            job.part.drape = {along, across, turn};
            INFO(along << " " << across << " " << turn);
            const auto f = worked_out(job);
            CHECK_FALSE(call(f, "input"));
            REQUIRE(f.part);
            CHECK(f.part->draped->nets[0].drape.covered > 0.5 * f.part->draped->area);
        }
    }
}

TEST_CASE("what cloth in one piece does not reach is said") {
    const auto job = small_job();
    const auto f = worked_out(job);
    auto part = *f.part;
    auto draped = *part.draped;
    for (auto& net : draped.nets) net.drape.holes = {Point(0, 0, 0), Point(1, 0, 0)};
    part.draped = std::make_shared<const part::Draped>(draped);
    bool said = false;
    for (const auto& c : part::calls(job.part, part, job.brief, 1, 0, {}, shop()))
        said = said || (c.key == "unreached" && c.headline.find("2 places") != std::string::npos);
    CHECK(said);
    for (const auto& c : part::calls(job.part, *f.part, job.brief, 1, 0, {}, shop()))
        CHECK(c.key != "unreached");
}

TEST_CASE("a cloth whose threads lie aslant on its roll is cut along the roll, not along its threads") {
    auto job = small_job();
    const auto box_of = [&](const char* cloth, double degrees) {
        job.part.layers = {{LayerKind::ply, cloth, radians(degrees), 0}};
        const auto f = worked_out(job);
        REQUIRE(f.part);
        auto wide = shop();
        for (auto& r : wide.reinforcements) r.roll_width = 20;
        const auto kit = part::kit(job.part, *f.part->draped, f.edge->tool->frame, wide, 0.02, 0.025, quiet);
        REQUIRE(kit.pieces.size() == 1);
        Point2 low = Point2::Constant(1e9), high = -low;
        for (const auto& p : kit.pieces[0].outline.front()) {
            low = low.cwiseMin(p);
            high = high.cwiseMax(p);
        }
        return Point2(high - low);
    };
    // Rolled out along the tool, a ply is as long and wide as the tool, whatever its threads do.
    const auto woven = box_of("glass cloth 300 twill", 0), aslant = box_of("glass biaxial 450", 0);
    CHECK(aslant.x() == Approx(woven.x()).epsilon(0.15));
    CHECK(aslant.y() == Approx(woven.y()).epsilon(0.15));
    // Across the tool, length and width change places; at 45° it is neither.
    const auto across = box_of("glass cloth 300 twill", 90);
    CHECK(across.x() == Approx(woven.y()).epsilon(1e-6));
    CHECK(across.y() == Approx(woven.x()).epsilon(1e-6));
    REQUIRE(woven.x() > 1.05 * woven.y());
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
    const auto stiff = evaluate(job, own, quiet, Depth::stages);
    REQUIRE(stiff.part);
    CHECK(stiff.part->draped->worst()->drape.locked > 0);
    bool locks = false;
    for (const auto& c : stiff.calls) locks = locks || (c.stage == Stage::part && c.key == "cloth_locks");
    CHECK(locks);
    const auto kit = part::kit(job.part, draped, f.edge->tool->frame, shop(), 0.02, 0.025, quiet);
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
    for (const auto& net : draped.nets) flat += net.drape.flat_area * static_cast<double>(net.plies.size());
    CHECK(pieces > flat);
    CHECK(pieces < 1.5 * flat);
    // A roll too narrow for the face parts each ply, and the laps come on top.
    for (auto& r : own.reinforcements) r.roll_width = 0.2;
    const auto narrow = part::kit(job.part, draped, f.edge->tool->frame, own, 0.02, 0.025, quiet);
    CHECK(narrow.pieces.size() > kit.pieces.size());
    double joined = 0;
    for (const auto& p : narrow.pieces) joined += p.area;
    CHECK(joined > pieces);
}

namespace {

/// The small job with a doubler of many plies on its flange.
Job doubled(int plies) {
    auto job = small_job();
    job.back.kind = BackKind::none;  // whose joint would be one more place
    auto zone = shell::fresh_zone(job.shell, ZoneKind::flange);
    zone.layers.resize(1);
    zone.layers.assign(static_cast<std::size_t>(plies), zone.layers.front());
    job.shell.zones = {zone};
    return job;
}

double least_cure(const heat::CureRun& run) {
    double out = 1;
    run.each([&](const std::string&, const Wall&, const WallHistory& h) {
        for (const auto& gel : h.gels) out = std::min(out, gel.cure);
    });
    return out;
}

}  // namespace

TEST_CASE(
    "a doubler is a place of its own in each cure of the shell: the hold waits for it, and it is judged") {
    auto plain = small_job();
    plain.back.kind = BackKind::none;
    auto job = doubled(14);
    // Fast and hot enough that thickness tells.
    plain.heat.post_cure = job.heat.post_cure = {{kelvin(80), 600.0 / 3600, 4 * 3600}};
    const auto f = worked_out(job), without = worked_out(plain);
    const auto& post = cure_of(f, CureOf::post_cure);
    CHECK(cure_of(without, CureOf::post_cure).places.empty());
    REQUIRE(post.places.size() == 1);
    CHECK(post.places[0].name == "doubler on the flange");
    CHECK(post.slowest == "doubler on the flange");
    // It is that much thicker, and all wait for it.
    double thick = 0, common = 0;
    for (const auto& l : post.places[0].wall.layers) thick += l.thickness;
    for (const auto& l : post.wall.layers) common += l.thickness;
    CHECK(thick == Approx(f.shell->zones[0].whole.laminate.thickness).epsilon(1e-6));
    CHECK(common == Approx(f.shell->stack.laminate.thickness).epsilon(1e-6));
    CHECK(post.seconds > cure_of(without, CureOf::post_cure).seconds + 300);
    for (const auto& run : f.heat->cures->runs) {
        CHECK(run.cure == Approx(least_cure(run)));
        for (const auto& p : run.places) {
            CHECK(std::abs(p.history.in + p.history.reaction - p.history.held - p.history.lost) <
                  1e-6 * (p.history.in + p.history.reaction));
            CHECK(p.history.times == run.cured.history.times);
        }
    }
    // The part has no zones here.
    CHECK(cure_of(f, CureOf::part).places.empty());
}

TEST_CASE(
    "a doubler too thick for the last day goes on days of its own; one ply too thick is called by its name") {
    auto job = doubled(24);
    job.shell.resin = "epoxy, room temperature fast";
    const auto plain = [&] {
        auto without = job;
        without.shell.zones.clear();
        return worked_out(without);
    }();
    const auto f = worked_out(job);
    const auto& zone = f.shell->zones.at(0);
    REQUIRE(zone.days.size() > 2);
    CHECK(f.shell->days == 1 + static_cast<int>(f.shell->day_ends.size() + zone.days.size()));
    // By hand: as many plies a day as the limit takes, the first with what the last day left.
    double last = 0;
    const auto from = f.shell->day_ends.empty() ? 0 : f.shell->day_ends.back() + 1;
    for (auto i = from; i < f.shell->stack.laid.size(); ++i) {
        const auto kind = f.shell->stack.laid[i].layer.kind;
        last +=
            kind == LayerKind::ply || kind == LayerKind::coupling ? f.shell->stack.laid[i].ply.thickness : 0;
    }
    const double t = zone.extra.laid[0].ply.thickness;
    const auto joins =
        static_cast<std::size_t>(std::max(0.0, std::floor((f.shell->go.most - last) / t + 1e-9)));
    const auto a_day = static_cast<std::size_t>(std::floor(f.shell->go.most / t + 1e-9));
    REQUIRE(a_day > 0);
    CHECK(zone.days.front() == joins);
    CHECK(zone.days[1] == joins + a_day);
    // The plan has as many days of laying, the order as many evenings, and nothing runs hot.
    const auto evenings = std::count_if(f.shell->order.begin(), f.shell->order.end(), [](const auto& step) {
        return step.kind == shell::LayStep::Kind::day_end;
    });
    CHECK(evenings == f.shell->days - 1);
    CHECK(f.run->plan.days > plain.run->plan.days);
    CHECK(call(f, "runs_hot") == nullptr);
    CHECK(cure_of(f, CureOf::on_plug).overshoot <= job.heat.runs_past + 3);
    // One ply so thick cannot be parted.
    job.shell.zones[0].layers.resize(1);
    job.shell.zones[0].layers[0].thickness = 0.012;
    const auto thick = worked_out(job);
    const auto& run = cure_of(thick, CureOf::on_plug);
    CHECK(run.hottest == "doubler on the flange");
    REQUIRE(call(thick, "runs_hot") != nullptr);
    CHECK(call(thick, "runs_hot")->headline.find("doubler on the flange") != std::string::npos);
}

TEST_CASE("a part's zones are places of its cure, by their names, most different first") {
    auto job = fixtures::demo("pavilion-petal");
    // With a map each of them would stand there at both ends.
    job.heat.oven.map.clear();
    const auto f = worked_out(job);
    const auto& run = cure_of(f, CureOf::part);
    std::set<std::string> names;
    for (const auto& p : run.places) names.insert(p.name);
    CHECK(names.size() == run.places.size());
    std::size_t regions = 0;
    for (const auto& r : f.part->regions) regions += r.zones != 0 && r.area > 0;
    CHECK(run.places.size() == std::min(regions, heat::kMostPlaces));
    REQUIRE(!run.places.empty());
    for (const auto& name : names) CHECK(name.rfind("part, ", 0) == 0);
    CHECK(run.cure == Approx(least_cure(run)));
    // Sixteen doublers are told by the six that differ most.
    auto many = small_job();
    for (int i = 1; i <= 9; ++i) {
        auto zone = shell::fresh_zone(many.shell, ZoneKind::flange);
        zone.layers.assign(static_cast<std::size_t>(i), zone.layers.front());
        many.shell.zones.push_back(zone);
    }
    const auto told = worked_out(many);
    const auto& places = cure_of(told, CureOf::on_plug).places;
    REQUIRE(places.size() == heat::kMostPlaces);
    CHECK(places.front().name == "doubler on the flange 9");
    CHECK(places.back().name == "doubler on the flange 4");
}

TEST_CASE("thermocouples go where the hold waits, where it runs hottest, and to the oven's ends") {
    auto job = doubled(14);
    job.heat.post_cure = {{kelvin(80), 600.0 / 3600, 4 * 3600}};
    const auto f = worked_out(job);
    const auto sensors = heat::sensors_of(cure_of(f, CureOf::post_cure), job.heat);
    REQUIRE(sensors.size() >= 3);
    const auto post_slowest = cure_of(f, CureOf::post_cure).slowest;
    REQUIRE_FALSE(post_slowest.empty());
    CHECK(sensors[0].where.find("doubler on the flange: ") == 0);
    CHECK(sensors[0].for_what.find("slowest") != std::string::npos);
    CHECK(sensors.back().where.find("warm end") != std::string::npos);
    // Air is let past its programme by the band alone: what lies in the oven bears no more.
    CHECK(sensors.back().alarm == Approx(kelvin(80) + job.heat.within));
    CHECK(post_slowest == sensors[0].where.substr(0, post_slowest.size()));
    int alarms = 0;
    for (const auto& s : sensors) alarms += s.alarm.has_value();
    CHECK(alarms == 2);
    // In the room only what runs hot is read.
    const auto cold = heat::sensors_of(cure_of(f, CureOf::on_plug), job.heat);
    REQUIRE(cold.size() == 1);
    CHECK(cold[0].alarm == Approx(job.heat.room + job.heat.runs_past));
    const auto places = heat::places_of(cure_of(f, CureOf::post_cure), job.heat.within);
    REQUIRE(places.size() == 2);
    CHECK(places[0].name.empty());
    REQUIRE(places[0].near);
    REQUIRE(places[1].near);
    CHECK(*places[1].near > *places[0].near);
    CHECK(std::min(places[0].cure, places[1].cure) == Approx(cure_of(f, CureOf::post_cure).cure));
}

TEST_CASE("the soonest programme keeps its bounds in the doubler too") {
    auto job = doubled(14);
    const auto f = worked_out(job);
    const auto& run = cure_of(f, CureOf::post_cure);
    const heat::Warmed with{job.brief, *f.plug, job.shell, *f.shell, job.back, job.part, shop()};
    const auto bounds = heat::bounds_of(run, job.heat, *f.heat, with);
    const auto found = heat::fastest(run, bounds, 7 * 86400, quiet);
    REQUIRE(found.run);
    REQUIRE(found.run->places.size() == 1);
    CHECK(least_cure(*found.run) >= bounds.cure - 1e-3);
    CHECK(found.run->over_Tg <= -*bounds.under_glass + 0.2);
    // Alone, the common shell would be over no later.
    auto alone = run;
    alone.places.clear();
    const auto thin = heat::fastest(alone, bounds, 7 * 86400, quiet);
    REQUIRE(thin.run);
    CHECK(thin.run->seconds <= found.run->seconds + 301);
}
