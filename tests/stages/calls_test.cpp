// Every judgement rule comes up where it should, stays away where it should not, and its fix mends it.
#include <algorithm>
#include <catch2/catch.hpp>

#include <cmath>
#include <functional>
#include <set>

#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

struct Rule {
    const char* key;
    Stage stage;
    Severity severity;
    bool fixed;  ///< whether it offers a fix
    std::function<void(Job&)> provoke;
    std::function<void(Job&)> ground = [](Job&) {};  ///< what both the quiet and the provoked job share
};

Layer ply(const char* material, double angle = 0) {
    return {LayerKind::ply, material, angle, 0};
}

const Call* call_of(const jig::Findings& f, Stage stage, const std::string& key) {
    for (const auto& c : f.calls) {
        if (c.stage == stage && c.key == key) return &c;
    }
    return nullptr;
}

const std::vector<Rule>& rules() {
    static const std::vector<Rule> all{
        {"jig", Stage::brief, Severity::note, true, [](Job& j) { j.brief.tolerance = 0.003; },
         [](Job& j) {
             j.brief.assembly_jig = true;
             j.brief.tolerance = 0.0005;
         }},
        {"prepreg_cold", Stage::brief, Severity::caution, true,
         [](Job& j) { j.brief.top_temperature = kelvin(40); },
         [](Job& j) {
             j.brief.process = Process::prepreg;
             j.brief.top_temperature = kelvin(80);
         }},
        {"oven", Stage::back, Severity::stop, false,
         [](Job& j) { j.brief.oven_x = j.brief.oven_y = j.brief.oven_z = 0.3; },
         [](Job& j) { j.brief.top_temperature = kelvin(60); }},
        {"deep", Stage::shape, Severity::caution, false, [](Job& j) { j.shape.tray.depth = 1.2; }},
        {"locks", Stage::split, Severity::stop, true,
         [](Job& j) {
             j.split.mode = PullMode::given;
             j.split.pull = {1, 0, 0};
         }},
        {"drags", Stage::split, Severity::caution, false, [](Job& j) { j.shape.tray.draft = 0; }},
        {"porous", Stage::plug, Severity::stop, true, [](Job& j) { j.plug.barrier = Barrier::none; },
         [](Job& j) {
             j.plug.board = "MDF 18 mm";
             j.plug.barrier = Barrier::epoxy;
         }},
        {"lift", Stage::plug, Severity::note, false, [](Job& j) { j.brief.lift = 1; },
         [](Job& j) { j.brief.lift = 100; }},
        {"bare_foam", Stage::plug, Severity::note, false, [](Job& j) { j.plug.barrier = Barrier::none; },
         [](Job& j) {
             j.plug.board = "XPS foam 32, 50 mm";
             j.plug.barrier = Barrier::epoxy;
         }},
        {"tape_land", Stage::edge, Severity::stop, true, [](Job& j) { j.edge.tape_land = 0.015; }},
        {"channel", Stage::edge, Severity::caution, true, [](Job& j) { j.edge.channel = 0; },
         [](Job& j) {
             j.brief.process = Process::infusion;
             j.edge.channel = 0.02;
         }},
        {"trim", Stage::edge, Severity::caution, true, [](Job& j) { j.edge.trim = 0.002; }},
        {"bolt_pitch", Stage::edge, Severity::caution, true, [](Job& j) { j.edge.bolt_pitch = 0.3; },
         [](Job& j) {
             j.brief.process = Process::squeeze;
             j.edge.bolt_pitch = 0.06;
         }},
        {"thin", Stage::shell, Severity::caution, true, [](Job& j) { j.shell.layers.resize(4); },
         [](Job& j) { j.back.kind = BackKind::none; }},
        {"print_through", Stage::shell, Severity::caution, true,
         [](Job& j) {
             auto& l = j.shell.layers;
             l.insert(l.begin() + 2, ply("glass cloth 600 twill"));
         }},
        {"unbalanced", Stage::shell, Severity::note, true,
         [](Job& j) { j.shell.layers.push_back(ply("carbon tape 250 unidirectional", radians(30))); },
         [](Job& j) {
             // A stack that is not mirrored: a partner does not curl it more.
             j.shell.layers.resize(2);
             const std::vector<std::pair<const char*, double>> plies{
                 {"glass cloth 105 plain", 0},       {"glass cloth 200 plain", kPi / 4},
                 {"glass cloth 300 twill", 0},       {"glass cloth 600 twill", kPi / 4},
                 {"glass cloth 600 twill", 0},       {"glass cloth 600 twill", 0},
                 {"glass cloth 600 twill", kPi / 4}, {"glass cloth 600 twill", 0},
                 {"glass cloth 600 twill", kPi / 4}, {"glass cloth 300 twill", 0},
                 {"glass cloth 200 plain", kPi / 4}};
             for (const auto& [cloth, angle] : plies) j.shell.layers.push_back(ply(cloth, angle));
         }},
        {"person", Stage::back, Severity::caution, true, [](Job& j) { j.back.pitch = 2; },
         [](Job& j) {
             // One way only: where ribs cross, the strip by hand asks too much and offers no pitch.
             j.back.across = false;
             j.back.pitch = 0.06;
         }},
        {"envelope", Stage::back, Severity::stop, true, [](Job& j) { j.back.bag = BagKind::envelope; },
         [](Job& j) { j.back.pitch = 0.8; }},
        {"rib_print", Stage::back, Severity::note, false, [](Job& j) { j.shell.layers.resize(6); },
         [](Job& j) { j.shell.layers.resize(j.shell.layers.size() + 4, ply("glass cloth 600 twill")); }},
        {"too_hot", Stage::release, Severity::stop, true, [](Job& j) { j.release.system = "paste wax"; },
         [](Job& j) { j.brief.top_temperature = kelvin(120); }},
        {"land", Stage::release, Severity::stop, true, [](Job& j) { j.release.mask_land = false; }},
        {"paint", Stage::release, Severity::note, false, [](Job& j) { j.release.system = "paste wax"; }},
        {"pva_prepreg", Stage::release, Severity::caution, true,
         [](Job& j) { j.release.system = "wax and PVA film"; }, [](Job& j) { j.shell.how = LayUp::prepreg; }},
        {"size", Stage::heat, Severity::caution, true, [](Job& j) { j.brief.tolerance = 1e-5; },
         [](Job& j) { j.brief.tolerance = 0.05; }},
        {"plug_hot", Stage::heat, Severity::stop, false, [](Job& j) { j.heat.shell_gel = kelvin(120); }},
        {"brief_heat", Stage::heat, Severity::caution, true,
         [](Job& j) { j.part.gel_temperature = kelvin(70); }},
        {"process", Stage::part, Severity::caution, true, [](Job& j) { j.part.how = LayUp::infused; },
         [](Job& j) { j.brief.process = Process::wet_bag; }},
        {"asymmetric", Stage::part, Severity::note, false,
         [](Job& j) { j.part.layers.push_back(ply("glass cloth 600 twill")); }},
        {"gel_hot", Stage::part, Severity::caution, false,
         [](Job& j) { j.part.gel_temperature = kelvin(180); }},
        {"long_task", Stage::run, Severity::caution, true, [](Job& j) { j.brief.shift = 3600; },
         [](Job& j) {
             // A pavilion-sized tray: one coat of release takes hours.
             for (auto& p : j.shape.tray.outline) p = {3 * p[0], 3 * p[1]};
             j.shape.tray.facet = 0.1;
             j.brief.shift = 24 * 3600;
         }},
        {"styrene", Stage::plug, Severity::stop, true,
         [](Job& j) { j.shell.layers.front().material = "polyester tooling gelcoat"; },
         [](Job& j) {
             // The laminate itself is epoxy; its gelcoat is not.
             j.plug.board = "XPS foam 32, 50 mm";
             j.plug.barrier = Barrier::water;
         }},
        {"coat_pair", Stage::shell, Severity::caution, false,
         [](Job& j) { j.shell.layers.front().material = "vinyl ester tooling gelcoat"; }},
        {"mat_binder", Stage::shell, Severity::caution, false,
         [](Job& j) { j.shell.layers.push_back(ply("glass mat 450")); }},
        {"coat_behind", Stage::shell, Severity::stop, true,
         [](Job& j) {
             std::rotate(j.shell.layers.begin(), j.shell.layers.begin() + 1, j.shell.layers.end());
         }},
        {"thick_ply", Stage::shell, Severity::caution, false,
         [](Job& j) { j.shell.layers.back().thickness = 0.02; }},
        {"typed_ply", Stage::shell, Severity::caution, false,
         [](Job& j) { j.shell.layers.back().thickness = 0.00005; }},
        {"working_time", Stage::shell, Severity::caution, false,
         [](Job& j) { j.shell.resin = "polyester, general"; },
         [](Job& j) {
             for (auto& p : j.shape.tray.outline) p = {3 * p[0], 3 * p[1]};
             j.shape.tray.facet = 0.1;
             j.shell.layers.front().material = "polyester tooling gelcoat";
             j.brief.people = 1;
         }},
        {"prepreg_resin", Stage::shell, Severity::stop, true, [](Job& j) { j.shell.how = LayUp::prepreg; }},
        {"prepreg_resin", Stage::part, Severity::stop, true, [](Job& j) { j.part.how = LayUp::prepreg; }},
        {"flooded", Stage::shell, Severity::stop, true,
         [](Job& j) {
             j.shell.layers.push_back({LayerKind::core, "aramid honeycomb 48, 6 mm", 0, 0});
         },
         [](Job& j) { j.shell.how = LayUp::infused; }},
        {"flooded", Stage::part, Severity::stop, true,
         [](Job& j) { j.part.layers[2].material = "aramid honeycomb 48, 6 mm"; },
         [](Job& j) { j.part.how = LayUp::infused; }},
        {"life", Stage::shell, Severity::caution, false, [](Job& j) { j.brief.pulls = 4000; }},
        {"school_heat", Stage::heat, Severity::caution, false,
         [](Job& j) { j.shell.school = School::mineral_glass; },
         [](Job& j) { j.brief.top_temperature = kelvin(70); }},
        {"working_time", Stage::part, Severity::caution, false, [](Job& j) { j.brief.people = 1; },
         [](Job& j) {
             j.part.resin = "polyester, general";
             j.brief.people = 50;
         }},
        {"exotherm", Stage::part, Severity::caution, true,
         [](Job& j) { j.part.layers.insert(j.part.layers.end(), 20, ply("glass cloth 600 twill")); }},
        {"lift", Stage::back, Severity::caution, false, [](Job& j) { j.brief.lift = 2; },
         [](Job& j) { j.brief.lift = 100; }},
        {"core_hot", Stage::heat, Severity::stop, false,
         [](Job& j) {
             j.shell.layers.push_back({LayerKind::core, "PVC foam 75, 10 mm", 0, 0});
         },
         [](Job& j) { j.shell.cure_temperature = kelvin(100); }},
        {"back_hot", Stage::heat, Severity::stop, false, [](Job& j) { j.back.board = "MDF 18 mm"; },
         [](Job& j) {
             j.shell.cure_temperature = kelvin(89);
             j.back.joint.strip = "rubber cord";
         }},
        {"part_core_hot", Stage::heat, Severity::stop, false,
         [](Job& j) { j.part.gel_temperature = kelvin(100); }},
        {"not_gelled", Stage::heat, Severity::stop, true,
         [](Job& j) {
             j.heat.part = {{kelvin(20), 0.01, 5400}};
         }},
        {"runs_hot", Stage::heat, Severity::caution, true,
         [](Job& j) { j.part.layers.insert(j.part.layers.end(), 14, ply("glass cloth 600 twill")); },
         [](Job& j) {
             j.heat.part = {{kelvin(60), 0.01, 36000}};
         }},
        {"plug_cooked", Stage::heat, Severity::stop, true,
         [](Job& j) {
             j.heat.on_plug = {{kelvin(95), 0.01, 36000}};
         }},
        {"sags", Stage::heat, Severity::stop, true,
         [](Job& j) {
             j.heat.post_cure = {{kelvin(110), 0.08, 14400}};
         }},
        {"never_near", Stage::heat, Severity::caution, false, [](Job& j) { j.heat.within = 0.5; },
         [](Job& j) {
             // So slowly that it has cured before the hold: its own heat does not bring it near.
             j.shell.layers.resize(3);
             j.heat.transfer = 1;
             j.heat.within = 100;
             j.heat.on_plug = {{kelvin(55), 2e-4, 36000}};
         }},
        {"cloth_locks", Stage::part, Severity::caution, false, [](Job& j) { j.shape.tray.depth = 0.5; }},
        {"cool_gel", Stage::heat, Severity::note, true, [](Job& j) { j.heat.shell_gel = kelvin(15); }},
        {"against_gate", Stage::log, Severity::caution, false,
         [](Job& j) { j.log.entries.front().coats = 3; },
         [](Job& j) {
             j.log.entries = {{"2026-01-06", EntryKind::pull, 0, 7, ""}};
         }},
        {"unknown_face", Stage::log, Severity::caution, false,
         [](Job& j) { j.log.entries.front().face = "lid"; },
         [](Job& j) {
             j.log.entries = {{"2026-01-06", EntryKind::note, 0, 0, ""}};
         }},
        {"surface_plug", Stage::release, Severity::stop, true,
         [](Job& j) { j.release.plug.surface = FaceKind::foam; }},
        {"history_mould", Stage::release, Severity::stop, true,
         [](Job& j) { j.release.mould.history = FaceHistory::filmed; }},
        {"resin_mould", Stage::release, Severity::caution, true,
         [](Job& j) { j.part.resin = "vinyl ester"; }},
        {"surface_loose", Stage::release, Severity::stop, false,
         [](Job& j) {
             j.release.loose = {{"core", FaceKind::wood, FaceHistory::fresh, "paste wax", 0.1}};
         }},
        {"film_pools", Stage::release, Severity::caution, true,
         [](Job& j) { j.release.plug.system = "wax and PVA film"; },
         [](Job& j) {
             // A step in a turned profile: a sharp hollow all round.
             j.shape.kind = ShapeKind::turned;
             j.shape.turned.smooth = false;
             j.shape.turned.profile = {{0.30, 0.0}, {0.28, 0.10}, {0.16, 0.11}, {0.14, 0.22}, {0.0, 0.23}};
         }},
        {"leaks", Stage::bag, Severity::caution, false,
         [](Job& j) {
             j.bag.drop.readings = {{0, 2000}, {300, 12000}, {600, 22100}};
         },
         [](Job& j) {
             j.bag.drop.readings = {{0, 2000}, {300, 2010}, {600, 2020}};
         }},
        {"not_proven", Stage::bag, Severity::caution, false,
         [](Job& j) {
             j.bag.drop.readings = {{0, 2000}, {60, 3900}, {120, 1900}, {180, 3000}};
         },
         [](Job& j) {
             j.bag.drop.readings = {{0, 2000}, {300, 2010}, {600, 2020}};
         }},
        {"levels_out", Stage::bag, Severity::note, false,
         [](Job& j) {
             j.bag.drop.readings = {{0, 1000},   {60, 1210},  {120, 1360},
                                    {180, 1475}, {240, 1560}, {300, 1620}};
         },
         [](Job& j) {
             j.bag.drop.readings = {{0, 1000},   {60, 1010},  {120, 1020},
                                    {180, 1030}, {240, 1040}, {300, 1050}};
         }},
        {"quickens", Stage::bag, Severity::caution, false,
         [](Job& j) {
             j.bag.drop.readings = {{0, 1000},   {60, 1005},  {120, 1030},
                                    {180, 1075}, {240, 1140}, {300, 1225}};
         },
         [](Job& j) {
             j.bag.drop.readings = {{0, 1000},   {60, 1010},  {120, 1020},
                                    {180, 1030}, {240, 1040}, {300, 1050}};
         }},
        {"past_plan", Stage::log, Severity::note, true, [](Job& j) { j.brief.pulls = 1; },
         [](Job& j) {
             j.log.entries = {{"2026-01-06", EntryKind::pull, 0, 0, ""},
                              {"2026-01-07", EntryKind::pull, 0, 0, ""}};
         }},
        {"where_to_finish", Stage::brief, Severity::note, false, [](Job& j) { j.brief.grade = Grade::gloss; },
         [](Job& j) { j.brief.grade = Grade::structural; }},
        {"frees", Stage::split, Severity::note, false, [](Job& j) { j.split.mode = PullMode::best; },
         [](Job& j) {
             j.split.mode = PullMode::given;
             j.split.pull = {1, 0, 0};
         }},
        {"between", Stage::edge, Severity::caution, true, [](Job& j) { j.split.between = 0.01; },
         [](Job& j) {
             j.split.together = Together::several;
             j.split.parts = 2;
             j.split.between = 0.1;
         }},
        {"hollow", Stage::edge, Severity::note, false,
         [](Job& j) {
             j.shape.tray.outline = {{-0.3, -0.2}, {0.3, -0.2}, {0.3, 0}, {0, 0}, {0, 0.2}, {-0.3, 0.2}};
         }},
        {"no_flange", Stage::edge, Severity::caution, false,
         [](Job& j) {
             j.split.mode = PullMode::given;
             j.split.pull = {1, 0, 0};
         }},
        {"warm", Stage::release, Severity::caution, true, [](Job& j) { j.release.system = "paste wax"; },
         [](Job& j) { j.brief.top_temperature = kelvin(65); }},
        {"steps", Stage::plug, Severity::note, true, [](Job& j) { j.shape.tray.draft = 0.8; },
         [](Job& j) {
             j.plug.route = Route::slabs;
             j.plug.board = "EPS foam 20, 50 mm";
         }},
        {"sheet_size", Stage::plug, Severity::note, false,
         [](Job& j) {
             for (auto& p : j.shape.tray.outline) p = {8 * p[0], 8 * p[1]};
             j.shape.tray.facet = 0.15;
         },
         [](Job& j) {
             for (auto& p : j.shape.tray.outline) p = {0.5 * p[0], 0.5 * p[1]};
             j.plug.route = Route::slabs;
         }},
        {"unpinned", Stage::plug, Severity::note, false, [](Job& j) { j.plug.slabs.pin = 0.05; },
         [](Job& j) {
             j.plug.route = Route::slabs;
             for (auto& p : j.shape.tray.outline) p = {0.4 * p[0], 0.4 * p[1]};
             j.shape.tray.draft = 0.3;
         }},
        {"wall", Stage::plug, Severity::stop, true,
         [](Job& j) {
             j.plug.slabs.hollow = true;
             j.plug.slabs.wall = 0.01;
         },
         [](Job& j) {
             j.plug.route = Route::slabs;
             j.plug.in_envelope = true;
             j.plug.vacuum = 90000;
         }},
        {"undercut_block", Stage::plug, Severity::caution, false,
         [](Job& j) {
             j.split.mode = PullMode::given;
             j.split.pull = {1, 0, 0};
         },
         [](Job& j) { j.plug.route = Route::block; }},
        {"steep_step", Stage::shell, Severity::note, false,
         [](Job& j) {
             j.shell.layers.resize(1);
             j.shell.layers.push_back(ply("glass cloth 105 plain"));
             j.shell.layers.insert(j.shell.layers.end(), 6, ply("glass cloth 600 twill"));
         }},
        {"batches", Stage::part, Severity::caution, false,
         [](Job& j) { j.part.resin = "epoxy, room temperature fast"; },
         [](Job& j) {
             for (auto& p : j.shape.tray.outline) p = {3 * p[0], 3 * p[1]};
             j.shape.tray.facet = 0.1;
         }},
        {"dear_tool", Stage::run, Severity::note, false, [](Job& j) { j.brief.pulls = 1; },
         [](Job& j) { j.brief.pulls = 500; }},
        {"mass_off", Stage::log, Severity::note, false,
         [](Job& j) {
             for (auto& e : j.log.entries) e.mass = 50;
         },
         [](Job& j) {
             j.log.entries = {{"2026-01-05", EntryKind::care, 0, 3, ""},
                              {"2026-01-06", EntryKind::pull, 0, 0, ""},
                              {"2026-01-07", EntryKind::pull, 0, 0, ""},
                              {"2026-01-08", EntryKind::pull, 0, 0, ""}};
         }},
    };
    return all;
}

}  // namespace

