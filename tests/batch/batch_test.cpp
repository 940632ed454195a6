#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/batch/asking.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::Folder;

using asking::ask;
using asking::put;

TEST_CASE("laminate answers in SI with the contract's keys") {
    Folder folder;
    const auto path = put(
        folder, "s.json",
        R"({"plies": [{"material": {"E1_Pa": 70e9, "E2_Pa": 70e9, "G12_Pa": 26.9230769e9, "nu12": 0.3, "density_kg_m3": 2700, "alpha1_1_K": 23e-6}, "angle_deg": 30, "thickness_m": 0.004}]})");
    const auto a = ask({"laminate", path});
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["thickness_m"].get<double>() == Approx(0.004));
    CHECK(j["areal_mass_kg_m2"].get<double>() == Approx(10.8));
    CHECK(j["membrane"]["Ex_Pa"].get<double>() == Approx(70e9).epsilon(1e-6));
    CHECK(j["D"][0][0].get<double>() == Approx(70e9 * 6.4e-8 / 12 / 0.91).epsilon(1e-6));
    CHECK(j["shear_stiffness_N_m"][1].get<double>() == Approx(5.0 / 6 * 26.9230769e9 * 0.004).epsilon(1e-6));
    CHECK(j["cte_1_K"][1].get<double>() == Approx(23e-6));
    CHECK(j["symmetric"] == true);
    CHECK(j["balanced"] == true);
    for (const char* key : {"A", "B", "bending", "curvature_1_m_K"}) CHECK(j.contains(key));
    const auto named = ask(
        {"laminate",
         put(folder, "n.json",
             R"({"plies": [{"material": "glass mat 450", "thickness_m": 0.001}, {"material": "PVC foam 75, 10 mm", "thickness_m": 0.01}]})")});
    CHECK(named.code == 0);
    CHECK_FALSE(named.json()["symmetric"].get<bool>());
}

TEST_CASE("draft, pull and measure answer for a file in its unit") {
    Folder folder;
    // The file is in millimetres as our writer makes it.
    const auto path = put(folder, "f.stl", write_stl_binary(shapes::frustum(0.3, 0.2, radians(5), 90)));
    const double top = 0.3 - 0.2 * std::tan(radians(5)),
                 wall = kPi * (0.3 + top) * std::hypot(0.2, 0.3 - top);
    auto j = ask({"draft", path, "--pull", "0,0,1"}).json();
    CHECK(j["slides_m2"].get<double>() == Approx(wall + kPi * top * top).epsilon(2e-3));
    CHECK(j["locks_m2"].get<double>() == Approx(kPi * 0.09).epsilon(2e-3));
    CHECK(j["shadowed_m2"].get<double>() == Approx(0).margin(1e-9));
    CHECK(ask({"draft", path, "--pull", "0,0,1", "--drag-deg", "7"}).json()["drags_m2"].get<double>() ==
          Approx(wall).epsilon(2e-3));
    j = ask({"measure", path, "--unit=cm"}).json();
    CHECK(j["closed"] == true);
    CHECK(j["size_m"][2].get<double>() == Approx(2));
    CHECK(j["holes"] == 0);
    CHECK(j["smallest_inside_radius_m"].is_null());
    j = ask({"pull", path, "--top", "2"}).json();
    REQUIRE(j["pulls"].size() == 2);
    CHECK(j["pulls"][0]["direction"][2].get<double>() == Approx(1));
}

TEST_CASE("slabs are answered and written a file a sheet") {
    Folder folder;
    const auto path = put(folder, "t.stl", write_stl_text(shapes::torus(0.3, 0.1, 48), "ring"));
    const auto a = ask(
        {"slabs", path, "--axis", "0,0,1", "--thickness", "0.05", "--sheet", "2x1", "--out", folder / "cut"});
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["slabs"].size() == 4);
    CHECK(j["slabs"][1]["outlines"].size() == 2);
    CHECK(j["slabs"][0]["number"] == 1);
    CHECK(j["stack_volume_m3"].get<double>() > 2 * kPi * kPi * 0.3 * 0.01);
    for (int i = 1; i <= j["sheets"].get<int>(); ++i) {
        CHECK(std::filesystem::file_size(folder / ("cut/sheet-" + std::to_string(i) + ".dxf")) > 1000);
        CHECK(std::filesystem::file_size(folder / ("cut/sheet-" + std::to_string(i) + ".svg")) > 1000);
    }
}

