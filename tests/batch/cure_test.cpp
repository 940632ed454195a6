// The verbs cure and kinetics, asked as a user asks them.
#include <catch2/catch.hpp>

#include "core/stages/part/goes.hpp"
#include "tests/batch/asking.hpp"

using namespace jig;
using asking::ask;
using asking::put;

namespace {

const char* const kWall = R"({
 "layers": [
  {"name": "foam", "thickness_m": 0.05, "k_W_mK": 0.034, "rho_kg_m3": 32, "c_J_kgK": 1450},
  {"name": "shell", "thickness_m": 0.005, "k_W_mK": 0.3, "rho_kg_m3": 1700, "c_J_kgK": 1100,
   "resin": "epoxy, tooling post-cured", "resin_kg_m3": 620}],
 "sides": [{"h_W_m2K": 8, "air": {"T_K": 293.15}},
           {"h_W_m2K": 15, "air": [{"to_K": 323.15, "K_s": 0.01}, {"hold_s": 36000}, {"to_K": 293.15, "K_s": -0.01}]}],
 "start_K": 293.15, "end_s": 50000, "at_s": [0, 10000, 50000]})";

}  // namespace

TEST_CASE("a wall is warmed, and its answer has all that was asked for") {
    const fixtures::Folder folder;
    const auto a = ask({"cure", put(folder, "wall.json", kWall)});
    // What it would have to reach only a job knows.
    CHECK(ask({"cure", folder / "wall.json", "--fast", "yes"}).code == 2);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    CHECK(j["times_s"] == Json({0.0, 10000.0, 50000.0}));
    REQUIRE(j["layers"].size() == 6);
    CHECK(j["layers"][0]["name"] == "foam");
    CHECK(j["layers"][0]["cure"].is_null());
    CHECK(j["layers"][4]["at_m"].get<double>() == Approx(0.0525));
    for (const char* key : {"T_K", "cure", "Tg_K"}) CHECK(j["layers"][4][key].size() == 3);
    CHECK(j["layers"][4]["T_K"][0].get<double>() == Approx(293.15));
    REQUIRE(j["gel_s"].size() == 1);
    CHECK(j["gel_s"][0].get<double>() < 25200);
    CHECK(j["Tg_end_K"].get<double>() > 323);
    // The foam keeps its own heat in: it runs past the oven, and its Tg no more than 20 K past that.
    CHECK(j["peak_K"].get<double>() > 325);
    CHECK(j["Tg_end_K"].get<double>() < j["peak_K"].get<double>() + 20.1);
    const auto& e = j["energy_J_m2"];
    CHECK(e["in"].get<double>() + e["reaction"].get<double>() ==
          Approx(e["held"].get<double>() + e["lost"].get<double>()).epsilon(1e-6));
    CHECK(j["steps"].get<int>() > 10);
}

TEST_CASE("what a wall lacks is said in a line, with nothing on standard output") {
    const fixtures::Folder folder;
    const auto refused = [&](const std::function<void(Json&)>& spoil, const char* word) {
        auto j = Json::parse(kWall);
        spoil(j);
        const auto a = ask({"cure", put(folder, "bad.json", j.dump())});
        INFO(a.err);
        CHECK(a.code == 2);
        CHECK(a.out.empty());
        CHECK(a.err.find(word) != std::string::npos);
        CHECK(a.err.find('\n') == a.err.size() - 1);
    };
    refused([](Json& j) { j["layers"] = Json::array(); }, "no layer");
    refused([](Json& j) { j["sides"].erase(0); }, "two sides");
    refused([](Json& j) { j["layers"][1]["resin"] = "honey"; }, "honey");
    refused([](Json& j) { j["layers"][1].erase("resin_kg_m3"); }, "resin_kg_m3");
    refused([](Json& j) { j["layers"][0]["thickness_m"] = -1; }, "outside");
    refused([](Json& j) { j["layers"][0]["thicknes_m"] = 1; }, "thicknes_m");
    refused([](Json& j) { j["sides"][1]["air"][0]["K_s"] = 0; }, "never gets there");
    refused([](Json& j) { j["sides"][1]["air"][1]["to_K"] = 300; }, "two segments");
    refused([](Json& j) { j["at_s"][0] = -4; }, "at_s");
    refused([](Json& j) { j["start_K"] = "warm"; }, "number");
    refused(
        [](Json& j) {
            j.erase("end_s");
            j.erase("at_s");
        },
        "end_s");
}

