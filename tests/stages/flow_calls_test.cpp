// What an infusion says, takes and shows: its calls with their fixes, its work and goods, its sheets.
#include "core/base/units.hpp"
#include "core/stages/bag/front.hpp"
#include "tests/stages/resin_strip.hpp"

using namespace jig;
using namespace fixtures::resin;
using bag::FlowGround;
using bag::front_at;
using bag::front_sheet;
using bag::front_times;
using bag::opening_table;
using fixtures::call;
using fixtures::worked_out;

TEST_CASE("calls of the infusion come with what provokes them, and their fixes mend them") {
    struct Rule {
        const char* key;
        Severity severity;
        bool fixed;
        void (*provoke)(Job&);
    };
    const auto port = [](PortUse use, double along, double across) {
        Port p;
        p.use = use;
        p.along = along;
        p.across = across;
        return p;
    };
    static const auto place = port;
    const auto calm = worked_out(infused());
    REQUIRE(calm.flow);
    for (const Rule& rule : {
             Rule{"shut_core", Severity::stop, true, [](Job& j) { bore(j, 0); }},
             Rule{"no_drive", Severity::stop, true,
                  [](Job& j) {
                      j.bag.infusion.below = 5;
                      j.bag.wanted = 60000;
                  }},
             Rule{"tall", Severity::caution, false,
                  [](Job& j) {
                      j.bag.wanted = 98500;
                      j.bag.infusion.below = 0;
                  }},
             Rule{"dry", Severity::stop, true,
                  [](Job& j) {
                      // A ring of resin whose vent lies far off its middle.
                      j.bag.infusion.plan = InfusionPlan::own;
                      Port ring;
                      ring.kind = PortKind::rim;
                      j.bag.infusion.ports = {ring, place(PortUse::vent, 0.12, 0.05)};
                  }},
             Rule{"gels_first", Severity::stop, true,
                  [](Job& j) {
                      j.bag.infusion.medium = false;
                      j.bag.infusion.lets = 0.02;
                  }},
             Rule{"gel_margin", Severity::caution, false,
                  [](Job& j) {
                      // Mixed so long ago that it is full just before it gels: between too soon and never.
                      double soon = 0, never = *worked_out(j).flow->gel + j.bag.infusion.waited;
                      for (int i = 0; i < 30; ++i) {
                          j.bag.infusion.waited = (soon + never) / 2;
                          const auto f = worked_out(j);
                          if (call(f, "gel_margin") != nullptr) return;
                          (f.flow->filling.fill ? soon : never) = j.bag.infusion.waited;
                      }
                  }},
             Rule{"vent_early", Severity::caution, false,
                  [](Job& j) {
                      j.bag.infusion.plan = InfusionPlan::own;
                      j.bag.infusion.medium = false;
                      j.bag.infusion.ports = {place(PortUse::feed, -0.05, 0), place(PortUse::vent, 0.0, 0)};
                  }},
             Rule{"no_brake", Severity::caution, true, [](Job& j) { j.bag.infusion.brake = 0; }},
             Rule{"runs_dry", Severity::caution, true,
                  [](Job& j) {
                      // Part's account has all that a bag keeps: so dry a ratio is the maker's own.
                      j.part.pot_loss = j.part.waste = 0;
                      j.part.resin_by = ResinBy::ratio;
                      j.part.ratio = 0.1;
                      std::erase_if(j.part.layers, [](const Layer& l) { return l.kind == LayerKind::core; });
                  }},
             Rule{"feed_waits", Severity::caution, false,
                  [](Job& j) {
                      j.bag.infusion.plan = InfusionPlan::own;
                      Port ring;
                      ring.kind = PortKind::rim;
                      ring.use = PortUse::vent;
                      auto late = place(PortUse::feed, 0.1, 0);
                      late.opens = PortOpens::clock;
                      late.at = 9e5;
                      j.bag.infusion.ports = {place(PortUse::feed, 0, 0), late, ring};
                  }},
             Rule{"pot_old", Severity::caution, true, [](Job& j) { j.bag.infusion.waited = 10000; }},
             Rule{"pots", Severity::caution, true, [](Job& j) { j.bag.infusion.pot = 0.2; }},
             // A cup at a time: more than anybody writes down, and no fix by what was written down.
             Rule{"pots", Severity::caution, false, [](Job& j) { j.bag.infusion.pot = 0.004; }},
             Rule{"thin_hose", Severity::note, true, [](Job& j) { j.bag.infusion.bore = 0.003; }},
             // So thin that it gels before it is full.
             Rule{"thin_hose", Severity::caution, true,
                  [](Job& j) {
                      j.bag.infusion.bore = 0.002;
                      j.bag.infusion.hose = 20;
                  }},
             Rule{"uneven", Severity::caution, true,
                  [](Job& j) { j.bag.infusion.when_full = WhenFull::clamp; }},
             Rule{"gelled", Severity::stop, true, [](Job& j) { j.bag.infusion.waited = 1e6; }},
             Rule{"hoses", Severity::stop, true, [](Job& j) { j.bag.infusion.plan = InfusionPlan::own; }},
             Rule{"fronts_differ", Severity::note, true,
                  [](Job& j) {
                      // Everywhere 1.6 times as late as it should be.
                      const auto now = worked_out(j);
                      const FlowGround ground(*now.flow->face, now.flow->frame);
                      for (const auto& at : {Point2(0.1, 0.02), Point2(0.1, -0.02), Point2(-0.1, 0.02)})
                          j.bag.infusion.seen.push_back(
                              {at.x(), at.y(), 1.6 * *now.flow->filling.arrival[ground.nearest(at)]});
                  }},
             Rule{"fronts_differ", Severity::note, false,
                  [](Job& j) {
                      // A day late is no preform, and nothing is offered for it.
                      j.bag.infusion.seen = {{0.1, 0.02, 9000}, {0.1, -0.02, 9000}, {-0.1, 0.02, 9000}};
                  }},
         }) {
        INFO(rule.key);
        CHECK(call(calm, rule.key) == nullptr);
        auto job = infused();
        rule.provoke(job);
        const auto f = worked_out(job);
        const auto* c = call(f, rule.key);
        REQUIRE(c != nullptr);
        CHECK(c->stage == Stage::bag);
        CHECK(c->severity == rule.severity);
        CHECK(c->fix.has_value() == rule.fixed);
        if (c->fix) {
            const auto after = worked_out(patched(job, c->fix->patch));
            const auto* left = call(after, rule.key);
            INFO((left != nullptr ? left->headline : ""));
            // A dry place may need a second vent: each makes it less.
            // So may hoses that leave nothing to tell by what they should be: then it fills in time at least.
            if (std::string(rule.key) == "dry" && left != nullptr) {
                CHECK(after.flow->filling.filled > f.flow->filling.filled);
            } else if (std::string(rule.key) == "thin_hose" && left != nullptr) {
                CHECK(left->severity < c->severity);
                CHECK(after.flow->filling.fill);
                REQUIRE(left->fix);
                CHECK(call(worked_out(patched(patched(job, c->fix->patch), left->fix->patch)), rule.key) ==
                      nullptr);
            } else {
                CHECK(left == nullptr);
            }
        }
        // Whatever the hoses do, days and cost are still known.
        CHECK(f.run != nullptr);
    }
}

