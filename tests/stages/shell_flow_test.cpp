// An infused shell: resin up the plug and over the flange, doublers, its own hoses, calls, goods and days.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "core/job/job.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/run/findings.hpp"
#include "core/stages/shell/findings.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/one_sheet.hpp"

namespace jig::bag {
namespace {

using fixtures::call;
using fixtures::worked_out;

Job infused_shell() {
    auto job = fixtures::small_job();
    job.shell.how = LayUp::infused;
    job.shell.resin = "epoxy, infusion";
    job.shell.layers.assign(4, {LayerKind::ply, "glass cloth 280 twill", 0, 0});
    job.shell.zones.clear();
    return job;
}

/// A strip 1 m long whose one end lies `rise` lower on the plug than the other, fed at that end.
FlowAsked slope(Infused of, double rise) {
    auto a = fixtures::one_sheet(1e-10, 0.5, 0.003, 9e4);
    a.of = of;
    const double half = std::sqrt(1 - rise * rise) / 2;
    for (const auto use : {PortUse::feed, PortUse::vent}) {
        Port p;
        p.use = use;
        p.kind = PortKind::rim;
        const double at = use == PortUse::feed ? -half : half;
        p.along = at - 1e-4;
        p.to_along = at + 1e-4;
        a.infusion.ports.push_back(p);
    }
    return a;
}

double figure_of(const jig::Findings& f, const std::string& key) {
    for (const auto& figure : f.figures(Stage::bag)) {
        if (figure.key == key) return figure.value;
    }
    return -1;
}

/// Without what the shop buys over.
double bought(const jig::Findings& f, Ledger ledger, Stage stage, const std::string& what) {
    double sum = 0;
    for (const auto& m : f.run->materials)
        sum += m.ledger == ledger && m.stage == stage && m.what == what ? m.amount / (1 + m.waste) : 0;
    return sum;
}

}  // namespace

TEST_CASE("resin climbs a shell on its plug where it falls into the part in its mould") {
    const double rise = 0.8, fall = FlowAsked{}.density * kGravity * rise, drop = 9e4;
    auto mesh = shapes::plate(1, 0.2, 60, 12);
    const double flat = std::sqrt(1 - rise * rise);
    for (auto& p : mesh.points) p = Point((p.x() - 0.5) * flat, p.y() - 0.1, p.x() * rise);
    const Shared<TriangleMesh> face(std::make_shared<const TriangleMesh>(std::move(mesh)));
    const auto fills = [&](Infused of) {
        const auto f = flow(slope(of, rise), face, fixtures::kLevel, {}, true, quiet);
        INFO(f.fault);
        REQUIRE(f.filling.fill);
        CHECK(f.of == of);
        CHECK(f.rise == Approx(fall));
        return *f.filling.fill;
    };
    // φμ/K·∫ s ds/P(s): the pot stands level with the top, so that what lies lower has its head, and the
    // front loses it again as it climbs.
    const double rate = 0.5 * 0.25 / 1e-10, high = drop + fall;
    const double up = rate * (-1 / fall - high / (fall * fall) * std::log(1 - fall / high));
    const double down = rate * (1 / fall - drop / (fall * fall) * std::log(1 + fall / drop));
    CHECK(fills(Infused::shell) == Approx(up).epsilon(0.01));
    CHECK(fills(Infused::part) == Approx(down).epsilon(0.01));
    REQUIRE(down < 0.98 * up);
}

TEST_CASE("the flange is filled with the shell, and doublers hold as much more as they weigh") {
    auto job = infused_shell();
    job.bag.shell_infusion.medium = false;
    const auto f = worked_out(job);
    REQUIRE(f.flow);
    REQUIRE(f.flow->filling.fill);
    const auto& tool = *f.edge->tool;
    double moulded = 0;
    const auto face = edge::moulded_face(tool);
    for (std::size_t k = 0; k < face.triangles.size(); ++k) moulded += face.area_vector2(k).norm() / 2;
    const double whole = moulded + tool.rimmed.flange_area;
    CHECK(f.flow->area == Approx(whole).epsilon(0.02));
    // What the laminate keeps is what its own sums ask for.
    CHECK(f.flow->filling.held == Approx(f.shell->stack.mixed * f.flow->area).epsilon(1e-3));
    auto doubled = job;
    doubled.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::flange)};
    const auto g = worked_out(doubled);
    const double more = g.shell->zones[0].extra.mixed * tool.rimmed.flange_area;
    REQUIRE(more > 0.05 * f.flow->filling.held);
    CHECK(g.flow->filling.held - f.flow->filling.held == Approx(more).epsilon(0.03));
    // One that is painted, about the middle of the face.
    doubled.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::painted)};
    std::size_t middle = 0;
    const auto& mesh = f.shape->mesh;
    for (std::size_t k = 0; k < mesh.triangles.size(); ++k) {
        if (mesh.centre(k).head<2>().norm() < mesh.centre(middle).head<2>().norm()) middle = k;
    }
    const Point at = mesh.centre(middle), n = mesh.area_vector2(middle).normalized();
    doubled.shell.zones[0].painted = {{{at.x(), at.y(), at.z()}, {n.x(), n.y(), n.z()}, 0.12}};
    const auto p = worked_out(doubled);
    const double painted = p.shell->zones[0].extra.mixed * p.shell->zones[0].area;
    REQUIRE(painted > 0);
    CHECK(p.flow->filling.held - f.flow->filling.held == Approx(painted).epsilon(0.15));
    // Strips along corners are left out, as is said.
    doubled.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::corners)};
    CHECK(worked_out(doubled).flow->filling.held == Approx(f.flow->filling.held).epsilon(1e-9));
}

