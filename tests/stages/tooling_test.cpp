// Plug, edge, shell, back, release, heat, part, run and log against figures worked by hand.
#include <catch2/catch.hpp>

#include "core/science/laminate/plate.hpp"
#include "core/stages/cautions.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

/// A round, straight-sided block of radius 0.3 and height 0.2 as the shape.
Job block() {
    auto job = small_job();
    job.shape.tray.outline.clear();
    for (int i = 0; i < 16; ++i)
        job.shape.tray.outline.push_back(
            {0.3 * std::cos(2 * kPi * i / 16), 0.3 * std::sin(2 * kPi * i / 16)});
    job.shape.tray.depth = 0.2;
    job.shape.tray.draft = 0;
    job.shape.tray.edge_radius = 0;
    job.shape.tray.crown = 0;
    job.shape.tray.facet = 0.01;
    return job;
}

}  // namespace

TEST_CASE("the plug of a straight block is its slabs") {
    auto job = block();
    job.plug.board = "XPS foam 32, 50 mm";
    job.plug.margin = 0;
    job.plug.waste = 0.3;
    const auto f = worked_out(job);
    CHECK(f.plug->plans.front().slabs.stack.slabs.size() == 4);
    const double area = kPi * 0.09;
    CHECK(f.plug->mass == Approx(area * 0.2 * 32).epsilon(3e-3));
    CHECK(f.plug->plans.front().slabs.sheets == static_cast<int>(std::ceil(4 * area / (1.5 * 0.7))));
    CHECK(f.plug->plans.front().slabs.cut_length == Approx(4 * 2 * kPi * 0.3).epsilon(3e-3));
    // Straight walls drag.
    CHECK(f.split->map.drags == Approx(2 * kPi * 0.3 * 0.2).epsilon(3e-3));
    CHECK(call(f, "drags") != nullptr);
}

TEST_CASE("the flange is the rim grown by its width, and the bag's tape lies in its land") {
    auto job = block();
    job.edge = {};
    job.edge.trim = 0.02;
    job.edge.channel = 0.01;
    job.edge.tape_land = 0.03;
    job.edge.grip = 0.02;
    const auto f = worked_out(job);
    const auto ring = [](double a, double b) { return kPi * (b * b - a * a); };
    CHECK(f.edge->width == Approx(0.08));
    CHECK(f.edge->area == Approx(ring(0.3, 0.38)).epsilon(3e-3));
    CHECK(f.edge->tape_land_area == Approx(ring(0.33, 0.36)).epsilon(5e-3));
    CHECK(f.edge->tape_land_length == Approx(2 * kPi * 0.345).epsilon(3e-3));
    CHECK(f.edge->bolts == 0);
    job.brief.process = Process::squeeze;
    job.edge.bolt_pitch = 0.1;
    CHECK(worked_out(job).edge->bolts == static_cast<int>(std::ceil(2 * kPi * 0.37 / 0.1)));
}

TEST_CASE("the shell weighs its layers over shell and flange and needs its resin") {
    const auto job = block();
    const auto f = worked_out(job);
    const double area = 2 * kPi * 0.3 * 0.2 + kPi * 0.09 + f.edge->area;
    CHECK(f.shell->area == Approx(area).epsilon(3e-3));
    double mass = 0, resin = 0;
    for (const auto& l : f.shell->stack.laid) {
        mass += l.mass();
        resin += l.resin;
    }
    CHECK(f.shell->mass == Approx(mass * f.shell->area));
    CHECK(f.shell->resin_mass == Approx(1.15 * resin * f.shell->area));
    CHECK(f.shell->stack.laminate.areal_mass == Approx(mass).epsilon(1e-9));
}

TEST_CASE("the seven schools are sound starts") {
    for (std::size_t i = 0; i < Words<School>::all.size(); ++i) {
        const auto school = static_cast<School>(i);
        auto job = small_job();
        job.shell = shell::start_from(school);
        job.plug.board = "PU board 700, 50 mm";
        job.plug.barrier = Barrier::epoxy;
        const auto f = worked_out(job);
        INFO(said(school));
        REQUIRE(f.shell);
        CHECK(f.shell->stack.laminate.thickness > 0.003);
        CHECK(f.shell->stack.laminate.balanced);
        CHECK(call(f, "print_through") == nullptr);
        CHECK(call(f, "bows") == nullptr);
    }
}