TEST_CASE("what a day does not fill, and steps that would not settle, are said with their figures") {
    auto asked = plain();
    // Tight as felt under a press: L² = 2KΔp·t/φμ leaves it at a fifth of its way after a day.
    const double K = kPhi * kMu * 0.2 * 0.2 / (2 * kDrop * 86400);
    asked.preform[0].flow.K1 = asked.preform[0].flow.K2 = K;
    auto f = follow(asked, strip(1, 0.2, 100));
    CHECK_FALSE(f.filling.fill);
    CHECK(f.filling.filled == Approx(0.2).epsilon(0.02));
    const auto said = [&](const char* key) {
        const auto calls = bag::flow_calls(f, asked.infusion, {part::Choices{}, 1});
        const auto found =
            std::find_if(calls.begin(), calls.end(), [&](const Call& c) { return c.key == key; });
        return found == calls.end() ? std::optional<Call>() : std::optional(*found);
    };
    const auto never = said("never_full");
    REQUIRE(never);
    CHECK(never->severity == Severity::stop);
    CHECK(never->headline.find("20 %") != std::string::npos);
    // A medium is offered where none lies.
    CHECK(never->fix);
    CHECK_FALSE(said("gels_first"));
    CHECK_FALSE(said("unsettled"));
    f.filling.unsettled = 3;
    const auto unsettled = said("unsettled");
    REQUIRE(unsettled);
    CHECK(unsettled->severity == Severity::note);
    CHECK(unsettled->headline.find("3 of " + std::to_string(f.filling.steps)) == 0);
}

