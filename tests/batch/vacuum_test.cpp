#include <catch2/catch.hpp>

#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/batch/asking.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using asking::ask;
using asking::put;
using fixtures::Folder;

namespace {

Json vacuum(const std::string& text) {
    const Folder folder;
    const auto a = ask({"vacuum", put(folder, "case.json", text)});
    INFO(a.err);
    REQUIRE(a.code == 0);
    return a.json();
}

std::string no_case(const std::string& text) {
    const Folder folder;
    const auto a = ask({"vacuum", put(folder, "case.json", text)});
    CHECK(a.code == 2);
    CHECK(a.out.empty());
    return a.err;
}

/// A trough without its floor, in millimetres as STL.
std::string trough(double l, double w, double d) {
    const auto whole = shapes::box({0, 0, 0}, {l, w, d});
    std::vector<std::uint32_t> keep;
    for (std::size_t f = 0; f < whole.triangles.size(); ++f) {
        if (whole.area_vector2(f).normalized().z() > -0.5) keep.push_back(static_cast<std::uint32_t>(f));
    }
    return write_stl_binary(some_faces(whole, keep));
}

}  // namespace

TEST_CASE("vacuum answers end pressure, times, leak and force by hand") {
    const auto j = vacuum(
        R"({"parts": {"area_m2": 2, "porous_m": 0.003, "hoses": [{"length_m": 3, "bore_m": 0.01}], "trap_m3": 0.005},
            "pump": {"speed_m3_s": 0.004, "ultimate_Pa": 100}, "drop": {"from_Pa": 1000, "to_Pa": 2200, "seconds": 600},
            "projected_m2": 1.5, "times_to_Pa": [50000, 1000, 50]})");
    const double V = 0.006 + 3 * kPi * 0.000025 + 0.005, Q = V * 2, end = 100 + Q / 0.004;
    CHECK(j["volume_m3"].get<double>() == Approx(V));
    CHECK(j["leak_Pa_m3_s"].get<double>() == Approx(Q));
    CHECK(j["room_Pa"].get<double>() == Approx(101325));
    CHECK(j["end_Pa"].get<double>() == Approx(end));
    CHECK(j["force_N"].get<double>() == Approx((101325 - end) * 1.5));
    CHECK(j["times_s"][0].get<double>() == Approx(V / 0.004 * std::log((101325 - end) / (50000 - end))));
    CHECK(j["times_s"][1].get<double>() == Approx(V / 0.004 * std::log((101325 - end) / (1000 - end))));
    CHECK(j["times_s"][2].is_null());
}

TEST_CASE("vacuum tells leak from pauses and pauses from leak, and less is to be had high up") {
    const auto seen = vacuum(
        R"({"volume_m3": 0.05, "pump": {"speed_m3_s": 0.005}, "cycling": {"on_s": 12, "off_s": 100, "low_Pa": 3000, "high_Pa": 6000}})");
    CHECK(seen["leak_Pa_m3_s"].get<double>() == Approx(1.5));
    CHECK(seen["off_s"].get<double>() == Approx(100));
    CHECK(seen["seen_duty"].get<double>() == Approx(12.0 / 112));
    const double on = 0.05 / 0.005 * std::log((6000 - 300.0) / (3000 - 300.0));
    CHECK(seen["duty"].get<double>() == Approx(on / (on + 100)));
    const auto back = vacuum(
        R"({"volume_m3": 0.05, "pump": {"speed_m3_s": 0.005}, "leak_Pa_m3_s": 1.5, "cycling": {"low_Pa": 3000, "high_Pa": 6000}})");
    CHECK(back["off_s"].get<double>() == Approx(100));
    CHECK(back["duty"].get<double>() == Approx(on / (on + 100)));
    const auto high = vacuum(R"({"volume_m3": 0.05, "pump": {"speed_m3_s": 0.005}, "altitude_m": 3000})");
    CHECK(high["room_Pa"].get<double>() == Approx(70108).epsilon(2e-4));
    // Without a pump there is no end, and no force to speak of.
    const auto shut = vacuum(R"({"volume_m3": 0.05, "projected_m2": 2, "times_to_Pa": [1000]})");
    CHECK(shut["end_Pa"].is_null());
    CHECK(shut["force_N"].get<double>() == 0);
    CHECK(shut["times_s"][0].is_null());
}