TEST_CASE("each rule speaks where it must, is silent where it need not, and its fix mends it") {
    for (const auto& rule : rules()) {
        DYNAMIC_SECTION(rule.key) {
            auto calm = small_job();
            rule.ground(calm);
            const auto before = worked_out(calm);
            for (const auto& c : before.calls) CHECK_FALSE((c.key == rule.key && c.stage == rule.stage));
            auto loud = calm;
            rule.provoke(loud);
            const auto after = worked_out(loud);
            const auto* said = call_of(after, rule.stage, rule.key);
            REQUIRE(said != nullptr);
            CHECK(said->severity == rule.severity);
            CHECK_FALSE(said->why.empty());
            CHECK(said->fix.has_value() == rule.fixed);
            if (!said->fix) continue;
            const auto mended = worked_out(patched(loud, said->fix->patch));
            // One more pair of hands is a step and need not be enough at once.
            if (rule.key != std::string("long_task")) CHECK(call_of(mended, rule.stage, rule.key) == nullptr);
            if (rule.key == std::string("jig")) continue;  // asks for more, and what does not give it says so
            // What a fix mends it does not take out of something else.
            for (const auto& c : mended.calls) {
                if (c.severity == Severity::note) continue;
                const auto* was = call_of(after, c.stage, c.key);
                // What could not be judged in between, the quiet job says too.
                if (was == nullptr) was = call_of(before, c.stage, c.key);
                INFO(c.headline);
                CHECK((was != nullptr && was->severity >= c.severity));
            }
            const bool other_way =
                said->fix->patch.contains("part") || rule.key == std::string("prepreg_resin");
            if (mended.shell && after.shell && !other_way) {
                CHECK(mended.shell->mass >= after.shell->mass * (1 - 1e-9));
                CHECK(mended.shell->stack.laminate.thickness >=
                      after.shell->stack.laminate.thickness * (1 - 1e-9));
            }
        }
    }
}

