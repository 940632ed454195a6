// Job files of older versions, kept as they were written.
#include <catch2/catch.hpp>

#include "core/job/migrations.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;

namespace {

std::string kept(const std::string& name) {
    return fixtures::data() + "/../tests/job/files/" + name;
}

}  // namespace

TEST_CASE("a job of version 1 opens with all that it says, and its bag as its part was laid") {
    struct Old {
        const char* file;
        ReleaseFilm film;
    };
    for (const auto& old : {Old{"version-1-bagged.json", ReleaseFilm::perforated},
                            Old{"version-1-infused.json", ReleaseFilm::none}}) {
        INFO(old.file);
        const auto bytes = read_file(kept(old.file), 1 << 20);
        const auto before = parse_json(old.file, bytes);
        REQUIRE(before["version"] == 1);
        REQUIRE_FALSE(before.contains("bag"));
        const auto job = load_job(kept(old.file));
        CHECK(job.bag.peel_ply);
        CHECK(job.bag.film == old.film);
        CHECK(job.bag.hose == 2.0);
        // Nothing else moves: every other key is written again as it stood.
        const auto after = job_to_json(job);
        CHECK(after["version"] == kJobVersion);
        for (const auto& [stage, choices] : before.items()) {
            if (stage == "version" || !choices.is_object()) continue;
            for (const auto& [key, value] : choices.items()) {
                INFO(stage << "." << key);
                REQUIRE(after[stage].contains(key));
                if (!value.is_structured()) CHECK(after[stage][key] == value);
            }
        }
        CHECK(fixtures::worked_out(job).complete());
        // Opening writes nothing.
        CHECK(read_file(kept(old.file), 1 << 20) == bytes);
    }
}

TEST_CASE("an older file's mistakes are named as they would be in a new one") {
    const auto old = parse_json("kept", read_file(kept("version-1-bagged.json"), 1 << 20));
    auto wrong = old;
    wrong["part"] = 3;
    CHECK_THROWS_WITH(job_from_json(wrong, "file"), Catch::Contains("part"));
    wrong = old;
    wrong["part"]["how"] = 7;
    CHECK_THROWS_WITH(job_from_json(wrong, "file"), Catch::Contains("how"));
    wrong = old;
    wrong["edge"]["trim"] = -1;
    CHECK_THROWS_AS(job_from_json(wrong, "file"), InputError);
    // A hand-written one that has a bag already keeps it.
    auto ahead = old;
    ahead["bag"]["ease"] = 0.3;
    CHECK(job_from_json(ahead, "file").bag.ease == Approx(0.3));
    // One without a part is laid as a new job is.
    auto bare = Json{{"format", "jigshell job"}, {"version", 1}};
    CHECK(job_from_json(bare, "file").bag == bag::Choices{});
}

TEST_CASE("a newer file is refused and left as it is") {
    const fixtures::Folder folder;
    const auto path = (folder.path / "newer.jigshell").string();
    auto json = job_to_json(fixtures::demo());
    json["version"] = kJobVersion + 1;
    write_atomically(json.dump(), path);
    CHECK_THROWS_WITH(load_job(path), Catch::Contains("newer"));
    CHECK(read_file(path, 1 << 24) == json.dump());
    json["version"] = 0;
    CHECK_THROWS_AS(job_from_json(json, "file"), InputError);
}

TEST_CASE("a face that had been waxed before keeps its history in a file of version 2") {
    auto old = Json{{"format", "jigshell job"},
                    {"version", 2},
                    {"release", {{"system", "paste wax"}, {"wax_before", true}, {"mask_land", false}}}};
    auto job = job_from_json(old, "file");
    CHECK(job.release.mould.history == FaceHistory::waxed);
    CHECK(job.release.plug.history == FaceHistory::fresh);
    CHECK(job.release.system == "paste wax");
    CHECK_FALSE(job.release.mask_land);
    old["release"]["wax_before"] = false;
    CHECK(job_from_json(old, "file").release.mould == release::Treated{});
    // One of version 1 goes both steps; a log of old entries reads as it did.
    old["version"] = 1;
    old["release"]["wax_before"] = true;
    old["log"]["entries"] = Json::array({{{"date", "2026-01-05"}, {"kind", "care"}, {"coats", 7}}});
    job = job_from_json(old, "file");
    CHECK(job.release.mould.history == FaceHistory::waxed);
    REQUIRE(job.log.entries.size() == 1);
    CHECK(job.log.entries[0].coats == 7);
    CHECK(job.log.entries[0].face.empty());
    // A hand-written one that names the mould's history already keeps it.
    old["release"]["mould"] = Json{{"history", "sanded"}};
    CHECK(job_from_json(old, "file").release.mould.history == FaceHistory::sanded);
    CHECK(job_to_json(job)["version"] == kJobVersion);
}

TEST_CASE(
    "holes and grooves of an infusion of version 3 become those of every core, in stacks, zones and builds") {
    const auto bytes = read_file(kept("version-3-cored.json"), 1 << 20);
    const auto job = load_job(kept("version-3-cored.json"));
    CHECK(job.bag.infusion.plan == InfusionPlan::ring);
    for (const auto& cut :
         {job.part.layers[1].cut, job.part.zones[0].layers[0].cut, job.part.builds[0].layers[0].cut}) {
        CHECK(cut.hole == 0.003);
        CHECK(cut.hole_pitch == 0.035);
        CHECK(cut.slits == Slits::both);
        CHECK(cut.slit == 0.002);
        CHECK(cut.slit_depth == 0.002);
        CHECK(cut.slit_pitch == 0.025);
    }
    CHECK(job.part.layers[0].cut == CoreCut{});
    CHECK(read_file(kept("version-3-cored.json"), 1 << 20) == bytes);
    // Written and read again it is the same.
    CHECK(job_from_json(job_to_json(job), "again") == job);
    // None bored: none cut, though pitches were written. A cut of its own is not overwritten.
    auto old = parse_json("kept", bytes);
    old["bag"]["infusion"] = Json{{"hole", 0}, {"hole_pitch", 0.02}, {"groove", 0}, {"groove_pitch", 0.03}};
    CHECK(job_from_json(old, "file").part.layers[1].cut == CoreCut{});
    old["bag"]["infusion"]["hole"] = 0.004;
    old["part"]["layers"][1]["cut"] = Json{{"hole", 0.001}};
    CHECK(job_from_json(old, "file").part.layers[1].cut.hole == 0.001);
    CHECK(job_from_json(old, "file").part.zones[0].layers[0].cut.hole == 0.004);
    // What was wrong then is wrong now, and named.
    old["bag"]["infusion"]["hole"] = 0.5;
    CHECK_THROWS_WITH(job_from_json(old, "file"), Catch::Contains("hole"));
    // In a file of today the infusion's say nothing.
    auto today = job_to_json(job);
    today["bag"]["infusion"]["hole"] = 0.009;
    CHECK(job_from_json(today, "file") == job);
}