TEST_CASE("a flat lopsided plate bows by its free curvature, a deep one hardly") {
    auto job = small_job();
    job.shape.tray.depth = 0.006;
    job.shape.tray.edge_radius = 0.004;
    job.shape.tray.crown = 0;
    job.shell.layers = {{LayerKind::surface_coat, "epoxy surface coat", 0, 0},
                        {LayerKind::ply, "carbon cloth 600 twill", 0, 0},
                        {LayerKind::ply, "glass mat 450", 0, 0},
                        {LayerKind::ply, "glass mat 450", 0, 0}};
    const auto flat = worked_out(job);
    // Cooling from the post-cure to the room, and what the resin's shrinkage after gel adds of itself.
    const double L = flat.shape->measures.size.x(),
                 free = shell::free_curve(flat.shell->stack, job.shell.cure_temperature - job.heat.room) * L *
                        L / 8;
    CHECK(free > 0.5 * flat.shell->stack.laminate.curvature.head<2>().cwiseAbs().maxCoeff() *
                     (job.shell.cure_temperature - job.heat.room) * L * L / 8);
    CHECK(flat.shell->bow > 0.3 * free);
    CHECK(flat.shell->bow <= free);
    REQUIRE(call(flat, "bows") != nullptr);
    job.shape.tray.depth = 0.15;
    CHECK(worked_out(job).shell->bow < 0.02 * flat.shell->bow);
}

TEST_CASE("a shell past the resin's day limit is laid over more days, each within the limit") {
    auto job = small_job();
    job.shell = shell::start_from(School::mat_polyester);
    const auto f = worked_out(job);
    CHECK(f.shell->days >= 2);
    REQUIRE(call(f, "too_much") != nullptr);
    double today = 0;
    for (std::size_t i = 0; i < f.shell->stack.laid.size(); ++i) {
        if (f.shell->stack.laid[i].layer.kind == LayerKind::ply)
            today += f.shell->stack.laid[i].ply.thickness;
        CHECK(today <= f.shell->go.most + 1e-12);
        if (std::find(f.shell->day_ends.begin(), f.shell->day_ends.end(), i) != f.shell->day_ends.end())
            today = 0;
    }
}

TEST_CASE("styrene and polystyrene are kept apart") {
    auto job = small_job();
    job.shell = shell::start_from(School::mat_polyester);
    job.plug.board = "XPS foam 32, 50 mm";
    job.plug.barrier = Barrier::water;
    auto f = worked_out(job);
    REQUIRE(call(f, "styrene") != nullptr);
    CHECK(call(f, "styrene")->severity == Severity::stop);
    CHECK(call(worked_out(patched(job, call(f, "styrene")->fix->patch)), "styrene") == nullptr);
    job.shell = shell::start_from(School::glass_epoxy);
    CHECK(call(worked_out(job), "styrene") == nullptr);
}

TEST_CASE("the skin sags between ribs by the plate-strip figures, and the pitch found keeps the limit") {
    auto job = small_job();
    job.back.pitch = 0.25;
    const auto f = worked_out(job);
    const auto& l = f.shell->stack.laminate;
    const double D = std::min(l.bending.Ex, l.bending.Ey) * std::pow(l.thickness, 3) / 12,
                 S = l.shear_stiffness.minCoeff();
    CHECK(f.back->sag.own == Approx(strip_sag_uniform(l.areal_mass * kGravity, 0.25, D, S)));
    CHECK(f.back->sag.person == Approx(long_plate_sag_point(job.back.person, 0.25, D, S)));
    CHECK(f.back->sag.bag == 0);
    job.back.pitch = f.back->pitch_for_limit;
    const auto at = worked_out(job);
    CHECK(at.back->sag.worst() == Approx(job.back.limit).epsilon(1e-3));
    // An envelope bag presses on the bare back; a surface bag does not.
    job.back.bag = BagKind::envelope;
    const auto envelope = worked_out(job);
    CHECK(envelope.back->sag.bag == Approx(strip_sag_uniform(job.back.vacuum, job.back.pitch, D, S)));
    CHECK(envelope.back->pitch_for_limit < at.back->pitch_for_limit);
}

