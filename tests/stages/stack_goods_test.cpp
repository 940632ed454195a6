#include <catch2/catch.hpp>

#include "core/stages/stack_goods.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::shop;

namespace {

const Resin& resin() {
    return need(shop().resins, "epoxy, infusion", "test");
}

Work bought(const std::vector<Layer>& layers, double area, const Extent& extent, double count, double waste,
            std::optional<double> mix = {}, const Shop& from = shop()) {
    Work out;
    buy_stack(out, Ledger::once, Stage::shell, sum_stack(layers, resin(), LayUp::hand, from, "test"), resin(),
              area, extent, count, waste, from, mix);
    return out;
}

const Goods& line(const Work& work, const std::string& what) {
    for (const auto& g : work.goods) {
        if (g.what == what) return g;
    }
    throw std::runtime_error("no line " + what);
}

const Layer kCloth{LayerKind::ply, "glass cloth 600 twill", 0, 0};

}  // namespace

TEST_CASE("cloth is bought by lengths where it is laid in one piece, by area where it is in many") {
    const auto& roll = need(shop().reinforcements, kCloth.material, "test");
    // 2 m × 2 m from a roll of 1.27 m: two lengths a ply, 4 m.
    const auto whole = bought({kCloth, kCloth, kCloth}, 4, {2, 2}, 1, 0.1);
    CHECK(line(whole, roll.name).amount == Approx(12));
    CHECK((1 + line(whole, roll.name).waste) * 12 == Approx(12 * roll.roll_width));
    CHECK_THAT(line(whole, roll.name).note, Catch::Contains("6 lengths"));
    const auto scraps = bought({kCloth, kCloth, kCloth}, 4, {}, 1, 0.1);
    CHECK(line(scraps, roll.name).waste == Approx(0.1));
    CHECK(line(scraps, roll.name).note.find("lengths") == std::string::npos);
    // Two of them take twice as much.
    CHECK(line(bought({kCloth}, 4, {2, 2}, 2, 0.1), roll.name).amount == Approx(8));
    // Never less than its area and its waste.
    const auto tight = bought({kCloth}, roll.roll_width * 2, {2, roll.roll_width}, 1, 0.25);
    CHECK(line(tight, roll.name).waste == Approx(0.25));
    CHECK(bought({kCloth}, 0, {2, 2}, 1, 0.1).goods.empty());
}

TEST_CASE("long stacks say how many rolls, and a tape goes by area") {
    const auto& roll = need(shop().reinforcements, kCloth.material, "test");
    const std::vector<Layer> many(40, kCloth);
    const auto work = bought(many, 4, {2, 2}, 1, 0.1);
    const auto rolls = static_cast<int>(std::ceil(40 * 4 / roll.roll_length));
    CHECK(rolls > 1);
    CHECK_THAT(line(work, roll.name).note, Catch::Contains(std::to_string(rolls) + " rolls"));
    auto narrow = shop();
    for (auto& r : narrow.reinforcements) {
        if (r.name == roll.name) r.roll_width = 0.025;
    }
    const auto taped = bought({kCloth}, 4, {2, 2}, 1, 0.1, {}, narrow);
    CHECK(line(taped, roll.name).waste == Approx(0.1));
}

TEST_CASE("cores, coats and mixed resin follow area, number and what stays in pots") {
    const Layer coat{LayerKind::surface_coat, "epoxy surface coat", 0, 0},
        core{LayerKind::core, "PVC foam 75, 15 mm", 0, 0};
    const std::vector<Layer> layers{coat, kCloth, core, kCloth};
    const auto sum = sum_stack(layers, resin(), LayUp::hand, shop(), "test");
    const auto work = bought(layers, 3, {}, 2, 0.2, 9.5);
    CHECK(line(work, core.material).amount == Approx(6));
    CHECK(line(work, core.material).waste == Approx(0.2));
    CHECK(line(work, core.material).price == need(shop().cores, core.material, "test").price);
    CHECK(line(work, coat.material).kind == Kind::mass);
    CHECK(line(work, coat.material).amount > 0);
    // What is mixed is what the stage says, to the gram; else what is laid and its waste.
    const auto& mixed = line(work, resin().name + ", mixed");
    CHECK(mixed.amount == Approx(2 * sum.resin * 3));
    CHECK((1 + mixed.waste) * mixed.amount == Approx(9.5));
    CHECK(line(bought(layers, 3, {}, 2, 0.2), resin().name + ", mixed").waste == Approx(0.2));
    CHECK_THAT(mixed.note, Catch::Contains("parts of hardener") && Catch::Contains("pot life"));
}

TEST_CASE("a skin's girth is what its area asks for where its sections do not say more") {
    CHECK(extent_of(2, 2, 0).girth == Approx(1));
    CHECK(extent_of(2, 2, 1.4).girth == Approx(1.4));
    CHECK(extent_of(2, 2, 0.4).girth == Approx(1));
    CHECK(extent_of(0, 2, 1).length == 0);
    CHECK(extent_of(2, 0, 1).girth == 0);
}

TEST_CASE("steps add their labour, and what takes no time is left out") {
    Work work;
    auto& step = work.step(When::shell, Stage::shell, "lay", {{"a", 1.5}, {"b", 0}, {"c", 0.25}});
    CHECK(step.hours() == Approx(1.75));
    CHECK(step.labour.size() == 2);
    CHECK(work.step(When::shell, Stage::shell, "wait", {}).hours() == 0);
    work.buy(Ledger::once, Stage::shell, "nothing", Kind::mass, 0, 0.1, 5);
    CHECK(work.goods.empty());
    work.consumable(Ledger::each, Stage::part, "bag film", Kind::area, 2, shop());
    CHECK(work.goods.front().waste == need(shop().consumables, "bag film", "test").waste);
    CHECK_THROWS_AS(work.consumable(Ledger::each, Stage::part, "unicorn hair", Kind::area, 2, shop()),
                    InputError);
    const auto& board = need(shop().boards, "birch plywood 12 mm", "test");
    const double sheet = board.sheet_length * board.sheet_width;
    CHECK(sheets_for(0.69 * sheet, board) == 1);
    CHECK(sheets_for(0.71 * sheet, board) == 2);
    CHECK(sheets_for(0, board) == 0);
}

TEST_CASE("a prepreg's resin comes in its cloth and none is mixed") {
    const auto& low = need(shop().resins, "prepreg resin, low cure", "test");
    const std::vector<Layer> layers{kCloth, kCloth};
    const auto sum = sum_stack(layers, low, LayUp::prepreg, shop(), "test");
    Work work;
    buy_stack(work, Ledger::once, Stage::shell, sum, low, 2, {}, 1, 0.1, shop(), 0.3);
    CHECK(line(work, low.name + ", in its cloth").amount == Approx(2 * sum.resin));
    for (const auto& g : work.goods) CHECK(g.what != low.name + ", mixed");
}
