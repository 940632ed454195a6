// Cores on faces whose bends are known, and panels whose number and measures can be said beforehand.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/base/error.hpp"
#include "core/job/evaluate.hpp"
#include "core/stages/part/panels.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::kLevel;
using fixtures::shop;
using fixtures::worked_out;
using part::CorePanels;
using shapes::sheet;

namespace {

/// A face with one core on it, as the part's own nodes are given it.
struct OnFace {
    part::Choices part;
    part::Draped draped;
    edge::ToolFace tool;

    explicit OnFace(TriangleMesh mesh, const Frame& frame = kLevel) {
        part.layers = {{LayerKind::ply, "glass cloth 300 twill", 0, 0},
                       {LayerKind::core, "PVC foam 75, 10 mm", 0, 0},
                       {LayerKind::ply, "glass cloth 300 twill", 0, 0}};
        part.core.gap = 0;
        draped.area = shapes::area_of(mesh);
        draped.face = std::make_shared<const TriangleMesh>(std::move(mesh));
        tool.frame = frame;
    }
    [[nodiscard]] Layer& core() { return part.layers[1]; }
    [[nodiscard]] part::CoreFit fit() const {
        const auto marked = part::regions(part::zones_asked(part), tool.frame, draped, quiet);
        return part::core_fit(part::core_asked(part), tool.frame, draped, marked, shop(), quiet);
    }
    [[nodiscard]] CorePanels panels() const {
        return part::core_panels(part::core_asked(part), {{tool.frame, draped}}, shop(), quiet);
    }
};

TriangleMesh plate(double length, double width) {
    return sheet(40, 30, [&](double u, double v) { return Point(length * u, width * v, 0); });
}

/// A piece of a tube about x, seen from outside.
TriangleMesh tube(double radius, double length, double turn) {
    return sheet(30, 40, [&](double u, double v) {
        const double a = turn * (v - 0.5);
        return Point(length * u, radius * std::sin(a), radius * std::cos(a));
    });
}

TriangleMesh ball(double radius, double side) {
    return sheet(40, 40, [&](double u, double v) {
        const double a = side / radius * (u - 0.5), b = side / radius * (v - 0.5);
        return Point(radius * std::sin(a) * std::cos(b), radius * std::sin(b),
                     radius * std::cos(a) * std::cos(b));
    });
}

double panels_area(const CorePanels& f) {
    double out = 0;
    for (const auto& p : f.panels) out += p.area;
    return out;
}

}  // namespace

TEST_CASE(
    "a core is said not to bend where the face is tighter than it bears, whichever way the face stands") {
    // 10 mm of foam bends to 0.5 m cold, 0.1 m slit, 0.08 m hot.
    for (const bool turned : {false, true}) {
        const Eigen::Matrix3d by = turned ? shapes::odd_rotation() : Eigen::Matrix3d::Identity();
        const Frame frame{by * kLevel.u, by * kLevel.v, by * kLevel.w};
        for (const double radius : {0.09, 0.3, 0.7}) {
            INFO("radius " << radius << (turned ? " turned" : ""));
            OnFace on(shapes::rotated(tube(radius, 0.4, 1.2), by), frame);
            const auto cold = on.fit();
            REQUIRE(cold.cores.size() == 1);
            CHECK(cold.cores[0].area == Approx(shapes::area_of(*on.draped.face)));
            CHECK(cold.cores[0].tightest == Approx(radius).epsilon(0.05));
            CHECK((cold.cores[0].tight > 0.95 * cold.cores[0].area) == (radius < 0.5));
            CHECK((cold.cores[0].tight == 0) == (radius > 0.5));
            on.core().cut.slits = Slits::both;
            CHECK((on.fit().cores[0].tight > 0) == (radius < 0.1));
            on.core().cut.heated = true;
            CHECK(on.fit().cores[0].tight == 0);
        }
    }
}