TEST_CASE("constants out of a data sheet serve as a wall's resin") {
    const fixtures::Folder folder;
    const auto a = ask({"kinetics", put(folder, "data.json", R"({"family": "epoxy",
        "gel_times": [{"T_K": 293.15, "s": 14400}, {"T_K": 313.15, "s": 3600}], "pot": null,
        "heat_J_kg": 410000, "Tg": [{"cure_K": 353.15, "cure_s": 28800, "Tg_K": 361}]})")});
    REQUIRE(a.code == 0);
    const auto k = a.json();
    // Four times as quick in 20 K.
    CHECK(k["E2_J_mol"].get<double>() ==
          Approx(8.314462618 * std::log(4) / (1 / 293.15 - 1 / 313.15)).epsilon(0.02));
    CHECK(k["heat_J_kg"].get<double>() == Approx(410000).epsilon(1e-3));
    CHECK(k["misfit"].get<double>() < 0.02);
    CHECK(k["assumed"].size() >= 3);
    auto wall = Json::parse(kWall);
    wall["layers"][1]["resin"] = k;
    wall["layers"][0]["thickness_m"] = 0.0001;
    wall["layers"][1]["thickness_m"] = 0.0001;
    wall["sides"] = {{{"T_K", 303.15}}, {{"T_K", 303.15}}};
    wall["start_K"] = 303.15;
    const auto b = ask({"cure", put(folder, "wall.json", wall.dump())});
    REQUIRE(b.code == 0);
    // The geometric mean of both, near enough, between them.
    CHECK(b.json()["gel_s"][0].get<double>() == Approx(7000).epsilon(0.04));
    CHECK(ask({"kinetics", put(folder, "none.json", R"({"family": "epoxy", "gel_times": []})")}).code == 2);
    CHECK(ask({"kinetics", put(folder, "odd.json", R"({"family": "cheese", "gel_times": []})")}).code == 2);
}

TEST_CASE("a wall's layers are made thicker by name, as far as a limit lets them") {
    const fixtures::Folder folder;
    const auto wall = put(folder, "wall.json", kWall);
    const auto plain = ask({"cure", wall}).json();
    CHECK_FALSE(plain.contains("exotherm"));
    const auto a = ask({"cure", wall, "--thicker", "shell", "--limit", "345"});
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    const auto& curve = j["exotherm"];
    REQUIRE(curve.size() > 8);
    double last = 0;
    for (const auto& p : curve) {
        CHECK(p["thickness_m"].get<double>() > last);
        last = p["thickness_m"].get<double>();
        CHECK(p["under_K"].get<double>() > 293);
    }
    // At the wall's own thickness it comes to what the wall itself comes to.
    for (std::size_t i = 0; i + 1 < curve.size(); ++i) {
        if (curve[i + 1]["thickness_m"].get<double>() < 0.005 ||
            curve[i]["thickness_m"].get<double>() > 0.005)
            continue;
        CHECK(curve[i]["peak_K"].get<double>() <= plain["peak_K"].get<double>() + 1);
        CHECK(curve[i + 1]["peak_K"].get<double>() >= plain["peak_K"].get<double>() - 1);
    }
    const double most = j["most_m"].get<double>();
    auto thick = Json::parse(kWall);
    thick["layers"][1]["thickness_m"] = most;
    CHECK(ask({"cure", put(folder, "most.json", thick.dump())}).json()["peak_K"].get<double>() < 346);
    thick["layers"][1]["thickness_m"] = 1.05 * most;
    CHECK(ask({"cure", put(folder, "more.json", thick.dump())}).json()["peak_K"].get<double>() > 345);
    // What lies under it may be what decides; what never gets there is not held back.
    CHECK(ask({"cure", wall, "--thicker", "shell", "--limit", "345", "--under", "330"}).json()["most_m"] <=
          most);
    CHECK(ask({"cure", wall, "--thicker", "shell", "--limit", "300"}).json()["most_m"].is_null());
    CHECK(ask({"cure", wall, "--thicker", "shell"}).json()["most_m"].is_null());
    CHECK(ask({"cure", wall, "--thicker", "skin"}).code == 2);
    CHECK(ask({"cure", wall, "--thicker", "shell,"}).code == 2);
    CHECK(ask({"cure", wall, "--limit", "345"}).code == 2);
    CHECK(ask({"cure", wall, "--thicker", "shell", "--limit", "hot"}).code == 2);
    const auto job = fixtures::data() + "/demo/radar-dome.json";
    CHECK(ask({"cure", job, "--thicker", "shell"}).code == 2);
    const auto answer = ask({"cure", job}).json();
    for (const auto& cure : answer["cures"]) {
        // Where plies are laid, and not where they are joined or warmed again.
        CHECK(cure.contains("one_go") == (cure["of"] == "on_plug" || cure["of"] == "part"));
        // What takes an oven says what it costs: its heat goes through walls, with air, or is let go.
        if (cure["oven"].is_null()) continue;
        const auto& oven = cure["oven"];
        CHECK(oven["energy_J"].get<double>() > 0);
        CHECK(oven["energy_J"].get<double>() <=
              oven["walls_J"].get<double>() + oven["air_J"].get<double>() + oven["warmed_J"].get<double>());
        CHECK(oven["cool_end_K"].get<double>() <= cure["warm_end_K"].get<double>());
    }
    CHECK(answer["oven"]["build"] == "lined oven");
    CHECK(answer["oven"]["power_W"].is_null());
    CHECK(answer["oven"]["goes_in"].get<int>() >= 0);
}

TEST_CASE("a part that is laid in goes has a programme for each, and its kit says which piece goes when") {
    const fixtures::Folder folder;
    auto job = fixtures::bagged();
    job.part.layers = part::skin_first(job.part.layers);
    const auto file = put(folder, "goes.json", job_to_json(job).dump());
    const auto cures = ask({"cure", file});
    REQUIRE(cures.code == 0);
    std::vector<std::string> of;
    const auto told = cures.json();
    for (const auto& c : told["cures"]) of.push_back(c["of"]);
    for (const auto& c : told["cures"]) CHECK(c["times"] == 1);
    const auto first = std::find(of.begin(), of.end(), "part_first");
    REQUIRE(first != of.end());
    REQUIRE(first + 1 != of.end());
    CHECK(*(first + 1) == "part");
    const auto kit = ask({"kit", file});
    REQUIRE(kit.code == 0);
    const Json pieces = kit.json()["pieces"];
    REQUIRE(pieces.size() > 2);
    CHECK(pieces.front()["go"] == 1);
    CHECK(pieces.back()["go"] == 2);
    for (std::size_t i = 1; i < pieces.size(); ++i) CHECK(pieces[i - 1]["go"] <= pieces[i]["go"]);
}
