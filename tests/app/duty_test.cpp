// What the part carries, in the real window: loads added and typed, pushes and bolts, seen bent on the stand.
#include <QApplication>
#include <QComboBox>

#include "core/stages/part/trial.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

struct DutyBench : Bench {
    explicit DutyBench(const QString& demo = "cello-case") : Bench(demo) {
        window.show_stage(Stage::part);
        settle();
    }
    [[nodiscard]] const part::Duty& duty() { return window.document().job().part.duty; }
    void tried() {
        REQUIRE(bench::tried(window.document()));
        settle();
    }
};

}  // namespace

TEST_CASE("a load is added, typed, tried out and seen bent, and its pushes stand on the stand as arrows") {
    DutyBench b;
    CHECK_THAT(b.visible<QLabel>("part-trial-state")->text().toStdString(),
               Catch::Contains("Nothing so far"));
    CHECK_FALSE(b.visible<QPushButton>("part-bent")->isEnabled());
    b.press("add-load");
    REQUIRE(b.duty().loads.size() == 1);
    b.type_cell("part-loads", 0, 0, "a lid on top");
    b.type_cell("part-loads", 0, 1, "0,5");
    CHECK(b.duty().loads[0].name == "a lid on top");
    CHECK(b.duty().loads[0].pressure == Approx(500));
    b.tried();
    const auto trial = b.window.document().findings().part_trial;
    REQUIRE(trial);
    CHECK(trial->fine);
    CHECK(b.cell("part-loads", 0, 3) == QString::fromStdString(show(Kind::thickness, trial->loads[0].moves)));
    CHECK(b.cell("part-loads", 0, 4).endsWith("×"));
    CHECK_FALSE(b.figure("part_gives").isEmpty());
    CHECK_FALSE(b.figure("part_holds").isEmpty());
    // Twice the pressure without its weight gives twice as much: figures follow what is typed.
    b.type_cell("part-loads", 0, 2, "0");
    b.tried();
    const double once = b.window.document().findings().part_trial->loads[0].moves;
    b.type_cell("part-loads", 0, 1, "1");
    b.tried();
    CHECK(b.window.document().findings().part_trial->loads[0].moves == Approx(2 * once));
    // A push of its own.
    b.press("add-push");
    REQUIRE(b.duty().loads[0].pushes.size() == 1);
    b.type_cell("part-pushes", 0, 0, "450");
    b.type_cell("part-pushes", 0, 1, "120");
    CHECK(b.duty().loads[0].pushes[0].force == Approx(450));
    CHECK(b.duty().loads[0].pushes[0].along == Approx(0.12));
    b.tried();
    b.press("part-bent");
    const auto& scene = b.window.stand().scene();
    CHECK(scene.slider == "bend");
    CHECK(scene.legend.contains("a lid on top"));
    CHECK(std::any_of(scene.labels.begin(), scene.labels.end(),
                      [](const auto& l) { return l.text.contains("450 N"); }));
    CHECK(shows_something(b.window.stand().grab().toImage()));
    // Pushed there, its rim comes off what it rests on: marked is where it lies, and the figure says how
    // much.
    const auto loaded = b.window.document().findings().part_trial;
    const auto& pushed = loaded->loads[0];
    REQUIRE(pushed.lifted > 0.01);
    const auto marks = std::count_if(scene.lines.begin(), scene.lines.end(), [](const SceneLine& l) {
        return l.points.size() == 2 && l.colour == ink(Light::day).clay;
    });
    CHECK(marks == static_cast<std::ptrdiff_t>(pushed.lies.size()));
    CHECK(pushed.lies.size() < loaded->held.size());
    CHECK(scene.legend.contains("its rim lies where it is marked"));
    // Elsewhere and back: the button and the stand say the same.
    b.window.show_stage(Stage::edge);
    b.settle();
    b.window.show_stage(Stage::part);
    b.settle();
    CHECK(b.visible<QPushButton>("part-bent")->isChecked() == (b.window.stand().scene().slider == "bend"));
    if (!b.visible<QPushButton>("part-bent")->isChecked()) b.press("part-bent");
    CHECK(b.window.stand().scene().slider == "bend");
    b.press("part-bent");
    CHECK(b.window.stand().scene().slider != "bend");
    // Each step of it can be taken back, to the part without loads.
    for (int i = 0; i < 12 && !b.duty().loads.empty(); ++i) b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.duty().loads.empty());
    CHECK(b.figure("part_gives").isEmpty());
}

TEST_CASE("how the part is held is chosen in its sentence; bolts and ranges are asked for where they lack") {
    DutyBench b("pavilion-petal");
    b.tried();
    REQUIRE(b.duty().loads.size() == 3);
    CHECK(b.table("part-loads")->rowCount() == 3);
    // On paper and in a table it stands as on screen.
    b.write_out("x-loads", b.file("loads.csv"));
    QFile csv(b.file("loads.csv"));
    REQUIRE(csv.open(QIODevice::ReadOnly));
    const auto lines = QString::fromUtf8(csv.readAll()).split('\n', Qt::SkipEmptyParts);
    REQUIRE(lines.size() == 4);
    CHECK(lines[1].startsWith("wet snow,"));
    CHECK(lines[1].split(',').size() == lines[0].split(',').size() + 1);  // the load's words hold a comma
    const double held = b.window.document().findings().part_trial->loads[0].moves;
    b.choose("/part/duty/hold", "is bolted at places");
    CHECK(b.duty().hold == PartHold::places);
    b.tried();
    // No bolt so far: a stop says so, and no older figure stands.
    CHECK(b.call_row("input") != nullptr);
    CHECK(b.figure("part_gives").isEmpty());
    const std::vector<std::pair<const char*, const char*>> bolts{
        {"-900", "0"}, {"0", "-480"}, {"900", "0"}, {"0", "480"}};
    for (std::size_t i = 0; i < bolts.size(); ++i) {
        b.press("add-bolt");
        b.type_cell("part-bolts", static_cast<int>(i), 0, bolts[i].first);
        b.type_cell("part-bolts", static_cast<int>(i), 1, bolts[i].second);
    }
    b.tried();
    REQUIRE(b.window.document().findings().part_trial);
    CHECK(b.window.document().findings().part_trial->loads[0].moves > held);
    // Out of range: refused with the reason, nothing changed.
    b.type_cell("part-bolts", 0, 0, "99999999");
    CHECK(b.duty().places[0].along == Approx(-0.9));
    CHECK_FALSE(b.message().isEmpty());
    // The weight's way belongs to the load that is chosen.
    b.table("part-loads")->setCurrentCell(1, 0);
    b.settle();
    auto* way = b.visible<QComboBox>("load-way");
    way->setFocus();
    QTest::keyClick(way, Qt::Key_Down);
    b.settle();
    CHECK(b.duty().loads[1].way == PartWeight::onto_inside);
    CHECK(b.duty().loads[0].way == PartWeight::onto_outside);
    // In other units the table says them, and reads them back.
    b.window.set_wording({UnitSystem::imperial, "¤"});
    b.settle();
    CHECK(b.table("part-bolts")->horizontalHeaderItem(0)->text().contains("in"));
    b.type_cell("part-bolts", 0, 0, "-35");
    CHECK(b.duty().places[0].along == Approx(-0.889));
}
