#include <catch2/catch.hpp>

#include "tests/batch/asking.hpp"

using namespace jig;
using asking::ask;
using asking::put;
using fixtures::Folder;

namespace {

asking::Answer planned(const std::string& text) {
    const Folder folder;
    return ask({"plan", put(folder, "tasks.json", text)});
}

}  // namespace

TEST_CASE("plan answers tasks in order of the file with clock times, floats, bound and lateness") {
    const auto a = planned(
        R"({"start": "2027-03-01T08:00",
            "calendar": {"days": [1,2,3,4,5], "shifts": [["08:00", "16:00"]], "holidays": ["2027-03-02"]},
            "resources": {"people": 2, "oven": 1},
            "tasks": [{"name": "lay", "work_s": 14400, "needs": {"people": 2}, "wait_s": 3600},
                      {"name": "cure", "work_s": 36000, "needs": {"oven": 1}, "any_time": true,
                       "after": [{"task": "lay", "min_s": 1800, "max_s": 7200}]},
                      {"name": "sand", "work_s": 7200, "needs": {"people": 1}, "breakable": false}],
            "deadline": "2027-03-01T20:00", "seconds": 2})");
    INFO(a.err);
    REQUIRE(a.code == 0);
    const auto j = a.json();
    REQUIRE(j["tasks"].size() == 3);
    CHECK(j["tasks"][0]["from"] == "2027-03-01T08:00");
    CHECK(j["tasks"][0]["to"] == "2027-03-01T12:00");
    // An hour's wait and half an hour: 13:30, and ten hours on, past closing.
    CHECK(j["tasks"][1]["from"] == "2027-03-01T13:30");
    CHECK(j["tasks"][1]["to"] == "2027-03-01T23:30");
    CHECK(j["tasks"][2]["from"] == "2027-03-01T12:00");
    CHECK(j["tasks"][2]["float_s"].get<double>() == Approx(7200).margin(2));
    CHECK(j["finish"] == "2027-03-01T23:30");
    CHECK(j["finish_s"].get<double>() == Approx(15.5 * 3600));
    CHECK(j["bound_s"].get<double>() == Approx(15.5 * 3600));
    CHECK(j["proved"] == true);
    CHECK(j["late"] == true);
    CHECK(j["late_s"].get<double>() == Approx(3.5 * 3600));
}

TEST_CASE("what is wrong with tasks is said in a line, with its place") {
    const auto head = std::string(R"({"start": "2027-03-01T08:00", "resources": {"people": 1}, "tasks": )");
    for (const auto& [text, says] : std::vector<std::pair<std::string, std::string>>{
             {head + "[]}", "nothing to plan"},
             {head + R"([{"name": "a", "work_s": -1}]})", "work_s"},
             {head + R"([{"name": "a", "work_s": 1, "need": {}}]})", "need"},
             {head + R"([{"name": "a", "work_s": 1}, {"name": "a", "work_s": 1}]})", "two tasks"},
             {head + R"([{"name": "a", "work_s": 1, "after": [{"task": "b"}]}]})", "no task"},
             {head + R"([{"name": "a", "work_s": 1, "needs": {"people": 3}}]})", "there are 1"},
             {R"({"start": "soon", "tasks": [{"name": "a", "work_s": 1}]})", "no time"},
             {R"({"start": "2027-03-01T08:00", "calendar": {"shifts": [["8", "16:00"]]}, "tasks": []})",
              "time of day"},
             {R"({"start": "2027-03-01T08:00", "calendar": {"days": [8]}, "tasks": []})", "no such day"},
             {R"({"tasks": [{"name": "a", "work_s": 1}]})", "start"},
             {"[1, 2]", "object"}}) {
        INFO(text);
        const auto a = planned(text);
        CHECK(a.code == 2);
        CHECK(a.out.empty());
        CHECK(a.err.find(says) != std::string::npos);
        CHECK(std::count(a.err.begin(), a.err.end(), '\n') == 1);
    }
}