TEST_CASE("no call leaves its place unnamed or its quantities unworded") {
    for (const auto* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        const auto f = worked_out(fixtures::demo(name));
        CHECK(f.complete());
        for (const auto& c : f.calls) {
            INFO(name << " " << c.key);
            for (const auto system : {UnitSystem::metric, UnitSystem::imperial}) {
                const auto text = worded(c.headline, {system, "¤"}) + worded(c.why, {system, "¤"});
                CHECK(text.find('\x01') == std::string::npos);
                CHECK(text.find("nan") == std::string::npos);
                CHECK(text.find("inf") == std::string::npos);
            }
            CHECK(c.severity != Severity::stop);
        }
    }
}

TEST_CASE("every figure has a name, a reason and a finite value in all demo jobs") {
    for (const auto* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        const auto f = worked_out(fixtures::demo(name));
        for (std::size_t s = 0; s < kStages.size(); ++s) {
            std::set<std::string> keys;
            for (const auto& figure : f.figures(static_cast<Stage>(s))) {
                INFO(name << " " << kStages[s].key << " " << figure.key);
                CHECK(keys.insert(figure.key).second);
                CHECK_FALSE(figure.name.empty());
                CHECK_FALSE(figure.reason.empty());
                CHECK(std::isfinite(figure.value));
                CHECK_FALSE(show(figure.kind, figure.value).empty());
            }
            CHECK_FALSE(keys.empty());
        }
    }
}

