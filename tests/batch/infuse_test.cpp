// The verbs infuse, drape and kit, asked as a user asks them.
#include <catch2/catch.hpp>

#include "core/job/job_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/batch/asking.hpp"

using namespace jig;
using asking::ask;
using asking::put;

namespace {

/// Two triangles: 1 m × 0.25 m, fed at x = 0.
const char* const kCase = R"({
 "mesh": {"points_m": [[0,0,0],[1,0,0],[1,0.25,0],[0,0.25,0]], "triangles": [[0,1,2],[0,2,3]]}, "unit": "m",
 "layers": [{"K_m2": [2e-10, 2e-10, 1e-11], "thickness_m": 0.003, "porosity": 0.5}],
 "zero_direction": [1,0,0], "viscosity_Pas": 0.2, "density_kg_m3": 1100, "gravity_m_s2": [0,0,0],
 "feeds": [{"within_m": [[-0.001,-1,-1],[0.001,1,1]], "pressure_Pa": 100000, "open": {"at_s": 0}}],
 "vents": [{"within_m": [[0.999,-1,-1],[1.001,1,1]], "pressure_Pa": 10000}],
 "probes_m": [[0.5, 0.1, 0], [0.25, 0.2, 0]], "times_s": [5000, 0], "end_s": 100000})";

std::string dome_stl() {
    TriangleMesh m;
    constexpr std::uint32_t n = 24;
    for (std::uint32_t j = 0; j <= n; ++j) {
        for (std::uint32_t i = 0; i <= n; ++i) {
            const double x = -0.15 + 0.3 * i / n, y = -0.15 + 0.3 * j / n;
            m.points.emplace_back(x, y, std::sqrt(0.09 - x * x - y * y));
        }
    }
    for (std::uint32_t j = 0; j < n; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = j * (n + 1) + i;
            m.triangles.push_back({a, a + 1, a + n + 2});
            m.triangles.push_back({a, a + n + 2, a + n + 1});
        }
    }
    return write_stl_binary(m);
}

}  // namespace

TEST_CASE("a coarse strip is laid finer and fills by the law") {
    const fixtures::Folder folder;
    const auto a = ask({"infuse", put(folder, "case.json", kCase)});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    const double known = 0.5 * 0.2 / (2 * 2e-10 * 9e4);
    CHECK(j["fill_s"].get<double>() == Approx(known).epsilon(0.01));
    CHECK(j["arrivals_s"][0].get<double>() == Approx(known / 4).epsilon(0.03));
    CHECK(j["arrivals_s"][1].get<double>() == Approx(known / 16).epsilon(0.08));
    CHECK(j["front"][1].get<double>() < 0.05);
    CHECK(j["front"][0].get<double>() == Approx(1).epsilon(1e-4));
    CHECK(j["dry"].empty());
    CHECK(j["feeds"][0]["opened_s"].get<double>() == 0);
    CHECK(j["resin_kg"].get<double>() ==
          Approx(j["held_kg"].get<double>() + j["bled_kg"].get<double>()).epsilon(1e-9));
    CHECK(j["held_kg"].get<double>() == Approx(0.25 * 0.003 * 0.5 * 1100).epsilon(1e-3));
}

TEST_CASE("resins of the library and of their own flow, and old resin is slower") {
    const fixtures::Folder folder;
    const auto with = [&](const Json& viscosity) {
        auto c = Json::parse(kCase);
        c["viscosity_Pas"] = viscosity;
        const auto a = ask({"infuse", put(folder, "case.json", c.dump())});
        INFO(a.err);
        REQUIRE(a.code == 0);
        return a.json();
    };
    const auto fresh = with({{"resin", "epoxy, infusion"}, {"T_K", 293.15}, {"mixed_s", 0}});
    const auto old = with({{"resin", "epoxy, infusion"}, {"T_K", 293.15}, {"mixed_s", 7200}});
    REQUIRE_FALSE(fresh["fill_s"].is_null());
    CHECK((old["fill_s"].is_null() || old["fill_s"].get<double>() > fresh["fill_s"].get<double>()));
    const auto stuck = with({{"mu0_Pas", 0.2}, {"tau_s", 300}});
    CHECK(stuck["fill_s"].is_null());
    CHECK(stuck["filled"].get<double>() ==
          Approx(std::sqrt(2 * 2e-10 * 9e4 * 300 / (0.5 * 0.2))).epsilon(0.02));
}