TEST_CASE("report and check work on jobs, and check exits 3 at a stop") {
    Folder folder;
    auto job = fixtures::demo();
    save_job(job, folder / "good.jigshell");
    const auto report = ask({"report", folder / "good.jigshell", "--csv", folder / "tables"});
    REQUIRE(report.code == 0);
    const auto j = report.json();
    for (const auto& stage : kStages) CHECK(j.contains(stage.key));
    CHECK(j["shell"]["thickness"]["value"].get<double>() ==
          Approx(value_of(fixtures::worked_out(job).figures(Stage::shell), "thickness")));
    CHECK_THAT(read_file(folder / "tables/materials.csv"),
               Catch::Contains("ledger,stage,material") && Catch::Contains("\"XPS foam 32, 50 mm\""));
    CHECK_THAT(read_file(folder / "tables/days.csv"),
               Catch::Contains("lay up the shell") && Catch::Contains("tape comes off clean"));
    CHECK(ask({"check", folder / "good.jigshell"}).code == 0);
    job.release.mask_land = false;
    save_job(job, folder / "bad.jigshell");
    const auto check = ask({"check", folder / "bad.jigshell"});
    CHECK(check.code == 3);
    CHECK(check.json()["calls"].dump().find("tape land") != std::string::npos);
}

TEST_CASE("bad input is one line on standard error, exit 2 and nothing on standard output") {
    Folder folder;
    const auto cube = put(folder, "c.stl", write_stl_binary(shapes::box({0, 0, 0}, {1, 1, 1})));
    const std::vector<std::vector<std::string>> bad{
        {},
        {"polish", cube},
        {"measure"},
        {"measure", cube, cube},
        {"measure", "/no/such.stl"},
        {"measure", cube, "--unit", "ell"},
        {"measure", cube, "--colour", "red"},
        {"draft", cube},
        {"draft", cube, "--pull", "0,0,0"},
        {"draft", cube, "--pull", "up"},
        {"draft", cube, "--pull", "1,2"},
        {"draft", cube, "--pull"},
        {"draft", cube, "--pull", "0,0,1", "--drag-deg", "x"},
        {"slabs", cube, "--axis", "0,0,1", "--thickness", "0"},
        {"slabs", cube, "--axis", "0,0,1", "--thickness", "0.1", "--sheet", "big"},
        {"laminate", put(folder, "e.json", R"({"plies": []})")},
        {"laminate", put(folder, "w.json", R"({"plies": [{"material": "wood", "thickness_m": 0.1}]})")},
        {"laminate", put(folder, "t.json", R"({"plies": [{"material": 7, "thickness_m": 0.1}]})")},
        {"laminate",
         put(folder, "z.json", R"({"plies": [{"material": "glass mat 300", "thickness_m": 0}]})")},
        {"laminate", put(folder, "x.json", "{")},
        {"report", cube},
        {"check", put(folder, "j.jigshell", "{}")},
        {"pull", cube, "--top", "0"}};
    for (const auto& words : bad) {
        const auto a = ask(words);
        INFO((words.empty() ? std::string("nothing") : words.front()) << ": " << a.err);
        CHECK(a.code == 2);
        CHECK(a.out.empty());
        CHECK(a.err.rfind("error: ", 0) == 0);
        CHECK(std::count(a.err.begin(), a.err.end(), '\n') == 1);
        CHECK(a.err.find("; ") != std::string::npos);
    }
}

TEST_CASE("help says everything, for the whole and for each verb") {
    CHECK_THAT(ask({"--help"}).out, Catch::Contains("slabs MESH") && Catch::Contains("data sheets"));
    for (const auto& v : batch::verbs()) {
        const auto a = ask({v.form.verb, "--help"});
        CHECK(a.code == 0);
        CHECK_THAT(a.out, Catch::Contains(v.form.usage()));
    }
}

TEST_CASE("an interrupt stops the work") {
    Folder folder;
    const auto path = put(folder, "s.stl", write_stl_binary(shapes::sphere(0.3)));
    std::ostringstream out, err;
    Progress progress;
    progress.stop();
    CHECK(batch::run({"pull", path}, out, err, progress) == 130);
    CHECK(out.str().empty());
}

