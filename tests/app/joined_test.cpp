// What is joined cures too: a part to its mate, a back to its shell, and a part by itself, by hand in the
// window.
#include <QComboBox>

#include "tests/app/bench.hpp"

using namespace bench;

namespace {

const heat::CureRun* run_of(Bench& b, CureOf of) {
    const auto& f = b.window.document().findings();
    REQUIRE(f.heat);
    return f.heat->cures->find(of);
}

/// Whether that cure's own words, table or buttons are to be seen in the slip.
bool offered(Bench& b, const char* add) {
    const auto* button = b.window.findChild<QPushButton*>(add);
    return button != nullptr && button->isVisible();
}

}  // namespace

TEST_CASE("a part is joined by a word, cured as its adhesive wants, and its sensors stand on the shape") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    b.choose("/part/joint/kind", "a bead of adhesive on a lap");
    b.choose("/part/joint/adhesive", "structural adhesive, warm cure");
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto* run = run_of(b, CureOf::joined);
    REQUIRE(run != nullptr);
    CHECK(run->highest_air == Approx(kelvin(65)));
    CHECK(offered(b, "add-joined"));
    auto* words = b.visible<QLabel>("sensors-joined");
    REQUIRE(words != nullptr);
    CHECK(words->text().contains("structural adhesive, warm cure"));
    b.press("flags-joined");
    b.settle();
    CHECK(b.window.document().job().heat.shows == CureOf::joined);
    CHECK(b.window.stand().scene().legend.contains("thermocouples"));
    // Longer in the room instead, by its own leg.
    b.press("add-joined");
    b.settle();
    REQUIRE(b.window.document().job().heat.joined.size() == 1);
    b.type_cell("legs-joined", 0, 0, "20");
    b.type_cell("legs-joined", 0, 2, "3 h");
    CHECK(b.visible<QLabel>("call-not_gelled") != nullptr);
    b.fix("not_gelled");
    b.settle();
    CHECK(b.window.document().job().heat.joined[0].hold > 3 * 3600);
    for (const auto& c : b.window.document().findings().calls) CHECK(c.key != "not_gelled");
    // Without a joint there is none.
    b.window.show_stage(Stage::part);
    b.settle();
    b.choose("/part/joint/kind", "no joint");
    b.window.show_stage(Stage::heat);
    b.settle();
    CHECK(run_of(b, CureOf::joined) == nullptr);
}

TEST_CASE("a part gets a cure by itself with its first leg, and loses it with its last") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    CHECK(run_of(b, CureOf::part_free) == nullptr);
    REQUIRE(offered(b, "add-part_free"));
    CHECK_FALSE(b.window.findChild<QPushButton*>("fast-part_free")->isVisible());
    CHECK_FALSE(b.window.findChild<QWidget*>("cure-part_free")->isVisible());
    const double before = b.window.document().findings().heat->part_Tg;
    b.press("add-part_free");
    b.settle();
    REQUIRE(b.window.document().job().heat.part_free.size() == 1);
    b.type_cell("legs-part_free", 0, 0, "55");
    b.type_cell("legs-part_free", 0, 1, "6");
    b.type_cell("legs-part_free", 0, 2, "12 h");
    const auto* run = run_of(b, CureOf::part_free);
    REQUIRE(run != nullptr);
    CHECK(run->highest_air == Approx(kelvin(55)));
    CHECK(b.window.document().findings().heat->part_Tg >= before);
    CHECK(b.window.findChild<QPushButton*>("fast-part_free")->isVisible());
    CHECK(b.window.findChild<QWidget*>("cure-part_free")->isVisible());
    for (int i = 0; i < 4; ++i) b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().heat.part_free.empty());
    CHECK(run_of(b, CureOf::part_free) == nullptr);
    CHECK(offered(b, "add-part_free"));
}

TEST_CASE("a back that is bonded hard has a cure of its own, one that floats has none") {
    Bench b;
    b.window.show_stage(Stage::back);
    b.settle();
    b.choose("/back/joint/bond", "floating: carried, free to slide");
    b.window.show_stage(Stage::heat);
    b.settle();
    CHECK(run_of(b, CureOf::with_back) == nullptr);
    CHECK_FALSE(offered(b, "add-with_back"));
    b.window.show_stage(Stage::back);
    b.settle();
    b.choose("/back/joint/bond", "hard, in thickened resin");
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto* run = run_of(b, CureOf::with_back);
    REQUIRE(run != nullptr);
    CHECK(offered(b, "add-with_back"));
    // It stays in the room, and the stand's charts leave it to the slip until it is warmed.
    const auto charts = [&] {
        int count = 0;
        for (auto* plot : b.window.findChildren<PlotView*>())
            count += plot->objectName().startsWith("plot") && plot->plot().title.contains("back bonded on");
        return count;
    };
    CHECK(charts() == 0);
    b.press("add-with_back");
    b.settle();
    b.type_cell("legs-with_back", 0, 0, "40");
    CHECK(run_of(b, CureOf::with_back)->highest_air == Approx(kelvin(40)));
    CHECK(charts() > 0);
}