TEST_CASE("of part and shell that are both infused one is shown, and both are judged") {
    auto job = infused_shell();
    const auto alone = worked_out(job);
    CHECK(infused_shown(job) == Infused::shell);
    CHECK(figure_of(alone, "shell_fill") > 0);
    CHECK(figure_of(alone, "fill") == -1);
    CHECK_FALSE(alone.other_flow);
    job.part.how = LayUp::infused;
    job.part.resin = "epoxy, infusion";
    for (auto& l : job.part.layers) l.cut.hole = 0.003;
    job.bag.infusion.plan = InfusionPlan::ring;
    JobBoard board;
    const auto look = [&](Infused shows) {
        job.bag.shows = shows;
        return board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet);
    };
    const auto part = look(Infused::part), shell = look(Infused::shell);
    REQUIRE(part.flow);
    REQUIRE(part.other_flow);
    CHECK(part.flow->of == Infused::part);
    CHECK(part.other_flow->of == Infused::shell);
    CHECK(shell.flow->of == Infused::shell);
    // The same two, whichever is looked at.
    CHECK(part.flow->filling.fill == shell.other_flow->filling.fill);
    CHECK(part.other_flow->filling.fill == shell.flow->filling.fill);
    CHECK(figure_of(part, "fill") == figure_of(shell, "fill"));
    CHECK(figure_of(part, "shell_fill") == Approx(*alone.flow->filling.fill).epsilon(1e-9));
    CHECK(part.figures(Stage::bag).front().key == "fill");
    CHECK(shell.figures(Stage::bag).front().key == "shell_fill");
    CHECK(calls_to_json(part.calls) == calls_to_json(shell.calls));
    // Plans are sought for what is shown.
    const auto sheet = board.lay(job, fixtures::shared_shop());
    const auto found = board.seek_layout(sheet, quiet);
    REQUIRE(found->tried.size() > 3);
    REQUIRE(board.work_out(sheet, Depth::stages, quiet).layouts);
    CHECK(*board.work_out(sheet, Depth::stages, quiet).layouts == *found);
    CHECK_FALSE(look(Infused::part).layouts);
    CHECK_THROWS_AS(board.seek_race(sheet, quiet), InputError);
    // A squeezed part is not infused, whatever its word says; its mould may be.
    job.brief.process = Process::squeeze;
    job.bag.shows = Infused::part;
    CHECK_FALSE(infuses(job, Infused::part));
    CHECK(infused_shown(job) == Infused::shell);
    REQUIRE(worked_out(job).flow);
    CHECK(worked_out(job).flow->of == Infused::shell);
}

TEST_CASE("an infused shell is laid dry, then filled; its medium and hoses are bought in place of breather") {
    auto job = infused_shell();
    const auto f = worked_out(job);
    double plies = 0, filled = 0;
    for (const auto& step : f.shell->order) {
        if (step.kind == shell::LayStep::Kind::ply) CHECK(step.resin == 0);
        plies += step.kind == shell::LayStep::Kind::ply;
        filled += step.kind == shell::LayStep::Kind::fill ? step.resin : 0;
    }
    CHECK(plies == 4);
    CHECK(f.shell->order.back().kind == shell::LayStep::Kind::fill);
    CHECK(filled == Approx(f.shell->stack.mixed * f.shell->area * (1 + job.shell.waste)));
    CHECK(f.shell->slowest_ply == 0);
    CHECK(bought(f, Ledger::once, Stage::shell, "breather") == 0);
    CHECK(bought(f, Ledger::once, Stage::shell, "flow medium") == Approx(f.shell->area));
    CHECK(bought(f, Ledger::once, Stage::shell, "spiral feed line") ==
          Approx(f.flow->line() * std::max(1.0, f.shell->area / f.flow->area)));
    CHECK(bought(f, Ledger::once, Stage::shell, "vacuum hose") == Approx(job.bag.hoses * job.bag.hose));
    const auto begins = [&](const char* words) {
        for (const auto& b : f.run->plan.bookings) {
            if (f.run->tasks[b.task].name.find(words) != std::string::npos) return b.from;
        }
        return -1.0;
    };
    REQUIRE(begins("bag the shell") >= 0);
    CHECK(begins("let the resin into the shell") > begins("bag the shell"));
    // Without a medium none is bought; wetted by hand it is as it was.
    job.bag.shell_infusion.medium = false;
    CHECK(bought(worked_out(job), Ledger::once, Stage::shell, "flow medium") == 0);
    job.shell.how = LayUp::bagged;
    const auto g = worked_out(job);
    CHECK(bought(g, Ledger::once, Stage::shell, "breather") > 0);
    CHECK(bought(g, Ledger::once, Stage::shell, "spiral feed line") == 0);
    CHECK_FALSE(g.flow);
    CHECK(g.shell->order.back().kind == shell::LayStep::Kind::ply);
}

