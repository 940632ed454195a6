// Sight of some of the shop's lists, and slices of the brief: what a function does not read it cannot reach.
#include <catch2/catch.hpp>

#include "core/shop/lists.hpp"
#include "core/stages/brief/choices.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;

namespace {

template <class T>
concept ReadsResins = requires(const T& t) {
    t.resins;
};
template <class T>
concept ReadsPulls = requires(const T& t) {
    t.pulls;
};

static_assert(ReadsResins<Lists<Resin, Board>>);
static_assert(!ReadsResins<Lists<Board>>);
static_assert(std::is_convertible_v<const Shop&, Lists<Board>>);
static_assert(std::is_convertible_v<const Lists<Resin, Board>&, Lists<Board>>);
static_assert(ReadsPulls<brief::Of<brief::Series>>);
static_assert(!ReadsPulls<brief::Of<brief::Limits, brief::Crew>>);

}  // namespace

TEST_CASE("a view of the shop is compared by what is in its own lists") {
    const Shop a = fixtures::shop();
    Shop b = a;
    const Lists<Resin, Board> of_a(a), of_b(b);
    CHECK(of_a == of_b);
    b.cores.front().price += 1;
    CHECK(of_a == of_b);
    b.boards.front().price += 1;
    CHECK_FALSE(of_a == of_b);
    CHECK(Lists<Resin>(of_a) == Lists<Resin>(b));
    b.boards = a.boards;
    CHECK(of_a == of_b);
    b.boards.pop_back();
    CHECK_FALSE(of_a == of_b);
    // Whatever it was narrowed from, it looks at the shop itself.
    CHECK(&Lists<Board>(of_a).boards == &a.boards);
}

TEST_CASE("hours at a rate are its setting up and so much for each") {
    Rate rate;
    rate.name = "painting";
    rate.value = 0.5;
    rate.set_up = 0.25;
    CHECK(rate.hours(2) == Approx(1.25));
    CHECK(rate.hours(1e-9) == Approx(0.25));
    CHECK(rate.hours(0) == 0);
    CHECK(rate.hours(-1) == 0);
    Shop shop = fixtures::shop();
    shop.rates.push_back(rate);
    const Lists<Rate> rates(shop);
    CHECK(rates.rate("painting") == 0.5);
    CHECK(rates.hours("painting", 2) == Approx(1.25));
    CHECK_THROWS_AS(rates.rate("sculpting"), InputError);
    CHECK_THROWS_AS(rates.hours("sculpting", 1), InputError);
}

TEST_CASE("setting up is written to the library and read back, and is nothing where a file has none") {
    Shop shop = fixtures::shop();
    const auto of = [&](const char* name) { return need(shop.rates, name, "test").set_up; };
    CHECK(of("laying ply") == 0);
    read_list(
        shop, "rates",
        R"({"list": "rates", "entries": [{"name": "laying ply", "unit": "h/m²", "value": 0.3, "set_up_h": 0.2}]})",
        "own");
    CHECK(of("laying ply") == 0.2);
    Shop again = fixtures::shop();
    read_list(again, "rates", write_list(shop, "rates"), "again");
    CHECK(again == shop);
    for (const char* bad : {"-0.1", "1001", "\"1\""}) {
        const auto text =
            std::string(R"({"list": "rates", "entries": [{"name": "laying ply", "set_up_h": )") + bad + "}]}";
        CHECK_THROWS_AS(read_list(shop, "rates", text, "bad"), InputError);
    }
    CHECK(of("laying ply") == 0.2);
}

TEST_CASE("slices of the brief hold their own choices and no others") {
    brief::Choices all;
    all.pulls = 77;
    all.people = 5;
    const brief::Of<brief::Series, brief::Crew> some(all);
    CHECK(some.pulls == 77);
    CHECK(some.people == 5);
    auto other = all;
    other.customer = "somebody else";
    other.tolerance *= 2;
    CHECK(brief::Of<brief::Series, brief::Crew>(other) == some);
    other.lift += 1;
    CHECK_FALSE(brief::Of<brief::Series, brief::Crew>(other) == some);
    // Narrower still, and equal by value.
    CHECK(brief::Of<brief::Series>(some) == brief::Of<brief::Series>(all));
}