TEST_CASE("split answers by search and by plane, on files of every format") {
    Folder folder;
    const auto ring = shapes::torus(0.3, 0.1, 48);
    for (const auto& [name, bytes] :
         {std::pair{"r.stl", write_stl_binary(ring)}, std::pair{"r.obj", write_obj(ring)},
          std::pair{"r.ply", write_ply(ring)}}) {
        const auto a = ask({"split", put(folder, name, bytes), "--pieces", "2", "--out", folder / "out"});
        INFO(name << " " << a.err);
        REQUIRE(a.code == 0);
        const auto j = a.json();
        REQUIRE(j["pieces"].size() == 2);
        double area = 0;
        for (const auto& p : j["pieces"]) {
            CHECK(p["locks_m2"].get<double>() < 1e-3);
            CHECK(std::abs(p["direction"][2].get<double>()) == Approx(1).margin(1e-6));
            CHECK(p["comes_off"].get<int>() > 0);
            area += p["area_m2"].get<double>();
            const auto back = read_stl(read_file(p["file"]), "piece", 1e-3, quiet);
            CHECK(measure(back, topology_of(back)).area == Approx(p["area_m2"].get<double>()).epsilon(1e-3));
        }
        CHECK(area == Approx(4 * kPi * kPi * 0.3 * 0.1).epsilon(5e-3));
        CHECK(j["seam_length_m"].get<double>() == Approx(2 * kPi * 0.6).epsilon(0.02));
    }
    const auto ring_file = put(folder, "r.stl", write_stl_binary(ring));
    const auto plane = ask({"split", ring_file, "--pieces", "2", "--plane", "0,0,0,0,0,1"});
    REQUIRE(plane.code == 0);
    CHECK(plane.json()["seam_length_m"].get<double>() == Approx(2 * kPi * 0.6).epsilon(5e-3));
    CHECK(ask({"split", ring_file}).code == 2);
    CHECK(ask({"split", ring_file, "--pieces", "2.5"}).code == 2);
    CHECK(ask({"split", ring_file, "--pieces", "7"}).code == 2);
    CHECK(ask({"split", ring_file, "--pieces", "3", "--plane", "0,0,0,0,0,1"}).code == 2);
    CHECK(ask({"split", ring_file, "--plane", "0,0,9,0,0,1"}).err.find("misses") != std::string::npos);
    CHECK(ask({"split", ring_file, "--plane", "0,0,9"}).code == 2);
}

TEST_CASE("draft, pull and measure take STEP, which carries its own unit") {
    Folder folder;
    const auto cone = put(folder, "cone.step", write_step_turned({{0.3, 0.0}, {0.2, 0.4}}));
    const auto m = ask({"measure", cone, "--unit", "m", "--chord", "0.0002"}).json();
    CHECK(m["area_m2"].get<double>() == Approx(kPi * 0.5 * std::hypot(0.1, 0.4)).epsilon(2e-3));
    CHECK(m["size_m"][2].get<double>() == Approx(0.4));
    CHECK_FALSE(m["closed"].get<bool>());
    const auto d = ask({"draft", cone, "--pull", "0,0,1", "--chord", "0.00002"}).json();
    CHECK(d["min_draft_deg"].get<double>() == Approx(degrees(std::atan2(0.1, 0.4))).margin(0.2));
    CHECK(ask({"pull", cone}).json()["pulls"][0]["direction"][2].get<double>() == Approx(1).margin(0.01));
    CHECK(ask({"measure", put(folder, "bad.step", "ISO-10303-21;\nnothing")}).code == 2);
}