TEST_CASE("a shape read in the wrong unit is told by its size, and read anew it is not") {
    // A box of 600 × 400 × 120 in a file without a unit.
    auto box = shapes::box({0, 0, 0}, {0.6, 0.4, 0.12});
    Job job;
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "box.stl";
    job.attachments.push_back({"box.stl", std::make_shared<const std::string>(write_stl_binary(box))});
    job.shape.unit = FileUnit::mm;
    CHECK(call(worked_out(job), "unit") == nullptr);
    for (const auto unit : {FileUnit::m, FileUnit::in, FileUnit::cm}) {
        job.shape.unit = unit;
        const double longest = 600 * (unit == FileUnit::m ? 1 : unit == FileUnit::in ? 0.0254 : 0.01);
        const auto f = worked_out(job);
        INFO(file_word(unit));
        CHECK((call(f, "unit") != nullptr) == (longest > 20));
        if (longest <= 20) continue;
        const auto* said = call(f, "unit");
        REQUIRE(said != nullptr);
        REQUIRE(said->fix);
        CHECK(call(worked_out(patched(job, said->fix->patch)), "unit") == nullptr);
    }
    // The same in metres, read as millimetres, is a crumb.
    for (auto& p : box.points) p *= 1e-3;
    job.attachments.back().bytes = std::make_shared<const std::string>(write_stl_binary(box));
    job.shape.unit = FileUnit::mm;
    const auto crumb = worked_out(job);
    REQUIRE(call(crumb, "unit") != nullptr);
    REQUIRE(call(crumb, "unit")->fix);
    CHECK(call(worked_out(patched(job, call(crumb, "unit")->fix->patch)), "unit") == nullptr);
}