TEST_CASE("the release plan counts coats and waits, and leaves the tape land out") {
    auto job = small_job();
    job.release.system = "paste wax";
    const auto f = worked_out(job);
    CHECK(f.release->plan.size() == 4);
    CHECK(f.release->area == Approx(f.split->moulded_area + f.edge->area - f.edge->tape_land_area));
    const double coat = 8 * 60 * f.release->area;
    CHECK(f.release->clock == Approx(4 * (coat + 45 * 60) + 3600));
    CHECK(f.release->litres == Approx(4 * f.release->area / 60));
    job.release.mould.history = FaceHistory::waxed;
    CHECK(call(worked_out(job), "history_mould") == nullptr);
    job.release.system = "semi-permanent";
    const auto waxed = worked_out(job);
    REQUIRE(call(waxed, "history_mould") != nullptr);
    CHECK(call(waxed, "history_mould")->severity == Severity::stop);
    job.release.system = "release film";
    CHECK(call(worked_out(job), "film_curved") != nullptr);
}

TEST_CASE("heat follows the chain with the job's own materials and guards Tg") {
    auto job = small_job();
    const auto f = worked_out(job);
    const auto& c = f.heat->chain;
    CHECK(c.plug_alpha == need(fixtures::shop().boards, job.plug.board, "test").alpha);
    CHECK(c.shell_alpha == Approx((f.shell->stack.laminate.cte[0] + f.shell->stack.laminate.cte[1]) / 2));
    CHECK(f.heat->part_error == Approx(grow(c).part_room * f.heat->length));
    // A plug cut at the scale gives a part on size.
    CHECK(f.heat->plug_scale * (1 + f.heat->sizes.part_room) == Approx(1));
    job.brief.top_temperature = f.shell->Tg - 5;
    CHECK(call(worked_out(job), "Tg")->severity == Severity::caution);
    job.brief.top_temperature = f.shell->Tg + 5;
    CHECK(call(worked_out(job), "Tg")->severity == Severity::stop);
}

TEST_CASE("a sandwich part is compared with a solid one of the same mass") {
    auto job = small_job();
    job.part.layers = {{LayerKind::ply, "glass cloth 280 twill", 0, 0},
                       {LayerKind::core, "PVC foam 75, 10 mm", 0, 0},
                       {LayerKind::ply, "glass cloth 280 twill", 0, 0}};
    job.part.pot_loss = 0;
    const auto f = worked_out(job);
    const auto& sum = f.part->stack;
    // Solid: both cloths together, thickened until they weigh as much; D goes with the cube of its thickness.
    const auto& p = sum.laid[0].ply;
    const double solid = sum.areal_mass() / p.material.density;
    const double nu = p.material.nu12, Dsolid = p.material.E1 / (1 - nu * nu) * solid * solid * solid / 12;
    // Over the stated span each sags by bending and by shear: 5qL⁴/384D + qL²/8S.
    const double L = job.part.span, D = sum.laminate.D(0, 0), S = sum.laminate.shear_stiffness[0];
    const double sandwich = 5 * std::pow(L, 4) / (384 * D) + L * L / (8 * S);
    const double plain = 5 * std::pow(L, 4) / (384 * Dsolid) + L * L / (8 * 5.0 / 6 * p.material.G13 * solid);
    CHECK(f.part->stiffer == Approx(plain / sandwich).epsilon(1e-3));
    CHECK(f.part->stiffer < 0.95 * D / Dsolid);
    job.part.span = 5;
    CHECK(worked_out(job).part->stiffer == Approx(D / Dsolid).epsilon(0.01));
    job.part.span = 0.3;
    // Peel ply, perforated film and breather keep 70, 10 and 120 g/m² by the library.
    CHECK(f.part->resin_mix == Approx((sum.resin * (1 + job.part.waste / 2) + 0.2) * f.part->area));
    job.part.target_mass = 0.5 * f.part->mass;
    CHECK(call(worked_out(job), "heavy") != nullptr);
}