TEST_CASE("slits one way let a core bend across them, and not along them") {
    OnFace on(tube(0.3, 0.4, 1.2));
    on.core().cut.slits = Slits::along;
    CHECK(on.fit().cores[0].tight == 0);
    on.core().angle = kPi / 2;
    const auto wrong = on.fit().cores[0];
    CHECK(wrong.tight > 0.95 * wrong.area);
    // The stack's zero turned back by as much puts them right.
    on.part.drape.turn = kPi / 2;
    CHECK(on.fit().cores[0].tight == 0);
}

TEST_CASE("the way out of a core that does not bend is another cut, and bends it") {
    const auto call_of = [](const OnFace& on) -> std::optional<Call> {
        const auto marked = part::regions(part::zones_asked(on.part), on.tool.frame, on.draped, quiet);
        for (const auto& c : part::core_calls(on.part, on.fit(), {&marked}, shop())) {
            if (c.key == "core_bends") return c;
        }
        return {};
    };
    for (const double radius : {0.3, 0.09, 0.03}) {
        OnFace on(tube(radius, 0.4, 1.2));
        // Once as it comes, once slit the wrong way round, once thicker than it is stocked.
        for (int way = 0; way < 3; ++way) {
            INFO("radius " << radius << ", " << way);
            on.core() = {LayerKind::core, "PVC foam 75, 10 mm", 0, way == 2 ? 0.012 : 0};
            if (way == 1) {
                on.core().cut.slits = Slits::along;
                on.core().angle = kPi / 2;
            }
            const auto called = call_of(on);
            REQUIRE(called);
            CHECK(called->fix.has_value() == (radius > 0.05));
            if (!called->fix) continue;
            Job job;
            job.part = on.part;
            const auto before = on.core();
            on.part = patched(job, called->fix->patch).part;
            CHECK_FALSE(on.core() == before);
            CHECK_FALSE(call_of(on));
            CHECK(on.fit().tight() == 0);
        }
    }
}

TEST_CASE("a ply that changes leaves the panels as they were cut, and a core that changes does not") {
    JobBoard board;
    auto job = fixtures::small_job();
    const auto cut = [&] { return board.core_panels(board.lay(job, fixtures::shared_shop()), quiet); };
    const auto first = cut();
    REQUIRE_FALSE(first->panels.empty());
    job.part.layers[0].angle += 0.3;
    CHECK(cut() == first);
    job.part.core.takes *= 2;
    CHECK_FALSE(cut() == first);
}

TEST_CASE("a flat face asks nothing, a core that nobody knows is not judged, and none covers nothing") {
    OnFace on(plate(1, 0.8));
    CHECK(on.fit().cores[0].tightest == 0);
    CHECK(on.fit().tight() == 0);
    OnFace bent(tube(0.05, 0.4, 1.2));
    auto known = shop();
    for (auto& c : known.cores) c.bends_cold = c.bends_slit = c.bends_hot = 0;
    const auto marked = part::regions({}, bent.tool.frame, bent.draped, quiet);
    CHECK(part::core_fit(part::core_asked(bent.part), bent.tool.frame, bent.draped, marked, known, quiet)
              .tight() == 0);
    // Where a zone takes the core away it does not lie.
    part::Zone rim;
    rim.way = ZoneWay::for_core;
    rim.width = 0.1;
    on.part.zones = {rim};
    CHECK(on.fit().cores[0].area == Approx(0.8 * 0.6).epsilon(0.05));
    on.part.layers = {on.part.layers[0]};
    CHECK(on.fit().cores.empty());
    CHECK(on.panels().panels.empty());
}

