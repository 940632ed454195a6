// Programs run beside ours: what they say, how they end, and that they end when told to.
#include <catch2/catch.hpp>

#include <vector>

#include "core/base/child.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

ChildEnd shell(const std::string& script, const std::string& in = "", int most = 10000,
               Progress& progress = quiet) {
    return run_child({"/bin/sh", "-c", script}, in, std::chrono::milliseconds(most), progress, "working");
}

}  // namespace

TEST_CASE("a child's words and code come back, and it is handed its input") {
    const auto end = shell("cat; exit 7", "line\n");
    CHECK(end.code == 7);
    CHECK(end.out == "line\n");
    CHECK_FALSE(end.late);
    // More than a pipe holds, both ways at once.
    const std::string much(3000000, 'x');
    CHECK(shell("cat", much).out == much);
    // One that does not read what it is handed ends as it likes.
    CHECK(shell("exit 0", much).code == 0);
}

TEST_CASE("a child that does not start or is killed has no code") {
    CHECK(run_child({"/no/such/program"}, "", std::chrono::seconds(1), quiet, "x").code == -1);
    CHECK(shell("kill -SEGV $$").code == -1);
    CHECK(program_beside("no-such-program-of-ours").empty());
    CHECK_FALSE(program_beside("jigshell-step").empty());
}

TEST_CASE("a child is ended when its time is up, and when somebody stops it") {
    const auto start = std::chrono::steady_clock::now();
    CHECK(shell("sleep 30", "", 200).late);
    Progress stopping([&](double, std::string_view) { stopping.stop(); });
    CHECK_THROWS_AS(shell("echo 0.5 >&2; exec sleep 30", "", 60000, stopping), Cancelled);
    CHECK(std::chrono::steady_clock::now() - start < std::chrono::seconds(10));
}

TEST_CASE("numbers on a child's standard error are its progress, other words are not") {
    std::vector<double> told;
    Progress listening([&](double fraction, std::string_view doing) {
        told.push_back(fraction);
        CHECK(doing == "working");
    });
    CHECK(shell("echo 0.25 >&2; echo warning: odd >&2; echo 0.75 >&2", "", 10000, listening).code == 0);
    CHECK(told == std::vector<double>{0.25, 0.75});
}

TEST_CASE("a child that runs out of its own processor time counts as late") {
    CHECK(shell("ulimit -S -t 1; while :; do :; done", "", 60000).late);
}