TEST_CASE("slabs answer with pins, bevels and offcuts, in every fit, and write the stack") {
    Folder folder;
    const auto cone = put(folder, "cone.stl", write_stl_binary(shapes::frustum(0.3, 0.2, radians(20))));
    const auto slabs = [&](std::vector<std::string> more) {
        std::vector<std::string> words{"slabs",       cone,   "--axis",  "0,0,1",
                                       "--thickness", "0.05", "--sheet", "2x1"};
        words.insert(words.end(), more.begin(), more.end());
        return ask(words);
    };
    const auto over = slabs({"--out", folder / "cut"});
    REQUIRE(over.code == 0);
    const auto j = over.json();
    REQUIRE(j["slabs"].size() == 4);
    for (const auto& s : j["slabs"]) {
        CHECK(s["pins_m"].size() == 2);
        CHECK(s["bevels"][0]["angle_deg"].get<double>() == Approx(20).margin(1));
        CHECK(s["cut_from_slab"].is_null());
    }
    CHECK(j["to_sand_m3"].get<double>() ==
          Approx(j["stack_volume_m3"].get<double>() - j["solid_volume_m3"].get<double>()).epsilon(1e-6));
    CHECK(j["offcuts"].size() > 0);
    const auto stack = read_stl(read_file(folder / "cut/stack.stl"), "stack", 1e-3, quiet);
    CHECK(measure(stack, topology_of(stack)).size.z() == Approx(0.2).epsilon(1e-4));
    const auto under = slabs({"--fit", "undersize"}).json(), middle = slabs({"--fit", "middle"}).json();
    CHECK(under["stack_volume_m3"] < middle["stack_volume_m3"]);
    CHECK(middle["stack_volume_m3"] < j["stack_volume_m3"]);
    CHECK(under["to_fill_m3"].get<double>() > 0);
    const auto hollow = slabs({"--hollow", "0.04"}).json();
    CHECK(hollow["stack_volume_m3"] < j["stack_volume_m3"]);
    CHECK(slabs({"--fit", "loose"}).code == 2);
    CHECK(slabs({"--grain", "maybe"}).code == 2);
    CHECK(slabs({"--hollow", "-1"}).code == 2);
    CHECK(slabs({"--grain", "yes", "--pin", "0.01"}).code == 0);
}

