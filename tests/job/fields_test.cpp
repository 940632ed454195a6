#include <catch2/catch.hpp>

#include "core/base/parallel.hpp"
#include "core/base/progress.hpp"
#include "core/stages/brief/choices.hpp"

using namespace jig;

TEST_CASE("choices round-trip through JSON and refuse what they cannot be") {
    brief::Choices c;
    c.pulls = 77;
    c.grade = Grade::gloss;
    brief::Choices back;
    const auto json = to_json_value(c);
    from_json_value(JsonPlace(json, "job"), back);
    CHECK(back == c);

    const auto refused = [](const char* text, const char* where) {
        const auto bad = parse_json("job", text);
        brief::Choices into;
        try {
            from_json_value(JsonPlace(bad, "job"), into);
            return false;
        } catch (const InputError& e) {
            INFO(e.what());
            return e.where().find(where) != std::string::npos && !e.mend().empty();
        }
    };
    CHECK(refused(R"({"pulls": "many"})", "job.pulls"));
    CHECK(refused(R"({"pulls": 2.5})", "job.pulls"));
    CHECK(refused(R"({"pulls": 0})", "job.pulls"));
    CHECK(refused(R"({"grade": "shiny"})", "job.grade"));
    CHECK(refused(R"({"assembly_jig": 1})", "job.assembly_jig"));
    CHECK(refused(R"([])", "job"));
}

TEST_CASE("broken JSON names the line") {
    try {
        parse_json("x.json", "{\n\"a\": 1,\n\"b\" 2}");
        FAIL("no error");
    } catch (const InputError& e) {
        CHECK(e.where() == "x.json line 3");
    }
}

TEST_CASE("shares cover every item once and hand errors on") {
    std::vector<int> hits(10007, 0);
    parallel_shares(hits.size(), 10, [&](std::size_t a, std::size_t b, unsigned) {
        for (; a < b; ++a) ++hits[a];
    });
    CHECK(std::all_of(hits.begin(), hits.end(), [](int h) { return h == 1; }));
    Progress progress;
    progress.stop();
    CHECK_THROWS_AS(parallel_shares(100, 1, [&](std::size_t, std::size_t, unsigned) { progress.check(); }),
                    Cancelled);
}
