// How thick at once: what the demos' stacks bear, what rules, and that days are kept by it.
#include <catch2/catch.hpp>

#include "core/job/evaluate.hpp"
#include "core/stages/heat/one_go.hpp"
#include "core/stages/part/findings.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using namespace fixtures;

namespace {

heat::PlugUnder under(const std::string& board, double path = 0.2) {
    return {need(shop().boards, board, "test"), path, true};
}

/// So many plies of a heavy cloth in a resin.
shell::Choices stack_of(const std::string& resin, int plies) {
    shell::Choices out;
    out.resin = resin;
    Layer ply;
    ply.material = "glass cloth 390 twill";
    out.layers.assign(static_cast<std::size_t>(plies), ply);
    return out;
}

heat::ShellGo go_of(const shell::Choices& shell, const heat::PlugUnder& plug,
                    const heat::Choices& heat = {}) {
    return heat::shell_go(heat::conditions_of(heat), {heat.runs_past}, plug, shell, shop(), quiet);
}

double most(const heat::OneGo& go) {
    REQUIRE(go.most);
    return *go.most;
}

}  // namespace

TEST_CASE("typical resins may be laid about as thick as the trade says") {
    // Its rules of thumb for soft foam, from a thin polyester to a slow infusion resin (craft: what
    // overheats).
    const auto foam = under("XPS foam 32, 50 mm");
    const std::vector<std::pair<const char*, double>> rules{{"polyester, general", 0.003},
                                                            {"epoxy, room temperature fast", 0.0015},
                                                            {"epoxy, room temperature slow", 0.006},
                                                            {"epoxy, tooling post-cured", 0.008},
                                                            {"epoxy, infusion", 0.010}};
    for (const auto& [resin, rule] : rules) {
        const double found = most(go_of(stack_of(resin, 8), foam));
        INFO(resin << " " << found);
        CHECK(found > 0.6 * rule);
        CHECK(found < 1.7 * rule);
    }
}

TEST_CASE("what carries heat off, cools or slows lets it be laid thicker") {
    const auto slow = stack_of("epoxy, room temperature slow", 8);
    const double plain = most(go_of(slow, under("XPS foam 32, 50 mm")));
    CHECK(most(go_of(slow, under("MDF 18 mm"))) > 1.1 * plain);
    CHECK(most(go_of(stack_of("epoxy, tooling post-cured", 8), under("XPS foam 32, 50 mm"))) > 1.1 * plain);
    heat::Choices warm;
    warm.room = 303.15;
    CHECK(most(go_of(slow, under("XPS foam 32, 50 mm"), warm)) < 0.9 * plain);
    heat::Choices blown;
    blown.transfer = 60;
    CHECK(most(go_of(slow, under("XPS foam 32, 50 mm"), blown)) > plain);
    heat::Choices bold;
    bold.runs_past = 60;
    CHECK(most(go_of(slow, under("MDF 18 mm"), bold)) > most(go_of(slow, under("MDF 18 mm"))));
    // How many plies the stack has is not what decides how thick it may be.
    CHECK(most(go_of(stack_of("epoxy, room temperature slow", 3), under("XPS foam 32, 50 mm"))) ==
          Approx(plain).epsilon(0.02));
}

TEST_CASE("the plug's own heat rules where it bears less") {
    auto soft = under("MDF 18 mm");
    soft.board.top_temperature = 273.15 + 32;
    const auto go = go_of(stack_of("epoxy, room temperature slow", 8), soft);
    CHECK(go.limits.under == soft.board.top_temperature);
    CHECK(most(go) < most(go_of(stack_of("epoxy, room temperature slow", 8), under("MDF 18 mm"))));
    const auto limit = heat::go_limit(go, need(shop().resins, "epoxy, room temperature slow", "test"));
    CHECK(limit.most == *go.most);
    CHECK(limit.why.find("MDF") != std::string::npos);
    CHECK(worded(limit.why).find("past 32 °C") != std::string::npos);
}