TEST_CASE("a flat core is halved until its panels go onto a sheet") {
    // Sheets of 1.2 × 1.0 m: 2.0 × 1.5 goes in four of 1.0 × 0.75.
    OnFace on(plate(2, 1.5));
    const auto f = on.panels();
    REQUIRE(f.panels.size() == 4);
    CHECK(panels_area(f) == Approx(3).epsilon(1e-4));
    CHECK(f.joints == Approx(1.5 + 2 * 1.0));
    CHECK(f.edges == Approx(2 * (2 + 1.5)).epsilon(1e-4));
    for (const auto& p : f.panels) {
        CHECK(p.stretch < 1e-4);
        CHECK_FALSE(p.strained);
        const Point2 size = high_corner(p.outline) - low_corner(p.outline);
        CHECK(std::hypot(size.x(), size.y()) == Approx(std::hypot(1.0, 0.75)).epsilon(0.3));
        CHECK(p.area == Approx(0.75).epsilon(1e-4));
    }
    REQUIRE(f.stocks.size() == 1);
    CHECK(f.stocks[0].sheets.too_large.empty());
    CHECK(f.stocks[0].sheets.sheets.size() == 4);
    // Numbered once each, from behind forward.
    std::set<std::string> names;
    for (const auto& p : f.panels) names.insert(p.name);
    CHECK(names == std::set<std::string>{"C1.1", "C1.2", "C1.3", "C1.4"});
    CHECK(f.panels.front().middle.x() < f.panels.back().middle.x());
    // A gap comes off all round, half to each, and is filled.
    on.part.core.gap = 0.004;
    const auto gapped = on.panels();
    CHECK(panels_area(gapped) == Approx(4 * (1 - 0.004) * (0.75 - 0.004)).epsilon(1e-4));
    CHECK(gapped.joint_fill == Approx(3.5 * 0.004 * 0.01));
    on.part.core.edge = 0.02;
    CHECK(on.panels().edge_fill == Approx(on.panels().edges * 0.02 * 0.01));
    CHECK(on.panels().edges == Approx(7).epsilon(0.01));
}

TEST_CASE(
    "sheets of core are bought as panels lie on them: whole for one part, by the length cut off for more") {
    OnFace on(plate(2, 1.5));
    on.part.core.gap = 0.004;
    on.part.core.edge = 0.02;
    const auto f = on.panels();
    REQUIRE(f.stocks[0].sheets.sheets.size() == 4);
    const auto one = part::with_panels({}, f, true), many = part::with_panels({}, f, false);
    REQUIRE(one.core_bought.size() == 1);
    CHECK(one.core_bought[0].material == on.core().material);
    const auto& rules = f.stocks[0].sheets.rules;
    CHECK(one.core_bought[0].area == Approx(4 * rules.length * rules.width));
    // A panel of 1.0 × 0.75 leaves a strip of its last sheet, whichever way it lies there.
    const double last = many.core_bought[0].area / (rules.length * rules.width) - 3;
    const auto lies = [&](double side) { return std::abs(last - (side - 0.004) / rules.length) < 0.02; };
    CHECK((lies(1.0) || lies(0.75)));
    CHECK(one.panel_filler == Approx(f.joint_fill + f.edge_fill));
    CHECK(part::with_panels({}, {}, true).core_bought.empty());
}

TEST_CASE("the ledger has a part's core once: by its area at first, by its sheets when they are laid") {
    auto job = fixtures::small_job();
    const auto core = [&](const Findings& f) {
        std::vector<run::Material> out;
        for (const auto& m : f.run->materials) {
            if (m.stage == Stage::part && need(shop().cores, "PVC foam 75, 5 mm", "test").name == m.what)
                out.push_back(m);
        }
        REQUIRE(out.size() == 1);
        return out.front();
    };
    REQUIRE(std::any_of(job.part.layers.begin(), job.part.layers.end(),
                        [](const Layer& l) { return l.material == "PVC foam 75, 5 mm"; }));
    const auto by_area = worked_out(job);
    CHECK(core(by_area).amount == Approx(by_area.part->area * (1 + job.part.waste)).epsilon(0.02));
    const auto laid = evaluate(job, shop(), quiet, Depth::quick);
    REQUIRE(laid.core_panels);
    const auto bought = part::with_panels({}, *laid.core_panels, job.brief.pulls <= 1).core_bought;
    REQUIRE(bought.size() == 1);
    CHECK(core(laid).amount == Approx(laid.split->parts() * bought[0].area));
    CHECK(core(laid).note.find("sheets of") != std::string::npos);
    // Its price is the library's by the square metre, and the resin is mixed as before.
    CHECK(core(laid).cost ==
          Approx(core(laid).amount * need(shop().cores, "PVC foam 75, 5 mm", "test").price));
    const auto mixed = [](const Findings& f) {
        double sum = 0;
        for (const auto& m : f.run->materials)
            sum += m.stage == Stage::part && m.what.find(", mixed") != std::string::npos ? m.amount : 0;
        return sum;
    };
    CHECK(mixed(laid) == Approx(mixed(by_area)));
}