TEST_CASE("what is wrong with an infusion is said in a line") {
    const fixtures::Folder folder;
    const auto refused = [&](const std::function<void(Json&)>& spoil, const char* word) {
        auto c = Json::parse(kCase);
        spoil(c);
        const auto a = ask({"infuse", put(folder, "bad.json", c.dump())});
        INFO(a.err);
        CHECK(a.code == 2);
        CHECK(a.out.empty());
        CHECK(a.err.find(word) != std::string::npos);
    };
    refused([](Json& c) { c["feeds"] = Json::array(); }, "no feed");
    refused([](Json& c) { c["feeds"][0]["within_m"] = {{5, 5, 5}, {6, 6, 6}}; }, "no point");
    refused([](Json& c) { c["layers"] = Json::array(); }, "no layer");
    refused([](Json& c) { c["layers"][0]["K_m2"] = {-1, 1, 1}; }, "permeability");
    refused([](Json& c) { c["layers"][0]["porosity"] = 0; }, "outside");
    refused([](Json& c) { c["viscosity_Pas"] = 0; }, "flow");
    refused([](Json& c) { c["viscosity_Pas"] = {{"resin", "treacle"}, {"T_K", 300}}; }, "resin");
    refused([](Json& c) { c["feeds"][0]["open"] = {{"at_s", 1}, {"when_wet_m", {0, 0, 0}}}; }, "keep one");
    refused([](Json& c) { c["zero_direction"] = {0, 0, 0}; }, "length");
    refused([](Json& c) { c["gravty_m_s2"] = {0, 0, 0}; }, "gravty");
    refused([](Json& c) { c["mesh"]["triangles"] = {{0, 1, 9}}; }, "no point 9");
}

