// The oven by hand in the window: how it is built, its map, its heater, and flags where its sensors belong.
#include <QClipboard>
#include <QSettings>

#include "app/charts/chart_view.hpp"
#include "app/stand/scene.hpp"
#include "app/window/start.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

const heat::CureRun& part_cure(Bench& b) {
    const auto* run = b.window.document().findings().heat->cures->find(CureOf::part);
    REQUIRE(run != nullptr);
    return *run;
}

Scene heat_scene(Bench& b) {
    return scene_of(b.window.document().job(), b.window.document().findings(), Stage::heat, ink(Light::day),
                    {UnitSystem::metric, "¤"});
}

int labels_with(const Scene& s, const QString& words) {
    int out = 0;
    for (const auto& label : s.labels) out += label.text.contains(words);
    return out;
}

/// A part that cures in the oven, at 45 °C.
void cure_in_oven(Bench& b) {
    b.window.show_stage(Stage::heat);
    b.press("add-part");
    b.type_cell("legs-part", 0, 0, "45");
    b.type_cell("legs-part", 0, 2, "8 h");
}

}  // namespace

TEST_CASE("the oven's map is begun, typed and pasted, and every cure is seen at its ends") {
    Bench b;
    cure_in_oven(b);
    const double before = part_cure(b).seconds;
    CHECK(b.visible<QLabel>("oven-ends")->text().contains("has no map"));
    b.press("oven-nine");
    auto* table = b.table("oven-map");
    REQUIRE(table->rowCount() == 9);
    CHECK_FALSE(b.window.findChild<QPushButton*>("oven-nine")->isVisible());
    // Nothing is off until it has been read.
    CHECK(part_cure(b).places.empty());
    b.type_cell("oven-map", 1, 3, "-4");
    b.type_cell("oven-map", 8, 3, "2,5");
    const auto& map = b.window.document().job().heat.oven.map;
    CHECK(map[1].off == Approx(-4));
    CHECK(map[8].off == Approx(2.5));
    const auto said = b.visible<QLabel>("oven-ends")->text();
    CHECK(said.contains("low, at the door, left"));
    CHECK(said.contains("high, at the back, right"));
    CHECK(said.contains("4.00 K under"));
    CHECK(part_cure(b).places.size() >= 2);
    CHECK(part_cure(b).seconds >= before - 1);
    // The sensors name the end, and stand as flags in an oven that is drawn round the tool.
    CHECK(b.visible<QLabel>("sensors-part")->text().contains("oven's cool end, low, at the door, left"));
    const auto scene = heat_scene(b);
    CHECK(labels_with(scene, "the slowest") == 1);
    CHECK(labels_with(scene, "in the air") == 2);
    CHECK(labels_with(scene, "door") == 1);
    CHECK(labels_with(scene, "−4") == 1);
    CHECK(scene.legend.contains("thermocouples"));
    // What is no place in an oven and no difference of heats is refused, and what was there stays.
    b.type_cell("oven-map", 1, 0, "140");
    CHECK(b.message().contains("outside the oven"));
    b.type_cell("oven-map", 1, 3, "warm");
    b.type_cell("oven-map", 1, 3, "90");
    CHECK(b.window.document().job().heat.oven.map[1].off == Approx(-4));
    CHECK(b.window.document().job().heat.oven.map[1].x == Approx(0.1));
    // A map from a notebook is pasted: its lines are added.
    QApplication::clipboard()->setText("50\t50\t95\t1.5\n50\t5\t50\t-1");
    table->setFocus();
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    REQUIRE(b.window.document().job().heat.oven.map.size() == 11);
    CHECK(b.window.document().job().heat.oven.map.back().off == Approx(-1));
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().job().heat.oven.map.size() == 9);
    // Read hardly warmer than the room it says nothing: that is a stop with its mend, and undo leads back.
    b.type("/heat/oven/mapped_at", "30");
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().findings().heat);
}