TEST_CASE("the three ledgers add up and cost falls towards that of each part") {
    auto job = fixtures::demo();
    const auto f = worked_out(job);
    std::array<double, 3> materials{}, hours{};
    for (const auto& m : f.run->materials) materials[static_cast<std::size_t>(m.ledger)] += m.cost;
    for (const auto& h : f.run->hours) hours[static_cast<std::size_t>(h.ledger)] += h.hours;
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(f.run->ledgers[i].materials == Approx(materials[i]));
        CHECK(f.run->ledgers[i].hours == Approx(hours[i]));
    }
    CHECK(f.run->ledgers[2].materials == Approx(460));
    CHECK(f.run->cost_per_part(1) == Approx(f.run->ledgers[0].total() + f.run->ledgers[1].total()));
    CHECK(f.run->cost_per_part(1000000) == Approx(f.run->ledgers[0].total()).epsilon(1e-3));
    CHECK(f.run->ledgers[1].labour == Approx(hours[1] * 42));
    // Resin bought each part is what the part says, with the waste of the cloth.
    double resin = 0;
    for (const auto& m : f.run->materials) {
        if (m.ledger == Ledger::each && m.what == f.part->resin.name + ", mixed") resin = m.amount;
    }
    // To the gram what Part says is mixed.
    CHECK(resin == Approx(f.part->resin_mix));
    // Dearer hands cost more, not fewer hours.
    job.run.labour = 84;
    const auto dear = worked_out(job);
    CHECK(dear.run->ledgers[1].labour == Approx(2 * f.run->ledgers[1].labour));
    CHECK(dear.run->ledgers[1].hours == Approx(f.run->ledgers[1].hours));
    CHECK(f.run->plan.days >= 8);
    // More hands never make it later.
    job.brief.people = 4;
    CHECK(worked_out(job).run->plan.finished <= f.run->plan.finished);
}

TEST_CASE("the log counts pulls, weighs them and reminds of release") {
    auto job = small_job();
    job.log.entries = {{"2026-01-05", EntryKind::care, 0, 7, ""},
                       {"2026-01-06", EntryKind::pull, 2.0, 0, ""},
                       {"2026-01-07", EntryKind::pull, 2.2, 0, ""},
                       {"2026-01-08", EntryKind::note, 0, 0, "moved"},
                       {"2026-01-09", EntryKind::pull, 2.4, 0, ""}};
    auto f = worked_out(job);
    CHECK(f.log->pulls == 3);
    CHECK(f.log->mean_mass == Approx(2.2));
    CHECK(f.log->trend == Approx(0.2));
    CHECK(f.log->since_release == 3);
    // The shipped semi-permanent seasons over three pulls: a coat after each.
    CHECK(call(f, "release_due") != nullptr);
    job.log.entries.push_back({"2026-01-10", EntryKind::coat, 0, 1, ""});
    f = worked_out(job);
    CHECK(call(f, "release_due") == nullptr);
    CHECK(f.log->since_release == 0);
    job.release.system = "paste wax";
    job.log.entries.pop_back();
    CHECK(call(worked_out(job), "release_due") != nullptr);
    job.log.entries[0].date = "5.1.2026";
    f = worked_out(job);
    CHECK_FALSE(f.log);
    CHECK_THAT(call(f, "input")->headline, Catch::Contains("5.1.2026"));
}

TEST_CASE("hazards stand beside the work that has them") {
    for (const auto stage : {Stage::plug, Stage::edge, Stage::shell, Stage::back, Stage::release, Stage::heat,
                             Stage::part, Stage::run})
        CHECK_FALSE(cautions_for(Job{}, stage).empty());
    std::string all;
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        for (const auto& c : cautions_for(Job{}, static_cast<Stage>(s))) all += c;
    }
    for (const char* word : {"Epoxy", "Styrene", "Peroxide", "dust", "Isocyanates", "Vacuum", "Oven", "Lift"})
        CHECK_THAT(all, Catch::Contains(word));
}

TEST_CASE("router, jig and pump are judged, not only noted") {
    auto job = small_job();
    CHECK(call(worked_out(job), "router") == nullptr);
    job.brief.router_x = job.brief.router_y = 0.3;
    CHECK(call(worked_out(job), "router") != nullptr);
    job.brief.assembly_jig = true;
    job.brief.tolerance = 0.002;
    REQUIRE(call(worked_out(job), "jig") != nullptr);
    CHECK(call(worked_out(patched(job, call(worked_out(job), "jig")->fix->patch)), "jig") == nullptr);
    // 16 m³/h for a minute is 266.7 L of swept volume; ln(1013.25/100) = 2.3158.
    job.brief.pump = 16.0 / 3600;
    CHECK(value_of(worked_out(job).figures(Stage::brief), "pump_minute") ==
          Approx(0.26667 / 2.31575).epsilon(1e-3));
}