TEST_CASE("cloth over a mesh file is answered with its pattern") {
    const fixtures::Folder folder;
    const auto mesh = put(folder, "dome.stl", dome_stl());
    const auto a = ask({"drape", mesh, "--seed", "0,0,0.3", "--warp", "1,0,0", "--cell", "0.01", "--lock-deg",
                        "5", "--probe", "0,0,0.3", "--probe", "0.1,0.1,0.26", "--out", folder / "out"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["covered_m2"].get<double>() == Approx(j["area_m2"].get<double>()).epsilon(1e-9));
    CHECK(j["flat_area_m2"].get<double>() > j["covered_m2"].get<double>());
    CHECK(j["max_shear_deg"].get<double>() > 5);
    REQUIRE(j["shear_deg"].size() == 2);
    CHECK(j["shear_deg"][0].get<double>() < 0.3);
    // uv/R² of the sphere, near enough: (0.1 ÷ 0.3)², in degrees, and a little more along the arcs.
    CHECK(j["shear_deg"][1].get<double>() == Approx(6.9).margin(0.8));
    CHECK(j["locked_m2"].get<double>() > 0);
    CHECK(j["files"].size() == 2);
    CHECK(ask({"drape", mesh, "--seed", "0,0,0.3", "--warp", "0,0,1"}).code == 2);
    CHECK(ask({"drape", mesh, "--warp", "0,0,1"}).code == 2);
    CHECK(ask({"drape", mesh, "--seed", "0,0,0.3", "--warp", "1,0,0", "--probe", "1,2"}).code == 2);
    CHECK(ask({"drape", mesh, "--seed", "0,0,0.3", "--seed", "0,0,0.3", "--warp", "1,0,0"}).code == 2);
}

TEST_CASE("cloth is cut before it is laid, along as many lines as are given, seen along any pull") {
    const fixtures::Folder folder;
    const auto mesh = put(folder, "dome.stl", dome_stl());
    const auto ask_cut = [&](const std::vector<std::string>& more) {
        std::vector<std::string> words{"drape",   mesh,     "--seed", "0,0,0.3",    "--warp",
                                       "1,0.3,0", "--cell", "0.01",   "--lock-deg", "5"};
        words.insert(words.end(), more.begin(), more.end());
        return ask(words);
    };
    const auto whole = ask_cut({}).json();
    CHECK(whole["cut_m"] == 0);
    // Through the middle all across: an arc of the sphere on either side of the top.
    const auto a = ask_cut({"--cut", "0,-1,0,1", "--out", folder / "cut"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["cut_m"].get<double>() == Approx(2 * 0.3 * std::asin(0.5)).epsilon(2e-3));
    CHECK(j["covered_m2"].get<double>() == Approx(j["area_m2"].get<double>()).epsilon(1e-9));
    CHECK(j["max_shear_deg"].get<double>() < whole["max_shear_deg"].get<double>());
    CHECK(j["flat_size_m"][0].get<double>() > 3);
    CHECK(j["files"].size() == 2);
    // Two darts from a third of the way out free some of it, each by itself.
    const auto darts = ask_cut({"--cut", "0.05,0.05,1,1", "--cut", "-0.05,0.05,-1,1"}).json();
    CHECK(darts["locked_m2"].get<double>() < whole["locked_m2"].get<double>());
    CHECK(darts["locked_m2"].get<double>() > 0);
    // Seen along y, a line at one height runs round the dome before and behind: what of a circle lies inside
    // a square.
    const auto axes = ask_cut({"--pull", "0,1,0", "--cut", "9,9,9.5,9"}).json()["cut_axes"];
    std::string line;
    for (const double x : {-1.0, 1.0}) {
        for (const auto& axis : axes) {
            const double along = axis[0].get<double>() * x + axis[2].get<double>() * 0.25;
            line += (line.empty() ? "" : ",") + std::to_string(along);
        }
    }
    const auto side = ask_cut({"--pull", "0,1,0", "--cut", line});
    INFO(side.err);
    REQUIRE(side.code == 0);
    const double r = std::sqrt(0.09 - 0.0625), outside = std::acos(0.15 / r);
    CHECK(side.json()["cut_m"].get<double>() == Approx(4 * r * (kPi / 2 - 2 * outside)).epsilon(0.01));
    CHECK(ask_cut({"--pull", "0,1,0"}).code == 2);
    for (const char* wrong : {"0,0", "0,0,1", "0,0,1,x", "", "0;1"}) {
        CAPTURE(wrong);
        CHECK(ask_cut({"--cut", wrong}).code == 2);
    }
}

TEST_CASE("where to cut the cloth of a job is sought, and the job written with it") {
    const fixtures::Folder folder;
    save_job(fixtures::coarse("cello-case", 0.04), folder / "case.jigshell");
    const auto a = ask({"kit", folder / "case.jigshell", "--seek-cuts", folder / "cut.jigshell"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    const auto found = j["sought"]["found"].get<std::size_t>();
    REQUIRE(found > 0);
    CHECK(j["cuts"].size() == found);
    CHECK(j["sought"]["then_m2"].get<double>() < j["sought"]["locked_m2"].get<double>());
    double locked = 0;
    for (const auto& net : j["nets"]) locked = std::max(locked, net["locked_m2"].get<double>());
    CHECK(locked == Approx(j["sought"]["then_m2"].get<double>()).margin(1e-12));
    // What was written is laid as what was answered.
    CHECK(load_job(folder / "cut.jigshell").part.cuts.size() == found);
    const auto again = ask({"kit", folder / "cut.jigshell"}).json();
    CHECK(again["nets"] == j["nets"]);
    CHECK(again["cuts"] == j["cuts"]);
    CHECK_FALSE(again.contains("sought"));
    for (const auto& cut : j["cuts"]) CHECK(cut["length_m"].get<double>() > 0);
}

TEST_CASE("the kit cuts a zone round an insert, and says what the insert is set in") {
    const fixtures::Folder folder;
    auto job = fixtures::coarse("pavilion-petal", 0.06);
    part::Zone round;
    round.name = "round the eye";
    round.place = ZonePlace::inserts;
    round.width = 0.08;
    round.layers = {{LayerKind::ply, "glass cloth 200 plain", 0, 0}};
    job.part.zones.push_back(round);
    job.part.inserts[0].block = "epoxy board 750, 50 mm";
    job.part.inserts.push_back({"potted one", -0.3, 0.1});
    save_job(job, folder / "petal.jigshell");
    const auto a = ask({"kit", folder / "petal.jigshell"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    REQUIRE(j["inserts"].size() == 2);
    CHECK(j["inserts"][0]["kind"] == "block");
    CHECK(j["inserts"][0]["block"] == "epoxy board 750, 50 mm");
    CHECK(j["inserts"][1]["kind"] == "potted");
    CHECK(j["inserts"][1]["block"].is_null());
    // Two discs a little larger than they are seen, as the face leans there.
    double area = 0;
    for (const auto& piece : j["pieces"]) {
        if (piece["zone"] == "round the eye") area += piece["area_m2"].get<double>();
    }
    CHECK(area > 0.99 * 2 * kPi * 0.0064);
    CHECK(area < 1.12 * 2 * kPi * 0.0064);
}

TEST_CASE("seams along a roll that is too narrow are drawn, and the job written with them") {
    const fixtures::Folder folder;
    save_job(fixtures::coarse("radar-dome", 0.06), folder / "dome.jigshell");
    const auto a = ask({"kit", folder / "dome.jigshell", "--seek-seams", folder / "seams.jigshell"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    const auto found = j["seams"]["found"].get<std::size_t>();
    REQUIRE(found > 0);
    CHECK(j["seams"]["left_plies"] == 0);
    CHECK(j["seams"]["wide_plies"] == 4);
    REQUIRE(j["cuts"].size() == found);
    double length = 0;
    for (const auto& cut : j["cuts"]) {
        CHECK(cut["in"] == "roll");
        length += cut["length_m"].get<double>();
    }
    CHECK(j["seams"]["seams_m"].get<double>() == Approx(length));
    // What was written is laid as what was answered, and wants none.
    CHECK(load_job(folder / "seams.jigshell").part.cuts.size() == found);
    const auto again =
        ask({"kit", folder / "seams.jigshell", "--seek-seams", folder / "once-more.jigshell"}).json();
    CHECK(again["pieces"] == j["pieces"]);
    CHECK(again["seams"]["found"] == 0);
    CHECK(again["seams"]["wide_plies"] == 0);
    CHECK(ask({"kit", folder / "dome.jigshell", "--seek-seams"}).code == 2);
}

TEST_CASE("the kit and the cures of a demo are answered") {
    const fixtures::Folder folder;
    const auto job = std::string(JIG_SOURCE_DATA) + "/demo/cello-case.json";
    const auto a = ask({"kit", job, "--out", folder / "kit"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["pieces"].size() >= 4);
    CHECK(j["files"].size() >= 2);
    for (const auto& roll : j["rolls"]) {
        CHECK(roll["yield"].get<double>() > 0.2);
        CHECK(roll["yield"].get<double>() <= 1);
        CHECK(roll["too_large"].empty());
        // What is as wide as the roll is no offcut: the roll goes on there.
        for (const auto& o : roll["offcuts"])
            CHECK(std::min(o["length_m"].get<double>(), o["width_m"].get<double>()) <
                  roll["width_m"].get<double>());
    }
    for (const auto& net : j["nets"])
        CHECK(net["covered_m2"].get<double>() == Approx(j["area_m2"].get<double>()).epsilon(0.02));
    // Its core in panels, on sheets.
    const auto& core = j["core"];
    REQUIRE(core["cores"].size() == 1);
    CHECK(core["cores"][0]["bends_to_m"] == 0.25);
    CHECK(core["cores"][0]["tightest_m"].get<double>() < 0.25);
    double panels = 0;
    for (const auto& p : core["panels"]) panels += p["area_m2"].get<double>();
    CHECK(panels == Approx(core["cores"][0]["area_m2"].get<double>()).epsilon(0.02));
    REQUIRE(core["sheets"].size() == 1);
    CHECK(core["sheets"][0]["too_large"].empty());
    int drawn = 0;
    for (const auto& file : j["files"])
        drawn += file.get<std::string>().find("PVC-foam-75--5-mm") != std::string::npos;
    CHECK(drawn == 2 * core["sheets"][0]["sheets"].get<int>());
    // Of mat alone there is no net, and a kit all the same.
    auto mats = load_job(job);
    mats.part.layers = {{LayerKind::ply, "glass mat 450", 0, 0}};
    save_job(mats, folder / "mats.jigshell");
    const auto m = ask({"kit", folder / "mats.jigshell"});
    INFO(m.err);
    REQUIRE(m.code == 0);
    const auto kit = m.json();
    CHECK(kit["nets"].empty());
    CHECK(kit["left_out"].empty());
    REQUIRE(kit["pieces"].size() >= 1);
    double mat = 0;
    for (const auto& p : kit["pieces"]) mat += p["area_m2"].get<double>();
    CHECK(mat > 0.9 * kit["area_m2"].get<double>());
    CHECK(kit["pieces"][0]["stretch"].get<double>() > 0.005);
    const auto c = ask({"cure", job});
    INFO(c.err);
    REQUIRE(c.code == 0);
    const auto k = c.json();
    std::vector<std::string> of;
    for (const auto& cure : k["cures"]) of.push_back(cure["of"]);
    CHECK(of == std::vector<std::string>{"on_plug", "with_back", "post_cure", "part"});
    CHECK_FALSE(k["cures"][0].contains("fast"));
    const auto fast = ask({"cure", job, "--fast", "yes"}).json();
    for (const auto& cure : fast["cures"]) {
        const auto& found = cure["fast"];
        REQUIRE(found["found"] == true);
        CHECK(found["tried"].get<int>() > 3);
        double there = 0;
        for (const auto& leg : found["legs"]) there += leg["hold_s"].get<double>();
        CHECK(found["seconds"].get<double>() > there);
        CHECK(found["overshoot_K"].get<double>() <= 30.2);
    }
    CHECK(ask({"cure", job, "--fast", "soon"}).code == 2);
    for (const auto& cure : k["cures"]) {
        CHECK(cure["peak_K"].get<double>() > 290);
        const auto& e = cure["energy_J_m2"];
        CHECK(e["in"].get<double>() + e["reaction"].get<double>() ==
              Approx(e["held"].get<double>() + e["lost"].get<double>()).epsilon(1e-6));
    }
}

TEST_CASE("a job's own hoses are followed on its own part, quickly or finely, with sheets") {
    const fixtures::Folder folder;
    const auto dome = fixtures::data() + "/demo/radar-dome.json";
    const auto out = folder / "out";
    const auto a = ask({"infuse", dome, "--quick", "yes", "--layouts", "yes", "--out", out, "--probe",
                        "0,0,0.42", "--probe", "0.3,0,0.2"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["fine"] == false);
    REQUIRE(j["feeds"].size() == 1);
    CHECK(j["feeds"][0]["name"] == "feed 1");
    CHECK(j["feeds"][0]["kg"].get<double>() == Approx(j["resin_kg"].get<double>()));
    CHECK(j["resin_kg"].get<double>() ==
          Approx(j["held_kg"].get<double>() + j["bled_kg"].get<double>()).epsilon(1e-6));
    REQUIRE(j["ports"].size() == 2);
    CHECK(j["ports"][1]["use"] == "vent");
    // The ring's resin comes up the side before it comes to the top.
    REQUIRE(j["arrivals_s"].size() == 2);
    CHECK(j["arrivals_s"][1].get<double>() < j["arrivals_s"][0].get<double>());
    CHECK(j["layouts"].size() == 8);
    REQUIRE(j["files"].size() == 4);
    for (const auto& file : j["files"]) CHECK(std::filesystem::file_size(file.get<std::string>()) > 60);
    // Pots hold what goes in, what stays in hoses and a twentieth, each of both parts.
    double mixed = 0;
    for (const auto& pot : j["pots"]) {
        mixed += pot["kg"].get<double>();
        CHECK(pot["hardener_kg"].get<double>() > 0);
        CHECK(pot["from_s"].get<double>() - pot["mixed_s"].get<double>() > 0);
        CHECK(pot["till_s"].get<double>() >= pot["from_s"].get<double>());
    }
    CHECK(mixed == Approx(1.05 * (j["resin_kg"].get<double>() + j["hoses_kg"].get<double>() +
                                  j["thickness"]["over_kg"].get<double>()))
                       .epsilon(1e-6));
    CHECK(j["hose_drop_Pa"].get<double>() > 0);
    CHECK(j["thickness"]["full"].get<double>() > j["thickness"]["gelled"].get<double>());
    CHECK(j["thickness"]["gelled"].get<double>() >= 1);
    // The fine mesh has several times the points and says the same.
    const auto fine = ask({"infuse", dome}).json();
    CHECK(fine["fine"] == true);
    CHECK(fine["points"].get<int>() > 3 * j["points"].get<int>());
    CHECK(fine["fill_s"].get<double>() == Approx(j["fill_s"].get<double>()).epsilon(0.08));
}

TEST_CASE("a job's infused shell is followed on its plug, alone or beside the part") {
    const fixtures::Folder folder;
    auto job = fixtures::demo("radar-dome");
    job.shell.how = LayUp::infused;
    job.shell.resin = "epoxy, infusion";
    // Whatever the window showed last.
    job.bag.shows = Infused::shell;
    save_job(job, folder / "both.jig");
    const auto part = ask({"infuse", folder / "both.jig", "--quick", "yes"}).json();
    CHECK(part["of"] == "part");
    const auto plain = ask({"infuse", fixtures::data() + "/demo/radar-dome.json", "--quick", "yes"}).json();
    CHECK(part["fill_s"] == plain["fill_s"]);
    const auto shell = ask({"infuse", folder / "both.jig", "--quick", "yes", "--shell", "yes", "--out",
                            folder / "out", "--layouts", "yes"})
                           .json();
    CHECK(shell["of"] == "shell");
    // The flange is filled with it.
    CHECK(shell["area_m2"].get<double>() > 1.05 * part["area_m2"].get<double>());
    CHECK(shell["layouts"].size() == 8);
    CHECK(shell["files"].size() == 4);
    job.part.how = LayUp::hand;
    save_job(job, folder / "shell.jig");
    const auto alone = ask({"infuse", folder / "shell.jig", "--quick", "yes"}).json();
    CHECK(alone["of"] == "shell");
    CHECK(alone["fill_s"] == shell["fill_s"]);
    // What cannot be followed says why.
    job.bag.shell_infusion.waited = 1e6;
    save_job(job, folder / "old.jig");
    const auto old = ask({"infuse", folder / "old.jig", "--quick", "yes"});
    CHECK(old.code == 2);
    CHECK_THAT(old.err, Catch::Contains("has gelled before"));
    const auto dry = ask({"infuse", fixtures::data() + "/demo/radar-dome.json", "--shell", "yes"});
    CHECK(dry.code == 2);
    CHECK_THAT(dry.err, Catch::Contains("the shell is laid"));
}

TEST_CASE("what a front showed is kept as lists of a library that other jobs read") {
    const fixtures::Folder folder;
    auto job = fixtures::demo("radar-dome");
    job.bag.infusion.lets = 0.5;
    save_job(job, folder / "marked.jig");
    const auto lists = folder / "lists";
    const auto marked = ask({"infuse", folder / "marked.jig", "--quick", "yes", "--keep", lists});
    INFO(marked.err);
    REQUIRE(marked.code == 0);
    REQUIRE(marked.json()["kept"].size() >= 2);
    for (const auto& k : marked.json()["kept"])
        CHECK(k["after_m2"].get<double>() == Approx(0.5 * k["before_m2"].get<double>()));
    job.bag.infusion.lets = 1;
    save_job(job, folder / "next.jig");
    const auto next = ask({"infuse", folder / "next.jig", "--quick", "yes", "--library", lists});
    REQUIRE(next.code == 0);
    CHECK(next.json()["fill_s"].get<double>() == Approx(marked.json()["fill_s"].get<double>()).epsilon(1e-6));
    // What nobody measured is not kept as if it were, and nothing is written.
    const auto none = ask({"infuse", folder / "next.jig", "--quick", "yes", "--keep", folder / "none"});
    CHECK(none.code == 2);
    CHECK_THAT(none.err, Catch::Contains("library's own"));
    CHECK_FALSE(std::filesystem::exists(folder / "none"));
}

TEST_CASE("jobs that are not infused and options that do not fit are refused in a line") {
    const fixtures::Folder folder;
    const auto tray = ask({"infuse", fixtures::data() + "/demo/cello-case.json"});
    CHECK(tray.code != 0);
    CHECK_THAT(tray.err, Catch::Contains("not infused"));
    const auto other = ask({"infuse", put(folder, "case.json", kCase), "--layouts", "yes"});
    CHECK(other.code != 0);
    CHECK_THAT(other.err, Catch::Contains("--layouts"));
    const auto unmarked =
        ask({"infuse", fixtures::data() + "/demo/radar-dome.json", "--quick", "yes", "--race", "yes"});
    CHECK(unmarked.code == 2);
    CHECK_THAT(unmarked.err, Catch::Contains("three marks"));
    auto job = fixtures::demo("radar-dome");
    job.bag.infusion.plan = InfusionPlan::own;
    save_job(job, folder / "own.jig");
    const auto none = ask({"infuse", folder / "own.jig"});
    CHECK(none.code != 0);
    CHECK_THAT(none.err, Catch::Contains("No hose lets resin in"));
}

TEST_CASE("of a mould in pieces the kit is of the one that is asked for, core and inserts of all") {
    const fixtures::Folder folder;
    auto job = fixtures::coarse("cello-case-whole", 0.03);
    part::Insert here, each;
    here.name = "catch";
    here.piece = 2;
    here.along = 0.1;
    each.name = "foot";
    each.along = -0.1;
    job.part.inserts = {here, each};
    save_job(job, folder / "case.jigshell");
    const auto kit = [&](const char* piece) {
        const auto a = ask({"kit", folder / "case.jigshell", "--piece", piece});
        INFO(a.err);
        REQUIRE(a.code == 0);
        return a.json();
    };
    const auto one = kit("1"), two = kit("2");
    CHECK(one["inserts"].size() == 3);
    int on_second = 0;
    for (const auto& insert : one["inserts"]) on_second += insert["piece"] == 2;
    CHECK(on_second == 2);
    CHECK(one["core"]["cores"][0]["area_m2"].get<double>() ==
          Approx(two["core"]["cores"][0]["area_m2"].get<double>()).epsilon(1e-6));
    CHECK(one["core"]["panels"].size() == two["core"]["panels"].size());
    // The seed lies on the shell that is cut for.
    CHECK(one["seed_m"][2].get<double>() * two["seed_m"][2].get<double>() < 0);
    CHECK(ask({"kit", folder / "case.jigshell", "--piece", "0"}).code == 2);
    CHECK(ask({"part", folder / "case.jigshell", "--piece", "13"}).code == 2);
    // What is written keeps the piece that the job shows.
    const auto found =
        ask({"kit", folder / "case.jigshell", "--piece", "2", "--seek-seams", folder / "seams.jigshell"});
    REQUIRE(found.code == 0);
    const auto written = load_job(folder / "seams.jigshell");
    CHECK(written.edge.piece == 1);
    for (const auto& cut : written.part.cuts) CHECK(cut.piece == 2);
    for (const auto& cut : found.json()["cuts"]) CHECK(cut["piece"] == 2);
}