TEST_CASE("heater, load and build are typed in the oven's sentence, and its figures follow") {
    Bench b;
    cure_in_oven(b);
    const auto energy = [&] {
        return b.window.document().findings().heat->oven.find(CureOf::part)->heat.heater;
    };
    const double lined = energy();
    CHECK(b.figure("oven_part_energy").contains("kWh"));
    b.choose("/heat/oven/build", "bare steel box");
    CHECK(energy() > lined);
    CHECK(b.word("/heat/oven/power")->text() == "nobody knows how much");
    b.type("/heat/oven/power", "0.2");
    CHECK(b.window.document().job().heat.oven.power == Approx(200));
    // It cannot hold that: the verdict stands at the top, and a heater that can takes it away.
    CHECK(b.call_row("oven_cold")->isVisible());
    b.type("/heat/oven/power", "12 kW");
    for (const auto& c : b.window.document().findings().calls) CHECK(c.key != "oven_cold");
    b.type("/heat/oven/tools", "90");
    REQUIRE(b.call_row("oven_full")->isVisible());
    b.fix("oven_full");
    b.settle();
    CHECK(b.window.document().job().heat.oven.tools < 90);
    for (const auto& c : b.window.document().findings().calls) CHECK(c.key != "oven_full");
}

TEST_CASE("whose thermocouples are flagged is chosen in a word") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    b.choose("/heat/shows", "shell, free-standing");
    CHECK(b.window.document().job().heat.shows == CureOf::post_cure);
    const auto scene = heat_scene(b);
    CHECK(labels_with(scene, "the slowest") == 1);
    // Without a map nobody knows where the oven's ends are: nothing is drawn of it.
    CHECK(labels_with(scene, "in the air") == 0);
    CHECK(labels_with(scene, "door") == 0);
    // The charts stand there until the tool is asked for: by the button beside the list, the corner or F7.
    auto* swap = b.visible<QToolButton>("swap");
    CHECK(swap->text() == "Show the tool");
    CHECK(b.visible<PlotView>("plot-1")->isVisible());
    b.press("flags-part");
    CHECK(b.window.document().job().heat.shows == CureOf::part);
    CHECK(b.window.stand().isVisible());
    CHECK(b.window.stand().scene().legend.contains("thermocouples"));
    CHECK(shows_something(b.window.stand().grab().toImage()));
    QTest::mouseClick(swap, Qt::LeftButton);
    b.settle();
    CHECK_FALSE(b.window.stand().isVisible());
    b.key(Qt::Key_F7, Qt::NoModifier);
    CHECK(b.window.stand().isVisible());
    // It is Heat's own way to look: elsewhere there is nothing to swap.
    b.window.show_stage(Stage::run);
    b.settle();
    CHECK_FALSE(swap->isVisible());
    CHECK_FALSE(b.window.stand().isVisible());
    b.window.show_stage(Stage::heat);
    b.settle();
    CHECK(b.window.stand().isVisible());
    b.window.document().undo();
    b.settle();
    b.choose("/heat/shows", "shell on its plug");
    // In the room only what runs hottest is read.
    const auto cold = heat_scene(b);
    CHECK(labels_with(cold, "the slowest") == 0);
    CHECK(labels_with(cold, "the hottest") == 1);
    b.window.document().undo();
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().job().heat.shows == CureOf::part);
}

TEST_CASE("an oven that is kept stands in every new job, and the shop's other figures stay") {
    QSettings().remove("shop");
    {
        auto scratch = fresh_job();
        scratch.brief.oven_x = 3.3;
        keep_shop_figures(scratch);
    }
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    b.press("oven-nine");
    b.type_cell("oven-map", 0, 3, "-3");
    b.choose("/heat/oven/build", "tent of film with a heater");
    b.type("/heat/oven/power", "9");
    b.press("oven-keep");
    CHECK(b.message().contains("new jobs begin with this oven"));
    const auto fresh = fresh_job();
    CHECK(fresh.heat.oven.build == "tent of film with a heater");
    CHECK(fresh.heat.oven.power == Approx(9000));
    REQUIRE(fresh.heat.oven.map.size() == 9);
    CHECK(fresh.heat.oven.map[0].off == Approx(-3));
    CHECK(fresh.brief.oven_x == Approx(3.3));
    // As it was kept by a program that knew Brief's figures alone.
    QSettings().setValue("shop", R"({"oven_x": 2.7, "people": 3})");
    CHECK(fresh_job().brief.oven_x == Approx(2.7));
    CHECK(fresh_job().brief.people == 3);
    QSettings().remove("shop");
    CHECK(fresh_job() == Job());
}