TEST_CASE("vacuum refuses what cannot be, by place and with a mend") {
    for (const auto& [text, said] : std::vector<std::pair<const char*, const char*>>{
             {"{}", "parts"},
             {R"({"volume_m3": 0})", "no volume"},
             {R"({"volume_m3": -1})", "volume_m3"},
             {R"({"volume_m3": "much"})", "number"},
             {R"({"volume_m3": 1, "parts": {}})", "both"},
             {R"({"volume_m3": 1, "speed": 3})", "\"speed\""},
             {R"({"volume_m3": 1, "pump": {}})", "speed_m3_s"},
             {R"({"volume_m3": 1, "leak_Pa_m3_s": 1, "drop": {"from_Pa": 1, "to_Pa": 2, "seconds": 3}})",
              "more than once"},
             {R"({"volume_m3": 1, "drop": {"from_Pa": 5, "to_Pa": 2, "seconds": 3}})", "rises"},
             {R"({"volume_m3": 1, "drop": {"from_Pa": 1, "to_Pa": 2, "seconds": 0}})", "seconds"},
             {R"({"volume_m3": 1, "cycling": {"low_Pa": 5, "high_Pa": 5}})", "high_Pa"},
             {R"([1])", "object"},
             {R"({"volume_m3": 1e99})", "volume_m3"}}) {
        INFO(text);
        CHECK_THAT(no_case(text), Catch::Contains(said));
    }
}