TEST_CASE("a tight inside radius and a mend are told, the mend with a way back") {
    // A shelf in a block: its inside edge is rounded by 3 mm in one body, by 12 mm in another.
    const auto shelf = [](double radius) {
        std::vector<std::pair<double, double>> profile{{0.3, 0}, {0.3, 0.05}};
        for (int i = 0; i <= 12; ++i) {
            const double a = i * kPi / 24;
            profile.emplace_back(0.15 + radius - radius * std::sin(a), 0.05 + radius - radius * std::cos(a));
        }
        profile.emplace_back(0.15, 0.2);
        return shapes::turned(profile, 96);
    };
    Job job;
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "shelf.stl";
    const auto with = [&](TriangleMesh mesh) {
        job.attachments = {{"shelf.stl", std::make_shared<const std::string>(write_stl_binary(mesh))}};
        return worked_out(job);
    };
    const auto wide = with(shelf(0.012));
    CHECK(call(wide, "inside_radius") == nullptr);
    for (const auto& c : wide.calls) {
        INFO(worded(c.headline));
        CHECK(c.key != "repair");
    }
    CHECK(call(with(shelf(0.003)), "inside_radius") != nullptr);
    // A face twice over is dropped, and may be left.
    auto twice = shelf(0.012);
    twice.triangles.push_back(twice.triangles.front());
    const auto mended = with(twice);
    const auto* said = call(mended, "repair");
    REQUIRE(said != nullptr);
    REQUIRE(said->fix);
    const auto left = worked_out(patched(job, said->fix->patch));
    CHECK(call(left, "repair") == nullptr);
}