TEST_CASE("a mould without a plug is checked, reported, printed and written as it is cut") {
    Folder folder;
    auto job = fixtures::small_job();
    job.plug.route = Route::direct;
    job.heat.plug_scale = 0.999;
    const auto file = folder / "job.json";
    write_atomically(job_to_json(job).dump(), file);
    const auto a = ask({"plug", file, "--out", folder / "out"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["taken"] == "direct");
    REQUIRE(j["files"].size() == 1);
    const auto name = j["files"][0].get<std::string>();
    CHECK(name.ends_with("mould-as-cut.stl"));
    const auto cut = read_mesh(read_file(name), name, {}, quiet);
    const auto drawn = fixtures::worked_out(job).plug->plans.front().mould->body.volume;
    CHECK(std::abs(enclosed_volume(cut)) == Approx(std::pow(0.999, 3) * drawn).epsilon(2e-3));
    const auto report = ask({"report", file, "--pdf", folder / "job.pdf"});
    REQUIRE(report.code == 0);
    const auto figures = report.json();
    CHECK(figures["shell"]["mass"]["value"].get<double>() ==
          Approx(figures["plug"]["mass"]["value"].get<double>()));
    CHECK(std::filesystem::file_size(folder / "job.pdf") > 10000);
    // What asks for a laminate says that there is none.
    const auto schools = ask({"shell", file});
    CHECK(schools.code == 2);
    CHECK(schools.err.find("nothing is laid up") != std::string::npos);
    // A layer of that kind cannot be typed into a stack.
    job.plug.route = Route::slabs;
    job.shell.layers.front().kind = LayerKind::wall;
    write_atomically(job_to_json(job).dump(), file);
    const auto typed = ask({"check", file});
    CHECK(typed.code == 3);
    CHECK(typed.out.find("a solid wall is not laid up") != std::string::npos);
}

TEST_CASE("plug sets the routes side by side and writes the cut files of the one taken") {
    Folder folder;
    auto job = fixtures::small_job();
    job.plug.board = "PU foam 35, 50 mm";
    const auto file = folder / "job.json";
    write_atomically(job_to_json(job).dump(), file);
    const auto a = ask({"plug", file, "--out", folder / "out"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["taken"] == "slabs");
    REQUIRE(j["routes"].size() == 8);
    for (const auto& r : j["routes"]) {
        CHECK(r["sums"]["hours"]["value"].get<double>() > 0);
        CHECK_FALSE(r["sums"]["cost"]["reason"].get<std::string>().empty());
        CHECK(r["works"].size() > 3);
    }
    CHECK(j["routes"][5]["obstacle"].is_string());
    CHECK(j["routes"][0]["obstacle"].is_null());
    int sheets = 0;
    for (const auto& f : j["files"]) {
        const auto name = f.get<std::string>();
        CHECK(std::filesystem::exists(name));
        sheets += name.find("sheet-") != std::string::npos && name.ends_with(".dxf");
    }
    CHECK(j["files"].size() >= 3);
    // As many sheets as the routes' sheet counts and the report buys.
    CHECK(sheets > 0);
    CHECK(j["routes"][1]["figures"]["sheets"]["value"] == sheets);
    const auto report = ask({"report", file}).json();
    CHECK(report["plug"]["sheets"]["value"] == sheets);
    for (const auto& m : report["run"]["materials"]) {
        if (m["what"] == job.plug.board) CHECK(m["amount"] == sheets);
    }
    job.plug.route = Route::tiles;
    write_atomically(job_to_json(job).dump(), file);
    const auto tiles = ask({"plug", file, "--out", folder / "tiles"}).json();
    CHECK(tiles["files"].size() > 4);
    job.plug.board = "marble";
    write_atomically(job_to_json(job).dump(), file);
    CHECK(ask({"plug", file}).code == 0);  // tiles need no board; the slabs beside them name what is missing
    job.plug.route = Route::slabs;
    write_atomically(job_to_json(job).dump(), file);
    CHECK(ask({"plug", file}).code == 2);
}

TEST_CASE("stiffness answers a cantilever strip by beam theory, from points and from a file") {
    Folder folder;
    // A strip 0.4 × 0.04 of isotropic 4 mm, clamped at one end, 10 N/m down at the other.
    const auto strip = [](int n) {
        Json points = Json::array(), triangles = Json::array();
        for (int i = 0; i <= n; ++i) {
            points.push_back({0.4 * i / n, 0, 0});
            points.push_back({0.4 * i / n, 0.04, 0});
        }
        for (int i = 0; i < n; ++i) {
            triangles.push_back({2 * i, 2 * i + 2, 2 * i + 3});
            triangles.push_back({2 * i, 2 * i + 3, 2 * i + 1});
        }
        return Json{{"points_m", points}, {"triangles", triangles}};
    };
    const Json ply{
        {"E1_Pa", 20e9}, {"E2_Pa", 20e9}, {"G12_Pa", 10e9}, {"nu12", 0.0}, {"density_kg_m3", 1900}};
    Json test{
        {"mesh", strip(16)},
        {"stack", {{"plies", {{{"material", ply}, {"angle_deg", 0}, {"thickness_m", 0.004}}}}}},
        {"zero_direction", {1, 0, 0}},
        {"supports", {{{"within_m", {{0, -1, -1}, {0, 1, 1}}}, {"fix", {"x", "y", "z", "rx", "ry", "rz"}}}}},
        {"loads", {{{"line_force_N_m", {0, 0, -10}}, {"within_m", {{0.4, -1, -1}, {0.4, 1, 1}}}}}},
        {"probes_m", {{0.4, 0.02, 0}, {0.2, 0.02, 0}}}};
    const auto run = [&](const Json& j) { return ask({"stiffness", put(folder, "case.json", j.dump())}); };
    const auto a = run(test);
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    const double EI = 20e9 * 0.04 * std::pow(0.004, 3) / 12, P = 10 * 0.04;
    CHECK(j["probes"][0]["displacement_m"][2].get<double>() ==
          Approx(-P * std::pow(0.4, 3) / (3 * EI)).epsilon(0.01));
    CHECK(j["probes"][0]["rotation_rad"][1].get<double>() == Approx(P * 0.16 / (2 * EI)).epsilon(0.01));
    CHECK(j["probes"][1]["displacement_m"][2].get<double>() ==
          Approx(-P * 0.04 * (3 * 0.4 - 0.2) / (6 * EI)).epsilon(0.01));
    CHECK(j["reactions_N"][2].get<double>() == Approx(P));
    CHECK(j["mass_kg"].get<double>() == Approx(0.4 * 0.04 * 0.004 * 1900));
    CHECK(j["degrees_of_freedom"] == 16 * 12);
    // Refined, and read from a file in millimetres beside the case.
    test["refine_to_m"] = 0.01;
    CHECK(run(test).json()["triangles"].get<int>() > 100);
    TriangleMesh mesh;
    for (int i = 0; i <= 16; ++i) {
        mesh.points.emplace_back(0.025 * i, 0, 0);
        mesh.points.emplace_back(0.025 * i, 0.04, 0);
    }
    for (std::uint32_t i = 0; i < 16; ++i) {
        mesh.triangles.push_back({2 * i, 2 * i + 2, 2 * i + 3});
        mesh.triangles.push_back({2 * i, 2 * i + 3, 2 * i + 1});
    }
    put(folder, "strip.stl", write_stl_binary(mesh));
    test.erase("refine_to_m");
    test["mesh"] = "strip.stl";
    CHECK(run(test).json()["max_displacement_m"].get<double>() ==
          Approx(j["max_displacement_m"].get<double>()).epsilon(1e-4));
    // Bad cases are refused in one line.
    const auto wrong = [&](const char* pointer, const Json& value) {
        auto bad = test;
        bad[Json::json_pointer(pointer)] = value;
        const auto answer = run(bad);
        INFO(pointer << ": " << answer.err);
        CHECK(answer.code == 2);
        CHECK(answer.out.empty());
        CHECK(std::count(answer.err.begin(), answer.err.end(), '\n') == 1);
    };
    wrong("/mesh", "nowhere.stl");
    wrong("/mesh", Json{{"points_m", {{0, 0, 0}}}, {"triangles", {{0, 1, 2}}}});
    wrong("/supports", Json::array());
    wrong("/supports/0/fix/0", "sideways");
    wrong("/supports/0/within_m", Json::array({1, 2}));
    wrong("/loads/0", Json{{"wind", 3}});
    wrong("/stack/plies/0/thickness_m", -1);
    wrong("/zero_direction", Json::array({0, 0, 0}));
    wrong("/refine_to_m", 0);
}

TEST_CASE("tool tries a job's tool out, seeks a pitch and writes ribs and drilling") {
    Folder folder;
    auto job = fixtures::small_job();
    job.back.pitch = 0.3;
    const auto file = folder / "case.jigshell";
    save_job(job, file);
    const auto a = ask({"tool", file, "--quick", "yes", "--suggest", "yes", "--out", folder / "out"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["cases"].size() >= 5);
    double weight = 0;
    for (const auto& c : j["cases"]) {
        CHECK((c["max_displacement_m"].get<double>() > 0) == (c["case"] != "surface_bag"));
        CHECK_FALSE(c["where"].get<std::string>().empty());
        if (c["case"] == "standing") weight = -c["reactions_N"].get<double>();
    }
    CHECK(weight == Approx(j["mass_kg"].get<double>() * kGravity).epsilon(1e-6));
    CHECK(j["tips"]["force_N"].get<double>() > 0);
    CHECK_FALSE(j["tips"]["where"].get<std::string>().empty());
    CHECK(ask({"tool", file, "--piece", "0"}).code == 2);
    CHECK(j["suggestion"]["pitches"].size() >= 4);
    CHECK(j["suggestion"]["pitch_m"].get<double>() > 0);
    REQUIRE(j["files"].size() >= 4);
    for (const auto& f : j["files"]) CHECK(std::filesystem::file_size(f.get<std::string>()) > 500);
    // A tool that cannot stand is bad input with one line, and nothing on standard output.
    job.back.kind = BackKind::tubes;
    job.back.across = false;
    save_job(job, file);
    const auto bad = ask({"tool", file, "--quick", "yes"});
    CHECK(bad.code == 2);
    CHECK(bad.out.empty());
    CHECK(std::count(bad.err.begin(), bad.err.end(), '\n') == 1);
    job.shell.resin = "honey";
    save_job(job, file);
    CHECK(ask({"tool", file}).err.find("honey") != std::string::npos);
    CHECK(ask({"tool", folder / "none.jigshell"}).code == 2);
}

TEST_CASE("a part's builds are set side by side, and one is matched in another cloth") {
    Folder folder;
    const auto file = fixtures::data() + "/demo/pavilion-petal.json";
    const auto other = folder / "matched.jigshell";
    const auto a = ask({"part", file, "--quick", "yes", "--builds", "yes", "--as-stiff", "glass over foam",
                        "--cloth", "carbon cloth 200 twill", "--out", other});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["loads"].size() == 3);
    REQUIRE(j["builds"].size() == 3);
    CHECK(j["builds"][0]["now"] == true);
    CHECK(j["builds"][1]["sums"]["gives"]["value"].get<double>() <
          j["builds"][0]["sums"]["gives"]["value"].get<double>());
    const auto& stiff = j["as_stiff"];
    CHECK(stiff["found_Nm"].get<double>() >= stiff["wanted_Nm"].get<double>());
    const auto kept = load_job(other).part.builds;
    REQUIRE(kept.size() == 4);
    CHECK(kept.back().name == "as stiff as glass over foam");
    CHECK(to_json_value(kept.back().layers) == stiff["layers"]);
    // Without a load the builds are answered all the same.
    const auto dome = fixtures::data() + "/demo/radar-dome.json";
    const auto alone = ask({"part", dome, "--builds", "yes"}).json();
    CHECK(alone["builds"].size() == 1);
    CHECK_FALSE(alone.contains("loads"));
    CHECK(ask({"part", dome, "--as-stiff", "now", "--cloth", "glass mat 300"}).json()["as_stiff"]["plies"] >=
          1);
    CHECK(ask({"part", dome}).code == 2);
    CHECK(ask({"part", dome, "--as-stiff", "then", "--cloth", "glass mat 300"}).code == 2);
    CHECK(ask({"part", dome, "--as-stiff", "now"}).code == 2);
    CHECK(ask({"part", dome, "--as-stiff", "now", "--cloth", "paper"}).code == 2);
    CHECK(ask({"part", dome, "--cloth", "glass mat 300"}).code == 2);
    CHECK(ask({"part", dome, "--builds", "perhaps"}).code == 2);
}

TEST_CASE("shell answers with its order, the schools and stacks that were sought") {
    Folder folder;
    auto job = fixtures::small_job();
    job.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::flange)};
    const auto file = folder / "case.jigshell";
    save_job(job, file);
    const auto a = ask({"shell", file});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["schools"].size() == 7);
    CHECK(j["zones"].size() == 1);
    CHECK(j["order"].size() > 5);
    REQUIRE(j["stacks"].size() > 3);
    CHECK(j["stacks"][0]["mass_kg"].get<double>() < j["stacks"][1]["mass_kg"].get<double>());
    if (!j["best_stack"].is_null()) CHECK(j["stacks"][j["best_stack"].get<std::size_t>()]["fits"] == true);
    // A build in units is laid, told and written as a job of its own.
    const auto other = folder / "24.jigshell";
    const auto built = ask({"shell", file, "--build", "24", "--out", other});
    REQUIRE(built.code == 0);
    CHECK(std::abs(built.json()["units"].get<double>() - 24) <= 0.5);
    CHECK(to_json_value(load_job(other).shell.layers) == built.json()["layers"]);
    CHECK(load_job(file).shell.layers == job.shell.layers);
    CHECK(ask({"shell", file, "--build", "13 + 1"}).code == 2);
    CHECK(ask({"shell", file, "--out", other}).code == 2);
    job.shell.resin = "honey";
    save_job(job, file);
    CHECK(ask({"shell", file}).code == 2);
}