TEST_CASE("bag answers a trough's film by hand, in the file's unit, and writes it to size") {
    const Folder folder;
    const auto path = put(folder, "trough.stl", trough(1.2, 0.5, 0.2));
    const auto a = ask({"bag", path, "--pull", "0,0,1", "--ease", "0", "--pleat", "0.5", "--film", "1.5",
                        "--out", folder / "film"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["girths_m"][0].get<double>() == Approx(1.6).epsilon(1e-5));
    CHECK(j["girths_m"][1].get<double>() == Approx(0.9).epsilon(1e-5));
    CHECK(j["sheet_m"] == j["girths_m"]);
    CHECK(j["land_m"].get<double>() == Approx(3.4).epsilon(1e-5));
    CHECK(j["slack_m"].get<double>() == Approx(1.6).epsilon(1e-4));
    double taken = 0;
    for (const auto& p : j["pleats"]) taken += 2 * p["height_m"].get<double>();
    CHECK(taken == Approx(j["slack_m"].get<double>()));
    CHECK(j["pleats"].size() == 4);
    CHECK(j["tape_m"].get<double>() == Approx(5.0).epsilon(1e-4));
    CHECK(j["joins"] == 0);
    REQUIRE(j["files"].size() == 2);
    for (const auto& file : j["files"]) {
        const auto name = file.get<std::string>();
        if (name.find(".dxf") == std::string::npos) continue;
        // Millimetres: the sheet is the largest outline in it.
        const auto loops = read_outline(read_file(name), name, 1e-3);
        CHECK((high_corner({loops}) - low_corner({loops})).x() == Approx(1.6).epsilon(1e-3));
    }
    // Short by 40 mm across: two arcs of a quarter, each of which saves (2 − π/2)·r.
    const auto tight = ask({"bag", path, "--pull", "0,0,1", "--sheet", "0.86,1.6"}).json();
    CHECK(tight["sheet_m"] == Json{1.6, 0.86});
    CHECK(tight["bridge"]["reaches"] == true);
    CHECK(tight["bridge"]["along"] == false);
    CHECK(tight["bridge"]["short_m"].get<double>() == Approx(0.04).epsilon(1e-3));
    CHECK(tight["bridge"]["radius_m"].get<double>() == Approx(0.04 / (4 - 1.5707963 * 2)).epsilon(0.01));
    CHECK(tight["bridge"]["gap_m"].get<double>() ==
          Approx(0.41421356 * 0.04 / (4 - 1.5707963 * 2)).epsilon(0.01));
    CHECK(ask({"bag", path, "--pull", "0,0,1", "--sheet", "0.95,1.7"}).json()["bridge"].is_null());
    CHECK(ask({"bag", path, "--pull", "0,0,1", "--sheet", "1.6,0.2"}).json()["bridge"]["reaches"] == false);
    for (const char* bad : {"1.6", "1.6,0", "1.6,-1", "1.6,2000", "a,b", "1,2,3"})
        CHECK(ask({"bag", path, "--pull", "0,0,1", "--sheet", bad}).code == 2);
    // In metres it is a thousand times as large.
    const auto large = ask({"bag", path, "--pull", "0,0,1", "--unit", "m"}).json();
    CHECK(large["girths_m"][0].get<double>() == Approx(1600).epsilon(1e-4));
    CHECK(ask({"bag", path, "--pull", "0,0,0"}).code == 2);
    CHECK(ask({"bag", path, "--pull", "0,0,1", "--ease", "-1"}).code == 2);
    const auto ball = put(folder, "ball.stl", write_stl_binary(shapes::sphere(0.3)));
    const auto closed = ask({"bag", ball, "--pull", "0,0,1"});
    CHECK(closed.code == 2);
    CHECK_THAT(closed.err, Catch::Contains("rim"));
}

TEST_CASE("bag of a job is what its report says, with its calls") {
    const Folder folder;
    auto job = fixtures::small_job();
    job.part.how = LayUp::infused;
    job.bag.drop = {2000, 5000, 600};
    const auto path = folder / "own.jigshell";
    save_job(job, path);
    const auto j = ask({"bag", path, "--out", folder / "film"}).json();
    const auto report = ask({"report", path}).json();
    CHECK(j["closed"] == true);
    CHECK(j["film_m2"].get<double>() == Approx(report["bag"]["film"]["value"].get<double>()));
    CHECK(j["tape_m"].get<double>() == Approx(report["bag"]["tape"]["value"].get<double>()));
    CHECK(j["end_Pa"].get<double>() == Approx(report["bag"]["reached"]["value"].get<double>()));
    CHECK(j["files"].size() == 3);
    REQUIRE(j["layers"].size() == 4);
    CHECK(j["layers"][0]["name"] == "peel ply");
    CHECK(j["layers"][2]["name"] == "flow medium");
    for (const auto& l : j["layers"]) {
        CHECK(l["off_roll_m"].get<double>() > 0);
        CHECK(l["darts"].is_null() == (l["name"] == "bag film"));
    }
    CHECK(j["bridge"].is_null());
    CHECK_THAT(read_file(folder / "film/layers.csv"), Catch::Contains("flow medium"));
    bool leaks = false;
    for (const auto& call : j["calls"]) leaks |= call["key"] == "leaks" && call["severity"] == "stop";
    CHECK(leaks);
    CHECK(ask({"check", path}).code == 3);
    CHECK(j["clamp"].is_null());
    // A job has its own land and ease.
    CHECK(ask({"bag", path, "--ease", "0.1"}).code == 2);
    CHECK(ask({"bag", path, "--sheet", "2,2"}).code == 2);
    job.brief.process = Process::squeeze;
    save_job(job, path);
    const auto pressed = ask({"bag", path}).json();
    CHECK(pressed["closed"] == false);
    CHECK(pressed["layers"].empty());
    CHECK(pressed["clamp"]["pressed_Pa"].get<double>() == Approx(job.edge.squeeze));
    CHECK(pressed["clamp"]["bolts"].get<std::size_t>() == pressed["clamp"]["order_m"].size());
    CHECK(pressed["clamp"]["torque_Nm"].get<double>() > 0);
    job.brief.process = fixtures::small_job().brief.process;
    job.part.how = LayUp::hand;
    save_job(job, path);
    CHECK(ask({"bag", path}).json()["closed"] == false);
    CHECK(ask({"bag", path, "--out", folder / "none"}).code == 2);
}

TEST_CASE("vacuum fits a line through the readings of a drop test and says how sure it is") {
    Folder folder;
    const auto ask_case = [&](const std::string& drop) {
        return ask({"vacuum",
                    put(folder, "case.json",
                        R"({"volume_m3": 0.02, "pump": {"speed_m3_s": 0.002, "ultimate_Pa": 100}, "drop": )" +
                            drop + "}")});
    };
    const auto good = ask_case(
        R"({"readings": [{"seconds": 0, "Pa": 1000}, {"seconds": 60, "Pa": 1060}, {"seconds": 120, "Pa": 1120}]})");
    REQUIRE(good.code == 0);
    const auto j = good.json();
    CHECK(j["leak_Pa_m3_s"].get<double>() == Approx(0.02));
    CHECK(j["drop"]["rise_Pa_s"].get<double>() == Approx(1));
    CHECK(j["drop"]["spread_Pa_s"].get<double>() == Approx(0).margin(1e-9));
    CHECK(j["drop"]["from_Pa"].get<double>() == Approx(1000));
    CHECK(j["drop"]["flattens"].is_null());
    CHECK(j["end_Pa"].get<double>() == Approx(100 + 0.02 / 0.002));
    // A gauge that falls is no leak; two readings have no spread.
    const auto falls =
        ask_case(R"({"readings": [{"seconds": 0, "Pa": 1000}, {"seconds": 60, "Pa": 900}]})").json();
    CHECK(falls["leak_Pa_m3_s"] == 0);
    CHECK(falls["drop"]["rise_Pa_s"].get<double>() < 0);
    CHECK(falls["drop"]["spread_Pa_s"].is_null());
    for (const char* bad : {R"({"readings": []})", R"({"readings": [{"seconds": 0, "Pa": 1000}]})",
                            R"({"readings": [{"seconds": 5, "Pa": 1}, {"seconds": 5, "Pa": 2}]})",
                            R"({"readings": [{"seconds": 0}, {"seconds": 60, "Pa": 900}]})",
                            R"({"readings": [{"seconds": -1, "Pa": 5}, {"seconds": 60, "Pa": 900}]})"}) {
        INFO(bad);
        CHECK(ask_case(bad).code == 2);
    }
}
