#include <zip.h>
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <random>

#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::Folder;

namespace {

Job with_mesh() {
    auto job = fixtures::demo();
    job.attachments = {{"a mesh.stl", std::make_shared<const std::string>(50000, 'x')}};
    return job;
}

std::string refusal(const std::string& bytes) {
    try {
        unpack_job(bytes, "job");
    } catch (const InputError& e) {
        return e.what();
    }
    return {};
}

std::string zip_of(const std::string& name, const std::string& content) {
    Folder folder;
    const auto path = folder / "z.zip";
    int error = 0;
    auto* zip = zip_open(path.c_str(), ZIP_CREATE, &error);
    zip_file_add(zip, name.c_str(), zip_source_buffer(zip, content.data(), content.size(), 0),
                 ZIP_FL_OVERWRITE);
    zip_close(zip);
    return read_file(path);
}

}  // namespace

TEST_CASE("a job comes back from its file as it was") {
    Folder folder;
    const auto job = with_mesh();
    save_job(job, folder / "a.jigshell");
    CHECK(load_job(folder / "a.jigshell") == job);
    CHECK(pack_job(job) == pack_job(job));
    // JSON through and through: every choice is written and read.
    CHECK(job_from_json(job_to_json(fixtures::demo("radar-dome")), "x") == fixtures::demo("radar-dome"));
}

TEST_CASE("saving keeps the last good file and leaves no litter") {
    Folder folder;
    auto job = with_mesh();
    save_job(job, folder / "a.jigshell");
    job.brief.pulls = 123;
    save_job(job, folder / "a.jigshell");
    CHECK(load_job(folder / "a.jigshell").brief.pulls == 123);
    CHECK(load_job(folder / "a.jigshell~").brief.pulls == 60);
    CHECK_FALSE(std::filesystem::exists(folder / "a.jigshell.part"));
    CHECK_THROWS_AS(save_job(job, "/nowhere/at/all.jigshell"), InputError);
}

TEST_CASE("damaged, foreign and newer files get a clear message and stay untouched") {
    const auto good = pack_job(with_mesh());
    CHECK_THAT(refusal(good.substr(0, good.size() / 2)),
               Catch::Contains("damaged") && Catch::Contains("not been touched"));
    CHECK_THAT(refusal("PK no"), Catch::Contains("no Jig Shell job"));
    CHECK_THAT(refusal(zip_of("letter.txt", "dear")), Catch::Contains("no job.json"));
    CHECK_THAT(refusal(zip_of("job.json", "{ not json")), Catch::Contains("line 1"));
    CHECK_THAT(refusal(zip_of("job.json", R"({"format": "something else"})")),
               Catch::Contains("no Jig Shell job"));
    CHECK_THAT(refusal(zip_of("job.json", R"({"format": "jigshell job", "version": 99})")),
               Catch::Contains("newer"));
    CHECK_THAT(
        refusal(zip_of("job.json", R"({"format": "jigshell job", "version": 1, "brief": {"pulls": "x"}})")),
        Catch::Contains("brief.pulls"));
    CHECK_THAT(refusal(zip_of(
                   "job.json",
                   R"({"format": "jigshell job", "version": 1, "shell": {"layers": [{"kind": "jam"}]}})")),
               Catch::Contains("shell.layers[0].kind"));
    // A zip that swells: 200 MB of zeros.
    CHECK_THAT(refusal(zip_of("attached/bomb", std::string(200u << 20, '\0'))),
               Catch::Contains("unpack to far more"));

    Folder folder;
    std::ofstream(folder / "bad.jigshell") << "not a job";
    CHECK_THROWS_AS(load_job(folder / "bad.jigshell"), InputError);
    CHECK(read_file(folder / "bad.jigshell") == "not a job");
}

TEST_CASE("random damage never does more than raise a message") {
    std::mt19937 dice(11);
    const auto good = pack_job(fixtures::small_job());
    for (int i = 0; i < 300; ++i) {
        auto bytes = good;
        for (int k = 0; k < 1 + i % 6; ++k) bytes[dice() % bytes.size()] = static_cast<char>(dice());
        try {
            unpack_job(bytes, "fuzz");
        } catch (const InputError&) {
        }
    }
    SUCCEED();
}

TEST_CASE("patches change what they name and nothing else") {
    const auto job = with_mesh();
    const auto next = patched(job, patch_of("brief", "pulls", 5));
    CHECK(next.brief.pulls == 5);
    auto same = next;
    same.brief.pulls = job.brief.pulls;
    CHECK(same == job);
    CHECK_THROWS_AS(patched(job, patch_of("brief", "pulls", -1)), InputError);
    CHECK_THROWS_AS(patched(job, patch_of("edge", "trim", "wide")), InputError);
}
