// What words on the command line come to.
#include <catch2/catch.hpp>

#include "batch/arguments.hpp"
#include "core/base/error.hpp"

using namespace jig;

namespace jig::batch {

namespace {

const std::vector<Form> kForms{{"turn", "MESH", {{"by", "X,Y,Z", "how", true}, {"twice", "yes|no", ""}}},
                               {"look", "JOB", {{"library", "DIR", ""}}}};

Arguments read(const std::vector<std::string>& words) {
    return read_arguments(words, kForms);
}
std::string refused(const std::vector<std::string>& words) {
    try {
        read(words);
    } catch (const InputError& e) {
        return e.where() + ": " + e.problem();
    }
    return {};
}

}  // namespace

TEST_CASE("a verb takes its own options and no others") {
    const auto a = read({"turn", "a.stl", "--by", "-1,0,2"});
    CHECK(a.verb == "turn");
    CHECK(a.file("a mesh") == "a.stl");
    CHECK(a.need_direction("by") == std::array{-1.0, 0.0, 2.0});
    CHECK_FALSE(a.flag("twice"));
    CHECK(a.flag("twice", true));
    // The same, however it is written and in whatever order.
    for (const auto& words : {std::vector<std::string>{"turn", "--by=-1,0,2", "a.stl"},
                              std::vector<std::string>{"turn", "--by", "-1,0,2", "a.stl"}}) {
        CHECK(read(words).options == a.options);
        CHECK(read(words).files == a.files);
    }
    CHECK_THAT(refused({"look", "j", "--by", "0,0,1"}),
               Catch::Contains("--by") && Catch::Contains("no such option"));
    CHECK_THAT(refused({"turn", "m", "--library=x"}), Catch::Contains("--library: there is no such option"));
    CHECK_THAT(refused({"turn", "m", "--b", "0,0,1"}), Catch::Contains("no such option"));
}

TEST_CASE("what is missing, doubled or unknown is named") {
    CHECK_THAT(refused({"spin", "a.stl"}), Catch::Contains("no verb \"spin\""));
    CHECK_THAT(refused({"turn", "a.stl", "--by"}), Catch::Contains("--by: its value is missing"));
    CHECK_THAT(refused({"turn", "--by", "1,0,0", "--by", "0,1,0"}), Catch::Contains("given twice"));
    CHECK(read({}).verb.empty());
    CHECK(read({"--help"}).help);
    CHECK(read({"turn", "--help"}).verb == "turn");
    CHECK(read({"turn", "-h"}).help);
    const auto two = read({"turn", "a.stl", "b.stl"});
    CHECK_THROWS_AS(two.file("a mesh"), InputError);
    CHECK_THROWS_AS(read({"turn"}).file("a mesh"), InputError);
    // A file may begin with a hyphen where it is said to be one.
    CHECK(read({"look", "--", "--odd"}).file("a job") == "--odd");
    CHECK(read({"look", "a b ü.jigshell"}).file("a job") == "a b ü.jigshell");
}

TEST_CASE("yes is yes, no is no, and anything else is asked about") {
    CHECK(read({"turn", "--twice", "yes"}).flag("twice"));
    CHECK_FALSE(read({"turn", "--twice", "no"}).flag("twice", true));
    for (const char* other : {"", "Yes", "1", "true"})
        CHECK_THROWS_AS(read({"turn", std::string("--twice=") + other}).flag("twice"), InputError);
}

TEST_CASE("numbers are plain, finite and in their range") {
    const auto of = [](const std::string& text) { return read({"turn", "--by=" + text}); };
    CHECK(of("0.25").number("by", 1, 0, 1) == 0.25);
    CHECK(of("2.5e-1").number("by", 1, 0, 1) == 0.25);
    CHECK(read({"turn"}).number("by", 0.5, 0, 1) == 0.5);
    for (const char* bad : {"1,5", "1.5 m", "nan", "inf", "", " 1", "1e999", "0x10", "2"})
        CHECK_THROWS_AS(of(bad).number("by", 1, 0, 1), InputError);
    for (const char* bad : {"1,2", "1,2,3,4", "0,0,0", "1,,3", "a,b,c"})
        CHECK_THROWS_AS(of(bad).need_direction("by"), InputError);
}

TEST_CASE("usage is made of the options themselves") {
    CHECK(kForms[0].usage() == "turn MESH --by X,Y,Z [--twice yes|no]");
    CHECK(kForms[1].usage() == "look JOB [--library DIR]");
}

}  // namespace jig::batch