TEST_CASE("check tries the tool: what cannot stand is a stop, and report says the same") {
    Folder folder;
    auto job = fixtures::small_job();
    const auto file = put(folder, "job.json", job_to_json(job).dump());
    const auto sound = ask({"check", file});
    INFO(sound.err);
    CHECK(sound.code == 0);
    const auto report = ask({"report", file}).json();
    CHECK(report["calls"] == sound.json()["calls"]);
    // Figures of the tool on trial are among the back's.
    CHECK(report["back"].contains("tips"));
    CHECK(report["back"].contains("tool_mass"));
    const auto tool = ask({"tool", file}).json();
    CHECK(tool["mass_kg"].get<double>() == report["back"]["tool_mass"]["value"].get<double>());
    CHECK(tool["seconds"]["all"].get<double>() >= tool["seconds"]["quick"].get<double>());
    job.back.kind = BackKind::tubes;
    job.back.across = false;  // no crossing bears the tool
    put(folder, "job.json", job_to_json(job).dump());
    const auto fallen = ask({"check", file});
    CHECK(fallen.code == 3);
    bool said = false;
    const auto calls = fallen.json()["calls"];
    for (const auto& c : calls) said |= c["stage"] == "back" && c["severity"] == "stop";
    CHECK(said);
    CHECK_FALSE(ask({"report", file}).json()["back"].contains("tips"));
    CHECK(ask({"tool", file}).code == 2);
}