TEST_CASE("a panel of a tube is as long as the tube goes round, and has no stretch") {
    OnFace on(tube(0.5, 0.6, 1.0));
    const auto f = on.panels();
    REQUIRE(f.panels.size() == 1);
    CHECK(f.panels[0].area == Approx(0.6 * 0.5).epsilon(1e-3));
    CHECK(f.panels[0].stretch < 1e-3);
    // Turned about anyhow it comes out alike.
    const auto by = shapes::odd_rotation();
    OnFace turned(shapes::rotated(tube(0.5, 0.6, 1.0), by), {by * kLevel.u, by * kLevel.v, by * kLevel.w});
    const auto g = turned.panels();
    REQUIRE(g.panels.size() == 1);
    CHECK(g.panels[0].area == Approx(f.panels[0].area));
    CHECK(perimeter(g.panels[0].outline[0]) == Approx(perimeter(f.panels[0].outline[0])).epsilon(1e-4));
}

TEST_CASE("a ball is cut smaller until its panels take the stretch, and slits take more of it") {
    OnFace on(ball(1.0, 0.9));
    on.part.core.takes = 0.004;
    const auto few = on.panels();
    REQUIRE(few.panels.size() > 1);
    for (const auto& p : few.panels) CHECK((p.strained || p.stretch <= 0.004));
    CHECK(panels_area(few) == Approx(on.draped.area).epsilon(0.005));
    on.part.core.takes = 0.001;
    const auto more = on.panels();
    CHECK(more.panels.size() > few.panels.size());
    on.core().cut.slits = Slits::both;
    on.core().cut.slit = 0.001;
    on.core().cut.slit_pitch = 0.02;
    CHECK(on.panels().panels.size() == 1);
    // So tight a ball that no panel takes it, however small: said, not hidden.
    OnFace tight(ball(0.08, 0.12));
    tight.part.core.takes = 0.001;
    const auto strained = tight.panels();
    const auto calls = part::panel_calls(strained, tight.part);
    CHECK(std::any_of(calls.begin(), calls.end(), [](const Call& c) { return c.key == "core_strained"; }));
}

TEST_CASE("a zone's hole goes out of the panels, and islands are panels of their own") {
    OnFace on(plate(1.0, 0.8));
    part::Zone hatch;
    hatch.place = ZonePlace::inside;
    hatch.way = ZoneWay::for_core;
    hatch.line = {{-0.1, -0.1}, {0.1, -0.1}, {0.1, 0.1}, {-0.1, 0.1}};
    on.part.zones = {hatch};
    auto f = on.panels();
    REQUIRE(f.panels.size() == 1);
    CHECK(f.panels[0].outline.size() == 2);
    CHECK(f.panels[0].area == Approx(0.8 - 0.04).epsilon(1e-3));
    // Its corners are cut as fine as the face is laid.
    CHECK(f.edges == Approx(3.6 + 0.8).epsilon(0.005));
    // A band right across it leaves two.
    part::Zone band = hatch;
    band.place = ZonePlace::band;
    band.line = {{0, -0.5}, {0, 0.5}};
    band.width = 0.1;
    on.part.zones = {band};
    f = on.panels();
    REQUIRE(f.panels.size() == 2);
    CHECK(panels_area(f) == Approx(0.9 * 0.8).epsilon(1e-3));
    CHECK(f.joints == 0);
}