TEST_CASE("a shell that fills in several goes is bagged for each, and says that it is followed as one") {
    auto job = infused_shell();
    job.shell.layers.assign(40, {LayerKind::ply, "glass cloth 600 twill", 0, 0});
    const auto f = worked_out(job);
    REQUIRE(f.shell->days > 1);
    REQUIRE(call(f, "shell_goes") != nullptr);
    CHECK(std::count_if(f.shell->order.begin(), f.shell->order.end(),
                        [](const auto& s) { return s.kind == shell::LayStep::Kind::fill; }) == f.shell->days);
    CHECK(bought(f, Ledger::once, Stage::shell, "flow medium") == Approx(f.shell->days * f.shell->area));
    CHECK(call(worked_out(infused_shell()), "shell_goes") == nullptr);
}

TEST_CASE("what is wrong with a shell's infusion is called by its name and mended in its own choices") {
    const auto mended = [](const Job& job, const std::string& key) {
        const auto f = worked_out(job);
        const auto* found = call(f, key);
        INFO(key);
        REQUIRE(found != nullptr);
        CHECK(found->stage == Stage::bag);
        CHECK(found->headline.rfind("Shell: ", 0) == 0);
        REQUIRE(found->fix);
        const auto after = patched(job, found->fix->patch);
        // Of the part nothing is changed.
        CHECK(after.bag.infusion == job.bag.infusion);
        CHECK(after.part == job.part);
        CHECK(call(worked_out(after), key) == nullptr);
    };
    auto job = infused_shell();
    job.bag.shell_infusion.waited = 1e6;
    mended(job, "shell_gelled");
    job = infused_shell();
    job.shell.waste = 0;
    mended(job, "shell_runs_dry");
    // What hoses and medium keep is mixed and bought, of an infused shell alone.
    auto more = job;
    more.shell.pot_loss = 0.7;
    CHECK(worked_out(more).shell->resin_mass == Approx(worked_out(job).shell->resin_mass + 0.7));
    const auto resin = [](const Job& of) {
        double sum = 0;
        const auto f = worked_out(of);
        for (const auto& m : f.run->materials)
            sum += m.stage == Stage::shell && m.what == "epoxy, infusion, mixed" ? m.amount : 0;
        return sum;
    };
    CHECK(resin(more) == Approx(resin(job) + 0.7));
    job.shell.how = more.shell.how = LayUp::bagged;
    CHECK(worked_out(more).shell->resin_mass == Approx(worked_out(job).shell->resin_mass));
    job = infused_shell();
    job.bag.shell_infusion.pot = 0.3;
    mended(job, "shell_pots");
    job = infused_shell();
    job.bag.shell_infusion.brake = 0;
    mended(job, "shell_no_brake");
    job = infused_shell();
    job.shell.layers.insert(job.shell.layers.begin() + 2, {LayerKind::core, "PVC foam 75, 10 mm", 0, 0});
    mended(job, "shell_shut_core");
    // Hoses that lie nowhere.
    job = infused_shell();
    job.bag.shell_infusion.plan = InfusionPlan::own;
    mended(job, "shell_hoses");
}

TEST_CASE("a job file keeps both infusions and which is shown, and older files have neither") {
    auto job = infused_shell();
    job.bag.shows = Infused::shell;
    job.bag.shell_infusion.plan = InfusionPlan::end;
    job.bag.shell_infusion.lets = 1.4;
    const auto json = job_to_json(job);
    CHECK(json["bag"]["shows"] == "shell");
    CHECK(job_from_json(json, "test") == job);
    auto old = json;
    old["bag"].erase("shell_infusion");
    old["bag"].erase("shows");
    const auto read = job_from_json(old, "test");
    CHECK(read.bag.shell_infusion == Infusion{});
    CHECK(read.bag.shows == Infused::part);
    auto wrong = json;
    wrong["bag"]["shows"] = "plug";
    CHECK_THROWS_AS(job_from_json(wrong, "test"), InputError);
}

}  // namespace jig::bag