TEST_CASE("a shop's own list reaches every verb that reads the library") {
    Folder folder;
    const auto file = put(folder, "job.json", job_to_json(fixtures::small_job()).dump());
    auto own = fixtures::shop();
    for (auto& r : own.rates) {
        if (r.name == "labour") r.value = 100;
    }
    put(folder, "rates.json", write_list(own, "rates"));
    const auto library = folder.path.string();
    const auto once = [](const Json& j) { return j["run"]["once"]["value"].get<double>(); };
    const auto plain = ask({"report", file}).json(),
               dear = ask({"report", file, "--library", library}).json();
    const double hours = plain["run"]["hours_once"]["value"].get<double>() / 3600;
    CHECK(once(dear) - once(plain) == Approx((100 - fixtures::shop().rate("labour")) * hours));
    CHECK(ask({"plug", file, "--library", library}).json()["routes"] != ask({"plug", file}).json()["routes"]);
    put(folder, "rates.json",
        R"({"list": "rates", "entries": [{"name": "labour", "unit": "¤/h", "value": -1}]})");
    for (const char* verb : {"report", "check", "plug", "tool", "shell"})
        CHECK(ask({verb, file, "--library", library}).code == 2);
}

TEST_CASE("part tries a job's part under its loads, and says what it wants where there are none") {
    const fixtures::Folder folder;
    const auto job = std::string(JIG_SOURCE_DATA) + "/demo/pavilion-petal.json";
    const auto quick = ask({"part", job, "--quick", "yes"});
    INFO(quick.err);
    REQUIRE(quick.code == 0);
    const auto j = quick.json();
    REQUIRE(j["loads"].size() == 3);
    const auto& snow = j["loads"][0];
    CHECK(snow["name"] == "wet snow");
    // A kilopascal over its plan and its own weight stand on the rim.
    double plan = 0, mass = 0;
    for (const auto& r : j["regions"]) {
        mass += r["mass_kg"].get<double>();
        plan += r["area_m2"].get<double>();
    }
    CHECK(j["mass_kg"].get<double>() == Approx(mass).epsilon(0.02));
    CHECK(snow["reactions_N"].get<double>() > 0.8 * 1000 * plan);
    CHECK(snow["reactions_N"].get<double>() < 1000 * plan + 9.81 * mass);
    for (const auto& load : j["loads"]) {
        CHECK(load["meshes_differ_m"] == 0);
        double most = 0;
        for (const auto& share : load["shares"]) most = std::max(most, share.get<double>());
        CHECK(load["holds_times"].get<double>() <= 1 / most * 1.0001);
    }
    CHECK(j["loads"][1]["reactions_N"].get<double>() < 0);
    const auto none = ask({"part", std::string(JIG_SOURCE_DATA) + "/demo/cello-case.json"});
    CHECK(none.code == 2);
    CHECK(none.out.empty());
    CHECK_THAT(none.err, Catch::Contains("carry"));
    // On its rim alone a pull near it lifts some of the rim, and wind all of the part.
    auto resting = load_job(job);
    resting.part.duty.hold = PartHold::rests;
    const double pull = 0.1 * 9.81 * mass;
    resting.part.duty.loads[2].pushes = {{0.9, 0, -pull, 0.05}};
    save_job(resting, folder / "resting.jigshell");
    const auto rests = ask({"part", folder / "resting.jigshell", "--quick", "yes"}).json();
    const auto &pulled = rests["loads"][2], &blown = rests["loads"][1];
    CHECK(pulled["lifted_share"].get<double>() > 0);
    CHECK(pulled["lifted_share"].get<double>() < 1);
    CHECK(pulled["reactions_N"].get<double>() < 9.81 * j["mass_kg"].get<double>());
    CHECK(blown["lifted_share"] == 0);
    CHECK(blown["reactions_N"].get<double>() < 0);
    CHECK(rests["loads"][0]["lifted_share"] == 0);
    for (const auto& load : j["loads"]) CHECK(load["lifted_share"] == 0);
    // Bolted nowhere it cannot be tried, and that is said in a line.
    auto unheld = load_job(job);
    unheld.part.duty.hold = PartHold::places;
    save_job(unheld, folder / "loose.jigshell");
    const auto loose = ask({"part", folder / "loose.jigshell"});
    CHECK(loose.code == 2);
    CHECK_THAT(loose.err, Catch::Contains("bolted at places"));
}