TEST_CASE("a small dry place is told as one, and not as resin that gels before it is full") {
    const auto asked = plain();
    auto f = follow(asked, strip(1, 0.2, 60));
    REQUIRE(f.filling.fill);
    f.gel = 9000;
    const auto keys = [&] {
        std::map<std::string, Severity> out;
        for (const auto& c : bag::flow_calls(f, asked.infusion, {part::Choices{}, 1}))
            out[c.key] = c.severity;
        return out;
    };
    CHECK(keys().count("dry") == 0);
    f.filling.fill.reset();
    // Half a square centimetre of 0.2 m², ten, and ten with a third of the strip that the resin never
    // reached.
    f.filling.dry = {{Point(0.1, 0, 0), 5e-5}};
    f.filling.filled = 0.9997;
    auto said = keys();
    CHECK(said.count("gels_first") == 0);
    REQUIRE(said.count("dry") == 1);
    CHECK(said["dry"] == Severity::caution);
    f.filling.dry[0].area = 1e-3;
    f.filling.filled = 0.995;
    said = keys();
    CHECK(said.count("gels_first") == 0);
    CHECK(said["dry"] == Severity::stop);
    f.filling.filled = 0.66;
    said = keys();
    CHECK(said["dry"] == Severity::stop);
    CHECK(said["gels_first"] == Severity::stop);
    // Of a part as small as a hand half a square centimetre is much.
    f.filling.filled = 0.9997;
    f.filling.dry[0].area = 5e-5;
    f.area = 0.01;
    CHECK(keys()["dry"] == Severity::stop);
}

TEST_CASE("what the infusion takes is bought and planned: line, medium, hands by the hose") {
    const auto job = infused();
    const auto f = worked_out(job);
    REQUIRE(f.flow);
    REQUIRE(f.flow->filling.fill);
    const auto bought = [](const Findings& of, const std::string& what) {
        for (const auto& m : of.run->materials) {
            if (m.stage == Stage::bag && m.what == what) return m.amount;
        }
        return 0.0;
    };
    CHECK(bought(f, "spiral feed line") == Approx(1.1 * f.flow->line()).epsilon(0.02));
    CHECK(bought(f, "flow medium") > 0);
    auto bare = job;
    bare.bag.infusion.medium = false;
    const auto g = worked_out(bare);
    CHECK(bought(g, "flow medium") == 0);
    CHECK(*g.flow->filling.fill > 3 * *f.flow->filling.fill);
    const auto step = [](const Findings& of) {
        for (const auto& t : of.run->tasks) {
            if (t.name.find("let the resin in") != std::string::npos) return t.work;
        }
        return -1.0;
    };
    CHECK(step(f) == Approx(*f.flow->filling.fill).epsilon(0.01));
    // A part that is not infused has none of it.
    auto bagged = job;
    bagged.part.how = LayUp::bagged;
    const auto none = worked_out(bagged);
    CHECK(none.flow == nullptr);
    CHECK(step(none) == -1);
    CHECK(bought(none, "spiral feed line") == 0);
}

TEST_CASE("the front's sheet and the table of hoses tell the same as the figures") {
    const auto f = worked_out(fixtures::demo("radar-dome"));
    REQUIRE(f.flow);
    const auto times = front_times(*f.flow, 7);
    REQUIRE(times.size() > 2);
    CHECK(times.size() <= 7);
    CHECK(times.back() < *f.flow->filling.fill * 1.01);
    // Every place of a front's line is reached at its time.
    const FlowGround ground(*f.flow->face, f.flow->frame);
    const double edge = f.flow->edge;
    for (const auto& line : front_at(*f.flow, times[1])) {
        for (const auto& p : line) {
            double low = 1e300, high = 0;
            for (std::size_t i = 0; i < f.flow->face->points.size(); ++i) {
                if ((f.flow->face->points[i] - p).norm() > 1.2 * edge) continue;
                low = std::min(low, *f.flow->filling.arrival[i]);
                high = std::max(high, *f.flow->filling.arrival[i]);
            }
            CHECK(low <= times[1]);
            CHECK(high >= times[1]);
        }
    }
    const auto sheet = front_sheet(*f.flow, {});
    REQUIRE(sheet.sheets.size() == 1);
    // All on the sheet, the rim first.
    CHECK(sheet.sheets[0].pieces.size() == 1 + f.flow->ports.size() + front_times(*f.flow, 8).size());
    for (const auto& piece : sheet.sheets[0].pieces) {
        for (const auto& line : piece.engraved) {
            for (const auto& p : line) {
                CHECK(p.minCoeff() >= 0);
                CHECK(p.x() <= sheet.rules.length);
                CHECK(p.y() <= sheet.rules.width);
            }
        }
    }
    const auto table = opening_table(*f.flow, {});
    CHECK(std::count(table.begin(), table.end(), '\n') == 1 + static_cast<int>(f.flow->ports.size()));
    CHECK_THAT(table, Catch::Contains("feed 1") && Catch::Contains("at once") && Catch::Contains("vent 1"));
}
