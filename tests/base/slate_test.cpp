#include <catch2/catch.hpp>

#include <array>
#include <atomic>
#include <string>
#include <thread>

#include "core/base/slate.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

struct Sum {
    int value = 0;
    bool operator==(const Sum&) const = default;
};
struct Left {
    int value = 0;
    bool operator==(const Left&) const = default;
};
struct Right {
    int value = 0;
    bool operator==(const Right&) const = default;
};
struct Half {
    int value = 0;
    bool operator==(const Half&) const = default;
};
struct Sentence {
    std::string text;
    bool operator==(const Sentence&) const = default;
};
struct Numbers {
    int left = 0, right = 0;
};

/// How often a node was really run.
struct Count {
    static std::atomic<int>& of(int node) {
        static std::array<std::atomic<int>, 3> counts{};
        return counts[static_cast<std::size_t>(node)];
    }
};

Half halve(const Left& left) {
    ++Count::of(0);
    return {left.value / 2};
}
Sum add(const Half& half, const Right& right, Progress& progress) {
    ++Count::of(1);
    progress.check();
    if (right.value < 0) throw InputError("right", "it is negative", "take another");
    return {half.value + right.value};
}
Sentence say(const Sum& sum) {
    ++Count::of(2);
    return {std::to_string(sum.value)};
}

}  // namespace

namespace jig {
template <>
struct Cell<Left> {
    static Left of(const Numbers& n) { return {n.left}; }
};
template <>
struct Cell<Right> {
    static Right of(const Numbers& n) { return {n.right}; }
};
}  // namespace jig

namespace {

using Numbered = Graph<Numbers, &halve, &add, &say>;
using Board3 = Slate<Numbered>;
using Wrong = Graph<Numbers, &add, &halve>;
static_assert(Numbered::every_input_comes_first && Numbered::every_result_is_its_own);
static_assert(!Wrong::every_input_comes_first);
static_assert(!Graph<Numbers, &halve, &halve>::every_result_is_its_own);
static_assert(Numbered::every_cell_is_there && !Graph<Numbers, &add>::every_cell_is_there);

Outcome<Sentence> said(Board3& slate, int left, int right, Progress& progress, unsigned threads = 1) {
    return slate.want<Sentence>(slate.lay(std::make_shared<const Numbers>(Numbers{left, right})), progress,
                                threads);
}

std::array<int, 3> counted() {
    return {Count::of(0), Count::of(1), Count::of(2)};
}

}  // namespace

TEST_CASE("a slate runs what an edit reaches, stops where a result is as before, and remembers") {
    Board3 slate;
    const auto start = counted();
    const auto ran = [&] {
        const auto now = counted();
        return std::array{now[0] - start[0], now[1] - start[1], now[2] - start[2]};
    };
    CHECK(said(slate, 4, 1, quiet)->text == "3");
    CHECK(ran() == std::array{1, 1, 1});
    CHECK(said(slate, 4, 1, quiet)->text == "3");
    CHECK(ran() == std::array{1, 1, 1});
    // Half of five is half of four: what reads it does not run.
    CHECK(said(slate, 5, 1, quiet)->text == "3");
    CHECK(ran() == std::array{2, 1, 1});
    // Another sum of the same value: its words stand.
    CHECK(said(slate, 2, 2, quiet)->text == "3");
    CHECK(ran() == std::array{3, 2, 1});
    CHECK(said(slate, 2, 7, quiet)->text == "8");
    CHECK(ran() == std::array{3, 3, 2});
    // Back again, from the memo.
    CHECK(said(slate, 4, 1, quiet)->text == "3");
    CHECK(ran() == std::array{3, 3, 2});
}

TEST_CASE("a fault is kept like a value, and what needs it has neither") {
    Board3 slate;
    const auto laid = slate.lay(std::make_shared<const Numbers>(Numbers{4, -1}));
    const auto before = counted()[1];
    CHECK_FALSE(slate.want<Sentence>(laid, quiet));
    CHECK(slate.want<Sentence>(laid, quiet).fault == nullptr);
    const auto sum = slate.want<Sum>(laid, quiet);
    REQUIRE(sum.fault);
    CHECK(sum.fault->where() == "right");
    CHECK(counted()[1] == before + 1);
    // A value again, and the fault again without a run.
    CHECK(said(slate, 4, 1, quiet));
    CHECK_FALSE(said(slate, 4, -1, quiet));
    CHECK(counted()[1] == before + 2);
}

TEST_CASE("what has not been worked out is not recalled, and recalling runs nothing") {
    Board3 slate;
    const auto laid = slate.lay(std::make_shared<const Numbers>(Numbers{6, 1}));
    const auto before = counted();
    CHECK_FALSE(slate.recall<Sentence>(laid));
    CHECK(counted() == before);
    slate.want<Sum>(laid, quiet);
    CHECK(slate.recall<Sum>(laid)->value == 4);
    CHECK_FALSE(slate.recall<Sentence>(laid));
    // Another sheet on the same slate does not disturb it.
    said(slate, 100, 100, quiet);
    CHECK(slate.recall<Sum>(laid)->value == 4);
}

TEST_CASE("a stopped run keeps the nodes that were finished") {
    Board3 slate;
    Progress stop;
    stop.stop();
    const auto laid = slate.lay(std::make_shared<const Numbers>(Numbers{8, 1}));
    slate.want<Half>(laid, quiet);
    for (const unsigned threads : {1u, 2u}) {
        CHECK_THROWS_AS(slate.want<Sentence>(laid, stop, threads), Cancelled);
        CHECK(slate.recall<Half>(laid)->value == 4);
        CHECK_FALSE(slate.recall<Sum>(laid));
    }
    CHECK(slate.want<Sentence>(laid, quiet)->text == "5");
}

TEST_CASE("the oldest is forgotten, and what was only passing before it") {
    Board3 slate(3);
    const auto lay = [&](int left, bool passing) {
        return slate.lay(std::make_shared<const Numbers>(Numbers{left, 0}), passing);
    };
    const auto first = lay(2, false);
    slate.want<Sentence>(first, quiet);
    for (int i = 2; i < 12; ++i) slate.want<Sentence>(lay(2 * i, true), quiet);
    CHECK(slate.recall<Sentence>(lay(2, false)));
    for (int i = 2; i < 12; ++i) slate.want<Sentence>(lay(2 * i, false), quiet);
    CHECK_FALSE(slate.recall<Sentence>(lay(2, false)));
    // Forgotten is not wrong.
    CHECK(slate.want<Sentence>(first, quiet)->text == "1");
}

TEST_CASE("several threads may ask one slate at once") {
    Board3 slate;
    std::vector<std::thread> askers;
    std::atomic<int> wrong{0};
    for (int t = 0; t < 4; ++t) {
        askers.emplace_back([&, t] {
            for (int i = 0; i < 200; ++i) {
                const int left = 2 * ((i + t) % 5), right = i % 3;
                if (said(slate, left, right, quiet, 1 + i % 2)->text != std::to_string(left / 2 + right))
                    ++wrong;
            }
        });
    }
    for (auto& a : askers) a.join();
    CHECK(wrong == 0);
}