TEST_CASE("what comes in no sheets is named, and sheets too small to cut from are refused") {
    OnFace on(plate(1.0, 0.8));
    on.core().material = "mineral paste, 8 mm";
    const auto paste = on.panels();
    CHECK(paste.panels.empty());
    CHECK(paste.no_sheets == std::vector<std::string>{"mineral paste, 8 mm"});
    on.core().material = "PVC foam 75, 10 mm";
    auto small = shop();
    for (auto& c : small.cores) c.sheet_width = 0.02;
    CHECK_THROWS_AS(part::core_panels(part::core_asked(on.part), {{on.tool.frame, on.draped}}, small, quiet),
                    InputError);
    for (auto& c : small.cores) c.sheet_width = c.sheet_length = 0.11;
    OnFace large(plate(6, 5));
    const auto many =
        part::core_panels(part::core_asked(large.part), {{large.tool.frame, large.draped}}, small, quiet);
    CHECK(many.too_many);
    CHECK(many.panels.empty());
    const auto calls = part::panel_calls(many, large.part);
    REQUIRE(calls.size() == 1);
    CHECK(calls[0].key == "core_too_many");
}

TEST_CASE("a core all round a small knob, which no sheet closes round, is cut until its panels lie flat") {
    OnFace on(shapes::sphere(0.03, 24));
    const auto f = on.panels();
    REQUIRE(f.panels.size() > 1);
    CHECK(f.not_flat == 0);
    CHECK(panels_area(f) == Approx(4 * kPi * 0.03 * 0.03).epsilon(0.1));
    CHECK(f.joints > 0);
    // What is too small for that is said, not lost.
    OnFace bead(shapes::sphere(0.004, 12));
    const auto lost = bead.panels();
    CHECK(lost.panels.empty());
    CHECK(lost.not_flat == Approx(shapes::area_of(*bead.draped.face)).epsilon(1e-3));
    const auto calls = part::panel_calls(lost, bead.part);
    REQUIRE(calls.size() == 1);
    CHECK(calls[0].key == "core_not_flat");
}

TEST_CASE("what is offered for a core that does not bend makes it bend, and for one that runs out ends it") {
    auto job = fixtures::demo("cello-case");
    auto f = worked_out(job);
    const auto* bends = call(f, "core_bends");
    REQUIRE(bends != nullptr);
    REQUIRE(bends->fix);
    const double tight = f.part->cores->tight(), mass = f.part->mass;
    job = patched(job, bends->fix->patch);
    f = worked_out(job);
    CHECK(f.part->cores->tight() < tight);
    CHECK(call(f, "core_bends") == nullptr);
    // What was sawn out drinks: the part is heavier; what is bent hot weighs the same.
    const bool slit = job.part.layers[f.part->cores->cores.front().of.layer].cut.slits != Slits::none;
    CHECK((f.part->mass > mass) == slit);
    const auto* runs = call(f, "core_runs_out");
    REQUIRE(runs != nullptr);
    REQUIRE(runs->fix);
    const double area = f.part->cores->cores.front().area;
    job = patched(job, runs->fix->patch);
    f = worked_out(job);
    CHECK(call(f, "core_runs_out") == nullptr);
    CHECK(f.part->cores->cores.front().area < area);
}

TEST_CASE("every demo's core is cut into panels that lie on their sheets, as much as the core covers") {
    for (const auto* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        INFO(name);
        JobBoard board;
        const auto sheet = board.lay(fixtures::demo(name), fixtures::shared_shop());
        const auto f = board.work_out(sheet, Depth::stages, quiet);
        const auto panels = board.core_panels(sheet, quiet);
        REQUIRE(panels);
        double covered = 0;
        for (const auto& c : f.part->cores->cores) covered += c.area;
        CHECK(panels_area(*panels) == Approx(covered).epsilon(0.02));
        for (const auto& stock : panels->stocks) {
            CHECK(stock.sheets.too_large.empty());
            for (const auto& on : stock.sheets.sheets) {
                for (std::size_t i = 0; i < on.pieces.size(); ++i) {
                    CHECK(low_corner(on.pieces[i].loops).minCoeff() > 0);
                    CHECK(high_corner(on.pieces[i].loops).x() < stock.sheets.rules.length);
                    CHECK(high_corner(on.pieces[i].loops).y() < stock.sheets.rules.width);
                    for (std::size_t j = i + 1; j < on.pieces.size(); ++j)
                        CHECK(net_area(shared(on.pieces[i].loops, on.pieces[j].loops)) < 1e-8);
                }
            }
        }
    }
}