TEST_CASE("a parting board that bends tightly is told, one that hardly does is not") {
    // The seam of a ball is its great circle, and its board bends with it.
    for (const double r : {0.1, 0.4}) {
        Job job;
        job.shape.kind = ShapeKind::mesh;
        job.shape.file = "ball.stl";
        job.attachments.push_back(
            {"ball.stl", std::make_shared<const std::string>(write_stl_binary(shapes::sphere(r, 40)))});
        job.split.way = SplitWay::search;
        job.split.pieces = 2;
        INFO(r);
        CHECK((call(worked_out(job), "board_bend") != nullptr) == (r < 0.15));
    }
}

TEST_CASE("a thin shell in an envelope bag buckles, and sealed on its flange it is not asked to") {
    auto job = small_job();
    for (auto& p : job.shape.tray.outline) p = {2.5 * p[0], 2.5 * p[1]};
    job.shape.tray.facet = 0.1;
    job.shape.tray.depth = 0.4;
    job.back.kind = BackKind::none;
    job.back.bag = BagKind::envelope;
    job.shell.layers.resize(5);
    const auto f = worked_out(job, Depth::quick);
    const auto* said = call(f, "buckles");
    REQUIRE(said != nullptr);
    REQUIRE(said->fix);
    CHECK(call(worked_out(patched(job, said->fix->patch), Depth::quick), "buckles") == nullptr);
    // A shell ten times as thick stands it.
    auto stout = job;
    for (int i = 0; i < 60; ++i) stout.shell.layers.push_back(ply("glass cloth 600 twill"));
    CHECK(call(worked_out(stout, Depth::quick), "buckles") == nullptr);
}
