// The gate asked from the command line.
#include <catch2/catch.hpp>

#include "tests/batch/asking.hpp"

using namespace jig;
using namespace asking;
using fixtures::Folder;
using fixtures::small_job;

TEST_CASE("gate says go or no-go for each face at a moment, and its exit code says so too") {
    Folder folder;
    auto job = small_job();
    const auto file = folder / "job.jigshell";
    // Five of wax on the mould, the last at 14:00; each dries for 45 min, the last hardens an hour.
    job.release.system = "paste wax";
    for (const char* time : {"10:00", "11:00", "12:00", "13:00", "14:00"})
        job.log.entries.push_back(
            {std::string("2026-06-01T") + time + "Z", EntryKind::coat, 0, 1, "", "mould", "paste wax"});
    save_job(job, file);
    const auto at = [&](const std::string& time) {
        return ask({"gate", file, "--face", "mould", "--at", "2026-06-01T" + time});
    };
    const auto early = at("14:30Z");
    CHECK(early.code == 3);
    CHECK_FALSE(early.json()["go"].get<bool>());
    const auto face = early.json()["faces"][0];
    CHECK(face["state"] == "curing");
    CHECK(read_moment(face["earliest"].get<std::string>())->at == read_moment("2026-06-01T15:00Z")->at);
    CHECK(face["reasons"].size() == 1);
    const auto ready = at("15:00Z");
    CHECK(ready.code == 0);
    CHECK(ready.json()["faces"][0]["go"].get<bool>());
    CHECK(read_moment(ready.json()["faces"][0]["latest"].get<std::string>())->at ==
          read_moment("2026-06-08T14:00Z")->at);
    // The plug has nothing on it: all faces together are a no.
    const auto all = ask({"gate", file, "--at", "2026-06-01T15:00Z"});
    CHECK(all.code == 3);
    REQUIRE(all.json()["faces"].size() == 2);
    CHECK(all.json()["faces"][0]["face"] == "plug");
    CHECK(all.json()["faces"][0]["next_coats"].size() == 4);
    CHECK(all.json()["faces"][0]["earliest"].is_null());
    // Without a moment it is now: the wax has waited too long.
    const auto now = ask({"gate", file, "--face", "mould"});
    CHECK(now.code == 3);
    CHECK(now.json()["faces"][0]["reasons"].dump().find("waited") != std::string::npos);
}

TEST_CASE("gate names what it cannot read") {
    Folder folder;
    const auto file = folder / "job.jigshell";
    auto job = small_job();
    save_job(job, file);
    for (const auto& words : std::vector<std::vector<std::string>>{{"gate", file, "--at", "noon"},
                                                                   {"gate", file, "--at", "2026-02-30T10:00"},
                                                                   {"gate", file, "--face", "lid"},
                                                                   {"gate", file, "--depth", "3"},
                                                                   {"gate"},
                                                                   {"gate", folder / "none.jigshell"}}) {
        const auto answer = ask(words);
        CHECK(answer.code == 2);
        CHECK(answer.out.empty());
        CHECK(std::count(answer.err.begin(), answer.err.end(), '\n') == 1);
    }
    CHECK(ask({"gate", file, "--face", "lid"}).err.find("plug, mould") != std::string::npos);
    job.log.entries = {{"1.6.2026", EntryKind::pull}};
    save_job(job, file);
    CHECK(ask({"gate", file}).err.find("1.6.2026") != std::string::npos);
}
