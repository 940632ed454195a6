// The worked example of each handbook page: its numbers are those of a demo.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <map>
#include <regex>
#include <sstream>

#include "core/science/mesh/stl.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;

namespace {

std::string page_file(const char* stage) {
    return fixtures::data() + "/../docs/handbook/" + stage + ".md";
}

const Findings& of_demo(const std::string& name) {
    static std::map<std::string, Findings> all;
    const auto known = all.find(name);
    return known != all.end() ? known->second
                              : all[name] = fixtures::worked_out(fixtures::demo(name), Depth::quick);
}

/// A page with the tables under its `<!-- figures DEMO STAGE KEYS -->` marks as the demos have them now.
std::string renewed(const std::string& page, int& tables) {
    static const std::regex mark("<!-- figures (\\S+) (\\S+) (.+) -->");
    std::istringstream in(page);
    std::string out, line;
    bool in_table = false;
    while (std::getline(in, line)) {
        if (in_table && !line.empty() && line.front() == '|') continue;
        in_table = false;
        out += line + "\n";
        std::smatch found;
        if (!std::regex_match(line, found, mark)) continue;
        in_table = true;
        ++tables;
        out += "| figure | value | from |\n| --- | --- | --- |\n";
        const auto& findings = of_demo(found[1]);
        std::istringstream keys(found[3]);
        std::string key;
        while (keys >> key) {
            const Figure* figure = nullptr;
            for (std::size_t s = 0; s < kStages.size(); ++s) {
                if (kStages[s].key != found[2].str()) continue;
                for (const auto& f : findings.figures(static_cast<Stage>(s))) {
                    if (f.key == key) figure = &f;
                }
            }
            INFO(found[1] << " " << found[2] << " " << key);
            REQUIRE(figure != nullptr);
            auto reason = worded(figure->reason);
            for (std::size_t i = 0; (i = reason.find('|', i)) != std::string::npos; i += 2)
                reason.insert(i, "\\");
            out += fmt::format("| {} | {} | {} |\n", worded(figure->name), show(figure->kind, figure->value),
                               reason);
        }
    }
    return out;
}

}  // namespace

TEST_CASE("every page has a worked example, and its numbers are a demo's") {
    for (const auto& stage : kStages) {
        INFO(stage.said << ": core-tests \"[.examples]\" writes the pages anew");
        const auto page = read_file(page_file(stage.key), 1 << 20);
        int tables = 0;
        CHECK(renewed(page, tables) == page);
        CHECK(tables >= 1);
    }
}

TEST_CASE("writes the examples of the handbook anew", "[.examples]") {
    for (const auto& stage : kStages) {
        int tables = 0;
        const auto page = renewed(read_file(page_file(stage.key), 1 << 20), tables);
        write_atomically(page, page_file(stage.key));
        CHECK(tables >= 1);
    }
}
