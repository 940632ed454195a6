// What is kept from edit to edit is what is worked out afresh, whatever leaf of job or shop is changed.
#include <catch2/catch.hpp>

#include "core/base/slate.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

/// Calls `visit` with every leaf of a JSON value and the path to it.
void each_leaf(const Json& json, const std::string& path,
               const std::function<void(const std::string&, const Json&)>& visit) {
    if (json.is_object()) {
        for (const auto& [key, value] : json.items()) each_leaf(value, path + "/" + key, visit);
    } else if (json.is_array()) {
        for (std::size_t i = 0; i < json.size(); ++i)
            each_leaf(json[i], path + "/" + std::to_string(i), visit);
    } else {
        visit(path, json);
    }
}

/// Other values that a leaf might take.
std::vector<Json> others(const Json& leaf) {
    if (leaf.is_boolean()) return {!leaf.get<bool>()};
    if (leaf.is_number_integer()) return {leaf.get<int>() + 1, std::max(0, leaf.get<int>() - 1)};
    if (leaf.is_number()) {
        const double v = leaf.get<double>();
        return {1.07 * v + 1e-3, 0.9 * v};
    }
    if (leaf.is_string()) return {leaf.get<std::string>() + "x"};
    return {};
}

/// Every word that stands for a choice anywhere in the program.
template <class E>
void add_words(std::vector<Json>& out) {
    for (const auto& w : Words<E>::all) out.emplace_back(std::string(w.file));
}

std::string same_or_where(const Findings& kept, const Findings& fresh) {
    const auto a = findings_to_json(kept), b = findings_to_json(fresh);
    if (a == b) return {};
    return Json::diff(b, a).dump().substr(0, 600);
}

}  // namespace

namespace {

/// Changes every so many leaves of each demo job, others in each: of the small one every `step`th, of those
/// that take longer to work out one in `sparser` of as many.
void change_leaves(std::size_t step, std::size_t sparser) {
    std::size_t from = 0;
    for (const std::string name : {"cello-case", "radar-dome", "pavilion-petal", "cello-case-whole"}) {
        auto base = fixtures::coarse(name, 0.06);
        // What no demo has.
        if (name == "radar-dome")
            base.part.cuts = {{{{0.25, 0.25}, {0.9, 0.9}}, CutIn::every, 0, 0.03},
                              {{{-0.35, 0}, {-0.9, 0}}, CutIn::angle, kPi / 4, 0}};
        std::size_t leaves = from++;
        const auto every = name == "radar-dome" ? step : step * sparser;
        auto json = job_to_json(base);
        JobBoard board(3);
        board.work_out(board.lay(base, fixtures::shared_shop()), Depth::stages, quiet);
        int changed = 0;
        each_leaf(json, "", [&](const std::string& path, const Json& leaf) {
            if (path == "/format" || path == "/version" || leaves++ % every != 0) return;
            auto values = others(leaf);
            // A word is also tried as the choice that stands beside it.
            if (leaf.is_string()) {
                add_words<Grade>(values);
                add_words<Process>(values);
                add_words<BackKind>(values);
                add_words<Route>(values);
            }
            for (const auto& value : values) {
                if (value == leaf) continue;
                auto next = json;
                next[Json::json_pointer(path)] = value;
                Job job;
                try {
                    job = job_from_json(next, "test");
                } catch (const InputError&) {
                    continue;  // out of range, or no such word
                }
                INFO(name << path << " = " << value.dump());
                const auto kept =
                    board.work_out(board.lay(job, fixtures::shared_shop(), true), Depth::stages, quiet);
                const auto fresh = evaluate(job, fixtures::shop(), quiet, Depth::stages);
                CHECK(same_or_where(kept, fresh).empty());
                ++changed;
            }
        });
        INFO(name << ": " << changed);
        CHECK(changed > 200 / static_cast<int>(every));
    }
}

}  // namespace

TEST_CASE("a leaf of a job that is changed reaches all that reads it") {
    change_leaves(61, 3);
}

// Ten minutes: every leaf of every demo. Run by name or by its tag.
TEST_CASE("every leaf of a job that is changed reaches all that reads it", "[.every]") {
    change_leaves(1, 1);
}

namespace {

/// Changes every so many entries of each list of the shop.
void change_entries(std::size_t step) {
    const auto job = fixtures::coarse("radar-dome", 0.06);
    JobBoard board(3);
    board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet);
    int changed = 0;
    Shop::lists(fixtures::shop(), [&](std::string_view list, const auto&) {
        const auto text = parse_json("list", write_list(fixtures::shop(), list));
        for (std::size_t i = 0; i < text["entries"].size(); i += step) {
            auto entry = text["entries"][i];
            // All figures of the entry a little, which a list of materials takes within its ranges or not.
            for (auto& [key, value] : entry.items()) {
                if (value.is_number_float()) value = 1.03 * value.template get<double>();
                if (value.is_boolean()) value = !value.template get<bool>();
            }
            auto shop = std::make_shared<Shop>(fixtures::shop());
            try {
                read_list(*shop, list, Json{{"list", std::string(list)}, {"entries", {entry}}}.dump(),
                          "test");
            } catch (const InputError&) {
                continue;
            }
            if (*shop == fixtures::shop()) continue;
            INFO(list << ": " << entry["name"].dump());
            const auto kept = board.work_out(board.lay(job, shop, true), Depth::stages, quiet);
            CHECK(same_or_where(kept, evaluate(job, *shop, quiet, Depth::stages)).empty());
            ++changed;
        }
    });
    CHECK(changed > 60 / static_cast<int>(step));
}

}  // namespace

TEST_CASE("entries of the shop that are changed reach all that reads them") {
    change_entries(5);
}

TEST_CASE("every entry of the shop that is changed reaches all that reads it", "[.every]") {
    change_entries(1);
}