TEST_CASE("a data sheet's figure rules where it is less, a typical one never") {
    auto resin = need(shop().resins, "epoxy, room temperature slow", "test");
    heat::OneGo go;
    go.curve = {{0.004, 300, 0, 0, {}}, {0.02, 400, 0, 0, {}}};
    go.limits.laid = 323.15;
    go.most = 0.007;
    resin.day_limit = 0.003;
    CHECK(heat::go_limit(go, resin).most == 0.007);
    CHECK(worded(heat::go_limit(go, resin).why).find("50 °C") != std::string::npos);
    for (const auto kind : {OriginKind::data_sheet, OriginKind::measured}) {
        resin.origins["day_limit_m"].kind = kind;
        CHECK(heat::go_limit(go, resin).most == 0.003);
        resin.day_limit = 0.009;
        CHECK(heat::go_limit(go, resin).most == 0.007);
        resin.day_limit = 0.003;
    }
    // Where heat says nothing, the entry does.
    resin.origins.clear();
    CHECK(heat::go_limit(heat::OneGo{}, resin).most == 0.003);
    go.most.reset();
    CHECK(heat::go_limit(go, resin).most == 0.003);
    // Nor does it decide where nothing that was tried is too hot.
    go.most = go.curve.back().thickness;
    CHECK(heat::go_limit(go, resin).most == 0.003);
    CHECK(GoLimit{0.004, ""}.goes(0.012) == 3);
    CHECK(GoLimit{0.004, ""}.goes(0.0121) == 4);
    CHECK(GoLimit{0.004, ""}.goes(0) == 1);
}

TEST_CASE("a plug that is not known leaves the shell its entry's figure and no curve") {
    heat::PlugUnder unknown;
    const auto go = go_of(stack_of("epoxy, room temperature slow", 8), unknown);
    CHECK(go.curve.empty());
    CHECK_FALSE(go.most);
    auto job = demo("radar-dome");
    job.plug.board = "no such board";
    job.plug.route = Route::slabs;
    const auto f = worked_out(job);
    REQUIRE(f.shell);
    CHECK(f.shell->go.most == f.shell->resin.day_limit);
    // A stack of nothing wet neither.
    shell::Choices coats;
    coats.layers = {{LayerKind::surface_coat, "polyester tooling gelcoat", 0, 0}};
    CHECK(go_of(coats, under("MDF 18 mm")).curve.empty());
}

TEST_CASE("every demo's days are kept by its own heat, and its hottest day by the limit") {
    for (const std::string name : {"cello-case", "cello-case-whole", "radar-dome", "pavilion-petal"}) {
        const auto job = demo(name);
        const auto f = worked_out(job);
        REQUIRE(f.shell);
        REQUIRE(f.heat);
        INFO(name);
        const auto& s = *f.shell;
        double today = 0;
        int plies = 0;
        for (std::size_t i = 0; i < s.stack.laid.size(); ++i) {
            if (s.stack.laid[i].layer.kind == LayerKind::ply) {
                today += s.stack.laid[i].ply.thickness;
                ++plies;
                // One ply too thick is called by itself.
                if (plies > 1) CHECK(today <= s.go.most + 1e-9);
            }
            if (std::find(s.day_ends.begin(), s.day_ends.end(), i) == s.day_ends.end()) continue;
            today = 0;
            plies = 0;
        }
        const auto& go = f.heat->shell_go;
        REQUIRE(go.curve.size() > 5);
        CHECK(s.go == heat::go_limit(go, s.resin));
        CHECK(go.curve.front().thickness == Approx(heat::kThinnest));
        CHECK(go.curve.back().thickness == Approx(heat::kThickest));
        const auto* run = f.heat->cures->find(CureOf::on_plug);
        REQUIRE(run != nullptr);
        CHECK(run->overshoot <= job.heat.runs_past + 5);
        CHECK(fixtures::call(f, "runs_hot") == nullptr);
        // Doublers too: their plies go on days of their own where the last day's would be too many.
        for (const auto& zone : s.zones) {
            double day = today;
            int on_it = plies;
            for (std::size_t i = 0; i < zone.extra.laid.size(); ++i) {
                if (std::find(zone.days.begin(), zone.days.end(), i) != zone.days.end()) {
                    day = 0;
                    on_it = 0;
                }
                day += zone.extra.laid[i].ply.thickness;
                if (++on_it > 1) CHECK(day <= s.go.most + 1e-9);
            }
        }
        CHECK(value_of(f.heat->figures, "go_shell") == Approx(go.most.value_or(0)));
    }
}

TEST_CASE("a part too thick for one go is told so with what its own heat does") {
    auto job = demo("radar-dome");
    job.part.how = LayUp::hand;
    job.part.resin = "polyester, general";
    Layer ply;
    ply.material = "glass cloth 390 twill";
    job.part.layers.assign(40, ply);
    const auto called = [&] {
        const auto f = worked_out(job);
        REQUIRE(f.part);
        const auto call = std::find_if(f.calls.begin(), f.calls.end(), [](const Call& c) {
            return c.stage == Stage::part && c.key == "exotherm";
        });
        return call == f.calls.end() ? std::string() : worded(call->headline + ". " + call->why);
    };
    const auto said = called();
    CHECK(said.find("is the most") != std::string::npos);
    CHECK(said.find("its own heat would take it past") != std::string::npos);
    job.part.layers.resize(2);
    CHECK(called().empty());
}
